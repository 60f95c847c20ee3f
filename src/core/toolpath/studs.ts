/**
 * Places for studs or stand-offs that a part is mounted by: some in each of its pieces, as far from each other as can be, with the middle
 * of the piece's weight between them, and no nearer to its edges than is asked for.
 */
import { weightOf } from '../geometry/centroid';
import { isIn, type Laid, laid, roomWithin } from '../geometry/lying';
import type { Path } from '../geometry/path';
import { type Box, boxHeight, boxWidth, type Point } from '../geometry/point';
import { LIMITS } from '../limits';
import type { Outline } from '../prepare/outline';

/** How studs are set; lengths in mm. */
export type StudSettings = {
  /** Diameter of the hole for one. */
  readonly width: number;
  /** From the hole to the edge of the piece, at least. */
  readonly edge: number;
  /** How many each piece gets, where there is room for them. */
  readonly each: number;
};

/** Places of studs in the coordinates of the outlines. */
export type Studs = {
  readonly at: readonly Point[];
  readonly width: number;
  /** Bounds of pieces without room for a single one. */
  readonly without: readonly Box[];
  /** Pieces that were not looked at, for there are too many. */
  readonly notTried: number;
};

const CHORD_MM = 0.005;
/** Places tried across the longer side of a piece, at most. */
const ACROSS = 60;
/** Studs stand so many of their widths from each other, at least. */
const APART = 2.5;
/** How much a place counts by how far the middle of weight is from the line between the first two. */
const OFF_LINE = 1.5;
const BISECTIONS = 20;
/** Only so many places, those farthest out, are paired. */
const PAIRED = 160;

/** Studs for outlines that are nested, counter-clockwise around material. */
export function studsFor(outlines: readonly Outline[], settings: StudSettings): Studs {
  const holes = new Map<number, Path[]>();
  for (const o of outlines) if (o.depth % 2 === 1) holes.set(o.parent, [...(holes.get(o.parent) ?? []), o.path]);
  const pieces = outlines.flatMap((o, i) =>
    o.depth % 2 === 0 ? [{ box: o.box, paths: [o.path, ...(holes.get(i) ?? [])] }] : [],
  );
  const at: Point[] = [];
  const without: Box[] = [];
  for (const { box, paths } of pieces.slice(0, LIMITS.piecesStudded)) {
    const places = studsIn(paths, box, settings);
    if (places.length === 0) without.push(box);
    at.push(...places);
  }
  return { at, width: settings.width, without, notTried: Math.max(0, pieces.length - LIMITS.piecesStudded) };
}

function studsIn(paths: readonly Path[], box: Box, { width, edge, each }: StudSettings): Point[] {
  const room = width / 2 + edge;
  const region = laid(paths, CHORD_MM);
  const places = placesIn(region, box, room);
  const [first] = places;
  if (!first) return [];
  const weight = weightOf(paths, CHORD_MM);
  const least = APART * width;
  if (each === 1) return [nearest(places, weight)];
  const pair = farthestPair(farthestOut(places, weight), weight);
  // Where two would stand in each other's way there is one, in the middle.
  if (!pair || distance(pair[0], pair[1]) < least) return [nearest(places, weight)];
  const chosen: Point[] = [outwards(pair[0], pair[1], region, room), outwards(pair[1], pair[0], region, room)];
  while (chosen.length < each) {
    const gap = (p: Point) => Math.min(...chosen.map((c) => distance(c, p)));
    const next = places.reduce((best, p) => (gap(p) > gap(best) ? p : best));
    if (gap(next) < least) break;
    chosen.push(next);
  }
  return chosen.sort((a, b) => a.x - b.x || a.y - b.y);
}

/** Places of a grid over a piece that have room; where none has, the roomiest of a finer one. */
function placesIn(region: Laid, box: Box, room: number): Point[] {
  const longest = Math.max(boxWidth(box), boxHeight(box));
  for (const step of [Math.max(room / 2, longest / ACROSS), Math.max(room / 8, longest / (4 * ACROSS))]) {
    const places: Point[] = [];
    const even = (mm: number) => 2 * Math.floor(mm / (2 * step));
    const [columns, rows] = [even(boxWidth(box)), even(boxHeight(box))];
    // The grid has the middle of the bounds, so that what is symmetrical is studded so.
    const [x0, y0] = [(box.minX + box.maxX - columns * step) / 2, (box.minY + box.maxY - rows * step) / 2];
    for (let i = 0; i <= columns; i++)
      for (let k = 0; k <= rows; k++) {
        const p = { x: x0 + i * step, y: y0 + k * step };
        if (isIn(p, region) && roomWithin(p, region, room) >= room - 1e-9) places.push(p);
      }
    if (places.length > 0) return places;
  }
  return [];
}

/** A place moved away from another as far as there is room, which a grid of places falls short of. */
function outwards(at: Point, from: Point, region: Laid, room: number): Point {
  const length = distance(at, from);
  const moved = (mm: number): Point => ({
    x: at.x + ((at.x - from.x) / length) * mm,
    y: at.y + ((at.y - from.y) / length) * mm,
  });
  const hasRoom = (p: Point) => isIn(p, region) && roomWithin(p, region, room) >= room - 1e-9;
  let [good, bad] = [0, room];
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (good + bad) / 2;
    if (hasRoom(moved(middle))) good = middle;
    else bad = middle;
  }
  return moved(good);
}

const distance = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

const nearest = (places: readonly Point[], to: Point): Point =>
  places.reduce((best, p) => (distance(p, to) < distance(best, to) ? p : best));

const farthestOut = (places: readonly Point[], from: Point): readonly Point[] =>
  places.length <= PAIRED ? places : [...places].sort((a, b) => distance(b, from) - distance(a, from)).slice(0, PAIRED);

/** The two that are farthest apart, with the middle of weight near the line between them. */
function farthestPair(places: readonly Point[], weight: Point): [Point, Point] | null {
  let best: [Point, Point] | null = null;
  let most = Number.NEGATIVE_INFINITY;
  places.forEach((a, i) => {
    for (const b of places.slice(i + 1)) {
      const apart = distance(a, b);
      if (apart === 0) continue;
      const off = Math.abs((b.x - a.x) * (weight.y - a.y) - (b.y - a.y) * (weight.x - a.x)) / apart;
      const score = apart - OFF_LINE * off;
      if (score > most + 1e-9) [best, most] = [[a, b], score];
    }
  });
  return best;
}
