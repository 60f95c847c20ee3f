/** The stock: what follows the material, what stays as it was typed, and the names materials go by. */
import { describe, expect, test } from 'vitest';
import { followsMaterial, saidOf, setOfStock, setStock } from '../../src/core/commands/stock';
import { leastWidthOf, materialNamed } from '../../src/core/document/material';
import type { Job } from '../../src/core/document/schema';
import { type Material, materialSchema } from '../../src/core/schema/shop/material';
import { jobWith } from '../support/jobs';

const material = (name: string, more: Partial<Material> = {}): Material =>
  materialSchema.parse({
    name,
    leastWidthMm: 1.2,
    leastPerThickness: 0.5,
    process: 'laser',
    kerfsMm: { laser: 0.2, router: 3 },
    ...more,
  });
const PLY = material('Birch plywood');
const STEEL = material('Mild steel', {
  leastWidthMm: 1.5,
  leastPerThickness: 1,
  process: 'plasma',
  kerfsMm: { plasma: 1.2, laser: 0.3 },
});
const KNOWN = [
  PLY,
  STEEL,
  material('Stainless steel'),
  material('Hardwood'),
  material('Aluminium'),
  material('Acrylic'),
  material('MDF'),
];
const empty = jobWith([]);
const set = (job: Job, stock: Parameters<typeof setStock>[1]) => setStock(job, stock, KNOWN);

test('the least width is a length or a share of the thickness, whichever is more', () => {
  expect([6, 1, null].map((mm) => leastWidthOf(PLY, mm))).toEqual([3, 1.2, 1.2]);
});

describe('a material', () => {
  test.each([
    [' birch PLYWOOD ', 'Birch plywood'],
    ['Plywood', 'Birch plywood'],
    ['birch-ply, 4 mm', 'Birch plywood'],
    ['steel', 'Mild steel'],
    ['Steel, mild', 'Mild steel'],
    ['brushed stainless', 'Stainless steel'],
    ['Stainless Steel 304', 'Stainless steel'],
    ['steel, stainless', 'Stainless steel'],
    ['aluminum', 'Aluminium'],
    ['Oak', 'Hardwood'],
    ['oak plywood', 'Birch plywood'],
    ['clear acrylic', 'Acrylic'],
    ['hdf', 'MDF'],
  ])('%s is %s', (typed, name) => expect(materialNamed(typed, KNOWN)?.name).toBe(name));

  test.each(['', '  ', '12', 'gingerbread', 'constructor', 'woodpecker'])('%s is none that is known', (typed) =>
    expect(materialNamed(typed, KNOWN)).toBeUndefined(),
  );

  test('of the shop’s own goes before what words stand for elsewhere', () => {
    const own = material('Oak');
    expect(materialNamed('smoked oak', [...KNOWN, own])).toBe(own);
    expect(materialNamed('steel', [PLY])).toBeUndefined();
  });
});

describe('what is safe, and the kerf', () => {
  test('follow the material, the thickness and the way it is cut', () => {
    const steel = set(empty, { material: 'steel', thickness: 3 });
    expect(steel.sheet).toMatchObject({ leastWidth: 3, kerf: 1.2, leastWidthFrom: 'material', kerfFrom: 'material' });
    expect(set(steel, { thickness: 5 }).sheet).toMatchObject({ leastWidth: 5, kerf: 1.2 });
    expect(set(steel, { process: 'laser' }).sheet).toMatchObject({ leastWidth: 3, kerf: 0.3 });
    expect(set(steel, { material: 'ply' }).sheet).toMatchObject({ leastWidth: 1.5, kerf: 0.2 });
  });

  test('of another material are not left behind by one that is not known, nor by a way it is not cut', () => {
    const steel = set(empty, { material: 'steel', thickness: 3 });
    expect(set(steel, { material: 'gingerbread' }).sheet).toMatchObject({ leastWidth: null, kerf: null });
    expect(set(steel, { process: 'knife' }).sheet).toMatchObject({ leastWidth: 3, kerf: null });
  });

  test('wait for the list of materials', () => {
    const steel = set(empty, { material: 'steel', thickness: 3 });
    expect(setStock(steel, { material: 'ply' }, []).sheet).toMatchObject({ material: 'ply', leastWidth: 3, kerf: 1.2 });
  });

  test('stay as they were typed, each by itself, until the material is to say it again', () => {
    const typed = setOfStock(set(empty, { material: 'steel', thickness: 3 }), 'kerf', 1.7, KNOWN);
    expect(typed.sheet.kerfFrom).toBe('typed');
    const ply = set(typed, { material: 'plywood', thickness: 6 });
    expect(ply.sheet).toMatchObject({ leastWidth: 3, kerf: 1.7 });
    expect(setOfStock(ply, 'kerf', null, KNOWN).sheet).toMatchObject({ kerf: 0.2, kerfFrom: 'material' });
  });

  test('of jobs from before follow where they are what the material says, and stay where they are not', () => {
    const before = (kerf: number | null) =>
      jobWith([], { sheet: { width: 300, height: 200, material: 'Mild steel', thickness: 3, leastWidth: 3, kerf } });
    expect(followsMaterial(before(1.2).sheet, 'kerf', KNOWN)).toBe(true);
    expect(followsMaterial(before(null).sheet, 'kerf', KNOWN)).toBe(true);
    expect(followsMaterial(before(1.5).sheet, 'kerf', KNOWN)).toBe(false);
    expect(set(before(1.5), { material: 'ply' }).sheet).toMatchObject({ leastWidth: 1.5, kerf: 1.5 });
  });

  test('are said of a sheet as far as they are known', () => {
    expect(saidOf({ material: 'steel', thickness: null, process: null }, KNOWN)).toEqual({
      material: STEEL,
      leastWidth: 1.5,
      kerf: 1.2,
      price: null,
    });
    expect(saidOf({ material: 'tin', thickness: 1, process: 'laser' }, KNOWN)).toEqual({
      material: null,
      leastWidth: null,
      kerf: null,
      price: null,
    });
  });
});
