/** Test pieces: what is on them, at true size, and what becomes of what came out well. */
import { describe, expect, test } from 'vitest';
import { setMachine } from '../../src/core/commands/shop';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { settingsOn } from '../../src/core/shop/in-force';
import { startingShop } from '../../src/core/shop/starting';
import { cameOutWell, fragileLetters, testPiece } from '../../src/core/trial/test-piece';
import { triedRow } from '../../src/core/trial/tried-row';
import { faces, wasmEngine } from '../support/faces';
import { demoJobs, jobWith, lettering, partOf } from '../support/jobs';
import { proved } from '../support/proof';

const shop = startingShop();
const evaluator = new Evaluator(wasmEngine);
const laser = shop.machines.find((m) => m.entry.kind === 'laser');
const onLaser = (job: Job): Job => (laser ? setMachine(job, { ...laser.entry, id: laser.id }, shop) : job);
const sign = onLaser(
  jobWith(
    [
      partOf([lettering('Alder Lane', 'Pacifico')], { id: 'words', hangsTogether: 'no' }),
      partOf([lettering('Open', 'Poppins', { placement: { x: 150, y: 40 } })], {
        id: 'engraved',
        hangsTogether: 'no',
        work: [{ what: 'fill', operation: 'engrave' }],
      }),
    ],
    { title: 'Sign', sheet: { width: 300, height: 200, material: 'Birch plywood', thickness: 3, leastWidth: 3 } },
  ),
);
const pieceOf = (job: Job, operation: string): Job => {
  const made = testPiece(job, evaluator.evaluate(job, faces), operation);
  if ('sentence' in made) throw new Error(made.sentence);
  return made;
};
const partIn = (piece: Job, id: string) => {
  const part = piece.parts.find((p) => p.id === id);
  if (!part) throw new Error(`there is a part ${id}`);
  return part;
};

describe('of a cut', () => {
  const piece = pieceOf(sign, 'cut');

  test('a field of squares around what is set, each an operation in a colour of its own', () => {
    const squares = piece.parts.filter((p) => p.id.startsWith('try-'));
    expect(squares).toHaveLength(15);
    const now = settingsOn(sign.operations.find((o) => o.id === 'cut') as Job['operations'][number], sign.sheet);
    const tried = squares.map((p) => cameOutWell(piece, p)?.settings);
    expect(tried.some((s) => s?.speed === now.speed && s?.power === now.power)).toBe(true);
    const speeds = [...new Set(tried.map((s) => s?.speed ?? 0))];
    expect(speeds).toHaveLength(5);
    expect(Math.max(...speeds) / Math.min(...speeds)).toBeCloseTo(2.5, 1);
    const colours = piece.operations.filter((o) => o.id.startsWith('try-')).map((o) => o.colour);
    expect(new Set(colours).size).toBe(15);
    expect(tried.every((s) => (s?.power ?? 0) <= 100)).toBe(true);
  });

  test('slots for the width of the cut: the one whose tongue fits says it', () => {
    const kerf = sign.sheet.kerf ?? settingsOn(sign.operations.find((o) => o.id === 'cut') as never, sign.sheet).kerf;
    const said = [1, 2, 3, 4, 5].map((i) => cameOutWell(piece, partIn(piece, `kerf-${i}`))?.settings.kerf);
    expect(said[2]).toBeCloseTo(kerf as number, 3);
    expect([...said].sort((a, b) => (a ?? 0) - (b ?? 0))).toEqual(said);
    // A tongue of 10 mm loses the width, a slot gains it: they fit where twice the width was taken off the slot.
    const slot = partIn(piece, 'kerf-3').members[0];
    const width = slot?.kind === 'rectangle' ? slot.width : 0;
    expect(width + (kerf as number)).toBeCloseTo(10 - (kerf as number), 2);
  });

  test('fragile letters at true size, in their face, with the steps of their part', () => {
    const letters = partIn(piece, 'letters-1');
    const [words] = letters.members;
    expect(words).toMatchObject({ kind: 'lettering', face: 'Pacifico', size: { by: 'capital', mm: 30 } });
    const made = evaluator.evaluate(sign, faces).parts[0];
    if (!made) throw new Error('it is made');
    expect(made.strength.thin.length).toBeGreaterThan(0);
    const thinnest = made.sources[made.strength.thin[0]?.labels[0] ?? -1]?.text;
    expect(fragileLetters(made)).toContain(thinnest);
    expect(words?.kind === 'lettering' && words.text).toContain(thinnest);
  });

  test('lies on its sheet, is labelled in a one-line face, and is proved like any job', async () => {
    const result = evaluator.evaluate(piece, faces);
    const { workBox } = result;
    expect(workBox.minX).toBeGreaterThanOrEqual(0);
    expect(workBox.minY).toBeGreaterThanOrEqual(0);
    expect(workBox.maxX).toBeLessThanOrEqual(piece.sheet.width);
    expect(workBox.maxY).toBeLessThanOrEqual(piece.sheet.height);
    const labels = piece.parts.filter((p) => p.work.some((w) => w.operation === 'labels'));
    expect(labels.length).toBeGreaterThan(8);
    expect(labels.every((p) => p.members[0]?.kind === 'lettering' && p.members[0].face === 'Hershey Sans')).toBe(true);
    expect((await proved(piece)).findings).toEqual([]);
  });
});

test('of an engraving the squares are gone over, and there are no slots', () => {
  const piece = pieceOf(sign, 'engrave');
  const squares = piece.parts.filter((p) => p.id.startsWith('try-'));
  expect(squares.every((p) => p.work[0]?.what === 'fill')).toBe(true);
  expect(piece.parts.some((p) => p.id.startsWith('kerf-'))).toBe(false);
});

test('where nothing is set there is nothing to try, which is said', () => {
  const bare = jobWith([partOf([lettering('Elm')])]);
  expect(testPiece(bare, evaluator.evaluate(bare, faces), 'cut')).toEqual({
    sentence: expect.stringContaining('Nothing is set for Cut'),
  });
  expect(testPiece(bare, evaluator.evaluate(bare, faces), 'nothing')).toEqual({
    sentence: 'There is no such operation.',
  });
});

test.each([...demoJobs()].filter(([, job]) => job.parts.every((p) => p.members.every((m) => m.kind !== 'artwork'))))(
  'of the sample job %s one is made, for every operation that is set',
  (_, of) => {
    const job = onLaser(of);
    for (const operation of job.operations) {
      if (settingsOn(operation, job.sheet).speed === null) continue;
      const piece = pieceOf(job, operation.id);
      expect(piece.parts.length).toBeGreaterThan(10);
      expect(evaluator.evaluate(piece, faces).findings.filter((f) => f.code === 'off-sheet')).toEqual([]);
    }
  },
);

describe('what came out well becomes the row of the cut chart', () => {
  const settings = { ...settingsOn(sign.operations[0] as never, sign.sheet), speed: 42 };

  test('over the one for its machine, material and thickness, or as a new one', () => {
    const row = triedRow(shop, sign, { kind: 'cut', settings });
    if ('sentence' in row) throw new Error(row.sentence);
    const before = shop.chart.find((r) => r.id === row.id)?.entry;
    expect(before).toMatchObject({ machine: laser?.id, kind: 'cut', thickness: 3 });
    expect(row.entry).toMatchObject({ ...before, settings, tried: true });
    const other = triedRow(shop, { ...sign, sheet: { ...sign.sheet, thickness: 3.2 } }, { kind: 'cut', settings });
    expect(other).toMatchObject({ id: null, entry: { thickness: 3.2, tried: true } });
  });

  test('where the shop does not know the machine or the material, that is said', () => {
    expect(triedRow(shop, { ...sign, machine: null }, { kind: 'cut', settings })).toEqual({
      sentence: expect.stringContaining('machine'),
    });
    const moon = { ...sign, sheet: { ...sign.sheet, material: 'Moon rock' } };
    expect(triedRow(shop, moon, { kind: 'cut', settings })).toEqual({
      sentence: 'The shop has no material “Moon rock”.',
    });
  });
});

test('a test piece of a job on an off-cut has a sheet of its own size, all of it', () => {
  const offCut: [number, number][] = [
    [0, 0],
    [300, 0],
    [300, 5],
    [5, 5],
    [5, 200],
    [0, 200],
  ];
  const piece = pieceOf({ ...sign, sheet: { ...sign.sheet, offCut } }, 'cut');
  expect(piece.sheet.offCut).toBeNull();
  expect(evaluator.evaluate(piece, faces).findings.map((f) => f.code)).not.toContain('off-sheet');
});
