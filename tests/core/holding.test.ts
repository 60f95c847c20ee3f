/** The steps that hold a part together, and what follows from them: ties, bars, thickening, borders, safe sizes, the cut. */
import { describe, expect, test } from 'vitest';
import { setWords } from '../../src/core/commands/words';
import type { Job } from '../../src/core/document/schema';
import { type Box, boxCentre } from '../../src/core/geometry/point';
import { leastWidth } from '../../src/core/inspect/strength';
import { alignTo, levelBaselines, snapTo, spaceEqually } from '../../src/core/job/arrange';
import { asCut } from '../../src/core/job/as-cut';
import { Evaluator } from '../../src/core/job/evaluate';
import { regionAt } from '../../src/core/job/region-at';
import { atSafeSize, thickenedEnough } from '../../src/core/job/safe';
import { newStep, stepIn, withStep } from '../../src/core/kinds/steps';
import { LIMITS } from '../../src/core/limits';
import { finished } from '../../src/core/memo';
import { mendingOf } from '../../src/core/rules/mend';
import type { Seen } from '../../src/core/rules/rule';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { tiesOf } from '../support/notes';

const evaluator = new Evaluator(wasmEngine);
const evaluate = (job: Job) => evaluator.evaluate(job, faces);
const partIn = (job: Job) => {
  const [part] = evaluate(job).parts;
  if (!part) throw new Error('no part');
  return part;
};
const weld = { kind: 'weld' };
const prepared = (members: Draft[], steps: Draft[], more: Draft = {}) =>
  partIn(jobWith([partOf(members, { steps: [weld, ...steps], ...more })]));
const rectangle = (id: string, x: number, y: number, width: number, height: number, more: Draft = {}): Draft => ({
  id,
  kind: 'rectangle',
  placement: { x, y },
  width,
  height,
  ...more,
});
const NOTHING_SEEN = {} as Seen;
const size = (b: Box) => [b.maxX - b.minX, b.maxY - b.minY];

describe('ties', () => {
  const pair = [rectangle('a', 50, 50, 40, 20), rectangle('b', 50, 80, 10, 10)];

  test('straight over the gap, in the middle of what faces, into both pieces', () => {
    const part = prepared(pair, [{ kind: 'tie', width: 3, overlap: 1 }]);
    expect(part.pieces).toHaveLength(1);
    const [tie] = tiesOf(part);
    expect(tie?.centre.x).toBeCloseTo(50, 1);
    expect(tie?.centre.y).toBeCloseTo(67.5, 6);
    expect(tie?.length).toBeCloseTo(15 + 2, 6);
    expect(Math.abs(Math.abs(tie?.angleDeg ?? 0) - 90)).toBeLessThan(1e-9);
    // The strip adds its own width and nothing else: 15 mm of gap.
    expect(part.outlines.reduce((sum, o) => sum + o.area, 0)).toBeCloseTo(800 + 100 + 45, 4);
  });

  test('the dot of i is tied to its i', () => {
    const part = prepared([lettering('i', 'Poppins')], [{ kind: 'tie', width: 2, overlap: 1 }]);
    expect(part.pieces).toHaveLength(1);
    expect(tiesOf(part)).toHaveLength(1);
    expect(tiesOf(part)[0]?.centre.x).toBeCloseTo(boxCentre(part.box).x, 0);
  });

  test('set aside: moved, enlarged, left', () => {
    const step = (how: string) => [{ kind: 'tie', width: 3, overlap: 1, answers: [{ piece: 'b:0', how }] }];
    const moved = prepared(pair, step('move'));
    expect(moved.pieces).toHaveLength(1);
    expect(tiesOf(moved)).toHaveLength(0);
    expect(moved.box.maxY).toBeCloseTo(60 + 10 - 1, 1);
    const grown = prepared(pair, step('grow'));
    expect(grown.pieces).toHaveLength(1);
    expect(grown.box.maxY).toBeGreaterThan(85);
    const left = jobWith([partOf(pair, { steps: [weld, ...step('leave')] })]);
    expect(partIn(left).pieces).toHaveLength(2);
    expect(evaluate(left).findings.filter((f) => f.code === 'loose')).toEqual([]);
  });

  test('placed by hand: where and how it was turned, in shares of the piece', () => {
    const by = (x: number, turn: number | null) =>
      tiesOf(prepared(pair, [{ kind: 'tie', width: 2, overlap: 1, answers: [{ piece: 'b:0', x, y: -1.2, turn }] }]))[0];
    expect(by(0.3, null)?.centre.x).toBeCloseTo(53, 0);
    expect(by(0.3, null)?.byHand).toBe(true);
    expect(Math.abs(by(0, 80)?.angleDeg ?? 0) % 180).toBeCloseTo(80, 6);
  });

  test('a place by hand goes along when the words change around it', () => {
    const job = jobWith([
      partOf([lettering('lij', 'Poppins')], {
        steps: [
          weld,
          {
            kind: 'tie',
            answers: [
              { piece: 'words:1/1', how: 'leave' },
              { piece: 'words:2/1', how: 'move' },
            ],
          },
        ],
      }),
    ]);
    const pieces = (j: Job) => (j.parts[0] && stepIn(j.parts[0], 'tie')?.answers)?.map((a) => a.piece);
    const edited = setWords(job, 'part', 'words', 'A lij');
    expect(pieces(edited)).toEqual(['words:3/1', 'words:4/1']);
    expect(pieces(setWords(edited, 'part', 'words', 'A l'))).toEqual([]);
  });

  test('more pieces than are tied are said so', () => {
    const many = Array.from({ length: 190 }, (_, i) => rectangle(`r${i}`, 5 + 1.5 * (i % 190), 50, 1, 1));
    const dots = lettering('................................', 'Poppins', { placement: { x: 150, y: 150 } });
    const job = jobWith([partOf([...many, dots], { steps: [weld, { kind: 'tie', width: 0.3, overlap: 0.1 }] })]);
    expect(partIn(job).pieces.length).toBeGreaterThan(LIMITS.piecesTied);
    expect(evaluate(job).findings.map((f) => f.code)).toContain('too-many-to-tie');
  });
});

test('a bar under the words holds them, as long as they are; through them, and beyond', () => {
  const bar = (more: Draft) =>
    prepared([lettering('HIH', 'Poppins')], [{ kind: 'bar', height: 6, overlap: 1, ...more }]);
  const plain = prepared([lettering('HIH', 'Poppins')], []);
  const under = bar({});
  expect(under.pieces).toHaveLength(1);
  expect(size(under.box)[0]).toBeCloseTo(size(plain.box)[0] as number, 6);
  expect(plain.box.minY - under.box.minY).toBeCloseTo(5, 3);
  expect(size(bar({ beyond: 4 }).box)[0]).toBeCloseTo((size(plain.box)[0] as number) + 8, 6);
  const through = bar({ at: 'through', ends: 'round' });
  expect(through.pieces).toHaveLength(1);
  for (const [i, mm] of size(plain.box).entries()) expect(size(through.box)[i]).toBeCloseTo(mm, 6);
});

describe('thickening', () => {
  const frame = [rectangle('a', 100, 100, 40, 40), rectangle('b', 100, 100, 6, 10, { role: 'punch' })];
  const holes = (steps: Draft[]) => prepared(frame, steps).outlines.filter((o) => o.depth === 1);

  test('holes close when they may, and are kept open when asked, with a finding', () => {
    expect(holes([{ kind: 'thicken', by: 3.5 }])).toHaveLength(0);
    const [hole] = holes([{ kind: 'thicken', by: 3.5, holesOpen: 2 }]);
    expect(size(hole?.box as Box)[0]).toBeCloseTo(2, 1);
    const job = jobWith([partOf(frame, { steps: [weld, { kind: 'thicken', by: 3.5, holesOpen: 2 }] })]);
    expect(
      evaluate(job)
        .findings.map((f) => f.sentence)
        .join(),
    ).toMatch(/kept 2 mm open|kept 2\.0\d mm open/);
    // A hole with room enough grows together as much as the rest.
    expect(size(holes([{ kind: 'thicken', by: 1, holesOpen: 2 }])[0]?.box as Box)[0]).toBeCloseTo(4, 3);
  });

  test('ties come after it, at their own width', () => {
    const steps = withStep(
      withStep([{ kind: 'weld', on: true }], newStep('tie', { capHeightMm: 30, leastWidthMm: 2, kerfMm: null })),
      newStep('thicken', { capHeightMm: 30, leastWidthMm: 2, kerfMm: null }),
    );
    expect(steps.map((s) => s.kind)).toEqual(['weld', 'thicken', 'tie']);
  });
});

describe('a border', () => {
  const job = (border: Draft, copy: Draft = {}) =>
    jobWith([
      partOf([lettering('Oak', 'Poppins')]),
      partOf([{ id: 'copy', kind: 'copy', of: 'part', placement: { x: 0, y: 0 }, follows: true, ...copy }], {
        id: 'border',
        steps: [weld, { kind: 'border', ...border }],
      }),
    ]);
  const both = (border: Draft, copy: Draft = {}) => evaluate(job(border, copy)).parts;

  test('lies at its distance around the words, without their holes, and goes along with them', () => {
    const [words, border] = both({ distance: 4 });
    if (!words || !border) throw new Error('no parts');
    expect(border.box.minX).toBeCloseTo(words.box.minX - 4, 2);
    expect(border.box.maxY).toBeCloseTo(words.box.maxY + 4, 2);
    expect(border.outlines.filter((o) => o.depth === 1)).toHaveLength(0);
  });

  test('holes from a size on stay', () => {
    const ring = (holesFrom: number | null) =>
      prepared(
        [rectangle('a', 100, 100, 60, 60), rectangle('b', 100, 100, 30, 30, { role: 'punch' })],
        [{ kind: 'border', distance: 5, holesFrom }],
      ).outlines.length;
    expect(ring(null)).toBe(1);
    expect(ring(15)).toBe(2);
    expect(ring(25)).toBe(1);
  });

  test('gaps are bridged, and an envelope spans everything', () => {
    const two = [rectangle('a', 50, 50, 20, 20), rectangle('b', 80, 50, 20, 20)];
    const pieces = (more: Draft) => prepared(two, [{ kind: 'border', distance: 2, ...more }]).pieces.length;
    expect(pieces({})).toBe(2);
    expect(pieces({ bridge: 12 })).toBe(1);
    const hull = prepared(two, [{ kind: 'border', distance: 2, envelope: true }]);
    expect(hull.outlines).toHaveLength(1);
    const letters = prepared(two, [{ kind: 'border', distance: 2, bridge: 12 }]);
    expect(hull.outlines[0]?.area).toBeGreaterThanOrEqual(letters.outlines[0]?.area ?? 0);
  });
});

describe('strength', () => {
  const sheet = { width: 300, height: 200, material: 'Birch plywood', thickness: 3, leastWidth: 1.5, kerf: 0.2 };
  const thin = (more: Draft = {}) =>
    jobWith([partOf([lettering('lo', 'Libre Baskerville', { size: { by: 'capital', mm: 10 }, ...more })])], { sheet });

  test('thin strokes are findings with their width, in the unit of the job', () => {
    const found = evaluate(thin()).findings.find((f) => f.code === 'thin');
    expect(found?.sentence).toMatch(
      /^Stroke of [lo] is 0\.\d+ mm wide here, 0\.\d+ mm of it stays when it is cut; 1\.5 mm is the least for Birch plywood 3 mm\.$/,
    );
    expect(evaluate({ ...thin(), units: 'in' }).findings.find((f) => f.code === 'thin')?.sentence).toMatch(
      / in wide here/,
    );
  });

  describe('when the cut has taken its width', () => {
    const bar = (width: number, more: Draft = {}, operation: Draft = {}) =>
      jobWith([partOf([rectangle('a', 60, 50, 40, width)], more)], {
        sheet,
        operations: [{ id: 'cut', name: 'Cut', kind: 'cut', ...operation }],
      });
    const found = (job: Job) => evaluate(job).findings.find((f) => f.code.startsWith('thin'));

    test('what is wide enough as drawn is found by what stays of it', () => {
      expect(found(bar(1.71))).toBeUndefined();
      const thin = found(bar(1.65));
      expect(thin?.code).toBe('thin-by-cut');
      expect(thin?.sentence).toBe(
        'Stroke of the rectangle is 1.65 mm wide here, 1.45 mm of it stays when it is cut; 1.5 mm is the least for Birch plywood 3 mm.',
      );
      expect(found(bar(1.4))?.sentence).toMatch(/^Stroke of .* is 1\.4 mm wide here, 1\.2 mm of it stays/);
      expect(found(bar(0.2))?.sentence).toMatch(/which the cut takes away/);
    });

    test('nothing is taken beside the outlines, by the machine, by a score or without a kerf', () => {
      for (const kerfSide of ['beside', 'machine']) expect(found(bar(1.65, {}, { kerfSide }))).toBeUndefined();
      expect(found(bar(1.65, {}, { kind: 'score' }))).toBeUndefined();
      expect(found({ ...bar(1.65), sheet: { ...bar(1.65).sheet, kerf: null } })).toBeUndefined();
    });

    test('by the side each outline is cut on', () => {
      const beside = bar(1.65, {}, { kerfSide: 'beside' });
      const letter = partIn(beside).frames[0]?.key ?? '';
      const on = (side: string) =>
        found(bar(1.65, { sides: [{ letter, x: 0, y: 0.5, side }] }, { kerfSide: 'beside' }));
      expect(on('line')?.sentence).toMatch(/1\.45 mm of it stays/);
      expect(on('line')?.mend).toBeNull();
      expect(on('other')?.sentence).toMatch(/1\.25 mm of it stays/);
    });

    test('mended by cutting beside the outlines', () => {
      const job = bar(1.65);
      const finding = found(job);
      const mending = finding && mendingOf(job, finding);
      if (!mending || !('run' in mending)) throw new Error('not mended');
      const mended = mending.run(job, NOTHING_SEEN);
      expect(mended.operations[0]?.kerfSide).toBe('beside');
      expect(found(mended)).toBeUndefined();
    });

    test('the rim of the sheet is not cut: what stays of stock beside an opening loses half', () => {
      const opening = rectangle('a', 150, 198.3 - 10, 40, 20);
      const job = (kerf: number) =>
        jobWith([partOf([opening], { keep: 'outside' })], { sheet: { ...sheet, kerf, leastWidth: 2 } });
      const [thin] = partIn(job(0.4)).strength.thin;
      expect(thin?.width).toBeCloseTo(1.7, 6);
      expect(thin?.left).toBeCloseTo(1.5, 6);
    });

    test('the safe size leaves enough when it is cut', () => {
      const made = finished(atSafeSize(thin(), 'part', evaluator, faces));
      if (!made.ok) throw new Error(made.sentence);
      const { strength } = partIn({ ...thin(), parts: [made.part] });
      expect(strength.thin).toEqual([]);
    });
  });

  test('gaps narrower than the kerf are findings', () => {
    const job = jobWith([partOf([rectangle('a', 50, 50, 20, 20), rectangle('b', 70.1, 50, 20, 20)])], { sheet });
    const found = evaluate(job).findings.find((f) => f.code === 'tight');
    expect(found?.sentence).toBe(
      'The gap between the first rectangle and the second rectangle is 0.1 mm wide; the kerf is 0.2 mm.',
    );
  });

  test('more thin places than are named are counted', { tags: 'slow' }, () => {
    const text = Array.from({ length: 6 }, () => 'lllllllllllll').join('\n');
    const job = jobWith([partOf([lettering(text, 'Libre Baskerville', { size: { by: 'capital', mm: 5 } })])], {
      sheet,
    });
    const codes = evaluate(job).findings.map((f) => f.code);
    expect(codes.filter((c) => c === 'thin')).toHaveLength(LIMITS.thinNamed);
    expect(codes).toContain('more-thin');
  });

  test('the least safe size is safe, and anything a little smaller is not', () => {
    const made = finished(atSafeSize(thin(), 'part', evaluator, faces));
    if (!made.ok) throw new Error(made.sentence);
    const widthAt = (factor: number) => {
      const part = structuredClone(made.part);
      const [words] = part.members;
      if (words?.kind === 'lettering') words.size.mm *= factor;
      return leastWidth(partIn({ ...thin(), parts: [part] }).kept, 1.5 + sheet.kerf);
    };
    expect(widthAt(1)).toBeNull();
    expect(widthAt(0.98)).not.toBeNull();
  });

  test('thickening just enough is enough, and hardly less is not', { tags: 'slow' }, () => {
    const made = finished(thickenedEnough(thin(), 'part', { evaluator, faces, capHeightMm: 10 }));
    if (!made.ok) throw new Error(made.sentence);
    const by = made.part.steps.find((s) => s.kind === 'thicken');
    if (by?.kind !== 'thicken') throw new Error('not thickened');
    const widthAt = (mm: number) =>
      leastWidth(
        partIn({ ...thin(), parts: [{ ...made.part, steps: withStep(made.part.steps, { ...by, by: mm }) }] }).kept,
        1.5 + sheet.kerf,
      );
    expect(widthAt(by.by)).toBeNull();
    expect(widthAt(by.by - 0.02)).not.toBeNull();
  });

  test('without a least width a sentence says what is missing', () => {
    const job = jobWith([partOf([lettering('lo')])]);
    expect(finished(atSafeSize(job, 'part', evaluator, faces))).toEqual({
      ok: false,
      sentence: expect.stringMatching(/not known/),
    });
    expect(finished(atSafeSize(job, 'nowhere', evaluator, faces)).ok).toBe(false);
    expect(finished(thickenedEnough(job, 'part', { evaluator, faces, capHeightMm: 10 })).ok).toBe(false);
  });
});

describe('the sheet as cut', () => {
  const cut = (parts: Draft[], kerf: number | null) => {
    const job = jobWith(parts, { sheet: { width: 300, height: 200, kerf } });
    return finished(asCut(wasmEngine, job, evaluate(job)));
  };

  test('the kerf comes off what stays, on every side that is cut', () => {
    const [piece] = cut([partOf([rectangle('a', 100, 100, 40, 20)])], 1);
    expect(piece?.areaMm2).toBeCloseTo(39 * 19, 4);
    expect(piece?.kind).toBe('main');
  });

  test('around a negative the sheet stays, its own rim uncut; the middle falls', () => {
    const ring = [rectangle('a', 100, 100, 40, 40), rectangle('b', 100, 100, 20, 20, { role: 'punch' })];
    const pieces = cut([partOf(ring, { keep: 'outside' })], 1);
    expect(pieces.map((p) => p.kind)).toEqual(['main', 'island']);
    // What grows by half the kerf has rounded corners.
    expect(pieces[0]?.areaMm2).toBeCloseTo(300 * 200 - (41 * 41 - (4 - Math.PI) * 0.25), 3);
    expect(pieces[1]?.areaMm2).toBeCloseTo(19 * 19, 4);
  });

  test('a stroke no wider than the kerf is gone; what is not cut does not come apart', () => {
    expect(cut([partOf([rectangle('a', 100, 100, 40, 0.9)])], 1)).toEqual([]);
    expect(
      cut([partOf([rectangle('a', 100, 100, 40, 20)], { work: [{ what: 'fill', operation: 'engrave' }] })], 1),
    ).toEqual([]);
    expect(cut([], 1)).toEqual([]);
  });
});

describe('arranging', () => {
  const box = (minX: number, minY: number, width: number, height: number): Box => ({
    minX,
    minY,
    maxX: minX + width,
    maxY: minY + height,
  });

  test('edges and middles', () => {
    const [a, b] = [box(0, 0, 10, 10), box(50, 20, 40, 30)];
    expect(alignTo(a, b, 'left')).toEqual({ dx: 50, dy: 0 });
    expect(alignTo(a, b, 'centre')).toEqual({ dx: 65, dy: 0 });
    expect(alignTo(a, b, 'right')).toEqual({ dx: 80, dy: 0 });
    expect(alignTo(a, b, 'bottom')).toEqual({ dx: 0, dy: 20 });
    expect(alignTo(a, b, 'middle')).toEqual({ dx: 0, dy: 30 });
    expect(alignTo(a, b, 'top')).toEqual({ dx: 0, dy: 40 });
  });

  test('equal gaps: the outer ones stay, whatever the order they come in', () => {
    const boxes = [box(100, 0, 10, 5), box(0, 0, 20, 5), box(25, 0, 30, 5)];
    const moves = spaceEqually(boxes, 'across');
    expect(moves.map((m) => m.dx)).toEqual([0, 0, 20]);
    expect(spaceEqually(boxes.slice(0, 2), 'across').every((m) => m.dx === 0)).toBe(true);
    expect(spaceEqually([], 'upright')).toEqual([]);
  });

  test('baselines to the height of the first', () => {
    expect(levelBaselines([10, 12, 7])).toEqual([
      { dx: 0, dy: 0 },
      { dx: 0, dy: -2 },
      { dx: 0, dy: 3 },
    ]);
  });

  test('snapping takes the nearest line within reach and says what it is', () => {
    const own = [
      { at: 9.5, words: 'Left edge' },
      { at: 20.2, words: 'Middle' },
    ];
    const guides = [
      { at: 10, words: 'the middle of the sheet' },
      { at: 20, words: 'a node of Oak' },
    ];
    expect(snapTo(own, guides, 1)).toEqual({ by: expect.closeTo(-0.2), at: 20, words: 'Middle on a node of Oak' });
    expect(snapTo(own, guides, 0.1)).toBeNull();
  });

  test('the region under a point is the smallest around it, not the whole', () => {
    const result = evaluate(
      jobWith([
        partOf([
          rectangle('plate', 100, 100, 120, 80),
          rectangle('panel', 80, 100, 40, 30, { role: 'punch' }),
          lettering('Oak', 'Poppins', { id: 'words', size: { by: 'capital', mm: 8 } }),
        ]),
      ]),
    );
    const words = { partIds: ['part'], memberId: 'words' };
    expect(boxCentre(regionAt(result, { x: 82, y: 104 }, words)?.outline.box as Box)).toEqual({ x: 80, y: 100 });
    expect(boxCentre(regionAt(result, { x: 150, y: 130 }, words)?.outline.box as Box)).toEqual({ x: 100, y: 100 });
    expect(regionAt(result, { x: 5, y: 5 }, words)).toBeNull();
    // A part that is chosen as a whole is no region for itself.
    expect(regionAt(result, { x: 82, y: 104 }, { ...words, memberId: null })).toBeNull();
    expect(regionAt(result, { x: 82, y: 104 }, { partIds: [], memberId: null })).not.toBeNull();
  });
});
