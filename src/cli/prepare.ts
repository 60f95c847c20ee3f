/** `needlefile prepare`: a job document, or a job taken along, in, machine files and a report out. No browser, no database. */

import path from 'node:path';
import type { FileFormat } from '../core/formats/written';
import { allFiles, makeFiles } from '../core/job/files';
import { type Report, reportOf, type SheetReports } from '../core/job/report';
import { finished } from '../core/memo';
import { evaluated, type JobOptions } from './evaluated';
import { type FileToWrite, writeAll } from './write-all';

/** What the command is asked to do. */
export type PrepareOptions = JobOptions & {
  readonly out: string | null;
  readonly formats: readonly FileFormat[];
  readonly report: string | null;
  /** The day the files are given out, "2026-05-04"; null where it is not said. */
  readonly date: string | null;
};

/**
 * Exit codes: 0 done, 1 a file that is not given out because it is not what was drawn, or findings that would spoil the work
 * (these only with --strict), 2 the input can't be used.
 */
export type ExitCode = 0 | 1 | 2;

type Say = (line: string) => void;

/** Prepares a job document: writes its files, and says its report. Returns how the process is to end. */
export async function prepare(options: PrepareOptions, say: Say, complain: Say): Promise<ExitCode> {
  const made = await evaluated(options, complain);
  if ('sentences' in made) {
    for (const sentence of made.sentences) complain(sentence);
    return 2;
  }
  const { job, sheets } = made;
  const toWrite: FileToWrite[] = [];
  let isRefused = false;
  if (options.out && options.formats.length > 0) {
    const scope = { partIds: null, ...(options.date && { date: options.date }) };
    const { files, refused } = allFiles(
      sheets.map((one) => finished(makeFiles(one.job, one.result, options.formats, scope))),
    );
    if (options.date === null && job.export.nameFields.includes('date'))
      complain('Names of this job’s files have the date in them: say it with --date, or they go without.');

    for (const sentence of refused) complain(sentence);
    isRefused = refused.length > 0;
    if (files.length + refused.length === 0)
      complain('Nothing is given to an operation that is on, so no file is written.');
    for (const { name, bytes } of files) toWrite.push({ file: path.join(options.out, name), bytes, isSaid: true });
  }
  if (options.report && !isRefused) {
    const reports = sheets.map((one) => reportOf(one.job, one.result));
    const [only] = reports;
    const report: Report | SheetReports | undefined = reports.length > 1 ? { title: job.title, sheets: reports } : only;
    const text = `${JSON.stringify(report, null, 2)}\n`;
    toWrite.push({ file: options.report, bytes: new TextEncoder().encode(text), isSaid: false });
  }
  const trouble = await writeAll(toWrite);
  if (trouble) {
    complain(trouble);
    return 2;
  }
  for (const { file, isSaid } of toWrite) if (isSaid) say(file);
  const findings = sheets.flatMap((one) => one.result.findings);
  for (const finding of findings) if (finding.leftReason === null) say(`${finding.severity}: ${finding.sentence}`);
  const spoiled = findings.some((f) => f.severity === 'fault' && f.leftReason === null);
  return isRefused || (options.strict && spoiled) ? 1 : 0;
}
