/** Plotter files command by command: what each draws, in mm. Figures by hand, from the published reference. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { withoutClips } from '../../src/core/formats/clip';
import { encodedMoves } from '../../src/core/formats/hpgl-read/encoded';
import { readHpgl } from '../../src/core/formats/hpgl-read/hpgl-read';
import { readDrawing } from '../../src/core/formats/read';
import type { ReadDrawing } from '../../src/core/formats/read-drawing';
import { type Path, pathBox, pathLength } from '../../src/core/geometry/path';
import { pathData } from '../../src/core/geometry/path-data';
import { LIMITS } from '../../src/core/limits';
import { wasmEngine } from '../support/faces';

const read = (text: string): ReadDrawing => {
  const reading = readHpgl(text);
  if (!reading.ok) throw new Error(reading.sentence);
  return reading.found;
};
const paths = (text: string): Path[] => read(text).shapes.flatMap((s) => s.paths);
/** Path data of everything drawn, in hundredths of a mm. */
const data = (text: string): string[] => paths(text).map((p) => pathData([p], null, 2));
const box = (text: string): number[] => {
  const [first] = paths(text);
  if (!first) throw new Error('nothing is drawn');
  const { minX, minY, maxX, maxY } = pathBox(first);
  return [minX, minY, maxX, maxY].map((v) => Math.round(v * 100) / 100 + 0);
};
const unread = (text: string) => Object.fromEntries(read(text).unread.map(({ kind, count }) => [kind, count]));

describe('lines', () => {
  test('from where the pen is set down to where it is lifted, absolute and relative', () => {
    expect(data('IN;SP1;PU400,400;PD800,400,800,800;PU0,0;PD;PR40,0,0,40;PU;')).toEqual([
      'M10 10L20 10L20 20',
      'M0 0L1 0L1 1',
    ]);
    // Without ends of commands, in small letters, with blanks and signs.
    expect(data('in sp1 pa pu 400 400pd+800,-400.5')).toEqual(['M10 10L20 -10.01']);
  });

  test('closed where they end where they start', () => {
    expect(paths('PU0,0;PD40,0,40,40,0,0;').map((p) => p.closed)).toEqual([true]);
    expect(paths('PU0,0;PD40,0,0,0;').map((p) => p.closed)).toEqual([false]);
  });

  test('a pen that moves without being down, or that is none, draws nothing; files without SP draw with the first', () => {
    const { groups } = read('PU0,0;PD40,40;PU;SP3;PD80,80;SP0;PD90,90;SP2;PA95,95;');
    expect(groups.map((g) => [g.name, g.pen, g.filled])).toEqual([
      ['Pen 1', 1, false],
      ['Pen 3', 3, false],
      ['Pen 2', 2, false],
    ]);
    expect(unread('SP0;PU0,0;PD90,90;')).toEqual({ 'lines drawn without a pen': 1 });
    expect(unread('PU5,5;PD;PU;PU9,9;PD;PU;')).toEqual({ points: 2 });
  });
});

describe('arcs', () => {
  test('stay arcs, about a place or beside the pen, either way round', () => {
    const [quarter] = paths('PU400,0;PD;AA0,0,90;PU;');
    expect(quarter?.segments).toMatchObject([{ kind: 'arc', cx: 0, cy: 0, sweep: Math.PI / 2 }]);
    expect(data('PU400,0;PD;AA0,0,90;')).toEqual(data('PU400,0;PD;AR-400,0,90;'));
    expect(pathLength(paths('PU400,0;PD;AR-400,0,-270;')[0] as Path)).toBeCloseTo(1.5 * Math.PI * 10, 9);
    expect(paths('PU400,0;PD;AA0,0,360;').map((p) => p.closed)).toEqual([true]);
  });

  test('through three places, and straight where they are in line', () => {
    expect(box('PU-400,0;PD;AT0,400,400,0;')).toEqual([-10, 0, 10, 10]);
    expect(box('PU-400,0;PD;RT400,-400,800,0;')).toEqual([-10, -10, 10, 0]);
    expect(data('PU0,0;PD;AT40,0,80,0;')).toEqual(['M0 0L1 0L2 0']);
  });

  test('circles are about the pen, which is there again afterwards, up or down', () => {
    expect(box('PU400,400;CI200;')).toEqual([5, 5, 15, 15]);
    expect(data('PU400,400;PD;CI200;PD800,400;')[1]).toBe('M10 10L20 10');
    expect(data('PU400,400;CI200,5;PA800,400;')).toHaveLength(1);
    expect(data('CI0;')).toEqual([]);
  });

  test('rectangles and wedges, as lines or filled, absolute and relative', () => {
    expect(data('PU40,40;EA80,120;')).toEqual(['M1 1L2 1L2 3L1 3Z']);
    expect(data('PU40,40;ER40,80;')).toEqual(['M1 1L2 1L2 3L1 3Z']);
    expect(read('PU40,40;RA80,120;PU40,40;RR40,80;').shapes.map((s) => s.fill?.rule)).toEqual(['evenodd', 'evenodd']);
    expect(box('PU0,0;EW400,0,90;')).toEqual([0, 0, 10, 10]);
    expect(box('PU0,0;EW-400,0,90;')).toEqual([-10, -10, 0, 0]);
    expect(box('PU0,0;WG400,90,180;')).toEqual([-10, -10, 0, 10]);
    expect(pathLength(paths('PU0,0;EW400,0,360;')[0] as Path)).toBeCloseTo(2 * Math.PI * 10, 9);
  });

  test('Bézier curves', () => {
    expect(data('PU0,0;PD;BZ0,40,40,40,40,0;')).toEqual(['M0 0C0 1 1 1 1 0']);
    expect(data('PU40,0;PD;BR0,40,40,40,40,0;')).toEqual(['M1 0C1 1 2 1 2 0']);
  });
});

describe('polygons', () => {
  const RING = 'PU0,0;PM0;PD400,0,400,400,0,400;PM1;PU100,100;PD300,100,300,300,100,300;PM2;';
  test('are filled or drawn along their edges when that is said, as one shape', () => {
    expect(read(RING).shapes).toEqual([]);
    const [filled] = read(`${RING}FP;`).shapes;
    expect(filled?.fill?.rule).toBe('evenodd');
    expect(filled?.paths.map((p) => p.closed)).toEqual([true, true]);
    expect(read(`${RING}FP1;`).shapes[0]?.fill?.rule).toBe('nonzero');
    expect(read(`${RING}EP;`).shapes[0]?.stroke).not.toBeNull();
    expect(read(`${RING}FP;EP;`).groups.map((g) => g.filled)).toEqual([true, false]);
  });

  test('may hold circles, and leave the pen where it was', () => {
    expect(data('PU400,400;PM0;CI200;PM2;EP;PD800,400;')[1]).toBe('M10 10L20 10');
  });
});

describe('units of the file', () => {
  test('lie between the two points: stretched, the same both ways, or by a factor', () => {
    expect(data('IP0,0,4000,2000;SC0,10,0,10;PU0,0;PD10,10;')).toEqual(['M0 0L100 50']);
    expect(data('IP0,0,4000,2000;SC0,10,0,10,1,0,0;PU0,0;PD10,10;')).toEqual(['M0 0L50 50']);
    expect(data('IP0,0,4000,2000;SC0,10,0,10,1;PU0,0;PD10,10;')).toEqual(['M25 0L75 50']);
    expect(data('IP400,400;SC0,40,0,40,2;PU0,0;PD10,10;')).toEqual(['M10 10L20 20']);
    expect(data('IP0,0,4000,4000;SC0,10,0,10;PU1,1;SC;PD800,400;')).toEqual(['M10 10L20 10']);
    expect(data('IP0,0,4000,4000;SC10,0,0,10;PU0,0;PD10,10;')).toEqual(['M100 0L0 100']);
  });

  test('turned by quarters', () => {
    expect(data('RO90;PU0,0;PD400,0;')).toEqual(['M0 0L0 10']);
    expect(data('RO-90;PU0,0;PD400,0;')).toEqual(['M0 0L0 -10']);
    expect(data('RO90;IN;PU0,0;PD400,0;')).toEqual(['M0 0L10 0']);
  });

  test('without points of its own the size is a guess, and that is said', () => {
    const guessed = read('SC0,100,0,100;PU0,0;PD10,10;');
    expect(guessed.claim.stated).toBe(false);
    expect(guessed.notes.join()).toContain('Check its size');
    for (const own of ['', 'IP0,0,4000,4000;SC0,100,0,100;', 'PS4000,4000;SC0,100,0,100;', 'SC0,40,0,40,2;'])
      expect(read(`${own}PU0,0;PD10,10;`).claim.stated, own).toBe(true);
  });

  test('a scale of nothing is none', () => {
    expect(data('SC5,5,5,5;PU0,0;PD400,0;')).toEqual(['M0 0L10 0']);
  });
});

describe('encoded polylines', () => {
  const encode = (value: number, base: 32 | 64): string => {
    let rest = Math.abs(value) * 2 + (value < 0 ? 1 : 0);
    let out = '';
    for (; rest >= base; rest = Math.floor(rest / base)) out += String.fromCharCode(63 + (rest % base));
    return out + String.fromCharCode((base === 64 ? 191 : 95) + rest);
  };

  test.each([32, 64] as const)('numbers of base %i are those that were encoded', (base) => {
    const whole = fc.integer({ min: -1_000_000, max: 1_000_000 });
    fc.assert(
      fc.property(fc.array(fc.tuple(whole, whole), { maxLength: 20 }), (moves) => {
        const text = (base === 32 ? '7' : '') + moves.map(([x, y]) => encode(x, base) + encode(y, base)).join('');
        const found = [...encodedMoves(text)].map((m) => (m.kind === 'move' ? [m.x, m.y] : []));
        expect(found).toEqual(moves.map(([x, y]) => [x + 0, y + 0]));
      }),
    );
  });

  test('pens, lifted moves, absolute places and fractions', () => {
    const n = (value: number) => encode(value, 64);
    expect(data(`PU;PE:${n(2)}<=${n(400)}${n(400)}${n(40)}${n(0)};`)).toEqual(['M10 10L11 10']);
    expect(read(`PE:${n(2)}<=${n(400)}${n(400)}${n(40)}${n(0)};`).groups[0]?.pen).toBe(2);
    expect(data(`PE<=${n(0)}${n(0)}>${n(2)}${n(160)}${n(0)};`)).toEqual(['M0 0L1 0']);
    // A fault ends it, and what follows is read.
    expect(data(`PE<=${n(0)}${n(0)}${n(40)}${n(0)}\x7f;PU0,0;PD40,40;`)).toEqual(['M0 0L1 0', 'M0 0L1 1']);
  });
});

describe('words', () => {
  const word = (text: string) => read(text).texts[0];
  test('are words, at their place, of their size, their way', () => {
    expect(word('PU400,800;SI0.5,1;LBGate\x03;')).toMatchObject({
      text: 'Gate',
      capitalMm: 10,
      align: 'left',
      matrix: { a: 1, b: 0, e: 10, f: 20 },
    });
    expect(word('DI0,1;PU0,0;LBup\x03')?.matrix).toMatchObject({ a: expect.closeTo(0), b: expect.closeTo(1) });
    expect(word('RO90;PU0,0;LBup\x03')?.matrix).toMatchObject({ a: expect.closeTo(0), b: expect.closeTo(1) });
    expect(word('SI1,1;LO5;PU0,0;LBmid\x03')).toMatchObject({ align: 'centre', matrix: { f: -5 } });
    expect(word('SI1,1;LO19;PU0,0;LBtop\x03')).toMatchObject({ align: 'right', matrix: { f: -10 } });
  });

  test('several lines, other ends, words kept for later', () => {
    expect(read('SI1,1;PU0,0;LBone\r\ntwo\x03').texts.map((t) => [t.text, t.matrix.f])).toEqual([
      ['one', 0],
      ['two', -20],
    ]);
    expect(read('DT#;LBa;b#DT*,0;LBc*DT;LBd\x03').texts.map((t) => t.text)).toEqual(['a;b', 'c*', 'd']);
    expect(read('BLkept\x03PU400,0;PB;').texts.map((t) => [t.text, t.matrix.e])).toEqual([['kept', 10]]);
    expect(read('SI1,1;PU0,0;CP2,-1;LBx\x03').texts[0]?.matrix).toMatchObject({ e: 30, f: -20 });
  });
});

describe('what is around it', () => {
  const LINE = 'PU0,0;PD400,0;PU;';
  test.each([
    ['device control', `\x1b.(\x1b.@;0:\x1b.I81;;17:\x1b.N;19:IN;${LINE}\x1b.)`],
    ['a printer’s language', `\x1bE\x1b&l2A\x1b%0B${LINE}\x1b%0A\x1b&l0H plain words PD9999,9999;\x1bE`],
    ['job language', `\x1b%-12345X@PJL JOB\r\n@PJL ENTER LANGUAGE=HPGL2 PD9,9;\r\n${LINE}\x1b%-12345X`],
    ['a picture for a printer', `\x1b%0A\x1b*b12WPU9,9;PD8,8;\x1b%0B${LINE}`],
    ['comments', `CO"PD9,9;";CO PD9,9;${LINE}`],
    ['a start of transmission', `\x03\x02${LINE}`],
  ])('%s is passed over', (_, text) => {
    expect(data(text)).toEqual(['M0 0L10 0']);
    expect(read(text).unread).toEqual([]);
  });

  test('windows cut off what is outside', () => {
    const found = withoutClips(read('IW0,0,400,400;PU-400,200;PD800,200;PU;IW;PU0,800;PD800,800;'), wasmEngine);
    expect(found.shapes.flatMap((s) => s.paths).map((p) => pathData([p], null, 2))).toEqual([
      'M0 5L10 5',
      'M0 20L20 20',
    ]);
  });

  test('further sheets of paper are groups of their own, and said', () => {
    const found = read(`SP1;${LINE}PG;${LINE}`);
    expect(found.groups.map((g) => g.name)).toEqual(['Pen 1', 'Pen 1, sheet 2']);
    expect(found.notes.join()).toContain('2 sheets of paper');
    expect(read(`${LINE}PG;`).notes).toEqual([]);
  });

  test('what is not read is said by kind, once for each', () => {
    expect(unread(`SM+;${LINE}SM;XT;QQ1,2;QQ;${LINE}`)).toEqual({
      'symbols at the places of a line': 2,
      'tick marks': 1,
      'commands called “QQ”': 2,
    });
    expect(unread(`VS20;FS3;PT0.3;FT1;WU0;PW0.5;${LINE}`)).toEqual({});
    expect(unread(`$%&${LINE}`)).toEqual({ 'signs that are no commands': 3 });
  });

  test('dashes are those of the line type, by a length of its own or of the paper', () => {
    const dashes = (text: string) => read(`${text}${LINE}`).shapes[0]?.stroke?.dashesMm;
    expect(dashes('')).toEqual([]);
    expect(dashes('LT2,10,1;')).toEqual([5, 5]);
    expect(dashes('IP0,0,3000,4000;LT3,10;')).toEqual([8.75, 3.75]);
    expect(dashes('LT2;LT;')).toEqual([]);
  });
});

describe('hostile files', () => {
  test('are answered, whatever is in them', () => {
    const parts = fc.constantFrom(
      'PU',
      'PD',
      'PA',
      'PR',
      'AA',
      'AT',
      'CI',
      'SC',
      'IP',
      'PM0',
      'PM2',
      'FP',
      'EP',
      'PE',
      'LB',
      'DT',
      'RO90',
      'IW',
      'SP',
      'LT',
      '\x1b',
      '\x1b.',
      '\x1b*b9999W',
      ';',
      ',',
      '1e9',
      '-',
      '99999999999999999999',
      '0',
      '.5',
      '7',
      'x',
      '\x00',
      'ÿ',
    );
    fc.assert(
      fc.property(fc.array(parts, { maxLength: 60 }), (list) => {
        const found = read(list.join(''));
        for (const p of found.shapes.flatMap((s) => s.paths))
          for (const s of p.segments)
            for (const v of Object.values(s)) if (typeof v === 'number') expect(Number.isFinite(v)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });

  test('more than can be kept is left out, and said', () => {
    const limits = LIMITS as { drawnSegments: number };
    const most = limits.drawnSegments;
    limits.drawnSegments = 100;
    try {
      const found = read(`PU0,0;PD${'0,1,1,0,'.repeat(60)}5,5;PU;PU0,0;PD40,0;`);
      expect(found.notes.join()).toContain('more than 100 lines and curves');
      expect(found.shapes.map((s) => s.paths[0]?.segments.length)).toEqual([100]);
      const polygon = read(`PU0,0;PD40,0;PU;PM0;PD${'0,1,1,0,'.repeat(60)}5,5;PM2;EP;PU0,0;PD9,9;`);
      expect(polygon.notes.join()).toContain('A polygon of this file has no end');
      expect(polygon.shapes).toHaveLength(1);
    } finally {
      limits.drawnSegments = most;
    }
    const far = read('PU0,0;PD99999999,0;PU;PU0,0;PD40,0;');
    expect(far.shapes).toHaveLength(1);
  });

  test('cut off anywhere, what came before is read', () => {
    const whole = 'IN;SP1;PU0,0;PD400,0,400,400;PU;SP2;PU0,0;PD;AA400,0,90;LBwords\x03PU;';
    for (let n = 0; n <= whole.length; n++) expect(readHpgl(whole.slice(0, n)).ok).toBe(true);
    expect(readDrawing(new TextEncoder().encode(whole.slice(0, 24)))).toMatchObject({ ok: true });
  });
});
