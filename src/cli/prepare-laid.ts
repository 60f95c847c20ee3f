/** `needlefile prepare` for names that are laid on sheets: files of each sheet, a list of what is where, a report of each sheet. */
import path from 'node:path';
import type { Job } from '../core/document/schema';
import { makeFiles } from '../core/job/files';
import { laidRows } from '../core/job/laid-rows';
import { jobOfSheet, placesOn, sheetFindings, sheetsLaid } from '../core/job/laid-sheets';
import { type Report, reportOf } from '../core/job/report';
import { placeList, sheetFiles } from '../core/job/sheet-files';
import { finished } from '../core/memo';
import { rowTitle } from '../core/roster/in-row';
import type { RowLayout } from '../core/schema/layout';
import type { AtHand } from './evaluated';
import { type PreparedRows, preparedRows, type RowReport, type RowsAsked, type Say } from './prepare-rows';

/** What the command says of a row that is laid: by itself, and which sheets it lies on, from 1. */
export type LaidRowReport = RowReport & { readonly onSheets: readonly number[] };

/** What the command says of sheets with names laid on them. */
export type LaidReport = {
  readonly title: string;
  /** Share of the sheets that is needed, 0 to 1; null where the document says where names lie. */
  readonly needed: number | null;
  readonly notLaid: readonly string[];
  readonly rows: readonly LaidRowReport[];
  readonly sheets: readonly (Report & { readonly nth: number; readonly files: readonly string[] })[];
};

/** Why a name finds no place. */
function noPlace({ sheet }: Job, { way }: RowLayout): string {
  if (way === 'blanks') return 'is larger than its blank.';
  return sheet.offCut && way === 'nested'
    ? 'finds no room on the off-cut.'
    : 'is larger than the sheet within its margin.';
}

/** The job with its names laid: as its document says, or anew where that says nothing of some of them. */
function laid(job: Job, layout: RowLayout, ready: AtHand, filling: { today: string }) {
  const known = new Set(layout.places.map(({ row, copy }) => `${row} ${copy}`));
  const made = (job.roster?.rows ?? []).filter((row) => !row.out);
  const isWhole = made.every((row) =>
    Array.from({ length: row.copies }, (_, i) => `${row.id} ${i}`).every((k) => known.has(k)),
  );
  if (isWhole) return { job, needed: null, notLaid: [] };
  const found = finished(laidRows(job, { filling, layout }, ready));
  const nameOf = (id: string) =>
    rowTitle(
      job,
      (job.roster?.rows ?? []).findIndex((row) => row.id === id),
    );
  return {
    job: { ...job, layout: { ...layout, places: [...found.places] } },
    needed: found.needed,
    notLaid: [
      ...found.tooLarge.map((id) => `${nameOf(id)} ${noPlace(job, layout)}`),
      ...found.takesSheet.map(
        (id) => `${nameOf(id)} is cut out of the sheet itself: give it a plate to lay several on one.`,
      ),
    ],
  };
}

/** Prepare the sheets of names. */
export function preparedLaid(
  options: RowsAsked,
  layout: RowLayout,
  ready: AtHand,
  say: Say,
): Omit<PreparedRows, 'report'> & { readonly report: LaidReport } {
  const filling = { today: options.date ?? '' };
  const { job, needed, notLaid } = laid(ready.job, layout, ready, filling);
  const isToWrite = options.out !== null && options.formats.length > 0;
  const { sheets, refused } = isToWrite
    ? finished(
        sheetFiles(job, {
          filling,
          scope: { partIds: null, ...(options.date && { date: options.date }) },
          write: (one, result, scope) => makeFiles(one, result, options.formats, scope),
          evaluator: ready.evaluator,
          faces: ready.faces,
        }),
      )
    : { sheets: [], refused: [] };
  // Each row by itself, as it is set; then what is found about sheets as a whole.
  const byRow = preparedRows({ ...options, out: null }, { ...ready, job }, say);
  const findings = [...byRow.findings];
  for (const sentence of notLaid) findings.push({ severity: 'fault', sentence });
  for (const { sheet, severity, sentence } of finished(sheetFindings(job, filling, ready)))
    findings.push({ severity, sentence: `sheet ${sheet + 1}: ${sentence}` });
  const filesOf = (sheet: number) => sheets.find((one) => one.sheet === sheet)?.files.map((f) => f.name) ?? [];
  const count = sheetsLaid(job);
  const reports = Array.from({ length: count }, (_, sheet) => {
    const own = jobOfSheet(job, sheet, filling);
    return { nth: sheet + 1, files: filesOf(sheet), ...reportOf(own, ready.evaluator.evaluate(own, ready.faces)) };
  });
  const rows = byRow.report.rows.map((row): LaidRowReport => {
    const on = Array.from({ length: count }, (_, sheet) => sheet).filter((sheet) =>
      placesOn(job, sheet).some((place) => place.row === job.roster?.rows[row.row - 1]?.id),
    );
    return { ...row, onSheets: on.map((sheet) => sheet + 1), files: on.flatMap(filesOf) };
  });
  const files = sheets.flatMap((one) => one.files);
  const list = files.length > 0 ? [placeList(job, sheets, filling)] : [];
  return {
    toWrite: [...files, ...list].map(({ name, bytes }) => ({
      file: path.join(options.out ?? '', name),
      bytes,
      isSaid: true,
    })),
    refused,
    report: { title: job.title, needed, notLaid, rows, sheets: reports },
    findings,
    isSpoiled: findings.some((f) => f.severity === 'fault'),
  };
}
