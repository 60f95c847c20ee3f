/**
 * The order in which all of a filling is drawn: rows, rings and strokes over what these miss in one short tour. A pass along the edge is
 * put into it right after, or before, the lines that end on it: it comes back to where it starts, so that it costs no way but there.
 */
import { type Drawable, polyline, polylines, travelThrough } from '../../geometry/drawable';
import { floatAt, intAt } from '../../geometry/elements';
import { laid, pathsNear } from '../../geometry/lying';
import { cutOpen, type Path, reversePath } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { pointAt, type Segment } from '../../geometry/segment';
import { nearestParameter } from '../../geometry/segment-measures';
import { countStrokes, NO_STROKES, StrokeBuilder, type Strokes } from '../../geometry/strokes';
import { type Ends, tourOf } from './tour';
import { withEdges } from './with-edges';

/** The lines of a filling: rows and what links them, rings, strokes over what these miss, and the pass along the edge. */
export type HatchParts = {
  readonly strokes: Strokes;
  readonly rings: readonly Path[];
  readonly overMissed: Strokes;
  readonly edge: readonly Path[];
};

/** A line by where it is found: the nth of packed strokes, or a path. */
type Piece = { readonly id: number } & ({ readonly of: Strokes; readonly nth: number } | { readonly path: Path });

/** A line ends on an edge when it comes this near it, in spacings. */
const ENDS_ON = 0.6;
const CHORD_MM = 0.02;

/** All that a filling draws, in order; `edgeFirst`: the pass along the edge comes before the lines that end on it. */
export function inOrder(parts: HatchParts, spacingMm: number, edgeFirst: boolean): Drawable[] {
  const { strokes, rings, overMissed, edge } = parts;
  const packed = [strokes, overMissed].flatMap((of) =>
    Array.from({ length: countStrokes(of) }, (_, nth) => ({ of, nth })),
  );
  const pieces = [...packed, ...rings.map((path) => ({ path }))].map((piece, id): Piece => ({ ...piece, id }));
  const tour = inTourOf(pieces);
  const out = new Drawing();
  if (edge.length === 0) {
    out.addAll(tour);
    return out.done();
  }
  // What comes first of a tour comes last of the same one drawn backwards.
  const lines = edgeFirst ? turnedRound(tour) : tour;
  const order = withEdges(
    lines.map((line) => ({ line, start: startOf(line), end: endOf(line) })),
    {
      edgesOf: edgesThatEnd(lines, edge, ENDS_ON * spacingMm),
      edgeCount: edge.length,
      nearest: (nth, to) => nearestOn(edge[nth] as Path, to).at,
      turned: (line) => ({ ...line, back: !line.back }),
    },
  );
  for (const item of edgeFirst ? [...order].reverse() : order)
    if ('edge' in item) out.addEdge(edge[item.edge] as Path, item.start);
    else out.addAll(edgeFirst ? turnedRound([item.line]) : [item.line]);
  return out.done();
}

/** The way that is made between the lines of a filling, in mm, whether its edge comes first or last. */
export const travelOfLines = (
  lines: Pick<HatchParts, 'strokes' | 'rings' | 'edge'> & { readonly spacingMm: number },
): number => travelThrough(inOrder({ ...lines, overMissed: NO_STROKES }, lines.spacingMm, false));

/** Of each line the numbers of the edges that it ends, or runs, on. */
function edgesThatEnd(
  lines: readonly Drawn[],
  edge: readonly Path[],
  near: number,
): (line: Drawn) => readonly number[] {
  const edges = laid(
    edge.map((path) => ({ ...path, closed: isRound(path) })),
    CHORD_MM,
  );
  const found = new Map<number, readonly number[]>();
  for (const line of lines) {
    const own = new Set<number>();
    for (const p of pointsOf(line)) for (const nth of pathsNear(p, edges, near)) own.add(nth);
    found.set(line.id, [...own]);
  }
  return (line) => found.get(line.id) ?? [];
}

/** The corners of a line. */
function* pointsOf(line: Drawn): Generator<Point> {
  if ('path' in line) {
    yield startOf(line);
    yield endOf(line);
    return;
  }
  const { xy, start } = line.of;
  for (let i = intAt(start, line.nth); i < intAt(start, line.nth + 1); i++)
    yield { x: floatAt(xy, 2 * i), y: floatAt(xy, 2 * i + 1) };
}

/** A line as it is drawn: whether from its end to its start. */
type Drawn = Piece & { readonly back: boolean };

const placeOf = (piece: Drawn | Piece, isStart: boolean): Point => {
  if ('path' in piece) {
    const s = piece.path.segments;
    const [first, last] = [s[0] as Segment, s[s.length - 1] as Segment];
    return isStart ? { x: first.x0, y: first.y0 } : { x: last.x1, y: last.y1 };
  }
  const { xy, start } = piece.of;
  const i = isStart ? intAt(start, piece.nth) : intAt(start, piece.nth + 1) - 1;
  return { x: floatAt(xy, 2 * i), y: floatAt(xy, 2 * i + 1) };
};
const startOf = (d: Drawn): Point => placeOf(d, !d.back);
const endOf = (d: Drawn): Point => placeOf(d, d.back);
const turnedRound = (drawn: readonly Drawn[]): Drawn[] => drawn.map((d) => ({ ...d, back: !d.back })).reverse();

function inTourOf(pieces: readonly Piece[]): Drawn[] {
  const ends: Ends = new Float64Array(4 * pieces.length);
  pieces.forEach((piece, i) => {
    const [a, b] = [placeOf(piece, true), placeOf(piece, false)];
    ends.set([a.x, a.y, b.x, b.y], 4 * i);
  });
  return Array.from(tourOf(ends), (o) => ({ ...(pieces[o < 0 ? -1 - o : o] as Piece), back: o < 0 }));
}

/** Gathers what is drawn: strokes that follow each other are packed together. */
class Drawing {
  private readonly drawables: Drawable[] = [];
  private packed: StrokeBuilder | null = null;

  addAll(drawn: readonly Drawn[]): void {
    for (const d of drawn) {
      if ('path' in d) this.addPath(d.back ? reversePath(d.path) : d.path);
      else this.addStroke(d);
    }
  }

  /** An edge, begun at its point nearest to one. */
  addEdge(path: Path, begun: Point): void {
    const { segment, t } = nearestOn(path, begun);
    const segments = isRound(path) ? cutOpen(path, segment, t) : path.segments;
    // Closed, the pass along the edge could be taken for the rim of an area.
    this.addPath({ segments, closed: false });
  }

  done(): Drawable[] {
    this.unpack();
    return this.drawables;
  }

  private addPath(path: Path): void {
    this.unpack();
    this.drawables.push(polyline(path));
  }

  private addStroke({
    of: { xy, start },
    nth,
    back,
  }: {
    readonly of: Strokes;
    readonly nth: number;
    readonly back: boolean;
  }): void {
    this.packed ??= new StrokeBuilder();
    const [a, b] = [intAt(start, nth), intAt(start, nth + 1)];
    for (let k = 0; k < b - a; k++) {
      const i = back ? b - 1 - k : a + k;
      this.packed.add(floatAt(xy, 2 * i), floatAt(xy, 2 * i + 1));
    }
    this.packed.lift();
  }

  private unpack(): void {
    if (this.packed) this.drawables.push(...polylines(this.packed.done()));
    this.packed = null;
  }
}

type Place = { readonly segment: number; readonly t: number; readonly at: Point; readonly distance: number };

/** The point of a path nearest to a point. */
function nearestOn({ segments }: Path, { x, y }: Point): Place {
  let best: Place = { segment: 0, t: 0, at: { x, y }, distance: Number.POSITIVE_INFINITY };
  segments.forEach((s, segment) => {
    const t = nearestParameter(s, x, y);
    const p = pointAt(s, t);
    const far = Math.hypot(p.x - x, p.y - y);
    if (far < best.distance) best = { segment, t, at: p, distance: far };
  });
  return best;
}

/** Whether a path comes back to where it starts. */
const isRound = ({ segments, closed }: Path): boolean => {
  const [first, last] = [segments[0], segments[segments.length - 1]];
  return closed || (first !== undefined && last !== undefined && first.x0 === last.x1 && first.y0 === last.y1);
};
