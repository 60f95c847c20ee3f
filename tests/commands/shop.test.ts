/** What a job takes from the shop: another machine or stock, what was typed, what changed, and the way back. */
import { describe, expect, test } from 'vitest';
import {
  differences,
  setMachine,
  setStockFrom,
  takeFromChart,
  typeSetting,
  typeTool,
} from '../../src/core/commands/shop';
import { setOfStock } from '../../src/core/commands/stock';
import { readJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { reportOf } from '../../src/core/job/report';
import { inForce } from '../../src/core/shop/in-force';
import { startingShop } from '../../src/core/shop/starting';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, partOf } from '../support/jobs';

const SHOP = startingShop();
const machine = (id: string) => {
  const found = SHOP.machines.find((m) => m.id === id);
  if (!found) throw new Error(id);
  return { ...found.entry, id };
};
const on = (job: Job, id: string) => setMachine(job, machine(id), SHOP);
const of = (job: Job, material: string, thickness: number | null) => setStockFrom(job, { material, thickness }, SHOP);
const settingsOf = (job: Job, kind: string) => {
  const operation = job.operations.find((o) => o.kind === kind);
  if (!operation) throw new Error(kind);
  return operation.settings;
};
const PLY = of(on(jobWith([]), 'laser'), 'Birch plywood', 3);

test('machine, material and thickness give every operation its settings, the stock its kerf and its least width', () => {
  expect(PLY.machine).toEqual(machine('laser'));
  expect(PLY.sheet).toMatchObject({ process: 'laser', kerf: 0.2, leastWidth: 1.5 });
  expect(settingsOf(PLY, 'cut')).toMatchObject({
    from: 'row',
    tried: false,
    charted: { speed: 20, power: 70, gas: 'air' },
  });
  for (const kind of ['engrave', 'mark', 'score']) expect(settingsOf(PLY, kind).charted?.speed).toBeGreaterThan(0);
});

test('a thickness between two rows is reckoned, one beyond them has none', () => {
  expect(settingsOf(of(PLY, 'Birch plywood', 4), 'cut')).toMatchObject({ from: 'between', charted: { speed: 15 } });
  expect(settingsOf(of(PLY, 'Birch plywood', 25), 'cut')).toMatchObject({ from: null, charted: null });
});

test('what was typed stays with another machine and material, and there is a way back', () => {
  const typed = typeSetting(PLY, 'cut', 'speed', 12);
  const other = of(typed, 'Acrylic', 5);
  expect(inForce(settingsOf(other, 'cut')).speed).toBe(12);
  expect(settingsOf(other, 'cut').charted?.speed).not.toBe(20);
  const back = typeSetting(other, 'cut', 'speed', undefined);
  expect(inForce(settingsOf(back, 'cut')).speed).toBe(settingsOf(back, 'cut').charted?.speed);
  expect(typeSetting(PLY, 'none', 'speed', 1)).toBe(PLY);
});

test('how wide a tool works comes with it, stays where the shop lost it, and goes with it', () => {
  const mill = of(on(jobWith([]), 'router'), 'MDF', 6);
  const widthOf = (job: Job) => settingsOf(job, 'engrave').toolWidth;
  expect(settingsOf(mill, 'engrave').charted?.tool).toBe('End mill 1');
  expect(widthOf(mill)).toBe(1);
  const engrave = mill.operations.find((o) => o.kind === 'engrave')?.id ?? '';
  const other = typeTool(mill, engrave, 'End mill 3', SHOP);
  expect(widthOf(other)).toBe(3);
  expect(widthOf(typeTool(other, engrave, undefined, SHOP))).toBe(1);
  expect(widthOf(typeTool(other, engrave, 'one of nobody', SHOP))).toBeNull();
  expect(widthOf(takeFromChart(other, { ...SHOP, tools: [] }))).toBe(3);
  expect(widthOf(on(mill, 'laser'))).toBeNull();
});

test('a kerf that was typed stays; one from the chart follows it', () => {
  const materials = SHOP.materials.map((m) => m.entry);
  const typed = setOfStock(PLY, 'kerf', 0.35, materials);
  expect(of(typed, 'Mild steel', 3).sheet.kerf).toBe(0.35);
  expect(of(on(typed, 'router'), 'MDF', 6).sheet.kerf).toBe(0.35);
  expect(of(on(PLY, 'router'), 'MDF', 6).sheet.kerf).toBe(3);
  // Of an older job nobody knows whether it was typed.
  const older = jobWith([], { sheet: { width: 300, height: 200, material: 'Birch plywood', kerf: 0.33 } });
  expect(on(older, 'laser').sheet.kerf).toBe(0.33);
});

test('what changed is listed, and nothing where nothing did', () => {
  expect(differences(PLY, of(PLY, 'Birch plywood', 3))).toEqual([]);
  const found = differences(PLY, of(PLY, 'Birch plywood', 6));
  expect(found).toContainEqual(
    expect.objectContaining({ operation: null, which: 'leastWidth', before: 1.5, after: 3 }),
  );
  expect(found.filter((d) => d.operation?.kind === 'cut').map((d) => d.which)).toEqual(['speed', 'depth']);
  expect(found.some((d) => d.operation?.kind === 'engrave')).toBe(false);
});

test('switching among all machines and materials and back gives the same document', () => {
  let job = PLY;
  for (const { id } of SHOP.machines) for (const { entry } of SHOP.materials) job = of(on(job, id), entry.name, 3);
  expect(of(on(job, 'laser'), 'Birch plywood', 3)).toEqual(PLY);
});

test('what must not be done to the stock comes with it and goes with it', () => {
  const vinyl = of(PLY, 'Vinyl film', 0.1);
  expect(vinyl.sheet.refuses).toEqual([expect.objectContaining({ process: 'laser' })]);
  expect(of(vinyl, 'Card', 1).sheet.refuses).toEqual([]);
});

describe('without the shop', () => {
  const nothing = { machines: [], materials: [], tools: [], chart: [] };
  test('no machine, or one the shop does not have, has no settings', () => {
    expect(settingsOf(setMachine(PLY, null, SHOP), 'cut').charted).toBeNull();
    const others = { ...SHOP, machines: SHOP.machines.filter((m) => m.id !== 'laser') };
    expect(settingsOf(setMachine(PLY, machine('laser'), others), 'cut').charted).toBeNull();
  });
  test('where the shop has not come yet, settings stay as they are', () => {
    expect(settingsOf(setStockFrom(PLY, { material: 'Acrylic' }, nothing), 'cut')).toEqual(settingsOf(PLY, 'cut'));
    expect(setMachine(PLY, machine('router'), nothing).machine?.id).toBe('router');
  });
  test('a machine of another shop is known by its name and kind', () => {
    const elsewhere = { ...machine('laser'), id: 'another' };
    expect(settingsOf(setMachine(PLY, elsewhere, SHOP), 'cut').charted?.speed).toBe(20);
    expect(settingsOf(setMachine(PLY, { ...elsewhere, name: 'Big laser' }, SHOP), 'cut').charted).toBeNull();
  });
  test('a document is enough by itself', () => {
    const read = readJob(JSON.stringify(PLY));
    expect(read.ok && read.job).toEqual(PLY);
  });
});

test('a report lists the settings of every operation and where each comes from', () => {
  const job = typeSetting(of(PLY, 'Birch plywood', 4), 'cut', 'power', 55);
  const report = reportOf(job, new Evaluator(wasmEngine).evaluate(job, faces));
  expect(report).toMatchObject({
    machine: { name: 'Laser', kind: 'laser' },
    stock: { material: 'Birch plywood', thicknessMm: 4, kerfMm: 0.2 },
  });
  expect(report.operations.find((o) => o.kind === 'cut')?.settings).toEqual({
    speed: { value: 15, from: 'between', tried: false },
    power: { value: 55, from: 'typed', tried: false },
    depth: { value: 4, from: 'between', tried: false },
    gas: { value: 'air', from: 'between', tried: false },
    kerf: { value: 0.2, from: 'between', tried: false },
  });
  expect(report.operations.find((o) => o.kind === 'mark')?.settings.speed).toEqual({
    value: 200,
    from: 'row',
    tried: false,
  });
});

describe('files say the settings beside what is drawn, for those who read them', () => {
  const drawn = (tool?: string) => {
    const part = partOf([{ id: 'r', kind: 'rectangle', placement: { x: 60, y: 60 }, width: 40, height: 20 }], {
      work: [{ what: 'outline', operation: 'cut' }],
    });
    let job = of(on(jobWith([part]), 'router'), 'MDF', 9);
    if (tool !== undefined) job = typeSetting(job, 'cut', 'tool', tool);
    const drawing = drawingOf(job, new Evaluator(wasmEngine).evaluate(job, faces));
    if (!drawing) throw new Error('nothing drawn');
    const text = (format: 'svg' | 'dxf' | 'pdf', more: object = {}) =>
      new TextDecoder('latin1').decode(writeFile(drawing, format, { ...job.export, ...more }));
    return text;
  };
  const WORDS = 'Cut: 30 mm/s, 5 passes, 9 mm deep, last 0.3 mm, End mill 3, kerf 3 mm.';

  test('passes and depth among them', () => {
    const text = drawn();
    expect(text('svg')).toContain(`<desc>${WORDS}</desc>`);
    expect(text('svg')).toContain(' data-speed-mm-s="30" data-passes="5" data-depth-mm="9" data-last-pass-mm="0.3"');
    expect(text('dxf')).toContain(`999\r\n${WORDS}\r\n`);
    // In UTF-16, as PDF has it.
    expect(text('pdf')).toContain(
      [...'5 passes'].map((c) => c.charCodeAt(0).toString(16).padStart(4, '0').toUpperCase()).join(''),
    );
  });

  test('no name of a tool breaks a file', () => {
    const odd = drawn('Cone 60° "fine"\n0\r\nEOF <&> é');
    expect(odd('dxf', { dxf: 'R12' })).toContain('Cone 60 deg "fine" 0  EOF <&> e, kerf');
    expect(odd('dxf').match(/\r\n {2}0\r\nEOF\r\n/g)).toHaveLength(1);
    expect(odd('svg')).toContain('data-tool="Cone 60Â° &#34;fine&#34;');
    const long = drawn('x'.repeat(200))('dxf', { dxf: 'R12' });
    expect(Math.max(...long.split('\r\n').map((line) => line.length))).toBeLessThan(256);
  });

  test('nothing is said where nothing is set', () => {
    const bare = jobWith([
      partOf([{ id: 'r', kind: 'rectangle', placement: { x: 60, y: 60 }, width: 40, height: 20 }], {
        work: [{ what: 'outline', operation: 'cut' }],
      }),
    ]);
    const drawing = drawingOf(bare, new Evaluator(wasmEngine).evaluate(bare, faces));
    expect(drawing && new TextDecoder().decode(writeFile(drawing, 'svg', bare.export))).not.toContain('<desc>');
  });
});
