/**
 * What lies on the table after the cuts: the stock without what they take away, in connected pieces, and after which cut each comes
 * free. Found backwards: from all pieces apart, each cut that is taken back joins those it runs between, and whatever that joins to what
 * lies at the edge of the stock was held until then.
 */
import Flatbush from 'flatbush';
import { meetingBoxes } from '../core/geometry/apart';
import type { ClipEngine, TaggedPolygon } from '../core/geometry/boolean/engine';
import { DisjointSets } from '../core/geometry/disjoint-sets';
import { floatAt } from '../core/geometry/elements';
import { flattenPath, type Path, pathBox } from '../core/geometry/path';
import { type Box, boxContains, EMPTY_BOX, growBox, type Point } from '../core/geometry/point';
import { DUST_MM2 } from '../core/prepare/pieces';
import { bandOf, CHORD_MM, discAt } from './band';

/** A cut: the line or the point it runs along, and how wide it takes away, in mm. */
export type CutLine = { readonly path: Path | null; readonly at: Point; readonly widthMm: number };

/** A connected piece of what is left of the stock. */
export type TablePiece = {
  /** Its edge counter-clockwise, then its holes clockwise, as x, y pairs in mm. */
  readonly outlines: readonly Float64Array[];
  readonly box: Box;
  readonly areaMm2: number;
  /** Length of all its edges in mm. */
  readonly edgeMm: number;
  /** The cut after which nothing holds it, by its number; null where it is held, or lies at the edge of the stock. */
  readonly freeAfter: number | null;
};

/** The table after the cuts. */
export type Table = {
  readonly pieces: readonly TablePiece[];
  /** Numbers of cuts that run in what lies loose already. */
  readonly loose: readonly number[];
  /** The piece at a place, by its number; null where nothing is left. */
  readonly pieceAt: (at: Point) => number | null;
};

/** A line of no width parts stock all the same. */
const LEAST_WIDTH_MM = 0.02;

/** Bounds and places are rounded by no more than this, in mm. */
const TOUCHING_MM = 1e-3;

/** A piece with the cuts along its edges; the edge of the stock is the number after the last. */
type Face = TablePiece & { readonly along: ReadonlySet<number> };

/** The stock within a box after cuts, in the order in which they are run. */
export function tableAfter(engine: ClipEngine, stock: Box, cuts: readonly CutLine[]): Table {
  const rim = cuts.length;
  const bands = cuts.map(({ path, at, widthMm }, i): TaggedPolygon[] => {
    const half = Math.max(widthMm, LEAST_WIDTH_MM) / 2;
    return path ? bandOf(path, half, i + 1) : [discAt(at, half, i + 1)];
  });
  const faces = facesOf(leftOver(engine, { stock, cuts, bands, rimTag: rim + 1 }), nearestCut(cuts, stock));
  const freeAfter = faces.map((): number | null => null);
  const loose: number[] = [];
  const sets = new DisjointSets(faces.length + 1);
  const held = faces.length;
  const beside = cuts.map((): number[] => []);
  faces.forEach((face, i) => {
    for (const cut of face.along)
      if (cut === rim) sets.join(i, held);
      else beside[cut]?.push(i);
  });
  // Of sets that nothing holds yet, what is in them.
  const members = new Map<number, number[]>();
  faces.forEach((_, i) => {
    const set = sets.find(i);
    if (set === sets.find(held)) return;
    const own = members.get(set);
    if (own) own.push(i);
    else members.set(set, [i]);
  });
  for (let cut = cuts.length - 1; cut >= 0; cut--) {
    const joined = [...new Set((beside[cut] ?? []).map((i) => sets.find(i)))];
    const [first] = joined;
    if (first === undefined) continue;
    const isHeld = joined.includes(sets.find(held));
    if (!isHeld) loose.push(cut);
    if (!isHeld && joined.length === 1) continue;
    const all: number[] = [];
    for (const set of joined) {
      all.push(...(members.get(set) ?? []));
      members.delete(set);
      sets.join(first, set);
    }
    if (isHeld) for (const i of all) freeAfter[i] = cut;
    else members.set(sets.find(first), all);
  }
  return {
    // What never came to be held lies loose from the beginning.
    pieces: faces.map(({ along: _, ...piece }, i) => ({ ...piece, freeAfter: freeAfter[i] ?? null })),
    loose: loose.reverse(),
    pieceAt: finderOf(faces),
  };
}

/**
 * What the bands of cuts leave of the stock. Bands that lie apart from all others, and from the edge of the stock, are united by
 * themselves and turned round, into holes and what lies in them: a clipper goes through many at once more slowly than through few.
 */
function leftOver(
  engine: ClipEngine,
  {
    stock,
    cuts,
    bands,
    rimTag,
  }: {
    readonly stock: Box;
    readonly cuts: readonly CutLine[];
    readonly bands: readonly (readonly TaggedPolygon[])[];
    readonly rimTag: number;
  },
): TaggedPolygon[] {
  const boxes = cuts.map((cut) => growBox(cutBox(cut), Math.max(cut.widthMm, LEAST_WIDTH_MM)));
  const within = growBox(stock, -TOUCHING_MM);
  const out: TaggedPolygon[] = [];
  const atRim: TaggedPolygon[] = [];
  for (const group of meetingBoxes(boxes, TOUCHING_MM)) {
    const own = group.flatMap((i) => bands[i] ?? []);
    if (group.every((i) => boxContains(within, boxes[i] as Box)))
      for (const ring of engine.clip('union', own, [], 'positive')) out.push(turnedRound(ring));
    else atRim.push(...own);
  }
  const { minX, minY, maxX, maxY } = stock;
  const whole = Float64Array.of(minX, minY, rimTag, maxX, minY, rimTag, maxX, maxY, rimTag, minX, maxY, rimTag);
  out.push(...(atRim.length > 0 ? engine.clip('difference', [whole], atRim, 'positive') : [whole]));
  return out;
}

/** A polygon the other way round. */
function turnedRound(polygon: TaggedPolygon): TaggedPolygon {
  const out = new Float64Array(polygon.length);
  for (let i = 0, k = polygon.length - 3; k >= 0; i += 3, k -= 3) {
    out[i] = floatAt(polygon, k);
    out[i + 1] = floatAt(polygon, k + 1);
    out[i + 2] = floatAt(polygon, k + 2);
  }
  return out;
}

type Ring = {
  readonly xy: Float64Array;
  readonly box: Box;
  readonly area: number;
  readonly lengthMm: number;
  readonly along: ReadonlySet<number>;
};

/** A polygon with what is asked of it; tags of places are the cuts they lie along, 0 is none. */
function ringOf(polygon: TaggedPolygon, cutNear: (at: Point) => number | null): Ring {
  const n = polygon.length / 3;
  const xy = new Float64Array(2 * n);
  const along = new Set<number>();
  let [area, lengthMm] = [0, 0];
  let { minX, minY, maxX, maxY } = EMPTY_BOX;
  for (let i = 0; i < n; i++) {
    const [x, y, tag] = [floatAt(polygon, 3 * i), floatAt(polygon, 3 * i + 1), floatAt(polygon, 3 * i + 2)];
    const k = (3 * (i + 1)) % polygon.length;
    const [nextX, nextY] = [floatAt(polygon, k), floatAt(polygon, k + 1)];
    xy[2 * i] = x;
    xy[2 * i + 1] = y;
    if (tag > 0) along.add(tag - 1);
    // Where edges of bands cross the clipper makes places of its own: what lies between is told by its middle.
    if (tag === 0 || floatAt(polygon, k + 2) === 0) {
      const cut = cutNear({ x: (x + nextX) / 2, y: (y + nextY) / 2 });
      if (cut !== null) along.add(cut);
    }
    area += (x * nextY - nextX * y) / 2;
    const [dx, dy] = [nextX - x, nextY - y];
    lengthMm += Math.sqrt(dx * dx + dy * dy);
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  return { xy, box: { minX, minY, maxX, maxY }, area, lengthMm, along };
}

/** Finds the cut on whose edge a place lies, by its number; that after the last is the edge of the stock. */
function nearestCut(cuts: readonly CutLine[], stock: Box): (at: Point) => number | null {
  let find: ((at: Point) => number[]) | null = null;
  const chords = new Map<number, readonly Point[]>();
  const chordsOf = (cut: number): readonly Point[] => {
    const { path, at } = cuts[cut] as CutLine;
    const known = chords.get(cut) ?? (path ? flattenPath(path, CHORD_MM) : [at]);
    chords.set(cut, known);
    return known;
  };
  return (at) => {
    const toRim = Math.min(at.x - stock.minX, stock.maxX - at.x, at.y - stock.minY, stock.maxY - at.y);
    if (toRim < TOUCHING_MM) return cuts.length;
    find ??= indexOf(cuts.map((cut) => growBox(cutBox(cut), Math.max(cut.widthMm, LEAST_WIDTH_MM))));
    let best: { readonly cut: number; readonly off: number } | null = null;
    for (const i of find(at)) {
      const { path, widthMm } = cuts[i] as CutLine;
      const points = chordsOf(i);
      const ring = path?.closed ? [...points, ...points.slice(0, 1)] : points;
      const away = ring.reduce((least, p, k) => Math.min(least, toChord(at, p, ring[k + 1] ?? p)), Infinity);
      const off = Math.abs(away - Math.max(widthMm, LEAST_WIDTH_MM) / 2);
      if (!best || off < best.off) best = { cut: i, off };
    }
    return best?.cut ?? null;
  };
}

const cutBox = ({ path, at: { x, y } }: CutLine): Box =>
  path ? pathBox(path) : { minX: x, minY: y, maxX: x, maxY: y };

/** How far a place is from a chord. */
function toChord(at: Point, p: Point, q: Point): number {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.min(1, Math.max(0, ((at.x - p.x) * dx + (at.y - p.y) * dy) / square));
  return Math.hypot(p.x + t * dx - at.x, p.y + t * dy - at.y);
}

/** Whether a place lies inside a polygon. */
function isInside(xy: Float64Array, { x, y }: Point): boolean {
  let inside = false;
  const n = xy.length;
  for (let i = 0, j = n - 2; i < n; j = i, i += 2) {
    const [ax, ay, bx, by] = [floatAt(xy, i), floatAt(xy, i + 1), floatAt(xy, j), floatAt(xy, j + 1)];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}

/** Polygons as pieces: each hole belongs to the smallest edge around it. Dust is none. */
function facesOf(polygons: readonly TaggedPolygon[], cutNear: (at: Point) => number | null): Face[] {
  const rings = polygons.filter((p) => p.length >= 9).map((p) => ringOf(p, cutNear));
  const outer = rings.filter((r) => r.area > 0).sort((a, b) => a.area - b.area);
  const holes = outer.map((): Ring[] => []);
  const find = indexOf(outer.map((r) => r.box));
  for (const hole of rings) {
    if (hole.area >= 0) continue;
    const at = { x: floatAt(hole.xy, 0), y: floatAt(hole.xy, 1) };
    // Smallest first; it may touch the edge around it, so that its bounds decide before its first place does.
    const around = find(at).filter((i) => boxContains(growBox(outer[i]?.box as Box, TOUCHING_MM), hole.box));
    const parent = around.find((i) => -hole.area < (outer[i] as Ring).area && isInside((outer[i] as Ring).xy, at));
    const to = parent ?? around.find((i) => -hole.area < (outer[i] as Ring).area);
    if (to !== undefined) holes[to]?.push(hole);
  }
  return outer.flatMap((edge, i): Face[] => {
    const own = [edge, ...(holes[i] as Ring[])];
    const areaMm2 = own.reduce((sum, r) => sum + r.area, 0);
    if (areaMm2 < DUST_MM2) return [];
    return [
      {
        outlines: own.map((r) => r.xy),
        box: edge.box,
        areaMm2,
        edgeMm: own.reduce((sum, r) => sum + r.lengthMm, 0),
        freeAfter: null,
        along: new Set(own.flatMap((r) => [...r.along])),
      },
    ];
  });
}

/** Finds the boxes around a place, by their numbers, ascending. */
function indexOf(boxes: readonly Box[]): (at: Point) => number[] {
  if (boxes.length === 0) return () => [];
  const index = new Flatbush(boxes.length);
  for (const b of boxes) index.add(b.minX, b.minY, b.maxX, b.maxY);
  index.finish();
  return ({ x, y }) => index.search(x, y, x, y).sort((a, b) => a - b);
}

function finderOf(faces: readonly Face[]): Table['pieceAt'] {
  const find = indexOf(faces.map((f) => f.box));
  return (at) => {
    for (const i of find(at)) {
      const [edge, ...holes] = (faces[i] as Face).outlines;
      if (edge && isInside(edge, at) && !holes.some((hole) => isInside(hole, at))) return i;
    }
    return null;
  };
}
