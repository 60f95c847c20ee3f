/** Laying names on sheets: how, and where each lies. */
import type { Job } from '../document/schema';
import { type Blanks, isSamePlace, type LayPlace, layoutSchema, type RowLayout } from '../schema/layout';
import { changed } from './changed';
import { editRows } from './roster';

/** A layout as it begins. */
export const newLayout = (): RowLayout => layoutSchema.parse({});

/** Have the names of a job laid on sheets, or not. */
export const setLayout = (job: Job, layout: RowLayout | null): Job =>
  job.layout === layout ? job : { ...job, layout };

/** Change how names are laid; where they lie stays until they are laid anew. */
export const editLayout = (job: Job, more: Partial<Omit<RowLayout, 'places'>>): Job =>
  job.layout ? { ...job, layout: { ...job.layout, ...more } } : job;

/** Leave a blank out, or take it in; where names lie stays until they are laid anew. */
export const leaveOutBlank = (job: Job, nth: number, isOut: boolean): Job =>
  changed(job, (draft) => {
    const { blanks } = draft.layout ?? {};
    if (!blanks) return;
    const others = blanks.leftOut.filter((n) => n !== nth);
    blanks.leftOut = isOut ? [...others, nth].sort((a, b) => a - b) : others;
  });

/** Change the blanks. Those left out stay those that they are, in their row and column. */
export const editBlanks = (job: Job, more: Partial<Omit<Blanks, 'leftOut'>>): Job =>
  changed(job, (draft) => {
    const { layout } = draft;
    if (!layout) return;
    const { columns } = layout.blanks;
    Object.assign(layout.blanks, more);
    const { columns: now, rows } = layout.blanks;
    layout.blanks.leftOut = layout.blanks.leftOut
      .map((nth) => ({ column: nth % columns, row: Math.floor(nth / columns) }))
      .filter(({ column, row }) => column < now && row < rows)
      .map(({ column, row }) => row * now + column);
  });

/** Where names lie from now on. */
export const setPlaces = (job: Job, places: readonly LayPlace[]): Job =>
  job.layout ? { ...job, layout: { ...job.layout, places: [...places] } } : job;

/** Make a row as often as it lies on sheets. */
export const setFilled = (job: Job, rowId: string, copies: number, places: readonly LayPlace[]): Job =>
  setPlaces(
    editRows(job, [rowId], (row) => {
      row.copies = copies;
    }),
    places,
  );

/** Move a name on its sheet by so much, in mm. */
export const movePlace = (job: Job, at: Pick<LayPlace, 'row' | 'copy' | 'parts'>, dx: number, dy: number): Job =>
  changed(job, (draft) => {
    const place = draft.layout?.places.find((p) => isSamePlace(p, at));
    if (!place) return;
    place.x = Math.round((place.x + dx) * 1e3) / 1e3;
    place.y = Math.round((place.y + dy) * 1e3) / 1e3;
  });

/** Lock a name where it lies, or let it go. */
export const lockPlace = (job: Job, at: Pick<LayPlace, 'row' | 'copy' | 'parts'>, locked: boolean): Job =>
  changed(job, (draft) => {
    const place = draft.layout?.places.find((p) => isSamePlace(p, at));
    if (place) place.locked = locked;
  });

/** How many names, copies counted, are made and lie on no sheet. */
export function notLaid(job: Job): number {
  const laid = new Set((job.layout?.places ?? []).map(({ row, copy }) => `${row} ${copy}`));
  return (job.roster?.rows ?? []).reduce((sum, row) => {
    if (row.out) return sum;
    return (
      sum + Array.from({ length: row.copies }, (_, copy) => `${row.id} ${copy}`).filter((k) => !laid.has(k)).length
    );
  }, 0);
}
