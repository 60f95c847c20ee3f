/** Rules: each has a name of its own, and what it finds is mended in one press as it says. */
import { describe, expect, test } from 'vitest';
import { type Job, jobSchema } from '../../src/core/document/schema';
import type { Finding } from '../../src/core/inspect/finding';
import { Evaluator } from '../../src/core/job/evaluate';
import { stepIn } from '../../src/core/kinds/steps';
import { mendingOf } from '../../src/core/rules/mend';
import type { Seen } from '../../src/core/rules/rule';
import { JOB_RULES, MENDS, PART_RULES } from '../../src/core/rules/rules';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const measure = { capHeightMm: 30, leastWidthMm: null, kerfMm: null };
const seen: Seen = {
  middleOf: () => ({ x: 0, y: 0 }),
  capHeightOf: () => 30,
  bridgesOf: () => ({ bridges: [], keys: [], measure }),
};
const evaluator = new Evaluator(wasmEngine);
const findings = (job: Job) => evaluator.evaluate(job, faces).findings;

/** The job after the first finding of a code was mended, and the findings of that code left. */
function mended(job: Job, code: string): { readonly job: Job; readonly words: string; readonly left: Finding[] } {
  const finding = findings(job).find((f) => f.code === code);
  const mending = finding && mendingOf(job, finding);
  if (!mending || !('run' in mending)) throw new Error(`${code} is not mended in one press`);
  const after = mending.run(job, seen);
  expect(jobSchema.safeParse(after).success).toBe(true);
  return { job: after, words: mending.words, left: findings(after).filter((f) => f.code === code) };
}

const plate: Draft = {
  id: 'plate',
  kind: 'rectangle',
  placement: { x: 100, y: 100 },
  width: 150,
  height: 90,
};

test('codes are told apart, and every rule says how grave and where', () => {
  const rules = [
    ...JOB_RULES,
    ...PART_RULES.flatMap((of): readonly { code: string; severity: string; station: string }[] => of.rules),
  ];
  expect(new Set(rules.map((r) => r.code)).size).toBe(rules.length);
  expect(rules.length).toBeGreaterThan(45);
  for (const { code, severity, station } of rules) {
    expect(code).toMatch(/^[a-z]+(-[a-z]+)*$/);
    expect(['fault', 'caution', 'note']).toContain(severity);
    expect(['compose', 'close', 'hold', 'fill', 'assign', 'prove']).toContain(station);
  }
});

describe('mended in one press', () => {
  test('an island is bridged', () => {
    const done = mended(jobWith([partOf([lettering('O')], { keep: 'outside' })]), 'island');
    expect([done.words, done.left]).toEqual(['Bridge it', []]);
  });

  test('swallowed words are cut out', () => {
    const done = mended(
      jobWith([partOf([plate, lettering('HOE', 'Archivo Black', { placement: { x: 100, y: 100 } })])]),
      'swallowed',
    );
    expect([done.words, done.left]).toEqual(['Cut it out instead', []]);
  });

  test('what lines miss is filled', () => {
    const fill = { kind: 'hatch', tool: { shape: 'line', tip: 2 }, overlap: 0, outline: 'none' };
    const part = partOf([lettering('Sage')], { steps: [fill], work: [{ what: 'hatch', operation: 'engrave' }] });
    const done = mended(jobWith([part]), 'missed');
    expect(done.words).toBe('Fill the rest');
    expect(done.job.parts[0] && stepIn(done.job.parts[0], 'hatch')?.fillMissed).toBe(true);
    expect(done.left).toEqual([]);
  });

  test('outlines worked on by hand are left for the words and steps', () => {
    const nodes = { kind: 'nodes', d: 'M0 0L10 0L10 10Z', unit: 30, over: { segments: 9, area: 1, length: 1 } };
    const done = mended(jobWith([partOf([lettering('I')], { steps: [{ kind: 'weld' }, nodes] })]), 'hand-made');
    expect(done.words).toBe('Back to the words and steps');
    expect(done.job.parts[0]?.steps.map((s) => s.kind)).toEqual(['weld']);
    expect(done.left).toEqual([]);
  });

  test('letters too close in a stencil are spaced', () => {
    const part = partOf([lettering('HH', 'Archivo Black', { letterSpacing: -0.13 })], { keep: 'outside' });
    const job = jobWith([part], { sheet: { width: 400, height: 300, leastWidth: 3 } });
    const done = mended(job, 'thin');
    expect(done.words).toBe('Space the letters');
    expect(done.job.parts[0]?.members[0]).toMatchObject({ letterSpacing: expect.any(Number) });
    expect(done.job).not.toBe(job);
  });

  test('a part filled over is cut out of the one around it', () => {
    const work = [{ what: 'fill', operation: 'engrave' }];
    const inner = partOf([{ ...plate, id: 'small', width: 20, height: 20 }], { id: 'inner', work });
    const done = mended(jobWith([partOf([plate], { id: 'outer', work }), inner]), 'filled-over');
    expect([done.words, done.left]).toEqual(['Cut it out of the other', []]);
  });
});

test('lines are mended by hand, on the letter they are of', () => {
  const finding = { code: 'uneven-line', partId: 'part', mend: { letter: 'words:0' } } as unknown as Finding;
  const job = jobWith([partOf([lettering('x')])]);
  expect(mendingOf(job, finding)).toEqual({
    words: 'Mend its lines',
    byHand: 'lines',
    partId: 'part',
    letter: 'words:0',
  });
});

test('nothing is offered where the part is locked or gone, or there is nothing to mend it with', () => {
  const job = jobWith([partOf([lettering('x')], { locked: true })]);
  const finding = { code: 'island', partId: 'part', mend: { letter: 'words:0', island: 0 } } as unknown as Finding;
  expect(mendingOf(job, finding)).toBeNull();
  expect(mendingOf({ ...job, parts: [] }, finding)).toBeNull();
  expect(mendingOf(jobWith([partOf([])]), { ...finding, mend: null })).toBeNull();
  expect(mendingOf(jobWith([partOf([])]), { ...finding, code: 'overlaps' })).toBeNull();
  const mended = [
    'filled-over',
    'gap',
    'hand-made',
    'island',
    'missed',
    'more-missed',
    'swallowed',
    'thin',
    'uneven-line',
  ];
  expect([...MENDS.keys()]).toEqual(expect.arrayContaining(mended));
});
