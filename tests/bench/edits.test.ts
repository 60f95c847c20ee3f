/** Changes a user makes to a job: each does just what it says, and says so when it can't. */
import { describe, expect, test } from 'vitest';
import {
  addBorder,
  addMember,
  addPart,
  answerGap,
  backingUse,
  cornersOf,
  duplicatePart,
  editStep,
  forgetGap,
  freeId,
  groupParts,
  leaveHandMade,
  letterChange,
  measureOf,
  memberOf,
  moveEntry,
  moveWholePart,
  nudgeLetters,
  removeMember,
  setBackingUse,
  setFace,
  setFollows,
  settleLetters,
  spaceLetters,
  splitInPlace,
  takeIn,
} from '../../src/bench/edits';
import { partWords } from '../../src/bench/part-words';
import type { Artwork, Copy, Job, Lettering, Part } from '../../src/core/document/schema';
import { boxCentre, boxHeight } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { stepIn } from '../../src/core/job/steps';
import { LIMITS } from '../../src/core/limits';
import { type JobView, viewOf } from '../../src/worker/view';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const rectangle = (id: string, x: number, more: Draft = {}): Draft => ({
  id,
  kind: 'rectangle',
  placement: { x, y: 100 },
  width: 20,
  height: 10,
  ...more,
});
const viewed = (job: Job): JobView => viewOf(new Evaluator(wasmEngine).evaluate(job, faces));
const partIn = (job: Job, id = 'part'): Part => {
  const part = job.parts.find((p) => p.id === id);
  if (!part) throw new Error(`no part ${id}`);
  return part;
};
const wordsIn = (job: Job, id = 'part'): Lettering => {
  const member = partIn(job, id).members.find((m): m is Lettering => m.kind === 'lettering');
  if (!member) throw new Error('no words');
  return member;
};
const boxOf = (job: Job, id: string) => {
  const box = viewed(job).parts.find((p) => p.id === id)?.box;
  if (!box) throw new Error(`no box of ${id}`);
  return box;
};

describe('new things', () => {
  test('get an id nothing else has: no part, member or operation, nor one given out before', () => {
    const job = jobWith([partOf([{ ...lettering('a'), id: 'thing-1' }], { id: 'thing-2', work: [] })], {
      operations: [{ id: 'thing-3', name: 'Cut', kind: 'cut' }],
    });
    expect(freeId(job, 'thing')).toBe('thing-4');
    expect(freeId(job, 'thing', ['thing-4', 'thing-6'])).toBe('thing-5');
    expect(freeId(job, 'other')).toBe('other-1');
  });

  test('a part with words, a shape or a copy, at the end', () => {
    const job = jobWith([partOf([lettering('Lane')])]);
    const words = addPart(job, 'lettering');
    const heart = addPart(job, 'heart');
    const copy = addPart(job, { copyOf: 'part' });
    expect(job.parts.map((p) => p.id)).toEqual(['part', words.partId, heart.partId, copy.partId]);
    expect(job.parts.map((p) => p.members.map((m) => m.kind))).toEqual([
      ['lettering'],
      ['lettering'],
      ['heart'],
      ['copy'],
    ]);
    expect(memberOf(job, copy.partId, copy.memberId)).toMatchObject({ kind: 'copy', of: 'part' });
    expect(wordsIn(job, words.partId).text).toBe('');
    expect(new Set(job.parts.flatMap((p) => p.members.map((m) => m.id))).size).toBe(4);
  });

  test('a member at the end of its part, where the part is', () => {
    const job = jobWith([partOf([lettering('Lane')])]);
    const id = addMember(job, 'part', 'star', { x: 12.34567, y: -3.21 });
    expect(partIn(job).members.map((m) => m.id)).toEqual(['words', id]);
    expect(memberOf(job, 'part', id)?.placement).toMatchObject({ x: 12.346, y: -3.21 });
    const free = addMember(job, 'part', 'bar', null);
    expect(memberOf(job, 'part', free)?.placement).toMatchObject({ x: 150, y: 100 });
    expect(addMember(job, 'gone', 'star', null)).toBeNull();
    expect([memberOf(job, null, 'words'), memberOf(job, 'part', null)]).toEqual([undefined, undefined]);
  });

  test('first values are made from the largest capital, or a third of the height', () => {
    const job = jobWith(
      [
        partOf([lettering('Lane'), { ...lettering('Lane', 'Poppins', { size: { by: 'capital', mm: 40 } }), id: 'b' }]),
        partOf([rectangle('r', 50, { height: 30 })], { id: 'shape' }),
      ],
      { sheet: { width: 300, height: 200, leastWidth: 1.5, kerf: 0.2 } },
    );
    const view = viewed(job);
    expect(measureOf(job, view.parts[0])).toEqual({ capHeightMm: 40, leastWidthMm: 1.5, kerfMm: 0.2 });
    expect(measureOf(job, view.parts[1])?.capHeightMm).toBeCloseTo(10, 6);
    expect(measureOf(job, undefined).capHeightMm).toBe(10);
  });

  test('a step is put in with first values, or changed, at its place in the order', () => {
    const job = jobWith([partOf([lettering('Lane')], { steps: [{ kind: 'weld' }, { kind: 'bridge' }] })]);
    const measure = { capHeightMm: 30, leastWidthMm: null, kerfMm: null };
    editStep(job, 'part', 'thicken', measure, (step) => {
      step.corners = 'mitre';
    });
    expect(partIn(job).steps.map((s) => s.kind)).toEqual(['weld', 'thicken', 'bridge']);
    expect(stepIn(partIn(job), 'thicken')).toMatchObject({ on: true, by: 0.3, corners: 'mitre' });
    editStep(job, 'part', 'thicken', measure, (step) => {
      step.by = 1;
    });
    expect(partIn(job).steps).toHaveLength(3);
    expect(stepIn(partIn(job), 'thicken')).toMatchObject({ by: 1, corners: 'mitre' });
    editStep(job, 'gone', 'thicken', measure, () => {
      throw new Error('no part to change');
    });
  });
});

describe('taking out', () => {
  test('a member, and with the last one its part', () => {
    const job = jobWith([
      partOf([lettering('Lane'), rectangle('r', 50)]),
      partOf([rectangle('r', 90)], { id: 'other' }),
    ]);
    removeMember(job, 'part', 'words');
    expect(partIn(job).members.map((m) => m.id)).toEqual(['r']);
    removeMember(job, 'gone', 'r');
    removeMember(job, 'part', 'gone');
    expect(job.parts).toHaveLength(2);
    removeMember(job, 'part', 'r');
    expect(job.parts.map((p) => p.id)).toEqual(['other']);
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
    leaveHandMade(job, 'gone');
    expect(partIn(job).steps).toHaveLength(2);
    leaveHandMade(job, 'part');
    expect(partIn(job).steps.map((s) => s.kind)).toEqual(['weld']);
  });
});

test('an entry of a list goes to another place, the others keep their order', () => {
  const list = ['a', 'b', 'c', 'd'];
  moveEntry(list, 0, 2);
  expect(list).toEqual(['b', 'c', 'a', 'd']);
  moveEntry(list, 3, 0);
  expect(list).toEqual(['d', 'b', 'c', 'a']);
});

describe('moving a whole part', () => {
  const job = () =>
    jobWith([
      partOf([lettering('Lane'), rectangle('r', 50)]),
      partOf([{ id: 'c', kind: 'copy', of: 'part', follows: true, placement: { x: 1, y: 2 } }, rectangle('s', 70)], {
        id: 'around',
      }),
      partOf([rectangle('r', 90)], { id: 'locked', locked: true }),
    ]);

  test('moves every member, straight up too', () => {
    const moved = job();
    moveWholePart(moved, 'part', 0, 7);
    moveWholePart(moved, 'part', -3, 0);
    expect(partIn(moved).members.map((m) => [m.placement.x, m.placement.y])).toEqual([
      [147, 107],
      [47, 107],
    ]);
  });

  test('leaves what goes along with another part to that, and what is locked', () => {
    const moved = job();
    moveWholePart(moved, 'around', 5, 5);
    expect(partIn(moved, 'around').members.map((m) => [m.placement.x, m.placement.y])).toEqual([
      [1, 2],
      [75, 105],
    ]);
    moveWholePart(moved, 'locked', 5, 5);
    moveWholePart(moved, 'gone', 5, 5);
    expect(partIn(moved, 'locked')).toEqual(partIn(job(), 'locked'));
  });

  test('in many small moves comes to a readable sum', () => {
    const moved = job();
    for (let i = 0; i < 10; i++) moveWholePart(moved, 'part', 0.1, 0.1);
    expect(partIn(moved).members[0]?.placement).toMatchObject({ x: 151, y: 101 });
  });
});

describe('a border', () => {
  const words = () =>
    jobWith([partOf([lettering('Lane')], { name: 'Lane sign' }), partOf([rectangle('r', 20)], { id: 'last' })]);

  test('is a part after what it goes around, goes along with it, and is cut; the words are engraved', () => {
    const job = words();
    const made = addBorder(job, 'part', viewed(job));
    expect(job.parts.map((p) => p.id)).toEqual(['part', made?.partId, 'last']);
    const border = partIn(job, made?.partId);
    expect(border.name).toBe('Border of Lane sign');
    expect(border.members).toEqual([
      expect.objectContaining({
        kind: 'copy',
        of: 'part',
        follows: true,
        placement: { x: 0, y: 0, turn: 0, mirror: false },
      }),
    ]);
    expect(made?.memberId).toBe(border.members[0]?.id);
    // A quarter of the capital height.
    expect(stepIn(border, 'border')).toMatchObject({ on: true, distance: 7.5 });
    expect(border.work).toEqual([{ what: 'outline', operation: 'cut' }]);
    expect(partIn(job).work).toEqual([{ what: 'fill', operation: 'engrave' }]);
    expect(backingUse(job, border)).toBe('engraved');
    expect(addBorder(job, 'gone', null)).toBeNull();
  });

  test('to glue on lies below the words, which are cut; engraved again it is around them', () => {
    const job = words();
    const { partId } = addBorder(job, 'part', viewed(job)) as { partId: string };
    partIn(job).work.push({ what: 'dots', operation: 'mark' });
    setBackingUse(job, partId, 'glued', viewed(job));
    expect(backingUse(job, partIn(job, partId))).toBe('glued');
    expect(partIn(job).work).toEqual([
      { what: 'dots', operation: 'mark' },
      { what: 'outline', operation: 'cut' },
    ]);
    const [own, backing] = [boxOf(job, 'part'), boxOf(job, partId)];
    expect(own.minY - backing.maxY).toBeCloseTo(5, 2);
    expect(boxCentre(backing).x).toBeCloseTo(boxCentre(own).x, 2);
    // Asked for again, it stays where it is.
    const before = structuredClone(partIn(job, partId));
    setBackingUse(job, partId, 'glued', viewed(job));
    expect(partIn(job, partId)).toEqual(before);
    setBackingUse(job, partId, 'engraved', viewed(job));
    expect(boxCentre(boxOf(job, partId)).y).toBeCloseTo(boxCentre(own).y, 2);
    expect(backingUse(job, partIn(job, partId))).toBe('engraved');
  });

  test('before it has been drawn is laid below by its distance', () => {
    const job = words();
    const view = viewed(job);
    const { partId } = addBorder(job, 'part', view) as { partId: string };
    setBackingUse(job, partId, 'glued', view);
    const own = boxOf(job, 'part');
    expect((partIn(job, partId).members[0] as Copy).placement).toMatchObject({
      x: Math.round(boxCentre(own).x * 1e3) / 1e3,
      y: Math.round((own.minY - 5 - boxHeight(own) / 2 - 7.5) * 1e3) / 1e3,
    });
  });

  test('is asked of nothing that is no border', () => {
    const job = words();
    expect(backingUse(job, partIn(job))).toBeNull();
    const copy = addPart(job, { copyOf: 'part' });
    expect(backingUse(job, partIn(job, copy.partId))).toBeNull();
    const before = structuredClone(job);
    setBackingUse(job, 'part', 'glued', null);
    setBackingUse(job, 'gone', 'glued', null);
    expect(job).toEqual(before);
  });
});

test('a copy that is to go along, or to stay, does not move by that', () => {
  const job = jobWith([
    partOf([lettering('Lane')]),
    partOf([{ id: 'c', kind: 'copy', of: 'part', placement: { x: 70, y: 40 } }], { id: 'copied' }),
  ]);
  const before = boxOf(job, 'copied');
  const copy = memberOf(job, 'copied', 'c') as Copy;
  for (const follows of [true, true, false, false]) {
    setFollows(job, 'copied', 'c', follows, viewed(job));
    expect(copy.follows).toBe(follows);
    expect(boxCentre(boxOf(job, 'copied')).x).toBeCloseTo(boxCentre(before).x, 6);
    expect(boxCentre(boxOf(job, 'copied')).y).toBeCloseTo(boxCentre(before).y, 6);
  }
  setFollows(job, 'part', 'words', true, null);
  expect(wordsIn(job)).not.toHaveProperty('follows');
});

describe('apart and together', () => {
  test('a part is taken apart where it stands in the list', () => {
    const job = jobWith([
      partOf([rectangle('r', 20)], { id: 'first' }),
      partOf([lettering('Lane'), rectangle('r', 50)]),
      partOf([rectangle('r', 90)], { id: 'last' }),
    ]);
    expect(splitInPlace(job, 'part')).toBeNull();
    expect(job.parts.map((p) => p.members.map((m) => m.id).join())).toEqual(['r', 'words', 'r', 'r']);
    expect(new Set(job.parts.map((p) => p.id)).size).toBe(4);
    expect(job.parts[1]?.id).toBe('part');
    expect(splitInPlace(job, 'gone')).toBeNull();
  });

  test('one that is copied stays whole, and says by whom', () => {
    const job = jobWith([
      partOf([lettering('Lane'), rectangle('r', 50)]),
      partOf([{ id: 'c', kind: 'copy', of: 'part', placement: { x: 0, y: 0 } }], { id: 'copied', name: 'Backing' }),
    ]);
    expect(splitInPlace(job, 'part')).toBe('Backing copies it; taken apart, only the first piece would be copied.');
    expect(job.parts).toHaveLength(2);
  });

  test('parts are put into the first; what can’t be leaves all as it was', () => {
    const parts = () => [
      partOf([lettering('Lane')], { id: 'a' }),
      partOf([rectangle('words', 50)], { id: 'b' }),
      partOf([rectangle('r', 90)], { id: 'c', keep: 'outside' }),
    ];
    const job = jobWith(parts());
    expect(groupParts(job, ['a', 'b'])).toBeNull();
    expect(job.parts.map((p) => p.id)).toEqual(['a', 'c']);
    // Names both had are told apart.
    expect(new Set(partIn(job, 'a').members.map((m) => m.id)).size).toBe(2);
    const whole = jobWith(parts());
    expect(groupParts(whole, ['a', 'b', 'c'])).toMatch(/One part is the shape/);
    expect(whole).toEqual(jobWith(parts()));
    expect(groupParts(whole, [])).toBeNull();
    expect(takeIn(whole, 'a', 'a')).toBeNull();
    expect(takeIn(whole, 'a', 'gone')).toBeNull();
    expect(whole).toEqual(jobWith(parts()));
  });

  test('a copy lies beside, is free to move, and comes next in the list', () => {
    const job = jobWith([
      partOf([lettering('Lane')], { id: 'part-1', name: 'Sign', locked: true }),
      partOf([rectangle('r', 90)], { id: 'last' }),
    ]);
    expect(duplicatePart(job, 'part-1')).toBe('part-2');
    expect(job.parts.map((p) => p.id)).toEqual(['part-1', 'part-2', 'last']);
    expect(partIn(job, 'part-2')).toMatchObject({ locked: false, name: 'Sign copy' });
    expect(partIn(job, 'part-2').members[0]?.placement).toMatchObject({ x: 160, y: 90 });
    expect(partIn(job, 'part-1').members[0]?.placement).toMatchObject({ x: 150, y: 100 });
    expect(duplicatePart(job, 'gone')).toBeNull();
    partIn(job, 'last').name = '';
    expect(partIn(job, duplicatePart(job, 'last') ?? '').name).toBe('');
  });
});

describe('letters one by one', () => {
  test('what changes nothing is not kept, the rest is rounded', () => {
    const words = wordsIn(jobWith([partOf([lettering('Lane')])]));
    const change = letterChange(words, 2);
    expect(change).toEqual({ at: 2, dx: 0, dy: 0, turn: 0, scale: 1 });
    expect(letterChange(words, 2)).toBe(change);
    letterChange(words, 0).dx = 0.12345678;
    letterChange(words, 1).dy = 1e-9;
    letterChange(words, 3).turn = 12.3456;
    change.scale = 1.23456;
    settleLetters(words);
    expect(words.letters).toEqual([
      { at: 2, dx: 0, dy: 0, turn: 0, scale: 1.2346 },
      { at: 0, dx: 0.123457, dy: 0, turn: 0, scale: 1 },
      { at: 3, dx: 0, dy: 0, turn: 12.35, scale: 1 },
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
    const job = jobWith([partOf([lettering('HIH', 'Archivo Black', { placement: { x: 150, y: 100, ...place } })])]);
    const cornersAt = (j: Job, start: number) =>
      viewed(j).parts[0]?.members[0]?.picks.find((p) => p.start === start)?.corners[0] as { x: number; y: number };
    const before = cornersAt(job, 1);
    nudgeLetters(wordsIn(job), [1], 3, -4, viewed(job));
    expect(wordsIn(job).letters).toHaveLength(1);
    expect(cornersAt(job, 1).x).toBeCloseTo(before.x + 3, 3);
    expect(cornersAt(job, 1).y).toBeCloseTo(before.y - 4, 3);
    nudgeLetters(wordsIn(job), [1], 3, -4, viewed(job));
    expect(cornersAt(job, 1).x).toBeCloseTo(before.x + 6, 3);
    nudgeLetters(wordsIn(job), [1], -6, 8, viewed(job));
    expect(wordsIn(job).letters.every((c) => Math.hypot(c.dx, c.dy) < 1e-5)).toBe(true);
  });

  test('without a view, or of a lettering that is not drawn, nothing moves', () => {
    const job = jobWith([partOf([lettering('Lane')])]);
    nudgeLetters(wordsIn(job), [0], 3, 4, null);
    nudgeLetters({ ...wordsIn(job), id: 'gone' }, [0], 3, 4, viewed(job));
    expect(wordsIn(job).letters).toEqual([]);
  });

  test('more room between letters is at least what was asked, and not past what a document holds', () => {
    const job = jobWith([partOf([lettering('Lane')])]);
    const view = viewed(job);
    spaceLetters(job, 'part', 'words', 1.5, view);
    expect(wordsIn(job).letterSpacing).toBeGreaterThanOrEqual(1.5 / 30);
    expect(wordsIn(job).letterSpacing).toBeLessThan(1.5 / 30 + 0.003);
    spaceLetters(job, 'part', 'words', 1e6, view);
    expect(wordsIn(job).letterSpacing).toBe(10);
    spaceLetters(job, 'part', 'words', -1, null);
    expect(wordsIn(job).letterSpacing).toBe(10);
  });
});

test('the corners of a box after a matrix, counter-clockwise from the lower left', () => {
  const box = { minX: 1, minY: 2, maxX: 4, maxY: 6 };
  expect(cornersOf(box, { a: 0, b: 1, c: -1, d: 0, e: 10, f: 0 })).toEqual([
    { x: 8, y: 1 },
    { x: 8, y: 4 },
    { x: 4, y: 4 },
    { x: 4, y: 1 },
  ]);
});

describe('gaps of a drawing', () => {
  const drawn = () =>
    jobWith([
      partOf([{ id: 'art', kind: 'artwork', placement: { x: 0, y: 0 }, drawing: '0'.repeat(64) }, lettering('Lane')]),
    ]);
  const answers = (job: Job) => (memberOf(job, 'part', 'art') as Artwork).close.answers;

  test('are answered once each, the last answer counts, and taken back', () => {
    const job = drawn();
    answerGap(job, 'part', 'art', 'a', 'close');
    answerGap(job, 'part', 'art', 'b', 'leave');
    answerGap(job, 'part', 'art', 'a', 'leave');
    expect(answers(job)).toEqual([
      { gap: 'b', how: 'leave' },
      { gap: 'a', how: 'leave' },
    ]);
    forgetGap(job, 'part', 'art', 'b');
    forgetGap(job, 'part', 'art', 'gone');
    expect(answers(job)).toEqual([{ gap: 'a', how: 'leave' }]);
    answerGap(job, 'part', 'words', 'a', 'close');
    forgetGap(job, 'part', 'words', 'a');
    expect(answers(job)).toHaveLength(1);
  });

  test('are answered as many as a document holds', () => {
    const job = drawn();
    for (let i = 0; i < LIMITS.gapAnswers + 2; i++) answerGap(job, 'part', 'art', `gap ${i}`, 'close');
    expect(answers(job)).toHaveLength(LIMITS.gapAnswers);
    answerGap(job, 'part', 'art', 'gap 3', 'leave');
    expect(answers(job).at(-1)).toEqual({ gap: 'gap 3', how: 'leave' });
  });
});

describe('another typeface', () => {
  test('a part of nothing but lines is marked, and cut again when it has outlines', () => {
    const job = jobWith([
      partOf([lettering('Lane')], {
        work: [
          { what: 'outline', operation: 'cut' },
          { what: 'fill', operation: 'engrave' },
        ],
      }),
    ]);
    setFace(job, 'part', 'words', 'Pacifico');
    expect(partIn(job).work[0]).toEqual({ what: 'outline', operation: 'cut' });
    setFace(job, 'part', 'words', 'hershey sans');
    expect(wordsIn(job).face).toBe('hershey sans');
    expect(partIn(job).work).toEqual([
      { what: 'outline', operation: 'mark' },
      { what: 'fill', operation: 'engrave' },
    ]);
    setFace(job, 'part', 'words', 'EMS Tech');
    expect(partIn(job).work[0]).toEqual({ what: 'outline', operation: 'mark' });
    setFace(job, 'part', 'words', 'Poppins');
    expect(partIn(job).work[0]).toEqual({ what: 'outline', operation: 'cut' });
  });

  test('with a shape beside the words, or without an operation to go to, the work stays', () => {
    const job = jobWith([partOf([lettering('Lane'), rectangle('r', 50)])]);
    setFace(job, 'part', 'words', 'Hershey Sans');
    expect(partIn(job).work).toEqual([{ what: 'outline', operation: 'cut' }]);
    const only = jobWith([partOf([lettering('Lane')])], { operations: [{ id: 'cut', name: 'Cut', kind: 'cut' }] });
    setFace(only, 'part', 'words', 'Hershey Sans');
    expect(partIn(only).work).toEqual([{ what: 'outline', operation: 'cut' }]);
    setFace(job, 'part', 'r', 'Poppins');
    setFace(job, 'gone', 'words', 'Poppins');
    expect(wordsIn(job).face).toBe('Hershey Sans');
  });
});

test('a part is called by its name, else its words, else what it is', () => {
  const called = (members: Draft[], name = '') => partWords(partIn(jobWith([partOf(members, { name })])));
  expect(called([lettering('Lane')], 'Sign')).toBe('Sign');
  expect(called([lettering('Lane')], '  ')).toBe('Lane');
  expect(called([rectangle('r', 50), lettering(' Alder\nLane ')])).toBe('Alder / Lane');
  expect(called([lettering('  ')])).toBe('Lettering');
  expect(called([rectangle('r', 50), lettering(' ')])).toBe('Rectangle');
  expect(partWords({ ...partIn(jobWith([partOf([])])), members: [] })).toBe('Part');
});
