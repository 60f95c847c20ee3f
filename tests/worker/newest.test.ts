/** Questions to the worker: where a newer one of the same kind comes in, the older is given up; others go on. */
import { readFile } from 'node:fs/promises';
import { describe, expect, test } from 'vitest';
import type { StepOf } from '../../src/core/document/schema';
import { Host } from '../../src/worker/host';
import { wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const fromDisk = async (file: string) => new Uint8Array(await readFile(`public/typefaces/${file}`));
const turn = () => new Promise<void>((resolve) => setImmediate(resolve));
/** A clock that goes on by more than a turn each time it is looked at, so that every step gives others their turn. */
function ticking() {
  let at = 0;
  return () => {
    at += 100;
    return at;
  };
}
const host = (now: () => number = ticking(), fetchFace = fromDisk) =>
  new Host(
    fetchFace,
    async () => Promise.reject(new Error('no drawings here')),
    turn,
    now,
    Promise.resolve(wasmEngine),
  );

const filled = (text: string) =>
  jobWith([
    partOf([lettering(text)], {
      keep: 'outside',
      steps: [
        { kind: 'weld' },
        { kind: 'plate' },
        { kind: 'bridge', width: 2 },
        { kind: 'hatch', tool: { shape: 'line', tip: 2 } },
      ],
      work: [
        { what: 'outline', operation: 'cut' },
        { what: 'hatch', operation: 'engrave' },
      ],
    }),
  ]);
const job = filled('o');
const bridge = job.parts[0]?.steps.find((s): s is StepOf<'bridge'> => s.kind === 'bridge') as StepOf<'bridge'>;

type Question = readonly [name: string, ask: (bench: Host) => Promise<unknown>];
const QUESTIONS: readonly Question[] = [
  ['the view of a document', (bench) => bench.evaluate(job, null)],
  ['the pieces after the cut', (bench) => bench.asCut(job)],
  ['ways to bridge a part', (bench) => bench.bridgeVariants(job, 'part', bridge)],
  ['tools tried on a part', (bench) => bench.toolTrials(job, 'part')],
];

describe.each(QUESTIONS)('%s', (name, ask) => {
  test('asked for anew, only the newest is answered', async () => {
    const bench = host();
    const answers = await Promise.all([ask(bench), ask(bench), ask(bench)]);
    expect(answers.map((a) => a === null)).toEqual([true, true, false]);
  });

  // What is left after the cut is found in one go.
  test.skipIf(name === 'the pieces after the cut')(
    'is given up in the middle of its work for a newer one',
    async () => {
      const bench = host();
      const older = ask(bench);
      for (let i = 0; i < 6; i++) await turn();
      const newer = ask(bench);
      expect(await older).toBeNull();
      expect(await newer).not.toBeNull();
      expect(await ask(bench)).not.toBeNull();
    },
  );

  test('is answered whatever else is asked meanwhile', async () => {
    const bench = host();
    const own = ask(bench);
    const others = QUESTIONS.filter(([other]) => other !== name).map(([, askOther]) => askOther(bench));
    const rest = [
      bench.summary(job),
      bench.files(job, ['svg'], { partIds: null }),
      bench.regionAt(job, { x: 0, y: 0 }, null),
    ];
    expect(await own).not.toBeNull();
    for (const answer of await Promise.all(others)) expect(answer).not.toBeNull();
    await Promise.all(rest);
  });
});

test('an older document is given up before it is begun, when a newer one came while typefaces were fetched', async () => {
  const fetched: string[] = [];
  const bench = host(ticking(), async (file) => {
    fetched.push(file);
    return fromDisk(file);
  });
  const progress: number[] = [];
  const older = bench.evaluate(filled('BOARD'), null, (done) => progress.push(done));
  const newer = bench.evaluate(job, null);
  expect(await older).toBeNull();
  expect(await newer).not.toBeNull();
  expect(progress).toEqual([]);
  // A face is fetched once, whoever asks.
  expect(fetched).toHaveLength(1);
});

test('others get a turn only when a step took long; progress is told then', async () => {
  const calls = { turns: 0 };
  const counting = (now: () => number) =>
    new Host(
      fromDisk,
      async () => '',
      async () => {
        calls.turns++;
        await turn();
      },
      now,
      Promise.resolve(wasmEngine),
    );
  const progress: (readonly [number, number])[] = [];
  await counting(() => 0).evaluate(job, null, (done, of) => progress.push([done, of]));
  expect([calls.turns, progress]).toEqual([0, []]);
  await counting(ticking()).evaluate(job, null, (done, of) => progress.push([done, of]));
  expect(calls.turns).toBe(progress.length);
  expect(progress.length).toBeGreaterThan(3);
  expect(progress.map(([done]) => done)).toEqual(progress.map(([done]) => done).sort((a, b) => a - b));
  expect(new Set(progress.map(([, of]) => of))).toEqual(new Set([2]));
  const tools: (readonly [number, number])[] = [];
  await counting(ticking()).toolTrials(job, 'part', (done, of) => tools.push([done, of]));
  expect(tools.length).toBeGreaterThan(job.tools.length);
  expect(tools.every(([done, of]) => Number.isInteger(done) && done <= of && of === job.tools.length)).toBe(true);
  const variants: (readonly [number, number])[] = [];
  await counting(ticking()).bridgeVariants(job, 'part', bridge, (done, of) => variants.push([done, of]));
  expect(variants).toEqual([1, 2, 3, 4, 5, 6].map((n) => [n, n + 1]));
});

test('a typeface that can’t be fetched is a finding, and is asked for again later', async () => {
  let fails = true;
  const bench = host(ticking(), async (file) => {
    if (fails) throw new Error('away');
    return fromDisk(file);
  });
  const codes = async () => (await bench.evaluate(job, null))?.findings.map((f) => f.code);
  expect(await codes()).toContain('no-typeface');
  fails = false;
  // Not at once: the answer is kept for a while.
  expect(await codes()).toContain('no-typeface');
});
