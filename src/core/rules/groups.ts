/** Findings that are alike, as one: with a count, one sentence and one cure for all. */
import type { Job } from '../document/schema';
import type { Finding, Severity } from '../inspect/finding';
import { type Mending, mendingOf } from './mend';
import type { Seen } from './rule';
import { MANY, MENDS } from './rules';

/** Findings of one kind, the first of them first; one that is alone is a group of itself. */
export type FindingGroup = {
  readonly key: string;
  readonly severity: Severity;
  readonly sentence: string;
  readonly findings: readonly Finding[];
};

const RANK: Readonly<Record<Severity, number>> = { fault: 3, caution: 2, note: 1 };

/** The gravest of them. */
export const worstOf = (findings: readonly Pick<Finding, 'severity'>[]): Severity =>
  findings.reduce<Severity>((worst, { severity }) => (RANK[severity] > RANK[worst] ? severity : worst), 'note');

/** Alike are those of one rule at one station; groups come in the order of their first. */
export function groupsOf(findings: readonly Finding[]): FindingGroup[] {
  const byKind = new Map<string, Finding[]>();
  for (const finding of findings) {
    const kind = `${finding.code}|${finding.station}`;
    const group = byKind.get(kind);
    if (group) group.push(finding);
    else byKind.set(kind, [finding]);
  }
  return [...byKind.values()].map((alike) => {
    const first = alike[0] as Finding;
    return {
      key: alike.length === 1 ? first.key : `all ${first.code}|${first.station}`,
      severity: worstOf(alike),
      sentence: alike.length === 1 ? first.sentence : sentenceOf(first, alike.length),
      findings: alike,
    };
  });
}

const sentenceOf = ({ code, sentence }: Finding, count: number): string =>
  MANY.get(code)?.(count) ?? `${sentence} And ${count - 1} more like it.`;

/** What is to be looked at: groups of findings that are not left as they are. */
export const openGroups = (findings: readonly Finding[]): FindingGroup[] =>
  groupsOf(findings.filter((f) => f.leftReason === null));

/** How all findings of a group are mended at a press; null where one of them is not, or takes more than a press. */
export function mendingOfAll(job: Job, { findings }: FindingGroup): Extract<Mending, { run: unknown }> | null {
  const mendings = findings.map((finding) => mendingOf(job, finding));
  const runs = mendings.flatMap((mending) => (mending && 'run' in mending ? [mending] : []));
  const [first] = runs;
  if (!first || runs.length < mendings.length) return null;
  // What mends all of a part at once is done once.
  const toDo = new Map(findings.map(({ code, partId, mend }, i) => [JSON.stringify([code, partId, mend]), runs[i]]));
  const known = MENDS.get(findings[0]?.code ?? '');
  const all = known?.by === 'command' ? known.mend.all : undefined;
  return {
    words: all ?? (toDo.size === 1 ? first.words : `${first.words}: all ${toDo.size}`),
    run: (now: Job, seen: Seen) => [...toDo.values()].reduce((next, mending) => mending?.run(next, seen) ?? next, now),
  };
}
