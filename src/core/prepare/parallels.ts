/** Parallels of curves, remembered wherever they lie: letters of a face come again and again, and an edit leaves most as they were. */
import { type Parallels, parallel } from '../geometry/offset/parallel';
import { translation } from '../geometry/point';
import { type Segment, transformSegments } from '../geometry/segment';
import { type RoundedPath, roundedFrom } from '../geometry/shape-key';
import type { Memory, Stage } from '../memo';

type CurveInput = { readonly curve: RoundedPath; readonly distance: number };

/** The parallel of a curve from where it starts. What it is made of is the key, so that it is the same whatever was asked before. */
const PARALLEL: Stage<CurveInput, readonly Segment[]> = {
  name: 'parallel',
  key: ({ curve, distance }) => `${distance}|${curve.key}`,
  run: ({ curve, distance }) => parallel(curve.path.segments[0] as Segment, distance),
  weigh: (pieces) => 12 * pieces.length,
};

/** What finds the parallel of a segment at a distance, out of a memory where it can. */
export function parallelsIn(memory: Memory): Parallels {
  return (s, distance) => {
    if (s.kind === 'line' || s.kind === 'arc') return parallel(s, distance);
    const curve = roundedFrom({ segments: [s], closed: false }, s.x0, s.y0);
    return transformSegments(memory.get(PARALLEL, { curve, distance }), translation(s.x0, s.y0));
  };
}
