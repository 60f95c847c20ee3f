/** Parts worked on by hand: kept as they are, taken along, told when what they stand for has changed. */
import { expect, test } from 'vitest';
import { mirrorChosen, moveChosen, sizeChosen, turnChosen } from '../../src/core/commands/chosen';
import { leaveHandMade } from '../../src/core/commands/drawings';
import { setWords } from '../../src/core/commands/words';
import { checkJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { moveNodes } from '../../src/core/geometry/nodes';
import { pathData } from '../../src/core/geometry/path-data';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { drawingOf } from '../../src/core/job/export';
import { withStep } from '../../src/core/kinds/steps';
import { outlinesInHand } from '../../src/core/kinds/steps/nodes';
import { LIMITS } from '../../src/core/limits';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const run = (job: Job): JobResult => evaluator.evaluate(job, faces);
const areaOf = (result: JobResult) => result.parts[0]?.outlines.reduce((sum, o) => sum + o.area, 0) ?? 0;
const hands = (result: JobResult) => result.findings.filter((f) => f.code === 'hand-made').map((f) => f.severity);

/** The job with its part taken in hand, a node of its first path moved. */
function inHand(job: Job, moved = true): Job {
  const prepared = run(job).parts[0];
  const copy = structuredClone(job);
  const [part] = copy.parts;
  const step = prepared && outlinesInHand(prepared);
  if (!part || !step) throw new Error('nothing to take in hand');
  if (moved) {
    const paths = pathOf(step.d).paths.map((p, i) => (i === 0 ? moveNodes(p, new Set([0]), -5, 0) : p));
    step.d = pathData(paths, null, 6);
  }
  part.steps = withStep(part.steps, step);
  return copy;
}

const words = jobWith([partOf([lettering('Kale')])]);

test('taken in hand it is what it was, with the names of its letters, and says so', () => {
  const [before, after] = [run(words), run(inHand(words, false))];
  expect(areaOf(after)).toBeCloseTo(areaOf(before), 3);
  expect(after.parts[0]?.outlines.map((o) => o.path.segments.length)).toEqual(
    before.parts[0]?.outlines.map((o) => o.path.segments.length),
  );
  expect(
    after.findings
      .filter((f) => f.code === 'loose')
      .map((f) => f.sentence)
      .sort(),
  ).toEqual(
    before.findings
      .filter((f) => f.code === 'loose')
      .map((f) => f.sentence)
      .sort(),
  );
  expect(hands(after)).toEqual(['note']);
});

test('it goes along: moved, turned, sized, mirrored', () => {
  const job = inHand(words);
  const start = run(job);
  const part = { partIds: ['part'], memberId: null };
  const member = { partIds: ['part'], memberId: 'words' };
  for (const chosen of [part, member]) {
    const moved = moveChosen(job, chosen, 40, -7);
    expect(run(moved).parts[0]?.box.minX).toBeCloseTo((start.parts[0]?.box.minX ?? 0) + 40, 5);
    const sized = sizeChosen(moved, chosen, { factor: 2, about: { x: 0, y: 0 } });
    expect(areaOf(run(sized))).toBeCloseTo(4 * areaOf(start), 2);
    const turned = run(mirrorChosen(turnChosen(sized, chosen, 90, { x: 100, y: 100 }), chosen, 50));
    expect(areaOf(turned)).toBeCloseTo(4 * areaOf(start), 2);
    expect(hands(turned)).toEqual(['note']);
  }
});

test('other words or steps are told, and the way back gives them', () => {
  const old = areaOf(run(inHand(words)));
  const job = setWords(inHand(words), 'part', 'words', 'Beans');
  expect(hands(run(job))).toEqual(['caution']);
  expect(areaOf(run(job))).toBeCloseTo(old, 6);
  expect(areaOf(run(leaveHandMade(job, 'part')))).toBeCloseTo(areaOf(run(jobWith([partOf([lettering('Beans')])]))), 6);
  const thick = inHand(words);
  thick.parts[0]?.steps.unshift({ kind: 'thicken', on: true, by: 1, corners: 'round', holesOpen: null });
  expect(hands(run(thick))).toEqual(['caution']);
});

test('a stencil taken in hand keeps its bridges and is one piece', () => {
  const plate = jobWith([
    partOf([lettering('BO')], {
      keep: 'outside',
      steps: [{ kind: 'weld', on: true }, { kind: 'plate' }, { kind: 'bridge', width: 2 }],
    }),
  ]);
  const before = run(plate);
  const after = run(inHand(plate, false));
  expect(before.parts[0]?.pieces).toHaveLength(1);
  expect(after.parts[0]?.pieces).toHaveLength(1);
  expect(areaOf(after)).toBeCloseTo(areaOf(before), 2);
  expect(hands(after)).toEqual(['note']);
});

test('a drawn path: closed it is an area, open a line; it is placed, sized, and in files', () => {
  const path = (d: string, more = {}) =>
    jobWith([partOf([{ id: 'p', kind: 'path', placement: { x: 100, y: 50 }, d, ...more }])]);
  const closed = run(path('M0 0L10 0L10 10L0 10Z', { scale: 2 }));
  expect(areaOf(closed)).toBeCloseTo(400, 9);
  expect(closed.parts[0]?.box).toEqual({ minX: 100, minY: 50, maxX: 120, maxY: 70 });
  const job = path('M0 0C5 10 10 10 15 0');
  const open = run(job);
  expect(open.parts[0]?.openPaths).toHaveLength(1);
  expect(drawingOf(job, open)?.layers[0]?.drawn).toEqual([
    expect.objectContaining({ kind: 'polyline', geometry: expect.objectContaining({ closed: false }) }),
  ]);
  expect(open.findings.map((f) => f.sentence)).toContain(
    'A line does not close: it is cut as it is, and nothing comes off.',
  );
  // Drawn over itself it is one clean outline.
  expect(run(path('M0 0L10 10L10 0L0 10Z')).parts[0]?.outlines.every((o) => o.area > 0)).toBe(true);
  expect(run(path('nonsense')).findings.map((f) => f.code)).toContain('empty-part');
  const long = (n: number) =>
    checkJob({
      ...jobWith([]),
      parts: [partOf([{ id: 'p', kind: 'path', placement: { x: 0, y: 0 }, d: 'M'.repeat(n) }])],
    }).ok;
  expect([long(LIMITS.pathCharacters), long(LIMITS.pathCharacters + 1)]).toEqual([true, false]);
});
