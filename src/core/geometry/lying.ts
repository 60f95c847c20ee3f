/** How outlines lie to others: across them, within what they enclose, or apart. */
import { indexChords } from './chord-index';
import { numberAt } from './elements';
import { flattenPath, type Path, pathBox } from './path';
import { type Box, boxesMeet, EMPTY_BOX, growBox, type Point, uniteBoxes } from './point';
import { windingAt } from './winding';

/** Outlines made ready to be compared: as chords that stray from the curves by no more than CHORD_MM. */
export type Laid = {
  readonly paths: readonly Path[];
  /** Bounds of each path. */
  readonly boxes: readonly Box[];
  readonly lines: readonly (readonly Point[])[];
  readonly box: Box;
  readonly index: ReturnType<typeof indexChords>;
  readonly chords: readonly (readonly [Point, Point])[];
  /** Which path each chord is of. */
  readonly owners: readonly number[];
};

/** How one lies to another: `across` its outlines, `within` what it encloses, `apart` from it. */
export type Lying = 'across' | 'within' | 'apart';

const CHORD_MM = 0.01;
/** What lies nearer to an outline than this, in mm, lies on it: edges that touch or coincide do not cross. */
export const ON_MM = 0.05;

/** Paths made ready to be compared, by chords within a tolerance in mm; open ones enclose nothing. */
export function laid(paths: readonly Path[], chordMm = CHORD_MM): Laid {
  const lines = paths.map((path) => {
    const points = flattenPath(path, chordMm);
    return path.closed && points.length > 0 ? [...points, points[0] as Point] : points;
  });
  const chords = lines.flatMap((line) => line.slice(1).map((q, i) => [line[i] as Point, q] as const));
  const owners = lines.flatMap((line, nth) => line.slice(1).map(() => nth));
  const boxes = paths.map(pathBox);
  const box = boxes.reduce(uniteBoxes, EMPTY_BOX);
  const index = indexChords(chords.length, (i, put) => {
    const [p, q] = chords[i] as readonly [Point, Point];
    put(p.x, p.y, q.x, q.y);
  });
  return { paths, boxes, lines, box, index, chords, owners };
}

/**
 * How lines lie to the outlines of a region: across where some of a line lies within it, farther from its outlines than ON_MM, and some
 * outside. `where` is the first place where one does.
 */
export function lyingTo(lines: Laid, region: Laid): { readonly how: Lying; readonly where: Box } {
  const near = growBox(region.box, ON_MM);
  if (!boxesMeet(lines.box, near)) return { how: 'apart', where: EMPTY_BOX };
  let [inside, outside] = [0, 0];
  for (const [i, line] of lines.lines.entries()) {
    if (!boxesMeet(lines.boxes[i] ?? EMPTY_BOX, near)) {
      outside++;
      continue;
    }
    let before: { readonly at: Point; readonly isInside: boolean } | null = null;
    for (const at of between(line, region)) {
      if (isOn(at, region)) continue;
      const isInside = isIn(at, region);
      if (before && before.isInside !== isInside) return { how: 'across', where: boxOver(before.at, at) };
      if (isInside) inside++;
      else outside++;
      before = { at, isInside };
    }
  }
  return { how: inside > 0 && outside === 0 ? 'within' : 'apart', where: EMPTY_BOX };
}

/** A point of every stretch of a line between places where it meets the outlines of a region: these tell where all of it lies. */
function* between(line: readonly Point[], { index, chords }: Laid): Generator<Point> {
  for (let k = 1; k < line.length; k++) {
    const [p, q] = [line[k - 1] as Point, line[k] as Point];
    const box = growBox(boxOver(p, q), ON_MM);
    const stops = [0, 1];
    for (const i of index.search(box.minX, box.minY, box.maxX, box.maxY)) {
      const chord = chords[i];
      if (chord) stops.push(...meetings(p, q, chord[0], chord[1]));
    }
    stops.sort((a, b) => a - b);
    for (let n = 1; n < stops.length; n++) {
      const t = ((stops[n - 1] as number) + (stops[n] as number)) / 2;
      yield { x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) };
    }
  }
}

/** Where on the way from p to q, from 0 to 1, it meets the line through two points, and where it passes their ends. */
function meetings(p: Point, q: Point, r: Point, s: Point): number[] {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const length = dx * dx + dy * dy;
  if (length === 0) return [];
  const along = ({ x, y }: Point): number => ((x - p.x) * dx + (y - p.y) * dy) / length;
  const cross = dx * (s.y - r.y) - dy * (s.x - r.x);
  const met = cross === 0 ? [] : [((r.x - p.x) * (s.y - r.y) - (r.y - p.y) * (s.x - r.x)) / cross];
  return [...met, along(r), along(s)].filter((t) => t > 0 && t < 1);
}

/** Whether a point lies in what closed paths enclose. Those whose bounds it is not in do not wind about it. */
export function isIn({ x, y }: Point, { paths, boxes }: Pick<Laid, 'paths' | 'boxes'>): boolean {
  let winding = 0;
  for (const [i, path] of paths.entries()) {
    const box = boxes[i] as Box;
    if (path.closed && x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY)
      winding += windingAt(path, x, y);
  }
  return winding !== 0;
}

const isOn = (at: Point, region: Laid): boolean => pathsNear(at, region, ON_MM).size > 0;

/** Indices of the paths that a point is within so many mm of. */
export function pathsNear({ x, y }: Point, { index, chords, owners }: Laid, mm: number): Set<number> {
  const near = new Set<number>();
  for (const i of index.search(x - mm, y - mm, x + mm, y + mm)) {
    const chord = chords[i];
    if (chord && toChord({ x, y }, chord[0], chord[1]) <= mm) near.add(numberAt(owners, i));
  }
  return near;
}

/** How far a point is from the outlines of a region, in mm, and no more than `most`. */
export function roomWithin(at: Point, { index, chords }: Laid, most: number): number {
  let nearest = most;
  for (const i of index.search(at.x - most, at.y - most, at.x + most, at.y + most)) {
    const chord = chords[i];
    if (chord) nearest = Math.min(nearest, toChord(at, chord[0], chord[1]));
  }
  return nearest;
}

function toChord(at: Point, p: Point, q: Point): number {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const length = dx * dx + dy * dy;
  const t = length === 0 ? 0 : Math.min(1, Math.max(0, ((at.x - p.x) * dx + (at.y - p.y) * dy) / length));
  return Math.hypot(p.x + t * dx - at.x, p.y + t * dy - at.y);
}

const boxOver = (p: Point, q: Point): Box => ({
  minX: Math.min(p.x, q.x),
  minY: Math.min(p.y, q.y),
  maxX: Math.max(p.x, q.x),
  maxY: Math.max(p.y, q.y),
});
