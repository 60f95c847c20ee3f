/** Letters one by one, room between them, and another typeface. */
import { describe, expect, test } from 'vitest';
import { setFace } from '../../src/core/commands/faces';
import { letterChange, nudgeLetters, settleLetters, spaceLetters } from '../../src/core/commands/letters';
import type { Job } from '../../src/core/document/schema';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { partIn, rectangle, viewed, wordsIn } from '../support/commands';
import { jobWith, lettering, partOf } from '../support/jobs';

/** What the first member of the first part was computed to. */
const seen = (job: Job) => {
  const member = viewed(job).parts[0]?.members[0];
  if (!member) throw new Error('nothing to see');
  return member;
};

describe('letters one by one', () => {
  test('what changes nothing is not kept, the rest is rounded', () => {
    const words = structuredClone(wordsIn(jobWith([partOf([lettering('Lane')])])));
    const change = letterChange(words, 2);
    expect(change).toEqual({ at: 2, dx: 0, dy: 0, turn: 0, scale: 1, form: null });
    expect(letterChange(words, 2)).toBe(change);
    letterChange(words, 0).dx = 0.12345678;
    letterChange(words, 1).dy = 1e-9;
    letterChange(words, 3).turn = 12.3456;
    change.scale = 1.23456;
    settleLetters(words);
    expect(words.letters).toEqual([
      { at: 2, dx: 0, dy: 0, turn: 0, scale: 1.2346, form: null },
      { at: 0, dx: 0.123457, dy: 0, turn: 0, scale: 1, form: null },
      { at: 3, dx: 0, dy: 0, turn: 12.35, scale: 1, form: null },
    ]);
    letterChange(words, 1).dy = 0.5;
    settleLetters(words);
    expect(words.letters.map((c) => c.at)).toEqual([2, 0, 3, 1]);
  });

  test.each([
    ['level', { turn: 0, mirror: false }],
    ['turned', { turn: 90, mirror: false }],
    ['turned and mirrored', { turn: 30, mirror: true }],
  ])('%s lettering: picked letters move by mm on the sheet', (_, place) => {
    let job = jobWith([partOf([lettering('HIH', 'Archivo Black', { placement: { x: 150, y: 100, ...place } })])]);
    const cornersAt = (j: Job, start: number) =>
      viewed(j).parts[0]?.members[0]?.picks.find((p) => p.start === start)?.corners[0] as { x: number; y: number };
    const before = cornersAt(job, 1);
    job = nudgeLetters(job, 'part', { memberId: 'words', picked: [1], dx: 3, dy: -4, seen: seen(job) });
    expect(wordsIn(job).letters).toHaveLength(1);
    expect(cornersAt(job, 1).x).toBeCloseTo(before.x + 3, 3);
    expect(cornersAt(job, 1).y).toBeCloseTo(before.y - 4, 3);
    job = nudgeLetters(job, 'part', { memberId: 'words', picked: [1], dx: 3, dy: -4, seen: seen(job) });
    expect(cornersAt(job, 1).x).toBeCloseTo(before.x + 6, 3);
    job = nudgeLetters(job, 'part', { memberId: 'words', picked: [1], dx: -6, dy: 8, seen: seen(job) });
    expect(wordsIn(job).letters.every((c) => Math.hypot(c.dx, c.dy) < 1e-5)).toBe(true);
  });

  test('of a lettering that is not drawn, locked or not there, nothing moves', () => {
    const job = jobWith([
      partOf([lettering('Lane'), rectangle('r', 20)]),
      partOf([lettering('Lane')], { id: 'locked', locked: true }),
    ]);
    expect(
      nudgeLetters(job, 'part', {
        memberId: 'words',
        picked: [0],
        dx: 3,
        dy: 4,
        seen: { ...seen(job), capHeightMm: null },
      }),
    ).toBe(job);
    for (const [part, member] of [
      ['part', 'gone'],
      ['part', 'r'],
      ['gone', 'words'],
      ['locked', 'words'],
    ] as const)
      expect(nudgeLetters(job, part, { memberId: member, picked: [0], dx: 3, dy: 4, seen: seen(job) })).toBe(job);
  });

  test('more room between letters is at least what was asked, and not past what a document holds', () => {
    let job = jobWith([partOf([lettering('Lane')])]);
    job = spaceLetters(job, 'part', { memberId: 'words', byMm: 1.5, capHeightMm: 30 });
    expect(wordsIn(job).letterSpacing).toBeGreaterThanOrEqual(1.5 / 30);
    expect(wordsIn(job).letterSpacing).toBeLessThan(1.5 / 30 + 0.003);
    job = spaceLetters(job, 'part', { memberId: 'words', byMm: 1e6, capHeightMm: 30 });
    expect(wordsIn(job).letterSpacing).toBe(10);
    for (const capital of [null, undefined])
      expect(spaceLetters(job, 'part', { memberId: 'words', byMm: -1, capHeightMm: capital })).toBe(job);
    expect(wordsIn(job).letterSpacing).toBe(10);
  });
});

/** A face that ships, as the list of typefaces names it. */
const shipped = (family: string) => ({
  ...faceOfFamily(family),
  isLine: /^(hershey|ems)/i.test(family),
});

describe('another typeface', () => {
  test('a face of a file is named by its content, and lines of a file are marked too', () => {
    const content = 'a'.repeat(64);
    const one = { ...faceOfFamily('Scribe'), content, number: 1, style: 'Thin', axes: { wght: 250 } };
    let job = jobWith([partOf([lettering('Lane')])]);
    job = setFace(job, { partId: 'part', memberId: 'words', lines: null }, { ...one, isLine: true });
    expect(wordsIn(job)).toMatchObject(one);
    expect(wordsIn(job)).not.toHaveProperty('isLine');
    expect(partIn(job).work).toEqual([{ what: 'outline', operation: 'mark', only: null }]);
  });

  test('a part of nothing but lines is marked, and cut again when it has outlines', () => {
    let job = jobWith([
      partOf([lettering('Lane')], {
        work: [
          { what: 'outline', operation: 'cut', only: null },
          { what: 'fill', operation: 'engrave', only: null },
        ],
      }),
    ]);
    job = setFace(job, { partId: 'part', memberId: 'words', lines: null }, shipped('Pacifico'));
    expect(partIn(job).work[0]).toEqual({ what: 'outline', operation: 'cut', only: null });
    job = setFace(job, { partId: 'part', memberId: 'words', lines: null }, shipped('hershey sans'));
    expect(wordsIn(job).face).toBe('hershey sans');
    expect(partIn(job).work).toEqual([
      { what: 'outline', operation: 'mark', only: null },
      { what: 'fill', operation: 'engrave', only: null },
    ]);
    job = setFace(job, { partId: 'part', memberId: 'words', lines: null }, shipped('EMS Tech'));
    expect(partIn(job).work[0]).toEqual({ what: 'outline', operation: 'mark', only: null });
    job = setFace(job, { partId: 'part', memberId: 'words', lines: null }, shipped('Poppins'));
    expect(partIn(job).work[0]).toEqual({ what: 'outline', operation: 'cut', only: null });
  });

  test('with a shape beside the words, or without an operation to go to, the work stays', () => {
    let job = jobWith([partOf([lettering('Lane'), rectangle('r', 50)])]);
    job = setFace(job, { partId: 'part', memberId: 'words', lines: null }, shipped('Hershey Sans'));
    expect(partIn(job).work).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
    let only = jobWith([partOf([lettering('Lane')])], { operations: [{ id: 'cut', name: 'Cut', kind: 'cut' }] });
    only = setFace(only, { partId: 'part', memberId: 'words', lines: null }, shipped('Hershey Sans'));
    expect(partIn(only).work).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
    job = setFace(job, { partId: 'part', memberId: 'r', lines: null }, shipped('Poppins'));
    job = setFace(job, { partId: 'gone', memberId: 'words', lines: null }, shipped('Poppins'));
    expect(wordsIn(job).face).toBe('Hershey Sans');
  });
});
