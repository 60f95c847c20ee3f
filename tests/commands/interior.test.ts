/** The inside of a part worked in another way, and fillings mended. */
import { beforeEach, describe, expect, test } from 'vitest';
import * as fills from '../../src/core/commands/interior';
import { interiorOf, takeTool } from '../../src/core/commands/interior';
import { editStep } from '../../src/core/commands/steps';
import type { Job, Part } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { viewOf } from '../../src/worker/view';
import { middlesIn, partIn } from '../support/commands';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const plate: Draft = { id: 'plate', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 200, height: 100 };
const words = partOf([lettering('HOE')], { id: 'words' });
const around = partOf([plate], { id: 'around' });
const hatched = { kind: 'hatch', tool: { shape: 'line', tip: 1 } };

/** The job as the commands so far have left it. */
let held: Job;
const now = (): Job => held;
const open = (job: Job): void => {
  held = job;
};
const part = (id: string): Part => partIn(held, id);
const measure = (capHeightMm: number) => ({ capHeightMm, leastWidthMm: null, kerfMm: null });
const setInside = (id: string, inside: fills.Interior, capital = 30): void =>
  open(fills.setInside(held, id, inside, measure(capital)));
const punchMember = (id: string, memberId: string): void => open(fills.punchMember(held, id, memberId));
const cutOutOf = (outer: string, inner: string): void => open(fills.cutOutOf(held, outer, inner, middlesIn(held)));

describe('the inside of a part', () => {
  beforeEach(() => open(jobWith([words])));
  const set = (inside: fills.Interior) => setInside('words', inside);

  test('lines take the place of the outline and are marked; left alone again, the outline is back', () => {
    set('lines');
    expect(part('words').work).toEqual([{ what: 'hatch', operation: 'mark', only: null }]);
    expect(interiorOf(part('words'))).toBe('lines');
    // Wide enough to go several times into a stroke.
    expect(part('words').steps.find((s) => s.kind === 'hatch')).toMatchObject({ on: true, tool: { tip: 1.5 } });
    set('alone');
    expect(part('words').work).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
    expect(interiorOf(part('words'))).toBe('alone');
  });

  test('an area is engraved beside the outline; the operation goes over from one to the other', () => {
    set('area');
    expect(part('words').work).toEqual([
      { what: 'fill', operation: 'engrave', only: null },
      { what: 'outline', operation: 'cut', only: null },
    ]);
    set('lines');
    expect(part('words').work).toEqual([{ what: 'hatch', operation: 'engrave', only: null }]);
    set('area');
    expect(part('words').work).toEqual([{ what: 'fill', operation: 'engrave', only: null }]);
    expect(interiorOf(part('words'))).toBe('area');
  });

  test('settings are kept while lines are switched off', () => {
    set('lines');
    open(editStep(held, 'words', 'hatch', measure(30), (step) => void Object.assign(step, { fillMissed: true })));
    const settings = part('words').steps.find((s) => s.kind === 'hatch');
    expect(settings).toMatchObject({ fillMissed: true });
    set('alone');
    set('lines');
    expect(part('words').steps.find((s) => s.kind === 'hatch')).toEqual(settings);
  });

  test('where there is nothing to engrave with, something that draws is taken before something that cuts', () => {
    const operations = [
      { id: 'cut', name: 'Cut', kind: 'cut' },
      { id: 'line', name: 'Line', kind: 'score' },
    ];
    for (const inside of ['area', 'lines'] as const) {
      open(jobWith([words], { operations }));
      setInside('words', inside);
      expect(part('words').work[0]?.operation).toBe('line');
    }
  });
});

describe('the operation of an inside', () => {
  const operation = (kind: string, id = kind) => ({ id, name: id, kind });
  const worked = (part: Draft, operations: Draft[], inside: fills.Interior) => {
    open(jobWith([{ ...words, ...part }], { operations }));
    setInside('words', inside);
    return now().parts[0]?.work;
  };
  const all = ['cut', 'score', 'engrave', 'mark'].map((kind) => operation(kind));

  test.each<[string, 'area' | 'lines', string[], string]>([
    ['lines are marked', 'lines', ['cut', 'score', 'engrave', 'mark'], 'mark'],
    ['or engraved', 'lines', ['cut', 'score', 'engrave'], 'engrave'],
    ['or scored', 'lines', ['cut', 'score'], 'score'],
    ['or cut, where there is nothing else', 'lines', ['cut'], 'cut'],
    ['an area is engraved', 'area', ['cut', 'score', 'mark', 'engrave'], 'engrave'],
    ['or marked', 'area', ['cut', 'score', 'mark'], 'mark'],
    ['or scored, as an area', 'area', ['cut', 'score'], 'score'],
  ])('%s', (_, inside, kinds, expected) => {
    const work = worked(
      { work: [{ what: 'outline', operation: 'cut', only: null }] },
      kinds.map((k) => operation(k)),
      inside,
    );
    expect(work?.[0]).toEqual({ what: inside === 'lines' ? 'hatch' : 'fill', operation: expected, only: null });
  });

  test('what filled before keeps its operation, whichever way it filled', () => {
    const before = { steps: [{ kind: 'weld' }, hatched] };
    for (const what of ['fill', 'hatch'])
      for (const inside of ['area', 'lines'] as const)
        expect(worked({ ...before, work: [{ what, operation: 'score', only: null }] }, all, inside)).toEqual([
          { what: inside === 'lines' ? 'hatch' : 'fill', operation: 'score', only: null },
        ]);
  });

  test('lines go in with the settings of a tip that suits the capitals, and take the outline’s place', () => {
    const work = worked(
      {
        work: [
          { what: 'outline', operation: 'cut', only: null },
          { what: 'dots', operation: 'mark', only: null },
        ],
      },
      all,
      'lines',
    );
    expect(work).toEqual([
      { what: 'hatch', operation: 'mark', only: null },
      { what: 'dots', operation: 'mark', only: null },
    ]);
    const wide = part('words').steps.find((s) => s.kind === 'hatch');
    worked({}, all, 'lines');
    expect(wide).toEqual(part('words').steps.find((s) => s.kind === 'hatch'));
    open(jobWith([words]));
    setInside('words', 'lines', 6);
    const fine = part('words').steps.find((s) => s.kind === 'hatch');
    expect(wide?.kind === 'hatch' && wide.tool.tip).toBeGreaterThan(fine?.kind === 'hatch' ? fine.tool.tip : 0);
  });

  test('left alone, a part keeps its other work; only lines that were all of it give the outline back', () => {
    const steps = [{ kind: 'weld' }, hatched];
    const lines = { what: 'hatch', operation: 'mark', only: null };
    const dots = { what: 'dots', operation: 'mark', only: null };
    expect(worked({ steps, work: [lines] }, all, 'alone')).toEqual([{ what: 'outline', operation: 'cut', only: null }]);
    expect(part('words').steps.find((s) => s.kind === 'hatch')?.on).toBe(false);
    expect(worked({ steps, work: [lines, dots] }, all, 'alone')).toEqual([dots]);
    // An area is no line that took the outline's place; nor can anything be cut where nothing cuts.
    expect(worked({ work: [{ what: 'fill', operation: 'engrave', only: null }] }, all, 'alone')).toEqual([]);
    expect(worked({ steps, work: [lines] }, [operation('mark')], 'alone')).toEqual([]);
    expect(worked({ steps: [{ kind: 'weld' }, { ...hatched, on: false }], work: [] }, all, 'alone')).toEqual([]);
  });

  test('what is not there changes nothing', () => {
    open(jobWith([words]));
    const before = now();
    setInside('gone', 'lines');
    expect(now()).toBe(before);
  });

  test('is by lines only where the step is on and its lines are worked', () => {
    const inside = (steps: Draft[], work: Draft[]) => {
      open(jobWith([{ ...words, steps: [{ kind: 'weld' }, ...steps], work }]));
      return interiorOf(part('words'));
    };
    const lines = { what: 'hatch', operation: 'mark', only: null };
    const area = { what: 'fill', operation: 'engrave', only: null };
    expect(inside([hatched], [lines])).toBe('lines');
    expect(inside([{ ...hatched, on: false }], [lines])).toBe('alone');
    expect(inside([hatched], [])).toBe('alone');
    expect(inside([hatched], [area])).toBe('area');
    expect(inside([], [lines])).toBe('alone');
    expect(inside([], [area])).toBe('area');
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

  test('plain is a part whose steps do nothing to its outline, or are off', () => {
    const steps = [{ kind: 'weld', on: true }, { kind: 'thicken', by: 1, on: false }, hatched];
    open(jobWith([around, { ...words, steps }, partOf([{ ...plate, id: 'far' }], { id: 'third' })]));
    cutOutOf('around', 'words');
    expect(now().parts.map((p) => p.id)).toEqual(['around', 'third']);
    expect(members('around')).toHaveLength(2);
    // A copy of another part is none of this one.
    open(
      jobWith([
        around,
        words,
        partOf([{ id: 'copy', kind: 'copy', of: 'around', placement: { x: 10, y: 10 } }], { id: 'third' }),
      ]),
    );
    cutOutOf('around', 'words');
    expect(now().parts.map((p) => p.id)).toEqual(['around', 'third']);
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
    expect(part('around').members[1]).toMatchObject({
      kind: 'copy',
      of: 'words',
      role: 'punch',
      follows: true,
      placement: { x: 0, y: 0, turn: 0, mirror: false },
    });
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
    punchMember('gone', 'plate');
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

describe('another tool', () => {
  const filled = (operation: string, more: Draft = {}) =>
    jobWith([
      partOf([lettering('Oak')], {
        steps: [{ kind: 'weld' }, { kind: 'hatch', tool: { shape: 'line', tip: 1 }, ...more }],
        work: [{ what: 'hatch', operation, only: null }],
      }),
    ]);
  const tool = (shape: 'line' | 'flat' | 'cone', tip = 2) => ({ shape, tip, angle: 60, depth: 0.5 });
  const doneBy = (job: Job) => job.parts[0]?.work[0]?.operation;

  test('of the other kind goes to the operation that suits it, and back', () => {
    const turning = takeTool(filled('mark'), 'part', tool('cone'));
    expect(doneBy(turning)).toBe('engrave');
    expect(turning.parts[0]?.steps[1]).toMatchObject({ kind: 'hatch', tool: tool('cone') });
    expect(doneBy(takeTool(turning, 'part', tool('line')))).toBe('mark');
  });

  test('of the same kind stays, and so does work that was given to something else, or has nowhere to go', () => {
    expect(doneBy(takeTool(filled('mark'), 'part', tool('line', 3)))).toBe('mark');
    expect(doneBy(takeTool(filled('score'), 'part', tool('flat')))).toBe('score');
    const off = filled('mark');
    const without = { ...off, operations: off.operations.map((o) => ({ ...o, on: o.kind !== 'engrave' })) };
    expect(doneBy(takeTool(without, 'part', tool('flat')))).toBe('mark');
    expect(takeTool(off, 'gone', tool('flat'))).toBe(off);
  });
});
