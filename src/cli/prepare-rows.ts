/** `needlefile prepare` for a job that is made for a list of names: files of each row, a list of what is where, a report by row. */
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Job } from '../core/document/schema';
import type { FileFormat } from '../core/formats/written';
import { allFiles, makeFiles } from '../core/job/files';
import { type Report, reportOf } from '../core/job/report';
import { apart, type RowFiles, rowList } from '../core/job/row-files';
import { fieldFindings, ofRow } from '../core/job/rows';
import { LIMITS } from '../core/limits';
import { finished } from '../core/memo';
import { cellOf } from '../core/roster/fields';
import { jobInRow, rowTitle } from '../core/roster/in-row';
import { readList } from '../core/roster/read-list';
import { withList } from '../core/roster/with-list';
import { type AtHand, sheetsEvaluated } from './evaluated';
import { type Refused, refuse } from './refused';
import type { FileToWrite } from './write-all';

/** Hears how far it is. */
export type Say = (line: string) => void;

/** A list of names from disk put into jobs; or sentences why it can’t be used. */
export async function listFrom(file: string, complain: Say): Promise<((job: Job) => Job) | Refused> {
  const size = await stat(file).then(
    (s) => (s.isFile() ? s.size : null),
    () => null,
  );
  if (size === null) return refuse(`There is no file ${file}.`);
  if (size > LIMITS.listBytes) return refuse(`${file} has more than ${LIMITS.listBytes / 1024 / 1024} MB.`);
  const bytes = await readFile(file).catch(() => null);
  if (!bytes) return refuse(`${file} can’t be read.`);
  const list = readList(new Uint8Array(bytes));
  if (!list.ok) return refuse(`${file}: ${list.sentence}`);
  for (const note of list.notes) complain(`${file}: ${note}`);
  return (job) => withList(job, list);
}

/** What is asked for rows. */
export type RowsAsked = {
  /** Folder for the files; null for none. */
  readonly out: string | null;
  readonly formats: readonly FileFormat[];
  /** File for the report; null for none. */
  readonly report: string | null;
  /** The day the files are given out, "2026-05-04"; null where it is not said. */
  readonly date: string | null;
};

/** What the command says of a row. */
export type RowReport = {
  /** From 1. */
  readonly row: number;
  readonly name: string;
  readonly copies: number;
  readonly cells: Readonly<Record<string, string>>;
  /** Whether a fault that was not left as it is would spoil it. */
  readonly spoiled: boolean;
  readonly files: readonly string[];
  readonly fields: readonly { readonly code: string; readonly severity: string; readonly sentence: string }[];
  readonly sheets: readonly Report[];
};

/** What rows came to. */
export type PreparedRows = {
  readonly toWrite: readonly FileToWrite[];
  readonly refused: readonly string[];
  readonly report: { readonly title: string; readonly rows: readonly RowReport[] };
  readonly findings: readonly { readonly severity: string; readonly sentence: string }[];
  readonly isSpoiled: boolean;
};

/** Prepare every row that is made, one after the other: none is held longer than it takes. */
export function preparedRows(options: RowsAsked, { job, evaluator, faces }: AtHand, say: Say): PreparedRows {
  const filling = { today: options.date ?? '' };
  const rows: RowFiles[] = [];
  const reports: Omit<RowReport, 'files'>[] = [];
  const refused: string[] = [];
  const findings: { severity: string; sentence: string }[] = [];
  let isSpoiled = false;
  job.roster?.rows.forEach((row, nth) => {
    if (row.out) return;
    const name = rowTitle(job, nth);
    const sheets = sheetsEvaluated(jobInRow(job, nth, filling), { evaluator, faces });
    const scope = { partIds: null, row: name, ...(options.date && { date: options.date }) };
    const made =
      options.out && options.formats.length > 0
        ? allFiles(sheets.map((one) => finished(makeFiles(one.job, one.result, options.formats, scope))))
        : { files: [], refused: [] };
    refused.push(...made.refused.map((sentence) => `${name}: ${sentence}`));
    rows.push({ rowId: row.id, nth, files: made.files });
    const fields = fieldFindings(job, nth, filling);
    const open = [...fields, ...sheets.flatMap((one) => ofRow(job, one.result.findings))].filter(
      (f) => f.leftReason === null,
    );
    const spoiled = open.some((f) => f.severity === 'fault');
    isSpoiled ||= spoiled;
    for (const { severity, sentence } of open)
      findings.push({ severity, sentence: `row ${nth + 1}, ${name}: ${sentence}` });
    reports.push({
      row: nth + 1,
      name,
      copies: row.copies,
      cells: Object.fromEntries(
        (job.roster?.columns ?? []).map((column, index) => [column.name, cellOf(column, { index, row, nth }, filling)]),
      ),
      spoiled,
      fields: fields.map(({ code, severity, sentence }) => ({ code, severity, sentence })),
      sheets: options.report ? sheets.map((one) => reportOf(one.job, one.result)) : [],
    });
    if (rows.length % SAID_EVERY === 0) say(`${rows.length} of ${job.roster?.rows.length} rows`);
  });
  const named = apart(rows);
  const { out } = options;
  const files = out ? named.flatMap((row) => row.files) : [];
  const list = out && files.length > 0 ? [rowList(job, named, filling)] : [];
  return {
    toWrite: [...files, ...list].map(({ name, bytes }) => ({
      file: path.join(out ?? '', name),
      bytes,
      isSaid: true,
    })),
    refused,
    report: {
      title: job.title,
      rows: reports.map((report, i) => ({ ...report, files: (named[i] as RowFiles).files.map((f) => f.name) })),
    },
    findings,
    isSpoiled,
  };
}

/** Rows after which it is said how far it is. */
const SAID_EVERY = 100;
