/** Limits of the shop, by their names. */
import { expect } from 'vitest';
import { placeStart } from '../../src/core/commands/cut-places';
import { addSheet } from '../../src/core/commands/sheets';
import { partSchema } from '../../src/core/document/part';
import { jobSchema } from '../../src/core/document/schema';
import { workSchema } from '../../src/core/kinds/works';
import { LIMITS } from '../../src/core/limits';
import { tabPlaceSchema } from '../../src/core/schema/cut-places';
import { operationSchema } from '../../src/core/schema/operations';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { materialSchema } from '../../src/core/schema/shop/material';
import { settingsSchema } from '../../src/core/schema/shop/settings';
import { shopSchema } from '../../src/core/schema/shop/shop';
import { readShopText } from '../../src/core/shop/exchange';
import { createJob } from '../../src/server/jobs';
import { bringInShop, keepEntry, openShop, usersOfEntry } from '../../src/server/shop';
import { jobWith } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };

const laser = (more: object = {}) => machineSchema.safeParse({ name: 'Laser', kind: 'laser', ...more }).success;
const ply = (more: object) =>
  materialSchema.safeParse({
    name: 'Ply',
    leastWidthMm: 1,
    leastPerThickness: 0,
    process: 'laser',
    kerfsMm: {},
    ...more,
  }).success;

export const SHOP_LIMITS = {
  speedLeastMmS: () => {
    const slow = (slowest: number) => laser({ slowest });
    expect([slow(LIMITS.speedLeastMmS), slow(LIMITS.speedLeastMmS / 2)]).toEqual([true, false]);
  },
  speedMostMmS: () => {
    const fast = (speed: number) => settingsSchema.safeParse({ speed }).success;
    expect([fast(LIMITS.speedMostMmS), fast(LIMITS.speedMostMmS + 1)]).toEqual([true, false]);
  },
  machineSegments: () => {
    const takes = (mostSegments: number) => laser({ file: { mostSegments } });
    expect([takes(LIMITS.machineSegments), takes(LIMITS.machineSegments + 1)]).toEqual([true, false]);
  },
  thicknesses: () => {
    const has = (n: number) => ply({ thicknesses: Array(n).fill({ mm: 3 }) });
    expect([has(LIMITS.thicknesses), has(LIMITS.thicknesses + 1)]).toEqual([true, false]);
  },
  sheetSizes: () => {
    const has = (n: number) => ply({ sheets: Array(n).fill({ width: 600, height: 400 }) });
    expect([has(LIMITS.sheetSizes), has(LIMITS.sheetSizes + 1)]).toEqual([true, false]);
  },
  refusals: () => {
    const has = (n: number) => ply({ refuses: Array(n).fill({ process: 'laser', why: 'fumes' }) });
    expect([has(LIMITS.refusals), has(LIMITS.refusals + 1)]).toEqual([true, false]);
  },
  passes: () => {
    const has = (passes: number) => settingsSchema.safeParse({ passes }).success;
    expect([has(LIMITS.passes), has(LIMITS.passes + 1)]).toEqual([true, false]);
  },
  leadMm: () => {
    const led = (out: number) => operationSchema.safeParse({ id: 'a', name: 'A', kind: 'cut', lead: { out } }).success;
    expect([led(LIMITS.leadMm), led(LIMITS.leadMm + 1)]).toEqual([true, false]);
  },
  sheets: () => {
    let job = jobWith([]);
    for (let i = 1; i < LIMITS.sheets; i++) job = addSheet(job).job;
    expect(job.otherSheets).toHaveLength(LIMITS.sheets - 1);
    expect(addSheet(job).job).toBe(job);
    expect(jobSchema.safeParse(job).success).toBe(true);
    const { sheet } = job;
    const more = { id: 'more', name: '', sheet, machine: null, settings: {} };
    expect(jobSchema.safeParse({ ...job, otherSheets: [...job.otherSheets, more] }).success).toBe(false);
  },
  lettersAlone: () => {
    const alone = (count: number) =>
      workSchema.safeParse({ what: 'fill', operation: 'a', only: { letters: Array(count).fill('m:0') } }).success;
    expect([alone(LIMITS.lettersAlone), alone(LIMITS.lettersAlone + 1)]).toEqual([true, false]);
  },
  tabMm: () => {
    const held = (width: number) =>
      operationSchema.safeParse({ id: 'a', name: 'A', kind: 'cut', tabs: { width } }).success;
    expect([held(LIMITS.tabMm), held(LIMITS.tabMm + 1)]).toEqual([true, false]);
    const placed = (width: number) => tabPlaceSchema.safeParse({ letter: 'm:0', x: 0, y: 0, width }).success;
    expect([placed(LIMITS.tabMm), placed(LIMITS.tabMm + 1)]).toEqual([true, false]);
  },
  tabsOfOutline: () => {
    const held = (count: number) =>
      operationSchema.safeParse({ id: 'a', name: 'A', kind: 'cut', tabs: { count } }).success;
    expect([held(LIMITS.tabsOfOutline), held(LIMITS.tabsOfOutline + 1)]).toEqual([true, false]);
  },
  cutPlaces: () => {
    const place = { letter: 'm:0', x: 0, y: 0 };
    const having = (key: 'starts' | 'tabs' | 'sides', count: number) =>
      partSchema.safeParse({
        id: 'p',
        placement: { x: 0, y: 0 },
        members: [],
        [key]: Array(count).fill(key === 'sides' ? { ...place, side: 'line' } : place),
      });
    for (const key of ['starts', 'tabs', 'sides'] as const)
      expect([having(key, LIMITS.cutPlaces), having(key, LIMITS.cutPlaces + 1)].map((r) => r.success)).toEqual([
        true,
        false,
      ]);
    // A full part takes no more, and loses nothing.
    const full = jobWith([{ id: 'p', members: [], starts: Array(LIMITS.cutPlaces).fill(place) }]);
    expect(placeStart(full, 'p', place, null)).toBe(full);
  },
  shopBytes: () => {
    expect(readShopText(' '.repeat(LIMITS.shopBytes + 1))).toMatchObject({
      ok: false,
      sentence: 'This file is larger than the 4 MB that a shop can have.',
    });
    expect(readShopText(' '.repeat(LIMITS.shopBytes))).toMatchObject({ sentence: expect.stringContaining('not JSON') });
  },
  shopEntries: async () => {
    const { db, close } = await ownDatabase('shop_limits');
    try {
      const { tools } = await openShop(db);
      limits.shopEntries = tools.length + 1;
      const entry = tools[0]?.entry as (typeof tools)[number]['entry'];
      expect(await keepEntry(db, 'tools', 'one', { version: null, entry })).toEqual({ version: 1 });
      expect(await keepEntry(db, 'tools', 'two', { version: null, entry })).toBe('full');
      const more = shopSchema.parse({ tools: [{ id: 'two', entry }] });
      expect(await bringInShop(db, more)).toBe('full');
      expect((await openShop(db)).tools).toHaveLength(tools.length + 1);
    } finally {
      await close();
    }
  },
  shopUsers: async () => {
    const { db, close } = await ownDatabase('shop_users');
    try {
      await openShop(db);
      for (const title of ['a', 'b', 'c'])
        await createJob(
          db,
          { ...jobWith([]), title, sheet: { ...jobWith([]).sheet, material: 'Cork' } },
          { picture: null, openFindings: 0 },
        );
      limits.shopUsers = 2;
      expect(await usersOfEntry(db, 'materials', 'cork')).toHaveLength(2);
      limits.shopUsers = 3;
      expect(await usersOfEntry(db, 'materials', 'cork')).toHaveLength(3);
    } finally {
      await close();
    }
  },
};
