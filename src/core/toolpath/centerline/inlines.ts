/**
 * Letters drawn around white: with an inline along the middle of each stroke, or in outline, with or without a shadow. What they are
 * drawn around is the letter; its middle line is that of the letter, whatever is drawn outside, and whatever runs along its middle.
 */
import { isIn, laid } from '../../geometry/lying';
import { type Path, pathArea, pathLength, reversePath } from '../../geometry/path';
import { pointAt, type Segment } from '../../geometry/segment';

/** A connected region: its outline, then its holes. */
type Region = readonly Path[];

/** How a face draws around white. */
export type InlineManner = {
  /** How wide the white is that its letters are drawn around. */
  readonly white: number;
  /** How wide lines are that run along the middle of it; 0 where there are none. */
  readonly line: number;
};

/** What is wider than this against that of letters without holes of their own is a counter, or what stands in one. */
const WIDER = 1.6;
/** So many of the letters that have no holes of their own must have one. */
const MOST_LETTERS = 0.75;

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** The mean width of what lies within an outline and outside others in it. */
const widthOf = (outer: Path, inner: readonly Path[] = []): number =>
  (2 * (Math.abs(pathArea(outer)) - sum(inner.map((p) => Math.abs(pathArea(p)))))) /
  (pathLength(outer) + sum(inner.map(pathLength)));

/** The regions that lie in a hole, none of them in another of these. */
function islandsIn(hole: Path, regions: readonly Region[]): Region[] {
  const outlineOf = ([path]: Region) => path as Path;
  const isWithin = (path: Path, outer: Path) =>
    path !== outer && isIn(pointAt(path.segments[0] as Segment, 0), laid([outer]));
  const all = regions.filter(
    (r) => isWithin(outlineOf(r), hole) && Math.abs(pathArea(outlineOf(r))) < Math.abs(pathArea(hole)),
  );
  return all.filter((r) => !all.some((other) => other !== r && isWithin(outlineOf(r), outlineOf(other))));
}

/** How a face draws around white, told from letters that have no hole of their own, each as its regions; null where they are solid. */
export function inlineManner(letters: readonly (readonly Region[])[]): InlineManner | null {
  const found = letters.flatMap((regions) => {
    const holes = regions.flatMap((region) =>
      region.slice(1).map((hole) => ({ hole, islands: islandsIn(hole, regions) })),
    );
    if (holes.length === 0) return [];
    return [
      {
        white: Math.max(...holes.map(({ hole }) => widthOf(hole))),
        line: Math.max(0, ...holes.flatMap(({ islands }) => islands.map(([path]) => widthOf(path as Path)))),
      },
    ];
  });
  if (found.length === 0 || found.length < MOST_LETTERS * letters.length) return null;
  const middle = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1] ?? 0;
  return { white: middle(found.map((f) => f.white)), line: middle(found.map((f) => f.line)) };
}

/** What stands in the white of a hole: its islands, without lines along the middle of the white, in whose own holes it goes on. */
function counters(hole: Path, regions: readonly Region[], line: number): Path[] {
  return islandsIn(hole, regions).flatMap(([path, ...holes]) => {
    const isLine = line > 0 && widthOf(path as Path, holes) < WIDER * line;
    return isLine ? holes.flatMap((inner) => counters(inner, regions, line)) : [path as Path];
  });
}

/** The regions that a letter is drawn around, without their counters; the regions themselves where it is solid. */
export function regionsWithin(regions: readonly Region[], { white, line }: InlineManner): readonly Region[] {
  // What lies in a hole is a counter, or part of one.
  const islands = new Set(regions.flatMap((region) => region.slice(1).flatMap((hole) => islandsIn(hole, regions))));
  const holes = regions.filter((region) => !islands.has(region)).flatMap((region) => region.slice(1));
  const within = holes.flatMap((hole): Region[] => {
    const inner = counters(hole, regions, line);
    return widthOf(hole, inner) < WIDER * white ? [[hole, ...inner].map(reversePath)] : [];
  });
  return within.length > 0 ? within : regions;
}
