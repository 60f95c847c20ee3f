/** Blur undone: a shape comes back as it was, and what holds no edge is left alone. */
import { expect, test } from 'vitest';
import { closedPath, type Path } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import type { Coverage } from '../../src/core/tracing/contours';
import { sharpened } from '../../src/core/tracing/sharpen';
import { coverageOf } from '../support/coverage';
import { blurred } from '../support/degraded';
import { finished } from '../support/generators';

const bytes = (share: Float64Array) => Uint8Array.from(share, (s) => Math.round(255 * s));
const meanOff = (a: Uint8Array, b: Uint8Array) =>
  a.reduce((sum, v, i) => sum + Math.abs(v - (b[i] as number)), 0) / a.length;

/** A wedge whose tip is narrower than any blur, across the seams of tiles. */
const wedge = (x: number, y: number): Path =>
  closedPath([line(x, y, x + 60, y + 9), line(x + 60, y + 9, x, y + 18), line(x, y + 18, x, y)]);

test.each([0.7, 1, 1.5, 2])('a blur of %d pixels is undone', (sigma) => {
  const [width, height] = [200, 160];
  const share = coverageOf([wedge(100, 40), wedge(20, 118.5)], width, height);
  const given: Coverage = { width, height, data: bytes(blurred(share, width, height, sigma)) };
  const kept = given.data.slice();
  const made = finished(sharpened(given, sigma));
  // What is left is a third of it at most.
  expect(meanOff(made.data, bytes(share))).toBeLessThan(meanOff(given.data, bytes(share)) / 3);
  expect(given.data).toEqual(kept);
});

test('what holds no edge is as it was, and progress is told', () => {
  const plain: Coverage = { width: 300, height: 290, data: new Uint8Array(300 * 290).fill(255) };
  const undoing = sharpened(plain, 1);
  const told: number[] = [];
  let step = undoing.next();
  for (; !step.done; step = undoing.next()) told.push(step.value);
  expect(step.value.data.every((v) => v === 255)).toBe(true);
  expect(told).toEqual([128 / 290, 256 / 290, 1]);
  expect(finished(sharpened({ width: 1, height: 1, data: Uint8Array.of(90) }, 1)).data).toEqual(Uint8Array.of(90));
});
