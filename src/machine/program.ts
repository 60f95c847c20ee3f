/** A file as a machine takes it: its operations one after the other, and of each what is run, in the order of the file. */
import type { ReadDrawing, ReadGroup, ReadShape } from '../core/formats/read-drawing';
import { type Path, pathLength, regionBox } from '../core/geometry/path';
import { type Box, distance, EMPTY_BOX, type Point, uniteBoxes } from '../core/geometry/point';

/** What is run in one go: along a line from where the tool is set down to where it is lifted, in a point, or over areas row by row. */
export type RunItem = {
  /** Number of its operation. */
  readonly operation: number;
  readonly kind: 'line' | 'point' | 'areas';
  /** The one path of a line, the outlines of areas; none of a point. */
  readonly paths: readonly Path[];
  readonly from: Point;
  readonly to: Point;
};

/** An operation as a machine takes it: what the file has under one layer and colour, filled or as lines. */
export type ProgramOperation = {
  /** The layer or group; "" where the file names none. */
  readonly name: string;
  readonly colour: string;
  readonly pen: number | null;
  /** Whether it goes over areas, in place of running along lines. */
  readonly isFilled: boolean;
  /** What is run of it: from one number of the items up to another. */
  readonly first: number;
  readonly end: number;
  readonly paths: number;
  /** Of these, those that do not come back to where they start. */
  readonly open: number;
  readonly lengthMm: number;
  /** The way from one path to the next, in the order of the file, and from where the operation before ended. */
  readonly travelMm: number;
  readonly box: Box;
};

/** A file as it is run. */
export type Program = { readonly operations: readonly ProgramOperation[]; readonly items: readonly RunItem[] };

/** Ends of a path that are nearer to each other than this, in mm, are one place. */
const MEETS_MM = 0.005;

/** Whether a shape is gone over as an area. One that is drawn along its edge as well is run along the edge. */
export const isFilled = (shape: ReadShape): boolean => shape.fill !== null && shape.stroke === null;

/** Whether a path comes back to where it starts. */
export function isRound({ segments, closed }: Path): boolean {
  const [first, last] = [segments[0], segments[segments.length - 1]];
  return closed || (!!first && !!last && Math.hypot(first.x0 - last.x1, first.y0 - last.y1) < MEETS_MM);
}

/** What is drawn of a layer before it is an operation. */
type Gathered = {
  readonly of: Pick<ReadGroup, 'name' | 'colour' | 'pen'>;
  readonly isFilled: boolean;
  readonly drawn: (Path | Point)[];
};

/** A drawing as a machine takes it: layers as the file first comes to each; what is filled apart from what is not. */
export function programOf({ shapes, groups, points }: ReadDrawing): Program {
  const byKey = new Map<string, Gathered>();
  const gathered = (of: Gathered['of'], filled: boolean): Gathered => {
    const key = JSON.stringify([of.name, of.colour, of.pen ?? null, filled]);
    const known = byKey.get(key) ?? { of, isFilled: filled, drawn: [] };
    byKey.set(key, known);
    return known;
  };
  let nextPoint = 0;
  shapes.forEach((shape, i) => {
    for (let p = points[nextPoint]; p && p.before <= i; p = points[++nextPoint]) gathered(p.of, false).drawn.push(p.at);
    const group = groups[shape.group];
    if (group) gathered(group, isFilled(shape)).drawn.push(...shape.paths);
  });
  for (const p of points.slice(nextPoint)) gathered(p.of, false).drawn.push(p.at);
  const items: RunItem[] = [];
  let at: Point = { x: 0, y: 0 };
  const operations = [...byKey.values()].map((of, operation): ProgramOperation => {
    const first = items.length;
    items.push(...itemsOf(of, operation));
    let travelMm = 0;
    for (const [from, to] of of.drawn.flatMap(endsOf)) {
      travelMm += distance(at, from);
      at = to;
    }
    const paths = of.drawn.flatMap((d) => ('segments' in d ? [d] : []));
    return {
      name: of.of.name,
      colour: of.of.colour,
      pen: of.of.pen ?? null,
      isFilled: of.isFilled,
      first,
      end: items.length,
      paths: of.drawn.length,
      open: paths.filter((path) => !isRound(path)).length,
      lengthMm: paths.reduce((sum, path) => sum + pathLength(path), 0),
      travelMm,
      box: of.drawn.reduce((all, d) => uniteBoxes(all, boxOf(d)), EMPTY_BOX),
    };
  });
  return { operations, items };
}

/** Where a path or a point is begun, and where it ends; nothing of a path without segments. */
function endsOf(d: Path | Point): (readonly [Point, Point])[] {
  if (!('segments' in d)) return [[d, d]];
  const [first, last] = [d.segments[0], d.segments[d.segments.length - 1]];
  if (!first || !last) return [];
  return [
    [
      { x: first.x0, y: first.y0 },
      { x: last.x1, y: last.y1 },
    ],
  ];
}

const boxOf = (d: Path | Point): Box =>
  'segments' in d ? regionBox([d]) : { minX: d.x, minY: d.y, maxX: d.x, maxY: d.y };

function itemsOf({ isFilled, drawn }: Gathered, operation: number): RunItem[] {
  if (isFilled) {
    const paths = drawn.flatMap((d) => ('segments' in d ? [d] : []));
    const { minX, minY, maxY } = regionBox(paths);
    return paths.length === 0
      ? []
      : [{ operation, kind: 'areas', paths, from: { x: minX, y: minY }, to: { x: minX, y: maxY } }];
  }
  return drawn.flatMap((d): RunItem[] =>
    endsOf(d).map(([from, to]) => ({
      operation,
      kind: 'segments' in d ? 'line' : 'point',
      paths: 'segments' in d ? [d] : [],
      from,
      to,
    })),
  );
}
