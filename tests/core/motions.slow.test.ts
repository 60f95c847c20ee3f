/**
 * Documents by chance, none of which is in the golden set: every part moved, turned and mirrored comes to the same motion of what
 * it came to; sized and sized back, the document is what it was.
 *
 * @module-tag slow
 */
import { expect, test } from 'vitest';
import { mirrorChosen, moveChosen, sizeChosen, turnChosen } from '../../src/core/commands/chosen';
import { readJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import type { Path } from '../../src/core/geometry/path';
import { applyMatrix, compose, determinant, invert, type Matrix } from '../../src/core/geometry/point';
import { strokePaths } from '../../src/core/geometry/strokes';
import { Evaluator } from '../../src/core/job/evaluate';
import { partMatrix } from '../../src/core/prepare/placement';
import { anyDocument, DRAWINGS } from '../support/any-document';
import { faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { chance } from '../support/random';
import { inFull } from '../support/scale';

const COUNT = inFull ? 500 : 24;
const SAME_MM = 1e-5;

const jobs = Array.from({ length: COUNT }, (_, i): Job => {
  const read = readJob(JSON.stringify(anyDocument(200 + i, 20_261_127)));
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
});
const evaluator = new Evaluator(wasmEngine);
for (const [id, text] of DRAWINGS) evaluator.addDrawing(id, text);

/** Every part that goes by itself in another place, and how each part was moved. */
function moved(job: Job, next: () => number): Job {
  let now = job;
  for (const part of job.parts) {
    if (part.along !== null) continue;
    const chosen = { partIds: [part.id], memberId: null };
    const about = { x: 300 * next(), y: 200 * next() };
    now = moveChosen(now, chosen, 80 * next() - 40, 80 * next() - 40);
    now = turnChosen(now, chosen, 360 * next() - 180, about);
    if (next() < 0.5) now = mirrorChosen(now, chosen, about.x);
  }
  return now;
}

/** The farthest apart that the points of two lists of paths are, the second being the first after a matrix. */
function apart(before: readonly Path[], after: readonly Path[], m: Matrix, closed: boolean): number {
  expect(after).toHaveLength(before.length);
  let most = 0;
  before.forEach((path, i) => {
    const other = after[i]?.segments ?? [];
    expect(other).toHaveLength(path.segments.length);
    // Outlines that are mirrored run the other way round, so that material stays on the same side.
    const turned = closed && determinant(m) < 0;
    path.segments.forEach((s, k) => {
      const t = other[turned ? other.length - 1 - k : k];
      const p = applyMatrix(m, { x: s.x0, y: s.y0 });
      const q = t && (turned ? { x: t.x1, y: t.y1 } : { x: t.x0, y: t.y0 });
      most = Math.max(most, q ? Math.hypot(p.x - q.x, p.y - q.y) : Infinity);
    });
  });
  return most;
}

test('moved, turned and mirrored, a part comes to the same motion of what it came to', () => {
  let [most, compared] = [0, 0];
  jobs.forEach((job, n) => {
    const there = moved(job, chance(n));
    const [a, b] = [evaluator.evaluate(job, faces), evaluator.evaluate(there, faces)];
    a.parts.forEach((part, i) => {
      const other = b.parts[i];
      const [from, to] = [job, there].map((j) => {
        const found = j.parts.find((p) => p.id === part.id);
        return found ? partMatrix(j.parts, found) : null;
      });
      if (!other || !from || !to) throw new Error(`${job.title}: no part ${part.id}`);
      const motion = compose(invert(from), to);
      // What is cut out of the sheet is bridged by where it lies on it; before that it is the same.
      const own =
        part.keep === 'outside'
          ? [part.bridged?.before ?? part.solid, other.bridged?.before ?? other.solid]
          : [part.outlines, other.outlines];
      const [x, y] = own.map((list) => list.map((o) => o.path)) as [Path[], Path[]];
      most = Math.max(most, apart(x, y, motion, true), apart(part.openPaths, other.openPaths, motion, false));
      const [p, q] = [a.parts[i]?.linework, b.parts[i]?.linework];
      if (part.keep === 'inside' && p && q) {
        most = Math.max(most, apart(p.centerline?.paths ?? [], q.centerline?.paths ?? [], motion, false));
        if (p.hatch && q.hatch)
          most = Math.max(
            most,
            apart(strokePaths(p.hatch.strokes), strokePaths(q.hatch.strokes), motion, false),
            apart(p.hatch.rings, q.hatch.rings, motion, false),
          );
        expect(q.dots?.dots.length).toBe(p.dots?.dots.length);
      }
      compared++;
    });
  });
  expect(compared).toBeGreaterThan(COUNT);
  expect(most).toBeLessThan(SAME_MM);
  figure({
    name: `Parts of ${COUNT} random documents moved, turned and mirrored: farthest from the same motion of their outlines, lines and fillings`,
    value: most,
    digits: 8,
    unit: 'mm',
    aim: { most: SAME_MM },
    note: `${compared} parts`,
  });
});

test('sized by a factor and by one over it, a document is what it was', () => {
  let worst = 0;
  const compare = (a: unknown, b: unknown): void => {
    if (typeof a === 'number' && typeof b === 'number')
      worst = Math.max(worst, Math.abs(a - b) / Math.max(1, Math.abs(a)));
    else if (a && b && typeof a === 'object' && typeof b === 'object')
      for (const key of Object.keys({ ...a, ...b }))
        compare((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]);
    else expect(b).toEqual(a);
  };
  jobs.forEach((job, n) => {
    const next = chance(n);
    const chosen = { partIds: job.parts.map((p) => p.id), memberId: null };
    const [factor, about] = [Math.exp(3 * next() - 1.5), { x: 300 * next(), y: 200 * next() }];
    for (const everything of [false, true]) {
      const sized = sizeChosen(job, chosen, { factor, about, everything });
      expect(sized).not.toBe(job);
      compare(job, sizeChosen(sized, chosen, { factor: 1 / factor, about, everything }));
    }
  });
  expect(worst).toBeLessThan(SAME_MM);
});
