/**
 * The order of a filling, judged by a long 2-opt of its own over the very strokes that are drawn, and by what must come before what.
 */
import { describe, expect, test } from 'vitest';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { finished } from '../../src/core/memo';
import type { PartHatch } from '../../src/core/toolpath/hatch/part-hatch';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { chance } from '../support/random';
import { inFull } from '../support/scale';
import { longTwoOpt } from '../support/two-opt';

/** A stroke as it is drawn, by its corners, and whether it is a pass along the edge. */
type Stroke = { readonly points: readonly Point[]; readonly isEdge: boolean };

const filled = (text: string, face: string, step: Draft): PartHatch => {
  const steps = [{ kind: 'weld' }, { kind: 'hatch', angle: 30, tool: { shape: 'line', tip: 0.8 }, ...step }];
  const job = jobWith([partOf([lettering(text, face)], { steps, work: [{ what: 'hatch', operation: 'mark' }] })]);
  const hatch = new Evaluator(wasmEngine).evaluate(job, faces).parts[0]?.linework.hatch;
  if (!hatch) throw new Error('not filled');
  return hatch;
};

/** Two or more parts that one operation fills, each where it is put. */
const filledTogether = (
  parts: readonly { readonly text: string; readonly x: number; readonly y: number; readonly step: Draft }[],
) => {
  const drafts = parts.map(({ text, x, y, step }, i) => {
    const steps = [{ kind: 'weld' }, { kind: 'hatch', angle: 30, tool: { shape: 'line', tip: 1 }, ...step }];
    const placement = { x, y };
    return {
      ...partOf([lettering(text, 'Archivo Black')], { steps, work: [{ what: 'hatch', operation: 'mark' }], placement }),
      id: `p${i}`,
    };
  });
  const result = new Evaluator(wasmEngine).evaluate(jobWith(drafts), faces);
  const mark = finished(result.run('full')).operations.find((o) => o.operation.id === 'mark');
  if (!mark) throw new Error('no operation');
  return { mark, parts: result.parts };
};

const pathPoints = (path: Path): Point[] => flattenPath(path, 0.005);
const strokesOf = ({ drawn, rings }: Pick<PartHatch, 'drawn' | 'rings'>): Stroke[] =>
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

/** How often the judge begins anew: the large sets take their time. */
const SHAKES = inFull ? 20 : 6;

/** The shortest way that a long 2-opt finds through the very strokes. */
const longWay = (strokes: readonly Stroke[]): number =>
  longTwoOpt(
    Float64Array.from(strokes.flatMap((s) => [first(s).x, first(s).y, last(s).x, last(s).y])),
    chance(7),
    SHAKES,
  );

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
      expect(hatch.travelMm).toBeLessThanOrEqual(1.15 * longWay(strokes));
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

describe('over several parts of one operation', () => {
  const ROWS = [
    { text: 'Quince', x: 20, y: 80 },
    { text: 'Oak 8', x: 30, y: 30 },
    { text: 'Elm', x: 110, y: 55 },
  ];
  test.each(['parallel', 'crossed', 'rings'])('%s are one tour', { tags: 'slow' }, (style) => {
    const { mark, parts } = filledTogether(ROWS.map((row) => ({ ...row, step: { style, outline: 'none' } })));
    const strokes = strokesOf({ drawn: mark.drawn.map((d) => d.drawable), rings: [] });
    expect(mark.travelMm).toBeCloseTo(wayOf(strokes), 6);
    expect(mark.travelMm).toBeLessThanOrEqual(1.15 * longWay(strokes));
    // What is drawn is what each part draws by itself, and each line is known by its part.
    const lines = (all: Stroke[]) => all.map(key).sort();
    for (const { id, linework } of parts)
      expect(
        lines(strokesOf({ drawn: mark.drawn.filter((d) => d.partId === id).map((d) => d.drawable), rings: [] })),
      ).toEqual(lines(strokesOf(linework.hatch as PartHatch)));
  });

  test('where only some have a pass along the edge, and first and last are mixed, none is lost', () => {
    const outlines = ['last', 'none', 'first', 'last'];
    const rows = [...ROWS, { text: 'Bay', x: 20, y: 120 }].map((row, i) => ({
      ...row,
      step: { style: 'parallel', outline: outlines[i] as string },
    }));
    const { mark, parts } = filledTogether(rows);
    expect(mark.drawn.length).toBeGreaterThan(0);
    for (const { id, linework } of parts) {
      const own = mark.drawn.filter((d) => d.partId === id).map((d) => d.drawable);
      const hatch = linework.hatch as PartHatch;
      expect(strokesOf({ drawn: own, rings: [] }).length).toBe(strokesOf(hatch).length);
      // Of what ends on an edge, nothing comes on the wrong side of it.
      const strokes = strokesOf({ drawn: own, rings: [] });
      expect(strokes.filter((s) => s.isEdge).length).toBe(hatch.edge.length);
      strokes.forEach((edge, i) => {
        if (!edge.isEdge) return;
        strokes.forEach((line, k) => {
          if (line.isEdge || !(hatch.edgeFirst ? k < i : k > i)) return;
          for (const p of [first(line), last(line)])
            for (const q of edge.points) expect(distance(p, q)).toBeGreaterThan(0.3);
        });
      });
    }
  });

  test('they are never longer than part by part', () => {
    const { mark, parts } = filledTogether(
      ROWS.map((row) => ({ ...row, step: { style: 'parallel', outline: 'last' } })),
    );
    const apart = parts.flatMap(({ linework }) => strokesOf(linework.hatch as PartHatch));
    expect(mark.travelMm).toBeLessThan(wayOf(apart));
  });
});
