/** Limits of how a job is run, by their names: its order, its times, areas in goes, prices. */
import { expect } from 'vitest';
import { measureTime } from '../../src/core/commands/order';
import { setMachinePrice } from '../../src/core/commands/price';
import { areasApart } from '../../src/core/job/areas-apart';
import { Evaluator } from '../../src/core/job/evaluate';
import { LIMITS } from '../../src/core/limits';
import { finished } from '../../src/core/memo';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { searchOrder } from '../../src/core/toolpath/ordering/search';
import { costInLength } from '../../src/core/toolpath/ordering/stops';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };

/** A machine on which a cut reckoned to take ten seconds was measured. */
const measured = (seconds: number) =>
  measureTime(jobWith([], { machine: { id: 'm', name: 'M', kind: 'laser' } }), 'cut', { seconds, reckoned: 10 })
    .machine;

/** What going over two blocks apart would save, that lie so many mm from each other. */
function apartOf(away: number) {
  const block = (id: string, x: number, y: number) =>
    partOf([{ id: 'b', kind: 'rectangle', placement: { x, y }, width: 40, height: 30 }], {
      id,
      work: [{ what: 'fill', operation: 'engrave' }],
    });
  const job = jobWith([block('near', 40, 40), block('far', 40 + away, 50)], {
    sheet: { width: 600, height: 200 },
    machine: { id: 'm', name: 'M', kind: 'laser', areas: {} },
    operations: [{ id: 'engrave', name: 'E', kind: 'engrave', settings: { typed: { speed: 100, rowDistance: 0.5 } } }],
  });
  return finished(areasApart(job, new Evaluator(wasmEngine).evaluate(job, faces), 'engrave'));
}

export const RUN_LIMITS = {
  areasApart: () => {
    limits.areasApart = 2;
    expect(apartOf(300)?.best).toHaveLength(2);
    limits.areasApart = 1;
    expect(apartOf(300)).toBeNull();
  },
  rowsCompared: () => {
    const all = apartOf(300)?.savedSeconds ?? 0;
    limits.rowsCompared = 20;
    const few = apartOf(300)?.savedSeconds ?? 0;
    expect(few).not.toBe(all);
    expect(Math.abs(few / all - 1)).toBeLessThan(0.25);
  },
  savedSeconds: () => {
    const saved = apartOf(300)?.savedSeconds ?? 0;
    limits.savedSeconds = saved + 0.1;
    expect(apartOf(300)?.isWorthwhile).toBe(false);
    limits.savedSeconds = saved - 0.1;
    expect(apartOf(300)?.isWorthwhile).toBe(true);
  },
  longSearch: () => {
    const stops = Array.from({ length: 12 }, (_, i) => {
      const at = { x: (7 * i) % 12, y: (5 * i) % 9 };
      return { isOpen: false, ways: [{ from: at, to: at }] };
    });
    const turns = () => {
      const job = { stops, first: stops.map(() => []) };
      return [...searchOrder(job, { from: { x: 0, y: 0 }, cost: costInLength, how: 'long' })].length;
    };
    limits.longSearch = 1;
    const once = turns();
    limits.longSearch = 11;
    // Each round looks up a few times.
    expect(turns()).toBeGreaterThanOrEqual(once + 10 * 3);
  },
  price: () => {
    const isTaken = (hourPrice: number) => machineSchema.safeParse({ name: 'M', kind: 'laser', hourPrice }).success;
    expect([isTaken(LIMITS.price), isTaken(LIMITS.price + 1)]).toEqual([true, false]);
    const job = jobWith([], { machine: { id: 'm', name: 'M', kind: 'laser' } });
    expect(setMachinePrice(job, 'hourPrice', 2 * LIMITS.price).machine?.hourPrice).toBe(LIMITS.price);
  },
  timeFactorLeast: () => {
    limits.timeFactorLeast = 0.5;
    expect(measured(1)?.factors.cut).toBe(0.5);
    expect(measured(8)?.factors.cut).toBe(0.8);
  },
  timeFactorMost: () => {
    limits.timeFactorMost = 2;
    expect(measured(100)?.factors.cut).toBe(2);
    expect(measured(15)?.factors.cut).toBe(1.5);
  },
  rowsTimed: () => {
    const seconds = (most: number) => {
      limits.rowsTimed = most;
      const block = { id: 'b', kind: 'rectangle', placement: { x: 60, y: 60 }, width: 40, height: 50 };
      const job = jobWith([partOf([block], { work: [{ what: 'fill', operation: 'engrave' }] })], {
        machine: { id: 'm', name: 'M', kind: 'laser', areas: {} },
        operations: [
          { id: 'engrave', name: 'E', kind: 'engrave', settings: { typed: { speed: 100, rowDistance: 0.5 } } },
        ],
      });
      return finished(new Evaluator(wasmEngine).evaluate(job, faces).run('quick')).seconds;
    };
    // A hundred rows, or every tenth of them: but for turns and moves as long.
    const [all, tenth] = [seconds(100), seconds(10)];
    expect(tenth).not.toBe(all);
    expect(Math.abs(tenth / all - 1)).toBeLessThan(0.1);
    expect(seconds(1000)).toBe(all);
  },
  putInOrder: () => {
    const row = (count: number) => {
      const dots = Array.from({ length: count }, (_, i) => ({
        id: `m${i}`,
        kind: 'ellipse',
        placement: { x: 10 + 7 * ((i * 5) % count), y: 20 },
        width: 4,
        height: 4,
      }));
      const part = partOf(dots, { work: [{ what: 'outline', operation: 'cut' }] });
      const job = jobWith([part], { sheet: { width: 400, height: 200 } });
      return finished(new Evaluator(wasmEngine).evaluate(job, faces).run('full')).operations[0];
    };
    limits.putInOrder = 12;
    expect(row(12)?.goes).toHaveLength(12);
    // Of more, all of the part are run as they come.
    expect(row(13)?.goes).toHaveLength(1);
    expect(row(13)?.drawn).toHaveLength(13);
  },
  linesOrderedOverParts: () => {
    const way = (most: number) => {
      limits.linesOrderedOverParts = most;
      const part = (id: string, x: number, text: string) => ({
        ...partOf([lettering(text)], {
          steps: [{ kind: 'weld' }, { kind: 'hatch', tool: { shape: 'line', tip: 1 } }],
          work: [{ what: 'hatch', operation: 'mark' }],
          placement: { x, y: 20 },
        }),
        id,
      });
      // One part on both sides of the other: part by part is not the least way.
      const job = jobWith([part('a', 150, 'I          I'), part('b', 150, 'H')], {
        sheet: { width: 400, height: 200 },
      });
      const { parts, run } = new Evaluator(wasmEngine).evaluate(job, faces);
      const { operations } = finished(run('full'));
      const lines = parts.reduce((sum, p) => sum + (p.linework.hatch?.strokes.start.length ?? 0) - 1, 0);
      return { lines, travel: operations.find((o) => o.operation.id === 'mark')?.travelMm as number };
    };
    const { lines, travel } = way(100_000);
    expect(way(lines).travel).toBe(travel);
    expect(way(lines - 1).travel).toBeGreaterThan(travel);
  },
};
