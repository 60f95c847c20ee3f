/** Proofs: of files as they are nothing differs; of what was done to them everything does; and what lies on the table after the run. */
import { describe, expect, test } from 'vitest';
import { setMachine } from '../../src/core/commands/shop';
import type { Job } from '../../src/core/document/schema';
import type { Drawing, Layer } from '../../src/core/formats/drawing';
import { writtenFormat } from '../../src/core/formats/written';
import { type Drawable, drawnPaths, moveDrawable, polyline } from '../../src/core/geometry/drawable';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import { scaling, translation } from '../../src/core/geometry/point';
import { line } from '../../src/core/geometry/segment';
import type { MeantFile } from '../../src/core/job/machine-files';
import { jobMachineSchema } from '../../src/core/schema/shop/machine';
import { startingShop } from '../../src/core/shop/starting';
import { figure } from '../support/figures';
import { type Draft, demoJobs, jobWith, lettering, partOf } from '../support/jobs';
import { codesOf, findingsOf, meantOf, proved, writtenAs } from '../support/proof';
import { type Chance, chance } from '../support/random';
import { inFull, sample } from '../support/scale';

const shop = startingShop();
const machines = shop.machines.map(({ id, entry }) => ({ ...entry, id }));
/** Drawings that were brought in are not at hand here. */
const jobs = [...demoJobs()].filter(([, job]) => job.parts.every((p) => p.members.every((m) => m.kind !== 'artwork')));

/** What a machine may say of a job that is not made for it. */
const notForIt = (job: Job, sentence: string): boolean =>
  job.machine !== null && (sentence.includes('the bed of') || sentence.includes('does not go over areas'));

describe('nothing differs', () => {
  test.each(jobs)('%s: as any machine runs it', async (_, job) => {
    const { findings, proved: run } = await proved(job);
    expect(findings).toEqual([]);
    expect(run?.program.items.length).toBeGreaterThan(0);
  });

  test.each(inFull ? jobs : jobs.filter(([name]) => ['bench-plaque', 'gate-sign'].includes(name)))(
    '%s: in the profile of every machine of the shop',
    { tags: 'slow' },
    async (_, of) => {
      for (const machine of machines) {
        const job = setMachine(of, machine, shop);
        const { findings } = await proved(job);
        expect(
          findings.filter((f) => !notForIt(job, f.sentence)),
          machine.name,
        ).toEqual([]);
      }
    },
  );

  test('letters that a wide tool takes nearly apart: what chords tell otherwise is looked at exactly', {
    tags: 'slow',
  }, async () => {
    const router = machines.find((m) => m.name === 'Router');
    const job = demoJobs().get('bed-markers');
    if (!router || !job) throw new Error('no router, or no markers');
    expect((await proved(setMachine(job, router, shop))).findings).toEqual([]);
  });

  test('words filled with close lines, some of them of ten nanometres', { tags: 'slow' }, async () => {
    const words = lettering(Array(3).fill('Gate sign Alder Lane no 7').join('\n'), 'Archivo Black', {
      size: { by: 'capital', mm: 40 },
    });
    const { findings } = await proved(
      jobWith(
        [
          partOf([words], {
            placement: { x: 300, y: 100 },
            steps: [{ kind: 'weld' }, { kind: 'hatch', tool: { shape: 'round', tip: 0.1 } }],
            work: [{ what: 'hatch', operation: 'mark' }],
          }),
        ],
        {
          sheet: { width: 600, height: 300 },
          machine: machineOf({ format: 'pdf', curves: 'curves' }),
          operations: [{ id: 'mark', name: 'Mark', kind: 'mark' }],
        },
      ),
    );
    expect(findings).toEqual([]);
  });

  test('signs by chance, in a profile by chance', { tags: 'slow' }, async () => {
    for (let seed = 0; seed < sample(8, 100); seed++) {
      const next = chance(seed + 1);
      const machine = machines[Math.floor(next() * machines.length)];
      const job = machine ? setMachine(signByChance(next), machine, shop) : signByChance(next);
      const { findings } = await proved(job);
      expect(
        findings.filter((f) => !notForIt(job, f.sentence)),
        `seed ${seed}, ${machine?.name}`,
      ).toEqual([]);
    }
  });
});

const FACES = ['Archivo Black', 'Poppins', 'Pacifico', 'Libre Baskerville', 'Alfa Slab One', 'Bebas Neue'];
const WORDS = ['Elm', 'Bay 8', 'Open', 'Dill', 'Rosemary', 'No. 12', 'Beans & Peas'];
const pick = <T>(list: readonly T[], next: Chance): T => list[Math.floor(next() * list.length)] as T;

/** Words cut out of a plate that is cut, or engraved on it, with a score around. */
function signByChance(next: Chance): Job {
  const kind = pick(['letters', 'stencil', 'engraved', 'scored'] as const, next);
  const size = { size: { by: 'capital', mm: 12 + 20 * next() } };
  const words = lettering(pick(WORDS, next), pick(FACES, next), size);
  const plate = (id: string, width: number, height: number, work: Draft[]) =>
    partOf([{ id: 'r', kind: 'rectangle', placement: { x: 0, y: 0 }, width, height, corner: 4 }], {
      id,
      placement: { x: 300, y: 150 },
      work,
    });
  const cut = [{ what: 'outline', operation: 'cut' }];
  const at = { placement: { x: 150, y: 50 }, hangsTogether: 'no' };
  const parts: Draft[] = {
    letters: [partOf([words], { ...at, work: cut })],
    stencil: [plate('plate', 420, 120, cut), partOf([words], { ...at, id: 'words', keep: 'outside', work: cut })],
    engraved: [
      plate('plate', 420, 120, cut),
      partOf([words], { ...at, id: 'words', work: [{ what: 'fill', operation: 'engrave' }] }),
    ],
    scored: [
      plate('plate', 420, 120, cut),
      plate('border', 400, 100, [{ what: 'outline', operation: 'score' }]),
      partOf([words], { ...at, id: 'words', work: [{ what: 'hatch', operation: 'mark' }], steps: [{ kind: 'hatch' }] }),
    ],
  }[kind];
  const beside = next() < 0.5;
  return jobWith(parts, {
    sheet: { width: 600, height: 300, kerf: beside ? 0.1 + next() : null },
    operations: [
      { id: 'engrave', name: 'Engrave', kind: 'engrave', scan: { interval: 0.1 } },
      { id: 'mark', name: 'Mark', kind: 'mark' },
      { id: 'score', name: 'Score', kind: 'score' },
      { id: 'cut', name: 'Cut', kind: 'cut', kerfSide: beside ? 'beside' : 'line' },
    ],
  });
}

const machineOf = (file: Draft) =>
  jobMachineSchema.parse({ name: 'Any', kind: 'laser', file, bed: { width: 3000, height: 2000 } });

/** A sign with all kinds of work, for machines of all formats. */
const trial = (file: Draft): Job =>
  jobWith(
    [
      partOf([{ id: 'r', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 200, height: 90, corner: 6 }], {
        id: 'plate',
        placement: { x: 150, y: 100 },
      }),
      partOf([lettering('Bay 8', 'Poppins')], {
        id: 'words',
        placement: { x: 0, y: -10 },
        work: [{ what: 'fill', operation: 'engrave' }],
      }),
      partOf([{ id: 'e', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 12, height: 12 }], {
        id: 'hole',
        placement: { x: 70, y: 100 },
        keep: 'outside',
      }),
      partOf([{ id: 's', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 170, height: 70, corner: 9 }], {
        id: 'border',
        placement: { x: 150, y: 100 },
        work: [{ what: 'outline', operation: 'score' }],
      }),
    ],
    { machine: { id: 'm', name: 'Bench', kind: 'laser', areas: {}, file } },
  );

const layersOf = (drawing: Drawing, change: (layer: Layer, i: number) => Layer): Drawing => ({
  ...drawing,
  layers: drawing.layers.map(change),
});
const drawnOf = (drawing: Drawing, at: number, change: (drawn: readonly Drawable[]) => readonly Drawable[]): Drawing =>
  layersOf(drawing, (layer, i) => (i === at ? { ...layer, drawn: change(layer.drawn) } : layer));
const moved = (drawing: Drawing, by: Parameters<typeof moveDrawable>[1]): Drawing =>
  layersOf(drawing, (layer) => ({ ...layer, drawn: layer.drawn.map((d) => moveDrawable(d, by)) }));
const asChords = (path: Path, tolerance: number): Path => {
  const points = flattenPath(path, tolerance);
  const ends = path.closed ? [...points, ...points.slice(0, 1)] : points;
  return {
    closed: path.closed,
    segments: ends.slice(1).map((p, i) => {
      const q = ends[i] as typeof p;
      return line(q.x, q.y, p.x, p.y);
    }),
  };
};
const lastOf = ({ layers }: Drawing): number => layers.length - 1;

/** What may be done to a file, and what the proof calls that: by more than twice what curves may stray. */
const SPOILS: Readonly<Record<string, { do: (drawing: Drawing, next: Chance) => Drawing; code: RegExp }>> = {
  'another unit': { do: (d) => moved(d, scaling(25.4)), code: /size/ },
  'a thousandth larger': { do: (d) => moved(d, scaling(1.001)), code: /size|changed|missing/ },
  'a layer gone': {
    do: (d, next) => {
      const gone = Math.floor(next() * d.layers.length);
      return { ...d, layers: d.layers.filter((_, i) => i !== gone) };
    },
    code: /missing/,
  },
  'layers exchanged': {
    do: (d) =>
      layersOf(d, (layer, i) => {
        const { name, colour, pen } = d.layers[(i + 1) % d.layers.length] as Layer;
        return { ...layer, name, colour, pen };
      }),
    code: /layer|missing/,
  },
  'a path opened': {
    do: (d) =>
      drawnOf(d, lastOf(d), ([first, ...rest]) => {
        const [path] = drawnPaths(first as Drawable);
        return [polyline({ closed: false, segments: (path as Path).segments.slice(0, -1) }), ...rest];
      }),
    code: /changed|missing/,
  },
  'a line twice': {
    do: (d) => drawnOf(d, lastOf(d), (drawn) => [...drawn, drawn[0] as Drawable]),
    code: /twice|more/,
  },
  'the order turned': {
    do: (d) => drawnOf(d, lastOf(d), (drawn) => [...drawn].reverse()),
    code: /order/,
  },
  'all of it moved': { do: (d, next) => moved(d, translation(0.2 + next(), -0.3)), code: /moved/ },
  'a line moved': {
    do: (d) =>
      drawnOf(d, lastOf(d), ([first, ...rest]) => [moveDrawable(first as Drawable, translation(0.3, 0)), ...rest]),
    code: /changed|missing/,
  },
  'a line missing': { do: (d) => drawnOf(d, lastOf(d), (drawn) => drawn.slice(1)), code: /missing/ },
  'curves too coarse': {
    do: (d) =>
      layersOf(d, (layer) => ({
        ...layer,
        drawn: layer.drawn.map((drawn) => {
          const path = drawn.kind === 'outline' ? drawn.path : null;
          return path ? ({ ...drawn, path: asChords(path, 6 * layer.tolerance) } as Drawable) : drawn;
        }),
      })),
    code: /changed|missing/,
  },
};

const FORMATS: Readonly<Record<string, Draft>> = {
  SVG: { format: 'svg' },
  'DXF in mm': { format: 'dxf', curves: 'arcs' },
  'DXF R12 in inches': { format: 'dxf', dxf: 'R12', unit: 'in', curves: 'arcs' },
  PDF: { format: 'pdf' },
  plotter: { format: 'hpgl', curves: 'lines' },
};

describe.each(Object.entries(FORMATS))('of a file as %s', (_, file) => {
  const job = trial(file);
  const files = meantOf(job);

  test('as it is nothing differs', async () => {
    expect((await proved(job, undefined, files)).findings).toEqual([]);
  });

  test.each(Object.entries(SPOILS))('%s is found', async (_, { do: spoil, code }) => {
    const next = chance(7);
    const made = await proved(job, (of: MeantFile) => writtenAs(job, of, spoil(of.meant.drawing, next)), files);
    expect(codesOf(made).join(' ')).toMatch(code);
    for (const { sentence } of made.findings) expect(sentence).toMatch(/^[^\n]+\.$/);
  });

  test('cut short at any place, it is found', async () => {
    const next = chance(3);
    for (let k = 0; k < sample(4, 30); k++) {
      const { findings } = await proved(
        job,
        ({ bytes }) => bytes.slice(0, Math.floor(bytes.length * (0.05 + 0.9 * next()))),
        files,
      );
      expect(findings.length).toBeGreaterThan(0);
    }
  });
});

/** By how much a file a thousandth larger reaches farther, in mm, and how exact it is. */
const growth = ({ meant: { drawing } }: MeantFile): number => Math.max(drawing.width, drawing.height) / 1000;
const exactness = ({ meant: { drawing }, format, keepsCurves }: MeantFile): number =>
  (keepsCurves ? 0 : Math.max(...drawing.layers.map((l) => l.tolerance))) +
  (writtenFormat(format).keeps.gridMm ?? 0) / 2;

test('signs by chance, in a profile by chance, spoiled by chance: every file is found', { tags: 'slow' }, async () => {
  const count = sample(12, 500);
  const spoils = Object.entries(SPOILS);
  let [tried, missed] = [0, [] as string[]];
  for (let seed = 0; tried < count; seed++) {
    const next = chance(10_000 + seed);
    const machine = pick(machines, next);
    const job = setMachine(signByChance(next), machine, shop);
    const files = meantOf(job);
    const [name, { do: spoil }] = pick(spoils, next);
    const plain = files.map((of) => writtenAs(job, of, of.meant.drawing));
    const spoiled = files.map((of) => writtenAs(job, of, spoil(of.meant.drawing, next)));
    // Some have but one layer, or one line: what changes nothing there is no fault.
    if (spoiled.every((bytes, i) => Buffer.from(bytes).equals(Buffer.from(plain[i] ?? [])))) continue;
    // So small a sign grows by less than its file is exact to.
    if (name === 'a thousandth larger' && files.every((of) => growth(of) < 2 * exactness(of))) continue;
    tried++;
    const { findings } = await proved(job, (of) => spoiled[files.indexOf(of)] ?? of.bytes, files);
    if (findings.filter((f) => !notForIt(job, f.sentence)).length === 0) missed.push(`${name}, seed ${seed}`);
  }
  figure({
    name: `files of ${count} spoiled at random that the proof did not find`,
    value: missed.length,
    digits: 0,
    aim: { most: 0 },
  });
  expect(missed).toEqual([]);
});

describe('written mirrored, to be worked from behind', () => {
  test.each(Object.entries(FORMATS))(
    '%s: nothing differs, and it is not what is seen from the front',
    async (_, file) => {
      const front = trial(file);
      const behind = { ...front, export: { ...front.export, mirrored: true } };
      const files = meantOf(behind);
      expect(files.map((f) => f.name).join()).toContain('_mirrored.');
      expect((await proved(behind, undefined, files)).findings).toEqual([]);
      const [seen, turned] = [meantOf(front)[0], files[0]];
      expect(seen?.meant.drawing.width).toBe(turned?.meant.drawing.width);
      // The hole of the sign, left on the sheet, is right on the page.
      const holeAt = (made: MeantFile | undefined) => {
        const cut = made?.meant.drawing.layers.at(-1)?.drawn.map((d) => d.box) ?? [];
        const hole = cut.find((box) => Math.abs(box.maxX - box.minX - 12) < 0.01);
        return ((hole?.minX ?? 0) + (hole?.maxX ?? 0)) / 2;
      };
      const width =
        files[0]?.format === 'hpgl' || files[0]?.format === 'dxf' ? 200 : (turned?.meant.drawing.width ?? 0);
      expect(holeAt(seen) + holeAt(turned)).toBeCloseTo(width, 3);
      // What is meant from the front is not what the mirrored file does.
      const other = await proved(front, () => turned?.bytes ?? new Uint8Array(0), meantOf(front));
      expect(other.findings.length).toBeGreaterThan(0);
    },
  );

  test('a part that is mirrored on the sheet already is found', () => {
    const part = (mirrored: boolean) =>
      partOf([lettering('Elm')], { placement: { x: 0, y: 0, mirror: mirrored }, hangsTogether: 'no' });
    const codes = (mirrored: boolean, files: boolean) =>
      findingsOf(jobWith([part(mirrored)], { export: { mirrored: files } })).map((f) => f.code);
    expect(codes(true, true)).toContain('mirrored-twice');
    expect(codes(true, false)).not.toContain('mirrored-twice');
    expect(codes(false, true)).not.toContain('mirrored-twice');
  });
});

test('a drawing in inches that does not say so is taken for what the machine takes it for', async () => {
  const file = { format: 'dxf', dxf: 'R12', unit: 'in', curves: 'arcs' };
  const job = trial(file);
  expect((await proved(job)).findings).toEqual([]);
  const other = trial({ ...file, unit: 'mm' });
  const files = meantOf(job);
  const made = await proved(other, undefined, files);
  expect(codesOf(made)).toContain('size');
  expect(made.findings[0]?.sentence).toContain('times as large');
});
