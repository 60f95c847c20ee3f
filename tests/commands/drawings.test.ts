/** Gaps of drawings answered one by one; outlines worked on by hand left. */
import { describe, expect, test } from 'vitest';
import { memberOf } from '../../src/core/commands/changed';
import { answerGap, forgetGap, leaveHandMade } from '../../src/core/commands/drawings';
import type { Artwork, Job } from '../../src/core/document/schema';
import { LIMITS } from '../../src/core/limits';
import { partIn } from '../support/commands';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

describe('gaps of a drawing', () => {
  const drawn = (more: Draft = {}) =>
    jobWith([
      partOf([
        { id: 'art', kind: 'artwork', placement: { x: 0, y: 0 }, drawing: '0'.repeat(64), ...more },
        lettering('Lane'),
      ]),
    ]);
  const answers = (job: Job) => (memberOf(job, 'part', 'art') as Artwork).close.answers;

  test('are answered once each, the last answer counts, and taken back', () => {
    let job = drawn();
    job = answerGap(job, 'part', { memberId: 'art', gap: 'a', how: 'close' });
    job = answerGap(job, 'part', { memberId: 'art', gap: 'b', how: 'leave' });
    job = answerGap(job, 'part', { memberId: 'art', gap: 'a', how: 'leave' });
    expect(answers(job)).toEqual([
      { gap: 'b', how: 'leave' },
      { gap: 'a', how: 'leave' },
    ]);
    job = forgetGap(job, 'part', 'art', 'b');
    job = forgetGap(job, 'part', 'art', 'gone');
    expect(answers(job)).toEqual([{ gap: 'a', how: 'leave' }]);
    job = answerGap(job, 'part', { memberId: 'words', gap: 'a', how: 'close' });
    job = forgetGap(job, 'part', 'words', 'a');
    expect(answers(job)).toHaveLength(1);
  });

  test('are answered as many as a document holds', () => {
    const known = Array.from({ length: LIMITS.gapAnswers - 1 }, (_, i) => ({ gap: `gap ${i}`, how: 'close' }));
    let job = drawn({ close: { answers: known } });
    for (const gap of ['last', 'too many', 'far too many'])
      job = answerGap(job, 'part', { memberId: 'art', gap, how: 'close' });
    expect(answers(job)).toHaveLength(LIMITS.gapAnswers);
    expect(answers(job).at(-1)?.gap).toBe('last');
    job = answerGap(job, 'part', { memberId: 'art', gap: 'gap 3', how: 'leave' });
    expect(answers(job)).toHaveLength(LIMITS.gapAnswers);
    expect(answers(job).at(-1)).toEqual({ gap: 'gap 3', how: 'leave' });
  });
});

test('outlines worked on by hand give way to what the steps give', () => {
  const job = jobWith([
    partOf([lettering('Lane')], {
      steps: [
        { kind: 'weld' },
        { kind: 'nodes', d: 'M0 0L1 0L1 1Z', unit: 1, over: { segments: 1, area: 1, length: 1 } },
      ],
    }),
  ]);
  expect(leaveHandMade(job, 'gone')).toBe(job);
  expect(partIn(leaveHandMade(job, 'part')).steps.map((s) => s.kind)).toEqual(['weld']);
});
