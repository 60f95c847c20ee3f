/** What is found about operations, and how it is mended. */
import { expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { mendingOf } from '../../src/core/rules/mend';
import type { Seen } from '../../src/core/rules/rule';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const NOTHING_SEEN: Seen = {
  middleOf: () => ({ x: 0, y: 0 }),
  capHeightOf: () => undefined,
  bridgesOf: () => ({ pinned: [], islands: [] }) as never,
};
const found = (job: Job) =>
  evaluator.evaluate(job, faces).findings.filter((f) => ['cut-first', 'one-colour'].includes(f.code));
const mended = (job: Job): Job => {
  const [finding] = found(job);
  const mending = finding && mendingOf(job, finding);
  if (!mending || !('run' in mending)) throw new Error('no mend');
  return mending.run(job, NOTHING_SEEN);
};
const worked = (id: string, operation: string): Draft =>
  partOf([lettering('I')], {
    id,
    work: [{ what: 'outline', operation }],
    placement: { x: 90 * Number(id.slice(1)), y: 0 },
  });

const CUT = { id: 'cut', name: 'Cut', kind: 'cut' };
const INNER = { id: 'inner', name: 'Inside', kind: 'cut' };

test('two cuts of one colour are read as one; one press gives the second its own', () => {
  const job = jobWith([worked('p0', 'cut'), worked('p1', 'inner')], { operations: [CUT, INNER] });
  expect(found(job).map((f) => [f.sentence, f.partId])).toEqual([
    ['Cut and Inside have the same colour in files: a machine reads them as one.', null],
  ]);
  const after = mended(job);
  expect(after.operations[0]?.colour).toBeNull();
  expect(after.operations[1]?.colour).toMatch(/^#[0-9A-F]{6}$/);
  expect(found(after)).toEqual([]);
});

test('an own colour that is another’s by the key counts, however it is written; what is off, unused or hidden does not', () => {
  const same = { ...INNER, colour: '#1a26af' };
  const job = jobWith([worked('p0', 'cut'), worked('p1', 'inner')], { operations: [CUT, same] });
  expect(found(job)).toHaveLength(1);
  expect(found({ ...job, colourKey: { ...job.colourKey, cut: '#000000' } })).toEqual([]);
  expect(found({ ...job, operations: job.operations.map((o) => ({ ...o, on: o.id === 'cut' })) })).toEqual([]);
  expect(found({ ...job, parts: job.parts.map((p) => ({ ...p, hidden: p.id === 'p1' })) })).toEqual([]);
});

test('of three alike each but the first is told, against the first', () => {
  const job = jobWith([worked('p0', 'cut'), worked('p1', 'inner'), worked('p2', 'third')], {
    operations: [CUT, INNER, { id: 'third', name: 'Third', kind: 'cut' }],
  });
  expect(found(job).map((f) => f.sentence.split(' have')[0])).toEqual(['Cut and Inside', 'Cut and Third']);
});

test('what is marked after the cut runs before it at a press', () => {
  const mark = { id: 'mark', name: 'Mark', kind: 'mark' };
  const job = jobWith([worked('p0', 'cut'), worked('p1', 'mark')], { operations: [INNER, CUT, mark] });
  expect(found(job)[0]?.sentence).toContain('Cut runs before Mark');
  const after = mended(job);
  expect(after.operations.map((o) => o.id)).toEqual(['inner', 'mark', 'cut']);
  expect(found(after)).toEqual([]);
});
