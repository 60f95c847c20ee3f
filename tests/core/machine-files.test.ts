/** Files as a machine wants them: read by the readers of files from elsewhere, and by counts of the test's own. */
import { describe, expect, test } from 'vitest';
import { setKerfSide } from '../../src/core/commands/operations';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { machineFileNames, machineFiles } from '../../src/core/job/machine-files';
import { finished } from '../../src/core/memo';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const text = (bytes: Uint8Array | undefined) => new TextDecoder().decode(bytes);
const WORK = [
  { what: 'outline', operation: 'cut' },
  { what: 'fill', operation: 'engrave' },
];
const sign = (file: Draft | null, more: Draft = {}): Job => {
  const job = jobWith(
    [
      partOf([{ id: 'r', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 120, height: 60 }], {
        id: 'plate',
        placement: { x: 200, y: 200 },
        work: [WORK[0]],
      }),
      partOf([lettering('Bay 8')], { placement: { x: 150, y: 190 }, work: [WORK[1]] }),
    ],
    { title: 'Bay', export: { nameFields: ['job'] }, ...more },
  );
  if (file === null) return job;
  const machine = { ...machineSchema.parse({ name: 'Table', kind: 'laser', file }), id: 'table' };
  return { ...job, machine };
};
const made = (job: Job, partIds: readonly string[] | null = null) =>
  finished(machineFiles(job, new Evaluator(wasmEngine).evaluate(job, faces), { partIds }));
const one = (job: Job) => {
  const { files, refused } = made(job);
  expect(refused).toEqual([]);
  expect(files).toHaveLength(1);
  return files[0] as (typeof files)[number];
};
/** Bulges of DXF polylines: one for each arc. */
const bulges = (dxf: string) => {
  const lines = dxf.split(/\r?\n/);
  const [from, to] = [lines.indexOf('ENTITIES'), lines.indexOf('OBJECTS')];
  return lines.filter((line, i) => i > from && i < to && line.trim() === '42').length;
};

test('without a machine there is nothing to write them by', () => {
  expect(made(sign(null))).toEqual({ files: [], refused: ['No machine is given for this job.'] });
  expect(machineFileNames(sign(null), ['cut'], { partIds: null })).toEqual([]);
});

describe('DXF', () => {
  test('has the version and unit it reads, whatever the job says', () => {
    const { name, bytes } = one(sign({ format: 'dxf', dxf: '2000', unit: 'in' }));
    expect(name).toBe('bay.dxf');
    expect(text(bytes)).toContain('AC1015');
    expect(text(bytes)).toMatch(/\$INSUNITS\s+70\s+1\s/);
  });

  test('of lines alone has no arcs, and strays no farther than curves may', () => {
    const asArcs = text(one(sign({ format: 'dxf', curves: 'arcs' })).bytes);
    const asLines = text(one(sign({ format: 'dxf', curves: 'lines' })).bytes);
    expect(bulges(asArcs)).toBeGreaterThan(20);
    expect(bulges(asLines)).toBe(0);
  });
});

test('SVG of arcs has arcs and lines, of lines alone nothing else', () => {
  const letters = (curves: string) =>
    new Set(
      [...text(one(sign({ format: 'svg', curves })).bytes).matchAll(/ d="([^"]*)"/g)]
        .flatMap(([, d = '']) => [...d.toUpperCase()])
        .filter((c) => /[A-Z]/.test(c) && c !== 'E'),
    );
  expect(letters('curves').has('C') || letters('curves').has('Q')).toBe(true);
  expect([...letters('arcs')].every((c) => 'MLHVAZ'.includes(c))).toBe(true);
  expect(letters('arcs').has('A')).toBe(true);
  expect([...letters('lines')].every((c) => 'MLHVZ'.includes(c))).toBe(true);
});

test('a dot is a circle, of lines alone a closed path', () => {
  const dotted = (curves: string) => {
    const job = sign({ format: 'svg', curves }, {});
    const parts = [
      ...job.parts,
      ...jobWith([
        partOf([lettering('i')], {
          id: 'dots',
          steps: [{ kind: 'weld' }, { kind: 'dots', along: 'outline' }],
          work: [{ what: 'dots', operation: 'mark' }],
          placement: { x: 220, y: 220 },
        }),
      ]).parts,
    ];
    return text(one({ ...job, parts }).bytes);
  };
  expect(dotted('curves')).toContain('<circle');
  expect(dotted('lines')).not.toContain('<circle');
});

test('one file for each operation, all on the same page', async () => {
  const job = sign({ format: 'svg', perOperation: true });
  const { files, refused } = made(job);
  expect(refused).toEqual([]);
  expect(files.map((f) => f.name)).toEqual(['bay_engrave.svg', 'bay_cut.svg']);
  expect(machineFileNames(job, ['engrave', 'cut'], { partIds: null })).toEqual(files.map((f) => f.name));
  const pages = files.map((f) => /viewBox="([^"]*)"/.exec(text(f.bytes))?.[1]);
  expect(pages[0]).toBe(pages[1]);
  // Of a part that is engraved alone there is one.
  expect(made(job, ['part']).files.map((f) => f.name)).toHaveLength(1);
});

test('files of operations that are called alike are told apart', () => {
  const job = sign({ format: 'svg', perOperation: true });
  const alike: Job = { ...job, operations: job.operations.map((o) => ({ ...o, name: 'Work' })) };
  expect(made(alike).files.map((f) => f.name)).toEqual(['bay_work.svg', 'bay_work-2.svg']);
});

test('colours and layer names by kind; an operation with a colour of its own keeps it', () => {
  const colours = { cut: '#FF0000', score: '#00FF00', engrave: '#0000FF', mark: '#FF00FF' };
  const layers = { cut: 'CUT_THROUGH', score: 'S', engrave: 'RASTER', mark: 'M' };
  const job = sign({ format: 'svg', colours, layers });
  const own: Job = {
    ...job,
    operations: job.operations.map((o) => (o.kind === 'cut' ? { ...o, colour: '#123456' } : o)),
  };
  expect(text(one(job).bytes)).toMatch(/#FF0000/i);
  expect(text(one(job).bytes)).toContain('CUT_THROUGH');
  expect(text(one(job).bytes)).toContain('RASTER');
  expect(text(one(own).bytes)).toMatch(/#123456/i);
  expect(text(one(own).bytes)).not.toMatch(/#FF0000/i);
});

test('where it keeps beside the outlines by itself its layers say on which side', () => {
  const layers = { cut: 'CUT', score: 'S', engrave: 'RASTER', mark: 'M' };
  const file = text(one(setKerfSide(sign({ format: 'svg', layers }), 'cut', 'machine')).bytes);
  expect(file).toContain('"CUT-outside"');
  expect(file).not.toContain('"CUT-2"');
});

test('more segments than it takes are not given out, and a sentence says what helps', () => {
  const { files, refused } = made(sign({ format: 'dxf', mostSegments: 20 }));
  expect(files).toEqual([]);
  expect(refused).toEqual([
    expect.stringMatching(
      /^Table takes 20 segments in a file and this one has \d+: let curves stray farther, or write one file for each operation\.$/,
    ),
  ]);
  expect(made(sign({ format: 'dxf', mostSegments: 5000 })).refused).toEqual([]);
  // The plate has four; the words are too many still.
  const apart = made(sign({ format: 'dxf', mostSegments: 20, perOperation: true })).refused;
  expect(apart).toEqual([expect.stringMatching(/: let curves stray farther\.$/)]);
});

test.each(['svg', 'dxf', 'pdf', 'hpgl'])('%s is one that can be read', async (format) => {
  const { name, bytes } = one(sign({ format, curves: 'lines' }));
  expect(name).toMatch(/^bay\./);
  expect(bytes.length).toBeGreaterThan(200);
});
