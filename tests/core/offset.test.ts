import { describe, expect, test } from 'vitest';
import { type Corners, offsetRegion } from '../../src/core/geometry/offset/offset';
import { countSegments, flattenPath, isContinuous, regionArea } from '../../src/core/geometry/path';
import { rotation } from '../../src/core/geometry/point';
import { layoutLettering } from '../../src/core/lettering/layout';
import { Memo } from '../../src/core/memo';
import { offsetOutlines } from '../../src/core/prepare/offset-outlines';
import { measureOutlines, type Outline } from '../../src/core/prepare/outline';
import { ellipsePath, roundedRectangle } from '../../src/core/prepare/shape';
import { weldLettering } from '../../src/core/prepare/weld';
import { countCrossings } from '../support/area';
import { FAMILIES, scriptEngine, spec, typeface, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { judgeOffset } from '../support/offset-judge';
import { chance } from '../support/random';
import { sample } from '../support/scale';

const outlinesOf = (...paths: Parameters<typeof measureOutlines>[0][number]['path'][]): Outline[] =>
  measureOutlines(paths.map((path) => ({ path, labels: path.segments.map(() => 0) })));

const offset = (outlines: readonly Outline[], by: number, corners: Corners = 'round'): Outline[] =>
  measureOutlines(offsetRegion(wasmEngine, outlines, { by, corners }));
const area = (outlines: readonly Outline[]): number => regionArea(outlines.map((o) => o.path));

describe('growing and shrinking shapes with known answers', () => {
  const square = outlinesOf(roundedRectangle(10, 10, 0));

  test('a square grown: round, mitred and square corners', () => {
    expect(area(offset(square, 2))).toBeCloseTo(100 + 4 * 20 + Math.PI * 4, 6);
    expect(area(offset(square, 2, 'mitre'))).toBeCloseTo(14 * 14, 6);
    // Each corner is cut off at 2 mm from the old corner: four triangles less than the mitred square.
    const cut = (2 * Math.SQRT2 - 2) ** 2;
    expect(area(offset(square, 2, 'square'))).toBeCloseTo(14 * 14 - 4 * cut, 4);
    expect(
      offset(square, 2)[0]
        ?.path.segments.map((s) => s.kind)
        .sort(),
    ).toEqual(['arc', 'arc', 'arc', 'arc', 'line', 'line', 'line', 'line'].sort());
  });

  test('a square shrunk, down to nothing', () => {
    expect(area(offset(square, -2))).toBeCloseTo(36, 6);
    expect(offset(square, -5)).toEqual([]);
    expect(offset(square, -50)).toEqual([]);
  });

  test('circles stay circles', () => {
    const grown = offset(outlinesOf(ellipsePath(10, 10)), 3);
    expect(grown[0]?.path.segments.every((s) => s.kind === 'arc')).toBe(true);
    expect(area(grown)).toBeCloseTo(Math.PI * 64, 6);
    expect(area(offset(outlinesOf(ellipsePath(10, 10)), -3))).toBeCloseTo(Math.PI * 4, 6);
    expect(offset(outlinesOf(ellipsePath(10, 10)), -6)).toEqual([]);
  });

  test('a hole shrinks while its shape grows, and goes when it is narrower than twice the distance', () => {
    const ring = measureOutlines(
      outlinesOf(roundedRectangle(20, 20, 0), roundedRectangle(6, 4, 0)).map((o) =>
        o.depth === 1 ? { ...o, path: { ...o.path, segments: reverse(o) } } : o,
      ),
    );
    expect(ring.map((o) => Math.sign(o.area))).toEqual([1, -1]);
    expect(area(offset(ring, 1, 'mitre'))).toBeCloseTo(22 * 22 - 4 * 2, 6);
    expect(area(offset(ring, -1, 'mitre'))).toBeCloseTo(18 * 18 - 8 * 6, 6);
    expect(offset(ring, 2, 'mitre')).toHaveLength(1);
    const guarded = measureOutlines(offsetRegion(wasmEngine, ring, { by: 3, corners: 'mitre', holeBy: () => 0.5 }));
    expect(area(guarded)).toBeCloseTo(26 * 26 - 5 * 3, 6);
  });

  test('shapes that grow into each other become one, and a gap between them may close to a hole', () => {
    const pair = outlinesOf(roundedRectangle(10, 10, 0), {
      ...roundedRectangle(10, 10, 0),
      segments: moved(roundedRectangle(10, 10, 0), 13),
    });
    expect(offset(pair, 1)).toHaveLength(2);
    expect(offset(pair, 2)).toHaveLength(1);
  });

  test('no distance is no change; the two engines agree', { tags: 'slow' }, () => {
    expect(area(offset(square, 0))).toBeCloseTo(100, 9);
    const word = letters('Bo&', 'Pacifico', 20, 12);
    for (const by of [0.7, -0.4]) {
      const a = measureOutlines(offsetRegion(wasmEngine, word, { by, corners: 'round' }));
      const b = measureOutlines(offsetRegion(scriptEngine, word, { by, corners: 'round' }));
      expect(b).toHaveLength(a.length);
      expect(area(b)).toBeCloseTo(area(a), 2);
    }
  });
});

const reverse = (o: Outline) =>
  [...o.path.segments].reverse().map((s) => ({ ...s, x0: s.x1, y0: s.y1, x1: s.x0, y1: s.y0 }));
const moved = (p: { segments: readonly { x0: number; x1: number }[] }, dx: number) =>
  (p.segments as ReturnType<typeof reverse>).map((s) => ({ ...s, x0: s.x0 + dx, x1: s.x1 + dx }));

function letters(text: string, family: string, capital: number, turn: number): readonly Outline[] {
  const face = typeface(family);
  const layout = layoutLettering(spec(text, { size: { by: 'capital', mm: capital } }), face);
  return weldLettering(wasmEngine, layout, { weld: true, matrix: rotation(turn), memory: new Memo() });
}

const WORDS = ['Willow', 'Anna', 'Bo8%@', 'Ägypten', 'r&d', 'fjord', 'Queen', 'xyz', 'mill', 'S', '“Oak”'];
const DISTANCES = [0.05, 0.1, 0.2, 0.5, 1, 2, 8, 30, -0.05, -0.1, -0.3, -1];

test('words of every face, grown and shrunk: on the true offset both ways, closed, crossing nothing', {
  tags: 'slow',
}, () => {
  const next = chance(20_260);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)] as T;
  const count = sample(8, 1000);
  let worst = 0;
  let segments = 0;
  let vertices = 0;
  const bad: string[] = [];
  const memory = new Memo();
  for (let i = 0; i < count; i++) {
    const family = FAMILIES[i % FAMILIES.length] as string;
    const [word, by, capital, turn] = [pick(WORDS), pick(DISTANCES), pick([8, 20, 60]), next() * 360];
    const source = letters(word, family, capital, turn);
    // One by one and remembered, as parts are thickened.
    const result = offsetOutlines(wasmEngine, source, { by, corners: 'round' }, memory);
    const paths = result.map((o) => o.path);
    const verdict = judgeOffset(
      source.map((o) => o.path),
      by,
      paths,
    );
    worst = Math.max(worst, verdict.stray, verdict.missed);
    segments += countSegments(paths);
    vertices += paths.reduce((sum, p) => sum + flattenPath(p, 0.001).length, 0);
    const open = paths.some((p) => !isContinuous(p));
    const crossings = countCrossings(paths, 0.0005);
    if (verdict.stray > 0.012 || verdict.missed > 0.012 || open || crossings > 0)
      bad.push(
        `${family} “${word}” ${capital} mm turned ${turn} by ${by}: ${JSON.stringify({ ...verdict, open, crossings })}`,
      );
  }
  figure({
    name: `Offsets of ${count} words: farthest from the true one, both ways`,
    value: worst,
    digits: 4,
    unit: 'mm',
    aim: { most: 0.012 },
  });
  figure({
    name: 'Segments of an offset as a share of its flattened vertices',
    value: segments / vertices,
    digits: 3,
    aim: { most: 0.2 },
  });
  expect(bad).toEqual([]);
  expect(segments / vertices).toBeLessThanOrEqual(0.2);
});
