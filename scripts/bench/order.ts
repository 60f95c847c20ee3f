/**
 * Speed of putting what is run in order, and of reckoning how long it takes: of a sign of 200 letters against its evaluation, and of 5,000
 * paths against one pass of the nearest next with an index of the same places.
 */
import Flatbush from 'flatbush';
import { Evaluator } from '../../src/core/job/evaluate';
import { finished } from '../../src/core/memo';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { searchOrder } from '../../src/core/toolpath/ordering/search';
import { costInSeconds } from '../../src/core/toolpath/ordering/stops';
import { jobByChance } from '../../tests/ordering/random-jobs';
import { faces, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { jobWith, lettering, partOf } from '../../tests/support/jobs';
import { middle } from './median';

const ROUNDS = 5;
const TEXT = Array.from({ length: 10 }, () => 'Gate sign Alder Lane no 7').join('\n');
const sign = jobWith(
  [
    partOf([lettering(TEXT, 'Archivo Black', { size: { by: 'capital', mm: 20 } })], {
      placement: { x: 900, y: 500 },
      steps: [{ kind: 'weld' }],
      work: [{ what: 'outline', operation: 'cut' }],
    }),
  ],
  {
    operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 20 } } }],
    machine: { ...machineSchema.parse({ name: 'Laser', kind: 'laser' }), id: 'laser' },
    sheet: { width: 2000, height: 1000, thickness: 3, kerf: 0.2, leastWidth: 1 },
  },
);

const timed = (once: () => void): number => {
  const began = performance.now();
  once();
  return performance.now() - began;
};
const taken = Array.from({ length: ROUNDS }, () => {
  const evaluator = new Evaluator(wasmEngine);
  let result = evaluator.evaluate(jobWith([]), faces);
  const evaluation = timed(() => {
    result = evaluator.evaluate(sign, faces);
  });
  const [quick, full] = (['quick', 'full'] as const).map((how) => timed(() => finished(result.run(how))));
  return { evaluation, quick: quick as number, full: full as number };
});
const evaluation = middle(taken.map((t) => t.evaluation));
for (const [name, key, aim] of [
  ['order found quickly, and time, of a sign of 200 letters against its evaluation', 'quick', 0.5],
  ['order of its files, and time, of a sign of 200 letters against its evaluation', 'full', 0.5],
] as const) {
  const took = middle(taken.map((t) => t[key]));
  figure({
    name,
    value: took / evaluation,
    digits: 2,
    unit: '×',
    aim: { most: aim },
    note: `${took.toFixed(0)} ms against ${evaluation.toFixed(0)} ms`,
  });
}

const many = jobByChance(4, 5000);
const cost = costInSeconds(500, 3000);
/** Always the nearest next of the places of all that are left, by an index of them. */
function nearestPass(): number {
  const places = many.stops.flatMap(({ ways }, i) => ways.map((way) => ({ ...way, i })));
  const index = new Flatbush(places.length);
  for (const { from } of places) index.add(from.x, from.y);
  index.finish();
  const done = new Uint8Array(many.stops.length);
  let [x, y, way] = [0, 0, 0];
  for (;;) {
    const [next] = index.neighbors(x, y, 1, Infinity, (p) => !done[places[p]?.i ?? 0]);
    const place = next === undefined ? undefined : places[next];
    if (!place) return way;
    done[place.i] = 1;
    way += Math.hypot(place.from.x - x, place.from.y - y);
    [x, y] = [place.to.x, place.to.y];
  }
}
const bare = middle(Array.from({ length: ROUNDS }, () => timed(nearestPass)));
const ordered = middle(
  Array.from({ length: ROUNDS }, () =>
    timed(() => finished(searchOrder(many, { from: { x: 0, y: 0 }, cost, how: 'full' }))),
  ),
);
figure({
  name: 'order of 5,000 paths against one pass of the nearest next by an index',
  value: ordered / bare,
  digits: 1,
  unit: '×',
  aim: { most: 15 },
  note: `${ordered.toFixed(0)} ms against ${bare.toFixed(0)} ms`,
});
