/** Settings that time hangs on: which an operation has, what is tried of each, and where another value goes. */
import { describe, expect, test } from 'vitest';
import { addSheet } from '../../src/core/commands/sheets';
import {
  TIMED_SETTINGS,
  type TimedSetting,
  timedSetting,
  valuesToTry,
  withTimedSetting,
} from '../../src/core/commands/timed-settings';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { timeBySetting } from '../../src/core/job/time-by-setting';
import { finished } from '../../src/core/memo';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, partOf, rectangle } from '../support/jobs';

const tool = (id: string, tip: number) => ({ id, shape: 'flat', tip });
const block = (id: string, x: number, operation: string, steps: object[] = []) =>
  partOf([rectangle('r', 40, 20, { placement: { x, y: 60 } })], {
    id,
    steps,
    work: [{ what: steps.length > 0 ? 'hatch' : 'fill', operation }],
  });
const job: Job = jobWith(
  [
    block('area', 50, 'engrave'),
    block('lines', 150, 'mark', [{ kind: 'hatch', tool: { shape: 'flat', tip: 1 }, overlap: 0.3 }]),
  ],
  {
    machine: { id: 'm', name: 'M', kind: 'laser', areas: {}, speed: { x: 200, y: 150 }, slowest: 30 },
    sheet: { width: 300, height: 150 },
    tools: [tool('fine', 0.5), tool('wide', 1)],
    operations: [
      {
        id: 'engrave',
        name: 'Engrave',
        kind: 'engrave',
        settings: { typed: { speed: 100, rowDistance: 0.5, passes: 2 } },
      },
      { id: 'mark', name: 'Mark', kind: 'mark', settings: { typed: { speed: 50 } } },
    ],
  },
);
const operation = (of: Job, id: string) => of.operations.find((o) => o.id === id) as Job['operations'][number];
const now = (id: string, of = job) => TIMED_SETTINGS.map((which) => timedSetting(of, operation(of, id), which));
const times = (id: string, which: TimedSetting) => {
  const evaluator = new Evaluator(wasmEngine);
  return finished(timeBySetting(job, { operationId: id, which }, evaluator, faces));
};

test('rows are of areas, overlap and tool of lines that fill; what is not given is none', () => {
  expect(now('engrave')).toEqual([100, 2, 0.5, null, null]);
  expect(now('mark')).toEqual([50, 1, null, 0.3, 1]);
  expect(now('mark', { ...job, tools: job.tools.slice(1) })[4]).toBeNull();
  expect(now('engrave', { ...job, machine: null })[2]).toBeNull();
});

test('values about that of now, within what the machine does', () => {
  expect(valuesToTry(job, 'speed', 100)).toEqual([35, 50, 70, 100, 140, 200]);
  expect(valuesToTry(job, 'passes', 2)).toEqual([1, 2, 3, 4, 5, 6]);
  expect(valuesToTry(job, 'rowDistance', 0.013)).toContain(0.013);
  expect(valuesToTry(job, 'overlap', 0.33)).toContain(0.33);
  expect(valuesToTry(job, 'tool', 0)).toEqual([0, 1]);
});

test('another value goes where it stands in the document, and nowhere else', () => {
  for (const which of TIMED_SETTINGS)
    for (const id of ['engrave', 'mark']) {
      if (timedSetting(job, operation(job, id), which) === null) continue;
      const value = which === 'tool' ? 0 : which === 'overlap' ? 0.5 : 3;
      const made = withTimedSetting(job, id, which, value);
      expect(timedSetting(made, operation(made, id), which)).toBe(value);
      const other = id === 'mark' ? 'engrave' : 'mark';
      expect(now(other, made)).toEqual(now(other));
    }
  expect(withTimedSetting(job, 'mark', 'tool', 9)).toBe(job);
});

test('what lies on another sheet is left alone', () => {
  const { job: two } = addSheet(job);
  const own = { ...two, parts: two.parts.map((p) => (p.id === 'lines' ? { ...p, sheet: two.sheetId } : p)) };
  const other = { ...own, parts: [...own.parts, { ...(job.parts[1] as Job['parts'][number]), id: 'elsewhere' }] };
  const made = withTimedSetting(other, 'mark', 'overlap', 0.6);
  const overlapOf = (id: string) =>
    made.parts.find((p) => p.id === id)?.steps.map((s) => s.kind === 'hatch' && s.overlap);
  expect([overlapOf('lines'), overlapOf('elsewhere')]).toEqual([[0.6], [0.3]]);
});

describe('times', () => {
  test('less for faster, more for each pass, half for rows twice as far apart', () => {
    const bySpeed = times('engrave', 'speed')?.times ?? [];
    expect(bySpeed.map((t) => t.value)).toEqual([35, 50, 70, 100, 140, 200]);
    bySpeed.slice(1).forEach((t, i) => {
      expect(t.seconds).toBeLessThan(bySpeed[i]?.seconds ?? 0);
    });
    const byPasses = times('engrave', 'passes')?.times ?? [];
    const [one, , three] = byPasses.map((t) => t.seconds ?? 0) as [number, number, number];
    const [, two] = byPasses.map((t) => t.seconds ?? 0) as [number, number];
    expect(three - two).toBeCloseTo(two - one, 6);
    const rows = new Map(times('engrave', 'rowDistance')?.times.map((t) => [t.value, t.seconds ?? 0]));
    expect((rows.get(0.5) ?? 0) / (rows.get(1) ?? 0)).toBeCloseTo(2, 0);
  });

  test('lines that fill: more overlap takes longer, a wider tool less', () => {
    const overlap = times('mark', 'overlap');
    expect(overlap?.now).toBe(0.3);
    const list = overlap?.times.map((t) => t.seconds ?? 0) ?? [];
    expect(list[list.length - 1]).toBeGreaterThan(2 * (list[0] ?? 0));
    const tools = times('mark', 'tool')?.times.map((t) => t.seconds ?? 0) ?? [];
    expect(tools[0]).toBeGreaterThan(1.5 * (tools[1] ?? 0));
  });

  test('of what an operation does not have there are none', () => {
    expect(times('engrave', 'tool')).toBeNull();
    expect(times('gone', 'speed')).toBeNull();
  });
});
