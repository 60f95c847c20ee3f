/**
 * Where a strip best joins two pieces. The pieces are looked at in rows along a direction; a strip covers a run of rows
 * in which the two face each other, from the farthest edge of one to the farthest edge of the other, so that it meets
 * both over its whole width. Of all directions and runs the one of least cost is taken: short, square to both edges, in
 * the middle of where they face each other, upright or level rather than slanted.
 */

import { numberAt } from '../geometry/elements';
import { rowsOfChords } from '../geometry/ink-rows';
import { applyMatrix, type Point, rotation } from '../geometry/point';
import type { PieceLink, PieceShape } from './links';

/** What a strip between two edges is to be like: its width, and where and which way it is wanted. */
export type StripWish = {
  readonly widthMm: number;
  /** How far it runs into each piece. */
  readonly overlapMm: number;
  /** Along the shortest way as it may be best, or only upright or level. */
  readonly direction: 'any' | 'upright' | 'level';
  /** Where its middle is wanted, and its direction in degrees; null for where it is best. */
  readonly at: Point | null;
  readonly turnDeg: number | null;
};

/** A rectangle about `centre`, `length` along `angleDeg`. */
export type Strip = {
  readonly centre: Point;
  readonly angleDeg: number;
  readonly length: number;
  readonly width: number;
  /** How far it runs into the pieces, the lesser of both. */
  readonly overlap: number;
};

/** Rows a strip is wide. */
const ROWS = 16;
/** Widths tried, as shares of what is asked, where the pieces leave no room for all of it. */
const SHARES = [1, 0.75, 0.5, 0.3];
/** Directions tried on both sides of the shortest way. */
const TURNS = [0, 12, -12, 24, -24];
/** Upright and level are tried when the shortest way is no farther from them than this. */
const SQUARE_WITHIN = 50;

const UNEVEN = 0.6;
const OFF_MIDDLE = 0.15;
const SLANTED = 0.12;
const SHALLOW = 3;
const OFF_PLACE = 2;

/** The best strip from one shape to another along a link. */
export function bestStrip(shapes: readonly PieceShape[], link: PieceLink, wish: StripWish): Strip {
  const from = shapes[link.piece] as PieceShape;
  const to = shapes[link.to] as PieceShape;
  const shortest = (Math.atan2(link.at.y - link.from.y, link.at.x - link.from.x) * 180) / Math.PI;
  for (const share of SHARES) {
    const width = wish.widthMm * share;
    let best: (Strip & { readonly cost: number }) | null = null;
    for (const angle of anglesToTry(shortest, wish)) {
      const found = stripAlong(from, to, { link, angle, width, wish });
      if (found && (!best || found.cost < best.cost)) best = found;
    }
    if (best) return best;
  }
  // Nowhere do they face each other over any width: straight along the shortest way.
  const distance = Math.hypot(link.at.x - link.from.x, link.at.y - link.from.y);
  return {
    centre: { x: (link.from.x + link.at.x) / 2, y: (link.from.y + link.at.y) / 2 },
    angleDeg: shortest,
    length: distance + 2 * wish.overlapMm,
    width: wish.widthMm,
    overlap: wish.overlapMm,
  };
}

const apart = (a: number, b: number): number => Math.abs(((((a - b) % 360) + 540) % 360) - 180);

function anglesToTry(shortest: number, wish: StripWish): number[] {
  if (wish.turnDeg !== null) return apart(wish.turnDeg, shortest) <= 90 ? [wish.turnDeg] : [wish.turnDeg + 180];
  const nearestOf = (angles: readonly number[]) =>
    numberAt(
      [...angles].sort((a, b) => apart(a, shortest) - apart(b, shortest)),
      0,
    );
  if (wish.direction === 'upright') return [nearestOf([90, -90])];
  if (wish.direction === 'level') return [nearestOf([0, 180])];
  const square = [0, 90, 180, -90].filter((a) => apart(a, shortest) <= SQUARE_WITHIN);
  return [...square, ...TURNS.map((t) => shortest + t)];
}

/** How far an angle is from upright or level, 0 to 1. */
const slant = (angle: number): number => {
  const a = (((angle % 90) + 90) % 90) / 45;
  return a > 1 ? 2 - a : a;
};

/** One row where the pieces face each other: the end of one stroke, the start of the next, and how thick both are. */
type Facing = { readonly end: number; readonly start: number; readonly behind: number; readonly beyond: number };

function stripAlong(
  from: PieceShape,
  to: PieceShape,
  {
    link,
    angle,
    width,
    wish,
  }: { readonly link: PieceLink; readonly angle: number; readonly width: number; readonly wish: StripWish },
): (Strip & { cost: number }) | null {
  const turn = rotation(-angle);
  const step = width / ROWS;
  const wanted = wish.at ? applyMatrix(turn, wish.at) : null;
  const level = wanted?.y ?? (applyMatrix(turn, link.from).y + applyMatrix(turn, link.at).y) / 2;
  const around = reachOf(from, to, wish.widthMm);
  const near = { step, within: [level - around, level + around], upTo: Infinity } as const;
  const a = rowsOfChords(from.chords(), turn, near);
  const b = rowsOfChords(to.chords(), turn, near);
  const first = Math.max(a.first, b.first);
  const end = Math.min(a.first + a.rows.length, b.first + b.rows.length);
  const facing: (Facing | null)[] = [];
  for (let k = first; k < end; k++)
    facing.push(facingIn(a.rows[k - a.first] as readonly number[], b.rows[k - b.first] as readonly number[]));
  const middles = middlesOf(facing, width);
  let best: (Strip & { cost: number }) | null = null;
  for (let k = 0; k + ROWS <= facing.length; k++) {
    const run = runOf(facing, k);
    if (!run) continue;
    const { near, far } = run;
    const uneven = run.latest - near + far - run.earliest;
    const into = Math.min(wish.overlapMm, near - run.behind, run.beyond - far);
    const overlap = Math.max(into, Math.min(wish.overlapMm, 0.3 * width));
    const ideal = (first + numberAt(middles, k + ROWS / 2)) * step;
    // Rows are a grid; within half of it the strip may lie exactly in the middle.
    const covered = (first + k + ROWS / 2) * step;
    const middle = Math.abs(ideal - covered) <= step / 2 + 1e-9 ? ideal : covered;
    const cost =
      far -
      near +
      UNEVEN * uneven +
      OFF_MIDDLE * Math.abs(middle - ideal) +
      SLANTED * width * slant(angle) +
      SHALLOW * Math.max(0, wish.overlapMm - into) +
      (wanted ? OFF_PLACE * Math.abs(middle - wanted.y) : 0);
    if (!best || cost < best.cost) {
      const centre = applyMatrix(rotation(angle), { x: (near + far) / 2, y: middle });
      best = { centre, angleDeg: angle, length: far - near + 2 * overlap, width, overlap: Math.max(0, into), cost };
    }
  }
  return best;
}

/** Of a run of rows that face each other: the first and the last end of a stroke, the first and the last start of the next, and both backs. */
type Run = {
  near: number;
  latest: number;
  earliest: number;
  far: number;
  behind: number;
  beyond: number;
};

/** The run of rows that begins with one; null where the pieces don't face each other in all of them. */
function runOf(facing: readonly (Facing | null)[], from: number): Run | null {
  const run: Run = {
    near: Infinity,
    latest: -Infinity,
    earliest: Infinity,
    far: -Infinity,
    behind: -Infinity,
    beyond: Infinity,
  };
  for (let k = from; k < from + ROWS; k++) {
    const row = facing[k];
    if (!row) return null;
    run.near = Math.min(run.near, row.end);
    run.latest = Math.max(run.latest, row.end);
    run.earliest = Math.min(run.earliest, row.start);
    run.far = Math.max(run.far, row.start);
    run.behind = Math.max(run.behind, row.behind);
    run.beyond = Math.min(run.beyond, row.beyond);
  }
  return run;
}

/** How far from the link strips are looked for. */
const reachOf = (a: PieceShape, b: PieceShape, width: number): number => {
  const size = (s: PieceShape) => Math.max(s.box.maxX - s.box.minX, s.box.maxY - s.box.minY);
  return Math.min(Math.max(4 * width, Math.min(size(a), size(b))), 12 * width);
};

/** The shortest gap in a row from a stroke of the first to the next stroke of the second. */
function facingIn(a: readonly number[], b: readonly number[]): Facing | null {
  let best: Facing | null = null;
  for (let i = 0; i < a.length; i += 2)
    for (let k = 0; k < b.length; k += 2) {
      const end = numberAt(a, i + 1);
      const start = numberAt(b, k);
      if (start < end || (best && start - end >= best.start - best.end)) continue;
      best = { end, start, behind: numberAt(a, i), beyond: numberAt(b, k + 1) };
    }
  return best;
}

/** Gaps up to this much wider than the least of a run, and a strip's width more, are one place. */
const ALIKE = 1.6;

/** For every row the middle of the run of rows around it in which the pieces are about as near to each other. */
function middlesOf(facing: readonly (Facing | null)[], width: number): number[] {
  const least = Math.min(...facing.map((f) => (f ? f.start - f.end : Infinity)));
  const near = facing.map((f) => f !== null && f.start - f.end <= ALIKE * least + width);
  const out: number[] = [];
  for (let k = 0; k < near.length; ) {
    let end = k;
    while (end < near.length && near[end] === near[k]) end++;
    for (let i = k; i < end; i++) out.push(near[k] ? (k + end) / 2 : i);
    k = end;
  }
  return out;
}
