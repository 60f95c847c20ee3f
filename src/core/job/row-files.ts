/** Files of the rows of a roster: for each its own, byte for byte those of a job of its own; and a list of what is where. */
import { zipSync } from 'fflate';
import type { Job } from '../document/schema';
import type { FaceLookup } from '../prepare/prepared';
import type { FilledWith } from '../roster/fields';
import { rowTitle } from '../roster/in-row';
import type { Evaluator, JobResult, Progress } from './evaluate';
import type { ExportScope } from './export';
import type { MadeFiles, WrittenFile } from './files';
import { cellsOf, listFile } from './list-file';
import { rowSteps } from './rows';

/** Writes the files of one job in one scope. */
export type WriteOne = (
  job: Job,
  result: JobResult,
  scope: ExportScope,
) => Generator<Progress, MadeFiles> | Generator<number, MadeFiles>;

/** The files of a row. */
export type RowFiles = { readonly rowId: string; readonly nth: number; readonly files: readonly WrittenFile[] };

/** Files of all rows, or none and why. */
export type MadeRowFiles = { readonly rows: readonly RowFiles[]; readonly refused: readonly string[] };

/** Names that files of different rows share are told apart by a number behind them. */
export function apart(rows: readonly RowFiles[]): RowFiles[] {
  const taken = new Set<string>();
  return rows.map((row) => ({
    ...row,
    files: row.files.map((file) => {
      const dot = file.name.lastIndexOf('.');
      const [stem, ending] = dot > 0 ? [file.name.slice(0, dot), file.name.slice(dot)] : [file.name, ''];
      let name = file.name;
      for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${stem}_${n}${ending}`;
      taken.add(name.toLowerCase());
      return { ...file, name };
    }),
  }));
}

/** Write the files of all rows that are made; of those asked for, where ids are given. Yields how many are done. */
export function* rowFiles(
  job: Job,
  {
    filling,
    rowIds,
    scope,
    write,
    ...means
  }: {
    readonly filling: FilledWith;
    readonly rowIds: readonly string[] | null;
    readonly scope: ExportScope;
    readonly write: WriteOne;
    readonly evaluator: Evaluator;
    readonly faces: FaceLookup;
  },
): Generator<Progress, MadeRowFiles> {
  const wanted = (job.roster?.rows ?? []).flatMap((row, nth) =>
    !row.out && (rowIds === null || rowIds.includes(row.id)) ? [{ row, nth }] : [],
  );
  const rows: RowFiles[] = [];
  const refused: string[] = [];
  for (const { row, nth } of wanted) {
    const progress = { done: rows.length, of: wanted.length };
    const steps = rowSteps(job, nth, filling, means);
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield progress;
    const { job: own, result } = step.value;
    const writing = write(own, result, { ...scope, row: rowTitle(job, nth) });
    let written = writing.next();
    for (; !written.done; written = writing.next()) yield progress;
    refused.push(...written.value.refused.map((sentence) => `${rowTitle(job, nth)}: ${sentence}`));
    rows.push({ rowId: row.id, nth, files: written.value.files });
    yield { done: rows.length, of: wanted.length };
  }
  return refused.length > 0 ? { rows: [], refused } : { rows: apart(rows), refused };
}

/** Files packed into one: more are too many to be handed over one by one. The same files come to the same bytes. */
export function packed(name: string, files: readonly WrittenFile[]): WrittenFile {
  // The first day that zip files can tell.
  const mtime = new Date(1980, 0, 1);
  return { name, bytes: zipSync(Object.fromEntries(files.map((f) => [f.name, [f.bytes, { mtime }]] as const))) };
}

/** A list of what is in which file. */
export function rowList(job: Job, rows: readonly RowFiles[], filling: FilledWith): WrittenFile {
  const head = ['No.', ...(job.roster?.columns ?? []).map((c) => c.name), 'Copies', 'Files'];
  const body = rows.map(({ nth, files }) => [
    String(nth + 1),
    ...cellsOf(job, nth, filling),
    String(job.roster?.rows[nth]?.copies ?? 1),
    files.map((f) => f.name).join(' '),
  ]);
  return listFile(job, [head, ...body]);
}
