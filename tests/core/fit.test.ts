/** Words whose size is found: a height, a box, a panel, centred by ink, weight or capitals. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { fitIntoBox, fitIntoPanel, setFit, unfit } from '../../src/core/commands/fit';
import { setWords } from '../../src/core/commands/words';
import type { Job } from '../../src/core/document/schema';
import { growPart } from '../../src/core/document/sizes';
import { convexHull, middleOfWeights, weightOf } from '../../src/core/geometry/centroid';
import { flattenPath, type Path } from '../../src/core/geometry/path';
import { applyMatrix, boxCentre, boxHeight, boxWidth, invert, type Point } from '../../src/core/geometry/point';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { Evaluator } from '../../src/core/job/evaluate';
import { panelAt } from '../../src/core/job/region-at';
import { placementMatrix } from '../../src/core/prepare/placement';
import { boxOf, partIn, viewed, wordsIn } from '../support/commands';
import { faces, set, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const at = { partId: 'part', memberId: 'words' };
const words = (text: string, more: Draft = {}, face = 'Poppins') =>
  jobWith([partOf([lettering(text, face, { placement: { x: 150, y: 100 }, ...more })])]);
const partOfJob = (job: Job, id = 'part') => {
  const part = new Evaluator(wasmEngine).evaluate(job, faces).parts.find((p) => p.id === id);
  if (!part) throw new Error('no part');
  return part;
};
const inkOf = (job: Job): Point[] => partOfJob(job).outlines.flatMap((o) => flattenPath(o.path, 0.002));
const TEXTS = ['Oak', 'Alder Lane\nCommunity Garden', 'jgpq', 'Él', 'W\nW\nW\nW'];

test.each(['Poppins', 'Pacifico'])('%s of a height is as high as drawn, closed up or along an arc too', (face) => {
  for (const more of [
    {},
    { closeUp: { overlap: 0.8, lines: true } },
    { along: { line: { kind: 'arc', by: 'radius', mm: 120 } } },
  ])
    for (const text of TEXTS.slice(0, 3)) {
      const job = words(text, { size: { by: 'height', mm: 42 }, ...more }, face);
      expect(boxHeight(boxOf(job, 'part'))).toBeCloseTo(42, 2);
    }
});

describe('a box', () => {
  const fit = { to: 'box', width: 120, height: 50, margin: 4 };

  test('is filled as far as its margin, whatever the words, and stays filled when they change', () => {
    for (const text of TEXTS)
      for (const more of [{}, { closeUp: { overlap: 0.7 } }, { evenLines: 'both' }, { lineSpacing: 0.8 }]) {
        const box = boxOf(words(text, { fit, ...more }), 'part');
        expect(boxCentre(box).x).toBeCloseTo(150, 3);
        expect(boxCentre(box).y).toBeCloseTo(100, 3);
        const [wide, high] = [boxWidth(box) / 112, boxHeight(box) / 42];
        expect(Math.max(wide, high)).toBeCloseTo(1, 4);
      }
    const changed = setWords(words('Oak', { fit }), 'part', 'words', 'Alder Lane');
    expect(boxWidth(boxOf(changed, 'part'))).toBeCloseTo(112, 2);
  });

  test('is turned and mirrored with the words', () => {
    const job = words('Alder Lane', { fit, placement: { x: 150, y: 100, turn: 90, mirror: true } });
    expect(boxHeight(boxOf(job, 'part'))).toBeCloseTo(112, 2);
    expect(boxCentre(boxOf(job, 'part')).y).toBeCloseTo(100, 3);
  });

  test('is filled at any size, from a tag to a facade', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 3000, noNaN: true }),
        fc.double({ min: 2, max: 3000, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        (width, height, share) => {
          const margin = share * Math.min(width, height);
          const job = jobWith([
            partOf([lettering('Oak\nAsh', 'Archivo Black', { fit: { to: 'box', width, height, margin } })]),
          ]);
          const box = boxOf(job, 'part');
          const [wide, high] = [boxWidth(box) / (width - 2 * margin), boxHeight(box) / (height - 2 * margin)];
          expect(Math.max(wide, high)).toBeCloseTo(1, 3);
        },
      ),
      { numRuns: 25 },
    );
  });

  test('without room, and words without ink, are told', () => {
    const job = words('Oak', { fit: { ...fit, margin: 25 } });
    const { findings } = new Evaluator(wasmEngine).evaluate(job, faces);
    expect(findings.map((f) => f.sentence).join(' ')).toContain('leave no room');
    expect(partOfJob(words('\u200b', { fit })).outlines).toEqual([]);
  });

  test('grows with the part', () => {
    const job = words('Oak', { fit });
    const grown = structuredClone(partIn(job));
    growPart(grown, 2, false);
    expect(boxHeight(boxOf({ ...job, parts: [grown] }, 'part'))).toBeCloseTo(2 * boxHeight(boxOf(job, 'part')), 2);
  });
});

describe('what lies in the middle', () => {
  const fit = (centre: string) => ({ to: 'box', width: 120, height: 60, margin: 0, centre });

  test('capitals: the middle of capitals and baseline, whatever hangs below', () => {
    const layoutOf = (text: string) => partOfJob(words(text, { fit: fit('capitals') })).members[0];
    for (const text of ['HOH', 'Hoppy\nWgy']) {
      const member = layoutOf(text);
      const layout = member?.layout;
      if (!member || !layout) throw new Error('no words');
      const top = applyMatrix(member.matrix, { x: 0, y: layout.capHeightMm }).y;
      const low = applyMatrix(member.matrix, { x: 0, y: layout.baselines[layout.baselines.length - 1] ?? 0 }).y;
      expect((top + low) / 2).toBeCloseTo(100, 4);
    }
  });

  test('weight: as much on either side, row by row', () => {
    const part = partOfJob(words('LEAN\nl', { fit: fit('weight') }, 'Archivo Black'));
    const { minY, maxY } = part.box;
    const rings = part.outlines.map((o) => flattenPath(o.path, 0.01));
    let [area, x, y] = [0, 0, 0];
    const step = 0.01;
    for (let py = minY + step / 2; py < maxY; py += step) {
      const crossings = rings
        .flatMap((ring) =>
          ring.flatMap((p, i) => {
            const q = ring[(i + 1) % ring.length] as Point;
            return p.y > py === q.y > py ? [] : [p.x + ((py - p.y) / (q.y - p.y)) * (q.x - p.x)];
          }),
        )
        .sort((a, b) => a - b);
      for (let i = 0; i + 1 < crossings.length; i += 2) {
        const [from, to] = [crossings[i] as number, crossings[i + 1] as number];
        area += to - from;
        x += (to * to - from * from) / 2;
        y += (to - from) * py;
      }
    }
    expect(x / area).toBeCloseTo(150, 2);
    expect(y / area).toBeCloseTo(100, 2);
  });
});

describe('a panel of another part', () => {
  const panelled = (shape: Draft, fit: Draft = {}, text = 'Alder Lane\nGarden') =>
    jobWith([
      partOf([{ id: 's', placement: { x: 0, y: 0 }, ...shape }], { id: 'plate', placement: { x: 150, y: 100 } }),
      partOf(
        [
          lettering(text, 'Poppins', {
            placement: { x: 0, y: 0 },
            fit: { to: 'panel', of: 'plate', margin: 5, ...fit },
          }),
        ],
        {
          along: 'plate',
        },
      ),
    ]);

  test('of a circle holds words whose ink comes as near to it as the margin, and no nearer', () => {
    for (const text of TEXTS) {
      const points = inkOf(panelled({ kind: 'ellipse', width: 100, height: 100 }, {}, text));
      const farthest = Math.max(...points.map((p) => Math.hypot(p.x - 150, p.y - 100)));
      expect(farthest).toBeLessThan(45 + 0.015);
      expect(farthest).toBeGreaterThan(45 - 0.03);
    }
  });

  test('with notches holds words that no notch reaches into', () => {
    // A plate with a deep notch from above, in the middle.
    const d = 'M-60 -30L60 -30L60 30L4 30L0 -5L-4 30L-60 30Z';
    const points = inkOf(panelled({ kind: 'path', d }, { margin: 1 }, 'HOH'));
    const tip = { x: 150, y: 95 };
    expect(Math.min(...points.map((p) => Math.hypot(p.x - tip.x, p.y - tip.y)))).toBeGreaterThan(1 - 0.02);
    // Between its sides, which meet at the tip, there is no ink.
    const isInNotch = ({ x, y }: Point) => y > tip.y && Math.abs(x - tip.x) < ((y - tip.y) * 4) / 35;
    expect(points.filter(isInNotch)).toEqual([]);
    // Without the notch they are larger, and lie in it.
    const whole = inkOf(panelled({ kind: 'path', d: 'M-60 -30L60 -30L60 30L-60 30Z' }, { margin: 1 }, 'HOH'));
    expect(whole.filter(isInNotch).length).toBeGreaterThan(0);
  });

  test('is followed when it changes, moves or turns', () => {
    const width = (job: Job) => boxWidth(boxOf(job, 'part'));
    const small = panelled({ kind: 'rectangle', width: 80, height: 60 }, { margin: 5 }, 'Alder');
    const large = panelled({ kind: 'rectangle', width: 160, height: 120 }, { margin: 5 }, 'Alder');
    expect(width(small)).toBeCloseTo(70, 2);
    expect(width(large)).toBeCloseTo(150, 2);
    const turned = {
      ...small,
      parts: small.parts.map((p) => (p.id === 'plate' ? { ...p, placement: { ...p.placement, x: 90, turn: 90 } } : p)),
    };
    expect(boxHeight(boxOf(turned, 'part'))).toBeCloseTo(70, 2);
    expect(boxCentre(boxOf(turned, 'part')).x).toBeCloseTo(90, 2);
  });

  test('is found by a place in it: the smallest around that', () => {
    const job = jobWith([
      partOf(
        [
          { id: 's', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 200, height: 120 },
          { id: 'h', kind: 'rectangle', placement: { x: -40, y: 0 }, width: 60, height: 60, role: 'punch' },
        ],
        { id: 'plate', placement: { x: 150, y: 100 } },
      ),
      partOf([lettering('Oak', 'Poppins')]),
    ]);
    const result = new Evaluator(wasmEngine).evaluate(job, faces);
    expect(panelAt(result, { x: 110, y: 100 }, 'part')).toMatchObject({ of: 'plate', outline: 1 });
    expect(panelAt(result, { x: 220, y: 100 }, 'part')).toMatchObject({ of: 'plate', outline: 0 });
    expect(panelAt(result, { x: 290, y: 190 }, 'part')).toBeNull();
    const fitted = fitIntoPanel(job, at, { of: 'plate', outline: 1, margin: 5 });
    expect(boxWidth(boxOf(fitted, 'part'))).toBeCloseTo(50, 2);
    expect(boxCentre(boxOf(fitted, 'part')).x).toBeCloseTo(110, 2);
    expect(partIn(fitted)).toMatchObject({ along: 'plate' });
  });

  test('that is gone, or made from the words, is told', () => {
    const sentences = (job: Job) =>
      new Evaluator(wasmEngine)
        .evaluate(job, faces)
        .findings.map((f) => f.sentence)
        .join(' ');
    const gone = panelled({ kind: 'rectangle', width: 80, height: 60 }, { outline: 7 });
    expect(sentences(gone)).toContain('has no such panel now');
    const missing = jobWith([partOf([lettering('Oak', 'Poppins', { fit: { to: 'panel', of: 'nowhere' } })])]);
    expect(sentences(missing)).toContain('is no longer there');
    const loop = jobWith([
      partOf([{ id: 'c', kind: 'copy', placement: { x: 0, y: 0 }, of: 'part' }], { id: 'plate' }),
      partOf([lettering('Oak', 'Poppins', { fit: { to: 'panel', of: 'plate' } })]),
    ]);
    expect(sentences(loop)).toContain('made from them');
  });
});

describe('commands', () => {
  const seen = (job: Job) => {
    const member = viewed(job).parts.find((p) => p.id === 'part')?.members[0];
    if (!member) throw new Error('nothing seen');
    return member;
  };

  test('words fitted into a box as large as they are stay where they are, and so when they get a size of their own', () => {
    for (const placement of [
      { x: 120, y: 80 },
      { x: 150, y: 90, turn: 35, mirror: true },
    ]) {
      const job = words('Alder Lane\nGarden', { placement, align: 'left' });
      const before = boxOf(job, 'part');
      const fitted = fitIntoBox(job, at, seen(job).ownBox);
      const close = (a: typeof before) => {
        for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const) expect(a[side]).toBeCloseTo(before[side], 1);
      };
      close(boxOf(fitted, 'part'));
      const { matrix, capHeightMm } = seen(fitted);
      const place = applyMatrix(invert(placementMatrix(wordsIn(fitted).placement)), { x: matrix.e, y: matrix.f });
      const free = unfit(fitted, at, { capHeightMm, place });
      expect(wordsIn(free)).toMatchObject({ fit: null, size: { by: 'capital' } });
      close(boxOf(free, 'part'));
    }
  });

  test('change what they are fitted into, and nothing of words that are not', () => {
    const job = words('Oak');
    expect(setFit(job, at, { margin: 3 })).toBe(job);
    expect(unfit(job, at, { capHeightMm: 9, place: { x: 1, y: 1 } })).toBe(job);
    expect(fitIntoPanel(job, at, { of: 'gone', outline: 0, margin: 1 })).toBe(job);
    const fitted = setFit(fitIntoBox(job, at, seen(job).ownBox), at, {
      width: 200,
      height: 90,
      margin: 3,
      centre: 'capitals',
    });
    expect(wordsIn(fitted).fit).toMatchObject({ to: 'box', width: 200, height: 90, margin: 3, centre: 'capitals' });
  });
});

test('weights and hulls of simple shapes', () => {
  const square = pathOf('M0 0L0 4L4 4L4 0Z').paths as Path[];
  expect(weightOf(square, 0.01)).toEqual({ weight: 16, x: 2, y: 2 });
  const line = weightOf(pathOf('M0 0L6 0').paths, 0.01);
  expect(line).toEqual({ weight: 6, x: 3, y: 0 });
  expect(weightOf([], 0.01).weight).toBe(0);
  expect(middleOfWeights([weightOf(square, 0.01), { weight: 16, x: 10, y: 2 }])).toEqual({ x: 6, y: 2 });
  expect(middleOfWeights([])).toBeNull();
  const layout = set('Poppins', 'Oak');
  expect(layout.letters.length).toBe(3);
  fc.assert(
    fc.property(
      fc.array(fc.record({ x: fc.integer({ min: -9, max: 9 }), y: fc.integer({ min: -9, max: 9 }) }), {
        minLength: 3,
        maxLength: 30,
      }),
      (points) => {
        const hull = convexHull(points);
        for (const p of points)
          hull.forEach((a, i) => {
            const b = hull[(i + 1) % hull.length] as Point;
            expect((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)).toBeGreaterThanOrEqual(0);
          });
      },
    ),
  );
});
