/** A job as it is run: nothing comes free before its work is done, times by hand, parts pinned, the order that is kept. */
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { keepOrder, orderBy } from '../../src/core/commands/order';
import type { Job } from '../../src/core/document/schema';
import { drawnPaths } from '../../src/core/geometry/drawable';
import { flattenPath } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { partsOfGo } from '../../src/core/job/drawn';
import { Evaluator } from '../../src/core/job/evaluate';
import { homeOf, type JobRun, longerOrders } from '../../src/core/job/run';
import { LIMITS } from '../../src/core/limits';
import { finished } from '../../src/core/memo';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { windingNumber } from '../support/area';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf, rectangle as sized } from '../support/jobs';
import { chance } from '../support/random';
import { sample } from '../support/scale';

const run = (job: Job, how: 'quick' | 'full' = 'full'): JobRun =>
  finished(new Evaluator(wasmEngine).evaluate(job, faces).run(how));
const rectangle = (id: string, x: number, y: number, width: number, height: number, more: Draft = {}): Draft =>
  sized(id, width, height, { placement: { x, y }, ...more });
const CUT = { work: [{ what: 'outline', operation: 'cut' }] };

/** Plays a run: each closed cut drops what it goes round. How many things are worked on what has dropped. */
function worksOnDropped({ operations }: JobRun): number {
  const gone: Point[][] = [];
  let late = 0;
  for (const { operation, drawn } of operations)
    for (const { drawable } of drawn) {
      const lines = drawnPaths(drawable).map((path) => flattenPath(path, 0.01));
      const isCut = operation.kind === 'cut' && drawable.kind === 'outline';
      const places = lines.flatMap((line) => line.filter((_, i) => i % 3 === 0));
      // A cut whose outline touches one that has dropped is worked on what is left, unless all of it is gone.
      const isGone = (p: Point) => gone.some((g) => windingNumber(g, p.x, p.y) !== 0);
      if (places.length > 0 && (isCut ? places.every(isGone) : places.some(isGone))) late++;
      if (isCut) gone.push(...lines);
    }
  return late;
}

test('nothing comes free before its work is done', () => {
  const next = chance(61);
  for (let i = 0; i < sample(6, 60); i++) {
    const parts: Draft[] = [];
    for (let k = 0; k < 3; k++) {
      const [x, y] = [90 + 140 * k, 80 + 60 * next()];
      const face = FAMILIES[Math.floor(next() * FAMILIES.length)] as string;
      parts.push(
        partOf([rectangle('rim', 0, 0, 120, 70), rectangle('hole', 48, 26, 8, 8, { role: 'punch' })], {
          id: `plate${k}`,
          placement: { x, y },
          ...CUT,
        }),
        partOf([lettering('Bog 8', face, { size: { by: 'capital', mm: 12 } })], {
          id: `words${k}`,
          placement: { x, y },
          work: [{ what: 'outline', operation: next() < 0.5 ? 'cut' : 'score' }],
        }),
        partOf([lettering('so', 'Poppins', { size: { by: 'capital', mm: 5 } })], {
          id: `small${k}`,
          placement: { x, y: y - 25 },
          work: [{ what: next() < 0.5 ? 'fill' : 'outline', operation: 'engrave' }],
        }),
      );
    }
    const job = jobWith(next() < 0.5 ? parts : parts.reverse(), { sheet: { width: 600, height: 300 } });
    for (const by of ['way', 'rows', 'spread'] as const) {
      const operations = job.operations.map((o) => ({ ...o, order: { ...o.order, by, pinned: ['plate1'] } }));
      for (const how of ['quick', 'full'] as const) expect(worksOnDropped(run({ ...job, operations }, how))).toBe(0);
    }
  }
});

describe('lines that are cut', () => {
  const line = (half: number): Draft => ({
    id: 'line',
    kind: 'path',
    placement: { x: 100, y: 100 },
    d: `M ${-half} 0 L ${half} 0`,
  });
  const plate = partOf([rectangle('rim', 100, 100, 80, 40)], { id: 'plate', ...CUT });
  const order = (half: number) =>
    run(
      jobWith([plate, partOf([line(half)], { id: 'fold', ...CUT })], { sheet: { width: 300, height: 200 } }),
    ).operations[0]?.goes.flatMap(({ go }) => partsOfGo(go));

  test('are done while their piece lies firm, also where they only cross it', () => {
    expect(order(20)).toEqual(['fold', 'plate']);
    expect(order(90)).toEqual(['fold', 'plate']);
  });
});

test('of very many things parts are run as a whole, those that lie in others first', () => {
  const most = LIMITS.putInOrder;
  const grid = (id: string, x: number, size: number) =>
    partOf(
      [
        rectangle('rim', x, 100, size, size),
        ...Array.from({ length: 4 }, (_, i) => rectangle(`h${i}`, x - 6 + 4 * i, 100, 2, 2, { role: 'punch' })),
      ],
      { id, ...CUT },
    );
  const nested = [
    partOf([rectangle('rim', 100, 100, 120, 90)], { id: 'frame', ...CUT }),
    grid('a', 70, 30),
    grid('b', 130, 30),
  ];
  try {
    (LIMITS as { putInOrder: number }).putInOrder = 5;
    const made = run(jobWith(nested, { sheet: { width: 300, height: 200 } }));
    expect(made.operations[0]?.goes).toHaveLength(3);
    expect(made.operations[0]?.goes.flatMap(({ go }) => partsOfGo(go))[2]).toBe('frame');
    expect(worksOnDropped(made)).toBe(0);
  } finally {
    (LIMITS as { putInOrder: number }).putInOrder = most;
  }
});

describe('times', () => {
  const machine = {
    ...machineSchema.parse({
      name: 'M',
      kind: 'laser',
      speed: { x: 1000, y: 1000 },
      acceleration: { x: 1000, y: 1000 },
      idleSpeed: 200,
      pierceSeconds: 0.5,
      liftSeconds: 0.25,
      changeSeconds: 30,
      cornerMm: 0.001,
      areas: { rows: 'own', way: 'both', runUp: 5, turnSeconds: 0.02 },
    }),
    id: 'm',
  };
  const typed = (more: Draft) => ({ settings: { typed: more } });
  const operations = (cut: Draft, engrave: Draft = {}) => [
    { id: 'engrave', name: 'Engrave', kind: 'engrave', ...typed(engrave) },
    { id: 'cut', name: 'Cut', kind: 'cut', ...typed(cut) },
  ];
  const plate = partOf([rectangle('rim', 150, 100, 100, 60)], { id: 'plate', ...CUT });
  const job = (cut: Draft, more: Draft = {}) =>
    jobWith([plate], { machine, operations: operations(cut), sheet: { width: 300, height: 200 }, ...more });
  const times = (made: Job) => run(made).operations[0]?.times;

  test('a plate: round it, from the corner of the sheet, pierced and lifted once', () => {
    const made = times(job({ speed: 50 }));
    // Each side from nearly rest to nearly rest: corners are hardly cut at all.
    const side = (mm: number) => mm / 50 + 50 / 1000;
    expect(made?.working).toBeLessThan(2 * side(100) + 2 * side(60));
    expect(made?.working).toBeGreaterThan(320 / 50);
    const away = Math.hypot(100, 70);
    expect(made?.idle).toBeCloseTo(away / 200 + 200 / (1000 / (100 / away)), 6);
    expect([made?.piercing, made?.lifting, made?.changing]).toEqual([0.5, 0.25, 0]);
    const sum = (made?.working ?? 0) + (made?.idle ?? 0) + 0.75;
    expect(made?.seconds).toBeCloseTo(sum, 9);
  });

  test('two passes go round twice; a factor that was measured holds; without a speed nothing is known', () => {
    const [one, two] = [times(job({ speed: 50 })), times(job({ speed: 50, passes: 2 }))];
    expect(two?.working).toBeCloseTo(2 * (one?.working ?? 0), 9);
    expect(two?.piercing).toBe(0.5);
    const measured = job({ speed: 50 });
    if (measured.machine) measured.machine.factors.cut = 1.5;
    expect(times(measured)?.seconds).toBeCloseTo(1.5 * (one?.seconds ?? 0), 9);
    const unknown = run(job({}));
    expect(unknown.operations[0]?.times).toBeNull();
    expect([unknown.seconds, unknown.unknown]).toEqual([0, ['Cut']]);
    expect(run(job({ speed: 50 }, { machine: null })).unknown).toEqual(['Cut']);
  });

  test('an area row by row, along its direction; another tool is changed to', () => {
    const block = partOf([rectangle('b', 150, 100, 40, 10)], {
      id: 'block',
      work: [{ what: 'fill', operation: 'engrave' }],
    });
    const both = jobWith([plate, block], {
      machine,
      sheet: { width: 300, height: 200 },
      operations: operations({ speed: 50, tool: 'a' }, { speed: 100, rowDistance: 0.5, tool: 'b' }),
    });
    const [engraved, cut] = run(both).operations;
    // 20 rows of 40 mm with 5 mm on both sides, from rest to rest.
    expect(engraved?.times?.working).toBeCloseTo(20 * (50 / 100 + 100 / 1000) + 19 * 0.02, 6);
    expect(engraved?.times?.changing).toBe(0);
    expect(cut?.times?.changing).toBe(30);
    const upright = {
      ...both,
      operations: both.operations.map((o) => ({ ...o, scan: { interval: 0.5, direction: 90 } })),
    };
    // Upright there are 80 rows of 10 mm.
    const row = 20 / 100 + 100 / 1000;
    expect(run(upright).operations[0]?.times?.working).toBeCloseTo(80 * row + 79 * 0.02, 6);
  });

  test('it begins where the machine has its 0, 0', () => {
    const at = (origin: string) => homeOf(job({}, { machine: { ...machine, origin } }));
    expect(
      ['lower left', 'lower right', 'upper left', 'upper right', 'middle'].map((o) => Object.values(at(o))),
    ).toEqual([
      [0, 0],
      [300, 0],
      [0, 200],
      [300, 200],
      [150, 100],
    ]);
  });
});

describe('what the document says of the order', () => {
  const row = Array.from({ length: 5 }, (_, i) =>
    partOf([rectangle('r', 30 + 40 * i, 50, 20, 20)], { id: `p${i}`, ...CUT }),
  );
  const job = (order: Draft = {}) =>
    jobWith(row, {
      sheet: { width: 300, height: 100 },
      operations: [{ id: 'cut', name: 'Cut', kind: 'cut', order }],
    });
  const parts = (made: Job) => run(made).operations[0]?.goes.flatMap(({ go }) => partsOfGo(go));

  test('parts that are pinned are run first, in their order; those that are gone are nobody’s', () => {
    expect(parts(job())).toEqual(['p0', 'p1', 'p2', 'p3', 'p4']);
    expect(parts(job({ pinned: ['p3', 'gone', 'p1'] }))?.slice(0, 2)).toEqual(['p3', 'p1']);
  });

  test('each begins at its nearest corner to where the one before ended', () => {
    const made = run(job()).operations[0];
    expect(made?.travelMm).toBeLessThan(4 * 41);
    expect(made?.goes.every(({ from, to }) => from.x === to.x && from.y === to.y)).toBe(true);
    expect(
      made?.drawn.every((d, i) => {
        const [s] = drawnPaths(d.drawable)[0]?.segments ?? [];
        return s?.x0 === made.goes[i]?.from.x && s?.y0 === made.goes[i]?.from.y;
      }),
    ).toBe(true);
  });
});

describe('an order that was searched for longer', () => {
  // As long as it takes to have all kinds of rounds.
  const { longSearch } = LIMITS;
  beforeAll(() => {
    (LIMITS as { longSearch: number }).longSearch = 4;
  });
  afterAll(() => {
    (LIMITS as { longSearch: number }).longSearch = longSearch;
  });

  const row = Array.from({ length: 12 }, (_, i) =>
    partOf([rectangle('r', 30 + 40 * (i % 6), 40 + 60 * Math.floor(i / 6), 20, 20)], { id: `p${i}`, ...CUT }),
  );
  const job = (order: Draft = {}, parts: Draft[] = row) =>
    jobWith(parts, {
      sheet: { width: 300, height: 200 },
      operations: [{ id: 'cut', name: 'Cut', kind: 'cut', order }],
    });
  const searched = (of: Job, stopAt = Infinity) => {
    const result = new Evaluator(wasmEngine).evaluate(of, faces);
    const found = [...longerOrders(of, finished(result.run('full')), result.operations, 'cut')];
    const last = found[Math.min(found.length - 1, stopAt)];
    if (!last) throw new Error('nothing was searched for');
    return last;
  };
  const idsOf = (made: JobRun) => made.operations[0]?.goes.map(({ go, way }) => `${partsOfGo(go).join()} ${way}`);

  test('is no worse than that of the files, whenever it is stopped, and is run as it was found', () => {
    for (const stopAt of [0, Infinity]) {
      const { found, before, after } = searched(job(), stopAt);
      expect(after).toBeLessThanOrEqual(before + 1e-9);
      const kept = run(keepOrder(job(), 'cut', found));
      expect(kept.operations[0]?.isKeptOrder).toBe(true);
      const from = kept.operations[0]?.goes[0]?.from ?? { x: NaN, y: NaN };
      expect(kept.operations[0]?.travelMm).toBeCloseTo(after - Math.hypot(from.x, from.y), 6);
    }
    expect(run(job()).operations[0]?.isKeptOrder).toBe(false);
  });

  test('holds in the order that is kept whatever that is, as long as nothing is changed', () => {
    const { found } = searched(job());
    const backwards = { ...found, order: [...found.order].reverse() };
    const kept = keepOrder(job(), 'cut', backwards);
    expect(idsOf(run(kept))).toEqual(idsOf(run(keepOrder(job(), 'cut', found)))?.reverse());
    // One that is moved is another thing to order.
    const moved = keepOrder(
      job({}, [...row.slice(0, 11), partOf([rectangle('r', 200, 150, 20, 20)], { id: 'p11', ...CUT })]),
      'cut',
      backwards,
    );
    expect(run(moved).operations[0]?.isKeptOrder).toBe(false);
    // And row by row, what was found for the least way says nothing.
    expect(run(orderBy(kept, 'cut', 'rows')).operations[0]?.isKeptOrder).toBe(false);
  });

  test('one that names things twice, or that are not there, is none', () => {
    const { found } = searched(job());
    for (const order of [found.order.map(() => 0), found.order.map((i) => i + 1), found.order.slice(1)])
      expect(run(keepOrder(job(), 'cut', { ...found, order })).operations[0]?.isKeptOrder).toBe(false);
    const ways = found.ways.map(() => 99);
    expect(run(keepOrder(job(), 'cut', { ...found, ways })).operations[0]?.isKeptOrder).toBe(false);
  });

  test('what lies in a piece still comes first, and pinned parts do', () => {
    const plate = partOf(
      [
        rectangle('rim', 150, 100, 290, 190),
        ...[0, 1, 2].map((i) => rectangle(`h${i}`, 60 + 30 * i, 170, 8, 8, { role: 'punch' })),
      ],
      { id: 'plate', ...CUT },
    );
    const both = job({ pinned: ['p7'] }, [plate, ...row]);
    const kept = run(keepOrder(both, 'cut', searched(both).found));
    expect(kept.operations[0]?.isKeptOrder).toBe(true);
    const parts = kept.operations[0]?.goes.flatMap(({ go }) => partsOfGo(go)) ?? [];
    expect([parts[0], parts[parts.length - 1]]).toEqual(['p7', 'plate']);
    expect(worksOnDropped(kept)).toBe(0);
    const bad = searched(both).found;
    const outFirst = { ...bad, order: [bad.order[bad.order.length - 1] as number, ...bad.order.slice(0, -1)] };
    expect(run(keepOrder(both, 'cut', outFirst)).operations[0]?.isKeptOrder).toBe(false);
  });
});
