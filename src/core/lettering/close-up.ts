/**
 * Closing up: how far a letter (or a line) is moved towards those before it until they overlap as much as asked. The
 * distance is that of facing outlines, row by row, as in optical kerning; not of boxes.
 *
 * The joint of two shapes is where they overlap. Each connected overlap has a depth (how far it reaches along the rows)
 * and a neck (the distance between the points where the outlines cross): the width of what holds the two together.
 * The strength of a joint is the lesser of the two, at its strongest place. The move is the least whose joint is as
 * strong as asked. Where no move is (strokes thinner than the overlap), it is the least that comes near the best.
 */
import { numberAt } from '../geometry/elements';
import type { InkRows } from '../geometry/ink-rows';

/** How far a letter is moved towards what stands before it, and the joint that makes; in font units. */
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
/** Joints this share short of what is asked are rounding. */
const ROUNDING = 1e-9;
/** A joint this near the best there is will do where none is as strong as asked. */
const NEAR_BEST = 0.9;

/** How far to the left of a letter ink may end that still tells how far it is moved: what is farther away changes nothing. */
export const inkReach = (wanted: number, farthest: number): number =>
  (farthest + DEEPEST * wanted) / (1 - FREE_BEHIND) + wanted / 4;

type Pair = { readonly fixed: readonly number[]; readonly moving: readonly number[]; readonly row: number };

/**
 * The least move of `moving` towards `fixed` that joins them with at least `wanted`; null when they never face each
 * other or the first touch is farther than `farthest`. All lengths in the units of the rows.
 */
export function closingMove(
  fixed: InkRows,
  moving: InkRows,
  { wanted, farthest, step }: { readonly wanted: number; readonly farthest: number; readonly step: number },
): Closing | null {
  const pairs = facingRows(fixed, moving);
  const touch = firstTouch(pairs);
  if (touch === null || touch > farthest) return null;
  const start = Math.max(0, touch);
  const end = Math.max(start, Math.min(crossingLimit(pairs, fixed, wanted, step), start + DEEPEST * wanted));
  const near = within(pairs, start, end);
  const at = (move: number): Closing => ({ move, joint: jointAt(near, { fixed, moving, move, step }) });
  const isEnough = (c: Closing) => c.joint >= wanted * (1 - ROUNDING);
  const now = at(start);
  if (isEnough(now)) return now;
  // Nothing is deeper than the way since the first touch, so that what does not overlap yet is tried from there on.
  const least = touch > 0 ? Math.min(end, start + wanted) : start;
  const tried: Closing[] = [];
  const searched = (from: number, to: number): Closing | null => {
    const count = Math.max(1, Math.min(200, Math.ceil(((to - from) / wanted) * STEPS)));
    for (let i = 0; i <= count; i++) {
      const next = at(from + ((to - from) * i) / count);
      if (isEnough(next))
        return i === 0 ? next : settle((tried[tried.length - 1] as Closing).move, next, { isEnough, at, wanted });
      tried.push(next);
    }
    return null;
  };
  const found = searched(least, end);
  if (found) return found;
  if (least > start) searched(start, least);
  const best = tried.reduce((a, b) => (b.joint > a.joint ? b : a), now);
  return [now, ...tried].sort((a, b) => a.move - b.move).find((t) => t.joint >= NEAR_BEST * best.joint) as Closing;
}

/** Between a move that is not enough and one that is: the least that is. */
function settle(
  tooLittle: number,
  enough: Closing,
  {
    isEnough,
    at,
    wanted,
  }: { readonly isEnough: (c: Closing) => boolean; readonly at: (move: number) => Closing; readonly wanted: number },
): Closing {
  let lo = tooLittle;
  let hi = enough;
  while (hi.move - lo > SETTLED * wanted) {
    const next = at((lo + hi.move) / 2);
    if (isEnough(next)) hi = next;
    else lo = next.move;
  }
  return hi;
}

function facingRows(fixed: InkRows, moving: InkRows): Pair[] {
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

/** Facing rows without the strokes that meet none of the other row by any move between two. */
function within(pairs: readonly Pair[], least: number, most: number): Pair[] {
  const near: Pair[] = [];
  for (const { fixed, moving, row } of pairs) {
    const from = numberAt(moving, 0) - most;
    const to = numberAt(moving, moving.length - 1) - least;
    const some = strokesBetween(fixed, from, to);
    if (some.length === 0) continue;
    const others = strokesBetween(moving, numberAt(some, 0) + least, numberAt(some, some.length - 1) + most);
    if (others.length > 0) near.push({ fixed: some, moving: others, row });
  }
  return near;
}

/** Strokes of a row that reach into a stretch; the row itself where all do. */
function strokesBetween(row: readonly number[], from: number, to: number): readonly number[] {
  let first = 0;
  let end = row.length;
  while (first < end && numberAt(row, first + 1) <= from) first += 2;
  while (end > first && numberAt(row, end - 2) >= to) end -= 2;
  return end - first === row.length ? row : row.slice(first, end);
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
function crossingLimit(pairs: readonly Pair[], fixed: InkRows, wanted: number, step: number): number {
  const reach = Math.max(1, Math.round(wanted / 2 / step));
  const upright = (row: number, f0: number): boolean =>
    [row - reach, row + reach].every((r) => {
      const strokes = fixed.rows[r - fixed.first];
      return strokes?.some((x, i) => i % 2 === 0 && Math.abs(x - f0) <= wanted / 4) ?? false;
    });
  let least = Infinity;
  for (const { fixed: f, moving, row } of pairs)
    for (let m = 0; m < moving.length; m += 2) {
      const m0 = numberAt(moving, m);
      for (let k = 0; k < f.length; k += 2) {
        const [f0, f1] = [f[k], f[k + 1]] as [number, number];
        const limit = m0 - f0 - FREE_BEHIND * (f1 - f0);
        if (m0 >= f1 && limit < least && upright(row, f0)) least = limit;
      }
    }
  return least;
}

/** Which outline an end of an overlap lies on. */
type Side = 'fixed' | 'moving';

/** A stretch of overlap in one row: its ends and whose outline each lies on. */
type Cover = {
  readonly x0: number;
  readonly x1: number;
  readonly leftSide: Side;
  readonly right: Side;
  /** The strokes that overlap here. */
  readonly fixed: readonly [number, number];
  readonly moving: readonly [number, number];
};

/** A connected overlap as far as it has been followed upwards: how deep it is, and where the two outlines cross. */
type Overlap = { depth: number; readonly crossings: [number, number][] };
type Open = Cover & { readonly of: Overlap };

/** Whether a row of ink lies over or under a stretch. */
const meets = (row: readonly number[] | undefined, shift: number, c: Cover): boolean => {
  for (let i = 0; row && i < row.length; i += 2)
    if (numberAt(row, i) - shift <= c.x1 && numberAt(row, i + 1) - shift >= c.x0) return true;
  return false;
};

/** The ink of two neighbours after a move, followed row by row upwards: its overlaps, and the strongest joint among them. */
class JointSweep {
  /** Strength of the strongest overlap that is complete. */
  private best = 0;
  /** Overlaps of the row before, which may go on. */
  private open: Open[] = NONE_OPEN;
  private before = Number.NEGATIVE_INFINITY;

  constructor(
    private readonly fixed: InkRows,
    private readonly moving: InkRows,
    private readonly move: number,
    private readonly step: number,
  ) {}

  /** The next row in which both have ink. */
  add({ fixed, moving, row }: Pair): void {
    if (row !== this.before + 1) this.closeAll();
    let next: Open[] = NONE_OPEN;
    for (let i = 0; i < moving.length; i += 2) {
      const m0 = numberAt(moving, i) - this.move;
      const m1 = numberAt(moving, i + 1) - this.move;
      for (let k = 0; k < fixed.length; k += 2) {
        const f0 = numberAt(fixed, k);
        const f1 = numberAt(fixed, k + 1);
        if (Math.min(f1, m1) <= Math.max(f0, m0)) continue;
        const cover = coverOf(f0, f1, m0, m1);
        if (next === NONE_OPEN) next = [];
        next.push({ ...cover, of: this.overlapOf(cover, row) });
      }
    }
    for (const o of this.open) if (!next.some((n) => n.of === o.of)) this.close(o);
    this.open = next;
    this.before = row;
  }

  /** Strength of the joint: the lesser of depth and neck, at the strongest of the connected overlaps. */
  strength(): number {
    this.closeAll();
    return this.best;
  }

  /** The overlap that a stretch belongs to: that of a stretch just below it, or one that begins here. */
  private overlapOf(cover: Cover, row: number): Overlap {
    const { step } = this;
    const below = this.open.find((o) => o.x0 <= cover.x1 && o.x1 >= cover.x0);
    const of: Overlap = below?.of ?? { depth: 0, crossings: [] };
    if (!below) this.end(cover, of, row, row - 1);
    else {
      if (below.leftSide !== cover.leftSide) of.crossings.push(crossingBetween(below, cover, { end: 0, row, step }));
      if (below.right !== cover.right) of.crossings.push(crossingBetween(below, cover, { end: 1, row, step }));
    }
    of.depth = Math.max(of.depth, cover.x1 - cover.x0);
    return of;
  }

  /**
   * An overlap ends with a stretch of a row; `beyond` is the row past it. The outlines cross at those ends of the stretch that
   * the edge which goes on there does not belong to.
   */
  private end(c: Cover, of: Overlap, row: number, beyond: number): void {
    const fixedGoesOn = meets(this.fixed.rows[beyond - this.fixed.first], 0, c);
    const movingGoesOn = meets(this.moving.rows[beyond - this.moving.first], this.move, c);
    const y = ((row + beyond) / 2) * this.step;
    const crossesAt = (side: Side) => fixedGoesOn === movingGoesOn || (side === 'fixed') === fixedGoesOn;
    if (crossesAt(c.leftSide)) of.crossings.push([c.x0, y]);
    if (crossesAt(c.right)) of.crossings.push([c.x1, y]);
  }

  private close(o: Open): void {
    this.end(o, o.of, this.before, this.before + 1);
    this.best = Math.max(this.best, Math.min(o.of.depth, widest(o.of.crossings)));
  }

  private closeAll(): void {
    for (const o of this.open) this.close(o);
    this.open = NONE_OPEN;
  }
}

/** No overlaps; never added to. */
const NONE_OPEN: Open[] = [];

/** Where two stretches of ink in one row overlap, which they do. */
const coverOf = (f0: number, f1: number, m0: number, m1: number): Cover => ({
  x0: Math.max(f0, m0),
  x1: Math.min(f1, m1),
  leftSide: f0 > m0 ? 'fixed' : 'moving',
  right: f1 < m1 ? 'fixed' : 'moving',
  fixed: [f0, f1],
  moving: [m0, m1],
});

/** Strength of the joint between the ink of two neighbours after a move. `pairs` are the rows in which both have ink. */
function jointAt(
  pairs: readonly Pair[],
  {
    fixed,
    moving,
    move,
    step,
  }: { readonly fixed: InkRows; readonly moving: InkRows; readonly move: number; readonly step: number },
): number {
  const sweep = new JointSweep(fixed, moving, move, step);
  for (const pair of pairs) sweep.add(pair);
  return sweep.strength();
}

/** Where the ends (0 left, 1 right) of two strokes change places between a row and the one below it. */
function crossingBetween(
  below: Cover,
  above: Cover,
  { end, row, step }: { readonly end: 0 | 1; readonly row: number; readonly step: number },
): [number, number] {
  const apart = below.fixed[end] - below.moving[end];
  const after = above.fixed[end] - above.moving[end];
  const t = apart === after ? 0.5 : Math.min(1, Math.max(0, apart / (apart - after)));
  return [below.fixed[end] + t * (above.fixed[end] - below.fixed[end]), (row - 1 + t) * step];
}

/** The greatest distance between two of some points. */
function widest(points: readonly (readonly [number, number])[]): number {
  let most = 0;
  points.forEach(([x, y], i) => {
    for (const [u, v] of points.slice(i + 1)) most = Math.max(most, Math.hypot(x - u, y - v));
  });
  return most;
}
