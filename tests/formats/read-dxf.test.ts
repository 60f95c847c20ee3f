/** DXF files written by an independent program, read and compared with that program's own flattening. */
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { readDrawing } from '../../src/core/formats/read';
import type { ReadDrawing } from '../../src/core/formats/read-drawing';
import { flattenPath } from '../../src/core/geometry/path';
import { LIMITS } from '../../src/core/limits';
import { folder } from '../support/checkers';
import { figure } from '../support/figures';
import { apartAtMost, type Polyline } from '../support/polyline-distance';
import { chance } from '../support/random';
import { inFull, sample } from '../support/scale';

type Written = { file: string; version: string; layers: Record<string, [number, number][][]> };

/** Points of a spline’s own flattening: how near it can be told that ours is, and nearly all the time that the writing takes. */
const POINTS = String(sample(900, 8_000));

/** Binary files end in b. */
const VERSIONS = inFull ? 'R12,R2000,R2004,R2007,R2010,R2013,R2018,R12b,R2000b,R2018b' : 'R12,R2018b';

const write = (seed: number): Written[] =>
  JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/formats/make_dxf.py', folder(), String(seed), VERSIONS, POINTS], {
      encoding: 'utf8',
      maxBuffer: 1 << 30,
    }),
  ) as Written[];

const read = (bytes: Uint8Array): ReadDrawing => {
  const reading = readDrawing(bytes);
  if (!reading.ok) throw new Error(reading.sentence);
  return reading.found;
};

/** Points of what was read, by layer; closed outlines end where they start. */
function byLayer(found: ReadDrawing): Map<string, Polyline[]> {
  const layers = new Map<string, Polyline[]>();
  for (const shape of found.shapes) {
    const name = found.groups[shape.group]?.name ?? '';
    for (const path of shape.paths) {
      const points = flattenPath(path, 0.002).map((p): [number, number] => [p.x, p.y]);
      if (path.closed && points[0]) points.push(points[0]);
      layers.set(name, [...(layers.get(name) ?? []), points]);
    }
  }
  return layers;
}

describe('DXF', () => {
  let made: Written[] | null = null;
  /** Files of every kind, written when first asked for. */
  const everyKind = (): Written[] => {
    made ??= Array.from({ length: sample(1, 5) }, (_, i) => write(100 * i)).flat();
    return made;
  };

  test('every kind of entity, in blocks in blocks, turned, scaled and mirrored, R12 to 2018, text and binary', {
    tags: 'slow',
  }, () => {
    const written = everyKind();
    let worst = 0;
    for (const { file, layers } of written) {
      const found = read(readFileSync(file));
      const ours = byLayer(found);
      expect(found.notes, file).toEqual([]);
      expect(found.unread, file).toEqual([]);
      expect([...ours.keys()].sort(), file).toEqual(Object.keys(layers).sort());
      for (const [layer, lines] of Object.entries(layers)) {
        const apart = apartAtMost(lines, ours.get(layer) as Polyline[]);
        expect(apart, `${file} ${layer}`).toBeLessThan(0.01);
        worst = Math.max(worst, apart);
      }
    }
    figure({
      name: 'DXF read, against ezdxf’s own flattening',
      value: worst,
      digits: 5,
      unit: 'mm',
      aim: { most: 0.01 },
      note: `worst of ${written.length} files R12 to 2018, text and binary`,
    });
  });

  test('comments before the first section, whatever ends their lines', () => {
    for (const end of ['\n', '\r\n'])
      for (const before of [[], ['999', 'made by hand'], ['999', 'one', '999', '', ' 999', 'three']]) {
        const tags = [
          ...before,
          '  0',
          'SECTION',
          '  2',
          'ENTITIES',
          '  0',
          'LINE',
          '  8',
          '0',
          ' 10',
          '1',
          ' 20',
          '2',
          ' 11',
          '3',
          ' 21',
          '4',
        ];
        const text = [...tags, '  0', 'ENDSEC', '  0', 'EOF', ''].join(end);
        expect(read(new TextEncoder().encode(text)).shapes).toHaveLength(1);
      }
  });

  test('an arc that is all but straight keeps its outline, wherever its middle lies', () => {
    const corners = [
      [0, 0, 1e-7],
      [10, 0, 0.001],
      [10, 10, 0],
      [0, 10, -1e-9],
    ];
    const tags = ['0', 'SECTION', '2', 'ENTITIES', '0', 'LWPOLYLINE', '8', '0', '90', '4', '70', '1'];
    for (const [x, y, bulge] of corners) tags.push('10', String(x), '20', String(y), '42', String(bulge));
    const found = read(new TextEncoder().encode([...tags, '0', 'ENDSEC', '0', 'EOF', ''].join('\n')));
    expect(found.unread).toEqual([]);
    expect(found.shapes[0]?.paths[0]?.segments).toHaveLength(4);
  });

  test('a file that breaks off anywhere gives what came before, and says so', { tags: 'slow' }, () => {
    const written = everyKind();
    const pictures = new Map(written.map(({ file }) => [file, byLayer(read(readFileSync(file)))]));
    const next = chance(7);
    let readable = 0;
    for (const { file } of written.slice(0, inFull ? 4 : 2)) {
      const whole = pictures.get(file) as Map<string, Polyline[]>;
      const bytes = readFileSync(file);
      for (let i = 0; i < sample(14, 50); i++) {
        const reading = readDrawing(bytes.subarray(0, Math.floor(next() * bytes.length)));
        if (!reading.ok) {
          expect(reading.sentence).toMatch(/^This .*\.$/);
          continue;
        }
        readable++;
        const ours = byLayer(reading.found);
        expect(reading.found.notes.length, `${i}`).toBeGreaterThan(0);
        // What is read is some of the whole, never anything else.
        for (const [layer, lines] of ours) {
          const all = new Set((whole.get(layer) ?? []).map((line) => JSON.stringify(line)));
          for (const line of lines) expect(all.has(JSON.stringify(line)), `${file} ${i} ${layer}`).toBe(true);
        }
      }
    }
    expect(readable).toBeGreaterThan(sample(16, 60));
  });
});

describe('DXF files that mean harm', () => {
  type Pair = readonly [number, string | number];
  const file = (entities: readonly Pair[], blocks: readonly Pair[] = []): Uint8Array =>
    new TextEncoder().encode(
      [
        [0, 'SECTION'],
        [2, 'BLOCKS'],
        ...blocks,
        [0, 'ENDSEC'],
        [0, 'SECTION'],
        [2, 'ENTITIES'],
        ...entities,
        [0, 'ENDSEC'],
        [0, 'EOF'],
      ]
        .map(([code, value]) => `${code}\n${value}\n`)
        .join(''),
    );
  const line: readonly Pair[] = [
    [0, 'LINE'],
    [8, '0'],
    [10, 0],
    [20, 0],
    [11, 5],
    [21, 5],
  ];
  const insert = (name: string, more: readonly Pair[] = []): Pair[] => [
    [0, 'INSERT'],
    [8, '0'],
    [2, name],
    [10, 1],
    [20, 1],
    ...more,
  ];
  const block = (name: string, body: readonly Pair[]): Pair[] => [
    [0, 'BLOCK'],
    [2, name],
    [10, 0],
    [20, 0],
    ...body,
    [0, 'ENDBLK'],
  ];
  const kinds = (found: ReadDrawing) => found.unread.map((u) => u.kind);

  test('blocks in blocks without end, rows and columns without end, blocks that contain themselves', {
    tags: 'slow',
  }, () => {
    const levels = Array.from({ length: 40 }, (_, i) =>
      block(`B${i + 1}`, [...insert(`B${i}`), ...insert(`B${i}`)]),
    ).flat();
    const bomb = read(file(insert('B40'), [...block('B0', line), ...levels]));
    expect(bomb.notes[0]).toMatch(/more than 20,000 times/);
    const field = read(
      file(
        insert('A', [
          [70, 32000],
          [71, 32000],
          [44, 1],
          [45, 1],
        ]),
        block('A', line),
      ),
    );
    expect(field.shapes).toHaveLength(LIMITS.usedShapes);
    expect(field.notes[0]).toMatch(/more than 20,000 times/);
    const loop = read(file([...insert('A'), ...line], block('A', insert('A'))));
    expect([kinds(loop), loop.shapes.length]).toEqual([['blocks that contain themselves'], 1]);
    const deep = Array.from({ length: LIMITS.drawnDepth + 5 }, (_, i) => block(`D${i + 1}`, insert(`D${i}`))).flat();
    expect(kinds(read(file(insert(`D${LIMITS.drawnDepth + 5}`), [...block('D0', line), ...deep])))[0]).toMatch(
      /levels deep/,
    );
    expect(kinds(read(file([...insert('nowhere'), ...line])))).toEqual(['uses of blocks that are not there']);
  });

  test('numbers that are none, or beyond everything; counts that lie', () => {
    const bad = (x: string): Pair[] => [
      [0, 'LINE'],
      [8, '0'],
      [10, x],
      [20, 0],
      [11, 5],
      [21, 5],
    ];
    const found = read(file([...bad('nan'), ...bad('1e300'), ...bad('five'), ...line]));
    expect(found.shapes).toHaveLength(1);
    expect(found.unread).toEqual([{ kind: 'paths with places that are not numbers or beyond 100 m', count: 3 }]);
    const hatch: Pair[] = [
      [0, 'HATCH'],
      [8, '0'],
      [91, 2000000000],
      [92, 1],
      [93, 2000000000],
      [72, 1],
      [10, 0],
      [20, 0],
      [11, 1],
      [21, 1],
    ];
    expect(read(file([...hatch, ...line])).shapes.length).toBeGreaterThan(0);
    const spline: Pair[] = [
      [0, 'SPLINE'],
      [8, '0'],
      [71, 2000000000],
      [72, 5],
      [40, 0],
      [40, 0],
      [10, 0],
      [20, 0],
    ];
    const odd = read(file([...spline, [0, 'CIRCLE'], [8, '0'], [10, 0], [20, 0], [40, -1e308], ...line]));
    expect(odd.shapes.at(-1)?.paths[0]?.segments).toHaveLength(1);
    const none: Pair[] = [
      [0, 'POINT'],
      [8, '0'],
      [0, 'DIMENSION'],
      [8, '0'],
      [0, 'NONSENSE'],
      [8, '0'],
    ];
    expect(kinds(read(file(none)))).toEqual(['points', 'dimensions', 'entities called “NONSENSE”']);
  });

  test('text that says it is binary, binary that breaks off, and more entities than are read', { tags: 'slow' }, () => {
    const mark = '0123456 Binary DXF\r\n\x1a\0';
    const bytes = new TextEncoder().encode(`${mark}and then some words that are no tags at all`);
    const reading = readDrawing(bytes);
    expect(reading.ok ? reading.found.notes[0] : reading.sentence).toMatch(/damaged|breaks off|no drawing/);
    const many = new Uint8Array(file(Array.from({ length: LIMITS.drawnElements + 1 }, () => [0, 'POINT'] as const)));
    expect(read(many).notes[0]).toMatch(/more than 500,000 entities/);
  });
});
