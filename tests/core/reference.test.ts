/** Parts that are shown for reference only: neither worked nor written, and nothing is found about them. */
import { expect, test } from 'vitest';
import { asCut } from '../../src/core/job/as-cut';
import { Evaluator } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { reportOf } from '../../src/core/job/report';
import { finished } from '../../src/core/memo';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const plate = (more: Draft = {}) =>
  partOf([{ id: 'r', kind: 'rectangle', placement: { x: 150, y: 100 }, width: 400, height: 60 }], {
    id: 'plate',
    ...more,
  });
const words = partOf([lettering('I', 'Poppins')], { id: 'words', work: [{ what: 'fill', operation: 'engrave' }] });

test('it is there to be placed by, and nowhere else', () => {
  const job = jobWith([plate({ reference: true }), words]);
  const result = evaluator.evaluate(job, faces);
  expect(result.parts.map((p) => p.id)).toEqual(['plate', 'words']);
  expect(result.operations.flatMap((o) => o.drawn.map((d) => d.partId))).toEqual(['words']);
  expect(result.findings).toEqual([]);
  expect(result.workBox.maxX - result.workBox.minX).toBeLessThan(40);
  expect(reportOf(job, result).parts.map((p) => p.id)).toEqual(['words']);
  expect(finished(asCut(wasmEngine, job, result))).toEqual([]);
  // The same as if it were not in the job.
  const alone = jobWith([words]);
  const svg = (of: typeof job) =>
    finished(makeFiles(of, evaluator.evaluate(of, faces), ['svg'], { partIds: null })).files[0]?.bytes;
  expect(svg(job)).toEqual(svg(alone));
});

test('taken for work again, it is found wanting again; what is made from it goes on being made', () => {
  const shown = evaluator.evaluate(jobWith([plate(), words]), faces);
  expect(shown.findings.map((f) => f.code)).toEqual(['off-sheet']);
  expect(shown.operations.flatMap((o) => o.drawn.map((d) => d.partId))).toContain('plate');
  const copy = partOf([{ id: 'c', kind: 'copy', placement: { x: 0, y: 0 }, of: 'plate', scale: 0.5 }], { id: 'copy' });
  const copied = evaluator.evaluate(jobWith([plate({ reference: true }), copy]), faces);
  expect(copied.operations.flatMap((o) => o.drawn.map((d) => d.partId))).toEqual(['copy']);
});
