import { expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import type { Finding } from '../../src/core/inspect/finding';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';
import { tiesOf } from '../support/notes';

const job = (x: number, y: number): Job =>
  jobWith(
    [
      partOf([lettering('Fig & Zoë', 'Dancing Script', { placement: { x: 0, y: 0 }, closeUp: { overlap: 1 } })], {
        placement: { x, y },
        steps: [
          { kind: 'weld' },
          { kind: 'thicken', by: 0.3, holesOpen: 1 },
          { kind: 'bar', height: 3 },
          { kind: 'tie', width: 2 },
        ],
      }),
      partOf([{ id: 'along', kind: 'copy', of: 'part', placement: { x: 1, y: 2 }, follows: true }], {
        id: 'backing',
        along: 'part',
        steps: [{ kind: 'weld' }, { kind: 'border', distance: 4 }],
      }),
      partOf([{ id: 'apart', kind: 'copy', of: 'part', placement: { x: 50, y: 40 } }], {
        id: 'second',
        steps: [{ kind: 'weld' }, { kind: 'thicken', by: 0.5 }],
      }),
    ],
    { sheet: { width: 300, height: 200, leastWidth: 1.5, kerf: 0.2 } },
  );

/** Everything of a result that has a place, as numbers. */
const numbers = (result: JobResult): number[] =>
  result.parts.flatMap((part) => [
    part.pieces.length,
    tiesOf(part).length,
    ...Object.values(part.box),
    ...part.members.flatMap((m) => [...Object.values(m.box), ...Object.values(m.matrix)]),
    ...tiesOf(part).flatMap((t) => [t.centre.x, t.centre.y, t.length, ...Object.values(t.pieceBox)]),
    ...part.outlines.flatMap((o) => [o.area, ...Object.values(o.box)]),
    ...part.strength.thin.flatMap((s) => [s.width, s.at.x, s.at.y, ...Object.values(s.box)]),
  ]);

test('what is moved on the sheet is what would be computed there, and nothing is computed anew', {
  tags: 'slow',
}, () => {
  const evaluator = new Evaluator(wasmEngine);
  const first = evaluator.evaluate(job(150, 100), faces);
  const moved = evaluator.evaluate(job(171.25, 88.5), faces);
  const fresh = new Evaluator(wasmEngine).evaluate(job(171.25, 88.5), faces);
  const [a, b] = [numbers(moved), numbers(fresh)];
  expect(a).toHaveLength(b.length);
  a.forEach((value, i) => {
    expect(value).toBeCloseTo(b[i] as number, 6);
  });
  expect(moved.findings.length).toBeGreaterThan(0);
  const near = (mm: number) => expect.closeTo(mm, 6);
  const boxed = (f: Finding) =>
    f.box && { minX: near(f.box.minX), minY: near(f.box.minY), maxX: near(f.box.maxX), maxY: near(f.box.maxY) };
  expect(moved.findings).toEqual(fresh.findings.map((f) => ({ ...f, box: boxed(f) })));
  // Outlines of the same segments in another place: moved, not made.
  expect(moved.parts[0]?.outlines.map((o) => o.labels)).toEqual(first.parts[0]?.outlines.map((o) => o.labels));
  expect(moved.parts[0]?.outlines.every((o, i) => o.labels === first.parts[0]?.outlines[i]?.labels)).toBe(true);
  // A copy that stays where it is does not change when what it copies is moved.
  expect(moved.parts[2]).toBe(first.parts[2]);
  // The same document again is the same result, part by part.
  expect(evaluator.evaluate(job(171.25, 88.5), faces).parts.every((p, i) => p === moved.parts[i])).toBe(true);
});
