/** What DXF entities look like: paths in a plane of their own, and where that plane lies in space. */
import type { Path } from '../../geometry/path';
import { transformPath } from '../../geometry/path';
import { applyMatrix, compose } from '../../geometry/point';
import { arcAbout, line, type Segment, transformSegment } from '../../geometry/segment';
import { bulged } from './bulge';
import type { Entity } from './entity';
import { hatchPaths } from './hatch';
import { after, cross, fromAbove, objectSpace, place, type Space, times, UP, type Vector, WORLD } from './space';
import { type Spline, splineSegments, splineThrough } from './spline';

const TURN = 2 * Math.PI;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Paths seen from above; whether they are filled. Null when it is no kind of shape that is drawn. */
export type EntityShape = { readonly paths: readonly Path[]; readonly filled: boolean };

const lines = (paths: readonly Path[]): EntityShape => ({ paths, filled: false });

/** Bits of code 70 of a polyline. */
const CLOSED = 1;
const THREE_D = 8;
const MESHES = 16 | 64;
/** Bit of a vertex: it only steers a curve that is written out beside it. */
const FRAME = 16;
/** Bit of a spline that is written by points it goes through. */
const SPLINE_CLOSED = 1;

/**
 * The paths of an entity, seen from above; null where it is no kind of shape that is drawn. `tolerance` in drawing
 * units.
 */
export function drawEntity(e: Entity, space: Space, tolerance: number): EntityShape | null {
  switch (e.type) {
    case 'LINE': {
      const [p, q] = [place(space, e.vector(10, [0, 0, 0])), place(space, e.vector(11, [0, 0, 0]))];
      return lines([open([line(p[0], p[1], q[0], q[1])])]);
    }
    case 'CIRCLE':
    case 'ARC':
      return lines([circular(e, ownSpace(e, space))]);
    case 'ELLIPSE':
      return lines([elliptic(e, space)]);
    case 'LWPOLYLINE':
      return lines([lightPolyline(e, ownSpace(e, space))]);
    case 'POLYLINE': {
      const flags = e.number(70, 0);
      if (flags & MESHES) return null;
      return lines([(flags & THREE_D) !== 0 ? polyline3d(e, space, flags) : polyline2d(e, ownSpace(e, space), flags)]);
    }
    case 'SPLINE':
    case 'HELIX':
      return lines(spline(e, space, tolerance));
    case 'SOLID':
    case 'TRACE': {
      // Corners 3 and 4 are swapped: a bow tie that means a rectangle.
      const s = ownSpace(e, space);
      return {
        paths: [loop([10, 11, 13, 12].filter((c) => e.has(c)).map((c) => place(s, e.vector(c, UP))))],
        filled: true,
      };
    }
    case '3DFACE':
      return lines([loop([10, 11, 12, 13].filter((c) => e.has(c)).map((c) => place(space, e.vector(c, UP))))]);
    case 'HATCH': {
      const m = fromAbove(ownSpace(e, space), e.vector(10, [0, 0, 0])[2]);
      return { paths: hatchPaths(e, tolerance).map((path) => transformPath(path, m)), filled: true };
    }
    default:
      return null;
  }
}

/** The space of a flat entity, by the direction that it is extruded in. */
const ownSpace = (e: Entity, space: Space): Space => after(objectSpace(e.vector(210, UP)), space);

const open = (segments: readonly Segment[]): Path => ({ segments, closed: false });

/** A closed path through points, seen from above; points that repeat are left out. */
function loop(corners: readonly Vector[]): Path {
  const points = corners.filter((p, i) => {
    const before = corners[(i + corners.length - 1) % corners.length] as Vector;
    return p[0] !== before[0] || p[1] !== before[1];
  });
  return {
    segments: points.map((p, i) => {
      const q = points[(i + 1) % points.length] as Vector;
      return line(p[0], p[1], q[0], q[1]);
    }),
    closed: true,
  };
}

function circular(e: Entity, space: Space): Path {
  const [cx, cy, z] = e.vector(10, [0, 0, 0]);
  const radius = e.number(40, 0);
  const m = fromAbove(space, z);
  if (e.type === 'ARC') {
    const from = radians(e.number(50, 0));
    const sweep = turnFrom(from, radians(e.number(51, 360)));
    const arc = arcAbout(cx, cy, radius, from, sweep);
    return open(space === WORLD ? [arc] : transformSegment(arc, m));
  }
  return { segments: roundIn(cx, cy, radius).flatMap((s) => transformSegment(s, m)), closed: true };
}

/** Counter-clockwise from one angle to another; the same angle is all round. */
const turnFrom = (from: number, to: number): number => {
  const sweep = (((to - from) % TURN) + TURN) % TURN;
  return sweep < 1e-12 ? TURN : sweep;
};

const roundIn = (cx: number, cy: number, radius: number): Segment[] => {
  const arcs = [0, 1, 2, 3].map((i) => arcAbout(cx, cy, radius, (i * TURN) / 4, TURN / 4));
  return arcs.map((arc, i) => {
    const before = arcs[(i + 3) % 4] as Segment;
    return { ...arc, x0: before.x1, y0: before.y1 };
  });
};

function elliptic(e: Entity, space: Space): Path {
  const major = e.vector(11, [1, 0, 0]);
  const minor = times(cross(objectSpace(e.vector(210, UP)).z, major), e.number(40, 1));
  const m = fromAbove(after({ x: major, y: minor, z: UP, o: e.vector(10, [0, 0, 0]) }, space));
  const from = e.number(41, 0);
  const sweep = turnFrom(from, e.number(42, TURN));
  const whole = Math.abs(sweep - TURN) < 1e-9;
  const arcs = whole ? roundIn(0, 0, 1) : [arcAbout(0, 0, 1, from, sweep)];
  return { segments: arcs.flatMap((s) => transformSegment(s, m)), closed: whole };
}

function lightPolyline(e: Entity, space: Space): Path {
  const vertices: { x: number; y: number; bulge: number }[] = [];
  let last: (typeof vertices)[number] | null = null;
  for (let i = 0; i < e.size; i++) {
    const code = e.codeAt(i);
    if (code === 10) {
      last = { x: e.valueAt(i), y: 0, bulge: 0 };
      vertices.push(last);
    } else if (code === 20 && last) last.y = e.valueAt(i);
    else if (code === 42 && last) last.bulge = e.valueAt(i);
  }
  const path = bulged(vertices, (e.number(70, 0) & CLOSED) !== 0);
  return space === WORLD ? path : transformPath(path, fromAbove(space, e.number(38, 0)));
}

function polyline2d(e: Entity, space: Space, flags: number): Path {
  const vertices = e.parts
    .filter((v) => (v.number(70, 0) & FRAME) === 0)
    .map((v) => ({ x: v.number(10, 0), y: v.number(20, 0), bulge: v.number(42, 0) }));
  return transformPath(bulged(vertices, (flags & CLOSED) !== 0), fromAbove(space, e.number(30, 0)));
}

function polyline3d(e: Entity, space: Space, flags: number): Path {
  const vertices = e.parts
    .filter((v) => (v.number(70, 0) & FRAME) === 0)
    .map((v) => {
      const [x, y] = place(space, v.vector(10, [0, 0, 0]));
      return { x, y, bulge: 0 };
    });
  return bulged(vertices, (flags & CLOSED) !== 0);
}

function spline(e: Entity, space: Space, tolerance: number): Path[] {
  const seen = (p: Vector): readonly [number, number] => {
    const [x, y] = place(space, p);
    return [x, y];
  };
  const data: Spline = {
    degree: e.number(71, 3),
    knots: e.all(40),
    points: e.points(10).map(seen),
    weights: e.all(41),
  };
  const through = e.points(11).map(seen);
  let segments = splineSegments(data, tolerance);
  if (!segments && through.length > 1) {
    const tangent = (code: number) => {
      if (!e.has(code)) return null;
      const { x, y } = applyMatrix(compose(fromAbove({ ...space, o: [0, 0, 0] }), fromAbove(objectSpace(UP))), {
        x: e.number(code, 0),
        y: e.number(code + 10, 0),
      });
      return [x, y] as const;
    };
    segments = splineThrough(through, tangent(12), tangent(13));
  }
  if (!segments || segments.length === 0) return [];
  const [first, last] = [segments[0] as Segment, segments[segments.length - 1] as Segment];
  const meets = first.x0 === last.x1 && first.y0 === last.y1;
  const closed = meets || (e.number(70, 0) & SPLINE_CLOSED) !== 0;
  if (closed && !meets) {
    const gap = Math.hypot(first.x0 - last.x1, first.y0 - last.y1);
    if (gap > tolerance) return [open(segments)];
    segments = [...segments.slice(0, -1), { ...last, x1: first.x0, y1: first.y0 }];
  }
  return [{ segments, closed }];
}
