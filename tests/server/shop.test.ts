/** The shop in the database: first values, changes against versions, removing and bringing back, shops brought in, who uses what. */
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { keptShopSchema, shopSchema } from '../../src/core/schema/shop/shop';
import { startingShop } from '../../src/core/shop/starting';
import type { Database } from '../../src/server/database';
import { createJob } from '../../src/server/jobs';
import { jobs, settings, shopEntries } from '../../src/server/schema';
import { bringInShop, keepEntry, openShop, setEntryRemoved, usersOfEntry } from '../../src/server/shop';
import { jobWith } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

let db: Database;
let close: () => Promise<void>;
beforeAll(async () => {
  ({ db, close } = await ownDatabase('shop'));
});
afterAll(() => close());
beforeEach(async () => {
  await Promise.all([db.delete(jobs), db.delete(shopEntries), db.delete(settings)]);
});

const LASER = machineSchema.parse({ name: 'Large laser', kind: 'laser' });
const NO_EXTRAS = { picture: null, openFindings: 0 };
const named = (list: readonly { entry: { name: string } }[]) => list.map((m) => m.entry.name);

test('first values come once, sorted by name, and what is removed stays away', async () => {
  const [shop, again] = await Promise.all([openShop(db), openShop(db)]);
  expect(again).toEqual(shop);
  const start = startingShop();
  expect(named(shop.machines)).toEqual(named(start.machines).sort((a, b) => a.localeCompare(b, 'en')));
  expect(shop.chart).toHaveLength(start.chart.length);
  expect(shop.materials.find((m) => m.id === 'birch-plywood')).toEqual({ ...start.materials[0], version: 1 });
  expect(keptShopSchema.safeParse(shop).success).toBe(true);
  await setEntryRemoved(db, 'machines', 'knife', true);
  expect(named((await openShop(db)).machines)).not.toContain('Knife');
});

test('a change names the version it was made from; an older one changes nothing', async () => {
  await openShop(db);
  expect(await keepEntry(db, 'machines', 'large', { version: null, entry: LASER })).toEqual({ version: 1 });
  expect(await keepEntry(db, 'machines', 'large', { version: null, entry: LASER })).toBe('stale');
  expect(await keepEntry(db, 'machines', 'large', { version: 1, entry: { ...LASER, idleSpeed: 9 } })).toEqual({
    version: 2,
  });
  expect(await keepEntry(db, 'machines', 'large', { version: 1, entry: LASER })).toBe('stale');
  expect((await openShop(db)).machines.find((m) => m.id === 'large')).toMatchObject({
    version: 2,
    entry: { idleSpeed: 9 },
  });
  expect(await keepEntry(db, 'machines', 'nobody', { version: 3, entry: LASER })).toBe('stale');
});

test('what is removed comes back as it was, and is not changed meanwhile', async () => {
  await openShop(db);
  await keepEntry(db, 'machines', 'large', { version: null, entry: LASER });
  expect(await setEntryRemoved(db, 'machines', 'large', true)).toBe(true);
  expect(await keepEntry(db, 'machines', 'large', { version: 1, entry: LASER })).toBe('stale');
  expect(await setEntryRemoved(db, 'machines', 'large', false)).toBe(true);
  expect((await openShop(db)).machines.find((m) => m.id === 'large')).toEqual({
    id: 'large',
    version: 1,
    entry: LASER,
  });
  expect(await setEntryRemoved(db, 'tools', 'large', true)).toBe(false);
});

test('a shop brought in adds, changes, and leaves what is the same', async () => {
  await openShop(db);
  const shop = startingShop();
  expect(await bringInShop(db, shop)).toEqual({
    added: 0,
    changed: 0,
    same: shop.machines.length + shop.materials.length + shop.tools.length + shop.chart.length,
  });
  await setEntryRemoved(db, 'machines', 'knife', true);
  const knife = shop.machines.find((m) => m.id === 'knife');
  const router = shop.machines.find((m) => m.id === 'router');
  if (!knife || !router) throw new Error('not there');
  const brought = shopSchema.parse({
    machines: [{ id: 'large', entry: LASER }, knife, { id: 'router', entry: { ...router.entry, idleSpeed: 55 } }],
  });
  expect(await bringInShop(db, brought)).toEqual({ added: 2, changed: 1, same: 0 });
  const now = await openShop(db);
  expect(named(now.machines)).toEqual(expect.arrayContaining(['Knife', 'Large laser']));
  expect(now.machines.find((m) => m.id === 'router')).toMatchObject({ version: 2, entry: { idleSpeed: 55 } });
});

test('what can’t be read is left out, and the rest is there', async () => {
  await openShop(db);
  await db.insert(shopEntries).values({ shelf: 'machines', id: 'odd', entry: { kind: 'lathe' } });
  const { machines } = await openShop(db);
  expect(machines.length).toBeGreaterThan(3);
  expect(machines.some((m) => m.id === 'odd')).toBe(false);
});

test('the jobs that use a machine, a material or a tool are told', async () => {
  const shop = await openShop(db);
  const plain = jobWith([]);
  const machine = shop.machines.find((m) => m.id === 'laser');
  if (!machine) throw new Error('no laser');
  const typed = { charted: null, from: null, tried: false, toolWidth: null, typed: { tool: 'Blade' } };
  await createJob(
    db,
    {
      ...plain,
      title: 'Sign',
      machine: { ...machine.entry, id: 'laser' },
      sheet: { ...plain.sheet, material: 'birch PLYWOOD' },
      operations: plain.operations.map((o) => ({ ...o, settings: typed })),
    },
    NO_EXTRAS,
  );
  await createJob(db, { ...plain, title: 'Other' }, NO_EXTRAS);
  // Stock and tools of sheets that are not in hand are used as well.
  const sheet = { ...plain.sheet, material: 'MDF' };
  const settings = { cut: { ...typed, typed: { tool: 'End mill 3' } } };
  const away = { id: 'sheet-2', name: '', sheet, machine: null, settings };
  await createJob(db, { ...plain, title: 'Two stocks', otherSheets: [away] }, NO_EXTRAS);
  const users = async (shelf: 'machines' | 'materials' | 'tools' | 'chart', id: string) =>
    (await usersOfEntry(db, shelf, id)).map((j) => j.title);
  expect(await users('machines', 'laser')).toEqual(['Sign']);
  expect(await users('materials', 'birch-plywood')).toEqual(['Sign']);
  expect(await users('tools', 'blade')).toEqual(['Sign']);
  expect(await users('materials', 'mdf')).toEqual(['Two stocks']);
  expect(await users('tools', 'end-mill-3')).toEqual(['Two stocks']);
  expect(await users('machines', 'router')).toEqual([]);
  expect(await users('chart', shop.chart[0]?.id ?? '')).toEqual([]);
  expect(await users('machines', 'nobody')).toEqual([]);
});
