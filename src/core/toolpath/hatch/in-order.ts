/**
 * The order in which fillings are drawn: rows, rings and strokes over what these miss in one short tour, over all that one operation
 * fills. A pass along the edge is put into it right after, or before, the lines that end on it: it comes back to where it starts, so
 * that it costs no way but there.
 */
import { type Drawable, polyline, polylines, travelThrough } from '../../geometry/drawable';
import { floatAt, intAt, numberAt } from '../../geometry/elements';
import { laid, pathsNear } from '../../geometry/lying';
import { nearestOnLine } from '../../geometry/near-lines';
import { cutOpen, type Path, reversePath } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import type { Segment } from '../../geometry/segment';
import { countStrokes, NO_STROKES, StrokeBuilder, type Strokes } from '../../geometry/strokes';
import { type Ends, tourOf, toursOf, travelOf } from './tour';
import { type EdgesOf, wayThroughItems, withEdges } from './with-edges';

/** The lines of a filling: rows and what links them, rings, strokes over what these miss, and the pass along the edge. */
export type HatchParts = {
  readonly strokes: Strokes;
  readonly rings: readonly Path[];
  readonly overMissed: Strokes;
  readonly edge: readonly Path[];
};

/** A filling with what its order goes by: how far its lines are apart, and whether its edge comes before the lines that end on it. */
export type Filling = HatchParts & { readonly spacingMm: number; readonly edgeFirst: boolean };

/** What is drawn of one of several fillings, by its number. */
export type OfFilling = { readonly filling: number; readonly drawable: Drawable };

type OfStrokes = { readonly of: Strokes; readonly nth: number };

/** A line by where it is found: the nth of packed strokes, or a path; and the filling it belongs to. */
type Piece = {
  readonly id: number;
  readonly filling: number;
  readonly first: Point;
  readonly last: Point;
} & (OfStrokes | { readonly path: Path });

/** A line ends on an edge when it comes this near it, in spacings. */
const ENDS_ON = 0.6;
const CHORD_MM = 0.02;
/** Edges are put into so many of the shortest tours, of which the shortest with edges is taken. */
const TOURS_WITH_EDGES = 4;

/** All that a filling draws, in order. */
export const inOrder = (filling: Filling): Drawable[] => fillingsInOrder([filling]).map((d) => d.drawable);

/** All that several fillings draw, in one order. Those whose edges come first are drawn before those whose edges come last. */
export function fillingsInOrder(fillings: readonly Filling[]): OfFilling[] {
  const out = new Drawing();
  const isEdged = fillings.map(({ edge }) => edge.length > 0);
  const anyLast = fillings.some(({ edgeFirst }, i) => isEdged[i] && !edgeFirst);
  const isFirst = fillings.map(({ edgeFirst }, i) => (isEdged[i] ? edgeFirst : !anyLast));
  for (const edgeFirst of [true, false]) drawGroup(fillings, (i) => isFirst[i] === edgeFirst, edgeFirst, out);
  return out.done();
}

/** Some of the fillings in one tour, with their edges. */
function drawGroup(
  fillings: readonly Filling[],
  isIn: (filling: number) => boolean,
  edgeFirst: boolean,
  out: Drawing,
): void {
  const pieces: Piece[] = [];
  const edges: { readonly path: Path; readonly filling: number }[] = [];
  fillings.forEach(({ strokes, overMissed, rings, edge }, filling) => {
    if (!isIn(filling)) return;
    for (const packed of [strokes, overMissed])
      for (let nth = 0; nth < countStrokes(packed); nth++)
        pieces.push({ id: pieces.length, filling, of: packed, nth, ...endsOfStroke(packed, nth) });
    for (const path of rings) pieces.push({ id: pieces.length, filling, path, ...endsOfPath(path) });
    for (const path of edge) edges.push({ path, filling });
  });
  const ends = endsOfAll(pieces);
  if (edges.length === 0) {
    out.addAll(asDrawn(pieces, tourOf(ends)));
    return;
  }
  const firstEdge = fillings.map((_, filling) => edges.findIndex((e) => e.filling === filling));
  const edgesOf = fillings.map(({ edge, spacingMm }, filling) =>
    isIn(filling)
      ? edgesThatEnd(
          pieces.filter((line) => line.filling === filling),
          edge,
          ENDS_ON * spacingMm,
        )
      : null,
  );
  const ownEdges = pieces.map((line) =>
    (edgesOf[line.filling]?.(line) ?? []).map((nth) => nth + numberAt(firstEdge, line.filling)),
  );
  // Every start and end is asked about over and over, for every edge.
  const known = edges.map(() => new Map<Point, Point>());
  const asked: EdgesOf<Drawn> = {
    edgesOf: (line) => ownEdges[line.id] as readonly number[],
    edgeCount: edges.length,
    nearest: (nth, to) => {
      const own = known[nth] as Map<Point, Point>;
      const at = own.get(to) ?? nearestOnLine((edges[nth] as { path: Path }).path, to, Infinity)?.at ?? to;
      own.set(to, at);
      return at;
    },
    turned: (line) => ({ ...line, back: !line.back }),
  };
  const order = toursOf(ends)
    .sort((a, b) => travelOf(ends, a) - travelOf(ends, b))
    .slice(0, TOURS_WITH_EDGES)
    .map((tour) => {
      // What comes first of a tour comes last of the same one drawn backwards.
      const lines = edgeFirst ? turnedRound(asDrawn(pieces, tour)) : asDrawn(pieces, tour);
      return withEdges(
        lines.map((line) => ({ line, start: startOf(line), end: endOf(line) })),
        asked,
      );
    })
    .reduce((best, other) => (wayThroughItems(other) < wayThroughItems(best) ? other : best));
  for (const item of edgeFirst ? [...order].reverse() : order)
    if ('edge' in item) {
      const { path, filling } = edges[item.edge] as (typeof edges)[number];
      out.addEdge(path, filling, item.start);
    } else out.addAll(edgeFirst ? turnedRound([item.line]) : [item.line]);
}

/** The way that is made between the lines of a filling, in mm, whether its edge comes first or last. */
export const travelOfLines = (
  lines: Pick<HatchParts, 'strokes' | 'rings' | 'edge'> & { readonly spacingMm: number },
): number => travelThrough(inOrder({ ...lines, overMissed: NO_STROKES, edgeFirst: false }));

/** Of each line the numbers of the edges that it ends, or runs, on. */
function edgesThatEnd(
  lines: readonly Piece[],
  edge: readonly Path[],
  near: number,
): (line: Piece) => readonly number[] {
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
function* pointsOf(line: Piece): Generator<Point> {
  if ('path' in line) {
    yield line.first;
    yield line.last;
    return;
  }
  const { xy, start } = line.of;
  for (let i = intAt(start, line.nth); i < intAt(start, line.nth + 1); i++)
    yield { x: floatAt(xy, 2 * i), y: floatAt(xy, 2 * i + 1) };
}

/** A line as it is drawn: whether from its end to its start. */
type Drawn = Piece & { readonly back: boolean };

const endsOfPath = ({ segments: s }: Path): Pick<Piece, 'first' | 'last'> => {
  const [first, last] = [s[0] as Segment, s[s.length - 1] as Segment];
  return { first: { x: first.x0, y: first.y0 }, last: { x: last.x1, y: last.y1 } };
};
const endsOfStroke = ({ xy, start }: Strokes, nth: number): Pick<Piece, 'first' | 'last'> => {
  const at = (i: number) => ({ x: floatAt(xy, 2 * i), y: floatAt(xy, 2 * i + 1) });
  return { first: at(intAt(start, nth)), last: at(intAt(start, nth + 1) - 1) };
};
const startOf = (d: Drawn): Point => (d.back ? d.last : d.first);
const endOf = (d: Drawn): Point => (d.back ? d.first : d.last);
const turnedRound = (drawn: readonly Drawn[]): Drawn[] => drawn.map((d) => ({ ...d, back: !d.back })).reverse();

function endsOfAll(pieces: readonly Piece[]): Ends {
  const ends: Ends = new Float64Array(4 * pieces.length);
  pieces.forEach((piece, i) => {
    ends.set([piece.first.x, piece.first.y, piece.last.x, piece.last.y], 4 * i);
  });
  return ends;
}

const asDrawn = (pieces: readonly Piece[], tour: Int32Array): Drawn[] =>
  Array.from(tour, (o) => ({ ...(pieces[o < 0 ? -1 - o : o] as Piece), back: o < 0 }));

/** Gathers what is drawn: strokes of one filling that follow each other are packed together. */
class Drawing {
  private readonly drawn: OfFilling[] = [];
  private packed: { readonly strokes: StrokeBuilder; readonly filling: number } | null = null;

  addAll(drawn: readonly Drawn[]): void {
    for (const d of drawn) {
      if ('path' in d) this.addPath(d.back ? reversePath(d.path) : d.path, d.filling);
      else this.addStroke(d);
    }
  }

  /** An edge, begun at its point nearest to one. */
  addEdge(path: Path, filling: number, begun: Point): void {
    const at = isRound(path) ? nearestOnLine(path, begun, Infinity) : null;
    const segments = at ? cutOpen(path, at.segment, at.t) : path.segments;
    // Closed, the pass along the edge could be taken for the rim of an area.
    this.addPath({ segments, closed: false }, filling);
  }

  done(): OfFilling[] {
    this.unpack();
    return this.drawn;
  }

  private addPath(path: Path, filling: number): void {
    this.unpack();
    this.drawn.push({ filling, drawable: polyline(path) });
  }

  private addStroke({ of: { xy, start }, nth, back, filling }: Drawn & OfStrokes): void {
    if (this.packed?.filling !== filling) this.unpack();
    this.packed ??= { strokes: new StrokeBuilder(), filling };
    const { strokes } = this.packed;
    const [a, b] = [intAt(start, nth), intAt(start, nth + 1)];
    for (let k = 0; k < b - a; k++) {
      const i = back ? b - 1 - k : a + k;
      strokes.add(floatAt(xy, 2 * i), floatAt(xy, 2 * i + 1));
    }
    strokes.lift();
  }

  private unpack(): void {
    if (this.packed) {
      const { strokes, filling } = this.packed;
      for (const drawable of polylines(strokes.done())) this.drawn.push({ filling, drawable });
    }
    this.packed = null;
  }
}

/** Whether a path comes back to where it starts. */
const isRound = ({ segments, closed }: Path): boolean => {
  const [first, last] = [segments[0], segments[segments.length - 1]];
  return closed || (first !== undefined && last !== undefined && first.x0 === last.x1 && first.y0 === last.y1);
};
