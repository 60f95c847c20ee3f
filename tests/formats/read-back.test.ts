/**
 * Files read back: what we write is found to be what was drawn, and a file that was spoiled is not. Spoiling goes by the bytes, as
 * a slip of a writer or a disk would; one that changes nothing a machine would notice is not counted.
 */
import { unzlibSync, zlibSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import type { Drawing, Layer } from '../../src/core/formats/drawing';
import { differenceFrom } from '../../src/core/formats/read-back/compare';
import { type FileFormat, WRITTEN_FORMATS, writtenFormat } from '../../src/core/formats/written';
import { type Drawable, dot, moveDrawable, polyline, polylines } from '../../src/core/geometry/drawable';
import { closedPath, flattenPath, type Path } from '../../src/core/geometry/path';
import { translation } from '../../src/core/geometry/point';
import { arcAbout, cubic, line } from '../../src/core/geometry/segment';
import { StrokeBuilder } from '../../src/core/geometry/strokes';
import { area, BLOB, outline } from '../support/drawables';
import { figure } from '../support/figures';
import { type Chance, chance } from '../support/random';
import { sample } from '../support/scale';

const SETTINGS = { lineWidth: 0.025, dxf: '2007', dxfUnit: 'mm', page: 'work', plotterOrigin: 'corner' } as const;
const TOLERANCE = 0.02;
const layer = (name: string, colour: string, drawn: readonly Drawable[], pen = 1): Layer => ({
  name,
  kind: 'cut',
  colour,
  tolerance: TOLERANCE,
  scan: null,
  pen,
  drawn,
});
const ring = (r: number): Path =>
  closedPath([arcAbout(50, 20, r, 0.3, Math.PI), arcAbout(50, 20, r, 0.3 + Math.PI, Math.PI)]);
const square = (x: number, y: number, side: number): Path =>
  closedPath([
    line(x, y, x + side, y),
    line(x + side, y, x + side, y + side),
    line(x + side, y + side, x, y + side),
    line(x, y + side, x, y),
  ]);
const wave: Path = {
  closed: false,
  segments: [cubic(5, 40, 15, 48, 20, 32, 30, 40), cubic(30, 40, 40, 48, 45, 32, 55, 40), line(55, 40, 60, 41)],
};
/** There and back along itself, as a stem that is gone along twice: nothing must jump from one way to the other. */
const thereAndBack: Path = {
  closed: false,
  segments: [cubic(5, 45, 15, 46, 25, 44, 35, 45), cubic(35, 45, 25, 44, 15, 46, 5, 45)],
};
/** The same, but shaking by less than the tolerance on the way: near it everywhere, and longer. */
const shaking: Path = (() => {
  const points = flattenPath(wave, 1e-5)
    .filter((_, i, all) => i % 12 === 0 || i === all.length - 1)
    .map(({ x, y }, i, all) => (i === 0 || i === all.length - 1 ? { x, y } : { x, y: y + (i % 2 ? 0.018 : -0.018) }));
  return {
    closed: false,
    segments: points.slice(1).map((p, i) => line(points[i]?.x ?? 0, points[i]?.y ?? 0, p.x, p.y)),
  };
})();
const rows = (() => {
  const builder = new StrokeBuilder();
  for (let y = 2; y < 8; y++) {
    builder.add(60, y);
    builder.add(75, y);
    if (y % 3 === 0) builder.add(75, y + 0.5);
    builder.lift();
  }
  return builder.done();
})();
const everything: Drawing = {
  title: 'All of it',
  width: 80,
  height: 50,
  layers: [
    layer('Fill & scan', '#92400E', [area(ring(8), ring(5)), area(square(62, 20, 10))]),
    layer('Zoë/1', '#BE185D', [polyline(wave), ...polylines(rows), polyline(thereAndBack)]),
    layer('Dots', '#0F766E', [dot({ x: 60, y: 40 }, 0.75), dot({ x: 65, y: 40 }, null), dot({ x: 70, y: 44 }, 2)]),
    layer('Zoë:1', '#123456', [outline(ring(3)), polyline({ closed: true, segments: square(2, 2, 3).segments })]),
    layer('Cut', '#3730A3', [outline(square(40, 10, 5)), outline(BLOB)]),
  ].map((of, i) => ({ ...of, pen: i + 1 })),
};

/** A release of DXF, and the unit of its numbers where these are no mm. */
type Release = 'R12' | '2000' | '2007' | 'R12 in' | '2007 in';
const settingsFor = (release: Release) => {
  const [dxf, dxfUnit = 'mm'] = release.split(' ') as ['R12' | '2000' | '2007', ('mm' | 'in')?];
  return { ...SETTINGS, dxf, dxfUnit };
};
const written = (drawing: Drawing, id: FileFormat, release: Release = '2007') =>
  writtenFormat(id).write(drawing, settingsFor(release));
const difference = (drawing: Drawing, id: FileFormat, bytes: Uint8Array, release: Release = '2007'): string | null => {
  const { readBack, keeps } = writtenFormat(id);
  return differenceFrom(drawing, () => readBack(bytes, settingsFor(release)), { keeps, lineMm: SETTINGS.lineWidth });
};
const FILES = [
  ['svg', '2007'],
  ['pdf', '2007'],
  ['dxf', 'R12'],
  ['dxf', '2000'],
  ['dxf', '2007'],
  ['dxf', 'R12 in'],
  ['dxf', '2007 in'],
  ['hpgl', '2007'],
] as const;
/** What a plotter file of chords on a grid does not tell, or tells otherwise. */
const ON_GRID: Readonly<Record<string, RegExp | null>> = {
  'two layers swapped': /draws “Fill & scan” with pen 2 in place of 1/,
  'a path opened': null,
  'a path closed': /path 1 is .* off/,
  'a curve that shakes': null,
  'a circle of another size': null,
};

describe.each(FILES)('%s (%s)', (id, dxf) => {
  test('what was written is what is drawn', () => {
    expect(difference(everything, id, written(everything, id, dxf), dxf)).toBeNull();
  });

  test('of nothing, too', () => {
    const nothing = { title: '', width: 10, height: 20, layers: [] };
    expect(difference(nothing, id, written(nothing, id, dxf), dxf)).toBeNull();
  });

  const changed = (recipe: (layers: Layer[]) => Layer[]): string | null =>
    difference(everything, id, written({ ...everything, layers: recipe([...everything.layers]) }, id, dxf), dxf);
  const inLayer = (nth: number, recipe: (drawn: Drawable[]) => Drawable[]) => (layers: Layer[]) =>
    layers.map((l, i) => (i === nth ? { ...l, drawn: recipe([...l.drawn]) } : l));
  const movedBy = (path: Path, dx: number): Path => ({
    ...path,
    segments: path.segments.map((s) =>
      s.kind === 'line' ? line(s.x0 + dx, s.y0, s.x1 + dx, s.y1) : { ...s, x0: s.x0, y0: s.y0 },
    ),
  });

  test.each<[string, (layers: Layer[]) => Layer[], RegExp]>([
    ['a layer gone', (l) => l.slice(1), /has 4 operations in place of 5/],
    ['two layers swapped', ([a, b, ...l]) => [b as Layer, a as Layer, ...l], /has “.*” in place of “Fill & scan”/],
    ['a path gone', inLayer(4, (d) => d.slice(1)), /in “Cut”, path 1 /],
    ['a path too many', inLayer(4, (d) => [...d, d[0] as Drawable]), /has more than is drawn/],
    ['paths in another order', inLayer(4, (d) => d.reverse()), /in “Cut”, path 1 is .* off/],
    [
      'a path in another layer',
      (l) => inLayer(1, (d) => [...d, polyline(wave)])(inLayer(3, (d) => d.slice(1))(l)),
      /path \d is missing/,
    ],
    [
      'a path moved',
      inLayer(4, ([, ...d]) => [outline(movedBy(square(40, 10, 5), 0.05)), ...d]),
      /path 1 is 0\.05\d mm off/,
    ],
    [
      'a path opened',
      inLayer(4, ([, ...d]) => [polyline({ ...square(40, 10, 5), closed: false }), ...d]),
      /path 1 is open/,
    ],
    ['a path closed', inLayer(1, ([, ...d]) => [polyline({ ...wave, closed: true }), ...d]), /path 1 is closed/],
    [
      'a curve bent',
      inLayer(1, ([, ...d]) => [
        polyline({ ...wave, segments: [cubic(5, 40, 15, 48.2, 20, 32, 30, 40), ...wave.segments.slice(1)] }),
        ...d,
      ]),
      /path 1 is 0\.\d+ mm off/,
    ],
    [
      'a curve that shakes',
      inLayer(1, ([, ...d]) => [polyline(shaking), ...d]),
      /path 1 is (\d+\.\d+ mm (off|too long)|another path)/,
    ],
    [
      'a curve cut short',
      inLayer(1, ([, ...d]) => [polyline({ ...wave, segments: wave.segments.slice(0, 2) }), ...d]),
      /path 1 is .* off/,
    ],
    [
      'a way back left out',
      inLayer(1, (d) => [
        ...d.slice(0, -1),
        polyline({ ...thereAndBack, segments: thereAndBack.segments.slice(0, 1) }),
      ]),
      /is .* off/,
    ],
    ['a circle of another size', inLayer(2, ([, ...d]) => [dot({ x: 60, y: 40 }, 0.76), ...d]), /path 1 is/],
    ['a circle that is a point', inLayer(2, ([, ...d]) => [dot({ x: 60, y: 40 }, null), ...d]), /path 1 is a point/],
    [
      'a point that is a circle',
      inLayer(2, ([a, , ...d]) => [a as Drawable, dot({ x: 65, y: 40 }, 0.5), ...d]),
      /path 2 is (a circle|no dot)/,
    ],
    [
      'an arc the other way',
      inLayer(3, (d) => [
        outline(closedPath([arcAbout(50, 20, 3, 0.3, -Math.PI), arcAbout(50, 20, 3, 0.3 - Math.PI, -Math.PI)])),
        ...d.slice(1),
      ]),
      /path 1 is .* off/,
    ],
    [
      'a line of a hatch gone',
      inLayer(1, ([a, , ...d]) => [
        a as Drawable,
        ...polylines({ xy: rows.xy.slice(4), start: rows.start.slice(1).map((n) => n - 2) }),
        ...d,
      ]),
      /path 2 is/,
    ],
  ])('%s is found', (what, recipe, words) => {
    const wanted = id === 'hpgl' && what in ON_GRID ? (ON_GRID[what] ?? null) : words;
    if (wanted === null) expect(changed(recipe)).toBeNull();
    else expect(changed(recipe)).toMatch(wanted);
  });

  test('a colour is looked at where the format has it as it is', () => {
    const found = changed(([a, ...l]) => [{ ...(a as Layer), colour: '#92400F' }, ...l]);
    if (id === 'hpgl' || (id === 'dxf' && !dxf.startsWith('2007'))) expect(found).toBeNull();
    else expect(found).toMatch(/“Fill & scan” in another colour/);
  });

  test('another page is found where the format has one', () => {
    const found = difference(everything, id, written({ ...everything, width: 80.01 }, id, dxf), dxf);
    if (id === 'dxf' || id === 'hpgl') expect(found).toBeNull();
    else expect(found).toMatch(/page of another size/);
  });

  test('a file cut short, or of something else, is not what was written', () => {
    const bytes = written(everything, id, dxf);
    for (const share of [0, 0.1, 0.5, 0.9, 0.999]) {
      const short = bytes.slice(0, Math.floor(share * bytes.length));
      expect(difference(everything, id, short, dxf), String(share)).toMatch(/^can’t be read/);
    }
    const other = WRITTEN_FORMATS.find((f) => f.id !== id)?.id ?? 'svg';
    expect(difference(everything, id, written(everything, other))).toMatch(/^can’t be read/);
  });
});

test('a DXF in another unit than asked for is not what was written, where it can say so', () => {
  expect(difference(everything, 'dxf', written(everything, 'dxf', '2007 in'), '2007')).toMatch(/the unit is not mm/);
  expect(difference(everything, 'dxf', written(everything, 'dxf', '2007'), '2007 in')).toMatch(/the unit is not in/);
  expect(difference(everything, 'dxf', written(everything, 'dxf', 'R12 in'), 'R12')).toMatch(/ is .* off/);
});

test('curves that nearly turn back in a point are as long as they are', () => {
  const turns = [cubic(0, 0, 300, 400, 300.5, 400, 0, 20), cubic(0, 20, 0, 900, 3, -800, 3, 20)];
  const layers = [layer('Cut', '#3730A3', [polyline({ closed: false, segments: turns })])];
  const drawn = { ...everything, width: 900, layers };
  for (const [id, dxf] of FILES) expect(difference(drawn, id, written(drawn, id, dxf), dxf), `${id} ${dxf}`).toBeNull();
});

test('arcs that stay near a curve but are longer are told by their length', () => {
  const longer = {
    ...everything,
    layers: everything.layers.map((l, i) => (i === 1 ? { ...l, drawn: [polyline(shaking), ...l.drawn.slice(1)] } : l)),
  };
  expect(difference(everything, 'dxf', written(longer, 'dxf'))).toMatch(/in “Zoë\/1”, path 1 is \d\.\d+ mm too long/);
});

test('what is filled and what is not are told apart, and what belongs together', () => {
  for (const id of ['svg', 'pdf'] as const) {
    const asLines = {
      ...everything,
      layers: everything.layers.map((l, i) => (i === 0 ? { ...l, drawn: [outline(ring(8)), ...l.drawn.slice(1)] } : l)),
    };
    expect(difference(everything, id, written(asLines, id))).toMatch(/path 1 is not filled/);
    expect(difference(asLines, id, written(everything, id))).toMatch(/path 1 is filled/);
    const apart = {
      ...everything,
      layers: everything.layers.map((l, i) =>
        i === 0 ? { ...l, drawn: [area(ring(8)), area(ring(5)), ...l.drawn.slice(1)] } : l,
      ),
    };
    expect(difference(everything, id, written(apart, id))).toMatch(/path 1 has other holes/);
  }
});

test('names that a DXF can’t hold are known again, others are not', () => {
  const named = (name: string): Drawing => ({
    ...everything,
    layers: [layer(name, '#3730A3', [outline(square(1, 1, 5))])],
  });
  for (const name of ['Schnitt außen <1>', '', '漢字', '𐎠𐎡', `${'long '.repeat(30)}`, 'a\u0007b', 'Ř 1', '"&\''])
    for (const [id, dxf] of FILES)
      expect(difference(named(name), id, written(named(name), id, dxf), dxf), `${name} ${id} ${dxf}`).toBeNull();
  for (const [id, dxf] of FILES) {
    if (id === 'hpgl') continue;
    expect(difference(named('Cut'), id, written(named('Cup'), id, dxf), dxf)).toMatch(/in place of “Cut”/);
    expect(difference(named('Cut deep'), id, written(named('Cut'), id, dxf), dxf)).toMatch(/in place of “Cut deep”/);
  }
});

/**
 * Numbers that are drawn by and are not 0, as places in a text; of a DXF coordinates and radii, since a bulge may change within the
 * tolerance; of a plotter file those that a tenth more moves by more than its grid.
 */
const numbersIn = (id: FileFormat, text: string): RegExpMatchArray[] =>
  [...text.matchAll(NUMBERS[id])].filter((m) => Math.abs(Number(m[0])) > (id === 'hpgl' ? 40 : 0));
const [PLAIN, STEPS] = [/-?\d+(?:\.\d+)?(?=[ "A-Z\n])/g, /(?<=[UD,])-?\d+(?=[,;])/g];
const NUMBERS: Readonly<Record<FileFormat, RegExp>> = {
  svg: PLAIN,
  pdf: PLAIN,
  dxf: /(?<= (?:10|20|40)\r\n)-?\d+\.\d+/g,
  hpgl: STEPS,
};

/** A file with something in it changed at random; null where nothing that is drawn was. */
function spoiled(
  id: FileFormat,
  bytes: Uint8Array,
  next: Chance,
): { readonly how: string; readonly bytes: Uint8Array } {
  const latin = (data: Uint8Array) => Buffer.from(data).toString('latin1');
  const back = (text: string) => new Uint8Array(Buffer.from(text, 'latin1'));
  const whole = latin(bytes);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  // Of a PDF the content is spoiled, and packed again in its place.
  const from = id === 'pdf' ? whole.indexOf('stream\n') + 7 : 0;
  const to = id === 'pdf' ? whole.indexOf('\nendstream') : whole.length;
  const body = id === 'pdf' ? latin(unzlibSync(bytes.slice(from, to))) : whole;
  const packed = (text: string): Uint8Array => {
    if (id !== 'pdf') return back(text);
    const stream = latin(zlibSync(back(text), { level: 6 }));
    const grown = stream.length - (to - from);
    const file = whole.slice(0, from) + stream + whole.slice(to);
    const moved = file
      .replace(`/Length ${to - from}/`, `/Length ${stream.length}/`)
      .replace(/(\d{10}) 00000 n/g, (all, at: string) =>
        Number(at) > from ? `${String(Number(at) + grown).padStart(10, '0')} 00000 n` : all,
      )
      .replace(/startxref\n(\d+)/, (_, at: string) => `startxref\n${Number(at) + grown}`);
    return back(moved);
  };
  const start = {
    svg: body.indexOf('<path'),
    pdf: body.indexOf(' m\n'),
    dxf: body.indexOf('ENTITIES'),
    hpgl: body.indexOf('PU'),
  }[id];
  const end = id === 'dxf' ? body.indexOf('ENDSEC', start) : body.length;
  const isDrawn = (m: RegExpMatchArray) => (m.index ?? 0) > start && (m.index ?? 0) < end;
  // In the heads of SVG groups there are numbers too, of colours and names; those that are drawn by stand in data.
  const isData = (m: RegExpMatchArray) =>
    id !== 'svg' || body.lastIndexOf(' d="', m.index) > body.lastIndexOf('\n', m.index);
  const drawnNumbers = numbersIn(id, body).filter((m) => isDrawn(m) && isData(m));
  const put = (m: RegExpMatchArray, text: string) =>
    packed(body.slice(0, m.index) + text + body.slice((m.index ?? 0) + m[0].length));
  const kind = pick(['scaled', 'cut', 'opened', 'line gone', 'lines swapped']);
  switch (kind) {
    case 'scaled': {
      const m = pick(drawnNumbers);
      return {
        how: `${m[0]} × 1.1`,
        bytes: put(m, String(id === 'hpgl' ? Math.round(Number(m[0]) * 1.1) : Number(m[0]) * 1.1)),
      };
    }
    case 'cut':
      return { how: 'cut short', bytes: packed(body.slice(0, Math.floor(start + next() * (body.length - start - 1)))) };
    case 'opened': {
      const closings = {
        svg: /Z(?=[M"])/g,
        pdf: /\nh\n/g,
        dxf: /\r\n 70\r\n1\r\n/g,
        hpgl: /(?<=\nPU(-?\d+,-?\d+);PD.*),\1;(?=\n)/g,
      }[id];
      const m = pick([...body.matchAll(closings)].filter(isDrawn));
      return { how: 'opened', bytes: put(m, { svg: '', pdf: '\n', dxf: '\r\n 70\r\n0\r\n', hpgl: ';' }[id]) };
    }
    default: {
      const ends = {
        svg: /\n {2}<(?:path|circle)[^\n]*/g,
        pdf: /\n[^\n]+ m\n[^S]*?\nS(?=\n)/g,
        dxf: / {2}0\r\n(?:LWPOLYLINE|POLYLINE|CIRCLE|POINT)\r\n.*?(?= {2}0\r\n(?:LWPOLYLINE|POLYLINE|CIRCLE|POINT|ENDSEC))/gs,
        hpgl: /\nPU-?\d[^\n]*/g,
      }[id];
      const things = [...body.matchAll(ends)];
      const i = Math.floor(next() * (things.length - 1));
      const [a, b] = [things[i], things[i + 1]] as [RegExpMatchArray, RegExpMatchArray];
      const [at, then] = [a.index ?? 0, b.index ?? 0];
      const gone = kind === 'line gone';
      const text = gone
        ? body.slice(0, at) + body.slice(at + a[0].length)
        : body.slice(0, at) + b[0] + body.slice(at + a[0].length, then) + a[0] + body.slice(then + b[0].length);
      return { how: `${kind}: ${a[0].slice(0, 40)}`, bytes: packed(text) };
    }
  }
}

/** A file with one path, dot or area of it moved by a little more than twice the tolerance, or farther. */
function moved(id: FileFormat, dxf: (typeof FILES)[number][1], next: Chance) {
  const nth = Math.floor(next() * everything.layers.length);
  const { drawn } = everything.layers[nth] as Layer;
  const k = Math.floor(next() * drawn.length);
  const by = (TOLERANCE + (writtenFormat(id).keeps.gridMm ?? 0)) * (2.2 + 20 * next());
  const way = 2 * Math.PI * next();
  const m = translation(by * Math.cos(way), by * Math.sin(way));
  const layers = everything.layers.map((l, i) =>
    i === nth ? { ...l, drawn: drawn.map((d, n) => (n === k ? moveDrawable(d, m) : d)) } : l,
  );
  return { how: `moved by ${by}`, bytes: written({ ...everything, layers }, id, dxf) };
}

test('files spoiled at random are found, every one', { timeout: 120_000 }, () => {
  const count = sample(60, 300);
  const missed: string[] = [];
  let tried = 0;
  for (const [id, dxf] of FILES) {
    const bytes = written(everything, id, dxf);
    const next = chance(20_271_128 + id.length + dxf.length);
    for (let i = 0; i < count / FILES.length; i++) {
      const { how, bytes: other } = next() < 0.2 ? moved(id, dxf, next) : spoiled(id, bytes, next);
      tried++;
      if (difference(everything, id, other) === null) missed.push(`${id} ${dxf}: ${how}`);
    }
  }
  figure({
    name: `Files spoiled at random (${tried}) that reading back lets through`,
    value: missed.length,
    digits: 0,
    aim: { most: 0 },
  });
  expect(missed).toEqual([]);
});
