/** Starters: what they become with words, stock and size of one's own, and jobs kept as starters. */
import { describe, expect, test } from 'vitest';
import { asStarter } from '../../src/core/commands/starters';
import { strongEnough } from '../../src/core/commands/stock';
import type { Job } from '../../src/core/document/schema';
import { boxCentre, boxHeight, boxWidth } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { askedIn, type StartAnswers, startJob } from '../../src/core/job/start';
import { finished } from '../../src/core/memo';
import { type Material, materialSchema } from '../../src/core/schema/shop/material';
import { STARTERS } from '../../src/core/starters/starters';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const MATERIALS: Material[] = materialSchema.array().parse([
  { name: 'Oak', leastWidthMm: 1.8, leastPerThickness: 0.6, process: 'laser', kerfsMm: { laser: 0.25 } },
  { name: 'Mild steel', leastWidthMm: 1.5, leastPerThickness: 1, process: 'plasma', kerfsMm: { plasma: 1.2 } },
]);
const evaluator = new Evaluator(wasmEngine);
const starterOf = (id: string): Job => {
  const found = STARTERS.find((s) => s.id === id);
  if (!found) throw new Error(`no starter ${id}`);
  return found.job;
};
const begun = (starter: Job, answers: Partial<StartAnswers> = {}) =>
  finished(
    startJob(
      starter,
      {
        words: askedIn(starter).map(() => null),
        material: starter.sheet.material,
        thickness: starter.sheet.thickness,
        thicknessAs: null,
        size: null,
        sheet: null,
        units: 'mm',
        ...answers,
      },
      { materials: MATERIALS, evaluator, faces },
    ),
  );
const boxOf = (job: Job) => evaluator.boxOf(job, { partIds: job.parts.map((p) => p.id), memberId: null }, faces);

describe.each(STARTERS.map(({ id, job }) => [id, job] as const))('%s', (id, job) => {
  test('is a job with nothing to look at, on its sheet, and says what comes of it', () => {
    const { job: made } = begun(job);
    expect(made.starter).toBeNull();
    const result = evaluator.evaluate(made, faces);
    expect(result.findings.map((f) => f.sentence)).toEqual([]);
    expect(job.starter?.about).toMatch(/\.$/);
    if (id === 'empty') return;
    expect(askedIn(job).length).toBeGreaterThan(0);
    const box = boxOf(made);
    expect(boxCentre(box).x).toBeCloseTo(made.sheet.width / 2, 2);
    expect(boxCentre(box).y).toBeCloseTo(made.sheet.height / 2, 2);
    expect(boxWidth(box) + 19.9).toBeLessThan(made.sheet.width);
  });

  test.runIf(id !== 'empty')('other words are taken, long and short, accented and in two lines', () => {
    for (const words of ['Jo', 'Maximilian Sørensen', 'Éva\nÅse']) {
      const { job: made } = begun(job, { words: askedIn(job).map(() => words) });
      expect(made.title).toBe(words.replace('\n', ' '));
      const { findings, operations } = evaluator.evaluate(made, faces);
      expect(findings.filter((f) => f.severity === 'fault')).toEqual([]);
      expect(operations.some((o) => o.drawn.length > 0)).toBe(true);
    }
  });
});

test('what is begun from a job on an off-cut has a whole sheet', () => {
  const plaque = starterOf('plaque');
  const offCut: [number, number][] = [
    [0, 0],
    [400, 0],
    [0, 300],
  ];
  expect(begun({ ...plaque, sheet: { ...plaque.sheet, offCut } }).job.sheet.offCut).toBeNull();
});

test('all of the work is sized and lies in the middle of a sheet that it fits', () => {
  const plaque = starterOf('plaque');
  const made = begun(plaque, { size: { side: 'width', mm: 500 } });
  expect(made.width).toBeCloseTo(500, 3);
  expect(made.height).toBeCloseTo(250, 3);
  expect(made.job.sheet).toMatchObject({ width: 520, height: 270 });
  const own = begun(plaque, { size: { side: 'height', mm: 50 }, sheet: { width: 700, height: 90 } });
  expect(own.height).toBeCloseTo(50, 3);
  expect(own.job.sheet).toMatchObject({ width: 700, height: 90 });
  expect(boxHeight(boxOf(own.job))).toBeCloseTo(50, 3);
  expect(boxCentre(boxOf(own.job)).y).toBeCloseTo(45, 2);
});

test('the stock brings what is safe in it, and what holds is made as strong', () => {
  const { job } = begun(starterOf('to-hang'), { material: 'oak', thickness: 9 });
  expect(job.sheet).toMatchObject({ material: 'oak', thickness: 9, leastWidth: 5.4, kerf: 0.25 });
  expect(job.parts[0]?.members[0]).toMatchObject({ closeUp: { overlap: 6.48 } });
  expect(job.parts[0]?.steps.find((s) => s.kind === 'tie')).toMatchObject({ width: 6.48 });
  const { job: plate } = begun(starterOf('cut-through'), { material: 'Mild steel', thickness: 8 });
  expect(plate.parts[0]?.steps.find((s) => s.kind === 'bridge')).toMatchObject({ width: 9.6 });
  const { job: stand } = begun(starterOf('on-a-stand'), { material: 'Oak', thickness: 30 });
  expect(stand.parts[0]?.steps.find((s) => s.kind === 'bar')).toMatchObject({ height: 18 });
});

test('what is strong enough stays, and nothing is done where no width is asked for', () => {
  const strong = jobWith([partOf([lettering('o')], { steps: [{ kind: 'weld' }, { kind: 'bridge', width: 9 }] })], {
    sheet: { width: 300, height: 200, leastWidth: 3 },
  });
  expect(strongEnough(strong)).toBe(strong);
  const unsaid = { ...strong, sheet: { ...strong.sheet, leastWidth: null } };
  expect(strongEnough(unsaid)).toBe(unsaid);
});

test('what is locked is sized and moved with the rest, and locked again', () => {
  const starter = asStarter(jobWith([partOf([lettering('Oak')], { locked: true })]));
  const { job, width } = begun(starter, { size: { side: 'width', mm: 120 } });
  expect(width).toBeCloseTo(120, 3);
  expect(boxCentre(boxOf(job)).x).toBeCloseTo(job.sheet.width / 2, 2);
  expect(job.parts[0]?.locked).toBe(true);
});

test('empty answers leave the words; a job is called by the first that are other', () => {
  const starter = starterOf('emblem');
  const { job } = begun(starter, { words: ['  ', 'Orchard'] });
  expect(askedIn(job).map((w) => w.text)).toEqual(['ALDER LANE\nCOMMUNITY GARDEN', 'Orchard']);
  expect(job.title).toBe('Orchard');
  expect(begun(starter).job.title).toBe('Ring emblem');
});

test('a job as a starter asks for its words by the name of their part or what they say, and keeps what is asked', () => {
  const words = (id: string, text: string) => lettering(text, 'Poppins', { id });
  const job = jobWith([
    partOf([words('a', 'Oak\nand elm'), words('b', '')], { id: 'p' }),
    partOf([words('c', 'x')], { id: 'q', name: 'Number' }),
  ]);
  const starter = asStarter(job);
  expect(starter.starter).toEqual({ about: '' });
  expect(askedIn(starter).map((w) => w.asked)).toEqual(['Oak', 'Words', 'Number']);
  const again = asStarter({
    ...starter,
    starter: { about: 'A label.' },
    parts: starter.parts.map((p) => ({
      ...p,
      members: p.members.map((m) => (m.id === 'c' ? m : { ...m, asked: null })),
    })) as Job['parts'],
  });
  expect(again.starter).toEqual({ about: 'A label.' });
  expect(askedIn(again).map((w) => w.asked)).toEqual(['Number']);
});
