import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { nestPaths } from '../../src/core/geometry/nesting';
import { flattenPath } from '../../src/core/geometry/path';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { fileName } from '../../src/core/job/file-names';
import { pictureOf, pictureSchema } from '../../src/core/job/picture';
import { reportOf } from '../../src/core/job/report';
import { LIMITS } from '../../src/core/limits';
import { finished } from '../../src/core/memo';
import { windingNumber } from '../support/area';
import { faces, wasmEngine } from '../support/faces';
import { demoJobs, jobWith, lettering, partOf } from '../support/jobs';
import { sample } from '../support/scale';

const fresh = () => new Evaluator(wasmEngine);
const evaluate = (job: Job) => fresh().evaluate(job, faces);
const codes = (job: Job) => evaluate(job).findings.map((f) => f.code);

test('a held result is the same as a fresh one, whatever was edited before', { tags: 'slow' }, () => {
  const evaluator = fresh();
  const text = fc.constantFrom('Alder', 'Alder Lane', 'Älder', 'A', '', 'gate\nsign', 'O');
  const face = fc.constantFrom('Pacifico', 'Archivo Black', 'Nowhere Sans');
  const member = fc.record({ text, face, turn: fc.constantFrom(0, 0, 30), mm: fc.constantFrom(20, 33.3) });
  const edit = fc.record({
    member,
    keep: fc.constantFrom('inside', 'outside'),
    weld: fc.boolean(),
    what: fc.constantFrom('outline', 'fill'),
  });
  fc.assert(
    fc.property(fc.array(edit, { minLength: 2, maxLength: 4 }), (edits) => {
      for (const e of edits) {
        const words = lettering(e.member.text, e.member.face, {
          size: { by: 'capital', mm: e.member.mm },
          placement: { x: 150, y: 100, turn: e.member.turn },
        });
        const job = jobWith([
          partOf([words], {
            keep: e.keep,
            steps: [{ kind: 'weld', on: e.weld }],
            work: [{ what: e.what, operation: e.what === 'fill' ? 'engrave' : 'cut' }],
          }),
        ]);
        expect(reportOf(job, evaluator.evaluate(job, faces))).toEqual(reportOf(job, evaluate(job)));
      }
    }),
    { numRuns: 40 },
  );
});

test('the same document gives the same bytes', { tags: 'slow' }, () => {
  for (const [name, job] of [...demoJobs()].slice(0, sample(3, 99))) {
    const bytes = () => {
      const drawing = drawingOf(job, evaluate(job));
      if (!drawing) throw new Error(name);
      return (['svg', 'dxf', 'pdf'] as const).map((format) =>
        Buffer.from(writeFile(drawing, format, job.export)).toString('base64'),
      );
    };
    expect(bytes(), name).toEqual(bytes());
  }
});

describe('findings', () => {
  test('lettering without words', () => expect(codes(jobWith([partOf([lettering('  ')])]))).toEqual(['no-words']));
  test('a typeface that is not there', () => {
    const result = evaluate(jobWith([partOf([lettering('Hi', 'Nowhere Sans')])]));
    expect(result.findings[0]?.sentence).toBe(
      'The typeface Nowhere Sans can’t be used: It is not among the typefaces here. The words are kept.',
    );
  });
  test('characters a face lacks', () => {
    const result = evaluate(jobWith([partOf([lettering('A漢', 'Bebas Neue')])]));
    expect(result.findings[0]?.sentence).toBe('Bebas Neue has no 漢; it is left out.');
  });
  test('too many characters', () => {
    const result = evaluate(jobWith([partOf([lettering('x'.repeat(10_000))])]));
    expect(result.findings.map((f) => f.code)).toEqual(['too-many-characters']);
    expect(result.findings[0]?.sentence).toContain('10,000 characters');
  });
  test('as many characters as are prepared', { tags: 'slow' }, () => {
    const text = `${'x'.repeat(99)}\n`.repeat(LIMITS.letteringCharacters / 100);
    const job = jobWith(
      [partOf([lettering(text, 'Bebas Neue', { size: { by: 'capital', mm: 1 } })], { keep: 'outside' })],
      {
        sheet: { width: 1000, height: 1000 },
      },
    );
    const [part] = evaluate(job).parts;
    expect(part?.outlines).toHaveLength((LIMITS.letteringCharacters / 100) * 99);
  });
  test('work off the sheet, in the job’s unit', () => {
    const at = (units: string) =>
      evaluate(jobWith([partOf([lettering('H', 'Archivo Black', { placement: { x: 150, y: -10 } })])], { units }))
        .findings[0]?.sentence;
    expect(at('mm')).toBe('“H” sticks out of the sheet by 10 mm.');
    expect(at('in')).toBe('“H” sticks out of the sheet by 0.394 in.');
  });
  test('fill and cut on the same letters', () => {
    const work = [
      { what: 'fill', operation: 'engrave' },
      { what: 'outline', operation: 'cut' },
    ];
    expect(codes(jobWith([partOf([lettering('H')], { work })]))).toEqual(['fill-and-cut']);
  });
  test('no operation, and operations that are off', () => {
    expect(codes(jobWith([partOf([lettering('H')], { work: [] })]))).toEqual(['no-operation']);
    const operations = [{ id: 'cut', name: 'Cut', kind: 'cut', on: false }];
    expect(codes(jobWith([partOf([lettering('H')])], { operations }))).toEqual(['operation-off']);
  });
  test('overlaps that are not welded', () => {
    const steps = [{ kind: 'weld', on: false }];
    expect(codes(jobWith([partOf([lettering('lemon', 'Pacifico')], { steps })]))).toEqual(['overlaps']);
    expect(codes(jobWith([partOf([lettering('H', 'Pacifico')], { steps })]))).toEqual([]);
  });
  test('cutting before engraving', () => {
    const operations = [
      { id: 'cut', name: 'Cut', kind: 'cut' },
      { id: 'engrave', name: 'Engrave', kind: 'engrave' },
    ];
    const parts = [
      partOf([lettering('H')], { id: 'a' }),
      partOf([lettering('H', 'Poppins')], { id: 'b', work: [{ what: 'fill', operation: 'engrave' }] }),
    ];
    expect(codes(jobWith(parts, { operations }))).toEqual(['cut-first']);
  });
  test('nothing left of a part', () => {
    const small = { id: 'a', kind: 'ellipse', placement: { x: 50, y: 50 }, width: 10, height: 10 };
    const cover = { id: 'b', kind: 'rectangle', role: 'punch', placement: { x: 50, y: 50 }, width: 30, height: 30 };
    expect(codes(jobWith([partOf([small, cover])]))).toEqual(['empty-part']);
  });
  test('left as it is with a reason', () => {
    const job = jobWith([partOf([lettering('i')])]);
    const [finding] = evaluate(job).findings;
    const left = { ...job, leftAsIs: [{ finding: finding?.key ?? '', reason: 'glued on' }] };
    expect(evaluate(left).findings[0]?.leftReason).toBe('glued on');
  });
  test('keys are all different', { tags: 'slow' }, () => {
    for (const [, job] of demoJobs()) {
      const keys = evaluate(job).findings.map((f) => f.key);
      expect(new Set(keys).size).toBe(keys.length);
    }
  });
});

test('inside comes before outside, over all parts of an operation', () => {
  const parts = [
    partOf([{ id: 'rim', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 280, height: 180 }], { id: 'rim' }),
    partOf([lettering('BOB 88')], { id: 'words' }),
  ];
  const cut = finished(evaluate(jobWith(parts)).run('full')).operations.find((o) => o.operation.id === 'cut');
  const paths = (cut?.drawn ?? []).flatMap(({ drawable }) => (drawable.kind === 'outline' ? [drawable.path] : []));
  // Three outlines of B and 8 each, two of O, and the rim.
  expect(paths).toHaveLength(4 * 3 + 2 + 1);
  const polygons = paths.map((p) => flattenPath(p, 0.01));
  for (const [i, inner] of polygons.entries())
    for (const [j, outer] of polygons.entries()) {
      const p = inner[0] as { x: number; y: number };
      if (i !== j && windingNumber(outer, p.x, p.y) !== 0) expect(i).toBeLessThan(j);
    }
  expect(Math.max(...nestPaths(paths).depth)).toBe(2);
});

test('hidden parts are left out of everything', () => {
  const job = jobWith([partOf([lettering('i')], { hidden: true })]);
  const result = evaluate(job);
  expect(result.parts).toEqual([]);
  expect(result.findings).toEqual([]);
  expect(drawingOf(job, result)).toBeNull();
});

test('what is off or empty is not in the drawing', () => {
  const operations = [
    { id: 'cut', name: 'Cut', kind: 'cut', on: false },
    { id: 'score', name: 'Score', kind: 'score' },
    { id: 'idle', name: 'Idle', kind: 'mark' },
  ];
  const work = [
    { what: 'outline', operation: 'cut' },
    { what: 'outline', operation: 'score' },
  ];
  const job = jobWith([partOf([lettering('H')], { work })], { operations });
  expect(drawingOf(job, evaluate(job))?.layers.map((l) => l.name)).toEqual(['Score']);
});

test('file names: job, piece, material', () => {
  const job = jobWith([partOf([lettering('H')], { name: 'Name Plate' })], {
    title: 'Gâte / sign: “2”',
    sheet: { width: 10, height: 10, material: 'Birch ply', thickness: 3.5 },
  });
  expect(fileName(job, 'svg')).toBe('gate-sign-2_birch-ply-3.5mm.svg');
  expect(fileName(job, 'dxf', { partIds: ['part'] })).toBe('gate-sign-2_name-plate_birch-ply-3.5mm.dxf');
  expect(fileName({ ...job, title: '///', sheet: { ...job.sheet, material: '', thickness: null } }, 'pdf')).toBe(
    'job.pdf',
  );
});

test('pictures are small and nothing but path data', { tags: 'slow' }, () => {
  for (const [name, job] of demoJobs()) {
    const picture = finished(pictureOf(job, evaluate(job)));
    expect(pictureSchema.safeParse(picture).success, name).toBe(true);
    expect(JSON.stringify(picture).length).toBeLessThan(LIMITS.pictureBytes);
    expect(picture.shapes.length).toBeGreaterThan(0);
  }
  expect(
    pictureSchema.safeParse({ width: 1, height: 1, shapes: [{ kind: 'cut', fill: false, d: 'M0 0"/><script>' }] })
      .success,
  ).toBe(false);
});

test('parts that differ only in place and name are each where they are, under their own names', () => {
  const at = (id: string, x: number, y: number) =>
    partOf([lettering('BOD', 'Poppins', { placement: { x, y } })], {
      id,
      keep: 'outside',
      steps: [{ kind: 'weld' }, { kind: 'plate' }, { kind: 'bridge', width: 2 }],
    });
  const both = new Evaluator(wasmEngine).evaluate(jobWith([at('a', 80, 60), at('b', 225.5, 140)]), faces);
  expect(both.parts.map((p) => p.id)).toEqual(['a', 'b']);
  for (const [i, [id, x, y]] of ([['a', 80, 60] as const, ['b', 225.5, 140] as const] as const).entries()) {
    const [alone] = new Evaluator(wasmEngine).evaluate(jobWith([at(id, x, y)]), faces).parts;
    const together = both.parts[i];
    expect(together?.outlines.length).toBe(alone?.outlines.length);
    together?.outlines.forEach((o, k) => {
      for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
        expect(o.box[side]).toBeCloseTo(alone?.outlines[k]?.box[side] ?? Number.NaN, 9);
    });
    expect(both.findings.filter((f) => f.partId === id)).toEqual([]);
  }
});
