/** Areas of a job parted into goes: what is best against how they are now, over all operations that go over areas alike. */
import { describe, expect, test } from 'vitest';
import { goOverInGoes } from '../../src/core/commands/areas';
import { setWords } from '../../src/core/commands/words';
import type { Job } from '../../src/core/document/schema';
import { boxWidth, EMPTY_BOX } from '../../src/core/geometry/point';
import { areasApart } from '../../src/core/job/areas-apart';
import { Evaluator } from '../../src/core/job/evaluate';
import { finished } from '../../src/core/memo';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf, rectangle } from '../support/jobs';

const block = (id: string, x: number, y: number, operation = 'engrave') =>
  partOf([rectangle('b', 40, 30, { placement: { x, y } })], { id, work: [{ what: 'fill', operation }] });
const SETTINGS = { settings: { typed: { speed: 100, rowDistance: 0.5 } } };
const jobOf = (parts: Draft[], operations: Draft[] = [{ id: 'engrave', ...SETTINGS }]): Job =>
  jobWith(parts, {
    sheet: { width: 900, height: 300 },
    machine: { id: 'm', name: 'M', kind: 'laser', areas: {} },
    operations: operations.map((o) => ({ name: String(o.id), kind: 'engrave', ...o })),
  });
const apart = (job: Job, operationId = 'engrave') =>
  finished(areasApart(job, new Evaluator(wasmEngine).evaluate(job, faces), operationId));
const taken = (job: Job) => {
  const made = apart(job);
  if (!made) throw new Error('nothing is known of the areas');
  return goOverInGoes(
    job,
    made.operations,
    made.best.map((go) => go.parts),
  );
};
const FAR = jobOf([block('a', 40, 40), block('b', 85, 40), block('c', 700, 50)]);

describe('areas of one operation', () => {
  test('those near each other together, those far apart by themselves; taken there is nothing more to save', () => {
    const made = apart(FAR);
    expect(made?.now.map((go) => go.parts)).toEqual([['a', 'b', 'c']]);
    expect(made?.best.map((go) => [...go.parts].sort())).toEqual([['a', 'b'], ['c']]);
    expect(made?.isWorthwhile).toBe(true);
    const after = apart(taken(FAR));
    expect(after?.operations).toHaveLength(2);
    expect(after?.now).toEqual(after?.best);
    expect(after?.savedSeconds).toBeCloseTo(0, 9);
    // What was told to be saved is what the goes take less.
    const sum = (goes: readonly { readonly seconds: number }[]) => goes.reduce((s, go) => s + go.seconds, 0);
    const less = sum(made?.now ?? []) - sum(made?.best ?? []);
    // But for the way from one to the other.
    const way = less - (made?.savedSeconds ?? 0);
    expect(way).toBeGreaterThan(0);
    expect(way).toBeLessThan(700 / 500 + 500 / 3000 + 0.01);
  });

  test('what is told to be saved holds where not every row is looked at, and for several passes', () => {
    const sum = (goes: readonly { readonly seconds: number }[]) => goes.reduce((s, go) => s + go.seconds, 0);
    for (const typed of [
      { speed: 100, rowDistance: 0.01 },
      { speed: 100, rowDistance: 0.5, passes: 12 },
    ]) {
      const made = apart(jobOf([block('a', 40, 40), block('c', 700, 50)], [{ id: 'engrave', settings: { typed } }]));
      const way = sum(made?.now ?? []) - sum(made?.best ?? []) - (made?.savedSeconds ?? 0);
      // Moved between once, whatever each row that is looked at stands for.
      expect(way).toBeGreaterThan(0);
      expect(way).toBeLessThan(700 / 500 + 500 / 3000 + 0.01);
    }
  });

  test('one area by itself, lines, no machine: there is nothing to tell', () => {
    expect(apart(jobOf([block('a', 40, 40)]))).toBeNull();
    expect(apart({ ...FAR, machine: null })).toBeNull();
    expect(apart(FAR, 'gone')).toBeNull();
  });
});

describe('areas of several operations', () => {
  const parted = (more: Draft = {}) =>
    jobOf(
      [block('a', 40, 40), block('b', 85, 40, 'second')],
      [
        { id: 'engrave', ...SETTINGS },
        { id: 'second', ...SETTINGS, ...more },
      ],
    );

  test('that are better gone over together are found so, from either of them', () => {
    for (const id of ['engrave', 'second']) {
      const made = apart(parted(), id);
      expect(made?.operations).toEqual(['engrave', 'second']);
      expect(made?.now.map((go) => go.parts)).toEqual([['a'], ['b']]);
      expect(made?.best).toHaveLength(1);
      expect(made?.savedSeconds).toBeGreaterThan(0);
    }
    expect(taken(parted()).operations.map((o) => o.id)).toEqual(['engrave']);
  });

  test('that differ in anything stay apart', () => {
    for (const more of [
      { settings: { typed: { speed: 90, rowDistance: 0.5 } } },
      { tip: 0.4 },
      { scan: { interval: 0.5, direction: 90 } },
      { kind: 'mark' },
      { on: false },
    ])
      expect(apart(parted(more))).toBeNull();
    // And so do two that fill letters of the same part.
    const shared = parted();
    const both: Job = {
      ...shared,
      parts: shared.parts.map((p) => ({
        ...p,
        work: [...p.work, { what: 'fill', operation: p.id === 'a' ? 'second' : 'engrave', only: null }],
      })),
    };
    expect(apart(both)?.operations).toEqual(['engrave']);
  });
});

test('new words go along with the go they are in, and a better split is told when it appears', () => {
  const words = (id: string, x: number, y: number) =>
    partOf([lettering('HEH', 'Archivo Black', { size: { by: 'capital', mm: 30 } })], {
      id,
      placement: { x, y },
      work: [{ what: 'fill', operation: 'engrave' }],
    });
  const job = taken(jobOf([words('a', 60, 60), words('c', 600, 70)]));
  expect(job.operations).toHaveLength(2);
  const renamed = setWords(job, 'c', 'words', 'OAK AND ASH');
  expect(renamed.parts[1]?.work[0]?.operation).toBe(job.parts[1]?.work[0]?.operation);
  expect(apart(renamed)?.isWorthwhile).toBe(false);
  // Moved beside the other, one go is better, and is told.
  const [first] = new Evaluator(wasmEngine).evaluate(job, faces).parts;
  const x = 60 + boxWidth(first?.box ?? EMPTY_BOX) + 4;
  const near: Job = {
    ...job,
    parts: job.parts.map((p) => (p.id === 'c' ? { ...p, placement: { ...p.placement, x, y: 60 } } : p)),
  };
  const told = apart(near);
  expect(told?.best).toHaveLength(1);
  expect(told?.savedSeconds).toBeGreaterThan(0);
});
