/** How large a drawing may be meant: what the file claims, and what else its numbers often stand for. */
import type { FileMeasure, SizeClaim } from './read-drawing';

/** A size a drawing may have been meant in: what its units would be, and the factor to mm. */
export type SizeChoice = {
  /** Times the size as read. */
  readonly factor: number;
  /** What the file's numbers would stand for. */
  readonly unit: string;
  readonly claimed: boolean;
};

/** Units that drawings are made in, in mm. */
const UNITS: readonly (readonly [unit: string, mm: number])[] = [
  ['millimetres', 1],
  ['inches', 25.4],
  ['centimetres', 10],
  ['metres', 1000],
  ['pixels of 1/96 inch', 25.4 / 96],
  ['pixels of 1/90 inch', 25.4 / 90],
  ['points of 1/72 inch', 25.4 / 72],
];
/** Only these are likely in a drawing without pixels. */
const DRAWN = 4;
/** Steps that plotters and cutters have, in mm. */
const STEPS: readonly (readonly [unit: string, mm: number])[] = [
  ['plotter steps of 0.025 mm', 0.025],
  ['steps of 1/1000 inch', 0.0254],
  ['steps of 0.1 mm', 0.1],
  ['steps of 0.01 mm', 0.01],
];

const UNITS_OF: Readonly<Record<FileMeasure, readonly (readonly [unit: string, mm: number])[]>> = {
  pixels: UNITS,
  // A page is as large as it says; only some programs put their millimetres or pixels in as points.
  points: UNITS.filter(([unit]) => /^millimetres|^pixels/.test(unit)),
  units: UNITS.slice(0, DRAWN),
  steps: STEPS,
};
/** A claim and a unit this close are the same. */
const SAME = 1e-3;

/** The claim first, then the likely ones; none twice. */
export function sizeChoices(claim: SizeClaim): SizeChoice[] {
  const claimed: SizeChoice = { factor: 1, unit: claim.unit, claimed: true };
  const others = UNITS_OF[claim.measure].flatMap(([unit, mm]) => {
    const factor = mm / claim.mmPerUnit;
    return Math.abs(factor - 1) < SAME ? [] : [{ factor, unit, claimed: false }];
  });
  return [claimed, ...others];
}
