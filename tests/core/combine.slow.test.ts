/**
 * Members joined, punched and clipped, and the pieces that are kept, judged by shapely.
 *
 * @module-tag slow
 */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from 'vitest';
import { flattenPath, isContinuous, regionArea } from '../../src/core/geometry/path';
import { Evaluator } from '../../src/core/job/evaluate';
import { anyPart, SHEET } from '../support/any-part';
import { folder } from '../support/checkers';
import { faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { jobWith } from '../support/jobs';
import { chance } from '../support/random';
import { sample } from '../support/scale';

/** Chords given to the judge lie this close to the curves; its areas are off by at most this times the outline's length. */
const CHORD_MM = 1e-3;
type Verdict = { area: number; length: number; keptArea: number; keptLength: number; pieces: number[] };

test('areas and pieces are those the judge finds', () => {
  const next = chance(77);
  const evaluator = new Evaluator(wasmEngine);
  const cases = Array.from({ length: sample(60, 1500) }, () => {
    const job = jobWith([anyPart(next)], { sheet: { width: SHEET[0], height: SHEET[1] } });
    const part = evaluator.evaluate(job, faces).parts[0];
    if (!part) throw new Error('no part');
    return { job, part };
  });
  const file = path.join(folder(), 'cases.json');
  const told = cases.map(({ job, part }) => ({
    sheet: SHEET,
    keep: job.parts[0]?.keep,
    members: part.members.map((member, k) => ({
      role: job.parts[0]?.members[k]?.role,
      outlines: member.outlines.map((o) => ({
        depth: o.depth,
        points: flattenPath(o.path, CHORD_MM).map((p) => [p.x, p.y]),
      })),
    })),
  }));
  writeFileSync(file, JSON.stringify(told));
  const verdicts = JSON.parse(
    execFileSync('/usr/bin/python3', ['tests/core/check_regions.py', file], { encoding: 'utf8', maxBuffer: 1 << 28 }),
  ) as Verdict[];
  cases.forEach(({ job, part }, i) => {
    const verdict = verdicts[i] as Verdict;
    const label = `${i}: ${JSON.stringify(job.parts)}`;
    const areaOf = (outlines: typeof part.outlines) => regionArea(outlines.map((o) => o.path));
    expect(Math.abs(areaOf(part.outlines) - verdict.area), label).toBeLessThanOrEqual(
      CHORD_MM * verdict.length + CHORD_MM,
    );
    if (part.outlines.length === 0) return;
    expect(Math.abs(areaOf(part.kept) - verdict.keptArea), label).toBeLessThanOrEqual(
      CHORD_MM * verdict.keptLength + CHORD_MM,
    );
    expect(verdict.pieces, label).toContain(part.pieces.length);
    expect(
      part.outlines.every((o) => isContinuous(o.path)),
      label,
    ).toBe(true);
  });
  figure({
    name: 'Parts of joined, punched and clipped members whose areas and kept pieces agree with shapely',
    value: cases.length,
    digits: 0,
  });
});
