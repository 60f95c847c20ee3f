/** What a file is, told from its first bytes; how it is written, packed or not; and numbers and names as files have them. */

import { gzipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import { circleAt, distinctNames, rgbOf, scanWords } from '../../src/core/formats/drawing';
import { READ_ENDINGS, READ_FORMATS_SAID, READ_WORDS } from '../../src/core/formats/endings';
import { readDrawing } from '../../src/core/formats/read';
import type { FileMeasure } from '../../src/core/formats/read-drawing';
import { READ_FORMATS } from '../../src/core/formats/readers';
import { sizeChoices } from '../../src/core/formats/size';
import { polyline } from '../../src/core/geometry/drawable';
import { isContinuous, type Path, pathArea, pathBox } from '../../src/core/geometry/path';
import { pathData } from '../../src/core/geometry/path-data';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { arcAbout, cubic, line, quadratic, type Segment } from '../../src/core/geometry/segment';
import { decimal } from '../../src/core/units/decimal';
import { area } from '../support/drawables';

const utf8 = (text: string) => new TextEncoder().encode(text);
const latin1 = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
const utf16 = (text: string, little: boolean) => {
  const bytes = new Uint8Array(2 + 2 * text.length);
  const view = new DataView(bytes.buffer);
  view.setUint16(0, 0xfeff, little);
  [...text].forEach((c, i) => {
    view.setUint16(2 + 2 * i, c.charCodeAt(0), little);
  });
  return bytes;
};
const said = (bytes: Uint8Array): string => {
  const reading = readDrawing(bytes);
  return reading.ok ? `${reading.found.format}: ${reading.found.shapes.length}` : reading.sentence;
};
const EPS = `This file is an EPS or PostScript drawing, which can’t be read here. Ask for it as ${READ_FORMATS_SAID}.`;
const SVG = '<svg xmlns="http://www.w3.org/2000/svg"><g id="Zoë"><path d="M0 0h9v9z"/></g></svg>';
const nameIn = (bytes: Uint8Array) => {
  const reading = readDrawing(bytes);
  return reading.ok ? reading.found.groups[0]?.name : reading.sentence;
};
const DXF = '0\nSECTION\n2\nENTITIES\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n5\n0\nENDSEC\n0\nEOF\n';

describe('a file is', () => {
  test.each<[string, Uint8Array, string]>([
    ['nothing', new Uint8Array(0), 'This file is empty.'],
    ['an SVG', utf8(SVG), 'SVG: 1'],
    ['an SVG after blanks and a mark of order', utf8(`\uFEFF \n${SVG}`), 'SVG: 1'],
    [
      'an SVG with a prefix',
      utf8('<s:svg xmlns:s="http://www.w3.org/2000/svg"><s:path d="M0 0h9v9z"/></s:svg>'),
      'SVG: 1',
    ],
    ['an SVG after some words', utf8(`From: the workshop\n\n${SVG}`), 'SVG: 1'],
    ['a DXF', utf8(DXF), 'DXF R12: 1'],
    [
      'a DXF with a comment first and other ends of lines',
      utf8(`999\nmade by hand\n${DXF}`.replaceAll('\n', '\r\n')),
      'DXF R12: 1',
    ],
    [
      'markup without a drawing',
      utf8('<html><p>No svg here</p></html>'),
      'There is no drawing in this file: it is written as a drawing would be, but has none in it.',
    ],
    [
      'words',
      utf8('0 section of words about svg'),
      `This is no drawing that can be read here. Bring in an ${READ_FORMATS_SAID} file.`,
    ],
    ['a PDF', latin1('%PDF-1.4 <svg></svg>'), 'This file has pages, which are read one by one.'],
    ['a PNG', latin1('\x89PNG\r\n'), 'This file is a picture that breaks off before it says how large it is.'],
    ['a JPEG', latin1('\xff\xd8\xff\xe0'), 'This file is a picture that breaks off before it says how large it is.'],
    [
      'a ZIP',
      latin1('PK\x03\x04'),
      `This file is a packed folder. Unpack it and bring in the ${READ_FORMATS_SAID} in it.`,
    ],
    ['an EPS', latin1('%!PS-Adobe-3.0 EPSF-3.0'), EPS],
    ['an EPS with a picture of itself', latin1('\xc5\xd0\xd3\xc6\x1e'), EPS],
    ['a plotter file', utf8('IN;SP1;PU0,0;PD400,400;PU;'), 'HPGL: 1'],
    ['a plotter file for a printer', latin1('\x1bE\x1b%0BIN;SP1;PU0,0;PD400,400;PU;\x1b%0A\x1bE'), 'HPGL: 1'],
    ['a plotter file from the middle of one', utf8('1,2;PU0,0;PD400,400;PU;'), 'HPGL: 1'],
    ['a DWG', latin1('AC1021'), 'This file is a DWG. Save it as DXF.'],
    [
      'words that end like a PDF',
      utf8('not a %PDF'),
      `This is no drawing that can be read here. Bring in an ${READ_FORMATS_SAID} file.`,
    ],
  ])('%s', (_, bytes, sentence) => expect(said(bytes)).toBe(sentence));

  test('packed, what is in it; packed twice, asked to be unpacked; damaged, what could be unpacked', () => {
    expect(said(gzipSync(utf8(SVG)))).toBe('SVG: 1');
    expect(said(gzipSync(utf8(DXF)))).toBe('DXF R12: 1');
    expect(said(gzipSync(gzipSync(utf8(SVG))))).toBe('This file is packed more than once. Unpack it first.');
    const long = SVG.replace('</g>', `${'<path d="M0 0h9v9z"/>'.repeat(20_000)}</g>`);
    expect(said(gzipSync(utf8(long), { level: 0 }))).toBe('SVG: 20001');
    const broken = gzipSync(utf8(long), { level: 0 }).subarray(0, 150_000);
    expect(Number(/^SVG: (\d+)$/.exec(said(broken))?.[1])).toBeGreaterThan(1_000);
    expect(said(Uint8Array.of(0x1f, 0x8b, 8, 0, 0, 0, 0, 0, 0, 0, 255, 255, 255))).toBe(
      'This packed file is damaged and can’t be unpacked.',
    );
    // One of the two marks alone is no packed file.
    expect(said(Uint8Array.of(0x1f, 0x20, 0x20))).toMatch(/^This is no drawing/);
    expect(said(Uint8Array.of(0x20, 0x8b, 0x20))).toMatch(/^This is no drawing/);
  });

  test('read in the letters it is written in', () => {
    expect(nameIn(utf8(SVG))).toBe('Zoë');
    expect(nameIn(utf16(SVG, true))).toBe('Zoë');
    expect(nameIn(utf16(SVG, false))).toBe('Zoë');
    expect(nameIn(latin1(`<?xml version="1.0" encoding="ISO-8859-1"?>${SVG}`))).toBe('Zoë');
    expect(nameIn(utf8(`<?xml version='1.0' encoding='utf-8'?>${SVG}`))).toBe('Zoë');
    // Letters nobody knows are taken for the usual ones.
    expect(nameIn(utf8(`<?xml version="1.0" encoding="klingon"?>${SVG}`))).toBe('Zoë');
    // Half a mark of order is none.
    expect(said(Uint8Array.of(0xff, 0x20, ...utf8(SVG)))).toBe('SVG: 1');
    expect(said(Uint8Array.of(0xfe, 0x20, ...utf8(SVG)))).toBe('SVG: 1');
    expect(said(Uint8Array.of(0x20, 0xfe, ...utf8(SVG)))).toBe('SVG: 1');
    expect(said(Uint8Array.of(0x20, 0xff, ...utf8(SVG)))).toBe('SVG: 1');
  });
});

describe('numbers and names', () => {
  test('are short, without exponents or a nothing that is negative; what is no number is refused', () => {
    expect([1.5, 1.25, 100, 0, 1e-9, -1e-9, -0, 1e21 / 1e21, -2.5].map((n) => decimal(n, 3))).toEqual([
      '1.5',
      '1.25',
      '100',
      '0',
      '0',
      '0',
      '0',
      '1',
      '-2.5',
    ]);
    expect([decimal(100, 0), decimal(1234.5, 0), decimal(0.4, 0)]).toEqual(['100', '1235', '0']);
    for (const none of [Number.NaN, Infinity, -Infinity]) expect(() => decimal(none, 3)).toThrow(RangeError);
  });

  test('that are the same but for their case are told apart by a number, the first free one', () => {
    expect(distinctNames(['Cut', 'cut', 'CUT', 'Mark', 'Cut 2', 'mark'])).toEqual([
      'Cut',
      'cut 2',
      'CUT 3',
      'Mark',
      'Cut 2 2',
      'mark 2',
    ]);
    expect(distinctNames([])).toEqual([]);
  });

  test('colours are three numbers', () => expect(rgbOf('#3730A3')).toEqual([0x37, 0x30, 0xa3]));

  test('how areas are scanned is said where there are areas, and it is given', () => {
    const layer = { name: 'E', kind: 'engrave', colour: '#000000', tolerance: 1, pen: 1 } as const;
    const [fill, stroke] = [area(), polyline({ closed: false, segments: [] })];
    const scan = { interval: 0.08, direction: 45 };
    expect(scanWords({ ...layer, scan, drawn: [stroke, fill] })).toBe(
      'E: areas are scanned in lines 0.08 mm apart, 45 degrees from level.',
    );
    expect(scanWords({ ...layer, scan, drawn: [stroke] })).toBeNull();
    expect(scanWords({ ...layer, scan: null, drawn: [fill] })).toBeNull();
  });

  test('a circle is closed, round and where it should be', () => {
    const circle = circleAt({ x: 3, y: 4 }, 2);
    expect(isContinuous(circle)).toBe(true);
    expect(circle.closed).toBe(true);
    expect(pathArea(circle)).toBeCloseTo(4 * Math.PI, 9);
    const box = pathBox(circle);
    expect([box.minX, box.minY, box.maxX, box.maxY].map((v) => Number(v.toFixed(9)))).toEqual([1, 2, 5, 6]);
  });
});

describe('path data', () => {
  const path = (segments: readonly Segment[], closed = false): Path => ({ segments, closed });

  test('keeps lines, curves and arcs, upwards or down from a height', () => {
    const p = path([line(0, 0, 10, 0), quadratic(10, 0, 15, 5, 10, 10), cubic(10, 10, 8, 12, 2, 12, 0, 10)]);
    expect(pathData([p], null)).toBe('M0 0L10 0Q15 5 10 10C8 12 2 12 0 10');
    expect(pathData([p], 50)).toBe('M0 50L10 50Q15 45 10 40C8 38 2 38 0 40');
    expect(pathData([p], 0)).toBe('M0 0L10 0Q15 -5 10 -10C8 -12 2 -12 0 -10');
  });

  test('arcs turn the way they did, the long way in pieces; there and back they are the same', () => {
    for (const sweep of [1, -1, 3, -3, 4, -4, 5.5, Math.PI, -Math.PI, 2 * Math.PI, -2 * Math.PI]) {
      const arc = arcAbout(5, 5, 4, 0.3, sweep);
      const [again] = pathOf(pathData([path([arc])], null, 9)).paths;
      const sum = again?.segments.reduce((all, s) => all + (s.kind === 'arc' ? s.sweep : Number.NaN), 0);
      expect(sum, String(sweep)).toBeCloseTo(sweep, 5);
      const flags = / 0 ([01]) ([01]) /.exec(pathData([path([arc])], null));
      const down = / 0 ([01]) ([01]) /.exec(pathData([path([arc])], 20));
      // No piece goes the long way round: near half a turn, rounding moves the middle of an arc.
      expect(flags?.[1]).toBe('0');
      expect(again?.segments.length).toBe(Math.ceil(Math.abs(sweep) / 2));
      expect(again?.segments.every((s) => s.kind === 'arc' && Math.hypot(s.cx - 5, s.cy - 5) < 1e-7)).toBe(true);
      expect([flags?.[2], down?.[2]]).toEqual(sweep > 0 ? ['1', '0'] : ['0', '1']);
    }
  });

  test('a closed path leaves its last straight piece to the closing, but no other, and never all of it', () => {
    const square = [line(0, 0, 9, 0), line(9, 0, 9, 9), line(9, 9, 0, 0)];
    expect(pathData([path(square, true)], null)).toBe('M0 0L9 0L9 9Z');
    expect(pathData([path(square)], null)).toBe('M0 0L9 0L9 9L0 0');
    expect(pathData([path([line(0, 0, 9, 0), quadratic(9, 0, 5, 5, 0, 0)], true)], null)).toBe('M0 0L9 0Q5 5 0 0Z');
    expect(pathData([path([line(3, 3, 3, 3)], true)], null)).toBe('M3 3L3 3Z');
    expect(pathData([path([], true), path(square)], null)).toBe('M0 0L9 0L9 9L0 0');
    expect(pathData([path([line(0, 0, 1 / 3, 0)])], null, 2)).toBe('M0 0L0.33 0');
  });
});

describe('sizes a drawing may be meant in', () => {
  const units = (mmPerUnit: number, measure: FileMeasure) =>
    sizeChoices({ unit: 'claimed', mmPerUnit, stated: true, measure }).map((c) => [
      c.unit,
      Number(c.factor.toFixed(4)),
      c.claimed,
    ]);

  test('are what the file claims, then the likely ones, none of them the same again', () => {
    expect(units(1, 'units')).toEqual([
      ['claimed', 1, true],
      ['inches', 25.4, false],
      ['centimetres', 10, false],
      ['metres', 1000, false],
    ]);
    expect(units(25.4 / 96, 'pixels').map(([unit]) => unit)).toEqual([
      'claimed',
      'millimetres',
      'inches',
      'centimetres',
      'metres',
      'pixels of 1/90 inch',
      'points of 1/72 inch',
    ]);
    expect(units(25.4 / 72, 'points').map(([unit]) => unit)).toEqual([
      'claimed',
      'millimetres',
      'pixels of 1/96 inch',
      'pixels of 1/90 inch',
    ]);
    expect(units(0.025, 'steps')).toEqual([
      ['claimed', 1, true],
      ['steps of 1/1000 inch', 1.016, false],
      ['steps of 0.1 mm', 4, false],
      ['steps of 0.01 mm', 0.4, false],
    ]);
    expect(units(1.0005, 'units')).toHaveLength(4);
    expect(units(1.002, 'units')).toHaveLength(5);
  });
});

test('what the page says of formats is what can be read', () => {
  expect(READ_FORMATS.map((f) => f.word).sort()).toEqual([...READ_WORDS].sort());
  expect(READ_FORMATS.flatMap((f) => f.endings).sort()).toEqual([...READ_ENDINGS].sort());
});
