/** The sheets that names were laid on, each a job like any other: the parts of its rows where they lie. */
import { relinked } from '../commands/parts';
import type { Job, Part } from '../document/schema';
import { compose, rotation, translation } from '../geometry/point';
import { placementMatrix, placementOf } from '../prepare/placement';
import type { FilledWith } from '../roster/fields';
import { jobInRow } from '../roster/in-row';
import type { LayPlace } from '../schema/layout';

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

/** Parts of a row where it lies, with ids that no other row has. */
function laidParts(job: Job, place: LayPlace, nth: number): Part[] {
  const ids = new Map(job.parts.map((part, i) => [part.id, `n${nth}-${i}`]));
  const to = compose(rotation(place.turn), translation(place.x, place.y));
  return job.parts.map((part) => {
    const linked = { ...relinked(part, ids), id: ids.get(part.id) as string };
    if (part.along !== null) return linked;
    return { ...linked, placement: placementOf(compose(placementMatrix(part.placement), to)) };
  });
}

/** The job of a sheet, from 0: all that lies on it, and nothing of the list. */
export function jobOfSheet(job: Job, sheet: number, filling: FilledWith): Job {
  const rows = job.roster?.rows ?? [];
  const inRow = new Map<string, Job>();
  const parts = placesOn(job, sheet).flatMap((place, nth) => {
    const known =
      inRow.get(place.row) ??
      jobInRow(
        job,
        rows.findIndex((row) => row.id === place.row),
        filling,
      );
    inRow.set(place.row, known);
    return laidParts(known, place, nth);
  });
  return { ...job, parts, pictures: [], roster: null, layout: null, leftAsIs: [], otherSheets: [] };
}
