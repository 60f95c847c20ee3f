/**
 * The parallel curve of one segment: every point moved along its normal. Lines and arcs stay lines and arcs; curves are
 * split where the parallel turns back on itself (where the radius of curvature is the distance) and fitted by cubics.
 */
import { numberAt } from '../elements';
import { fitCubics, type Sample } from '../fit-cubic';
import { arcRadius, curvatureAt, line, pointAt, type Segment, tangentAt } from '../segment';

/** How far fitted cubics may stray from the true parallel, in mm. */
const PARALLEL_FIT_MM = 0.002;
/** Looks for turning points between this many points of a segment. */
const LOOKS = 24;

/** What finds the parallel of a segment at a distance: `parallel`, or one that remembers. */
export type Parallels = (s: Segment, distance: number) => readonly Segment[];

/**
 * The curve at `distance` mm to the right of a segment (to the left when negative), in pieces that join up. Seen along a
 * counter-clockwise outline, right is outwards.
 */
export function parallel(s: Segment, distance: number): Segment[] {
  if (distance === 0) return [s];
  const on = (t: number) => {
    const p = pointAt(s, t);
    const d = tangentAt(s, t);
    return { x: p.x + distance * d.y, y: p.y - distance * d.x, tx: d.x, ty: d.y };
  };
  if (s.kind === 'line') {
    const a = on(0);
    const b = on(1);
    return [line(a.x, a.y, b.x, b.y)];
  }
  if (s.kind === 'arc') {
    const a = on(0);
    const b = on(1);
    const radius = arcRadius(s) + Math.sign(s.sweep) * distance;
    if (Math.abs(radius) < 1e-7) return [line(a.x, a.y, b.x, b.y)];
    return [{ ...s, x0: a.x, y0: a.y, x1: b.x, y1: b.y }];
  }
  const speed = (t: number) => 1 + curvatureAt(s, t) * distance;
  const cuts = turningPoints(speed);
  return cuts.slice(1).flatMap((to, i) => {
    const from = numberAt(cuts, i);
    const way = speed((from + to) / 2) < 0 ? -1 : 1;
    const sample = (t: number): Sample => {
      const p = on(t);
      return { x: p.x, y: p.y, tx: way * p.tx, ty: way * p.ty };
    };
    return fitCubics(sample, { from, to, tolerance: PARALLEL_FIT_MM });
  });
}

/** 0, where a function changes its sign, and 1. */
function turningPoints(f: (t: number) => number): number[] {
  const cuts = [0];
  let before = f(0);
  for (let i = 1; i <= LOOKS; i++) {
    const at = f(i / LOOKS);
    if (before * at < 0) {
      let lo = (i - 1) / LOOKS;
      let hi = i / LOOKS;
      for (let k = 0; k < 40; k++) {
        const mid = (lo + hi) / 2;
        if (f(mid) * before < 0) hi = mid;
        else lo = mid;
      }
      cuts.push((lo + hi) / 2);
    }
    before = at;
  }
  return [...cuts, 1].filter((t, i, all) => i === 0 || t - numberAt(all, i - 1) > 1e-6 || t === 1);
}
