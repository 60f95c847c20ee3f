/** Words along a line, against places computed here by hand. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { ArcLength } from '../../src/core/geometry/arc-length';
import { offsetRegion } from '../../src/core/geometry/offset/offset';
import { pathArea } from '../../src/core/geometry/path';
import { applyMatrix, IDENTITY, type Matrix } from '../../src/core/geometry/point';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { pointAt, tangentAt } from '../../src/core/geometry/segment';
import type { BaselineTrack } from '../../src/core/lettering/bend';
import { type Layout, layoutLettering } from '../../src/core/lettering/layout';
import type { LetteringSpec } from '../../src/core/lettering/spec';
import { radiusOfRise } from '../../src/core/lettering/text-path';
import { piecesOf } from '../../src/core/prepare/pieces';
import { weldLettering } from '../../src/core/prepare/weld';
import { type Along, alongSchema } from '../../src/core/schema/along';
import { spec, typeface, wasmEngine } from '../support/faces';

const along = (line: Along['line'], more: Partial<Along> = {}): Along => ({ ...alongSchema.parse({ line }), ...more });

type Stood = { readonly x: number; readonly y: number; readonly deg: number };

/** Where letters stand: their origins in mm and how they are turned, as laid out. */
const standing = (layout: Layout): Stood[] =>
  layout.letters.map(({ x, y, own }) => {
    const { a, b } = own as Matrix;
    return { x: x * layout.scale, y: y * layout.scale, deg: (Math.atan2(b, a) * 180) / Math.PI };
  });

/** Middles of advances along a straight line and half the advances, in mm from where its ink is aligned; from shaping alone. */
function straight(text: string, family: string, more: Partial<LetteringSpec> = {}) {
  const face = typeface(family);
  const plain = layoutLettering(spec(text, more), face);
  const scale = plain.scale;
  let pen = 0;
  const advances = new Map<number, { x: number; advance: number }>();
  for (const g of face.shape(text, 'ltr', { ligatures: true, features: [] })) {
    const known = advances.get(g.cluster);
    advances.set(g.cluster, { x: known?.x ?? pen, advance: (known?.advance ?? 0) + g.advance });
    pen += g.advance;
  }
  const first = plain.letters[0];
  const shift = (first?.x ?? 0) - (advances.get(first?.start ?? 0)?.x ?? 0);
  return plain.letters.map((l) => {
    const { x, advance } = advances.get(l.start) as { x: number; advance: number };
    return { middle: (x + shift + advance / 2) * scale, half: (advance / 2) * scale };
  });
}

function expectStanding(layout: Layout, wanted: readonly Stood[]): void {
  const got = standing(layout);
  expect(got.length).toBe(wanted.length);
  got.forEach((g, i) => {
    const w = wanted[i] as Stood;
    expect(Math.hypot(g.x - w.x, g.y - w.y)).toBeLessThan(0.001);
    const turn = ((g.deg - w.deg + 540) % 360) - 180;
    expect(Math.abs(turn)).toBeLessThan(0.001);
  });
}

const DEG = Math.PI / 180;
const TEXT = 'Alder Lane Garden';

/** A letter whose middle stands on a circle about a centre, at an angle from the top, clockwise; feet inwards or outwards. */
function onCircle(
  { middle, half }: { readonly middle: number; readonly half: number },
  {
    cx,
    cy,
    radius,
    feet,
  }: { readonly cx: number; readonly cy: number; readonly radius: number; readonly feet: 'in' | 'out' },
): Stood {
  const turned = middle / radius;
  const up = feet === 'in' ? 1 : -1;
  // Clockwise over the top, or from left to right along the bottom.
  const [x, y] = [cx + radius * Math.sin(turned), cy + up * radius * Math.cos(turned)];
  const deg = (-up * turned) / DEG;
  return { x: x - half * Math.cos(deg * DEG), y: y - half * Math.sin(deg * DEG), deg };
}

describe.each([
  ['Poppins', 'centre'],
  ['Pacifico', 'left'],
  ['Libre Baskerville', 'right'],
] as const)('in %s aligned %s', (family, align) => {
  const set = (a: Along, text = TEXT): Layout => layoutLettering(spec(text, { align, along: a }), typeface(family));
  const letters = straight(TEXT, family, { align });

  test.each([40, 90, 4000])('an arc of radius %d upwards and downwards', (mm) => {
    expectStanding(
      set(along({ kind: 'arc', by: 'radius', mm, bends: 'up' })),
      letters.map((l) => onCircle(l, { cx: 0, cy: -mm, radius: mm, feet: 'in' })),
    );
    expectStanding(
      set(along({ kind: 'arc', by: 'radius', mm, bends: 'down' })),
      letters.map((l) => onCircle(l, { cx: 0, cy: mm, radius: mm, feet: 'out' })),
    );
  });

  test('a circle: outside, inside, at a distance, turned on', () => {
    const [radius, distance, start] = [60, 3, 17];
    const line = { kind: 'circle', radius } as const;
    const shifted = (on: number) => letters.map((l) => ({ ...l, middle: l.middle + (start * on) / radius }));
    expectStanding(
      set(along(line, { distance, start })),
      shifted(radius + distance).map((l) => onCircle(l, { cx: 0, cy: 0, radius: radius + distance, feet: 'in' })),
    );
    const inner = radius - distance - 20;
    expectStanding(
      set(along(line, { side: 'under', distance, start })),
      shifted(inner).map((l) => onCircle(l, { cx: 0, cy: 0, radius: inner, feet: 'in' })),
    );
  });

  test('upright letters stay upright and stand in the same places', () => {
    const radius = 70;
    const followed = along({ kind: 'circle', radius });
    expectStanding(
      set({ ...followed, letters: 'upright' }),
      letters.map((l) => {
        const { x, y, deg } = onCircle(l, { cx: 0, cy: 0, radius, feet: 'in' });
        const middle = { x: x + l.half * Math.cos(deg * DEG), y: y + l.half * Math.sin(deg * DEG) };
        return { x: middle.x - l.half, y: middle.y, deg: 0 };
      }),
    );
  });
});

test('a ring: the last line along the bottom, the right way up, between the same circles', () => {
  const radius = 60;
  const [top, bottom] = ['ALDER LANE', 'GARDEN'];
  for (const [side, upper, lower] of [
    ['on', radius, radius + 20],
    ['under', radius - 20, radius],
  ] as const) {
    const layout = layoutLettering(
      spec(`${top}\n${bottom}`, { align: 'centre', along: along({ kind: 'circle', radius }, { bottom: true, side }) }),
      typeface('Poppins'),
    );
    expectStanding(layout, [
      ...straight(top, 'Poppins', { align: 'centre' }).map((l) =>
        onCircle(l, { cx: 0, cy: 0, radius: upper, feet: 'in' }),
      ),
      ...straight(bottom, 'Poppins', { align: 'centre' }).map((l) =>
        onCircle(l, { cx: 0, cy: 0, radius: lower, feet: 'out' }),
      ),
    ]);
  }
});

test('further lines run on circles about the same middle: the last stands on the line, the first hangs from it', () => {
  const face = typeface('Poppins');
  const text = 'Alder Lane\nGarden';
  const apart = -(layoutLettering(spec(text), face).baselines[1] ?? 0);
  const layout = layoutLettering(spec(text, { align: 'centre', along: along({ kind: 'circle', radius: 80 }) }), face);
  expectStanding(layout, [
    ...straight('Alder Lane', 'Poppins', { align: 'centre' }).map((l) =>
      onCircle(l, { cx: 0, cy: 0, radius: 80 + apart, feet: 'in' }),
    ),
    ...straight('Garden', 'Poppins', { align: 'centre' }).map((l) =>
      onCircle(l, { cx: 0, cy: 0, radius: 80, feet: 'in' }),
    ),
  ]);
});

test('a rise is met by the middle of the arc above the ends of the words, whatever these are', () => {
  for (const text of ['Oak', TEXT, 'Alder Lane Community Garden']) {
    const layout = layoutLettering(
      spec(text, { align: 'centre', along: along({ kind: 'arc', by: 'rise', mm: 12, bends: 'up' }) }),
      typeface('Poppins'),
    );
    const { curve, from, to } = (layout.lines[0]?.track ?? {}) as BaselineTrack;
    expect(curve.at((from + to) / 2).y - curve.at(from).y).toBeCloseTo(12, 6);
    expect(curve.at(from).y).toBeCloseTo(curve.at(to).y, 9);
  }
  // No arc of a length is higher than this.
  expect(radiusOfRise(100, 1e6)).toBeCloseTo(50 / 2.331122370414423, 6);
});

describe('a drawn line', () => {
  const D = 'M0 0C40 80 90 -60 160 30C190 70 210 60 230 0';

  /** The same by walking along 2 000 000 chords. */
  function walked(d: string, lengths: readonly number[]): { x: number; y: number; deg: number }[] {
    const segments = pathOf(d).paths[0]?.segments ?? [];
    const out: { x: number; y: number; deg: number }[] = [];
    let run = 0;
    let next = 0;
    const N = 1_000_000;
    for (const s of segments) {
      let before = pointAt(s, 0);
      for (let i = 1; i <= N && next < lengths.length; i++) {
        const p = pointAt(s, i / N);
        const step = Math.hypot(p.x - before.x, p.y - before.y);
        while (next < lengths.length && run + step >= (lengths[next] as number)) {
          const share = ((lengths[next] as number) - run) / step;
          const t = (i - 1 + share) / N;
          const [at, way] = [pointAt(s, t), tangentAt(s, t)];
          out.push({ ...at, deg: Math.atan2(way.y, way.x) / DEG });
          next++;
        }
        run += step;
        before = p;
      }
    }
    return out;
  }

  test('letters stand by the middles of their advances, as dense sampling finds them', () => {
    const start = 12;
    const drawn = pathOf(D).paths[0] ?? null;
    const layout = layoutLettering(
      spec(TEXT, { align: 'left', along: along({ kind: 'path', d: D, scale: 1 }, { start }) }),
      typeface('Pacifico'),
      undefined,
      { drawn },
    );
    const letters = straight(TEXT, 'Pacifico', { align: 'left' });
    const places = walked(
      D,
      letters.map((l) => l.middle + start),
    );
    expectStanding(
      layout,
      places.map(({ x, y, deg }, i) => {
        const { half } = letters[i] as { half: number };
        return { x: x - half * Math.cos(deg * DEG), y: y - half * Math.sin(deg * DEG), deg };
      }),
    );
  });

  test('what does not fit runs straight on past the end, and is told how far', () => {
    const drawn = pathOf('M0 0L50 0').paths[0] ?? null;
    const layout = layoutLettering(
      spec(TEXT, { align: 'left', along: along({ kind: 'path', d: 'M0 0L50 0', scale: 1 }) }),
      typeface('Poppins'),
      undefined,
      { drawn },
    );
    const plain = layoutLettering(spec(TEXT, { align: 'left' }), typeface('Poppins'));
    expect(layout.along?.overrunMm).toBeCloseTo(plain.box.maxX - plain.box.minX - 50, 6);
    expectStanding(
      layout,
      plain.letters.map((l) => ({ x: l.x * plain.scale, y: 0, deg: 0 })),
    );
  });
});

describe('lengths along a path', () => {
  const point = fc.tuple(fc.double({ min: -90, max: 90, noNaN: true }), fc.double({ min: -90, max: 90, noNaN: true }));

  test('run on by what is asked, and lead back to the same place', () => {
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 4, maxLength: 4 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (p, share) => {
          const d = `M${p[0]?.join(' ')}C${p
            .slice(1)
            .map((q) => q.join(' '))
            .join(' ')}`;
          const path = pathOf(d).paths[0];
          if (!path || path.segments.length === 0) return;
          const curve = new ArcLength(path);
          const run = share * curve.length;
          expect(curve.lengthTo(curve.placeAt(run))).toBeCloseTo(run, 6);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('of a curve moved to the side are those of the curve that is at its distance', () => {
    const path = pathOf('M0 0C30 40 70 40 100 0').paths[0];
    if (!path) throw new Error('no path');
    const [base, side] = [new ArcLength(path), new ArcLength(path, 5)];
    let run = 0;
    const N = 200_000;
    let before = side.at(0);
    for (let i = 1; i <= N; i++) {
      const p = side.at((side.length * i) / N);
      run += Math.hypot(p.x - before.x, p.y - before.y);
      before = p;
    }
    expect(run).toBeCloseTo(side.length, 4);
    const q = base.at(base.length / 2);
    const at = side.at(side.lengthTo(base.placeAt(base.length / 2)));
    expect(Math.hypot(at.x - q.x, at.y - q.y)).toBeCloseTo(5, 9);
  });

  test('go about outer corners, and end where inner sides meet', () => {
    const square = pathOf('M0 0L0 40L40 40L40 0Z').paths[0];
    if (!square) throw new Error('no path');
    expect(new ArcLength(square, 3).length).toBeCloseTo(160 + 2 * Math.PI * 3, 9);
    expect(new ArcLength(square, -3).length).toBeCloseTo(4 * 34, 9);
    for (const left of [3, -3]) {
      const curve = new ArcLength(square, left);
      for (let i = 0; i < 200; i++) {
        const { x, y } = curve.at((curve.length * i) / 200);
        const outside = Math.hypot(Math.max(0, -x, x - 40), Math.max(0, -y, y - 40));
        const inside = Math.min(x, 40 - x, y, 40 - y);
        expect(left > 0 ? outside : inside).toBeCloseTo(3, 9);
      }
    }
  });

  test('between two of them lies the stretch that joins them', () => {
    const path = pathOf('M0 0C30 40 70 40 100 0L120 0A20 20 0 0 1 140 20').paths[0];
    if (!path) throw new Error('no path');
    for (const left of [0, 4, -4]) {
      const curve = new ArcLength(path, left);
      for (const [from, to] of [
        [-5, 20],
        [10, curve.length - 3],
        [curve.length - 1, curve.length + 7],
      ] as const) {
        const piece = curve.between(from, to);
        expect(Math.abs(new ArcLength(piece).length - (to - from))).toBeLessThan(0.01);
        const [p, q] = [piece.segments[0], piece.segments[piece.segments.length - 1]];
        const [a, b] = [curve.at(from), curve.at(to)];
        expect(Math.hypot((p?.x0 ?? 0) - a.x, (p?.y0 ?? 0) - a.y)).toBeLessThan(0.005);
        expect(Math.hypot((q?.x1 ?? 0) - b.x, (q?.y1 ?? 0) - b.y)).toBeLessThan(0.005);
      }
    }
  });
});

test('changes to single letters go with the line: up is away from it', () => {
  const radius = 50;
  const letters = [{ at: 0, dx: 0.1, dy: 0.5, turn: 0, scale: 1, form: null }];
  const options = { align: 'centre', along: along({ kind: 'circle', radius }) } as const;
  const plain = layoutLettering(spec('HOH', options), typeface('Poppins'));
  const moved = layoutLettering(spec('HOH', { ...options, letters }), typeface('Poppins'));
  const [a, b] = [standing(plain)[0] as Stood, standing(moved)[0] as Stood];
  const back = applyMatrix(
    {
      a: Math.cos(-a.deg * DEG),
      b: Math.sin(-a.deg * DEG),
      c: -Math.sin(-a.deg * DEG),
      d: Math.cos(-a.deg * DEG),
      e: 0,
      f: 0,
    },
    { x: b.x - a.x, y: b.y - a.y },
  );
  expect(back.x).toBeCloseTo(2, 9);
  expect(back.y).toBeCloseTo(10, 9);
  expect(standing(moved).slice(1)).toEqual(standing(plain).slice(1));
});

describe('closed up along a curve', () => {
  const wanted = 1;
  const closeUp = { overlap: wanted, words: false, lines: false };
  const line = (mm: number, bends: 'up' | 'down') => along({ kind: 'arc', by: 'radius', mm, bends });
  const set = (family: string, a: Along | null) =>
    layoutLettering(spec('GARDEN', { align: 'centre', closeUp, along: a }), typeface(family));

  test.each([
    ['Archivo Black', 40, 'up'],
    ['Archivo Black', 40, 'down'],
    ['Alfa Slab One', 60, 'up'],
    ['Poppins', 35, 'down'],
  ] as const)(
    '%s on a radius of %d mm %s is one piece, and stays so where 0.45 of the joint is worn off',
    (family, mm, bends) => {
      const layout = set(family, line(mm, bends));
      const welded = weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY });
      expect(piecesOf(welded).length).toBe(1);
      const worn = offsetRegion(wasmEngine, welded, { by: -0.45 * wanted, corners: 'round' });
      expect(worn.filter((o) => pathArea(o.path) > 0.5).length).toBe(1);
      // What is closed up is told with its joint.
      expect(layout.closedUp.length).toBe(5);
      for (const { joint, move } of layout.closedUp) {
        expect(joint).toBeGreaterThanOrEqual(wanted * 0.999);
        expect(move).toBeGreaterThanOrEqual(0);
      }
    },
  );

  test.each(['Archivo Black', 'Poppins', 'Pacifico'])(
    '%s on a line that hardly bends is as on a straight one',
    (family) => {
      const [bent, straightly] = [set(family, line(1e5, 'up')), set(family, null)];
      const moves = (l: Layout) => l.closedUp.map((c) => c.move);
      expect(moves(bent).length).toBe(moves(straightly).length);
      const off = moves(bent).map((move, i) => Math.abs(move - (moves(straightly)[i] ?? 0)));
      expect(Math.max(...off)).toBeLessThan(0.03);
    },
  );
});
