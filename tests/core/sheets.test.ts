/** Several stocks in a job: each with its parts, settings, findings and files; nothing of one is on another. */
import { describe, expect, test } from 'vitest';
import { addPart } from '../../src/core/commands/parts';
import { addSheet, eachSheet, nameSheet, putOnSheet, removeSheet, takeSheet } from '../../src/core/commands/sheets';
import { setMachine, setStockFrom, typeSetting } from '../../src/core/commands/shop';
import { partsOnSheet, sheetsOf, sheetTitle } from '../../src/core/document/on-sheet';
import { readJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { allFiles, makeFiles } from '../../src/core/job/files';
import { reportOf } from '../../src/core/job/report';
import { finished } from '../../src/core/memo';
import { settingsOn } from '../../src/core/shop/in-force';
import { startingShop } from '../../src/core/shop/starting';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const SHOP = startingShop();
const evaluate = (job: Job) => new Evaluator(wasmEngine).evaluate(job, faces);
const CUT = { work: [{ what: 'outline', operation: 'cut' }] };
const laser = () => {
  const found = SHOP.machines.find((m) => m.id === 'laser');
  if (!found) throw new Error('no laser');
  return { ...found.entry, id: 'laser' };
};
const border: Draft = {
  id: 'back',
  steps: [{ kind: 'weld' }, { kind: 'border', distance: 8 }],
  along: 'words',
  ...CUT,
};
/** Letters of acrylic on a backing of ply, as one makes it: both on one sheet at first, then the backing on another. */
const sign = (): Job => {
  const one = setStockFrom(
    setMachine(
      jobWith([
        partOf([lettering('Bay')], { id: 'words', placement: { x: 120, y: 100 }, ...CUT }),
        partOf([{ id: 'c', kind: 'copy', of: 'words', follows: true, placement: { x: 0, y: 0 } }], border),
      ]),
      laser(),
      SHOP,
    ),
    { material: 'Acrylic', thickness: 3 },
    SHOP,
  );
  const { job, sheetId } = addSheet(one);
  return putOnSheet(setStockFrom(job, { material: 'Birch plywood', thickness: 6 }, SHOP), ['back'], sheetId);
};
const speedOf = (job: Job) => {
  const cut = job.operations.find((o) => o.kind === 'cut');
  return cut && settingsOn(cut, job.sheet).speed;
};

describe('a sign on two stocks', () => {
  const job = sign();
  const [acrylic, ply] = eachSheet(job) as [Job, Job];

  test('the sheet that was added is in hand, with its part alone', () => {
    expect(job.sheetId).toBe('sheet-2');
    expect(job.sheet).toMatchObject({ material: 'Birch plywood', thickness: 6 });
    expect(partsOnSheet(job).map((p) => p.id)).toEqual(['back']);
    expect(evaluate(job).parts.map((p) => p.id)).toEqual(['back']);
    expect(evaluate(acrylic).parts.map((p) => p.id)).toEqual(['words']);
  });

  test('each has the settings of its stock', () => {
    expect(speedOf(acrylic)).not.toBe(speedOf(ply));
    expect(acrylic.sheet.kerf).not.toBeNull();
    expect(acrylic.sheet.material).toBe('Acrylic');
  });

  test('a part that copies one of another sheet lies exactly over it', () => {
    const [words] = evaluate(acrylic).parts;
    const [back] = evaluate(ply).parts;
    expect(back?.box.minX).toBeCloseTo((words?.box.minX ?? 0) - 8, 2);
    expect(back?.box.maxY).toBeCloseTo((words?.box.maxY ?? 0) + 8, 2);
    // On one sheet one would be cut across the other.
    expect(evaluate(ply).findings.some((f) => f.partId === 'words')).toBe(false);
  });

  test('taken in hand by turns it is the same document', () => {
    const there = takeSheet(job, 'sheet');
    expect(takeSheet(there, 'sheet-2')).toEqual(job);
    expect(takeSheet(job, 'none')).toBe(job);
    expect(sheetsOf(there).map((s) => [s.id, s.isInHand])).toEqual([
      ['sheet', true],
      ['sheet-2', false],
    ]);
  });

  test('it is kept and read as it is', () => {
    const read = readJob(JSON.stringify(job));
    expect(read.ok && read.job).toEqual(job);
  });

  test('there is a file for each, called by its sheet, with its part alone', () => {
    const made = [acrylic, ply].map((one) => finished(makeFiles(one, evaluate(one), ['svg'], { partIds: null })));
    const { files, refused } = allFiles(made);
    expect(refused).toEqual([]);
    expect(files.map((f) => f.name)).toEqual([
      expect.stringMatching(/_acrylic-3mm_sheet-1\.svg$/),
      expect.stringMatching(/_birch-plywood-6mm_sheet-2\.svg$/),
    ]);
    const named = nameSheet(ply, 'Back');
    expect(finished(makeFiles(named, evaluate(named), ['svg'], { partIds: null })).files[0]?.name).toMatch(
      /_back\.svg$/,
    );
  });

  test('what is refused of one keeps back all', () => {
    const some = { files: [{ name: 'a.svg', bytes: new Uint8Array(1) }], refused: [] };
    expect(allFiles([some, { files: [], refused: ['no', 'no'] }])).toEqual({ files: [], refused: ['no'] });
    expect(allFiles([some, some]).files).toHaveLength(2);
  });

  test('the report says which it is of; of one sheet it says nothing', () => {
    expect(reportOf(ply, evaluate(ply))).toMatchObject({ sheetId: 'sheet-2', stock: { material: 'Birch plywood' } });
    const single = jobWith([]);
    expect(reportOf(single, evaluate(single))).not.toHaveProperty('sheetId');
  });

  test('what is typed on one stays there', () => {
    const typed = typeSetting(ply, 'cut', 'speed', 7);
    expect(speedOf(typed)).toBe(7);
    expect(speedOf(takeSheet(typed, 'sheet'))).toBe(speedOf(acrylic));
    expect(speedOf(takeSheet(takeSheet(typed, 'sheet'), 'sheet-2'))).toBe(7);
  });

  test('with another machine the settings of the others are taken anew when they come in hand', () => {
    const router = SHOP.machines.find((m) => m.id === 'router');
    if (!router) throw new Error('no router');
    const other = setMachine(ply, { ...router.entry, id: 'router' }, SHOP);
    const stale = takeSheet(other, 'sheet');
    const anew = takeSheet(other, 'sheet', SHOP);
    expect(speedOf(stale)).toBe(speedOf(acrylic));
    expect(speedOf(anew)).not.toBe(speedOf(acrylic));
    // As long as the machine is the same what was taken stays.
    expect(takeSheet(ply, 'sheet', { ...SHOP, chart: [] })).toEqual(takeSheet(ply, 'sheet'));
  });

  test('new parts come on the sheet in hand', () => {
    const { job: more, partId } = addPart(ply, 'heart');
    expect(more.parts.find((p) => p.id === partId)?.sheet).toBe('sheet-2');
  });

  test('taken out, its parts come on the one before; the only one stays', () => {
    const one = removeSheet(ply);
    expect(one.otherSheets).toEqual([]);
    expect(one.sheet.material).toBe('Acrylic');
    expect(partsOnSheet(one).map((p) => p.id)).toEqual(['words', 'back']);
    expect(removeSheet(one)).toBe(one);
  });
});

test('words that were engraved on their backing are cut when that is of other stock', () => {
  const engraved = jobWith([
    partOf([lettering('Bay')], { id: 'words', work: [{ what: 'fill', operation: 'engrave' }] }),
    partOf([{ id: 'c', kind: 'copy', of: 'words', follows: true, placement: { x: 0, y: 0 } }], border),
  ]);
  const { job, sheetId } = addSheet(engraved);
  const work = (j: Job) => j.parts.find((p) => p.id === 'words')?.work.map((w) => `${w.what} ${w.operation}`);
  expect(work(putOnSheet(job, ['back'], sheetId))).toEqual(['outline cut']);
  expect(work(putOnSheet(job, ['words', 'back'], sheetId))).toEqual(['fill engrave']);
});

test('a part that goes along with one of another sheet goes by itself, in its place; a locked one stays', () => {
  const plate = partOf([{ id: 'r', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 100, height: 40 }], {
    id: 'plate',
    placement: { x: 200, y: 100 },
    ...CUT,
  });
  const words = partOf([lettering('Bay')], { id: 'words', placement: { x: 5, y: 6 }, along: 'plate' });
  const { job, sheetId } = addSheet(jobWith([plate, words]));
  const moved = putOnSheet(job, ['words'], sheetId);
  const own = moved.parts.find((p) => p.id === 'words');
  expect(own).toMatchObject({ sheet: sheetId, along: null });
  expect([own?.placement.x, own?.placement.y]).toEqual([205, 106]);
  const locked = { ...job, parts: job.parts.map((p) => ({ ...p, locked: true })) };
  expect(putOnSheet(locked, ['words'], sheetId)).toBe(locked);
  expect(putOnSheet(job, ['words'], 'none')).toBe(job);
});

test('a document whose part is on a sheet that is not there is refused in a sentence', () => {
  const read = readJob(
    JSON.stringify({ ...jobWith([]), parts: [{ id: 'p', sheet: 'nowhere', placement: { x: 0, y: 0 }, members: [] }] }),
  );
  expect(read).toMatchObject({ ok: false, sentences: [expect.stringContaining('there is no sheet “nowhere”')] });
});

test('sheets are called by their name, by their stock, or by their number', () => {
  const { sheet } = jobWith([]);
  expect(sheetTitle({ name: 'Back', sheet }, 1, 'mm')).toBe('Back');
  expect(sheetTitle({ name: ' ', sheet: { ...sheet, material: 'MDF', thickness: 6 } }, 1, 'mm')).toBe('MDF 6 mm');
  expect(sheetTitle({ name: '', sheet }, 3, 'mm')).toBe('Sheet 3');
});
