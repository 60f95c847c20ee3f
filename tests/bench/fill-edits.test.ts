/** What the bench does to a document when the inside of a part is worked in another way, or a filling is mended. */
import { beforeEach, describe, expect, test } from 'vitest';
import { cutOutOf, fillTheRest, insideOf, punchMember, setInside } from '../../src/bench/fill-edits';
import { openBench, redo, undo, useBench } from '../../src/bench/store';
import type { Job, Part } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { viewOf } from '../../src/worker/view';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const plate: Draft = { id: 'plate', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 200, height: 100 };
const words = partOf([lettering('HOE')], { id: 'words' });
const around = partOf([plate], { id: 'around' });
const hatched = { kind: 'hatch', tool: { shape: 'line', tip: 1 } };

const now = (): Job => useBench.getState().job;
const part = (id: string): Part => {
  const found = now().parts.find((p) => p.id === id);
  if (!found) throw new Error(`no part ${id}`);
  return found;
};
const open = (job: Job) => openBench('trial', job, 1, '', { partId: null, memberId: null }, 'fill');
const viewOfPart = (id: string) => {
  const view = viewOf(new Evaluator(wasmEngine).evaluate(now(), faces)).parts.find((p) => p.id === id);
  if (!view) throw new Error(`no view of ${id}`);
  return view;
};

describe('the inside of a part', () => {
  beforeEach(() => open(jobWith([words])));
  const set = (inside: 'alone' | 'area' | 'lines') => setInside('words', inside, viewOfPart('words'));

  test('lines take the place of the outline and are marked; left alone again, the outline is back', {
    tags: 'slow',
  }, () => {
    set('lines');
    expect(part('words').work).toEqual([{ what: 'hatch', operation: 'mark' }]);
    expect(insideOf(part('words'))).toBe('lines');
    // Wide enough to go several times into a stroke.
    expect(part('words').steps.find((s) => s.kind === 'hatch')).toMatchObject({ on: true, tool: { tip: 1.5 } });
    set('alone');
    expect(part('words').work).toEqual([{ what: 'outline', operation: 'cut' }]);
    expect(insideOf(part('words'))).toBe('alone');
  });

  test('an area is engraved beside the outline; the operation goes over from one to the other', {
    tags: 'slow',
  }, () => {
    set('area');
    expect(part('words').work).toEqual([
      { what: 'fill', operation: 'engrave' },
      { what: 'outline', operation: 'cut' },
    ]);
    set('lines');
    expect(part('words').work).toEqual([{ what: 'hatch', operation: 'engrave' }]);
    set('area');
    expect(part('words').work).toEqual([{ what: 'fill', operation: 'engrave' }]);
    expect(insideOf(part('words'))).toBe('area');
  });

  test('settings are kept while lines are switched off, and every change is one step of undo', () => {
    set('lines');
    fillTheRest('words');
    const settings = part('words').steps.find((s) => s.kind === 'hatch');
    expect(settings).toMatchObject({ rest: true });
    set('alone');
    set('lines');
    expect(part('words').steps.find((s) => s.kind === 'hatch')).toEqual(settings);
    for (let i = 0; i < 4; i++) undo();
    expect(now()).toEqual(jobWith([words]));
    redo();
    expect(insideOf(part('words'))).toBe('lines');
  });

  test('where there is nothing to engrave with, something that draws is taken before something that cuts', () => {
    const operations = [
      { id: 'cut', name: 'Cut', kind: 'cut' },
      { id: 'line', name: 'Line', kind: 'score' },
    ];
    for (const inside of ['area', 'lines'] as const) {
      open(jobWith([words], { operations }));
      setInside('words', inside, viewOfPart('words'));
      expect(part('words').work[0]?.operation).toBe('line');
    }
  });
});

describe('one part cut out of another', () => {
  const members = (id: string) => part(id).members.map((m) => [m.id, m.kind, m.role]);

  test('plain words go over as they are', () => {
    open(jobWith([around, words]));
    cutOutOf('around', 'words');
    expect(now().parts).toHaveLength(1);
    expect(members('around')).toEqual([
      ['plate', 'rectangle', 'join'],
      ['words', 'lettering', 'punch'],
    ]);
  });

  test('a name both have is told apart', () => {
    open(jobWith([around, partOf([{ ...lettering('HOE'), id: 'plate' }], { id: 'words' })]));
    cutOutOf('around', 'words');
    const ids = part('around').members.map((m) => m.id);
    expect(new Set(ids).size).toBe(2);
  });

  test.each<[string, Draft, Draft[]]>([
    [
      'steps of its own',
      {
        ...words,
        steps: [
          { kind: 'weld', on: true },
          { kind: 'thicken', by: 1 },
        ],
      },
      [],
    ],
    [
      'members cut out',
      partOf([lettering('HOE'), { ...plate, id: 'hole', role: 'punch', width: 5 }], { id: 'words' }),
      [],
    ],
    [
      'a copy elsewhere',
      words,
      [partOf([{ id: 'copy', kind: 'copy', of: 'words', placement: { x: 10, y: 10 } }], { id: 'third' })],
    ],
  ])('with %s it stays, out of sight, and is cut out as a live copy', (_, inner, more) => {
    open(jobWith([around, inner, ...more]));
    cutOutOf('around', 'words');
    expect(part('words').hidden).toBe(true);
    expect(part('around').members[1]).toMatchObject({ kind: 'copy', of: 'words', role: 'punch', follows: true });
    // Where it was: nothing moved.
    const shape = (job: Job) =>
      new Evaluator(wasmEngine).evaluate(job, faces).parts.find((p) => p.id === 'around')?.outlines ?? [];
    const holes = shape(now())
      .filter((o) => o.depth > 0)
      .map((o) => o.box);
    const letters = viewOf(new Evaluator(wasmEngine).evaluate(jobWith([inner, ...more]), faces)).parts[0]?.box;
    expect(Math.min(...holes.map((b) => b.minX))).toBeCloseTo(letters?.minX ?? 0, 3);
    expect(Math.max(...holes.map((b) => b.maxY))).toBeCloseTo(letters?.maxY ?? 0, 3);
  });

  test('what is not there changes nothing', () => {
    open(jobWith([around, words]));
    const before = now();
    cutOutOf('around', 'gone');
    cutOutOf('gone', 'words');
    punchMember('around', 'gone');
    fillTheRest('gone');
    expect(now()).toBe(before);
  });
});

test('words that are swallowed are cut out, after what swallows them', () => {
  open(jobWith([partOf([lettering('HOE'), plate], { id: 'words', steps: [{ kind: 'weld', on: true }, hatched] })]));
  punchMember('words', 'words');
  expect(part('words').members.map((m) => [m.kind, m.role])).toEqual([
    ['rectangle', 'join'],
    ['lettering', 'punch'],
  ]);
  expect(viewOf(new Evaluator(wasmEngine).evaluate(now(), faces)).findings.map((f) => f.code)).not.toContain(
    'swallowed',
  );
});
