/** Outlines grown in chords, against the exact offset of the same letters. */
import { expect, test } from 'vitest';
import { offsetRegion } from '../../src/core/geometry/offset/offset';
import { pathLength, transformPath } from '../../src/core/geometry/path';
import { translation } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { CHORDS_MM, grownInChords } from '../../src/core/prepare/in-chords';
import { measureOutlines, type Outline } from '../../src/core/prepare/outline';
import { faces, scriptEngine, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const outlinesOf = (text: string, face: string): readonly Outline[] =>
  new Evaluator(wasmEngine).evaluate(
    jobWith([partOf([lettering(text, face, { size: { by: 'capital', mm: 20 } })], { steps: [{ kind: 'weld' }] })]),
    faces,
  ).parts[0]?.solid ?? [];
const areaOf = (outlines: readonly Outline[]) => outlines.reduce((sum, o) => sum + o.area, 0);
const edgeOf = (outlines: readonly Outline[]) => outlines.reduce((sum, o) => sum + pathLength(o.path), 0);
const exactly = (outlines: readonly Outline[], ...distances: number[]) =>
  distances.reduce<readonly Outline[]>(
    (all, by) => measureOutlines(offsetRegion(wasmEngine, all, { by, corners: 'round' })),
    outlines,
  );

test.each([
  ['Roggen 8 Öl', 'Archivo Black', [0.5]],
  ['Roggen 8 Öl', 'Archivo Black', [-0.4]],
  // Grown and shrunk again narrow gaps are filled; the script hangs together.
  ['Seedlings', 'Pacifico', [1, -1]],
  ['i', 'Archivo Black', [-0.3, 0.3]],
] as const)('%s in %s by %j: as exactly, within its chords', (text, face, distances) => {
  const outlines = outlinesOf(text, face);
  expect(outlines.length).toBeGreaterThan(0);
  const meant = exactly(outlines, ...distances);
  for (const engine of [wasmEngine, scriptEngine]) {
    const grown = grownInChords(engine, outlines, distances);
    expect(grown.map((o) => o.depth).sort()).toEqual(meant.map((o) => o.depth).sort());
    const within = (1 + distances.length) * CHORDS_MM * edgeOf(meant);
    expect(Math.abs(areaOf(grown) - areaOf(meant))).toBeLessThan(within);
    for (const o of grown) expect(o.parent < 0 ? -1 : grown[o.parent]?.depth).toBe(o.depth - 1);
  }
});

test('the same letter elsewhere is where it lies, and what comes to meet is grown together', () => {
  const letter = outlinesOf('o', 'Archivo Black');
  const moved = (dx: number): Outline[] =>
    measureOutlines(letter.map((o) => ({ path: transformPath(o.path, translation(dx, 0)), labels: [...o.labels] })));
  const far = measureOutlines([...moved(0), ...moved(100)]);
  const grown = grownInChords(wasmEngine, far, [0.5]);
  expect(grown).toHaveLength(4);
  expect((grown[2]?.box.minX ?? 0) - (grown[0]?.box.minX ?? 0)).toBeCloseTo(100, 9);
  expect(
    grown
      .map((o) => o.parent)
      .filter((p) => p >= 0)
      .map((p) => grown[p]?.depth),
  ).toEqual([0, 0]);
  const width = (letter[0]?.box.maxX ?? 0) - (letter[0]?.box.minX ?? 0);
  const near = measureOutlines([...moved(0), ...moved(width + 0.6)]);
  expect(grownInChords(wasmEngine, near, [0.5]).filter((o) => o.depth === 0)).toHaveLength(1);
  expect(grownInChords(wasmEngine, near, [0.2]).filter((o) => o.depth === 0)).toHaveLength(2);
});

test('by nothing they stay what they are', () => {
  const outlines = outlinesOf('o', 'Archivo Black');
  expect(grownInChords(wasmEngine, outlines, [0])).toBe(outlines);
});
