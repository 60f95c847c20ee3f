/**
 * Hanging and mounting, judged by a physics of its own: the middle of weight by scan lines over flattened outlines, room by the
 * distance to every chord of these.
 */
import { describe, expect, test } from 'vitest';
import { setHanging } from '../../src/core/commands/hangs';
import type { Job } from '../../src/core/document/schema';
import { flattenPath } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { drillPaper } from '../../src/core/job/drill-paper';
import { Evaluator } from '../../src/core/job/evaluate';
import type { PartResult } from '../../src/core/job/part-result';
import { reportOf } from '../../src/core/job/report';
import { noteOf } from '../../src/core/kinds/step';
import { stepIn } from '../../src/core/kinds/steps';
import { hangStep } from '../../src/core/kinds/steps/hang';
import { mendingOf } from '../../src/core/rules/mend';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { readPdfPage } from '../support/pdf-page';

const evaluator = new Evaluator(wasmEngine);
const evaluate = (job: Job) => evaluator.evaluate(job, faces);
const chordsOf = (part: PartResult): [Point, Point][] =>
  part.outlines.flatMap(({ path }) => {
    const points = flattenPath(path, 0.001);
    return points.map((p, i): [Point, Point] => [p, points[(i + 1) % points.length] as Point]);
  });

/** Middle of weight of what lies within chords, by the even-odd rule on level scan lines. */
function middleOf(chords: readonly (readonly [Point, Point])[]): Point {
  const ys = chords.flatMap(([p, q]) => [p.y, q.y]);
  const [low, high] = [ys.reduce((a, b) => Math.min(a, b)), ys.reduce((a, b) => Math.max(a, b))];
  const step = (high - low) / 4000;
  let [area, x, y] = [0, 0, 0];
  for (let at = low + step / 2; at < high; at += step) {
    const stops = chords
      .flatMap(([p, q]) => (p.y <= at !== q.y <= at ? [p.x + ((at - p.y) / (q.y - p.y)) * (q.x - p.x)] : []))
      .sort((a, b) => a - b);
    for (let i = 0; i + 1 < stops.length; i += 2) {
      const [from, to] = [stops[i] as number, stops[i + 1] as number];
      area += to - from;
      x += ((to - from) * (from + to)) / 2;
      y += (to - from) * at;
    }
  }
  return { x: x / area, y: y / area };
}
const toChord = (at: Point, [p, q]: readonly [Point, Point]): number => {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const t =
    dx === 0 && dy === 0 ? 0 : Math.min(1, Math.max(0, ((at.x - p.x) * dx + (at.y - p.y) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(p.x + t * dx - at.x, p.y + t * dy - at.y);
};

const weld = { kind: 'weld' };
const rectangle = (more: Draft = {}): Draft => ({
  id: 'r',
  kind: 'rectangle',
  placement: { x: 100, y: 100 },
  width: 80,
  height: 40,
  ...more,
});
const hanging = (members: Draft[], step: Draft, more: Draft = {}) =>
  jobWith([partOf(members, { steps: [weld, { kind: 'hang', ...step }], ...more })]);
const only = (job: Job): PartResult => evaluate(job).parts[0] as PartResult;
const hangerOf = (part: PartResult) => noteOf(hangStep, part);

describe('a hole', () => {
  test('is as high as its room to the edge lets it, over the middle of weight', () => {
    const part = only(hanging([rectangle()], { width: 5, edge: 4 }));
    expect(hangerOf(part)?.at).toMatchObject({ x: expect.closeTo(100, 6), y: expect.closeTo(120 - 6.5, 5) });
    expect(hangerOf(part)?.turnDeg).toBeCloseTo(0, 6);
    expect(part.outlines).toHaveLength(2);
    // Exact arcs, not chords.
    expect(part.outlines[1]?.path.segments.every((s) => s.kind === 'arc')).toBe(true);
  });

  test('is found where it only just fits, and missed where it does not', () => {
    const bar = (height: number) =>
      hangerOf(
        only(
          hanging([rectangle({ height: 13 }), { ...rectangle({ id: 'top', height }), placement: { x: 100, y: 125 } }], {
            width: 5,
            edge: 4,
          }),
        ),
      );
    // In the upper bar, whose weight lies over the middle of both.
    expect(bar(13.0001)?.at?.y).toBeCloseTo(125, 2);
    expect(hangerOf(only(hanging([rectangle({ height: 12.99 })], { width: 5, edge: 4 })))?.at).toBeNull();
  });

  test.each([
    ['hole', 'Alder', 'Alfa Slab One'],
    ['ring', 'Alder', 'Alfa Slab One'],
    ['ring', 'Ely', 'Pacifico'],
    ['ring', 'JOLLY', 'Bebas Neue'],
    ['hole', 'TILT', 'Archivo Black'],
  ])('a %s for %s in %s hangs level, and has its room', (by, text, face) => {
    const words = lettering(text, face, { closeUp: { overlap: 2 }, size: { by: 'capital', mm: 60 } });
    const part = only(hanging([words], { by, width: 4, edge: 2.5 }));
    const hanger = hangerOf(part);
    const at = hanger?.at as Point;
    expect(at).toBeTruthy();
    const chords = chordsOf(part);
    const middle = middleOf(chords);
    expect(hanger?.weight.x).toBeCloseTo(middle.x, 1);
    expect(hanger?.weight.y).toBeCloseTo(middle.y, 1);
    const turn = (Math.atan2(middle.x - at.x, at.y - middle.y) * 180) / Math.PI;
    expect(hanger?.turnDeg).toBeCloseTo(turn, 1);
    // Level where there is a place straight over the middle; else it says by how much it turns.
    if (Math.abs(turn) > 0.5)
      expect(evaluate(hanging([words], { by, width: 4, edge: 2.5 })).findings.map((f) => f.code)).toContain(
        'hangs-turned',
      );
    // The hole is open, and its stock is there: all but the hole’s own edge is farther away, or the ring stands around it.
    const nearest = chords.map((c) => toChord(at, c)).filter((mm) => mm > 2 + 0.01);
    expect(Math.min(...chords.map((c) => toChord(at, c)))).toBeGreaterThan(2 - 0.01);
    expect(Math.min(...nearest)).toBeGreaterThanOrEqual(by === 'hole' ? 4.5 - 0.02 : 2);
    expect(part.pieces).toHaveLength(1);
  });

  test('without a place is a finding, which a ring mends', () => {
    const job = hanging([lettering('Ely', 'Sacramento')], { width: 6, edge: 4 });
    const found = evaluate(job).findings.find((f) => f.code === 'no-place-to-hang');
    expect(found?.sentence).toMatch(
      /^There is no place above the middle of weight of “Ely” for a hole of 6 mm with 4 mm around it\.$/,
    );
    const mending = mendingOf(job, found as never);
    expect(mending?.words).toBe('Hang it by a ring');
    const mended = mending && 'run' in mending ? mending.run(job, {} as never) : job;
    expect(hangerOf(only(mended))?.at).not.toBeNull();
  });
});

describe('a place by hand', () => {
  const job = (x: number, y: number, more: Draft = {}) => hanging([rectangle()], { width: 4, edge: 3, x, y }, more);

  test('is where it is said, and says how the part turns then', () => {
    const part = only(job(0.75, 0.9));
    expect(hangerOf(part)?.at).toMatchObject({ x: expect.closeTo(120, 6), y: expect.closeTo(116, 6) });
    // The hole to the right of the middle: that swings under it, clockwise is negative.
    expect(hangerOf(part)?.turnDeg).toBeCloseTo((Math.atan2(-20, 16) * 180) / Math.PI, 0);
    const turned = evaluate(job(0.75, 0.9)).findings.find((f) => f.code === 'hangs-turned');
    expect(turned?.sentence).toMatch(/hangs turned by 51\.\d° anticlockwise/);
    const mending = mendingOf(job(0.75, 0.9), turned as never);
    const mended = mending && 'run' in mending ? mending.run(job(0.75, 0.9), {} as never) : job(0, 0);
    expect(hangerOf(only(mended))?.turnDeg).toBeCloseTo(0, 6);
  });

  test.each(['hole', 'ring'])('a %s off the part holds nothing, which is found and mended', (by) => {
    const off = hanging([rectangle()], { by, width: 4, edge: 3, x: 1.5, y: 1.5 });
    expect(hangerOf(only(off))).toMatchObject({ at: null, isOff: true });
    expect(only(off).outlines).toHaveLength(1);
    const found = evaluate(off).findings.find((f) => f.code === 'hangs-by-nothing');
    expect(found?.sentence).toMatch(/^What .* is to hang by does not lie on it\.$/);
    const mending = mendingOf(off, found as never);
    const mended = mending && 'run' in mending ? mending.run(off, {} as never) : off;
    expect(hangerOf(only(mended))?.turnDeg).toBeCloseTo(0, 6);
  });

  test('is no finding where there is nothing to hang yet', () => {
    const codes = evaluate(hanging([lettering('')], { width: 4, edge: 3 })).findings.map((f) => f.code);
    expect(codes.filter((code) => code.startsWith('hang') || code.startsWith('no-place'))).toEqual([]);
  });

  test('below the middle of weight turns the part over', () => {
    const over = evaluate(job(0.5, 0.2)).findings.find((f) => f.code === 'hangs-turned');
    expect(over).toMatchObject({ severity: 'caution', sentence: expect.stringContaining('turns over') });
  });

  test('goes with the part: turned, mirrored, and as many times as large', () => {
    const placed = only(job(0.75, 0.9, { placement: { x: 30, y: -20, turn: 90, mirror: false } }));
    expect(hangerOf(placed)?.turnDeg).toBeCloseTo(hangerOf(only(job(0.75, 0.9)))?.turnDeg ?? 0, 9);
    const mirrored = only(job(0.75, 0.9, { placement: { x: 200, y: 0, turn: 0, mirror: true } }));
    expect(hangerOf(mirrored)?.turnDeg).toBeCloseTo(-(hangerOf(only(job(0.75, 0.9)))?.turnDeg ?? 0), 9);
    const wide = only(job(0.75, 0.9, { overallWidth: 160 }));
    const { ownBox, at } = hangerOf(wide) as NonNullable<ReturnType<typeof hangerOf>>;
    expect(((at as Point).x - wide.box.minX) / 160).toBeCloseTo(0.75, 3);
    expect(ownBox.maxX - ownBox.minX).toBeCloseTo(160, 2);
    // The hole itself stays as it was set.
    expect(
      Math.max(
        ...(wide.outlines[1]?.path.segments.map((s) => Math.hypot(s.x0 - (at as Point).x, s.y0 - (at as Point).y)) ??
          []),
      ),
    ).toBeCloseTo(2, 5);
  });
});

test('words hang by a ring at first, anything else by a hole; what was chosen stays', () => {
  const measure = { capHeightMm: 30, leastWidthMm: 1, kerfMm: null };
  const byOf = (job: Job) => stepIn(job.parts[0] as Job['parts'][number], 'hang');
  const words = jobWith([partOf([lettering('Ely')])]);
  expect(byOf(setHanging(words, 'part', true, measure))).toMatchObject({ on: true, by: 'ring' });
  expect(byOf(setHanging(jobWith([partOf([rectangle()])]), 'part', true, measure))).toMatchObject({ by: 'hole' });
  const chosen = hanging([lettering('Ely')], { by: 'hole', width: 9 });
  const again = setHanging(setHanging(chosen, 'part', false, measure), 'part', true, measure);
  expect(byOf(again)).toMatchObject({ on: true, by: 'hole', width: 9 });
  expect(setHanging(words, 'nowhere', true, measure)).toBe(words);
});

test('what is cut out of the sheet is not hung, a plate of its own is', () => {
  const negative = (steps: Draft[]) =>
    only(
      jobWith([
        partOf([lettering('IL')], { keep: 'outside', steps: [weld, ...steps, { kind: 'hang', width: 4, edge: 3 }] }),
      ]),
    );
  expect(hangerOf(negative([]))).toBeNull();
  expect(hangerOf(negative([{ kind: 'plate', across: 20, upright: 20 }]))?.at).not.toBeNull();
});

describe('studs', () => {
  const studded = (members: Draft[], step: Draft = {}, more: Draft = {}) =>
    jobWith([
      partOf(members, { hangsTogether: 'no', steps: [weld, { kind: 'studs', width: 3, edge: 2, ...step }], ...more }),
    ]);

  test.each(FAMILIES)('stand in each letter of %s that has room, clear of its edges', (face) => {
    const part = only(studded([lettering('Rust & Oak', face, { size: { by: 'capital', mm: 60 } })]));
    const { studs } = part.linework;
    const chords = chordsOf(part);
    for (const at of studs?.at ?? [])
      expect(Math.min(...chords.map((c) => toChord(at, c)))).toBeGreaterThan(3.5 - 0.02);
    const pieces = part.outlines.filter((o) => o.depth % 2 === 0);
    const inside = (box: PartResult['box'], { x, y }: Point) =>
      x > box.minX && x < box.maxX && y > box.minY && y < box.maxY;
    const studdedPieces = pieces.filter(({ box }) => studs?.at.some((at) => inside(box, at)));
    expect(studdedPieces.length + (studs?.without.length ?? 0)).toBeGreaterThanOrEqual(pieces.length);
    expect(studs?.at.length).toBeLessThanOrEqual(2 * pieces.length);
  });

  test('of a bar are at its ends, level, with the middle between them; as many as asked', () => {
    const two = only(studded([rectangle({ height: 12 })])).linework.studs?.at ?? [];
    expect(two).toHaveLength(2);
    const [a, b] = two as [Point, Point];
    expect(b.x - a.x).toBeCloseTo(80 - 2 * 3.5, 3);
    expect((a.x + b.x) / 2).toBeCloseTo(100, 1);
    expect(only(studded([rectangle()], { each: 4 })).linework.studs?.at).toHaveLength(4);
    expect(only(studded([rectangle()], { each: 1 })).linework.studs?.at).toEqual([
      { x: expect.closeTo(100, 0), y: expect.closeTo(100, 0) },
    ]);
  });

  test('that have no room are told of', () => {
    const found = evaluate(studded([lettering('il', 'Sacramento')])).findings.filter(
      (f) => f.code === 'no-room-for-stud',
    );
    expect(found.length).toBeGreaterThan(0);
    expect(found[0]?.sentence).toMatch(/^A piece of “il” has no room for a stud of 3 mm with 2 mm to its edge\.$/);
  });

  test('are on the drill paper at true size, and marked on the part only when that is asked for', () => {
    const job = studded([rectangle(), { ...rectangle({ id: 's' }), placement: { x: 220, y: 100 } }]);
    const result = evaluate(job);
    expect(result.operations.flatMap((o) => o.drawn).every((d) => d.what === 'outline')).toBe(true);
    const { files, refused } = drillPaper(job, result, 'part');
    expect(refused).toEqual([]);
    expect(files[0]?.name).toBe('trial_drill-paper.pdf');
    const at = result.parts[0]?.linework.studs?.at ?? [];
    expect(at).toHaveLength(4);
    expect(reportOf(job, result).parts[0]?.studs).toHaveLength(4);
    const page = readPdfPage(files[0]?.bytes as Uint8Array);
    // 200 mm of plates and 15 mm of paper left and right of them; the circles are as far apart as the studs.
    expect(page.width).toBeCloseTo(230, 3);
    const circles = page.circles('Drill here');
    expect(circles).toHaveLength(4);
    const spread = (points: readonly Point[]) => points.map((p) => p.x - (points[0] as Point).x).sort((a, b) => a - b);
    spread(circles).forEach((x, i) => {
      expect(x).toBeCloseTo(spread(at)[i] as number, 3);
    });
    const marked = studded([rectangle()], {}, { work: [{ what: 'studs', operation: 'mark' }] });
    const drawn = evaluate(marked).operations.flatMap((o) => o.drawn);
    expect(drawn.map((d) => d.what)).toEqual(['studs', 'studs']);
    expect(drillPaper(jobWith([partOf([rectangle()])]), result, 'nowhere').refused[0]).toMatch(/^There is no stud/);
  });
});
