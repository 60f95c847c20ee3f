/** Letters drawn around white, and lines kept to the ink. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { laid } from '../../src/core/geometry/lying';
import { type Path, pathLength } from '../../src/core/geometry/path';
import { arcAbout, line } from '../../src/core/geometry/segment';
import { Evaluator } from '../../src/core/job/evaluate';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { bareLength, depthIn, type Ink, inkedParts, isInked } from '../../src/core/toolpath/centerline/ink';
import { inlineManner, regionsWithin } from '../../src/core/toolpath/centerline/inlines';
import { wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';
import { DECORATED_FACES } from '../support/typefaces';

const rectangle = (x: number, y: number, width: number, height: number, way: 1 | -1 = 1): Path => {
  const places = [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ] as [number, number][];
  if (way === -1) places.reverse();
  return {
    closed: true,
    segments: places.map(([ax, ay], i) => {
      const [bx, by] = places[(i + 1) % 4] as [number, number];
      return line(ax, ay, bx, by);
    }),
  };
};

/** A bar with an inline; and a ring with one all round, about a counter. */
const BAR = [rectangle(0, 0, 20, 100), rectangle(9, 9, 2, 82, -1)];
const RING = [
  [rectangle(0, 0, 100, 100), rectangle(9, 9, 82, 82, -1)],
  [rectangle(11, 11, 78, 78), rectangle(20, 20, 60, 60, -1)],
];

describe('letters drawn around white', () => {
  test('are told by letters without holes of their own; three in four must be', () => {
    const solid = [[rectangle(0, 0, 20, 100)]];
    expect(inlineManner([[BAR], [BAR], [BAR], solid])?.white).toBeCloseTo((2 * 164) / 168, 6);
    expect(inlineManner([[BAR], [BAR], solid, solid])).toBeNull();
    expect(inlineManner([])).toBeNull();
  });

  test('the white is the letter, without its counters; solid letters stay as they are', () => {
    const manner = { white: 2, line: 0 };
    const [bar] = regionsWithin([BAR], manner);
    expect(bar).toHaveLength(1);
    const [ring, ...more] = regionsWithin(RING, manner);
    expect(more).toEqual([]);
    expect(ring?.map((p) => pathLength(p))).toEqual([4 * 82, 4 * 78]);
    const counter = [rectangle(0, 0, 60, 60), rectangle(10, 10, 40, 40, -1)];
    expect(regionsWithin([counter], manner)).toEqual([counter]);
  });

  test.skipIf(DECORATED_FACES.length === 0).each([
    ['bungee-inline', 'O', 1, true],
    ['bungee-inline', 'T', 2, false],
    ['londrina-shadow', 'O', 1, true],
    ['londrina-shadow', 'I', 1, false],
    ['bungee-shade', 'O', 1, true],
    ['bungee-shade', 'T', 2, false],
  ] as const)('%s “%s” is %i line', async (name, text, count, closed) => {
    const face = DECORATED_FACES.find((f) => f.name === name);
    const load = await loadTypeface(new Uint8Array(readFileSync(face?.file ?? '')));
    if (!load.ok) throw new Error(load.sentence);
    const lines = (inlines: string) => {
      const steps = [{ kind: 'weld' }, { kind: 'centerline', inlines }];
      const work = [{ what: 'centerline', operation: 'mark' }];
      const job = jobWith([partOf([lettering(text, name)], { steps, work })]);
      const { parts } = new Evaluator(wasmEngine).evaluate(job, () => ({ typeface: load.typeface }));
      return parts[0]?.linework.centerline?.paths ?? [];
    };
    expect(lines('left').map((p) => p.closed)).toEqual(Array(count).fill(closed));
    expect(lines('drawn').length).not.toBe(count);
  });
});

describe('lines in ink', () => {
  const ink = (paths: readonly Path[], width = 10): Ink => ({ room: depthIn(laid(paths), width), bare: 0.01, width });
  const holed = ink([rectangle(0, 0, 100, 20), rectangle(40, 5, 20, 10, -1)]);
  const across: Path = { closed: false, segments: [line(5, 10, 95, 10)] };

  test('a line is cut where it runs over a hole, and only there', () => {
    const parts = inkedParts([across], holed, 0);
    expect(parts.map((p) => [p.segments[0]?.x0, p.segments[0]?.x1].map((x) => x?.toFixed(1)))).toEqual([
      ['5.0', '40.0'],
      ['60.0', '95.0'],
    ]);
    expect(bareLength([across], holed)).toBeCloseTo(20, 1);
    expect(inkedParts([across], holed, 36)).toEqual([]);
  });

  test('a closed line goes on over its start', () => {
    const ring: Path = {
      closed: true,
      segments: [0, 1, 2, 3].map((k) => arcAbout(50, 10, 30, (k * Math.PI) / 2, Math.PI / 2)),
    };
    const [part, ...more] = inkedParts([ring], ink([rectangle(52, -40, 100, 100)]), 0);
    expect(more).toEqual([]);
    expect(part?.closed).toBe(false);
    expect(pathLength(part as Path)).toBeCloseTo(30 * 2 * Math.acos(2 / 30), 1);
  });

  test('what is out by very little stays, and so does what lies in ink', () => {
    const corner: Path = { closed: false, segments: [line(-0.3, 10, 30, 10)] };
    expect(inkedParts([corner], holed, 0)).toEqual([corner]);
    const inside: Path = { closed: false, segments: [line(5, 2, 95, 2)] };
    expect(inkedParts([inside], holed, 0)[0]).toBe(inside);
    expect(isInked(inside.segments, holed.room, 0.01)).toBe(true);
    expect(isInked(across.segments, holed.room, 0.01)).toBe(false);
  });
});
