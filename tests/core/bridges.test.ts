/** Bridges: where they are put, and that they are exact and change nothing else. */
import { describe, expect, test } from 'vitest';
import { diskFaces } from '../../src/cli/typefaces';
import type { BridgeNow } from '../../src/core/commands/bridges';
import type { Part, StepOf } from '../../src/core/document/schema';
import { pointAt, type Segment } from '../../src/core/geometry/segment';
import { segmentLength } from '../../src/core/geometry/segment-measures';
import { bridgeVariants } from '../../src/core/job/compare-bridges';
import { Evaluator } from '../../src/core/job/evaluate';
import { newStep, stepIn } from '../../src/core/kinds/steps';
import { EVIDENCE } from '../../src/core/lettering/evidence';
import { middleOf } from '../../src/core/lettering/letter-image';
import { NO_MEMORY } from '../../src/core/memo';
import { evidenceUnder } from '../../src/core/prepare/bridges/sites';
import type { PreparedPart } from '../../src/core/prepare/prepared';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { chance, randomWord } from '../support/random';
import { sample } from '../support/scale';
import { area, evaluator, key, notesOf, partIn, sheet, stencil, stencilJob, turnOf, weld } from '../support/stencils';

describe('what tells letters apart is spared', () => {
  /** What the bridges of letters take of what makes these themselves, together. */
  const taken = (family: string, text: string, reads: boolean): number => {
    const part = stencil(text, { width: 3, reads }, family);
    const { bridges, islands } = notesOf(part);
    return islands.reduce((sum, island) => {
      const frame = part.frames[island.label];
      if (!frame?.glyphs) return sum;
      const paths = frame.glyphs.outlines();
      const evidence = NO_MEMORY.get(EVIDENCE, { ...frame.glyphs, paths: () => paths });
      return island.bridges.reduce((more, k) => {
        const bridge = bridges[k] as (typeof bridges)[number];
        const { from, to, width } = bridge;
        const ends = { from: { middle: from }, to: { middle: to }, width };
        return more + evidenceUnder({ evidence, middle: middleOf(paths) }, frame.matrix)(ends);
      }, sum);
    }, 0);
  };

  test.each(['Caveat', 'Libre Baskerville'])('less of it is taken in %s', (family) => {
    const letters = 'ABDOPQRabdegopq04689';
    expect(taken(family, letters, true)).toBeLessThan(0.95 * taken(family, letters, false));
  });

  test('a 9 is not opened at its bowl, where it would be a 4', () => {
    expect(taken('Caveat', '9', true)).toBeLessThan(0.5 * taken('Caveat', '9', false));
  });

  test('every island is still held, and letters of other kinds are bridged as they were', () => {
    for (const text of ['A9e%@', 'ø å &'])
      expect(stencil(text, { width: 3, reads: true }, 'Libre Baskerville').pieces.length).toBe(
        stencil(text, { width: 3, reads: false }, 'Libre Baskerville').pieces.length,
      );
    const ring = (reads: boolean) =>
      partIn(
        jobWith([
          partOf(
            [60, 30].map((width, i) => ({
              id: `r${i}`,
              kind: 'ellipse',
              role: i === 0 ? 'join' : 'punch',
              placement: { x: 150, y: 100 },
              width,
              height: width,
            })),
            { keep: 'outside', steps: [weld, { kind: 'bridge', width: 3, reads }] },
          ),
        ]),
      );
    expect(notesOf(ring(true)).bridges).toEqual(notesOf(ring(false)).bridges);
  });
});

describe('islands', () => {
  test('at every depth, named by letter, from the top', () => {
    const islands = notesOf(stencil('B8%@O', null)).islands;
    expect(islands.map((i) => `${i.letter}/${i.rank}`)).toEqual([
      'words:0/0',
      'words:0/1',
      'words:1/0',
      'words:1/1',
      'words:2/0',
      'words:2/1',
      'words:3/0',
      'words:4/0',
    ]);
    expect(notesOf(stencil('B', null)).islands[0]?.outline.box.minY).toBeGreaterThan(
      notesOf(stencil('B', null)).islands[1]?.outline.box.minY ?? Infinity,
    );
  });

  test('ring in ring: each is held, and everything is one piece', { tags: 'slow' }, () => {
    const ring = (id: string, width: number, role: string): Draft => ({
      id,
      kind: 'ellipse',
      role,
      placement: { x: 150, y: 100 },
      width,
      height: width,
    });
    const rings = [160, 130, 100, 70, 40].map((width, i) => ring(`r${i}`, width, i % 2 === 0 ? 'join' : 'punch'));
    for (const keep of ['outside', 'inside']) {
      const job = jobWith([partOf(rings, { keep, steps: [weld, { kind: 'bridge', width: 3, count: 1 }] })]);
      const part = partIn(job);
      expect(notesOf(part).islands).toHaveLength(2);
      expect(part.pieces).toHaveLength(1);
    }
  });

  test('a stencil face needs nothing and gets nothing', () => {
    const bare = stencil('BOARD 8', null, 'Saira Stencil One');
    const bridged = stencil('BOARD 8', {}, 'Saira Stencil One');
    expect(bridged.outlines.map((o) => o.path)).toEqual(bare.outlines.map((o) => o.path));
    expect(notesOf(bridged).bridges).toEqual([]);
  });

  test('a self-adhesive stencil keeps its islands and has no findings', () => {
    const job = stencilJob('BOARD', {});
    const [first] = job.parts as [Part];
    const film = { ...job, parts: [{ ...first, selfAdhesive: true }] };
    const result = evaluator.evaluate(film, faces);
    expect(result.parts[0]?.bridged?.bridges).toEqual([]);
    expect(result.findings).toEqual([]);
    // Kept from before, it says nothing about a positive.
    const emblem = evaluator.evaluate({ ...job, parts: [{ ...first, selfAdhesive: true, keep: 'inside' }] }, faces);
    expect(emblem.findings.some((f) => f.code === 'loose')).toBe(true);
  });

  test('one on a hair of stock is cut free and held', { tags: 'slow' }, () => {
    const part = stencil('Gooseberry', { width: 2 }, 'Dancing Script', { size: { by: 'capital', mm: 20 } });
    expect(notesOf(part).hairs).toHaveLength(2);
    expect(part.pieces).toHaveLength(1);
    const thin = notesOf(part).hairs.every((h) => h.width < 0.1);
    expect(thin).toBe(true);
  });
});

describe('exact', () => {
  test('a straight bridge over a ring adds its sides and nothing else', () => {
    const part = stencil('O', { width: 3, count: 1, direction: 'upright' }, 'Poppins');
    const bare = stencil('O', null, 'Poppins');
    const [bridge] = notesOf(part).bridges;
    expect(bridge?.width).toBe(3);
    expect(area(bare) - area(part)).toBeCloseTo(bridge?.areaMm2 ?? 0, 0);
    // The two sides are parallel lines 3 mm apart.
    const before = new Set(bare.outlines.flatMap((o) => o.path.segments.map(key)));
    const lines = part.outlines.flatMap((o) => o.path.segments.filter((s) => s.kind === 'line' && !before.has(key(s))));
    expect(lines).toHaveLength(2);
    expect(Math.abs((lines[0]?.x0 ?? 0) - (lines[1]?.x0 ?? 0))).toBeCloseTo(3, 9);
  });

  test.each([
    ['straight', 'square', 6],
    ['straight', 'filleted', 10],
    ['waisted', 'square', 6],
  ])(
    '%s sides, %s joints: few segments more, all others the same, in every face',
    { tags: 'slow' },
    (sides, joints, most) => {
      const text = 'ABDOPQR abdegopq 04689 &@%';
      for (const face of FAMILIES) {
        const size = { size: { by: 'capital', mm: 30 } };
        const bare = stencil(text, null, face, size);
        const part = stencil(text, { width: 2, sides, joints }, face, size);
        const notes = notesOf(part);
        const before = new Set(notes.before.flatMap((o) => o.path.segments.map(key)));
        const after = part.outlines.flatMap((o) => o.path.segments);
        const bareCount = notes.before.reduce((sum, o) => sum + o.path.segments.length, 0);
        const changed = after.filter((s) => !before.has(key(s)));
        expect(after.length - bareCount).toBeLessThanOrEqual(8 * notes.bridges.length);
        // Of each bridge: two sides, four stretches beside it and, filleted, four arcs.
        expect(changed.length).toBeLessThanOrEqual(most * notes.bridges.length);
        expect(changed.filter((s) => segmentLength(s) < 0.009)).toEqual([]);
        for (const { path } of part.outlines)
          path.segments.forEach((s, i) => {
            const last = path.segments[(i + path.segments.length - 1) % path.segments.length] as Segment;
            expect(Math.hypot(s.x0 - last.x1, s.y0 - last.y1)).toBeLessThan(1e-9);
          });
        if (notes.hairs.length === 0 && notes.bridges.length === 0)
          expect(part.outlines.length).toBe(bare.outlines.length);
      }
    },
  );

  test('a waisted bridge is as wide as asked at its waist and wider at its ends', () => {
    const part = stencil('O', { width: 3, count: 1, direction: 'upright', sides: 'waisted' }, 'Poppins');
    const arcs = part.outlines.flatMap((o) => o.path.segments.filter((s) => s.kind === 'arc'));
    expect(arcs).toHaveLength(2);
    const [a, b] = arcs as [Segment, Segment];
    const middles = [pointAt(a, 0.5).x, pointAt(b, 0.5).x];
    expect(Math.abs((middles[0] as number) - (middles[1] as number))).toBeCloseTo(3, 1);
    expect(Math.abs(a.x0 - b.x1)).toBeGreaterThan(3.5);
  });

  test('never under the least safe width; narrowed down to it where there is no room, and told', () => {
    expect(notesOf(stencil('O', { width: 1 }, 'Poppins', {}, { ...sheet, leastWidth: 2.5 })).bridges[0]?.width).toBe(
      2.5,
    );
    const job = stencilJob(
      'e',
      { width: 6 },
      'Poppins',
      { size: { by: 'capital', mm: 15 } },
      { ...sheet, leastWidth: 1 },
    );
    const result = evaluator.evaluate(job, faces);
    const [bridge] = notesOf(result.parts[0] as PreparedPart).bridges;
    expect(bridge?.isNarrowed).toBe(true);
    expect(bridge?.width).toBeGreaterThanOrEqual(1);
    expect(result.findings.map((f) => f.code)).toContain('bridge-narrowed');
    expect(result.findings.find((f) => f.code === 'bridge-narrowed')?.sentence).toMatch(/no room for 6 mm/);
  });

  test('an island too small for a bridge says so', () => {
    const job = stencilJob(
      'e',
      { width: 3 },
      'Poppins',
      { size: { by: 'capital', mm: 3 } },
      { ...sheet, leastWidth: 2 },
    );
    const { findings } = evaluator.evaluate(job, faces);
    expect(findings.find((f) => f.code === 'unbridged')?.sentence).toBe(
      'The middle of e will drop out: it is too small for a bridge, which is 2 mm wide at least.',
    );
  });
});

describe('chosen', () => {
  test('a round letter is held upright, a pair in one line', () => {
    const [one] = notesOf(stencil('O', { count: 1 }, 'Poppins')).bridges;
    expect(turnOf(one as BridgeNow)).toBeCloseTo(90, 6);
    const pair = notesOf(stencil('O', { count: 2 }, 'Poppins')).bridges;
    expect(pair).toHaveLength(2);
    const [a = 0, b = 0] = pair.map((p) => p.own.turn);
    expect(Math.abs(Math.abs(a - b) - 180)).toBeLessThan(0.5);
    expect(pair[0]?.from.x).toBeCloseTo(pair[1]?.from.x ?? 0, 1);
  });

  test('a set direction is kept to', () => {
    for (const b of notesOf(stencil('BODGE', { direction: 'level' })).bridges)
      expect(Math.min(turnOf(b), 180 - turnOf(b))).toBeLessThan(1e-6);
    for (const b of notesOf(stencil('BODGE', { direction: 'upright' })).bridges) expect(turnOf(b)).toBeCloseTo(90, 6);
  });

  test('turned and mirrored words have the same bridges in their letters', () => {
    const own = (placement: Draft) =>
      notesOf(stencil('BOD', {}, 'Poppins', { placement: { x: 700, y: 200, ...placement } })).bridges.map((b) => b.own);
    const upright = own({});
    for (const turned of [own({ turn: 35 }), own({ mirror: true, turn: -120 })]) {
      expect(turned).toHaveLength(upright.length);
      turned.forEach((b, i) => {
        expect(Math.hypot(b.x - (upright[i]?.x ?? 0), b.y - (upright[i]?.y ?? 0))).toBeLessThan(0.05);
        expect(Math.cos(((b.turn - (upright[i]?.turn ?? 0)) * Math.PI) / 180)).toBeGreaterThan(0.995);
      });
    }
  });

  test('the same letter has the same bridge everywhere', () => {
    const { bridges } = notesOf(stencil('Odd moods flood good food', {}, 'Libre Baskerville'));
    const text = 'Odd moods flood good food';
    const at = (letter: string) =>
      bridges
        .filter((b) => text[Number(b.letter.split(':')[1])] === letter)
        .map((b) => [b.own.x.toFixed(3), b.own.y.toFixed(3)].join());
    expect(at('o').length).toBeGreaterThan(6);
    expect(new Set(at('o')).size).toBe(1);
    expect(new Set(at('d')).size).toBe(1);
  });

  test('neighbours line up on shared heights when asked', () => {
    const heights = (level: boolean) =>
      notesOf(stencil('BOARD PODQ', { level, direction: 'level', count: 1 })).bridges.map((b) =>
        Math.round(((b.from.y + b.to.y) / 2) * 10),
      );
    expect(new Set(heights(true)).size).toBeLessThanOrEqual(3);
    expect(new Set(heights(false)).size).toBeGreaterThan(new Set(heights(true)).size);
  });

  test('large or heavy islands get two, by their size against the bridge and the stock', () => {
    const count = (mm: number, thickness: number | null) =>
      notesOf(stencil('O', { width: 3 }, 'Poppins', { size: { by: 'capital', mm } }, { ...sheet, thickness })).bridges
        .length;
    expect(count(20, 3)).toBe(1);
    expect(count(80, 3)).toBe(2);
    expect(count(30, 0.5)).toBe(2);
  });

  test('as many as asked, apart from each other', () => {
    for (const n of [1, 2, 3, 4]) {
      const { bridges } = notesOf(stencil('O', { count: n }, 'Poppins', { size: { by: 'capital', mm: 60 } }));
      expect(bridges).toHaveLength(n);
    }
    const few = evaluator.evaluate(
      stencilJob('e', { count: 4, width: 3 }, 'Poppins', { size: { by: 'capital', mm: 15 } }),
      faces,
    );
    expect(few.findings.map((f) => f.code)).toContain('fewer-bridges');
  });

  test('first widths: wider where a flame cuts', () => {
    const measure = { capHeightMm: 30, leastWidthMm: null };
    expect(newStep('bridge', { ...measure, kerfMm: 0.2 }).width).toBe(3);
    expect(newStep('bridge', { ...measure, kerfMm: 1.2 }).width).toBe(5);
    expect(newStep('bridge', { ...measure, leastWidthMm: 4, kerfMm: 0.2 }).width).toBe(4);
  });

  test('upright bridges lean with a face that does', { tags: 'slow' }, async () => {
    const dejavu = await diskFaces([faceOfFamily('DejaVu Sans')], '/usr/share/fonts/truetype/dejavu');
    const prepared = (bridge: Draft) => {
      const job = stencilJob('O', bridge, 'DejaVu Sans', { italic: true });
      return evaluator.evaluate(job, dejavu).parts[0] as PreparedPart;
    };
    const lean = (slanted: boolean) =>
      turnOf(notesOf(prepared({ direction: 'upright', slanted })).bridges[0] as BridgeNow);
    const slant = prepared({}).frames[0]?.slantDeg ?? 0;
    expect(slant).toBeGreaterThan(5);
    expect(lean(false)).toBeCloseTo(90, 6);
    expect(lean(true)).toBeCloseTo(90 - slant, 6);
  });

  test('variants side by side: each as it says, with its readability', () => {
    const job = stencilJob('BOARD', {});
    const step = stepIn(job.parts[0] as Part, 'bridge') as StepOf<'bridge'>;
    const variants = [...bridgeVariants(job, 'part', { step, evaluator, faces })];
    expect(variants.map((v) => `${v.values.count} ${v.values.direction}`)).toContain('2 upright');
    for (const v of variants) {
      expect(v.readability).toBeGreaterThan(0);
      expect(v.readability).toBeLessThan(100);
    }
    const one = variants.find((v) => v.values.count === 1 && v.values.direction === 'any');
    const two = variants.find((v) => v.values.count === 2 && v.values.direction === 'any');
    expect(one?.readability).toBeGreaterThan(two?.readability ?? 100);
    expect(evaluator.readability(partIn(job))).toHaveLength(5);
  });
});

test('any words, size, turn and setting: one piece but for what is told, and nothing else is changed', {
  tags: 'slow',
}, () => {
  const next = chance(4711);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)] as T;
  const bad: string[] = [];
  for (let i = 0; i < sample(9, 400); i++) {
    const face = pick(FAMILIES);
    const text = `${randomWord(next)} ${randomWord(next)}`;
    const mm = pick([1.5, 6, 14, 40, 120, 900]);
    const bridge = {
      width: pick([0.3, 1, 3, 5, 20]),
      direction: pick(['any', 'upright', 'level', 'stroke']),
      count: pick([0, 1, 2, 3, 4]),
      sides: pick(['straight', 'waisted']),
      joints: pick(['square', 'filleted']),
      level: next() < 0.3,
      alike: next() < 0.7,
    };
    const more = {
      size: { by: 'capital', mm },
      placement: { x: 9000, y: 9000, turn: Math.round(next() * 360), mirror: next() < 0.3 },
      letterSpacing: pick([0, 0, -0.12, 0.3]),
    };
    const keep = pick(['outside', 'plate', 'inside']);
    const of = { width: 18000, height: 18000, leastWidth: pick([null, 0.2, 2]) };
    const steps = [weld, ...(keep === 'plate' ? [{ kind: 'plate' }] : []), { kind: 'bridge', ...bridge }];
    const job = jobWith(
      [partOf([lettering(text, face, more)], { keep: keep === 'inside' ? 'inside' : 'outside', steps })],
      {
        sheet: of,
      },
    );
    const what = `${text} in ${face} ${JSON.stringify({ ...bridge, mm, keep, ...more.placement, spacing: more.letterSpacing, least: of.leastWidth })}`;
    const [part] = new Evaluator(wasmEngine).evaluate(job, faces).parts;
    const notes = part?.bridged;
    if (!part || !notes) throw new Error(`nothing is made: ${what}`);
    const loose = notes.islands.filter((island) => !island.hangs);
    if (loose.some((island) => island.trouble === null)) bad.push(`untold: ${what}`);
    const islands = part.pieces.filter((p) => p.kind === 'island').length;
    if (islands > loose.length) bad.push(`${islands} islands, ${loose.length} told: ${what}`);
    const taken = notes.bridges.reduce((sum, b) => sum + b.areaMm2, 0);
    const before = notes.before.reduce((sum, o) => sum + o.area, 0);
    const after = part.outlines.reduce((sum, o) => sum + o.area, 0);
    const extra = Math.abs(after - before) - taken;
    // Straight sides take the strip itself. Waisted ones swing out by 0.22 of the width, a third of which is area, on both sides;
    // fillets of 0.3 of the width add what lies between them and their corner, a little more where edges are aslant.
    const most =
      bridge.sides === 'waisted'
        ? ((2 * 0.22) / 3) * taken
        : bridge.joints === 'filleted'
          ? notes.bridges.reduce((sum, b) => sum + 1.5 * 4 * (1 - Math.PI / 4) * (0.3 * b.width) ** 2, 0)
          : 0;
    const rounding = 0.003 * taken + 1e-6 * Math.abs(before);
    if (extra < -rounding || extra > most + rounding) bad.push(`area ${extra} more than ${taken}: ${what}`);
  }
  expect(bad).toEqual([]);
});
