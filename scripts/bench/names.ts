/** Speed of lists of names: 200 prepared against as many jobs by themselves, laid on sheets against boxes along a skyline, and memory at 2,000. */
import { setWords } from '../../src/core/commands/words';
import { Evaluator } from '../../src/core/job/evaluate';
import { type RowShape, rowShapes } from '../../src/core/job/row-shapes';
import { RowsSeen } from '../../src/core/job/rows';
import { finished } from '../../src/core/memo';
import { firstLayout } from '../../src/core/nesting/first';
import { prepareNesting } from '../../src/core/nesting/problem';
import { boundsOfAreas } from '../../src/core/nesting/raster';
import { faces, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { NAME_JOBS, namesFor, rosterOfNames } from '../../tests/support/names';
import { skyline } from '../../tests/support/skyline';
import { middle } from './median';

const ROUNDS = 3;
const filling = { today: '2026-11-30' };

function timed(run: () => void): number {
  const began = performance.now();
  run();
  return performance.now() - began;
}

for (const [kind, make] of Object.entries(NAME_JOBS)) {
  const names = namesFor(220).slice(20);
  const job = make('‹Name›', { roster: rosterOfNames(names) });
  const [rows, alone]: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    rows.push(
      timed(() => {
        const evaluator = new Evaluator(wasmEngine);
        finished(new RowsSeen().steps(job, { filling, about: '', tell: () => {}, evaluator, faces }));
      }),
    );
    alone.push(
      timed(() => {
        for (const name of names)
          new Evaluator(wasmEngine).evaluate(setWords({ ...job, roster: null }, 'part', 'words', name), faces);
      }),
    );
  }
  const [all, each] = [middle(rows), middle(alone)];
  figure({
    name: `200 names, ${kind}: looked over against as many jobs with nothing remembered`,
    value: all / each,
    digits: 2,
    unit: '×',
    aim: { most: 0.6 },
    note: `${all.toFixed(0)} ms against ${each.toFixed(0)} ms`,
  });
}

const tied = NAME_JOBS['tied name'] as (words: string, more?: Record<string, unknown>) => ReturnType<typeof setWords>;
const list = tied('‹Name›', { roster: rosterOfNames(namesFor(220).slice(20)), sheet: { width: 600, height: 400 } });
const shapes: RowShape[] = finished(rowShapes(list, filling, { evaluator: new Evaluator(wasmEngine), faces }));
const boxes = shapes.flatMap(({ areas }) => {
  const b = boundsOfAreas(areas);
  return b ? [{ width: b.maxX - b.minX + 3, height: b.maxY - b.minY + 3 }] : [];
});
const [nesting, boxing]: [number[], number[]] = [[], []];
for (let round = 0; round < ROUNDS; round++) {
  nesting.push(
    timed(() => {
      const problem = prepareNesting(
        shapes.map(({ rowId, areas }) => ({ id: rowId, areas, copies: 1, group: null })),
        { width: 600, height: 400, spacing: 3, margin: 5, turns: [0, 180], usesHoles: true, offCut: null, lying: [] },
      );
      // As soon as there is one to look at: further orders make it a little better.
      firstLayout(problem).next();
    }),
  );
  boxing.push(timed(() => void skyline(boxes, 593, 393)));
}
figure({
  name: 'first layout of 200 names against a skyline of their boxes',
  value: middle(nesting) / middle(boxing),
  digits: 0,
  unit: '×',
  aim: { most: 20 },
  note: `${middle(nesting).toFixed(0)} ms against ${middle(boxing).toFixed(1)} ms`,
});

const many = tied('‹Name›', { roster: rosterOfNames(namesFor(2_000)) });
const evaluator = new Evaluator(wasmEngine);
finished(new RowsSeen().steps(many, { filling, about: '', tell: () => {}, evaluator, faces }));
figure({
  name: 'numbers remembered after 2,000 names',
  value: evaluator.memo.size.numbers / 1e6,
  digits: 1,
  unit: 'million',
  aim: { most: 40 },
  note: `${evaluator.memo.size.results.toLocaleString('en')} results; 32 million are kept beside those of the newest evaluations`,
});
