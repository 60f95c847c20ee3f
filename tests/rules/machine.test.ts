/** What is found about the machine and its stock: what it can't do, what must not be done, what does not fit, holes too small. */
import { describe, expect, test } from 'vitest';
import { setMachine, setStockFrom, typeSetting, typeTool } from '../../src/core/commands/shop';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { mendingOf } from '../../src/core/rules/mend';
import type { Seen } from '../../src/core/rules/rule';
import { startingShop } from '../../src/core/shop/starting';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const SHOP = startingShop();
const evaluator = new Evaluator(wasmEngine);
const found = (job: Job, ...codes: string[]) =>
  evaluator.evaluate(job, faces).findings.filter((f) => codes.includes(f.code));
const plate = (id: string, what: string, operation: string, members: Draft[] = []): Draft =>
  partOf([{ id: 'r', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 120, height: 60 }, ...members], {
    id,
    work: [{ what, operation }],
    placement: { x: 150, y: 100 },
  });
const on = (job: Job, id: string): Job => {
  const machine = SHOP.machines.find((m) => m.id === id);
  if (!machine) throw new Error(id);
  return setMachine(job, { ...machine.entry, id }, SHOP);
};
const cut = (...members: Draft[]) => jobWith([plate('p', 'outline', 'cut', members)]);
const NOTHING_SEEN: Seen = {
  middleOf: () => ({ x: 0, y: 0 }),
  capHeightOf: () => undefined,
  bridgesOf: () => ({ pinned: [], islands: [] }) as never,
};

test('vinyl under a laser, and zinc under plasma, are a fault, said with why; under a knife or water they are not', () => {
  const of = (machine: string, material: string) =>
    found(setStockFrom(on(cut(), machine), { material }, SHOP), 'must-not');
  expect(of('laser', 'Vinyl film').map((f) => [f.severity, f.sentence])).toEqual([
    [
      'fault',
      'Vinyl film must not be worked by laser. It gives off chlorine, which harms people and eats the machine.',
    ],
  ]);
  expect(of('plasma', 'Galvanised steel')).toHaveLength(1);
  expect(of('knife', 'Vinyl film')).toEqual([]);
  expect(of('plasma', 'Mild steel')).toEqual([]);
  // Without a machine, by how the stock is said to be cut.
  const bare = setStockFrom(cut(), { material: 'Vinyl film', process: 'laser' }, SHOP);
  expect(found(bare, 'must-not')).toHaveLength(1);
  expect(found({ ...bare, parts: [] }, 'must-not')).toEqual([]);
});

test('an operation the machine can’t do is a fault, and is switched off in one press', () => {
  const job = on(jobWith([plate('p', 'fill', 'engrave')]), 'plasma');
  const [finding, ...more] = found(job, 'machine-can-not');
  expect(more).toEqual([]);
  expect(finding?.sentence).toBe('Plasma table can’t do Engrave: it can mark and cut, not engrave.');
  const mending = finding && mendingOf(job, finding);
  if (!mending || !('run' in mending)) throw new Error('no mend');
  const after = mending.run(job, NOTHING_SEEN);
  expect(after.operations.find((o) => o.id === 'engrave')?.on).toBe(false);
  expect(found(after, 'machine-can-not')).toEqual([]);
  expect(found(on(job, 'laser'), 'machine-can-not')).toEqual([]);
});

test('work that is larger than the bed is a fault; it is said when it would fit turned', () => {
  const bed = (job: Job, width: number, height: number) =>
    found({ ...job, machine: job.machine && { ...job.machine, bed: { width, height } } }, 'off-bed').map(
      (f) => f.sentence,
    );
  const job = on(cut(), 'laser');
  expect(bed(job, 120, 60)).toEqual([]);
  expect(bed(job, 119, 90)).toEqual(['The work is 120 mm × 60 mm: the bed of Laser is 119 mm × 90 mm.']);
  expect(bed(job, 60, 200)).toEqual([
    'The work is 120 mm × 60 mm: the bed of Laser is 60 mm × 200 mm. Turned by a quarter it would fit.',
  ]);
});

test('a speed that the machine does not run at is named', () => {
  const job = setStockFrom(on(cut(), 'laser'), { material: 'Birch plywood', thickness: 3 }, SHOP);
  const at = (speed: number) => found(typeSetting(job, 'cut', 'speed', speed), 'machine-speed').map((f) => f.sentence);
  expect(at(600)).toEqual([]);
  expect(at(601)).toEqual(['Cut is set to 601 mm/s: Laser goes no faster than 600 mm/s.']);
  expect(at(0.05)).toEqual(['Cut is set to 0.05 mm/s: Laser runs no slower than 0.1 mm/s.']);
});

test('what the chart says nothing of is noted, unless something was typed', () => {
  const job = setStockFrom(on(cut(), 'laser'), { material: 'Birch plywood', thickness: 25 }, SHOP);
  expect(found(job, 'not-in-chart').map((f) => f.sentence)).toEqual([
    'The cut chart of Laser says nothing of Cut in 25 mm Birch plywood.',
  ]);
  expect(found(typeSetting(job, 'cut', 'speed', 5), 'not-in-chart')).toEqual([]);
  expect(found(setStockFrom(job, { thickness: 3 }, SHOP), 'not-in-chart')).toEqual([]);
});

test('a tool wider than the strokes it goes over is told, by the width that the shop has of it', () => {
  const words = (mm: number) =>
    setStockFrom(
      on(
        jobWith([
          partOf([lettering('Bay', 'Poppins', { size: { by: 'capital', mm } })], {
            work: [{ what: 'fill', operation: 'engrave' }],
            placement: { x: 100, y: 100 },
          }),
        ]),
        'router',
      ),
      { material: 'MDF', thickness: 6 },
      SHOP,
    );
  expect(found(words(40), 'tool-over-stroke')).toEqual([]);
  expect(found(words(4), 'tool-over-stroke').map((f) => f.sentence)).toEqual([
    expect.stringMatching(/^The tool of Engrave works 1 mm wide: strokes of “Bay” are about 0\.\d+ mm wide, and/),
  ]);
  const wide = typeTool(words(12), 'engrave', 'End mill 3', SHOP);
  expect(found(wide, 'tool-over-stroke')).toHaveLength(1);
});

describe('holes', () => {
  const hole = (id: string, d: number, x: number): Draft => ({
    id,
    kind: 'ellipse',
    role: 'punch',
    placement: { x, y: 0 },
    width: d,
    height: d,
  });
  const steel = (thickness: number, machine: string) =>
    setStockFrom(
      on(cut(hole('a', 1, -30), hole('b', 2.5, 0), hole('c', 9, 30)), machine),
      { material: 'Mild steel', thickness },
      SHOP,
    );

  test('narrower than a cut are a fault, smaller than the stock is thick a caution, under plasma alone', () => {
    const of = (job: Job) => found(job, 'hole-under-kerf', 'hole-under-thickness').map((f) => [f.code, f.box?.maxX]);
    const plasma = of(steel(3, 'plasma'));
    expect(plasma.map(([code]) => code)).toEqual(['hole-under-kerf', 'hole-under-thickness']);
    expect(of(steel(3, 'laser')).map(([code]) => code)).toEqual([]);
    expect(of(steel(1.52, 'plasma')).map(([code]) => code)).toEqual(['hole-under-kerf']);
    // Another machine of the same document is looked at anew.
    expect(of(on(steel(3, 'plasma'), 'laser')).length).toBe(0);
  });

  test('a long slot is as wide as it is narrow', () => {
    const slot = { id: 's', kind: 'rectangle', role: 'punch', placement: { x: 0, y: 0 }, width: 60, height: 0.8 };
    const job = setStockFrom(on(cut(slot), 'plasma'), { material: 'Mild steel', thickness: 3 }, SHOP);
    expect(found(job, 'hole-under-kerf').map((f) => f.sentence)).toEqual([
      'A hole is 0.8 mm wide and a cut takes 1.2 mm: it comes out larger.',
    ]);
  });
});
