/** Lines kept to the ink, and how deep in it places are: shapes by hand. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { laid } from '../../src/core/geometry/lying';
import { medialAxis } from '../../src/core/geometry/medial';
import { type Path, pathLength } from '../../src/core/geometry/path';
import { arcAbout, line, quadratic } from '../../src/core/geometry/segment';
import { depthInside } from '../../src/core/toolpath/centerline/depth-inside';
import { bareLength, depthIn, type Ink, inkedParts, isInked } from '../../src/core/toolpath/centerline/ink';
import { rectangle } from '../support/shapes';

describe('lines in ink', () => {
  const ink = (paths: readonly Path[], width = 10): Ink => ({ room: depthIn(laid(paths), width), bare: 0.01, width });
  const holed = ink([rectangle(0, 0, 100, 20), rectangle(40, 5, 20, 10, -1)]);
  const across: Path = { closed: false, segments: [line(5, 10, 95, 10)] };

  test('a line is cut where it runs over a hole, and only there', () => {
    const parts = inkedParts([across], holed, 0);
    expect(parts.map((p) => [p.segments[0]?.x0, p.segments[0]?.x1].map((x) => x?.toFixed(1)))).toEqual([
      ['5.0', '40.0'],
      ['60.0', '95.0'],
    ]);
    expect(bareLength([across], holed)).toBeCloseTo(20, 1);
    expect(inkedParts([across], holed, 36)).toEqual([]);
  });

  test('a closed line goes on over its start', () => {
    const ring: Path = {
      closed: true,
      segments: [0, 1, 2, 3].map((k) => arcAbout(50, 10, 30, (k * Math.PI) / 2, Math.PI / 2)),
    };
    const [part, ...more] = inkedParts([ring], ink([rectangle(52, -40, 100, 100)]), 0);
    expect(more).toEqual([]);
    expect(part?.closed).toBe(false);
    expect(pathLength(part as Path)).toBeCloseTo(30 * 2 * Math.acos(2 / 30), 1);
  });

  test('what is out by very little stays, and so does what lies in ink', () => {
    const slot = ink([rectangle(0, 0, 40, 20), rectangle(40.3, 0, 40, 20)]);
    const over: Path = { closed: false, segments: [line(5, 10, 75, 10)] };
    expect(inkedParts([over], slot, 0)).toEqual([over]);
    const inside: Path = { closed: false, segments: [line(5, 2, 95, 2)] };
    expect(inkedParts([inside], holed, 0)[0]).toBe(inside);
    expect(isInked(inside.segments, holed.room, 0.01)).toBe(true);
    expect(isInked(across.segments, holed.room, 0.01)).toBe(false);
  });

  test('a line is cut at a slot that is far narrower than a stroke', () => {
    const slot = ink([rectangle(0, 0, 40, 20), rectangle(40.9, 0, 40, 20)]);
    const [first, second, ...more] = inkedParts([{ closed: false, segments: [line(5, 10, 75, 10)] }], slot, 0);
    expect(more).toEqual([]);
    expect(first?.segments.at(-1)?.x1).toBeCloseTo(40.01, 2);
    expect(second?.segments[0]?.x0).toBeCloseTo(40.89, 2);
  });

  test('a free end is cut off however little of it is out of ink; one that meets another line stays', () => {
    const out: Path = { closed: false, segments: [line(75, 10, 100.3, 10)] };
    const [alone] = inkedParts([out], holed, 0);
    expect(alone?.segments.at(-1)?.x1).toBeCloseTo(100.01, 2);
    const met: Path = { closed: false, segments: [line(100.3, 0, 100.3, 15)] };
    expect(inkedParts([out, met], holed, 0)[0]).toBe(out);
  });
});

describe('depth inside, told from samples', () => {
  test('is what all chords tell, within and without, of rough shapes with cusps', () => {
    const radius = fc.double({ min: 3, max: 10, noNaN: true });
    const shapes = fc.array(fc.tuple(radius, radius), { minLength: 6, maxLength: 14 });
    const away = fc.double({ min: -12, max: 12, noNaN: true });
    const places = fc.array(fc.tuple(away, away), { minLength: 100, maxLength: 100 });
    fc.assert(
      fc.property(shapes, places, (shape, asked) => {
        const at = (r: number, i: number): [number, number] => {
          const turn = (2 * Math.PI * (i % shape.length)) / shape.length;
          return [r * Math.cos(turn), r * Math.sin(turn)];
        };
        const star: Path = {
          closed: true,
          segments: shape.map(([r, bulge], i) =>
            quadratic(
              ...at(r, i),
              ...at(bulge, i + 0.5),
              ...at((shape[(i + 1) % shape.length] as [number, number])[0], i + 1),
            ),
          ),
        };
        const axis = medialAxis([star], 0.1);
        if (!axis) return;
        const depth = depthInside(axis.samples);
        const exact = depthIn(laid([star]), 30);
        for (const [x, y] of asked) expect(Math.abs(depth({ x, y }) - exact({ x, y }))).toBeLessThan(0.1);
      }),
      { numRuns: 60 },
    );
  });
});
