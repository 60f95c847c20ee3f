/** Adding, removing and doubling parts and members; taking parts apart and putting them together. */
import { describe, expect, test } from 'vitest';
import { memberOf, moveEntry } from '../../src/core/commands/changed';
import { freeId } from '../../src/core/commands/ids';
import {
  addMember,
  addPart,
  duplicate,
  group,
  removeMember,
  removeParts,
  split,
  takeIn,
} from '../../src/core/commands/parts';
import { editStep } from '../../src/core/commands/steps';
import { partWords } from '../../src/core/document/part-words';
import { stepIn } from '../../src/core/kinds/steps';
import { boxOf, middlesIn, partIn, rectangle, wordsIn } from '../support/commands';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

describe('new things', () => {
  test('get an id nothing else has: no part, member or operation, nor one given out before', () => {
    const job = jobWith([partOf([{ ...lettering('a'), id: 'thing-1' }], { id: 'thing-2', work: [] })], {
      operations: [{ id: 'thing-3', name: 'Cut', kind: 'cut' }],
    });
    expect(freeId(job, 'thing')).toBe('thing-4');
    expect(freeId(job, 'thing', ['thing-4', 'thing-6'])).toBe('thing-5');
    expect(freeId(job, 'other')).toBe('other-1');
  });

  test('a part with words, a shape or a copy, at the end; the job it is added to stays as it was', () => {
    const job = jobWith([partOf([lettering('Lane')])]);
    const words = addPart(job, 'lettering');
    const heart = addPart(words.job, 'heart');
    const copy = addPart(heart.job, { copyOf: 'part' });
    expect(job.parts).toHaveLength(1);
    expect(copy.job.parts.map((p) => p.id)).toEqual(['part', words.partId, heart.partId, copy.partId]);
    expect(copy.job.parts[0]).toBe(job.parts[0]);
    expect(copy.job.parts.map((p) => p.members.map((m) => m.kind))).toEqual([
      ['lettering'],
      ['lettering'],
      ['heart'],
      ['copy'],
    ]);
    expect(memberOf(copy.job, copy.partId, copy.memberId)).toMatchObject({ kind: 'copy', of: 'part' });
    expect(wordsIn(copy.job, words.partId).text).toBe('');
    expect(new Set(copy.job.parts.flatMap((p) => p.members.map((m) => m.id))).size).toBe(4);
    // In the middle of the sheet, its origin that of what it is made of.
    expect(partIn(heart.job, heart.partId).placement).toEqual({ x: 150, y: 100, turn: 0, mirror: false });
    expect(memberOf(heart.job, heart.partId, heart.memberId)?.placement).toMatchObject({ x: 0, y: 0 });
  });

  test('a member at the end of its part, where it is asked for on the sheet', () => {
    const job = jobWith([partOf([lettering('Lane')], { placement: { x: 10, y: 20, turn: 90 } })]);
    const star = addMember(job, 'part', 'star', { x: 12.34567, y: -3.21 });
    expect(partIn(star.job).members.map((m) => m.id)).toEqual(['words', star.memberId]);
    expect(memberOf(star.job, 'part', star.memberId)?.placement).toMatchObject({ x: -23.21, y: -2.346 });
    const bar = addMember(job, 'part', 'bar', null);
    expect(memberOf(bar.job, 'part', bar.memberId)?.placement).toMatchObject({ x: 80, y: -140 });
    expect(addMember(job, 'gone', 'star', null)).toEqual({ job, memberId: null });
    expect([memberOf(job, null, 'words'), memberOf(job, 'part', null)]).toEqual([undefined, undefined]);
  });

  test('a step is put in with first values, or changed, at its place in the order', () => {
    const job = jobWith([partOf([lettering('Lane')], { steps: [{ kind: 'weld' }, { kind: 'bridge' }] })]);
    const measure = { capHeightMm: 30, leastWidthMm: null, kerfMm: null };
    const put = editStep(job, 'part', 'thicken', measure, (step) => {
      step.corners = 'mitre';
    });
    expect(partIn(put).steps.map((s) => s.kind)).toEqual(['weld', 'thicken', 'bridge']);
    expect(stepIn(partIn(put), 'thicken')).toMatchObject({ on: true, by: 0.3, corners: 'mitre' });
    const changed = editStep(put, 'part', 'thicken', measure, (step) => {
      step.by = 1;
    });
    expect(partIn(changed).steps).toHaveLength(3);
    expect(stepIn(partIn(changed), 'thicken')).toMatchObject({ by: 1, corners: 'mitre' });
    expect(partIn(job).steps).toHaveLength(2);
    expect(
      editStep(job, 'gone', 'thicken', measure, () => {
        throw new Error('no part to change');
      }),
    ).toBe(job);
  });
});

describe('taking out', () => {
  test('a member, and with the last one its part', () => {
    const job = jobWith([
      partOf([lettering('Lane'), rectangle('r', 50)]),
      partOf([rectangle('r', 90)], { id: 'other' }),
    ]);
    const without = removeMember(job, 'part', 'words');
    expect(partIn(without).members.map((m) => m.id)).toEqual(['r']);
    expect(removeMember(job, 'gone', 'r')).toBe(job);
    expect(removeMember(job, 'part', 'gone')).toBe(job);
    expect(removeMember(without, 'part', 'r').parts.map((p) => p.id)).toEqual(['other']);
  });

  test('a part: what went along with it stays where it is', () => {
    const job = jobWith([
      partOf([lettering('Lane')], { placement: { x: 30, y: 40, turn: 20 } }),
      partOf([rectangle('r', 5)], { id: 'along', along: 'part', placement: { x: 7, y: -3, turn: 10, mirror: true } }),
      partOf([rectangle('s', 5)], { id: 'further', along: 'along', placement: { x: 1, y: 1 } }),
    ]);
    const left = removeParts(job, ['part']);
    expect(left.parts.map((p) => [p.id, p.along])).toEqual([
      ['along', null],
      ['further', 'along'],
    ]);
    for (const id of ['along', 'further'])
      for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
        expect(boxOf(left, id)[side]).toBeCloseTo(boxOf(job, id)[side], 5);
    expect(removeParts(job, ['gone'])).toEqual(job);
  });
});

test('an entry of a list goes to another place, the others keep their order', () => {
  const list = ['a', 'b', 'c', 'd'];
  moveEntry(list, 0, 2);
  expect(list).toEqual(['b', 'c', 'a', 'd']);
  moveEntry(list, 3, 0);
  expect(list).toEqual(['d', 'b', 'c', 'a']);
});

describe('apart and together', () => {
  const none = () => ({ x: 0, y: 0 });

  test('a part is taken apart where it stands in the list', () => {
    const job = jobWith([
      partOf([rectangle('r', 20)], { id: 'first' }),
      partOf([lettering('Lane'), rectangle('r', 50)], { placement: { x: 3, y: 4, turn: 15 } }),
      partOf([rectangle('r', 90)], { id: 'last' }),
    ]);
    const done = split(job, 'part');
    expect(done.sentence).toBeNull();
    expect(done.job.parts.map((p) => p.members.map((m) => m.id).join())).toEqual(['r', 'words', 'r', 'r']);
    expect(new Set(done.job.parts.map((p) => p.id)).size).toBe(4);
    expect(done.job.parts[1]?.id).toBe('part');
    expect(done.job.parts[2]?.placement).toEqual(partIn(job).placement);
    expect(split(job, 'gone')).toEqual({ job, sentence: null });
    expect(split(job, 'first').job).toBe(job);
  });

  test('one that is copied, or has an overall width, stays whole and says why', () => {
    const job = jobWith([
      partOf([lettering('Lane'), rectangle('r', 50)]),
      partOf([{ id: 'c', kind: 'copy', of: 'part', placement: { x: 0, y: 0 } }], { id: 'copied', name: 'Backing' }),
    ]);
    expect(split(job, 'part')).toEqual({
      job,
      sentence: 'Backing copies it; taken apart, only the first piece would be copied.',
    });
    const wide = jobWith([partOf([lettering('Lane'), rectangle('r', 50)], { overallWidth: 80 })]);
    expect(split(wide, 'part')).toMatchObject({ job: wide, sentence: expect.stringContaining('overall width') });
  });

  test('what is placed by hand on the letters of one comes along, on the same letters', () => {
    const only = { letters: ['words:0'], dots: false };
    const work = [
      { what: 'outline', operation: 'cut' },
      { what: 'outline', operation: 'score', only },
    ];
    const place = { letter: 'words:0', x: 0.5, y: 0 };
    const sign = (id: string) =>
      partOf([lettering('Lane')], {
        id,
        work,
        starts: [place],
        tabs: [{ ...place, width: 2 }],
        sides: [{ ...place, side: 'line' }],
      });
    const [one] = group(jobWith([sign('a'), sign('b')]), ['a', 'b'], none).job.parts;
    const [, other] = one?.members ?? [];
    const letters = ['words:0', `${other?.id}:0`];
    expect(other?.id).not.toBe('words');
    expect(one?.starts.map((s) => s.letter)).toEqual(letters);
    expect(one?.tabs.map((t) => [t.letter, t.width])).toEqual(letters.map((l) => [l, 2]));
    expect(one?.sides.map((s) => s.letter)).toEqual(letters);
    expect(one?.work.map((w) => w.only?.letters ?? null)).toEqual([null, letters]);
  });

  test('parts are put into the first; what can’t be leaves all as it was', () => {
    const job = jobWith([
      partOf([lettering('Lane')], { id: 'a' }),
      partOf([rectangle('words', 50)], { id: 'b' }),
      partOf([rectangle('r', 90)], { id: 'c', keep: 'outside' }),
    ]);
    const both = group(job, ['a', 'b'], none);
    expect(both.sentence).toBeNull();
    expect(both.job.parts.map((p) => p.id)).toEqual(['a', 'c']);
    // Names both had are told apart.
    expect(new Set(partIn(both.job, 'a').members.map((m) => m.id)).size).toBe(2);
    expect(group(job, ['a', 'b', 'c'], none)).toMatchObject({
      job,
      sentence: expect.stringMatching(/One part is the shape/),
    });
    expect(group(job, [], none)).toEqual({ job, sentence: null });
    expect(takeIn(job, 'a', 'a', none)).toEqual({ job, sentence: null });
    expect(takeIn(job, 'a', 'gone', none)).toEqual({ job, sentence: null });
  });

  test('what is put together lies where it lay, whichever way its part was turned and mirrored', () => {
    const job = jobWith([
      partOf([rectangle('m', 20, { placement: { x: 60, y: 60 } })], {
        id: 'a',
        placement: { x: 9, y: 8, turn: 40, mirror: true },
      }),
      partOf(
        [
          lettering('Lane', 'Poppins', { placement: { x: 5, y: 6, turn: 10 }, size: { by: 'capital', mm: 8 } }),
          { id: 'c', kind: 'copy', of: 'a', follows: true, scale: 0.5, placement: { x: 20, y: 3, turn: 30 } },
        ],
        { id: 'b', placement: { x: 100, y: 70, turn: -75 } },
      ),
    ]);
    const before = boxOf(job, 'b');
    const without = { ...job, parts: [...job.parts, { ...partIn(job, 'a'), id: 'target', members: [] }] };
    const done = takeIn(without, 'target', 'b', middlesIn(job));
    expect(done.sentence).toBeNull();
    const after = boxOf(done.job, 'target');
    for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(after[side]).toBeCloseTo(before[side], 5);
  });
});

describe('once more', () => {
  test('a part lies beside, is free to move, and comes next in the list', () => {
    const job = jobWith([
      partOf([lettering('Lane')], { id: 'part-1', name: 'Sign', locked: true, placement: { x: 5, y: 6 } }),
      partOf([rectangle('r', 90)], { id: 'last' }),
    ]);
    const done = duplicate(job, { partIds: ['part-1'], memberId: null });
    expect(done.chosen).toEqual({ partIds: ['part-2'], memberId: null });
    expect(done.job.parts.map((p) => p.id)).toEqual(['part-1', 'part-2', 'last']);
    expect(partIn(done.job, 'part-2')).toMatchObject({ locked: false, name: 'Sign copy' });
    expect(partIn(done.job, 'part-2').placement).toMatchObject({ x: 15, y: -4 });
    expect(partIn(done.job, 'part-1')).toBe(partIn(job, 'part-1'));
    expect(duplicate(job, { partIds: ['gone'], memberId: null }).job).toEqual(job);
    expect(partIn(duplicate(job, { partIds: ['last'], memberId: null }).job, 'part-2').name).toBe('');
  });

  test('parts that belong together belong together again', () => {
    const job = jobWith([
      partOf([lettering('Lane')], { id: 'a', placement: { x: 30, y: 20, turn: 90 } }),
      partOf([{ id: 'c', kind: 'copy', of: 'a', follows: true, placement: { x: 0, y: 0 } }], { id: 'b', along: 'a' }),
    ]);
    const done = duplicate(job, { partIds: ['a', 'b'], memberId: null });
    const [a, b] = done.chosen.partIds as [string, string];
    expect(partIn(done.job, b)).toMatchObject({ along: a, members: [{ of: a }], placement: { x: 0, y: 0 } });
    expect(boxOf(done.job, b).minX).toBeCloseTo(boxOf(job, 'b').minX + 10, 6);
    expect(boxOf(done.job, b).minY).toBeCloseTo(boxOf(job, 'b').minY - 10, 6);
    // By itself, the one that goes along copies and follows the same part as before.
    const one = duplicate(job, { partIds: ['b'], memberId: null });
    const [own] = one.chosen.partIds as [string];
    expect(partIn(one.job, own)).toMatchObject({ along: 'a', members: [{ of: 'a' }] });
    expect(boxOf(one.job, own).minX).toBeCloseTo(boxOf(job, 'b').minX + 10, 6);
    expect(boxOf(one.job, own).minY).toBeCloseTo(boxOf(job, 'b').minY - 10, 6);
  });

  test('a member lies beside and next to it in its part, by mm on the sheet', () => {
    const job = jobWith([partOf([lettering('Lane'), rectangle('r', 50)], { placement: { x: 0, y: 0, turn: 180 } })]);
    const done = duplicate(job, { partIds: ['part'], memberId: 'words' });
    expect(partIn(done.job).members.map((m) => m.kind)).toEqual(['lettering', 'lettering', 'rectangle']);
    expect(memberOf(done.job, 'part', done.chosen.memberId)?.placement).toMatchObject({ x: 140, y: 110 });
    const locked = jobWith([partOf([lettering('Lane')], { locked: true })]);
    expect(duplicate(locked, { partIds: ['part'], memberId: 'words' }).job).toBe(locked);
    expect(duplicate(job, { partIds: ['part'], memberId: 'gone' }).job).toBe(job);
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
