/** Parallels of curves, remembered wherever they lie: letters of a face come again and again, and an edit leaves most as they were. */
import { type Parallels, parallel } from '../geometry/offset/parallel';
import { translation } from '../geometry/point';
import { type Segment, transformSegments } from '../geometry/segment';
import type { Memory, Stage } from '../memo';

/** Curves are told apart, and reckoned with, as whole numbers of this many to a mm from where they start. */
const PER_MM = 1e9;

/** A curve by its points from its start, and how far beside it its parallel runs. */
type CurveInput = { readonly curve: readonly number[]; readonly distance: number };

/** The parallel of a curve that starts at the origin. What it is made of is the key, so that it is the same whatever was asked before. */
const PARALLEL: Stage<CurveInput, readonly Segment[]> = {
  name: 'parallel',
  key: ({ curve, distance }) => `${distance}|${curve.join()}`,
  run: ({ curve, distance }) => {
    const [ax, ay, bx, by, cx, cy] = curve.map((v) => v / PER_MM) as [number, number, number, number, number, number];
    const ends = { x0: 0, y0: 0, ax, ay };
    return parallel(
      curve.length === 4
        ? { kind: 'quadratic', ...ends, x1: bx, y1: by }
        : { kind: 'cubic', ...ends, bx, by, x1: cx, y1: cy },
      distance,
    );
  },
  weigh: (pieces) => 12 * pieces.length,
};

/** What finds the parallel of a segment at a distance, out of a memory where it can. */
export function parallelsIn(memory: Memory): Parallels {
  return (s, distance) => {
    if (s.kind === 'line' || s.kind === 'arc') return parallel(s, distance);
    const { x0, y0 } = s;
    const x = (v: number) => Math.round(PER_MM * (v - x0));
    const y = (v: number) => Math.round(PER_MM * (v - y0));
    const curve =
      s.kind === 'quadratic'
        ? [x(s.ax), y(s.ay), x(s.x1), y(s.y1)]
        : [x(s.ax), y(s.ay), x(s.bx), y(s.by), x(s.x1), y(s.y1)];
    return transformSegments(memory.get(PARALLEL, { curve, distance }), translation(x0, y0));
  };
}
