/** What there is to say of the rows that were looked over: how many come off as one piece, and what was found how often. */
import type { Roster } from '@/core/document/schema';
import type { Finding, Severity } from '@/core/inspect/finding';
import type { RowSeen } from '@/core/job/rows';
import { groupsOf, openGroups, worstOf } from '@/core/rules/groups';

/** Something that was found in some rows: its rule, how grave it is at most, its words, and the rows. */
export type FoundInRows = {
  readonly code: string;
  readonly severity: Severity;
  readonly words: string;
  readonly rowIds: readonly string[];
  /** One of them, for what mends it. */
  readonly example: Finding;
};

const RANK: Readonly<Record<Severity, number>> = { fault: 0, caution: 1, note: 2 };

/** How grave a row is: the worst of what is found in it and was not left as it is; null for nothing. */
export function severityOf(seen: RowSeen | undefined): Severity | null {
  const open = seen?.findings.filter((f) => f.leftReason === null) ?? [];
  return open.length > 0 ? worstOf(open) : null;
}

/** Rows as they are looked over: the worst first, then in their order. */
export function worstFirst<R extends { readonly id: string }>(
  rows: readonly R[],
  seen: ReadonlyMap<string, RowSeen>,
): R[] {
  const rank = (row: R): number => {
    const severity = severityOf(seen.get(row.id));
    return severity === null ? 3 : RANK[severity];
  };
  return rows
    .map((row, i) => ({ row, rank: rank(row), i }))
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .map(({ row }) => row);
}

/** What is found in rows, by rule, the gravest first, then what is found most often. */
export function foundInRows(roster: Roster, seen: ReadonlyMap<string, RowSeen>): FoundInRows[] {
  const byCode = new Map<string, { rowIds: string[]; findings: Finding[] }>();
  for (const row of roster.rows) {
    if (row.out) continue;
    for (const { findings } of openGroups(seen.get(row.id)?.findings ?? [])) {
      const [first] = findings;
      if (!first) continue;
      const known = byCode.get(first.code) ?? { rowIds: [], findings: [] };
      known.rowIds.push(row.id);
      // One of each row: what is said of several counts rows.
      known.findings.push(findings.find((f) => f.mend !== null) ?? first);
      byCode.set(first.code, known);
    }
  }
  return [...byCode]
    .map(([code, { rowIds, findings }]) => ({
      code,
      severity: worstOf(findings),
      words: wordsOf(findings),
      rowIds,
      example: findings.find((f) => f.mend !== null) ?? (findings[0] as Finding),
    }))
    .sort((a, b) => RANK[a.severity] - RANK[b.severity] || b.rowIds.length - a.rowIds.length);
}

/** What is said of findings of several rows. */
const wordsOf = (findings: readonly Finding[]): string => {
  const [group] = groupsOf(findings);
  return group?.sentence ?? '';
};

/** "18 of 20 come off as one piece"; "" where nothing of it is known. */
export function onePieceWords(roster: Roster, seen: ReadonlyMap<string, RowSeen>): string {
  const made = roster.rows.flatMap((row) => (row.out ? [] : (seen.get(row.id) ?? [])));
  if (made.length === 0) return '';
  const whole = made.filter((row) => row.isOnePiece).length;
  if (made.length === 1) return whole === 1 ? 'It comes off as one piece' : 'It comes off in pieces';
  return whole === made.length
    ? `All ${made.length} come off as one piece`
    : `${whole} of ${made.length} come off as one piece`;
}
