/** Names laid on blanks at fixed places: tags, medals, pens in a jig. Each row is fitted to its blank, the size its own steps come to. */
import type { Job } from '../document/schema';
import { type Box, boxCentre, boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { factorSteps } from '../geometry/root';
import { LIMITS } from '../limits';
import type { FaceLookup } from '../prepare/prepared';
import type { FilledWith } from '../roster/fields';
import { jobInRow } from '../roster/in-row';
import { allBlanks, type Blank, type Blanks, type LayPlace, type RowLayout } from '../schema/layout';
import type { Evaluator, Progress } from './evaluate';
import type { LaidRows } from './lay-out';
import { sizedRow, workedParts } from './sized-row';

/** Sizes are met to this share of the blank; a name may be as much larger than that. */
const SEARCH = { met: 1e-6, least: 1 / LIMITS.laidScale, most: LIMITS.laidScale };
const ROUNDING = 1e-5;
/** What is measured on the sheet may lie over the edge by this share of the blank. */
const MEASURED = 1e-3;

/** How far a box reaches towards the edge of the room on a blank, about whose middle it lies: 1 is up to it. */
function reachOnBlank(box: Box, { shape, width, height, inset, turn }: Blanks): number {
  const isAcross = turn % 180 !== 0;
  const [room, high] = isAcross ? [height, width] : [width, height];
  const [x, y] = [boxWidth(box) / (room - 2 * inset), boxHeight(box) / (high - 2 * inset)];
  // The corners of a box lie within an ellipse.
  return shape === 'ellipse' ? Math.hypot(x, y) : Math.max(x, y);
}

/** Whether there is any room on a blank. */
const hasRoom = ({ width, height, inset }: Blanks): boolean => Math.min(width, height) > 2 * inset;

/** Digits of places and factors. */
const round = (value: number): number => Math.round(value * 1e6) / 1e6;

/** The factor by which a row fits its blank, and its bounds then; null where nothing is drawn of it. */
function* fitted(
  job: Job,
  blanks: Blanks,
  { evaluator, faces }: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<number, { readonly scale: number; readonly box: Box } | null> {
  const chosen = { partIds: workedParts(job), memberId: null };
  const boxAt = (factor: number): Box => evaluator.boxOf(sizedRow(job, factor), chosen, faces);
  const box = boxAt(1);
  if (isEmptyBox(box)) return null;
  const isFitting = reachOnBlank(box, blanks) <= 1 + ROUNDING;
  if (blanks.size === 'as-set' || (blanks.size === 'smaller' && isFitting)) return { scale: 1, box };
  // A little less than all of it: what is measured afterwards is measured in other roundings.
  const factor = round(yield* factorSteps((f) => reachOnBlank(boxAt(f), blanks), 1 - ROUNDING / 2, SEARCH));
  return { scale: factor, box: boxAt(factor) };
}

/** From a row's middle to that of its blank. */
function placeOn(blank: Blank, box: Box, turn: number): Pick<LayPlace, 'x' | 'y' | 'turn'> {
  const { x, y } = boxCentre(box);
  const quarter = (turn / 90) % 4;
  const [cx, cy] = [
    [x, y],
    [-y, x],
    [-x, -y],
    [y, -x],
  ][quarter] as [number, number];
  return { turn, x: round(blank.x - cx), y: round(blank.y - cy) };
}

/** Lay the rows on blanks in their order, a sheet being as many as lie in the jig; yields how many rows are fitted. */
export function* rowsOnBlanks(
  job: Job,
  { filling, layout }: { readonly filling: FilledWith; readonly layout: RowLayout },
  means: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<Progress, LaidRows> {
  const { blanks } = layout;
  const out = new Set(blanks.leftOut);
  const used = allBlanks(blanks, job.sheet.height).filter(({ nth }) => !out.has(nth));
  const made = (job.roster?.rows ?? []).flatMap((row, nth) => (row.out ? [] : [{ row, nth }]));
  const places: LayPlace[] = [];
  const tooLarge: string[] = [];
  const canBeLaid = used.length > 0 && hasRoom(blanks);
  for (const [done, { row, nth }] of made.entries()) {
    yield { done, of: made.length };
    if (!canBeLaid) continue;
    const steps = fitted(jobInRow(job, nth, filling), blanks, means);
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield { done, of: made.length };
    const fit = step.value;
    if (!fit) continue;
    if (reachOnBlank(fit.box, blanks) > 1 + ROUNDING) tooLarge.push(row.id);
    for (let copy = 0; copy < row.copies; copy++) {
      const at = places.length;
      const blank = used[at % used.length] as Blank;
      const sheet = Math.floor(at / used.length);
      places.push({
        row: row.id,
        copy,
        sheet,
        parts: [],
        scale: fit.scale,
        ...placeOn(blank, fit.box, blanks.turn),
        locked: false,
      });
    }
  }
  const sheets = used.length === 0 ? 0 : Math.ceil(places.length / used.length);
  return {
    places,
    sheets,
    needed: sheets === 0 ? 0 : places.length / (sheets * used.length),
    pieces: 0,
    left: null,
    tooLarge,
    takesSheet: [],
  };
}

/** How a name lies on the blanks: on none of them, over the edge of its own, or as it should, which is null. `box`: its bounds on the sheet. */
export function offBlank(box: Box, blanks: Blanks, sheetHeight: number): 'on none' | 'over' | null {
  const middle = boxCentre(box);
  const out = new Set(blanks.leftOut);
  const [a, b] = [blanks.width / 2, blanks.height / 2];
  for (const { nth, x, y } of allBlanks(blanks, sheetHeight)) {
    if (out.has(nth)) continue;
    const isOn = ([px, py]: readonly [number, number], roundings: number) => {
      const [dx, dy] = [Math.abs(px - x) / a, Math.abs(py - y) / b];
      return (blanks.shape === 'ellipse' ? Math.hypot(dx, dy) : Math.max(dx, dy)) <= 1 + roundings;
    };
    if (!isOn([middle.x, middle.y], 0)) continue;
    const corners = [box.minX, box.maxX].flatMap((px) => [box.minY, box.maxY].map((py) => [px, py] as const));
    return corners.every((corner) => isOn(corner, MEASURED)) ? null : 'over';
  }
  return 'on none';
}
