/** Questions to the worker: where a newer one of the same kind comes in, the older is given up; others go on. */
import { readFile } from 'node:fs/promises';
import { describe, expect, test, vi } from 'vitest';
import type { StepOf } from '../../src/core/document/schema';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { Host } from '../../src/worker/host';
import { applyUpdate, type JobUpdate } from '../../src/worker/view';
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

/** What was found, in an update against nothing. */
const findingsOf = (update: JobUpdate | null) => (update ? applyUpdate(update, null).findings : []);

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

  test('is given up in the middle of its work for a newer one', async () => {
    const bench = host();
    const older = ask(bench);
    for (let i = 0; i < 6; i++) await turn();
    const newer = ask(bench);
    expect(await older).toBeNull();
    expect(await newer).not.toBeNull();
    expect(await ask(bench)).not.toBeNull();
  });

  test('is answered whatever else is asked meanwhile', async () => {
    const bench = host();
    const own = ask(bench);
    const others = QUESTIONS.filter(([other]) => other !== name).map(([, askOther]) => askOther(bench));
    const rest = [
      bench.summary(job),
      bench.files(job, ['svg'], { partIds: null }),
      bench.regionAt(job, { x: 0, y: 0 }, { partIds: [], memberId: null }),
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
      async () => new Uint8Array(),
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
  const codes = async () => findingsOf(await bench.evaluate(job, null)).map((f) => f.code);
  expect(await codes()).toContain('no-typeface');
  fails = false;
  // Not at once: the answer is kept for a while.
  expect(await codes()).toContain('no-typeface');
});

describe('answers of the host', () => {
  const bench = () => host();

  test('each update has a number of its own, against which the next names what has not changed', async () => {
    const one = bench();
    const first = await one.evaluate(job, null);
    const second = await one.evaluate({ ...job, title: 'Other' }, first?.serial ?? null);
    const third = await one.evaluate({ ...job, title: 'Third' }, second?.serial ?? null);
    expect(new Set([first?.serial, second?.serial, third?.serial]).size).toBe(3);
    expect([first, second, third].map((u) => typeof u?.parts[0])).toEqual(['object', 'string', 'string']);
    expect(typeof (await one.evaluate(job, first?.serial ?? null))?.parts[0]).toBe('object');
  });

  test('findings that were left as they are do not count as open', async () => {
    const loose = jobWith([partOf([lettering('i o')])]);
    const all = findingsOf(await bench().evaluate(loose, null));
    // Two pieces are not attached, which is one thing to look at, until both are left.
    expect(all.map((f) => f.code)).toEqual(['loose', 'loose']);
    expect((await bench().summary(loose))?.openFindings).toBe(1);
    const leftAsIs = all.map(({ key }) => ({ finding: key, reason: 'glued on' }));
    expect((await bench().summary({ ...loose, leftAsIs: leftAsIs.slice(0, 1) }))?.openFindings).toBe(1);
    expect((await bench().summary({ ...loose, leftAsIs }))?.openFindings).toBe(0);
  });

  test('a part just safe: by its size, or by thickening, as asked', async () => {
    const thin = jobWith(
      [partOf([{ id: 'r', kind: 'rectangle', placement: { x: 100, y: 100 }, width: 1, height: 40 }])],
      {
        sheet: { width: 300, height: 200, leastWidth: 3 },
      },
    );
    const sized = await bench().safePart(thin, 'part', 'size', 30);
    const thickened = await bench().safePart(thin, 'part', 'thickening', 30);
    expect(sized?.ok && sized.part.steps.map((s) => s.kind)).toEqual(['weld']);
    expect(sized?.ok && (sized.part.members[0] as { width: number }).width).toBeCloseTo(3, 1);
    expect(thickened?.ok && thickened.part.steps.map((s) => s.kind)).toEqual(['weld', 'thicken']);
  });

  test('the middle of a letter, as path data; of no letter, the middle of the shape; of no part, nothing', async () => {
    const words = jobWith([partOf([lettering('l', 'Poppins')], { steps: [{ kind: 'weld' }, { kind: 'centerline' }] })]);
    expect(await bench().middleOf(words, 'part', 'words:0')).toMatch(/^M[\d.]+ [\d.]+[LC]/);
    expect(await bench().middleOf(words, 'gone', 'words:0')).toBe('');
  });

  test('files of what is asked for, each by its name; of nothing there are none', async () => {
    const { files, refused } = await bench().files(job, ['svg', 'dxf'], { partIds: ['part'] });
    expect(files.map((f) => f.name)).toEqual(['trial.svg', 'trial.dxf']);
    expect(files.every((f) => f.bytes.length > 500)).toBe(true);
    expect(refused).toEqual([]);
    expect(await bench().files(job, ['svg'], { partIds: ['gone'] })).toEqual({ files: [], refused: [] });
  });

  test('a sample of the first words in a face: drawn as it is filled, or as lines, with its bounds, y downwards', async () => {
    const away = host(ticking(), (file) =>
      file.includes('pacifico') ? Promise.reject(new Error('away')) : fromDisk(file),
    );
    const sample = async (family: string, text: string) => {
      const shown = await away.faceSample(faceOfFamily(family), text, {});
      if ('sentence' in shown) throw new Error(shown.sentence);
      return shown;
    };
    const words = '  \n  Alder Lane Community Garden, all of it \nsecond';
    const [bold, thin] = [await sample('Archivo Black', words), await sample('Hershey Sans', words)];
    expect([bold.isSingleStroke, thin.isSingleStroke]).toEqual([false, true]);
    expect(bold.d).toMatch(/^M.*Z/);
    expect(bold.missing).toEqual([]);
    // Twenty-eight characters of capitals 10 mm high, standing on the line: its box lies above it.
    expect(bold.box.width).toBeGreaterThan(100);
    expect(bold.box.width).toBeLessThan(300);
    expect(bold.box.y).toBeLessThan(-9);
    expect(bold.box.y + bold.box.height).toBeLessThan(6);
    const ys = [...bold.d.matchAll(/[ML]-?[\d.]+ (-?[\d.]+)/g)].map((m) => Number(m[1]));
    expect(Math.min(...ys)).toBeGreaterThanOrEqual(bold.box.y - 0.01);
    await expect(sample('Pacifico', words)).rejects.toThrow('Its file could not be fetched.');
    await expect(sample('Nobody’s', words)).rejects.toThrow('It is not among the typefaces here.');
    const plain = await sample('Archivo Black', '   ');
    expect(plain.d).not.toBe(bold.d);
    expect(plain.d.length).toBeGreaterThan(100);
    expect((await sample('Archivo Black', 'Alder Lane Community Garden, all')).d).toBe(bold.d);
  });

  test('drawings are fetched once, and only those a job has; one that can’t be is a finding', async () => {
    const asked: string[] = [];
    const [good, bad, other] = ['a', 'b', 'c'].map((c) => c.repeat(64)) as [string, string, string];
    const kept = JSON.stringify({
      format: 1,
      source: 'SVG',
      unit: 'millimetres',
      mmPerUnit: 1,
      stated: true,
      groups: [{ name: '', colour: '#000000', filled: false }],
      shapes: [{ d: 'M0 0L9 0L9 9Z', group: 0, rule: null }],
    });
    const drawn = new Host(
      fromDisk,
      async (id) => {
        asked.push(id);
        if (id === bad) throw new Error('away');
        return new TextEncoder().encode(id === good ? kept : 'no drawing');
      },
      turn,
      ticking(),
      Promise.resolve(wasmEngine),
    );
    const of = (id: string) =>
      jobWith([partOf([{ id: 'art', kind: 'artwork', placement: { x: 100, y: 100 }, drawing: id }])]);
    const codes = async (id: string) => findingsOf(await drawn.evaluate(of(id), null)).map((f) => f.code);
    expect(await codes(good)).not.toContain('no-drawing');
    expect(await codes(good)).not.toContain('no-drawing');
    expect(asked).toEqual([good]);
    expect(await codes(bad)).toContain('no-drawing');
    expect(await codes(other)).toContain('no-drawing');
    await drawn.evaluate(job, null);
    expect(asked).toEqual([good, bad, other]);
  });

  test('a face is one whatever its capitals and blanks; a family there is not is not fetched', async () => {
    const fetched: string[] = [];
    const one = host(ticking(), async (file) => {
      fetched.push(file);
      return fromDisk(file);
    });
    const inFace = (face: string) => jobWith([partOf([lettering('o', face)])]);
    for (const face of ['Poppins', ' poppins ', 'POPPINS']) await one.evaluate(inFace(face), null);
    expect(fetched).toHaveLength(1);
    const view = await one.evaluate(inFace('Nowhere Sans'), null);
    expect(findingsOf(view).map((f) => f.code)).toEqual(['no-typeface']);
    expect(fetched).toHaveLength(1);
  });

  test('a face that could not be fetched is asked for again after five seconds', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    let tries = 0;
    const one = host(ticking(), async (file) => {
      if (++tries === 1) throw new Error('away');
      return fromDisk(file);
    });
    const codes = async () => findingsOf(await one.evaluate(job, null)).map((f) => f.code);
    expect(await codes()).toContain('no-typeface');
    vi.advanceTimersByTime(4_900);
    expect(await codes()).toContain('no-typeface');
    vi.advanceTimersByTime(200);
    expect(await codes()).not.toContain('no-typeface');
    vi.advanceTimersByTime(60_000);
    await codes();
    expect(tries).toBe(2);
    vi.useRealTimers();
  });
});
