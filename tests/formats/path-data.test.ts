/** Path data read: by examples, against an independent reader, and where it breaks off. */
import fc from 'fast-check';
import svgpath from 'svgpath';
import { describe, expect, test } from 'vitest';
import { pathOf } from '../../src/core/geometry/read-path-data';

/** Ends of all that is drawn, each with its kind, as the independent reader has them. */
function endsOf(data: string): string[] {
  const ends: string[] = [];
  svgpath(data)
    .abs()
    .unshort()
    .iterate((raw, _i, x, y) => {
      const [command, ...n] = raw as [string, ...number[]];
      const last = n.slice(-2) as [number, number];
      const end = command === 'H' ? [n[0], y] : command === 'V' ? [x, n[0]] : last;
      if (command === 'M' || command === 'Z') ends.push(command === 'Z' ? 'Z' : 'M');
      else if (end[0] !== x || end[1] !== y) ends.push([...(/[QC]/.test(command) ? n : end)].map(Number).join());
    });
  return ends.filter((end) => end !== 'M' && end !== 'Z');
}

/** The same of our reading, without what closing and arcs in several pieces add. */
const ownEnds = (data: string): string[] =>
  pathOf(data).paths.flatMap(({ segments }) =>
    segments.map((s) => {
      const controls = s.kind === 'quadratic' ? [s.ax, s.ay] : s.kind === 'cubic' ? [s.ax, s.ay, s.bx, s.by] : [];
      return [...controls, s.x1, s.y1].join();
    }),
  );

describe('path data', () => {
  test.each([
    ['every command, absolute', 'M1 2L3 4H5V6C7 8 9 10 11 12S13 14 15 16Q17 18 19 20T21 22'],
    ['every command, relative', 'm1 2l3 4h5v6c7 8 9 10 11 12s13 14 15 16q17 18 19 20t21 22'],
    ['pairs of a move are lines', 'm 62 190 51.9 90 -103.9 0 51.9 -90'],
    ['a smooth curve after none of its kind', 'M1 1S2 3 4 5T8 9 7 7S1 1 0 9'],
    ['numbers run together', 'M0.5.5.25-1e1L-.5+.5 1e-3,2E2'],
    ['commas and every blank', 'M1,2 \n\t L3 , 4\r\n5,6'],
    ['a move after a closing', 'M1 1L5 1 5 5zm2 2l1 0 0 1'],
    ['long numbers', 'M0.12345678901234567 98765432109876543L1234567.890123456 0.000000123456789'],
  ])('as an independent reader has it: %s', (_, data) => {
    expect(pathOf(data).damaged).toBe(false);
    const closing = new Set(data.toLowerCase().includes('z') ? ['1,1', '3,3'] : []);
    expect(ownEnds(data).filter((end) => !closing.has(end))).toEqual(endsOf(data));
  });

  test('numbers to the last digit', () => {
    const written = fc.oneof(
      fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 }).map(String),
      fc
        .tuple(fc.integer({ min: -99999999, max: 99999999 }), fc.integer({ min: 0, max: 9 }))
        .map(([n, d]) => (n / 10 ** d).toFixed(d)),
      fc.tuple(fc.nat(999), fc.nat(999999)).map(([n, d]) => `${n}.${d}`),
    );
    fc.assert(
      fc.property(written, written, (x, y) => {
        const [path] = pathOf(`M0 0L${x} ${y}`).paths;
        const end = path?.segments[0];
        const [wantedX, wantedY] = [Number(x), Number(y)];
        if (wantedX === 0 && wantedY === 0) return end === undefined;
        return end !== undefined && end.x1 === wantedX + 0 && end.y1 === wantedY + 0;
      }),
      { numRuns: 500 },
    );
  });

  test.each([
    ['no move at first', 'L1 1', 0],
    ['a sign that is none', 'M0 0L1 1#L2 2', 1],
    ['half a pair', 'M0 0L1 1 2', 1],
    ['a comma and nothing', 'M0 0L1 1,', 1],
    ['a flag that is none', 'M0 0L1 1A1 1 0 2 0 3 3', 1],
    ['an exponent without digits', 'M0 0L1 1 2e 3', 1],
    ['words', 'none', 0],
    ['a number after a closing', 'M0 0L1 1z 5 5', 2],
  ])('it ends where it breaks off: %s', (_, data, drawn) => {
    const { paths, damaged } = pathOf(data);
    expect(damaged).toBe(true);
    expect(paths.reduce((sum, p) => sum + p.segments.length, 0)).toBe(drawn);
  });

  test('nothing draws nothing', () => {
    for (const data of ['', ' ', 'M1 1', 'M1 1Z', 'M1 1L1 1'])
      expect(pathOf(data)).toEqual({ paths: [], damaged: false });
  });

  test('an arc of a circle is one arc, its flags need nothing between', () => {
    const [path] = pathOf('M0 0a5 5 0 0110 0').paths;
    const [arc, ...more] = path?.segments ?? [];
    expect(more).toEqual([]);
    expect(arc).toMatchObject({ kind: 'arc', x1: 10, y1: 0 });
    expect(Math.abs((arc as { sweep: number }).sweep)).toBeCloseTo(Math.PI, 9);
  });

  test('a wide arc is whole', () => {
    const [path] = pathOf('M5 0A5 5 0 1 1 4.9 -0.9').paths;
    const turned = (path?.segments ?? []).reduce((sum, s) => sum + (s.kind === 'arc' ? Math.abs(s.sweep) : 0), 0);
    expect(turned).toBeGreaterThan(1.9 * Math.PI - 0.2);
  });

  test('a long file is read in step with its length', () => {
    const line = 'M1.5 2.5L3.25 4.125C5 6 7 8 9 10Z';
    const { paths, damaged } = pathOf(line.repeat(20_000));
    expect([paths.length, damaged]).toEqual([20_000, false]);
  });
});
