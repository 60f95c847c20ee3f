/** Files of the sheets that names were laid on: in the order over the whole sheet; and a list of what is where. */
import type { Job } from '../document/schema';
import type { FaceLookup } from '../prepare/prepared';
import type { FilledWith } from '../roster/fields';
import type { Evaluator, Progress } from './evaluate';
import type { ExportScope } from './export';
import type { WrittenFile } from './files';
import { jobOfSheet, placesOn, sheetsLaid } from './laid-sheets';
import { cellsOf, listFile } from './list-file';
import type { WriteOne } from './row-files';

/** The files of a sheet, from 0. */
export type SheetFiles = { readonly sheet: number; readonly files: readonly WrittenFile[] };

/** What a sheet is called in names of files. */
const sheetName = (sheet: number): string => `sheet ${sheet + 1}`;

/** Write the files of all sheets; none and why where one of them can't be given out. Yields how many are done. */
export function* sheetFiles(
  job: Job,
  {
    filling,
    scope,
    write,
    evaluator,
    faces,
  }: {
    readonly filling: FilledWith;
    readonly scope: ExportScope;
    readonly write: WriteOne;
    readonly evaluator: Evaluator;
    readonly faces: FaceLookup;
  },
): Generator<Progress, { readonly sheets: readonly SheetFiles[]; readonly refused: readonly string[] }> {
  const count = sheetsLaid(job);
  const sheets: SheetFiles[] = [];
  const refused: string[] = [];
  for (let sheet = 0; sheet < count; sheet++) {
    const progress = { done: sheet, of: count };
    const own = jobOfSheet(job, sheet, filling);
    if (own.parts.length === 0) continue;
    const steps = evaluator.steps(own, faces);
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield progress;
    const writing = write(own, step.value, { ...scope, row: sheetName(sheet) });
    let written = writing.next();
    for (; !written.done; written = writing.next()) yield progress;
    refused.push(...written.value.refused.map((sentence) => `Sheet ${sheet + 1}: ${sentence}`));
    sheets.push({ sheet, files: written.value.files });
    yield { done: sheet + 1, of: count };
  }
  return refused.length > 0 ? { sheets: [], refused } : { sheets, refused };
}

/** A list of which name lies where, sheet by sheet. */
export function placeList(job: Job, sheets: readonly SheetFiles[], filling: FilledWith): WrittenFile {
  const rows = job.roster?.rows ?? [];
  const head = ['Sheet', 'No.', ...(job.roster?.columns ?? []).map((c) => c.name), 'Copy', 'Turn', 'Files'];
  const body = sheets.flatMap(({ sheet, files }) =>
    placesOn(job, sheet).map((place) => {
      const nth = rows.findIndex((row) => row.id === place.row);
      return [
        String(sheet + 1),
        String(nth + 1),
        ...cellsOf(job, nth, filling),
        String(place.copy + 1),
        String(place.turn),
        files.map((f) => f.name).join(' '),
      ];
    }),
  );
  return listFile(job, [head, ...body]);
}
