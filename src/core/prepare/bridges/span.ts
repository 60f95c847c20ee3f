/**
 * A span: a strip of stock of one width laid straight across a void, from an edge to the edge it meets. Measured on the
 * chords of `Edges`; lengths in mm. In its frame v runs along it from where it starts, u across it to the left.
 */
import type { Point } from '../../geometry/point';
import type { VoidEdges } from './edges';

/** Where a span meets an edge: the stretch of outline between its two sides. */
export type Landing = {
  readonly outline: number;
  /** Chord and distance along the outline where it enters the strip, as it runs, and where it leaves it. */
  readonly firstChord: number;
  readonly lastChord: number;
  readonly firstAt: number;
  /** Not before `firstAt`, and so perhaps beyond the outline's length. */
  readonly lastAt: number;
  /** The middle of the strip on the edge. */
  readonly middle: Point;
  /** |cosine| between the edge and the span at both cuts: 0 is square. */
  readonly slopes: readonly [number, number];
  /** v where it enters and leaves. */
  readonly firstV: number;
  readonly lastV: number;
  /** How much stock lies behind the edge within the strip, as far as asked. */
  readonly depth: number;
  readonly cornersCut: number;
  /** Distance along the edge from the cuts to the next corners outside. */
  readonly toCorners: readonly [number, number];
};

/** A strip across a void as it is measured, in mm: where it lands on both sides, its width, length and area. */
export type Span = {
  readonly from: Landing;
  readonly to: Landing;
  readonly way: Point;
  readonly width: number;
  /** Its length in the middle and along its two sides (u > 0, u < 0). */
  readonly length: number;
  readonly sides: readonly [number, number];
  /** Area of the void that it covers, in mm². */
  readonly area: number;
};

/** Edges steeper than this against the span would leave slivers: cosine of the angle between them. */
const STEEPEST = 0.906;
/** The outline between the two sides is at most this many widths long. */
const LONGEST_WAY = 6;

type Walk = {
  readonly chord: number;
  /** Signed distance walked, and v and slope where the side is met. */
  readonly walked: number;
  readonly v: number;
  readonly slope: number;
};

/** Corners of the walked outline in the span's frame. */
type Section = { readonly u: number[]; readonly v: number[]; readonly chords: number[] };

/**
 * The span of a width from a place on an outline, given as a chord and how far along it, in a direction (unit vector);
 * null when there is none: the edges do not run on to its sides, another edge lies in between or it is longer than
 * `longest`. Stock behind the edges is looked for up to `behind` mm.
 */
export function spanAt(
  edges: VoidEdges,
  chord: number,
  {
    along,
    way,
    width,
    longest,
    behind,
  }: {
    readonly along: number;
    readonly way: Point;
    readonly width: number;
    readonly longest: number;
    readonly behind: number;
  },
): Span | null {
  const start = edges.pointOn(chord, along);
  const into = edges.intoVoid(chord);
  if (into.x * way.x + into.y * way.y < 0.3) return null;
  const hit = edges.ray(start, way, longest, chord);
  if (!hit) return null;
  const frame = { ox: start.x, oy: start.y, dx: way.x, dy: way.y };
  const a: Section = { u: [], v: [], chords: [] };
  const b: Section = { u: [], v: [], chords: [] };
  const half = width / 2;
  // An outline with the void on its left runs towards u < 0 where the span starts and towards u > 0 where it ends.
  const side = edges.voidLeft ? -1 : 1;
  const from = landing(edges, frame, { chord, along, half, side, section: a });
  if (!from) return null;
  const to = landing(edges, frame, { chord: hit.chord, along: hit.along, half, side: -side, section: b });
  if (!to) return null;
  let lowest = Infinity;
  let highest = -Infinity;
  for (const v of a.v) if (v < lowest) lowest = v;
  for (const v of b.v) if (v > highest) highest = v;
  let behindA = behind;
  let behindB = behind;
  const reach = half - 1e-6;
  const v0 = lowest - behind;
  const v1 = highest + behind;
  const [px0, py0] = [start.x + v0 * way.x, start.y + v0 * way.y];
  const [px1, py1] = [start.x + v1 * way.x, start.y + v1 * way.y];
  const [wx, wy] = [half * Math.abs(way.y), half * Math.abs(way.x)];
  for (const i of edges.within(
    Math.min(px0, px1) - wx,
    Math.min(py0, py1) - wy,
    Math.max(px0, px1) + wx,
    Math.max(py0, py1) + wy,
  )) {
    if (a.chords.includes(i) || b.chords.includes(i)) continue;
    const px = edges.x0(i) - frame.ox;
    const py = edges.y0(i) - frame.oy;
    const qx = edges.x1(i) - frame.ox;
    const qy = edges.y1(i) - frame.oy;
    let u0 = -px * way.y + py * way.x;
    let u1 = -qx * way.y + qy * way.x;
    let w0 = px * way.x + py * way.y;
    let w1 = qx * way.x + qy * way.y;
    if (Math.max(u0, u1) <= -reach || Math.min(u0, u1) >= reach) continue;
    if (u0 > u1) {
      [u0, u1] = [u1, u0];
      [w0, w1] = [w1, w0];
    }
    if (u0 < -reach) {
      w0 += ((w1 - w0) * (-reach - u0)) / (u1 - u0);
      u0 = -reach;
    }
    if (u1 > reach) {
      w1 -= ((w1 - w0) * (u1 - reach)) / (u1 - u0);
      u1 = reach;
    }
    const low = Math.min(w0, w1);
    const high = Math.max(w0, w1);
    if (high < v0 || low > v1) continue;
    const startEdge = extent(a, u0, u1, 1);
    if (high < startEdge + 1e-9) {
      behindA = Math.min(behindA, startEdge - high);
      continue;
    }
    const endEdge = extent(b, u0, u1, -1);
    if (low > endEdge - 1e-9) {
      behindB = Math.min(behindB, low - endEdge);
      continue;
    }
    return null;
  }
  const [startLanding, endLanding] = [
    { ...from, depth: behindA },
    { ...to, depth: behindB },
  ];
  // u > 0 is where the one enters and the other leaves.
  const left = edges.voidLeft ? to.lastV - from.firstV : to.firstV - from.lastV;
  const right = edges.voidLeft ? to.firstV - from.lastV : to.lastV - from.firstV;
  if (left <= 0 || right <= 0) return null;
  // Both sections run from one side to the other, in opposite ways.
  const area = Math.abs(areaUnder(a) + areaUnder(b));
  return { from: startLanding, to: endLanding, way, width, length: hit.distance, sides: [left, right], area };
}

type Frame = { readonly ox: number; readonly oy: number; readonly dx: number; readonly dy: number };

/** The edge followed both ways from a place in the middle until it meets the sides; `side` is where it goes as it runs. */
function landing(
  edges: VoidEdges,
  frame: Frame,
  {
    chord,
    along,
    half,
    side,
    section,
  }: {
    readonly chord: number;
    readonly along: number;
    readonly half: number;
    readonly side: number;
    readonly section: Section;
  },
): Landing | null {
  const middle = edges.pointOn(chord, along);
  section.chords.push(chord);
  section.u.push(0);
  section.v.push((middle.x - frame.ox) * frame.dx + (middle.y - frame.oy) * frame.dy);
  const ahead = walk(edges, frame, { chord, along, half, side, ahead: true, section });
  if (!ahead) return null;
  section.u.reverse();
  section.v.reverse();
  const back = walk(edges, frame, { chord, along, half, side: -side, ahead: false, section });
  if (!back) return null;
  const outline = edges.outline[chord] as number;
  const whole = edges.length[outline] as number;
  if (ahead.walked + back.walked > 0.9 * whole) return null;
  const at = (edges.start[chord] as number) + along * edges.chordLength(chord);
  const firstAt = (((at - back.walked) % whole) + whole) % whole;
  const lastAt = firstAt + back.walked + ahead.walked;
  return {
    outline,
    firstChord: back.chord,
    lastChord: ahead.chord,
    firstAt,
    lastAt,
    middle,
    slopes: [back.slope, ahead.slope],
    firstV: back.v,
    lastV: ahead.v,
    depth: 0,
    cornersCut: edges.cornersBetween(outline, firstAt, lastAt),
    toCorners: [edges.toCorner(outline, firstAt, false), edges.toCorner(outline, lastAt, true)],
  };
}

function walk(
  edges: VoidEdges,
  frame: Frame,
  {
    chord,
    along,
    half,
    side,
    ahead,
    section,
  }: {
    readonly chord: number;
    readonly along: number;
    readonly half: number;
    readonly side: number;
    readonly ahead: boolean;
    readonly section: Section;
  },
): Walk | null {
  let at = chord;
  let walked = 0;
  let from = edges.pointOn(chord, along);
  const { ox, oy, dx, dy } = frame;
  let u = -(from.x - ox) * dy + (from.y - oy) * dx;
  for (;;) {
    const x = ahead ? edges.x1(at) : edges.x0(at);
    const y = ahead ? edges.y1(at) : edges.y0(at);
    const length = Math.hypot(x - from.x, y - from.y);
    const next = -(x - ox) * dy + (y - oy) * dx;
    if (Math.abs(next) >= half) {
      if (next * side < 0) return null;
      const share = next === u ? 0 : (side * half - u) / (next - u);
      const cut = { x: from.x + share * (x - from.x), y: from.y + share * (y - from.y) };
      const chordLength = edges.chordLength(at) || 1;
      const slope = Math.abs((edges.x1(at) - edges.x0(at)) * dx + (edges.y1(at) - edges.y0(at)) * dy) / chordLength;
      if (slope > STEEPEST) return null;
      const v = (cut.x - ox) * dx + (cut.y - oy) * dy;
      section.u.push(side * half);
      section.v.push(v);
      return { chord: at, walked: walked + share * length, v, slope };
    }
    walked += length;
    if (walked > 2 * half * LONGEST_WAY) return null;
    section.u.push(next);
    section.v.push((x - ox) * dx + (y - oy) * dy);
    at = ahead ? edges.next(at) : edges.previous(at);
    if (at === chord) return null;
    section.chords.push(at);
    from = { x, y };
    u = next;
  }
}

/** The area between a section and v = 0, positive where it runs towards greater u. */
function areaUnder({ u, v }: Section): number {
  let sum = 0;
  for (let i = 1; i < u.length; i++)
    sum += (((u[i] as number) - (u[i - 1] as number)) * ((v[i] as number) + (v[i - 1] as number))) / 2;
  return sum;
}

/** The least (`sign` 1) or greatest (−1) v of a section between two u; of its middle when it has nothing there. */
function extent({ u, v }: Section, u0: number, u1: number, sign: 1 | -1): number {
  let found = Infinity;
  for (let i = 1; i < u.length; i++) {
    const [ua, ub] = [u[i - 1] as number, u[i] as number];
    const [va, vb] = [(v[i - 1] as number) * sign, (v[i] as number) * sign];
    const low = Math.max(u0, Math.min(ua, ub));
    const high = Math.min(u1, Math.max(ua, ub));
    if (low > high) continue;
    const [first, last] =
      ua === ub ? [va, vb] : [va + ((vb - va) * (low - ua)) / (ub - ua), va + ((vb - va) * (high - ua)) / (ub - ua)];
    found = Math.min(found, first, last);
  }
  return found === Infinity ? (v[v.length >> 1] as number) : sign * found;
}
