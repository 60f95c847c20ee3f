/** Letters drawn around white. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { pathLength } from '../../src/core/geometry/path';
import { Evaluator } from '../../src/core/job/evaluate';
import { loadTypeface } from '../../src/core/lettering/typeface';
import { inlineManner, regionsWithin } from '../../src/core/toolpath/centerline/inlines';
import { wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';
import { rectangle } from '../support/shapes';
import { DECORATED_FACES } from '../support/typefaces';

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
