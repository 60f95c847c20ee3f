/** What a machine understands of files: by hand-written ones, and of every sample job in every format. */
import { describe, expect, test } from 'vitest';
import { drawnLength } from '../../src/core/geometry/drawable';
import { Evaluator } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { finished } from '../../src/core/memo';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { type Profile, type Understood, understand } from '../../src/machine/understand';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, demoJobs } from '../support/jobs';

const profile = (more: Draft = {}): Profile =>
  machineSchema.parse({ name: 'Bench', kind: 'laser', areas: {}, ...more });
const svg = (inside: string, size = 'width="100mm" height="60mm" viewBox="0 0 100 60"') =>
  new TextEncoder().encode(`<svg xmlns="http://www.w3.org/2000/svg" ${size}>${inside}</svg>`);
const understood = async (bytes: Uint8Array, of: Profile | null = null): Promise<Understood> => {
  const made = await understand(bytes, of);
  if ('sentence' in made) throw new Error(made.sentence);
  return made;
};
const RED = 'fill="none" stroke="#ff0000"';
const BLUE = 'fill="none" stroke="#0000ff"';

describe('operations', () => {
  test('by layer and colour as the file comes to them, with lengths and ways between', async () => {
    const made = await understood(
      svg(
        `<path d="M10 10H40" ${RED}/><path d="M10 30H40V50H10Z" ${BLUE}/><path d="M40 20H10" ${RED}/><path d="M60 10h20v10h-20z" fill="#ff0000"/>`,
      ),
    );
    expect(made.operations.map((o) => [o.colour, o.isFilled, o.paths, o.open])).toEqual([
      ['#ff0000', false, 2, 2],
      ['#0000ff', false, 1, 0],
      ['#ff0000', true, 1, 0],
    ]);
    const [red, blue] = made.operations;
    expect(red?.lengthMm).toBeCloseTo(60, 6);
    // From 0, 0 at the lower left to the first, then 10 mm to the start of the second.
    expect(red?.travelMm).toBeCloseTo(Math.hypot(10, 50) + 10, 6);
    expect(blue?.lengthMm).toBeCloseTo(100, 6);
    expect(blue?.travelMm).toBeCloseTo(10, 6);
    expect(made.troubles).toEqual([]);
    expect(made).toMatchObject({ format: 'SVG', isUnitStated: true });
  });

  test('what no machine runs is passed over, and said', async () => {
    const made = await understood(svg(`<path d="M0 0H9" ${RED}/><text x="5" y="5">Elm</text>`));
    expect(made.troubles).toEqual([expect.stringContaining('1 line of words is passed over')]);
    expect((await understood(svg(''))).troubles).toEqual(['There is nothing in it to run.']);
    const unit = await understood(svg(`<path d="M0 0H9" ${RED}/>`, 'width="100" height="60"'));
    expect(unit.notes).toEqual([expect.stringContaining('does not say what its numbers are')]);
    expect(unit.troubles).toEqual([]);
  });

  test('what is no drawing is answered with a sentence', async () => {
    for (const bytes of [new Uint8Array(0), new TextEncoder().encode('Elm'), svg('').slice(0, 4)])
      expect(await understand(bytes, null)).toEqual({ sentence: expect.any(String) });
  });
});

describe('held against a machine', () => {
  const square = `<path d="M10 10H40V40H10Z" ${RED}/>`;
  const troubles = async (inside: string, more: Draft) => (await understood(svg(inside), profile(more))).troubles;

  test('the bed, the format, segments and kinds of curves', async () => {
    expect(await troubles(square, {})).toEqual([]);
    expect(await troubles(square, { bed: { width: 30, height: 30 } })).toEqual([]);
    expect(await troubles(square, { bed: { width: 30, height: 29.9 } })).toEqual([
      'It is 30 mm × 30 mm; the bed of Bench is 30 mm × 29.9 mm.',
    ]);
    expect(await troubles(square, { file: { format: 'dxf' } })).toEqual(['Bench reads DXF; this is SVG.']);
    expect(await troubles(`${square}${square}${square}`, { file: { mostSegments: 11 } })).toEqual([
      'It has 12 segments; Bench takes 11 at most.',
    ]);
    const bend = `<path d="M10 10C20 0 30 0 40 10" ${RED}/>`;
    expect(await troubles(bend, { file: { curves: 'arcs' } })).toEqual([
      'It has curves; Bench reads lines and arcs alone.',
    ]);
    expect(await troubles(bend, { file: { curves: 'lines' } })).toEqual(['It has curves; Bench reads lines alone.']);
    expect(await troubles(`<path d="M10 10A9 9 0 0 0 28 10" ${RED}/>`, { file: { curves: 'lines' } })).toEqual([
      'It has arcs; Bench reads lines alone.',
    ]);
  });

  test('colours and layers it reads say what it does; others do nothing', async () => {
    const colours = { cut: '#FF0000', score: '#00FF00', engrave: '#000000', mark: '#0000FF' };
    const made = await understood(svg(`${square}<path d="M0 0H9" ${BLUE}/>`), profile({ file: { colours } }));
    expect(made.operations.map((o) => o.kind)).toEqual(['cut', 'mark']);
    expect(await troubles(`<path d="M0 0H9" fill="none" stroke="#123456"/>`, { file: { colours } })).toEqual([
      'Bench does nothing with “#123456”: it is no colour it reads.',
    ]);
    const layers = { cut: 'CUT', score: 'SCORE', engrave: 'ENGRAVE', mark: 'MARK' };
    const named = await understood(
      svg(`<g id="Cut">${square}</g><g id="Etch">${square}</g>`),
      profile({ file: { layers } }),
    );
    expect(named.operations.map((o) => o.kind)).toEqual(['cut', null]);
    expect(named.troubles).toEqual(['Bench does nothing with “Etch”: it is no layer it reads.']);
  });

  test('areas where it does not go over them, and what is filled but open', async () => {
    const area = '<path d="M10 10H40V40H10Z" fill="#000000"/>';
    expect(await troubles(area, {})).toEqual([]);
    expect(await troubles(area, { areas: null })).toEqual(['“#000000” is filled, and Bench does not go over areas.']);
    expect(await troubles('<path d="M10 10H40V40" fill="#000000"/>', {})).toEqual([
      expect.stringContaining('1 open path of “#000000” is filled'),
    ]);
  });
});

describe('every sample job in every format', () => {
  const evaluator = new Evaluator(wasmEngine);
  // Those that need nothing but themselves.
  const jobs = [...demoJobs()].filter(([, job]) =>
    job.parts.every((p) => p.members.every((m) => m.kind !== 'artwork')),
  );
  test('there are some', () => {
    expect(jobs.length).toBeGreaterThan(4);
  });
  test.each(jobs)('%s: runs as it is, and is as long as what is drawn', async (_, job) => {
    const result = evaluator.evaluate(job, faces);
    for (const format of ['svg', 'dxf', 'pdf', 'hpgl'] as const) {
      const made = finished(makeFiles(job, result, [format], { partIds: null }));
      if (made.refused.length > 0) throw new Error(made.refused.join(' '));
      const [file] = made.files;
      const { troubles, operations } = await understood(file?.bytes ?? new Uint8Array(0));
      expect(troubles, format).toEqual([]);
      const drawn = result.operations
        .filter((o) => o.operation.on)
        .flatMap((o) => o.drawn.filter((d) => d.drawable.kind !== 'area' && d.drawable.kind !== 'dot'))
        .reduce((sum, d) => sum + drawnLength(d.drawable), 0);
      const lines = operations.filter((o) => !o.isFilled).reduce((sum, o) => sum + o.lengthMm, 0);
      const has = (kind: string) => result.operations.some((o) => o.drawn.some((d) => d.drawable.kind === kind));
      // Dots are circles there, and a DXF and a plotter file have areas by their outlines.
      if (drawn > 0 && !has('dot') && !(has('area') && (format === 'dxf' || format === 'hpgl')))
        expect(lines / drawn, format).toBeCloseTo(1, 2);
    }
  });
});
