/**
 * Closing up: how far a letter (or a line) is moved towards those before it until they overlap as much as asked. The
 * distance is that of facing outlines, row by row, as in optical kerning; not of boxes.
 *
 * The joint of two shapes is where they overlap. Each connected overlap has a depth (how far it reaches along the rows)
 * and a neck (the distance between its two ends, where the outlines cross): the width of what holds the two together.
 * The strength of a joint is the lesser of the two, at its strongest place. The move is the least whose joint is as
 * strong as asked. Where no move is (strokes thinner than the overlap), it is the least that comes near the best.
 */
import type { Rows } from '../geometry/rows';

export type Closing = {
  /** How far to move, against the direction of the rows; never negative. */
  readonly move: number;
  /** Strength of the joint after the move. */
  readonly joint: number;
};

/** Of a stroke that is moved into, this share stays free behind it, so that letters never cross through. */
const FREE_BEHIND = 0.35;
/** Moves tried past the first touch, as multiples of the overlap asked. */
const DEEPEST = 3;
/** Steps tried over the overlap asked, and the share of it that the move is settled to. */
const STEPS = 12;
const SETTLED = 1e-3;
/** A joint this near the best there is will do where none is as strong as asked. */
const NEAR_BEST = 0.9;

type Pair = { readonly fixed: readonly number[]; readonly moving: readonly number[]; readonly row: number };

/**
 * The least move of `moving` towards `fixed` that joins them with at least `wanted`; null when they never face each
 * other or the first touch is farther than `farthest`. All lengths in the units of the rows.
 */
export function closingMove(fixed: Rows, moving: Rows, wanted: number, farthest: number, step: number): Closing | null {
  const pairs = facingRows(fixed, moving);
  const touch = firstTouch(pairs);
  if (touch === null || touch > farthest) return null;
  const start = Math.max(0, touch);
  const end = Math.max(start, Math.min(crossingLimit(pairs, fixed, wanted, step), start + DEEPEST * wanted));
  const at = (move: number) => jointAt(pairs, move, step);
  const count = Math.max(1, Math.min(200, Math.ceil(((end - start) / wanted) * STEPS)));
  let best: Closing = { move: start, joint: at(start) };
  if (best.joint >= wanted) return best;
  const tried: Closing[] = [best];
  for (let i = 1; i <= count; i++) {
    const move = start + ((end - start) * i) / count;
    const joint = at(move);
    if (joint >= wanted) return settle((tried[tried.length - 1] as Closing).move, { move, joint }, wanted, at);
    tried.push({ move, joint });
    if (joint > best.joint) best = { move, joint };
  }
  return tried.find((t) => t.joint >= NEAR_BEST * best.joint) as Closing;
}

/** Between a move that is not enough and one that is: the least that is. */
function settle(tooLittle: number, enough: Closing, wanted: number, at: (move: number) => number): Closing {
  let lo = tooLittle;
  let hi = enough;
  while (hi.move - lo > SETTLED * wanted) {
    const move = (lo + hi.move) / 2;
    const joint = at(move);
    if (joint >= wanted) hi = { move, joint };
    else lo = move;
  }
  return hi;
}

function facingRows(fixed: Rows, moving: Rows): Pair[] {
  const first = Math.max(fixed.first, moving.first);
  const end = Math.min(fixed.first + fixed.rows.length, moving.first + moving.rows.length);
  const pairs: Pair[] = [];
  for (let row = first; row < end; row++) {
    const f = fixed.rows[row - fixed.first] as readonly number[];
    const m = moving.rows[row - moving.first] as readonly number[];
    if (f.length > 0 && m.length > 0) pairs.push({ fixed: f, moving: m, row });
  }
  return pairs;
}

/** The move at which ink first meets ink; 0 or less when it does already. */
function firstTouch(pairs: readonly Pair[]): number | null {
  let least = Infinity;
  for (const { fixed, moving } of pairs)
    for (let m = 0; m < moving.length; m += 2)
      for (let f = 0; f < fixed.length; f += 2) {
        const [f0, f1, m0, m1] = [fixed[f], fixed[f + 1], moving[m], moving[m + 1]] as [number, number, number, number];
        if (m0 > f1) least = Math.min(least, m0 - f1);
        else if (m1 > f0) return 0;
      }
  return least === Infinity ? null : least;
}

/**
 * The move up to which no stroke of `moving` comes out behind an upright stroke it meets. Hairlines that run aslant into
 * a letter, as between the letters of a script, may be passed over: only strokes that stay in place over the height of
 * the overlap asked for count.
 */
function crossingLimit(pairs: readonly Pair[], fixed: Rows, wanted: number, step: number): number {
  const reach = Math.max(1, Math.round(wanted / 2 / step));
  const upright = (row: number, f0: number): boolean =>
    [row - reach, row + reach].every((r) => {
      const strokes = fixed.rows[r - fixed.first];
      return strokes?.some((x, i) => i % 2 === 0 && Math.abs(x - f0) <= wanted / 4) ?? false;
    });
  let least = Infinity;
  for (const { fixed: f, moving, row } of pairs)
    for (let m = 0; m < moving.length; m += 2) {
      const m0 = moving[m] as number;
      for (let k = 0; k < f.length; k += 2) {
        const [f0, f1] = [f[k], f[k + 1]] as [number, number];
        const limit = m0 - f0 - FREE_BEHIND * (f1 - f0);
        if (m0 >= f1 && limit < least && upright(row, f0)) least = limit;
      }
    }
  return least;
}

/** A connected overlap as far as it has been followed upwards. */
type Overlap = {
  readonly bottomX: number;
  readonly bottomRow: number;
  topX: number;
  topRow: number;
  depth: number;
};
type Open = { readonly x0: number; readonly x1: number; readonly of: Overlap };

/** Strength of the joint after a move: the lesser of depth and neck, at the strongest of the connected overlaps. */
function jointAt(pairs: readonly Pair[], move: number, step: number): number {
  let best = 0;
  let open: Open[] = [];
  let before = Number.NEGATIVE_INFINITY;
  const close = (o: Overlap) => {
    const neck = Math.hypot(o.topX - o.bottomX, (o.topRow - o.bottomRow) * step);
    best = Math.max(best, Math.min(o.depth, neck));
  };
  for (const { fixed, moving, row } of pairs) {
    if (row !== before + 1) {
      for (const o of open) close(o.of);
      open = [];
    }
    before = row;
    const next: Open[] = [];
    for (let m = 0; m < moving.length; m += 2)
      for (let f = 0; f < fixed.length; f += 2) {
        const x0 = Math.max(fixed[f] as number, (moving[m] as number) - move);
        const x1 = Math.min(fixed[f + 1] as number, (moving[m + 1] as number) - move);
        if (x1 <= x0) continue;
        const below = open.find((o) => o.x0 <= x1 && o.x1 >= x0);
        const x = (x0 + x1) / 2;
        const of: Overlap = below?.of ?? { bottomX: x, bottomRow: row, topX: x, topRow: row, depth: 0 };
        of.topX = x;
        of.topRow = row;
        of.depth = Math.max(of.depth, x1 - x0);
        next.push({ x0, x1, of });
      }
    for (const o of open) if (!next.some((n) => n.of === o.of)) close(o.of);
    open = next;
  }
  for (const o of open) close(o.of);
  return best;
}
