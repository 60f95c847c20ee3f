/** Parts that go along with others: borders, backings, copies that follow. */

import { describe, expect, test } from 'vitest';
import { addAround, backingUse, follows, goAlong, setBackingUse, setFollows } from '../../src/core/commands/along';
import { changed, memberOf } from '../../src/core/commands/changed';
import { moveChosen, turnChosen } from '../../src/core/commands/chosen';
import { addPart } from '../../src/core/commands/parts';
import type { Copy, Job } from '../../src/core/document/schema';
import { boxCentre } from '../../src/core/geometry/point';
import { stepIn } from '../../src/core/kinds/steps';
import { workBy } from '../../src/core/kinds/works';
import { boxOf, middlesIn, partIn, rectangle, wordsIn } from '../support/commands';
import { jobWith, lettering, partOf } from '../support/jobs';

const measure = { capHeightMm: 30, leastWidthMm: null, kerfMm: null };
const bordered = (job: Job) => {
  const made = addAround(job, 'part', 'backing', measure);
  if (!made) throw new Error('no border');
  return made;
};
const boxes = (job: Job, border: string) => ({ words: boxOf(job, 'part'), border: boxOf(job, border) });

describe('a border', () => {
  const words = () =>
    jobWith([
      partOf([lettering('Lane')], { name: 'Lane sign', placement: { x: 10, y: -20, turn: 15 } }),
      partOf([rectangle('r', 20)], { id: 'last' }),
    ]);

  test('is a part after what it goes around, goes along with it, and is cut; the words are engraved', () => {
    const made = bordered(words());
    expect(made.job.parts.map((p) => p.id)).toEqual(['part', made.partId, 'last']);
    const border = partIn(made.job, made.partId);
    expect(border).toMatchObject({
      name: 'Border of Lane sign',
      along: 'part',
      placement: { x: 0, y: 0, turn: 0, mirror: false },
      members: [
        {
          kind: 'copy',
          of: 'part',
          follows: true,
          placement: { x: 0, y: 0, turn: 0, mirror: false },
          id: made.memberId,
        },
      ],
      work: [{ what: 'outline', operation: 'cut', only: null }],
    });
    // A quarter of the capital height.
    expect(stepIn(border, 'border')).toMatchObject({ on: true, distance: 7.5 });
    expect(partIn(made.job).work).toEqual([{ what: 'fill', operation: 'engrave', only: null }]);
    expect(backingUse(made.job, border)).toBe('engraved');
    expect(addAround(made.job, 'gone', 'backing', measure)).toBeNull();
  });

  test('stays around the words when these are moved, turned and typed anew', () => {
    const { job, partId } = bordered(words());
    const chosen = { partIds: ['part'], memberId: null };
    const moved = turnChosen(moveChosen(job, chosen, 12, 7), chosen, 50, { x: 100, y: 100 });
    const typed = changed(moved, (draft) => {
      wordsIn(draft).text = 'Alder';
    });
    for (const now of [moved, typed]) {
      const [inner, outer] = [boxOf(now, 'part'), boxOf(now, partId)];
      expect(inner.minX - outer.minX).toBeCloseTo(7.5, 1);
      expect(outer.maxY - inner.maxY).toBeCloseTo(7.5, 1);
    }
  });

  test('to glue on lies below the words, which are cut; engraved again it is around them', () => {
    const made = bordered(words());
    const { partId } = made;
    const job = changed(made.job, (draft) => void partIn(draft).work.push(workBy('dots', 'mark')));
    const glued = setBackingUse(job, partId, 'glued', boxes(job, partId));
    expect(backingUse(glued, partIn(glued, partId))).toBe('glued');
    expect(partIn(glued, partId).along).toBeNull();
    expect(partIn(glued).work).toEqual([
      { what: 'dots', operation: 'mark', only: null },
      { what: 'outline', operation: 'cut', only: null },
    ]);
    const [own, backing] = [boxOf(glued, 'part'), boxOf(glued, partId)];
    expect(own.minY - backing.maxY).toBeCloseTo(5, 2);
    expect(boxCentre(backing).x).toBeCloseTo(boxCentre(own).x, 1);
    // Asked for again, it stays where it is.
    expect(partIn(setBackingUse(glued, partId, 'glued', boxes(glued, partId)), partId)).toEqual(partIn(glued, partId));
    const engraved = setBackingUse(glued, partId, 'engraved', boxes(glued, partId));
    expect(boxCentre(boxOf(engraved, partId)).y).toBeCloseTo(boxCentre(own).y, 1);
    expect(backingUse(engraved, partIn(engraved, partId))).toBe('engraved');
  });

  test('before it has been drawn is laid below by its distance; not knowing the words, it stays', () => {
    const made = bordered(words());
    const EMPTY = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
    const glued = setBackingUse(made.job, made.partId, 'glued', { words: boxOf(made.job, 'part'), border: EMPTY });
    expect(boxOf(glued, 'part').minY - boxOf(glued, made.partId).maxY).toBeCloseTo(5, 1);
    for (const seen of [null, { words: EMPTY, border: EMPTY }]) {
      const still = setBackingUse(made.job, made.partId, 'glued', seen);
      expect(boxOf(still, made.partId)).toEqual(boxOf(made.job, made.partId));
      expect(partIn(still).work).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
    }
  });

  test('around a copy that stood by itself is put on it again, and other copies stay', () => {
    const steps = [{ kind: 'weld' }, { kind: 'border', distance: 5 }];
    const own = { id: 'c', kind: 'copy', of: 'part', placement: { x: 70, y: 40, turn: 20 } };
    const other = { id: 'd', kind: 'copy', of: 'last', placement: { x: 7, y: 4 } };
    const job = jobWith([
      partOf([lettering('Lane')]),
      partOf([rectangle('r', 20), own, other], {
        id: 'backing',
        steps,
        work: [{ what: 'outline', operation: 'mark', only: null }],
      }),
      partOf([rectangle('r', 20)], { id: 'last' }),
    ]);
    expect(backingUse(job, partIn(job, 'backing'))).toBe('glued');
    const engraved = setBackingUse(job, 'backing', 'engraved', null);
    expect(partIn(engraved, 'backing')).toMatchObject({
      along: 'part',
      members: [
        { id: 'r', placement: { x: 20 } },
        { id: 'c', follows: true, placement: { x: 0, y: 0, turn: 0 } },
        { id: 'd', follows: false, placement: { x: 7, y: 4 } },
      ],
      work: [{ what: 'outline', operation: 'cut', only: null }],
    });
    // Filled, but not on the words: nothing is engraved on it.
    const aside = goAlong(engraved, 'backing', null);
    expect(backingUse(aside, partIn(aside, 'backing'))).toBe('glued');
    const lined = changed(engraved, (draft) => {
      partIn(draft).work = [];
    });
    expect(backingUse(lined, partIn(lined, 'backing'))).toBe('glued');
  });

  test('without operations to go to leaves the work as it is', () => {
    const steps = [{ kind: 'weld' }, { kind: 'border', distance: 5 }];
    const job = jobWith(
      [
        partOf([lettering('Lane')], { work: [{ what: 'outline', operation: 'mark', only: null }] }),
        partOf([{ id: 'c', kind: 'copy', of: 'part', follows: true, placement: { x: 0, y: 0 } }], {
          id: 'backing',
          along: 'part',
          steps,
          work: [{ what: 'outline', operation: 'mark', only: null }],
        }),
      ],
      { operations: [{ id: 'mark', name: 'Mark', kind: 'mark' }] },
    );
    for (const use of ['engraved', 'glued'] as const) {
      const set = setBackingUse(job, 'backing', use, null);
      expect(set.parts.map((p) => p.work)).toEqual(job.parts.map((p) => p.work));
    }
  });

  test('around a part of a long name has a name a document can hold, and stands behind it in the list', () => {
    const job = jobWith([
      partOf([rectangle('r', 20)], { id: 'first' }),
      partOf([lettering('Lane')], { name: 'x'.repeat(200) }),
      partOf([rectangle('r', 20)], { id: 'last' }),
    ]);
    const made = bordered(job);
    expect(made.job.parts.map((p) => p.id)).toEqual(['first', 'part', made.partId, 'last']);
    expect(partIn(made.job, made.partId).name).toHaveLength(100);
  });

  test('is asked of nothing that is no border', () => {
    const job = words();
    expect(backingUse(job, partIn(job))).toBeNull();
    const copy = addPart(job, { copyOf: 'part' });
    expect(backingUse(copy.job, partIn(copy.job, copy.partId))).toBeNull();
    expect(setBackingUse(job, 'part', 'glued', null)).toBe(job);
    expect(setBackingUse(job, 'gone', 'glued', null)).toBe(job);
  });
});

describe('going along', () => {
  const three = () =>
    jobWith([
      partOf([lettering('Lane')], { placement: { x: 30, y: 40, turn: 20 } }),
      partOf([rectangle('r', 5)], { id: 'b', placement: { x: 7, y: -3, turn: 10, mirror: true } }),
      partOf([rectangle('s', 5)], { id: 'c', placement: { x: 1, y: 1 } }),
    ]);

  test('moves nothing, and lets go again without moving anything', () => {
    const job = three();
    const along = goAlong(goAlong(job, 'b', 'part'), 'c', 'b');
    expect(along.parts.map((p) => p.along)).toEqual([null, 'part', 'b']);
    expect([follows(along, partIn(along, 'c'), 'part'), follows(along, partIn(along, 'c'), 'c')]).toEqual([
      true,
      false,
    ]);
    const free = goAlong(along, 'b', null);
    for (const now of [along, free])
      for (const id of ['b', 'c'])
        for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
          expect(boxOf(now, id)[side]).toBeCloseTo(boxOf(job, id)[side], 5);
    const moved = moveChosen(along, { partIds: ['part'], memberId: null }, 5, 0);
    expect(boxOf(moved, 'c').minX).toBeCloseTo(boxOf(job, 'c').minX + 5, 5);
  });

  test('is not done in a circle, nor with what is not there', () => {
    const along = goAlong(goAlong(three(), 'b', 'part'), 'c', 'b');
    expect(goAlong(along, 'part', 'c')).toBe(along);
    expect(goAlong(along, 'part', 'part')).toBe(along);
    expect(goAlong(along, 'part', 'gone')).toBe(along);
    expect(goAlong(along, 'gone', 'part')).toBe(along);
    expect(goAlong(along, 'b', 'part')).toBe(along);
  });
});

test('a copy that is to go along, or to stay, does not move by that', () => {
  let job = jobWith([
    partOf([lettering('Lane')], { placement: { x: 5, y: 6, turn: 30 } }),
    partOf([{ id: 'c', kind: 'copy', of: 'part', placement: { x: 70, y: 40 } }], { id: 'copied' }),
  ]);
  const before = boxOf(job, 'copied');
  for (const on of [true, true, false, false]) {
    job = setFollows(job, 'copied', { memberId: 'c', on, middleOf: middlesIn(job) });
    expect((memberOf(job, 'copied', 'c') as Copy).follows).toBe(on);
    expect(partIn(job, 'copied').along).toBe(on ? 'part' : null);
    expect(boxCentre(boxOf(job, 'copied')).x).toBeCloseTo(boxCentre(before).x, 5);
    expect(boxCentre(boxOf(job, 'copied')).y).toBeCloseTo(boxCentre(before).y, 5);
  }
  expect(setFollows(job, 'part', { memberId: 'words', on: true, middleOf: middlesIn(job) })).toBe(job);
  // One that stays on what it copies but lies elsewhere goes along again, and lets go of that alone.
  const aside = goAlong(
    setFollows(job, 'copied', { memberId: 'c', on: true, middleOf: middlesIn(job) }),
    'copied',
    null,
  );
  const again = setFollows(aside, 'copied', { memberId: 'c', on: true, middleOf: middlesIn(aside) });
  expect([partIn(aside, 'copied').along, partIn(again, 'copied').along]).toEqual([null, 'part']);
  expect(
    memberOf(setFollows(aside, 'copied', { memberId: 'c', on: false, middleOf: middlesIn(aside) }), 'copied', 'c'),
  ).toMatchObject({
    follows: false,
  });
});

test('the edge of a part is cut exactly on it while it is engraved; an outline around it is scored and leaves it alone', () => {
  const job = jobWith([partOf([lettering('Lane')])]);
  const edge = addAround(job, 'part', 'edge', measure);
  const [words, own] = edge?.job.parts ?? [];
  expect(words?.work).toEqual([{ what: 'fill', operation: 'engrave', only: null }]);
  expect(own).toMatchObject({
    along: 'part',
    name: 'Edge of Lane',
    work: [{ what: 'outline', operation: 'cut', only: null }],
  });
  expect(own?.steps.map((s) => s.kind)).toEqual(['weld']);
  expect(own?.members[0]).toMatchObject({ kind: 'copy', of: 'part', follows: true });
  const outline = addAround(job, 'part', 'outline', measure);
  expect(outline?.job.parts[0]).toBe(job.parts[0]);
  expect(outline?.job.parts[1]).toMatchObject({
    name: 'Outline around Lane',
    work: [{ what: 'outline', operation: 'score', only: null }],
  });
  expect(outline?.job.parts[1]?.steps.map((s) => s.kind)).toEqual(['weld', 'border']);
  // Without scoring it is marked; with neither it is given to nothing.
  const marked = (kinds: string[]) =>
    addAround({ ...job, operations: job.operations.filter((o) => kinds.includes(o.kind)) }, 'part', 'outline', measure)
      ?.job.parts[1]?.work;
  expect(marked(['cut', 'mark'])).toEqual([{ what: 'outline', operation: 'mark', only: null }]);
  expect(marked(['cut'])).toEqual([]);
});
