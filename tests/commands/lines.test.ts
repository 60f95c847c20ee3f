/** Middle lines and dots of a part, and which operation does what. */
import { describe, expect, test } from 'vitest';
import { giveWork, setCenterline, setDots, setDotsAlong } from '../../src/core/commands/lines';
import { setOverallWidth } from '../../src/core/commands/overall';
import type { Job } from '../../src/core/document/schema';
import { stepIn } from '../../src/core/kinds/steps';
import { partIn, rectangle } from '../support/commands';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const measure = { capHeightMm: 30, leastWidthMm: null, kerfMm: null };
const operation = (kind: string) => ({ id: kind, name: kind, kind });
const job = (kinds = ['cut', 'score', 'engrave', 'mark'], part: Draft = {}): Job =>
  jobWith(
    [
      partOf([rectangle('r', 20)], { id: 'other', work: [] }),
      partOf([lettering('Oak')], { work: [{ what: 'outline', operation: kinds[0] }], ...part }),
    ],
    {
      operations: kinds.map(operation),
    },
  );
const workOf = (j: Job, id = 'part') => partIn(j, id).work.map((w) => `${w.what} ${w.operation}`);

describe('a kind of work', () => {
  test('is given to an operation instead of another, or to none', () => {
    const given = giveWork(job(), 'part', 'fill', 'engrave');
    expect(workOf(given)).toEqual(['outline cut', 'fill engrave']);
    expect(workOf(giveWork(given, 'part', 'outline', 'score'))).toEqual(['fill engrave', 'outline score']);
    expect(workOf(giveWork(given, 'part', 'outline', undefined))).toEqual(['fill engrave']);
    expect(workOf(giveWork(given, 'part', 'outline', ''))).toEqual(['fill engrave']);
    expect(workOf(given, 'other')).toEqual([]);
    const before = job();
    expect(giveWork(before, 'gone', 'fill', 'engrave')).toBe(before);
  });
});

describe('the line down the middle', () => {
  test('takes the place of the outline, and gives it back to the operation that drew it', () => {
    const on = setCenterline(job(), 'part', true, measure);
    expect(workOf(on)).toEqual(['centerline mark']);
    expect(stepIn(partIn(on), 'centerline')?.on).toBe(true);
    const off = setCenterline(giveWork(on, 'part', 'centerline', 'score'), 'part', false, measure);
    expect(workOf(off)).toEqual(['outline score']);
    expect(stepIn(partIn(off), 'centerline')?.on).toBe(false);
    // An outline that is worked beside it stays as it is.
    expect(workOf(setCenterline(giveWork(on, 'part', 'outline', 'cut'), 'part', false, measure))).toEqual([
      'outline cut',
    ]);
    // Other work is no outline.
    expect(workOf(setCenterline(giveWork(on, 'part', 'fill', 'engrave'), 'part', false, measure))).toEqual([
      'fill engrave',
      'outline mark',
    ]);
    const before = job();
    expect(setCenterline(before, 'gone', true, measure)).toBe(before);
  });

  test('is marked, else scored, else done by what there is first', () => {
    expect(workOf(setCenterline(job(['cut', 'score']), 'part', true, measure))).toEqual(['centerline score']);
    expect(workOf(setCenterline(job(['cut', 'engrave']), 'part', true, measure))).toEqual(['centerline cut']);
    const none = jobWith([partOf([lettering('Oak')], { work: [] })], { operations: [] });
    expect(workOf(setCenterline(none, 'part', true, measure))).toEqual([]);
  });
});

describe('dots', () => {
  test('are set beside what else is worked, and no more', () => {
    const on = setDots(job(), 'part', true, measure);
    expect(workOf(on)).toEqual(['outline cut', 'dots mark']);
    expect(stepIn(partIn(on), 'dots')?.on).toBe(true);
    const off = setDots(on, 'part', false, measure);
    expect(workOf(off)).toEqual(['outline cut']);
    expect(stepIn(partIn(off), 'dots')?.on).toBe(false);
  });

  test('run along outlines, or down the middle, which then is found though it is not drawn', () => {
    const along = setDotsAlong(setDots(job(), 'part', true, measure), 'part', 'centerline', measure);
    expect(stepIn(partIn(along), 'dots')?.along).toBe('centerline');
    expect(stepIn(partIn(along), 'centerline')?.on).toBe(true);
    expect(workOf(along)).toEqual(['outline cut', 'dots mark']);
    const off = setCenterline(setCenterline(job(), 'part', true, measure), 'part', false, measure);
    expect(stepIn(partIn(setDotsAlong(off, 'part', 'centerline', measure)), 'centerline')?.on).toBe(true);
    const outline = setDotsAlong(setDots(job(), 'part', true, measure), 'part', 'outline', measure);
    expect(stepIn(partIn(outline), 'dots')?.along).toBe('outline');
    expect(stepIn(partIn(outline), 'centerline')).toBeUndefined();
  });
});

describe('an overall width', () => {
  test('is given, changed, and let go at the size that it made', () => {
    const before = job();
    const wide = setOverallWidth(before, 'part', 180, 1);
    expect(partIn(wide)).toMatchObject({ overallWidth: 180, members: [{ size: { mm: 30 } }] });
    expect(partIn(wide, 'other')).toBe(partIn(before, 'other'));
    expect(partIn(setOverallWidth(wide, 'part', 90, 2))).toMatchObject({
      overallWidth: 90,
      members: [{ size: { mm: 30 } }],
    });
    expect(partIn(setOverallWidth(wide, 'part', null, 2.5))).toMatchObject({
      overallWidth: null,
      members: [{ size: { mm: 75 } }],
    });
  });

  test('leaves what a shop has set as it is, and what is locked or not there', () => {
    const steps = [{ kind: 'weld' }, { kind: 'thicken', by: 1 }];
    const free = setOverallWidth(job(['cut'], { overallWidth: 50, steps }), 'part', null, 2);
    expect(stepIn(partIn(free), 'thicken')?.by).toBe(1);
    const before = job(['cut'], { overallWidth: 50, locked: true });
    expect(setOverallWidth(before, 'part', 70, 1)).toBe(before);
    expect(setOverallWidth(before, 'gone', 70, 1)).toBe(before);
    const same = job(['cut'], { overallWidth: 50 });
    expect(setOverallWidth(same, 'part', 50, 1)).toBe(same);
    const none = job();
    expect(setOverallWidth(none, 'part', null, 3)).toBe(none);
  });
});
