/** `needlefile prepare`: a job document, or a job taken along, in, machine files and a report out. No browser, no database. */

import path from 'node:path';
import type { Job } from '../core/document/schema';
import { allFiles, makeFiles } from '../core/job/files';
import { type Report, reportOf, type SheetReports } from '../core/job/report';
import { finished } from '../core/memo';
import { type AtHand, atHand, type JobOptions, type Lasting, sheetsEvaluated } from './evaluated';
import { type LaidReport, preparedLaid } from './prepare-laid';
import { listFrom, type PreparedRows, preparedRows, type RowsAsked } from './prepare-rows';
import { type FileToWrite, writeAll } from './write-all';

/** What the command is asked to do. */
export type PrepareOptions = JobOptions &
  RowsAsked & {
    /** A list of names in the place of the job's own; null for that. */
    readonly roster: string | null;
  };

/**
 * Exit codes: 0 done, 1 a file that is not given out because it is not what was drawn, or findings that would spoil the work
 * (these only with --strict), 2 the input can't be used.
 */
export type ExitCode = 0 | 1 | 2;

type Say = (line: string) => void;

/** What a job, or each row of its list of names, came to. */
type Prepared = Pick<PreparedRows, 'refused' | 'findings' | 'isSpoiled'> & {
  readonly toWrite: readonly FileToWrite[];
  readonly report: Report | SheetReports | PreparedRows['report'] | LaidReport | undefined;
};

/** Prepares a job document: writes its files, and says its report. Returns how the process is to end. */
export async function prepare(options: PrepareOptions, say: Say, complain: Say, lasting?: Lasting): Promise<ExitCode> {
  const list = options.roster === null ? (job: Job) => job : await listFrom(options.roster, complain);
  const ready = 'sentences' in list ? list : await atHand(options, complain, list, lasting);
  if ('sentences' in ready) {
    for (const sentence of ready.sentences) complain(sentence);
    return 2;
  }
  const { job } = ready;
  const isToWrite = options.out !== null && options.formats.length > 0;
  if (isToWrite && options.date === null && job.export.nameFields.includes('date'))
    complain('Names of this job’s files have the date in them: say it with --date, or they go without.');
  if (options.date === null && job.roster?.columns.some((column) => column.kind === 'date' && column.on === null))
    complain('The list of names has the date in it: say it with --date, or it stays empty.');
  const made = !job.roster
    ? prepared(options, ready)
    : job.layout
      ? preparedLaid(options, job.layout, ready, complain)
      : preparedRows(options, ready, complain);
  for (const sentence of made.refused) complain(sentence);
  const isRefused = made.refused.length > 0;
  if (isToWrite && made.toWrite.length + made.refused.length === 0)
    complain('Nothing is given to an operation that is on, so no file is written.');
  const toWrite: FileToWrite[] = isRefused ? [] : [...made.toWrite];
  if (options.report && !isRefused) {
    const text = `${JSON.stringify(made.report, null, 2)}\n`;
    toWrite.push({ file: options.report, bytes: new TextEncoder().encode(text), isSaid: false });
  }
  const trouble = await writeAll(toWrite);
  if (trouble) {
    complain(trouble);
    return 2;
  }
  for (const { file, isSaid } of toWrite) if (isSaid) say(file);
  for (const { severity, sentence } of made.findings) say(`${severity}: ${sentence}`);
  return isRefused || (options.strict && made.isSpoiled) ? 1 : 0;
}

/** A job without a list of names, with a report of each of its sheets. */
function prepared({ out, formats, date, report }: PrepareOptions, ready: AtHand): Prepared {
  const sheets = sheetsEvaluated(ready.job, ready);
  const scope = { partIds: null, ...(date && { date }) };
  const { files, refused } =
    out && formats.length > 0
      ? allFiles(sheets.map((one) => finished(makeFiles(one.job, one.result, formats, scope))))
      : { files: [], refused: [] };
  const reports = report ? sheets.map((one) => reportOf(one.job, one.result)) : [];
  const open = sheets.flatMap((one) => one.result.findings).filter((f) => f.leftReason === null);
  return {
    toWrite: files.map(({ name, bytes }) => ({ file: path.join(out ?? '', name), bytes, isSaid: true })),
    refused,
    report: reports.length > 1 ? { title: ready.job.title, sheets: reports } : reports[0],
    findings: open,
    isSpoiled: open.some((f) => f.severity === 'fault'),
  };
}
