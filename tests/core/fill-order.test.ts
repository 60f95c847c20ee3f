/**
 * The order of a filling, judged by a long 2-opt of its own over the very strokes that are drawn, and by what must come before what.
 */
import { describe, expect, test } from 'vitest';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import type { PartHatch } from '../../src/core/toolpath/hatch/part-hatch';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { chance } from '../support/random';

/** A stroke as it is drawn, by its corners, and whether it is a pass along the edge. */
type Stroke = { readonly points: readonly Point[]; readonly isEdge: boolean };

const filled = (text: string, face: string, step: Draft): PartHatch => {
  const steps = [{ kind: 'weld' }, { kind: 'hatch', angle: 30, tool: { shape: 'line', tip: 0.8 }, ...step }];
  const job = jobWith([partOf([lettering(text, face)], { steps, work: [{ what: 'hatch', operation: 'mark' }] })]);
  const hatch = new Evaluator(wasmEngine).evaluate(job, faces).parts[0]?.linework.hatch;
  if (!hatch) throw new Error('not filled');
  return hatch;
};

const pathPoints = (path: Path): Point[] => flattenPath(path, 0.005);
const strokesOf = ({ drawn, rings }: PartHatch): Stroke[] =>
  drawn.flatMap((d): Stroke[] => {
    if (d.kind !== 'polyline') throw new Error(`a filling draws no ${d.kind}`);
    if (!('xy' in d.geometry)) return [{ points: pathPoints(d.geometry), isEdge: rings.length === 0 }];
    const { xy, start } = d.geometry;
    return Array.from({ length: start.length - 1 }, (_, s) => ({
      isEdge: false,
      points: Array.from({ length: (start[s + 1] as number) - (start[s] as number) }, (_, k) => {
        const i = 2 * ((start[s] as number) + k);
        return { x: xy[i] as number, y: xy[i + 1] as number };
      }),
    }));
  });

const distance = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);
const first = (s: Stroke) => s.points[0] as Point;
const last = (s: Stroke) => s.points[s.points.length - 1] as Point;
const wayOf = (strokes: readonly Stroke[]): number =>
  strokes.reduce((sum, s, i) => (i === 0 ? 0 : sum + distance(last(strokes[i - 1] as Stroke), first(s))), 0);

/** A stroke by its ends. */
type Ends = readonly [from: Point, to: Point];
const turned = ([from, to]: Ends): Ends => [to, from];
const STARTS = 4;

/** The shortest of a plain 2-opt from the order given and from others by chance: one start alone may be a dead end that both share. */
function longTwoOpt(strokes: readonly Stroke[]): number {
  const given = strokes.map((s): Ends => [first(s), last(s)]);
  const next = chance(7);
  const shuffled = () => {
    const order = given.map((s) => (next() < 0.5 ? s : turned(s)));
    for (let i = order.length - 1; i > 0; i--) {
      const k = Math.floor(next() * (i + 1));
      [order[i], order[k]] = [order[k] as Ends, order[i] as Ends];
    }
    return order;
  };
  return Math.min(twoOpt(given), ...Array.from({ length: STARTS }, () => twoOpt(shuffled())));
}

/** Way of 2-opt until nothing is gained any more: stretches are turned round with all their strokes. */
function twoOpt(strokes: readonly Ends[]): number {
  const order = [...strokes];
  const way = (i: number) =>
    order[i] && order[i + 1] ? distance((order[i] as Ends)[1], (order[i + 1] as Ends)[0]) : 0;
  for (let gained = true; gained; ) {
    gained = false;
    for (let i = 0; i < order.length; i++)
      for (let j = i; j < order.length; j++) {
        const [a, b, c, d] = [order[i - 1], order[i] as Ends, order[j] as Ends, order[j + 1]];
        const then = (a ? distance(a[1], c[1]) : 0) + (d ? distance(b[0], d[0]) : 0);
        if (way(i - 1) + way(j) - then < 1e-9) continue;
        order.splice(
          i,
          j - i + 1,
          ...order
            .slice(i, j + 1)
            .map(turned)
            .reverse(),
        );
        gained = true;
      }
  }
  return order.reduce((sum, _, i) => sum + way(i), 0);
}

const key = ({ points }: Stroke) => {
  const length = points.reduce((sum, p, i) => (i === 0 ? 0 : sum + distance(p, points[i - 1] as Point)), 0);
  return length.toFixed(3);
};

describe.each([
  ['Quince', 'Archivo Black'],
  ['Oak & Elm', 'Pacifico'],
  ['Bread 8', 'Libre Baskerville'],
])('%s in %s', (text, face) => {
  test.each(['parallel', 'crossed', 'rings'])(
    '%s are drawn in an order that a long 2-opt makes little shorter',
    { tags: 'slow' },
    (style) => {
      const hatch = filled(text, face, { style, fillMissed: true, outline: 'none' });
      const strokes = strokesOf(hatch);
      expect(hatch.travelMm).toBeCloseTo(wayOf(strokes), 6);
      expect(hatch.travelMm).toBeLessThanOrEqual(1.15 * longTwoOpt(strokes));
    },
  );

  test.each(['first', 'last'])('an edge that comes %s does so of every line that ends on it', (outline) => {
    const hatch = filled(text, face, { outline, style: 'parallel' });
    const strokes = strokesOf(hatch);
    const edges = strokes.flatMap((s, i) => (s.isEdge ? [i] : []));
    expect(edges.length).toBe(hatch.edge.length);
    // Each is drawn whole: as long as the edge it is, back to where it began.
    const sorted = (keys: string[]) => keys.map(Number).sort((a, b) => a - b);
    const whole = sorted(
      hatch.edge.map((path) => key({ points: [...pathPoints(path), ...pathPoints(path).slice(0, 1)], isEdge: true })),
    );
    sorted(edges.map((i) => key(strokes[i] as Stroke))).forEach((length, i) => {
      expect(length).toBeCloseTo(whole[i] as number, 1);
    });
    for (const i of edges) {
      const { points } = strokes[i] as Stroke;
      expect(distance(points[0] as Point, points[points.length - 1] as Point)).toBeLessThan(1e-6);
      strokes.forEach((line, k) => {
        const isBefore = outline === 'first' ? k < i : k > i;
        if (line.isEdge || !isBefore) return;
        for (const p of [first(line), last(line)]) {
          const near = points.reduce((least, q, n) => {
            const o = points[n + 1];
            if (!o) return least;
            const [dx, dy] = [o.x - q.x, o.y - q.y];
            const t = Math.min(1, Math.max(0, ((p.x - q.x) * dx + (p.y - q.y) * dy) / (dx * dx + dy * dy || 1)));
            return Math.min(least, Math.hypot(q.x + t * dx - p.x, q.y + t * dy - p.y));
          }, Number.POSITIVE_INFINITY);
          expect(near, `line ${k}, edge ${i}`).toBeGreaterThan(0.3);
        }
      });
    }
  });

  test('the lines are the same in any order, and the same document draws the same', () => {
    const plain = filled(text, face, { style: 'parallel' });
    const edged = filled(text, face, { style: 'parallel', outline: 'last' });
    const lines = (hatch: PartHatch) =>
      strokesOf(hatch)
        .filter((s) => !s.isEdge)
        .map(key)
        .sort();
    expect(lines(edged)).toEqual(lines(plain));
    expect(strokesOf(filled(text, face, { style: 'parallel', outline: 'last' }))).toEqual(strokesOf(edged));
  });
});
