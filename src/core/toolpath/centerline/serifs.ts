/**
 * Serifs of a letter, taken off before it is traced. Each side of a stem is looked at by itself, so that feet with two serifs, flags
 * with one and the beaks of arms are the same thing. Lengths are in the unit of the letter, shares of its capital height.
 */
import { type Path, stretchesBetween } from '../../geometry/path';
import { distance, type Point } from '../../geometry/point';
import { line, type Segment, subSegment } from '../../geometry/segment';
import type { OutlinePoints } from './outline-points';
import type { SerifSide } from './serif-side';
import { haveOneEdge, lengthBetween, outlinesOf, rangeOf, sidesOf } from './serif-sides';

/** The stroke of a serif: from tip to tip, or from a tip to the side of its stem. */
export type SerifStroke = {
  /** Three points: its ends, and one half way. */
  readonly points: readonly [Point, Point, Point];
  /** Whether its last point is a tip as well; else it is to go on to the line of its stem. */
  readonly isWhole: boolean;
  /** How thick it is at the tips. */
  readonly height: number;
};

/**
 * How far serifs of a face stand out at most, told from its H and n, `capital` high; null where the face has none: those of an H
 * are told from both feet and both heads.
 */
export function serifReach(capitals: readonly (readonly Path[])[], capital: number): number | null {
  const found = capitals.flatMap((region) =>
    sidesOf(outlinesOf(region, capital), MOST_OF_CAPITAL * capital, capital).map(({ by }) => by),
  );
  found.sort((a, b) => a - b);
  const usual = found[found.length >> 1];
  if (found.length < OF_AN_H || usual === undefined) return null;
  return Math.min(OF_USUAL * usual, MOST_OF_CAPITAL * capital);
}
/** An H has eight sides of serifs; some faces leave out one or two. */
const OF_AN_H = 6;
/** Serifs stand out no farther than this share of a capital; beaks of arms are longer than feet by this. */
const MOST_OF_CAPITAL = 0.24;
const OF_USUAL = 1.6;

/** A region without its serifs, its stems gone on straight to the edges they ended on, and the strokes that the serifs are. */
export function withoutSerifs(
  region: readonly Path[],
  most: number,
  capital: number,
): { readonly region: readonly Path[]; readonly serifs: readonly SerifStroke[] } {
  const outlines = outlinesOf(region, capital);
  const sides = sidesOf(outlines, most, capital);
  if (sides.length === 0) return { region, serifs: [] };
  const cut = region.map((path, k): Path => {
    const o = outlines[k] as OutlinePoints;
    const { segments } = path;
    const mine = sides.filter((s) => s.path === k).map((side) => ({ side, ...rangeOf(side, o.length) }));
    if (mine.length === 0) return path;
    mine.sort((a, b) => a.from - b.from);
    return {
      closed: true,
      segments: mine.flatMap(({ to }, i) => {
        const next = mine[(i + 1) % mine.length] as (typeof mine)[number];
        const kept = stretchesBetween(segments.length, o.placeAt(to), o.placeAt(next.from))
          .filter((s) => s.to - s.from > 1e-9)
          .map((s) => subSegment(segments[s.segment] as Segment, s.from, s.to));
        const [end, start] = [o.pointAlong(next.from), o.pointAlong(next.to)];
        const { corner } = next.side;
        if (!corner) return [...kept, line(end.x, end.y, start.x, start.y)];
        return [...kept, line(end.x, end.y, corner.x, corner.y), line(corner.x, corner.y, start.x, start.y)];
      }),
    };
  });
  return { region: cut, serifs: strokesOf(sides, outlines, capital) };
}

/** The strokes of serifs: sides with a common edge make one. */
function strokesOf(sides: readonly SerifSide[], outlines: readonly OutlinePoints[], capital: number): SerifStroke[] {
  const alone = new Set(sides);
  const strokes: SerifStroke[] = [];
  for (const a of sides.filter((s) => s.way === 1)) {
    const on = (b: SerifSide) => lengthBetween(a, b, outlines);
    const b = sides
      .filter((other) => alone.has(other) && haveOneEdge(a, other, outlines, capital))
      .reduce<SerifSide | null>((least, other) => (least && on(least) <= on(other) ? least : other), null);
    if (!b) continue;
    alone.delete(a);
    alone.delete(b);
    const height = (a.height + b.height) / 2;
    const o = outlines[a.path] as OutlinePoints;
    const middle = o.pointAlong(a.edge + on(b) / 2);
    // As deep at both tips, and half way between them too, however much the edge is hollowed.
    const size = distance(a.tip, b.tip) || 1;
    const into = { x: -(b.tip.y - a.tip.y) / size, y: (b.tip.x - a.tip.x) / size };
    const deeper = (p: Point, by: number): Point => ({ x: p.x + by * into.x, y: p.y + by * into.y });
    const points = [
      deeper(a.tip, (height - a.height) / 2),
      deeper(middle, height / 2),
      deeper(b.tip, (height - b.height) / 2),
    ] as const;
    strokes.push({ points, isWhole: true, height });
  }
  for (const { tip, along, to, height, by } of alone)
    if (by > 0) strokes.push({ points: [tip, along, to], isWhole: false, height });
  return strokes;
}
