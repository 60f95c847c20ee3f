/** Good outlines broken the way drawings arrive: cut, with gaps, doubled, split, shuffled, reversed, overshot, with specks. */
import type { Path } from '../../src/core/geometry/path';
import { flattenPath } from '../../src/core/geometry/path';
import { line, pointAt, reverseSegment, type Segment, subSegment } from '../../src/core/geometry/segment';
import { segmentLength } from '../../src/core/geometry/segment-measures';
import type { LooseLine } from '../../src/core/prepare/closing/closing';
import type { Chance } from './random';

export type Broken = {
  readonly lines: readonly LooseLine[];
  /** The widest gap made, in mm. */
  readonly gapMm: number;
};

const MOST_GAP = 0.5;

/** Cut into single segments, some of them twice, with gaps and overshoots of at most half a millimetre. */
export function breakUp(outlines: readonly Path[], next: Chance): Broken {
  const pieces: Segment[] = [];
  let gapMm = 0;
  for (const outline of outlines)
    for (const segment of outline.segments) {
      const length = segmentLength(segment);
      let rest = segment;
      // Cuts leave pieces of at least 4 mm.
      const cuts = length > 12 ? Math.floor(next() * 3) : 0;
      for (let k = 0; k < cuts; k++) {
        const left = segmentLength(rest);
        if (left < 10) break;
        const at = 0.4 + 0.2 * next();
        const gap = next() < 0.5 ? 0 : next() * MOST_GAP;
        gapMm = Math.max(gapMm, gap);
        pieces.push(subSegment(rest, 0, at));
        rest = subSegment(rest, Math.min(0.95, at + gap / left), 1);
      }
      pieces.push(rest);
    }
  // Corners: some lines run past them, some stop short.
  const frayed = pieces.map((s) => {
    const length = segmentLength(s);
    if (s.kind !== 'line' || length < 6 || next() < 0.8) return s;
    const by = (next() - 0.5) * MOST_GAP;
    gapMm = Math.max(gapMm, Math.abs(by) * 1.5);
    const p = pointAt(s, 1);
    const k = by / length;
    return line(s.x0, s.y0, p.x + k * (s.x1 - s.x0), p.y + k * (s.y1 - s.y0));
  });
  const out: Segment[] = [];
  for (const s of frayed) {
    out.push(s);
    if (next() < 0.15) out.push(s);
    else if (next() < 0.1) out.push(subSegment(s, 0.1 + 0.2 * next(), 0.6 + 0.3 * next()));
    if (next() < 0.03) out.push(line(s.x0 + 3, s.y0 + 3, s.x0 + 3.01, s.y0 + 3));
  }
  const shuffled = out.map((s) => (next() < 0.5 ? reverseSegment(s) : s));
  for (let i = shuffled.length - 1; i > 0; i--) {
    const j = Math.floor(next() * (i + 1));
    [shuffled[i], shuffled[j]] = [shuffled[j] as Segment, shuffled[i] as Segment];
  }
  return { lines: shuffled.map((s, i) => ({ key: `${i}.0`, path: { segments: [s], closed: false } })), gapMm };
}

/** How far along which outline a point lies. */
export function placesOn(outlines: readonly Path[]) {
  const samples = outlines.flatMap((outline, index) => {
    const points = flattenPath(outline, 0.002);
    let along = 0;
    const out: { x: number; y: number; index: number; along: number }[] = [];
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length] as { x: number; y: number };
      const length = Math.hypot(q.x - p.x, q.y - p.y);
      const n = Math.max(1, Math.ceil(length / 0.1));
      for (let k = 0; k < n; k++)
        out.push({
          x: p.x + ((q.x - p.x) * k) / n,
          y: p.y + ((q.y - p.y) * k) / n,
          index,
          along: along + (length * k) / n,
        });
      along += length;
    });
    return out.map((s) => ({ ...s, whole: along }));
  });
  const nearest = (p: { x: number; y: number }) => {
    let best = samples[0] as (typeof samples)[number];
    let least = Infinity;
    for (const s of samples) {
      const d = (s.x - p.x) ** 2 + (s.y - p.y) ** 2;
      if (d < least) {
        least = d;
        best = s;
      }
    }
    return best;
  };
  /** Distance along the outline between two points; infinite when they lie on different ones. */
  return (p: { x: number; y: number }, q: { x: number; y: number }): number => {
    const [a, b] = [nearest(p), nearest(q)];
    if (a.index !== b.index) return Infinity;
    const d = Math.abs(a.along - b.along);
    return Math.min(d, a.whole - d);
  };
}
