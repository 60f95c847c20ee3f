import { readFile } from 'node:fs/promises';
import { expect, test, vi } from 'vitest';
import { lineLength } from '../../src/bench/stations/lines/centerline';
import { addSheet } from '../../src/core/commands/sheets';
import type { Job, Part } from '../../src/core/document/schema';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { Host } from '../../src/worker/host';
import { applyUpdate, type PartView } from '../../src/worker/view';
import { FAMILIES, LINE_FAMILIES } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const fromDisk = async (file: string) => new Uint8Array(await readFile(`public/typefaces/${file}`));
const pause = () => new Promise<void>((resolve) => setImmediate(resolve));
const host = (fetchFace = fromDisk) =>
  new Host(
    fetchFace,
    async () => Promise.reject(new Error('no drawings here')),
    pause,
    () => performance.now(),
  );

/** The bench's end: a view from a host that has given none before. */
const viewed = async (bench: Host, job: Job, onProgress?: (done: number, of: number) => void) => {
  const update = await bench.evaluate(job, null, onProgress);
  return update && applyUpdate(update, null);
};

const sign = (text: string) => jobWith([partOf([lettering(text)])]);

test('the view of a job', async () => {
  const view = await viewed(host(), sign('OAK'));
  expect(view?.parts[0]?.outlines).toBe(5);
  expect(view?.parts[0]?.d).toMatch(/^M[-\d. A-Z]+Z$/);
  expect(view?.findings.map((f) => f.code)).toEqual(['loose', 'loose']);
  expect(view?.parts[0]?.nodes.length).toBe((view?.parts[0]?.segments ?? 0) * 2);
});

test('a newer document makes the older one stop', async () => {
  const bench = host();
  const many = jobWith(
    Array.from({ length: 60 }, (_, i) =>
      partOf([lettering(`Part ${i} with some words`, 'Sacramento')], { id: `p${i}` }),
    ),
  );
  const seen: number[] = [];
  const older = bench.evaluate(many, null, (done) => seen.push(done));
  await pause();
  const newer = bench.evaluate(sign('new'), null);
  expect(await older).toBeNull();
  expect((await newer)?.parts).toHaveLength(1);
});

test('only what changed is sent, and the rest is what was there', async () => {
  const bench = host();
  const job = (second: string) =>
    jobWith([
      partOf([lettering('Oak')], { id: 'a' }),
      partOf([lettering(second, 'Archivo Black', { placement: { x: 150, y: 30 } })], { id: 'b' }),
    ]);
  const first = await bench.evaluate(job('Elm'), null);
  if (!first) throw new Error('no view');
  const before = applyUpdate(first, null);
  const second = await bench.evaluate(job('Ash'), first.serial);
  if (!second) throw new Error('no view');
  expect(second.parts.map((p) => (typeof p === 'string' ? p : 'sent'))).toEqual(['a', 'sent']);
  const now = applyUpdate(second, before);
  expect(now).toEqual(await viewed(host(), job('Ash')));
  expect(now.parts[0]).toBe(before.parts[0]);
  // Findings that say the same are named too, and stay the same objects.
  const sentFindings = second.findings.map((f) => (typeof f === 'string' ? f : 'sent'));
  expect(sentFindings).toContain('sent');
  const kept = before.findings.filter((f) => f.partId === 'a');
  expect(kept.length).toBeGreaterThan(0);
  for (const finding of kept) expect(now.findings).toContain(finding);
  // Against a view that was never given, or an old one, all is sent.
  for (const held of [null, first.serial, 99]) {
    const whole = await bench.evaluate(job('Ash'), held);
    expect(whole?.parts.every((p: PartView | string) => typeof p !== 'string')).toBe(true);
    expect(whole?.findings.every((f) => typeof f !== 'string')).toBe(true);
  }
});

test('the picture for lists and the open findings', async () => {
  const { picture, openFindings } = (await host().summary(sign('iO'))) ?? {};
  expect(picture?.shapes[0]?.d).toMatch(/^M/);
  // The dot and the letter beside are not attached: one thing to look at.
  expect(openFindings).toBe(1);
});

test('long work reports how far it is', { tags: 'slow' }, async () => {
  const many = jobWith(
    Array.from({ length: 60 }, (_, i) =>
      partOf([lettering(`Part ${i} with some words`, 'Sacramento')], { id: `p${i}` }),
    ),
  );
  const seen: [number, number][] = [];
  await host().evaluate(many, null, (done, of) => seen.push([done, of]));
  expect(seen.length).toBeGreaterThan(0);
  expect(seen.every(([done, of]) => done <= of && of === 61)).toBe(true);
});

test('a face that will not load is a finding, and is tried again later', async () => {
  vi.useFakeTimers();
  let away = true;
  const bench = host(async (file) => {
    if (away) throw new Error('no network');
    return fromDisk(file);
  });
  const first = await viewed(bench, sign('Lane'));
  expect(first?.findings[0]?.sentence).toMatch(
    /Archivo Black can’t be used: Its file could not be fetched\. The words are kept\./,
  );
  away = false;
  expect((await viewed(bench, sign('Lane')))?.parts[0]?.outlines).toBe(0);
  vi.advanceTimersByTime(6_000);
  vi.useRealTimers();
  expect((await viewed(bench, sign('Lane')))?.parts[0]?.outlines).toBeGreaterThan(0);
});

test('a sample of the words in every face', { tags: 'slow' }, async () => {
  const bench = host();
  for (const family of [...FAMILIES, ...LINE_FAMILIES]) {
    const named = faceOfFamily(family);
    const sample = await bench.faceSample(named, '\n  Grüße 漢 and more than fits on a line of samples', {});
    if ('sentence' in sample) throw new Error(sample.sentence);
    expect(sample.d).toMatch(/^M/);
    expect(sample.missing).toEqual(['漢']);
    expect(sample.box.width).toBeGreaterThan(sample.box.height);
    expect(await bench.faceSample(named, '', {})).toHaveProperty('d');
  }
});

test('files are those of the headless command', async () => {
  const job = sign('OAK');
  const { files } = await host().files(job, ['svg', 'dxf', 'pdf'], { partIds: null });
  const [svg, dxf, pdf] = files;
  expect([svg?.name, dxf?.name, pdf?.name]).toEqual(['trial.svg', 'trial.dxf', 'trial.pdf']);
  expect(new TextDecoder().decode(svg?.bytes)).toContain('<g id="Cut"');
  expect(await host().files({ ...job, parts: [] }, ['svg'], { partIds: null })).toEqual({ files: [], refused: [] });
});

const stencil = (steps: object[] = [{ kind: 'bridge', width: 3 }]) =>
  jobWith([partOf([lettering('BOB')], { keep: 'outside', steps: [{ kind: 'weld' }, ...steps] })]);

test('each sheet of a job has its picture and its files; all findings are counted', async () => {
  const bench = host();
  const one = jobWith([partOf([lettering('Bay')], { id: 'words', hangsTogether: 'yes' })]);
  const { job, sheetId } = addSheet(one);
  const two = { ...job, parts: [...job.parts, { ...(one.parts[0] as Part), id: 'more', sheet: sheetId }] };
  const sheets = await bench.sheets(two);
  expect(sheets?.map((s) => s.id)).toEqual(['sheet', sheetId]);
  expect(sheets?.map((s) => s.picture.shapes.length)).toEqual([1, 1]);
  const open = sheets?.map((s) => s.openFindings) ?? [];
  expect(open.every((n) => n > 0)).toBe(true);
  expect((await bench.summary(two))?.openFindings).toBe(open.reduce((sum, n) => sum + n, 0));
  const names = async (isEverySheet: boolean) =>
    (await bench.files(two, ['svg'], { partIds: null }, isEverySheet)).files.map((f) => f.name.replace(/^.*_/, ''));
  expect(await names(false)).toEqual(['sheet-2.svg']);
  expect(await names(true)).toEqual(['sheet-1.svg', 'sheet-2.svg']);
});

test('islands and bridges of a stencil: named, pictured, counted', { tags: 'slow' }, async () => {
  const bridged = (await viewed(host(), stencil()))?.parts[0]?.bridges;
  expect(bridged).toMatchObject({ isOn: true, islandsHeld: 5, islandsLeft: 0 });
  expect(bridged?.keys.map((k) => `${k.text}${k.island}`)).toEqual(['B0', 'B1', 'O0', 'B0', 'B1']);
  expect(bridged?.islands.map((i) => i.name)).toContain('the upper middle of the first B');
  for (const island of bridged?.islands ?? []) {
    expect(island.d).toMatch(/^M/);
    expect(island.bridgeCount).toBeGreaterThan(0);
    expect(island.readability).toBeLessThan(100);
  }
  const bare = (await viewed(host(), stencil([])))?.parts[0]?.bridges;
  expect(bare).toMatchObject({ isOn: false, islandsHeld: 0, bridges: [], readability: 100 });
  expect(bare?.islands).toHaveLength(5);
  // In a plate of its own the picture is of the letter, not of the stock around it.
  const plated = (await viewed(host(), stencil([{ kind: 'plate' }, { kind: 'bridge', width: 3 }])))?.parts[0];
  expect(plated?.keep).toBe('inside');
  expect(plated?.bridges.islands.map((i) => i.d.length)).not.toContain(plated?.d.length);
});

test.each(['circle', 'point'] as const)(
  'middle lines are as long at Fill as at Assign, dots as a %s and all',
  async (dots) => {
    const steps = [{ kind: 'weld' }, { kind: 'centerline', dots }];
    const work = [{ what: 'centerline', operation: 'mark' }];
    const seen = await viewed(host(), jobWith([partOf([lettering('jib')], { steps, work })]));
    const lines = seen?.parts[0]?.centerline;
    if (!lines) throw new Error('no lines');
    expect(lines.aroundDotsMm).toBeGreaterThan(0);
    const marked = seen?.operations.find((o) => o.id === 'mark');
    expect(lineLength(lines, { dots })).toBeCloseTo(marked?.lengthMm ?? 0, 9);
  },
);

test('a bridge put in where the sheet is pressed, and ways to bridge side by side', async () => {
  const bench = host();
  const job = stencil();
  const island = (await viewed(bench, job))?.parts[0]?.bridges.islands.find((i) => i.text === 'O');
  if (!island) throw new Error('no island');
  const { maxX, minY, maxY } = island.box;
  const middle = (minY + maxY) / 2;
  expect(await bench.bridgeThrough(job, 'part', { x: maxX + 2, y: middle })).toMatchObject({
    letter: island.letter,
    island: 0,
    turn: null,
  });
  expect(await bench.bridgeThrough(job, 'part', { x: maxX - 1, y: middle })).toBeNull();
  expect(await bench.bridgeThrough(job, 'gone', { x: 0, y: 0 })).toBeNull();

  const step = job.parts[0]?.steps[1];
  if (step?.kind !== 'bridge') throw new Error('no step');
  const done: number[] = [];
  const older = bench.bridgeVariants(job, 'part', step);
  const newer = bench.bridgeVariants(job, 'part', step, (n) => done.push(n));
  expect(await older).toBeNull();
  const variants = await newer;
  expect(variants?.length).toBe(6);
  // Told when it takes long; in order, whatever is told.
  expect(done).toEqual([1, 2, 3, 4, 5, 6].filter((n) => done.includes(n)));
  expect(new Set(variants?.map((v) => v.d)).size).toBeGreaterThan(3);
  expect(variants?.every((v) => v.unheld === 0 && v.readability > 0)).toBe(true);
  expect(await bench.bridgeVariants(job, 'gone', step)).toEqual([]);
});

const filledSign = (text: string, tip: number) =>
  jobWith([
    partOf([lettering(text, 'Pacifico')], {
      steps: [
        { kind: 'weld', on: true },
        { kind: 'hatch', tool: { shape: 'line', tip } },
      ],
      work: [{ what: 'hatch', operation: 'engrave' }],
    }),
  ]);

test('what fills a part is sent as numbers, with its figures and letters', { tags: 'slow' }, async () => {
  const view = await viewed(host(), filledSign('Rye', 3));
  const fill = view?.parts[0]?.hatch;
  if (!fill) throw new Error('nothing is filled');
  expect(view?.operations.filter((o) => o.hatchedParts.some((of) => of.id === 'part')).map((o) => o.id)).toEqual([
    'engrave',
  ]);
  // Rings and the pass along the edge are not drawn a second time among other lines.
  expect(view?.operations.every((o) => o.linesOf.length === 0)).toBe(true);
  expect(fill.start.at(-1)).toBe(fill.xy.length / 2);
  expect(fill.covered + fill.missed + fill.beyond).toBeCloseTo(1, 2);
  expect(fill.lifts).toBe(view?.operations.find((o) => o.id === 'engrave')?.paths);
  expect(fill.letters.map((l) => l.text).sort()).toEqual(['R', 'e', 'y']);
  const beyond = fill.letters.map((l) => l.beyond);
  expect(beyond).toEqual([...beyond].sort((a, b) => b - a));
  for (const { box } of fill.letters) expect(box.maxX).toBeGreaterThan(box.minX);
});

test('tools are tried one after the other, and a newer question stops an older', { tags: 'slow' }, async () => {
  const bench = host();
  const seen: number[] = [];
  const trials = await bench.toolTrials(filledSign('Rye', 1), 'part', (done) => seen.push(done));
  expect(trials?.map((t) => t.tool.id)).toEqual(filledSign('Rye', 1).tools.map((t) => t.id));
  expect(seen).toEqual([...seen].sort((a, b) => a - b));
  expect(await bench.toolTrials(filledSign('Rye', 1), 'gone')).toEqual([]);
  const older = bench.toolTrials(filledSign('Another word, and longer', 1), 'part');
  await pause();
  const newer = bench.toolTrials(filledSign('Rye', 1), 'part');
  expect(await older).toBeNull();
  expect(await newer).toHaveLength(7);
});
