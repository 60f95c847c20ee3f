/** What a job costs: stock, time and pierces, each only where it is said to cost something; what follows the material. */
import { expect, test } from 'vitest';
import { payFor, setMachinePrice } from '../../src/core/commands/price';
import { setOfStock, setStock } from '../../src/core/commands/stock';
import { priceOf } from '../../src/core/document/material';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { priceOfRun } from '../../src/core/job/price';
import { reportOf } from '../../src/core/job/report';
import { finished } from '../../src/core/memo';
import { materialSchema } from '../../src/core/schema/shop/material';
import { formatPrice } from '../../src/core/units/price';
import { faces, wasmEngine } from '../support/faces';
import { jobWith, partOf, rectangle } from '../support/jobs';

const plates = [0, 1].map((i) =>
  partOf([rectangle('r', 100, 50, { placement: { x: 60 + 120 * i, y: 50 } })], {
    id: `p${i}`,
    work: [{ what: 'outline', operation: 'cut' }],
  }),
);
const job = (machine: object | null, sheet: object = {}): Job =>
  jobWith(plates, {
    machine: machine && { id: 'm', name: 'M', kind: 'plasma', pierceSeconds: 1, ...machine },
    sheet: { width: 400, height: 200, ...sheet },
    operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 10 } } }],
  });
const price = (of: Job) => {
  const result = new Evaluator(wasmEngine).evaluate(of, faces);
  const run = finished(result.run('quick'));
  return { made: priceOfRun(of, result.workBox, run), seconds: run.seconds };
};

test('nothing is said to cost anything: no price', () => {
  expect(price(job({})).made).toBeNull();
  expect(price(job(null)).made).toBeNull();
  // And what costs 0 is not reckoned, though it was typed.
  expect(price(job({ hourPrice: 0 }, { price: 0, priceFrom: 'typed' })).made).toBeNull();
  expect(price(job({ hourPrice: 10 }, { price: 0 })).made).toMatchObject({ stock: null, piercing: null });
});

test('stock within the bounds of the work or the whole sheet, time by the hour, each pierce', () => {
  const { made, seconds } = price(job({ hourPrice: 90, piercePrice: 0.25 }, { price: 40 }));
  // From 10 to 230 mm across, 50 mm high.
  expect(made?.stockMm2).toBeCloseTo(220 * 50, 6);
  expect(made?.stock).toBeCloseTo(40 * 0.011, 9);
  expect(made?.time).toBeCloseTo((90 * seconds) / 3600, 9);
  expect([made?.pierces, made?.piercing]).toEqual([2, 0.5]);
  expect(made?.total).toBeCloseTo((made?.stock ?? 0) + (made?.time ?? 0) + 0.5, 9);
  const whole = price(payFor(job({}, { price: 40 }), 'whole')).made;
  expect(whole).toMatchObject({ stockMm2: 80_000, time: null, piercing: null });
  expect(whole?.total).toBeCloseTo(3.2, 9);
});

test('it is typed for the job, and let go', () => {
  const typed = setMachinePrice(setMachinePrice(job({}), 'hourPrice', 60), 'piercePrice', 1);
  expect(typed.machine).toMatchObject({ hourPrice: 60, piercePrice: 1 });
  expect(setMachinePrice(typed, 'hourPrice', null).machine?.hourPrice).toBeNull();
  expect(setMachinePrice(typed, 'hourPrice', -5).machine?.hourPrice).toBe(0);
  const bare = job(null);
  expect(setMachinePrice(bare, 'hourPrice', 5)).toBe(bare);
});

test('the price of stock comes with its material and thickness, unless it was typed', () => {
  const ply = materialSchema.parse({
    name: 'Birch plywood',
    leastWidthMm: 2,
    leastPerThickness: 1,
    process: 'laser',
    kerfsMm: { laser: 0.2 },
    thicknesses: [{ mm: 3, price: 24 }, { mm: 6, price: 41 }, { mm: 9 }],
  });
  expect([3, 6, 9, 4, null].map((mm) => priceOf(ply, mm))).toEqual([24, 41, null, null, null]);
  const of = (mm: number, from = job({})) => setStock(from, { material: 'Birch plywood', thickness: mm }, [ply]);
  expect(of(3).sheet).toMatchObject({ price: 24, priceFrom: 'material' });
  expect(of(6, of(3)).sheet.price).toBe(41);
  const typed = setOfStock(of(3), 'price', 30, [ply]);
  expect(of(6, typed).sheet).toMatchObject({ price: 30, priceFrom: 'typed' });
  expect(setOfStock(of(3), 'price', 0, [ply]).sheet).toMatchObject({ price: 0, priceFrom: 'typed' });
  expect(setOfStock(typed, 'price', null, [ply]).sheet).toMatchObject({ price: 24, priceFrom: 'material' });
});

test('the report tells it, and amounts are written with two figures', () => {
  const of = job({ piercePrice: 0.25 });
  expect(reportOf(of, new Evaluator(wasmEngine).evaluate(of, faces)).price).toEqual({
    total: 0.5,
    stock: null,
    stockMm2: 11_000,
    time: null,
    pierces: 2,
    piercing: 0.5,
  });
  expect([0, 3.456, 1250].map(formatPrice)).toEqual(['0.00', '3.46', '1,250.00']);
});
