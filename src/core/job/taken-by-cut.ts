/** How much of what is kept the cut takes: half the kerf where it runs on the outline, nothing where it runs beside it, all of it on the wrong side. */
import type { Job, Part } from '../document/schema';
import type { Taken } from '../inspect/strength';
import type { Outline } from '../prepare/outline';
import type { PreparedPart } from '../prepare/prepared';
import { settingsOn } from '../shop/in-force';
import type { CutSide } from './kerf-side';
import { placedOn } from './places-on-outlines';

/** What is taken along an outline by the side it is cut on, in mm. */
export type TakenBySide = Readonly<Record<CutSide, number>>;
/** Where nothing is cut. */
export const NOTHING_TAKEN: TakenBySide = { usual: 0, line: 0, other: 0 };

/** What of a job says how much cuts take. */
type Cutting = Pick<Job, 'operations' | 'sheet'>;

/** What cuts take along the outlines of a part; of several cuts the most. All nothing where no kerf is known. */
export function takenBySide(part: Pick<Part, 'work'>, { operations, sheet }: Cutting): TakenBySide {
  const taken = { ...NOTHING_TAKEN };
  for (const operation of operations) {
    const isGiven = part.work.some((w) => w.what === 'outline' && w.operation === operation.id);
    if (!operation.on || operation.kind !== 'cut' || !isGiven) continue;
    const kerf = settingsOn(operation, sheet).kerf ?? 0;
    if (operation.kerfSide === 'line') {
      for (const side of ['usual', 'line', 'other'] as const) taken[side] = Math.max(taken[side], kerf / 2);
    } else if (operation.kerfSide === 'beside') {
      taken.line = Math.max(taken.line, kerf / 2);
      taken.other = Math.max(taken.other, kerf);
    }
  }
  return taken;
}

/** What cuts take along each outline of what is kept of a part, in its own coordinates. */
export function takenOf(
  { sides }: Pick<Part, 'sides'>,
  { kept, keep, frames }: Pick<PreparedPart, 'kept' | 'keep' | 'frames'>,
  taken: TakenBySide,
): Taken {
  const own = new Map(
    placedOn(sides, frames, kept).flatMap((places, i) => {
      const side = places[places.length - 1]?.place.side;
      return side ? [[(kept[i] as Outline).path, taken[side]] as const] : [];
    }),
  );
  // The rim of the sheet is there before anything is cut.
  const isRim = ({ labels }: Outline) => keep === 'outside' && labels.every((label) => label < 0);
  return (outline) => (isRim(outline) ? 0 : (own.get(outline.path) ?? taken.usual));
}
