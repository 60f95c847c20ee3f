/** Documents of older formats: read as what they were, each format by its own migration. */
import { describe, expect, test } from 'vitest';
import { migrate } from '../../src/core/document/migrate';
import { checkJob } from '../../src/core/document/read';
import { JOB_FORMAT, type Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { LIMITS } from '../../src/core/limits';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, lettering } from '../support/jobs';

const rectangle = (id: string, x: number, y: number, more: Draft = {}): Draft => ({
  id,
  kind: 'rectangle',
  placement: { x, y },
  width: 20,
  height: 10,
  ...more,
});
const part = (id: string, members: Draft[], more: Draft = {}): Draft => ({ id, members, ...more });
const copy = (id: string, of: string, x: number, y: number, more: Draft = {}): Draft => ({
  id,
  kind: 'copy',
  of,
  placement: { x, y },
  ...more,
});
const old = (...parts: Draft[]): Draft => ({ format: 1, sheet: { width: 300, height: 200 }, parts });
const read = (document: Draft): Job => {
  const done = checkJob(document);
  if (!done.ok) throw new Error(done.sentences.join(' '));
  return done.job;
};
const placed = (job: Job) =>
  job.parts.map((p) => [p.placement.x, p.placement.y, p.along, p.members.map((m) => [m.placement.x, m.placement.y])]);

test('what is of this format, or names none, is left as it is', () => {
  for (const document of [{ format: JOB_FORMAT, parts: [] }, { parts: [] }, { format: '1', parts: [] }])
    expect(migrate(document)).toBe(document);
  expect(migrate({ format: 1, parts: [] }).format).toBe(JOB_FORMAT);
});

describe('format 2', () => {
  test('a part is placed where its first member was, level, and its members from there', () => {
    const document = old(
      part('a', [
        rectangle('r', 30.1, 20.2, { placement: { x: 30.1, y: 20.2, turn: 30, mirror: true } }),
        rectangle('s', 50.3, 10.5),
      ]),
    );
    const job = read(document);
    expect(job.format).toBe(JOB_FORMAT);
    expect(job.parts[0]?.placement).toEqual({ x: 30.1, y: 20.2, turn: 0, mirror: false });
    expect(job.parts[0]?.members.map((m) => m.placement)).toEqual([
      { x: 0, y: 0, turn: 30, mirror: true },
      { x: 20.2, y: -9.7, turn: 0, mirror: false },
    ]);
    // The document that was given is left as it was.
    expect((document.parts as Draft[])[0]).not.toHaveProperty('placement');
  });

  test('what is cut out of the sheet stays in its coordinates, but on a plate of its own', () => {
    const members = [rectangle('r', 30, 20)];
    const job = read(
      old(
        part('out', members, { keep: 'outside' }),
        part('plate', members, { keep: 'outside', steps: [{ kind: 'weld' }, { kind: 'plate' }] }),
        part('off', members, { keep: 'outside', steps: [{ kind: 'weld' }, { kind: 'plate', on: false }] }),
        part('none', []),
      ),
    );
    expect(placed(job)).toEqual([
      [0, 0, null, [[30, 20]]],
      [30, 20, null, [[0, 0]]],
      [0, 0, null, [[30, 20]]],
      [0, 0, null, []],
    ]);
  });

  test('a part that began with what it followed goes along with that; other followers stay in their place', () => {
    const job = read(
      old(
        part('words', [rectangle('r', 30, 20)]),
        part('border', [copy('c', 'words', 1, 2, { follows: true }), rectangle('s', 35, 21)]),
        part('second', [copy('c', 'border', 0, 0, { follows: true })]),
        part('plate', [rectangle('p', 100, 90), copy('c', 'words', 0, 0, { follows: true, role: 'punch' })]),
        part('free', [copy('c', 'words', 70, 60)]),
      ),
    );
    expect(placed(job)).toEqual([
      [30, 20, null, [[0, 0]]],
      [
        0,
        0,
        'words',
        [
          [1, 2],
          [5, 1],
        ],
      ],
      [0, 0, 'border', [[0, 0]]],
      [
        100,
        90,
        null,
        [
          [0, 0],
          [-70, -70],
        ],
      ],
      [70, 60, null, [[0, 0]]],
    ]);
  });

  test('comes to the outlines of before: of followers too', () => {
    const evaluator = new Evaluator(wasmEngine);
    const words = lettering('Oak', 'Poppins', {
      placement: { x: 60, y: 50, turn: 20 },
      size: { by: 'capital', mm: 15 },
    });
    const border = [{ kind: 'weld' }, { kind: 'border', distance: 4 }];
    const job = read(
      old(
        part('words', [words]),
        part('border', [copy('c', 'words', 0, 0, { follows: true })], { steps: border }),
        part('aside', [
          rectangle('p', 100, 120, { width: 90 }),
          copy('c', 'words', 0, 70, { follows: true, scale: 0.5 }),
        ]),
      ),
    );
    const [inner, outer, aside] = evaluator.evaluate(job, faces).parts;
    expect(inner?.box.minX).toBeGreaterThan(30);
    expect((inner?.box.minX ?? 0) - (outer?.box.minX ?? 0)).toBeCloseTo(4, 1);
    const middle = (b = inner?.box) => ((b?.minX ?? 0) + (b?.maxX ?? 0)) / 2;
    expect(middle(aside?.members[1]?.box)).toBeCloseTo(middle(), 6);
  });

  test('parts that followed each other in a circle, or nothing, stay where they are', () => {
    const job = read(
      old(
        part('a', [copy('c', 'b', 3, 4, { follows: true })]),
        part('b', [copy('c', 'a', 5, 6, { follows: true })]),
        part('self', [copy('c', 'self', 7, 8, { follows: true })]),
        part('lost', [copy('c', 'gone', 9, 10, { follows: true })]),
      ),
    );
    expect(job.parts.map((p) => p.along)).toEqual([null, null, null, null]);
    expect(placed(job).map((p) => p[3])).toEqual([[[3, 4]], [[5, 6]], [[7, 8]], [[9, 10]]]);
  });

  test('members as far apart as a document holds are read', () => {
    const far = LIMITS.lengthMm;
    const job = read(old(part('a', [rectangle('r', -far, 0), rectangle('s', far, 0)])));
    expect(placed(job)).toEqual([
      [
        0,
        0,
        null,
        [
          [-far, 0],
          [far, 0],
        ],
      ],
    ]);
  });

  test('what is not as it should be is named by the schema, with nothing thrown', () => {
    const sentences = (parts: unknown) => {
      const done = checkJob({ ...old(), parts });
      return done.ok ? [] : done.sentences;
    };
    expect(sentences('none')).toEqual(['parts must be an array.']);
    expect(sentences([7])[0]).toMatch(/^parts\[0\] must be/);
    expect(sentences([{ id: 'a' }])[0]).toBe('parts[0].members is missing.');
    expect(sentences([{ id: 'a', members: [4, { id: 'b', kind: 'bar' }] }]).join()).toContain('parts[0].members[0]');
    expect(sentences([{ id: 'a', members: [rectangle('r', Number.NaN, 0)] }]).join()).toContain('placement.x');
  });
});

test('parts that go along in a circle, or with nothing, are refused with their name', () => {
  const along = (id: string, leader: string | null) => ({ ...part(id, []), placement: { x: 0, y: 0 }, along: leader });
  const sentences = (...parts: Draft[]) => {
    const done = checkJob({ format: 2, sheet: { width: 300, height: 200 }, parts });
    return done.ok ? [] : done.sentences;
  };
  expect(sentences(along('a', null), along('b', 'a'), along('c', 'b'))).toEqual([]);
  expect(sentences(along('a', 'gone'))).toEqual(['parts[0].along: there is no part “gone”.']);
  expect(sentences(along('a', 'b'), along('b', 'a'), along('c', 'b'))).toEqual([
    'parts[0].along: parts can’t go along with each other in a circle.',
    'parts[1].along: parts can’t go along with each other in a circle.',
  ]);
});

describe('format 10', () => {
  const keyOf = (document: Draft) => {
    const read = checkJob({ sheet: { width: 300, height: 200 }, ...document });
    if (!read.ok) throw new Error(read.sentences.join(' '));
    return read.job.colourKey;
  };
  const before = { cut: '#3730A3', score: '#0F766E', engrave: '#92400E', mark: '#BE185D' };

  test('colours that were never named stay as they were, new jobs begin with new ones', () => {
    expect(keyOf({ format: 1 })).toEqual(before);
    expect(keyOf({ format: 9, colourKey: { cut: '#112233' } })).toEqual({ ...before, cut: '#112233' });
    const now = keyOf({ format: 10 });
    for (const kind of ['cut', 'score', 'engrave', 'mark'] as const) expect(now[kind]).not.toBe(before[kind]);
    expect(migrate({ format: 9, colourKey: 'blue' }).colourKey).toBe('blue');
  });
});

describe('format 3', () => {
  const steps = (...list: Draft[]): Draft[] => {
    const [first] = (migrate({ format: 2, parts: [{ id: 'p', members: [], steps: list }] }).parts ?? []) as Draft[];
    return first?.steps as Draft[];
  };
  const kinds = (...list: Draft[]) => steps(...list).map((s) => s.kind);

  test('steps with a place of their own stand in it; the others keep their order', () => {
    expect(
      kinds(
        { kind: 'hatch' },
        { kind: 'bridge' },
        { kind: 'border' },
        { kind: 'dots' },
        { kind: 'nodes' },
        { kind: 'thicken' },
        { kind: 'weld' },
        { kind: 'centerline' },
      ),
    ).toEqual(['weld', 'border', 'thicken', 'nodes', 'bridge', 'hatch', 'dots', 'centerline']);
  });

  test('of kinds of which there is one, the one that was run is kept', () => {
    const [off, on] = [{ on: false, n: 1 }, { n: 2 }];
    for (const kind of ['tie', 'plate', 'nodes', 'bridge'])
      expect(steps({ kind, ...off }, { kind, ...on }, { kind, n: 3 }), kind).toEqual([{ kind, ...on }]);
    for (const kind of ['centerline', 'dots', 'hatch'])
      expect(steps({ kind, ...off }, { kind, ...on }), kind).toEqual([{ kind, ...off }]);
    for (const kind of ['tie', 'hatch'])
      expect(steps({ kind, ...off }, { kind, on: false, n: 9 }), kind).toEqual([{ kind, ...off }]);
    expect(steps({ kind: 'weld' }, { kind: 'weld', ...off })).toEqual([{ kind: 'weld', ...off }]);
  });

  test('of others all are kept, and what is no step is passed on', () => {
    for (const kind of ['thicken', 'bar', 'border'])
      expect(kinds({ kind }, { kind, on: false }), kind).toEqual([kind, kind]);
    const odd = [7, { kind: 'unheard of' }, null] as unknown as Draft[];
    expect(steps(...odd)).toEqual(odd);
    for (const parts of [undefined, 7, [7, { id: 'p', steps: 7 }]])
      expect(migrate({ format: 2, parts })).toMatchObject({ format: JOB_FORMAT, parts });
  });
});

describe('format 4', () => {
  test('three settings are called otherwise, in their places and with their values', () => {
    const parts = [
      {
        id: 'p',
        members: [
          { id: 'm', kind: 'artwork', close: { gap: 1, look: 2.5, doubles: 0 } },
          { id: 'n', look: 3, close: 7 },
        ],
        steps: [
          { kind: 'bridge', on: false, placed: [{ letter: 'words:0', x: 1, y: 2 }], width: 3 },
          { kind: 'hatch', rest: true, angle: 30 },
          { kind: 'tie', rest: 1, placed: 2 },
        ],
      },
    ];
    const done = migrate({ format: 3, parts });
    expect(JSON.stringify(done.parts)).toBe(
      JSON.stringify([
        {
          id: 'p',
          members: [
            { id: 'm', kind: 'artwork', close: { gap: 1, findUpTo: 2.5, doubles: 0 } },
            { id: 'n', look: 3, close: 7 },
          ],
          steps: [
            { kind: 'bridge', on: false, pinned: [{ letter: 'words:0', x: 1, y: 2 }], width: 3 },
            { kind: 'hatch', fillMissed: true, angle: 30 },
            { kind: 'tie', rest: 1, placed: 2 },
          ],
        },
      ]),
    );
    expect(done.format).toBe(JOB_FORMAT);
  });

  test('what is no part, step or member is passed on for the schema to name', () => {
    for (const parts of [undefined, 7, [7, null, { id: 'p', steps: 7, members: null }, { steps: [3], members: ['m'] }]])
      expect(migrate({ format: 3, parts })).toMatchObject({ format: JOB_FORMAT, parts });
  });
});

test('format 5: jobs of before have no pens of their own, and plotter files from the corner of the work', () => {
  const job = read({ format: 4, sheet: { width: 300, height: 200 }, parts: [] });
  expect(job.format).toBe(JOB_FORMAT);
  expect(job.operations.map((o) => o.pens)).toEqual([[], [], [], []]);
  expect(job.export.plotterOrigin).toBe('corner');
});
