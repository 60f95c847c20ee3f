/** Jobs with several sheets: which parts are on the one in hand, and what each sheet is called. */
import { formatLength } from '../units/quantity';
import type { Job, Part, Sheet } from './schema';

/** Whether a part is on the sheet in hand. */
export const isOnSheet = (job: Pick<Job, 'sheetId'>, part: Pick<Part, 'sheet'>): boolean => part.sheet === job.sheetId;

/** The parts on the sheet in hand, in their order; all of them, the same list, where there is one sheet. */
export const partsOnSheet = (job: Pick<Job, 'sheetId' | 'otherSheets' | 'parts'>): readonly Part[] =>
  job.otherSheets.length === 0 ? job.parts : job.parts.filter((part) => isOnSheet(job, part));

/** A sheet of a job as it is listed. */
export type ListedSheet = {
  readonly id: string;
  readonly name: string;
  readonly sheet: Sheet;
  readonly isInHand: boolean;
};

/** A number by which sheets are listed in the order they were made. */
const madeAs = (id: string): number => Number(/(\d+)$/.exec(id)?.[1] ?? 1);

/** All sheets of a job in the order they were made, whichever is in hand. */
export const sheetsOf = (job: Pick<Job, 'sheet' | 'sheetId' | 'sheetName' | 'otherSheets'>): ListedSheet[] =>
  [
    { id: job.sheetId, name: job.sheetName, sheet: job.sheet, isInHand: true },
    ...job.otherSheets.map(({ id, name, sheet }) => ({ id, name, sheet, isInHand: false })),
  ].sort((a, b) => madeAs(a.id) - madeAs(b.id));

/** What a sheet is called: by its name, else by what it is of, else by its number from 1. */
export function sheetTitle(
  { name, sheet }: Pick<ListedSheet, 'name' | 'sheet'>,
  nth: number,
  unit: Job['units'],
): string {
  if (name.trim()) return name;
  const stock = [sheet.material, sheet.thickness === null ? '' : formatLength(sheet.thickness, unit, 2)];
  return stock.filter(Boolean).join(' ') || `Sheet ${nth}`;
}
