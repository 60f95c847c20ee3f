/**
 * Strength: where what is kept is thinner than is safe, and where gaps are narrower than the beam or tool. Narrow places
 * that lie side by side along a stroke are one stretch. The tips of points and rounded ends are thin by nature and do not
 * count, unless the taper is long; nor do the bottoms of notches, where no beam gets in.
 */
import { DisjointSets } from '../geometry/disjoint-sets';
import { numberAt } from '../geometry/elements';
import {
  applyMatrix,
  type Box,
  boxContains,
  boxesMeet,
  boxHeight,
  boxWidth,
  EMPTY_BOX,
  growBox,
  isIdentity,
  type Matrix,
  type Point,
  transformedBox,
  uniteBoxes,
} from '../geometry/point';
import { type Narrow, narrowPlaces, pathStops } from '../geometry/width';
import type { Outline } from '../prepare/outline';
import type { Source } from '../prepare/source';

/** How much the cut takes of what is kept along an outline, in mm: half the kerf where it runs on the outline, nothing where it runs beside it. */
export type Taken = (outline: Outline) => number;
const NOTHING: Taken = () => 0;

/** What is asked of a part: the least width of what stays, and of gaps, in mm, 0 for not to look; and what the cut takes. */
export type StrengthAsked = { readonly least: number; readonly kerf: number; readonly taken?: Taken };

/** A run of places of a part thinner than is safe, with its least width in mm. */
export type Stretch = {
  /** At its narrowest as drawn, in mm, and where. */
  readonly width: number;
  /** What is left of that once the cut has taken its part, in mm; less than nothing where it takes all. Gaps lose nothing. */
  readonly left: number;
  readonly at: Point;
  readonly box: Box;
  /** Sources on both sides there; -1 for none. */
  readonly labels: readonly [number, number];
  /** Lines across it, side by side along it: from, to. */
  readonly across: readonly (readonly [Point, Point])[];
};

/** Where a part is thinner than is safe, and where its gaps are too narrow to cut. */
export type Strength = {
  /** Where what is kept is too thin, narrowest first. */
  readonly thin: readonly Stretch[];
  /** Where gaps are narrower than the kerf, narrowest first. */
  readonly tight: readonly Stretch[];
};

/** A place counts when the way along the outline from one side to the other is this many times the width asked for … */
const WAY_ROUND = { inside: 3, outside: 12 };
/** … and this many times the distance straight across: points up to about 30° apart do not. */
const TAPER = 4;
/** Small pieces are thin all over; there the way round is at most half the outline. */
const SMALL_SHARE = 0.4;
/** Widths are measured to this, in mm. */
const ROUNDING_MM = 0.005;
/** Lines across a stretch are about this many to the width asked for. */
const LINES = 3;

/** Where a region is thinner than is safe once it is cut, and where its gaps are too narrow to cut. */
export const strengthOf = (kept: readonly Outline[], { least, kerf, taken = NOTHING }: StrengthAsked): Strength => ({
  thin: stretches(kept, least, { side: 'inside', taken }),
  tight: stretches(kept, kerf, { side: 'outside', taken: NOTHING }),
});

/** A part's strength with the outlines it was found for. */
export type StrengthBefore = { readonly kept: readonly Outline[]; readonly strength: Strength };

/** Where more than this share of the whole has changed, everything is looked at anew. */
const MOST_CHANGED = 0.5;

/**
 * Strength when only some outlines are others than before, for the same sources: looked at anew only about those. Outlines
 * that stayed are known by their paths being the same objects.
 */
export function strengthAfter(before: StrengthBefore, kept: readonly Outline[], asked: StrengthAsked): Strength {
  const { least, kerf, taken = NOTHING } = asked;
  const paths = (list: readonly Outline[]) => new Set(list.map((o) => o.path));
  const [old, now] = [paths(before.kept), paths(kept)];
  const changed = [...before.kept.filter((o) => !now.has(o.path)), ...kept.filter((o) => !old.has(o.path))];
  if (changed.length === 0) return before.strength;
  const around = Math.max(least + 2 * mostTaken(kept, taken), kerf);
  let area = growBox(
    changed.reduce((box, o) => uniteBoxes(box, o.box), EMPTY_BOX),
    around,
  );
  // Stretches that reach into it are found anew as a whole.
  const reaching = [...before.strength.thin, ...before.strength.tight];
  for (let grown = true; grown; ) {
    grown = false;
    for (const { box } of reaching)
      if (boxesMeet(box, area) && !boxContains(area, growBox(box, around / 2))) {
        area = uniteBoxes(area, growBox(box, around));
        grown = true;
      }
  }
  const whole = kept.reduce((box, o) => uniteBoxes(box, o.box), EMPTY_BOX);
  if (boxWidth(area) * boxHeight(area) > MOST_CHANGED * boxWidth(whole) * boxHeight(whole))
    return strengthOf(kept, asked);
  const near = kept.filter((o) => boxesMeet(o.box, growBox(area, 2 * around)));
  const renewed = (list: readonly Stretch[], least: number, how: Looking) =>
    [...list.filter((s) => !boxesMeet(s.box, area)), ...stretches(near, least, { ...how, within: area })].sort(
      (a, b) => a.left - b.left,
    );
  return {
    thin: renewed(before.strength.thin, least, { side: 'inside', taken }),
    tight: renewed(before.strength.tight, kerf, { side: 'outside', taken: NOTHING }),
  };
}

/** Lines across of one length, but for this share, lie where the sides are parallel; so many of them are no point. */
const PARALLEL = { share: 0.005, lines: 3 };

/** Strength without the points of spikes, which are thin by intent; a spike that is thin where its sides are parallel stays. */
export const withoutPoints = (strength: Strength, sources: readonly Source[]): Strength => {
  const isPoint = ({ labels: [a, b], across }: Stretch): boolean => {
    const source = sources[a];
    if (a !== b || source?.shape !== 'spike' || source.takesAway) return false;
    const widths = across.map(([p, q]) => Math.hypot(q.x - p.x, q.y - p.y));
    const widest = Math.max(...widths);
    return widths.filter((width) => width > (1 - PARALLEL.share) * widest).length < PARALLEL.lines;
  };
  const thin = strength.thin.filter((stretch) => !isPoint(stretch));
  return thin.length === strength.thin.length ? strength : { ...strength, thin };
};

/** The strength of a part that is moved, turned or mirrored. */
export function transformStrength(strength: Strength, m: Matrix): Strength {
  if (isIdentity(m)) return strength;
  const { thin, tight } = strength;
  const moved = (s: Stretch): Stretch => ({
    ...s,
    at: applyMatrix(m, s.at),
    box: transformedBox(s.box, m),
    across: s.across.map(([p, q]) => [applyMatrix(m, p), applyMatrix(m, q)] as const),
  });
  return { thin: thin.map(moved), tight: tight.map(moved) };
}

/** The narrowest width of what is kept, or of what the cut leaves of it, as far as it is under `most` mm; null when it is not. */
export function leastWidth(kept: readonly Outline[], most: number, taken: Taken = NOTHING): number | null {
  const thin = stretches(kept, most, { side: 'inside', taken });
  return thin[0]?.left ?? null;
}

type Looking = { readonly side: 'inside' | 'outside'; readonly taken: Taken; readonly within?: Box };

const mostTaken = (outlines: readonly Outline[], taken: Taken): number =>
  outlines.reduce((most, outline) => Math.max(most, taken(outline)), 0);

/** Narrow places with what is left of each. */
type Place = Narrow & { readonly left: number };

function stretches(outlines: readonly Outline[], asked: number, { side, taken, within }: Looking): Stretch[] {
  // What is as wide as asked, but for rounding, is wide enough.
  const least = asked - ROUNDING_MM;
  if (!(least > 0)) return [];
  const most = least + 2 * mostTaken(outlines, taken);
  const paths = outlines.map((o) => o.path);
  const lengths = paths.map((p) => pathStops(p));
  const takenOf = outlines.map(taken);
  const places = narrowPlaces(paths, most, side, within ?? null)
    .map((p): Place => ({ ...p, left: p.width - numberAt(takenOf, p.path) - numberAt(takenOf, p.toPath) }))
    .filter((p) => p.left < least && counts(p, lengths, most * WAY_ROUND[side]));
  return gather(places, most)
    .map((group) => stretchOf(group, outlines, lengths, most))
    .sort((a, b) => a.left - b.left);
}

function counts(p: Narrow, lengths: readonly (readonly number[])[], wayRound: number): boolean {
  if (p.path !== p.toPath) return true;
  const whole = lengths[p.path]?.at(-1) ?? 0;
  const straight = Math.abs(p.toAlong - p.along);
  const way = Math.min(straight, whole - straight);
  const across = Math.hypot(p.to.x - p.from.x, p.to.y - p.from.y);
  return way >= TAPER * across && way >= Math.min(wayRound, SMALL_SHARE * whole);
}

/** Places gathered with those beside them on the same outline, and with those on the outline across. */
function gather(places: readonly Place[], most: number): Place[][] {
  const byPath = new Map<number, number[]>();
  places.forEach((p, i) => {
    const list = byPath.get(p.path);
    if (list) list.push(i);
    else byPath.set(p.path, [i]);
  });
  const sets = new DisjointSets(places.length);
  const reach = most / 2;
  const alongOf = (i: number) => (places[i] as Narrow).along;
  for (const list of byPath.values()) {
    list.sort((a, b) => alongOf(a) - alongOf(b));
    for (let k = 1; k < list.length; k++)
      if (alongOf(numberAt(list, k)) - alongOf(numberAt(list, k - 1)) <= reach)
        sets.join(numberAt(list, k), numberAt(list, k - 1));
  }
  places.forEach((p, i) => {
    const list = byPath.get(p.toPath);
    if (!list) return;
    let lo = 0;
    let hi = list.length - 1;
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (alongOf(numberAt(list, mid)) < p.toAlong) lo = mid + 1;
      else hi = mid;
    }
    for (const k of [lo - 1, lo]) {
      const other = list[k];
      if (other !== undefined && Math.abs(alongOf(other) - p.toAlong) <= reach) sets.join(i, other);
    }
  });
  return sets.gather(places);
}

function stretchOf(
  group: readonly Place[],
  outlines: readonly Outline[],
  stops: readonly (readonly number[])[],
  most: number,
): Stretch {
  const least = group.reduce((a, b) => (b.left < a.left ? b : a));
  const labelAt = (path: number, along: number): number => {
    const i = (stops[path] as readonly number[]).findIndex((stop) => along <= stop + 1e-9);
    return outlines[path]?.labels[Math.max(0, i)] ?? -1;
  };
  let box: Box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  const across: (readonly [Point, Point])[] = [];
  const drawn = new Map<number, number>();
  for (const p of group) {
    for (const q of [p.from, p.to])
      box = {
        minX: Math.min(box.minX, q.x),
        minY: Math.min(box.minY, q.y),
        maxX: Math.max(box.maxX, q.x),
        maxY: Math.max(box.maxY, q.y),
      };
    const last = drawn.get(p.path);
    if (last !== undefined && Math.abs(p.along - last) < most / LINES) continue;
    drawn.set(p.path, p.along);
    across.push([p.from, p.to]);
  }
  return {
    width: least.width,
    left: least.left,
    at: { x: (least.from.x + least.to.x) / 2, y: (least.from.y + least.to.y) / 2 },
    box,
    labels: [labelAt(least.path, least.along), labelAt(least.toPath, least.toAlong)],
    across,
  };
}
