/** Where work collides: what is found, what is not, and that one press mends it. */
import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { boxCentre } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { COLLISION_RULES } from '../../src/core/rules/collide';
import { mendingOf } from '../../src/core/rules/mend';
import type { Seen } from '../../src/core/rules/rule';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const CODES = new Set(COLLISION_RULES.map((rule) => rule.code));
const found = (job: Job) => evaluator.evaluate(job, faces).findings.filter((f) => CODES.has(f.code));
const codes = (job: Job) => found(job).map((f) => f.code);
const seenOf = (job: Job): Seen => ({
  middleOf: (id) => {
    const part = evaluator.evaluate(job, faces).parts.find((p) => p.id === id);
    return part ? boxCentre(part.own.box) : { x: 0, y: 0 };
  },
  capHeightOf: () => 30,
  bridgesOf: () => ({ bridges: [], keys: [], measure: { capHeightMm: 30, leastWidthMm: null, kerfMm: null } }),
});
const mended = (job: Job): Job => {
  const [finding] = found(job);
  const mending = finding && mendingOf(job, finding);
  if (!mending || !('run' in mending)) throw new Error('there is no mend');
  return mending.run(job, seenOf(job));
};

const rectangle = (x: number, y: number, width: number, height: number): Draft => ({
  id: 'shape',
  kind: 'rectangle',
  placement: { x, y },
  width,
  height,
});
const by = (id: string, member: Draft, operation: string, what = 'outline', more: Draft = {}): Draft =>
  partOf([member], { id, name: id, work: [{ what, operation }], ...more });
const cut = (id: string, member: Draft, more: Draft = {}) => by(id, member, 'cut', 'outline', more);
const engraved = (id: string, member: Draft) => by(id, member, 'engrave', 'fill');
const TWO_CUTS = {
  operations: [
    { id: 'cut', name: 'Cut', kind: 'cut' },
    { id: 'holes', name: 'Holes', kind: 'cut', colour: '#00AA00' },
  ],
};

describe('pieces that are cut over each other', () => {
  test('are welded into one where nothing else about them differs', () => {
    const job = jobWith([cut('a', rectangle(60, 60, 80, 40)), cut('b', rectangle(120, 60, 80, 40))]);
    const [first, ...others] = found(job);
    expect(first?.sentence).toContain('are cut over each other: both would be cut through.');
    expect(others).toEqual([]);
    const after = mended(job);
    expect(after.parts).toHaveLength(1);
    expect(codes(after)).toEqual([]);
    expect(evaluator.evaluate(after, faces).parts[0]?.outlines).toHaveLength(1);
  });

  test('are moved apart where they can’t be one, on the sheet and the least way', () => {
    const job = jobWith([cut('a', rectangle(60, 60, 80, 40)), by('b', rectangle(120, 60, 80, 40), 'holes')], TWO_CUTS);
    expect(codes(job)).toEqual(['cut-across']);
    const after = mended(job);
    expect(codes(after)).toEqual([]);
    expect(after.parts[1]?.placement).toMatchObject({ x: 25, y: 0 });
    expect(after.parts[0]).toBe(job.parts[0]);
  });

  test('are not found where they touch, lie in each other, or one is hidden', () => {
    const a = cut('a', rectangle(60, 60, 80, 40));
    expect(codes(jobWith([a, cut('b', rectangle(140, 60, 80, 40))]))).toEqual([]);
    expect(codes(jobWith([a, cut('b', rectangle(60, 60, 20, 20))]))).toEqual([]);
    expect(codes(jobWith([a, cut('b', rectangle(120, 60, 80, 40), { hidden: true })]))).toEqual([]);
  });

  test('a border around words goes by itself', () => {
    const copy = { id: 'copy', kind: 'copy', placement: { x: 0, y: 0 }, of: 'words', follows: true };
    const border = cut('border', copy, { along: 'words', steps: [{ kind: 'weld' }, { kind: 'border', distance: 1 }] });
    expect(codes(jobWith([cut('words', lettering('Oak')), border]))).toEqual([]);
  });
});

describe('engraving', () => {
  test('across an edge is kept to the piece, and follows it', () => {
    const job = jobWith([engraved('ground', rectangle(100, 60, 90, 30)), cut('plate', rectangle(100, 60, 80, 60))]);
    expect(codes(job)).toEqual(['across-edge']);
    expect(found(job)[0]?.sentence).toContain('runs across the edge of');
    const after = mended(job);
    expect(codes(after)).toEqual([]);
    const [ground] = evaluator.evaluate(after, faces).parts;
    expect(ground?.box.minX).toBeCloseTo(60, 3);
    expect(ground?.box.maxX).toBeCloseTo(140, 3);
    expect(ground?.box.minY).toBeCloseTo(45, 3);
    expect(after.parts[0]?.members.at(-1)).toMatchObject({ kind: 'copy', of: 'plate', role: 'clip', follows: true });
  });

  test('lines that are drawn across an edge are found too; in the piece they are not', () => {
    const at = (x: number) =>
      jobWith([
        by('line', lettering('Oak', 'Hershey Sans', { placement: { x, y: 60 } }), 'mark'),
        cut('plate', rectangle(100, 65, 120, 80)),
      ]);
    expect(codes(at(100))).toEqual([]);
    const across = at(150);
    expect(codes(across)).toEqual(['across-edge']);
    expect(mendingOf(across, found(across)[0] as never)).toBeNull();
  });

  test('beside every piece, where other work lies on one, is put on it', () => {
    const job = jobWith([
      cut('plate', rectangle(60, 60, 80, 60)),
      engraved('on', rectangle(60, 60, 20, 10)),
      engraved('off', rectangle(200, 60, 20, 10)),
    ]);
    expect(found(job).map((f) => [f.code, f.partId])).toEqual([['off-piece', 'off']]);
    const after = mended(job);
    expect(after.parts[2]?.placement).toMatchObject({ x: -140, y: 0 });
    expect(codes(after)).toEqual([]);
    // A line around a piece that goes along with it lies beside it as it is meant to.
    const around = partOf([{ id: 'c', kind: 'copy', placement: { x: 0, y: 0 }, of: 'plate', follows: true }], {
      id: 'around',
      along: 'plate',
      steps: [{ kind: 'weld' }, { kind: 'border', distance: 3 }],
      work: [{ what: 'outline', operation: 'score' }],
    });
    expect(
      codes(jobWith([cut('plate', rectangle(60, 60, 80, 60)), engraved('on', rectangle(60, 60, 20, 10)), around])),
    ).toEqual([]);
    // A sheet that is engraved beside what is cut out of it may be meant.
    expect(codes({ ...job, parts: [job.parts[0], job.parts[2]] as Job['parts'] })).toEqual([]);
  });
});

test('an inside that is cut after the outside is cut first at a press', () => {
  const job = jobWith(
    [cut('plate', rectangle(60, 60, 80, 60)), by('hole', rectangle(60, 60, 10, 10), 'holes')],
    TWO_CUTS,
  );
  expect(codes(job)).toEqual(['outside-first']);
  expect(found(job)[0]?.sentence).toContain('is cut after it: the piece has come free by then.');
  const after = mended(job);
  expect(after.operations.map((o) => o.id)).toEqual(['holes', 'cut']);
  expect(codes(after)).toEqual([]);
});

test('what is remembered of a part goes by what of it an operation works', () => {
  const words = lettering('I', 'Hershey Sans', { placement: { x: 140, y: 60 } });
  const both = partOf([rectangle(60, 60, 30, 30), { ...words, id: 'line' }], {
    id: 'both',
    steps: [{ kind: 'weld' }, { kind: 'centerline' }],
    work: [
      { what: 'outline', operation: 'mark' },
      { what: 'centerline', operation: 'score' },
    ],
  });
  const job = jobWith([both, cut('plate', rectangle(150, 60, 30, 90))]);
  const moved = (operation: string): Job => ({
    ...job,
    parts: job.parts.map((p) => ({
      ...p,
      work: p.work.map((w) => (w.what === 'outline' && p.id === 'both' ? { ...w, operation } : w)),
    })),
  });
  const anew = (of: Job) =>
    new Evaluator(wasmEngine).evaluate(of, faces).findings.flatMap((f) => (CODES.has(f.code) ? [f.key] : []));
  for (const operation of ['mark', 'score', 'engrave', 'mark'])
    expect(found(moved(operation)).map((f) => f.key)).toEqual(anew(moved(operation)));
});
