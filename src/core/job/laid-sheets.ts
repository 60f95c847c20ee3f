/** The sheets that names were laid on, each a job like any other: the parts of its rows where they lie. */
import { relinked } from '../commands/parts';
import type { Job, Part } from '../document/schema';
import { compose, EMPTY_BOX, isEmptyBox, rotation, translation, uniteBoxes } from '../geometry/point';
import type { Severity } from '../inspect/finding';
import { LIMITS } from '../limits';
import { placementMatrix, placementOf } from '../prepare/placement';
import type { FaceLookup } from '../prepare/prepared';
import type { FilledWith } from '../roster/fields';
import { jobInRow, rowTitle } from '../roster/in-row';
import type { LayPlace } from '../schema/layout';
import { cutTo } from '../units/text';
import { offBlank } from './blanks';
import type { Evaluator, JobResult, Progress } from './evaluate';
import { sizedRow } from './sized-row';

/** How many sheets names are laid on. */
export const sheetsLaid = (job: Job): number =>
  (job.layout?.places ?? []).reduce((most, place) => Math.max(most, place.sheet + 1), 0);

/** What lies on a sheet, of rows that are made. */
export function placesOn(job: Job, sheet: number): LayPlace[] {
  const made = new Map((job.roster?.rows ?? []).map((row) => [row.id, row]));
  return (job.layout?.places ?? []).filter(({ row, copy, sheet: on }) => {
    const of = made.get(row);
    return on === sheet && of !== undefined && !of.out && copy < of.copies;
  });
}

/** What a part is called among those of other rows; one without a name is called by its words. */
const nameIn = ({ name }: Part, title: string): string =>
  name === '' || name.includes(title) ? name : cutTo(`${name}, ${title}`, LIMITS.nameCharacters);

/** The id of a part of what lies at a place of a sheet. */
const partOfPlace = (nth: number, i: number | '') => `n${nth}-${i}`;

/** Parts of a row where it lies, with ids that no other row has; what they are made from lies where `others` of the same copy lie. */
function laidParts(
  job: Job,
  place: LayPlace,
  { nth, title, others }: { readonly nth: number; readonly title: string; readonly others: readonly LayPlace[] },
): Part[] {
  const isHere = (part: Part) => place.parts.length === 0 || place.parts.includes(part.id);
  const ids = new Map(
    job.parts.map((part, i) => {
      const at = isHere(part) ? nth : others.findIndex((p) => isOfCopy(p, place) && p.parts.includes(part.id));
      return [part.id, partOfPlace(at, i)];
    }),
  );
  const to = compose(rotation(place.turn), translation(place.x, place.y));
  return job.parts.filter(isHere).map((part) => {
    const linked = { ...relinked(part, ids), id: ids.get(part.id) as string, name: nameIn(part, title) };
    if (part.along !== null) return linked;
    return { ...linked, placement: placementOf(compose(placementMatrix(part.placement), to)) };
  });
}

const isOfCopy = (one: LayPlace, other: LayPlace): boolean => one.row === other.row && one.copy === other.copy;

/** The job of a sheet, from 0: all that lies on it, and nothing of the list. */
export function jobOfSheet(job: Job, sheet: number, filling: FilledWith): Job {
  const rows = job.roster?.rows ?? [];
  const inRow = new Map<string, Job>();
  const places = placesOn(job, sheet);
  const parts = places.flatMap((place, nth) => {
    const at = rows.findIndex((row) => row.id === place.row);
    const key = `${place.row} ${place.scale}`;
    const known = inRow.get(key) ?? sizedRow(jobInRow(job, at, filling), place.scale);
    inRow.set(key, known);
    return laidParts(known, place, { nth, title: rowTitle(job, at), others: places });
  });
  return { ...job, parts, pictures: [], roster: null, layout: null, leftAsIs: [], otherSheets: [] };
}

/** What is found about a sheet as a whole; what is found about a name by itself is told there. */
export type SheetFinding = { readonly sheet: number; readonly severity: Severity; readonly sentence: string };

/** Codes of findings about things that lie on each other, or off the sheet. */
const OF_SHEETS = new Set([
  'cut-over',
  'cut-across',
  'across-edge',
  'more-collisions',
  'off-piece',
  'outside-first',
  'off-sheet',
  'drawn-twice',
  'off-bed',
]);

/** Sentences about names of a sheet that do not lie on their blanks. */
function offBlanks(job: Job, sheet: number, { parts }: JobResult): string[] {
  const { layout, roster } = job;
  if (layout?.way !== 'blanks') return [];
  return placesOn(job, sheet).flatMap((place, nth) => {
    const box = parts
      .filter((part) => part.id.startsWith(partOfPlace(nth, '')))
      .reduce((all, part) => uniteBoxes(all, part.size), EMPTY_BOX);
    if (isEmptyBox(box)) return [];
    const how = offBlank(box, layout.blanks, job.sheet.height);
    const title = rowTitle(job, roster?.rows.findIndex((row) => row.id === place.row) ?? 0);
    if (how === null) return [];
    return [how === 'over' ? `“${title}” reaches over its blank.` : `“${title}” lies on no blank.`];
  });
}

/** Codes of findings that come of being smaller. */
const OF_SMALLER = new Set(['thin', 'more-thin', 'thin-by-cut', 'tight', 'more-tight']);

/** What is too thin of names that were made smaller for their place: by themselves they were looked over as they are set. */
function weakened(job: Job, sheet: number, { findings }: JobResult): SheetFinding[] {
  return placesOn(job, sheet).flatMap((place, nth) => {
    if (place.scale >= 1) return [];
    const title = rowTitle(job, job.roster?.rows.findIndex((row) => row.id === place.row) ?? 0);
    return findings.flatMap(({ code, partId, severity, sentence }) =>
      OF_SMALLER.has(code) && partId?.startsWith(partOfPlace(nth, ''))
        ? [{ sheet, severity, sentence: `“${title}”, made smaller: ${sentence}` }]
        : [],
    );
  });
}

/** What is found about the sheets that names lie on; yields how many are done. */
export function* sheetFindings(
  job: Job,
  filling: FilledWith,
  { evaluator, faces }: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<Progress, SheetFinding[]> {
  const count = sheetsLaid(job);
  const found: SheetFinding[] = [];
  for (let sheet = 0; sheet < count; sheet++) {
    const steps = evaluator.steps(jobOfSheet(job, sheet, filling), faces);
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield { done: sheet, of: count };
    for (const { code, severity, sentence } of step.value.findings)
      if (OF_SHEETS.has(code)) found.push({ sheet, severity, sentence });
    for (const sentence of offBlanks(job, sheet, step.value)) found.push({ sheet, severity: 'fault', sentence });
    found.push(...weakened(job, sheet, step.value));
  }
  return found;
}
