/** The shop: what cut charts say, between their rows and beyond; what a shop begins with; shops as files. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { LIMITS } from '../../src/core/limits';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { NO_SETTINGS, type Settings } from '../../src/core/schema/shop/settings';
import { type ChartRow, chartRowSchema, type Kept, SHELF_NAMES } from '../../src/core/schema/shop/shop';
import { doneBy, processOf } from '../../src/core/shop/can';
import { chartedFor, chartedThicknesses, NOT_CHARTED } from '../../src/core/shop/charted';
import { readEntry, readShop, readShopText, writeShop } from '../../src/core/shop/exchange';
import { inForce, settingsOn, sourceOf } from '../../src/core/shop/in-force';
import { startingShop } from '../../src/core/shop/starting';
import { formatSetting, settingsUsed } from '../../src/core/shop/words';

const row = (thickness: number | null, settings: Partial<Settings>, more: Partial<ChartRow> = {}): Kept<ChartRow> => ({
  id: `r${thickness}`,
  entry: chartRowSchema.parse({ machine: 'laser', material: 'ply', kind: 'cut', thickness, settings, ...more }),
});
const CUT = { machine: 'laser', material: 'ply', kind: 'cut' } as const;
const CHART = [
  row(6, { speed: 10, power: 80, passes: 2, kerf: 0.3, gas: 'air', tool: 'b' }, { tried: true }),
  row(3, { speed: 20, power: 60, passes: 1, kerf: 0.2, gas: 'none', tool: 'a' }, { tried: true }),
];
const said = (thickness: number | null, chart = CHART) => chartedFor(chart, { ...CUT, thickness });

describe('what a cut chart says', () => {
  test('a row, as it is, and whether it was tried', () => {
    expect(said(3)).toEqual({ charted: CHART[1]?.entry.settings, from: 'row', tried: true });
    expect(said(3.004).from).toBe('row');
  });

  test('between two rows speed by a power law, passes rounded up, the rest in proportion; it was never tried', () => {
    const { charted, from, tried } = said(4);
    expect([from, tried]).toEqual(['between', false]);
    // Half the speed for twice the thickness: speed times thickness is the same throughout.
    expect(charted?.speed).toBeCloseTo(15, 2);
    expect(charted).toMatchObject({ power: 66.67, passes: 2, kerf: 0.2333, gas: 'air', tool: 'b', current: null });
  });

  test('never beyond its rows, nor for another machine, material or kind', () => {
    for (const thickness of [2.9, 6.1, null]) expect(said(thickness)).toBe(NOT_CHARTED);
    for (const other of [{ machine: 'x' }, { material: 'x' }, { kind: 'score' as const }])
      expect(chartedFor(CHART, { ...CUT, thickness: 3, ...other })).toBe(NOT_CHARTED);
    expect(said(3, [])).toBe(NOT_CHARTED);
  });

  test('a row for any thickness where there is none of its own', () => {
    const chart = [...CHART, row(null, { speed: 5 })];
    expect([3, 4, 9, null].map((mm) => said(mm, chart).charted?.speed)).toEqual([20, 15, 5, 5]);
    expect(chartedThicknesses(chart, CUT)).toEqual([3, 6]);
  });

  test('between two rows every setting lies between theirs', () => {
    const speed = fc.double({ min: 0.1, max: 1000, noNaN: true });
    const passes = fc.integer({ min: 1, max: 9 });
    fc.assert(
      fc.property(speed, speed, passes, passes, fc.double({ min: 3.01, max: 5.99, noNaN: true }), (a, b, m, n, mm) => {
        const { charted } = said(mm, [
          row(3, { speed: a, passes: m, kerf: 0.1 }),
          row(6, { speed: b, passes: n, kerf: 0.4 }),
        ]);
        const between = (value: number | null | undefined, p: number, q: number) => {
          expect(value).toBeGreaterThanOrEqual(Math.min(p, q) * 0.999);
          expect(value).toBeLessThanOrEqual(Math.max(p, q) * 1.001);
        };
        between(charted?.speed, a, b);
        between(charted?.passes, m, n);
        between(charted?.kerf, 0.1, 0.4);
        expect(Number.isInteger(charted?.passes)).toBe(true);
      }),
    );
  });
});

describe('the settings in force', () => {
  const settings = {
    charted: { ...NO_SETTINGS, speed: 20, power: 60, kerf: 0.2 },
    from: 'between',
    tried: false,
    toolWidth: null,
    typed: { speed: 8 },
  } as const;
  const stock = (kerf: number | null, kerfFrom: 'material' | 'typed' | null) => ({ kerf, kerfFrom });
  test('are those typed, else those of the chart, each with where it comes from', () => {
    expect(inForce(settings)).toEqual({ ...NO_SETTINGS, speed: 8, power: 60, kerf: 0.2 });
    const from = (which: 'speed' | 'power' | 'gas') =>
      sourceOf({ kind: 'cut', settings }, stock(0.2, 'material'), which);
    expect((['speed', 'power', 'gas'] as const).map(from)).toEqual(['typed', 'between', null]);
    expect(inForce({ charted: null, typed: {} })).toEqual(NO_SETTINGS);
  });
  test.each([
    ['the chart’s where that of the stock follows', stock(0.3, 'material'), {}, 0.2, 'between'],
    ['that of the stock where it was typed', stock(0.35, 'typed'), {}, 0.35, 'stock'],
    ['that of the stock where nobody knows', stock(0.35, null), {}, 0.35, 'stock'],
    ['the chart’s where the stock has none', stock(null, null), {}, 0.2, 'between'],
    ['what was typed for the operation before all', stock(0.35, 'typed'), { kerf: 0.5 }, 0.5, 'typed'],
  ])('of kerfs it is %s', (_, sheet, typed, kerf, from) => {
    const operation = { kind: 'cut', settings: { ...settings, typed } } as const;
    expect(settingsOn(operation, sheet).kerf).toBe(kerf);
    expect(sourceOf(operation, sheet, 'kerf')).toBe(from);
    // What is marked takes nothing away.
    const marked = {
      kind: 'mark',
      settings: { charted: null, from: null, tried: false, toolWidth: null, typed: {} },
    } as const;
    expect(sourceOf(marked, sheet, 'kerf')).toBeNull();
  });
  test('are shown in the unit of the job', () => {
    expect(formatSetting('speed', 25.4, 'mm')).toBe('25.4 mm/s');
    expect(formatSetting('speed', 25.4, 'in')).toBe('60 in/min');
    expect(formatSetting('kerf', 0.2, 'mm')).toBe('0.2 mm');
    expect(formatSetting('gas', null, 'mm')).toBe('–');
    expect(formatSetting('passes', 3, 'mm')).toBe('3');
  });
});

describe('what a shop begins with', () => {
  const shop = startingShop();

  test('six machines and ten materials at least, none of it tried', () => {
    expect(shop.machines.length).toBeGreaterThanOrEqual(6);
    expect(shop.materials.length).toBeGreaterThanOrEqual(10);
    expect(shop.chart.every(({ entry }) => !entry.tried)).toBe(true);
    for (const shelf of SHELF_NAMES) {
      const ids = shop[shelf].map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
      for (const { entry } of shop[shelf]) expect(readEntry(shelf, entry)).toEqual({ ok: true, entry });
    }
  });

  test('every machine has all settings for each kind of operation it can do, in every material it takes and every thickness', () => {
    for (const { id: machine, entry } of shop.machines) {
      const taken = new Set(shop.chart.filter((r) => r.entry.machine === machine).map((r) => r.entry.material));
      expect(taken.size, entry.name).toBeGreaterThan(2);
      for (const { id: material, entry: stock } of shop.materials) {
        const process = processOf(entry);
        // Cut by it means it is in the chart; what must not be done never is.
        if (process)
          expect(taken.has(material), `${entry.name} ${stock.name}`).toBe(stock.kerfsMm[process] !== undefined);
        if (stock.refuses.some((r) => r.process === process)) expect(taken.has(material)).toBe(false);
        if (!taken.has(material)) continue;
        for (const kind of doneBy(entry.kind))
          for (const { mm } of stock.thicknesses) {
            const { charted } = chartedFor(shop.chart, { machine, material, thickness: mm, kind });
            for (const which of settingsUsed(entry.kind, kind)) {
              if (which === 'lastPass' || (which === 'depth' && kind === 'mark')) continue;
              expect(charted?.[which] ?? null, `${entry.name} ${stock.name} ${mm} ${kind} ${which}`).not.toBeNull();
            }
            expect(charted?.speed as number).toBeLessThanOrEqual(Math.min(entry.speed.x, entry.speed.y));
            expect(charted?.speed as number).toBeGreaterThanOrEqual(entry.slowest);
            const tool = charted?.tool ?? '';
            if (tool !== '') expect(shop.tools.map((t) => t.entry.name)).toContain(tool);
          }
      }
    }
  });

  test('vinyl and polycarbonate are not for a laser, zinc is not for plasma', () => {
    const refused = (id: string) => shop.materials.find((m) => m.id === id)?.entry.refuses.map((r) => r.process);
    expect(refused('vinyl-film')).toEqual(['laser']);
    expect(refused('polycarbonate')).toEqual(['laser']);
    expect(refused('galvanised-steel')).toContain('plasma');
  });
});

describe('a shop as a file', () => {
  test('is read as it was written', () => {
    const shop = startingShop();
    expect(readShopText(writeShop(shop))).toEqual({ ok: true, shop });
  });

  test.each([
    ['{', 'There is no shop in this file: it is not JSON.'],
    ['[]', 'There is no shop in this file. One is written by “Take along” on the Shop screen.'],
    [
      '{"is":"needlefile shop","format":2}',
      'This shop was written in format 2; this Needlefile reads format 1. Nothing was changed.',
    ],
    [
      '{"is":"needlefile shop","format":1,"machines":[{"id":"a","entry":{"name":"A","kind":"lathe"}}]}',
      expect.stringContaining('machines[0].entry.kind must be “laser”'),
    ],
    [
      '{"is":"needlefile shop","format":1,"tools":[{"id":"a","entry":{"name":"A"}},{"id":"a","entry":{"name":"B"}}]}',
      'The id “a” is used twice among its tools.',
    ],
    ['{"is":"needlefile shop","format":1,"lathes":[]}', 'The shop has “lathes”, which a shop does not know.'],
  ])('%s is answered in a sentence', (text, sentence) => {
    expect(readShopText(text)).toEqual({ ok: false, sentence });
  });

  test('whatever it holds, it is read or answered', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const read = readShop({ is: 'needlefile shop', format: 1, machines: value });
        expect(read.ok || read.sentence.length > 0).toBe(true);
      }),
    );
  });

  test('values out of bounds are named', () => {
    const machine = { ...machineSchema.parse({ name: 'A', kind: 'laser' }), idleSpeed: LIMITS.speedMostMmS * 2 };
    expect(readEntry('machines', machine)).toEqual({ ok: false, sentence: 'idleSpeed must be at most 100000.' });
    expect(readEntry('machines', { ...machine, idleSpeed: 10, name: ' ' })).toMatchObject({
      sentence: 'name is empty.',
    });
  });
});
