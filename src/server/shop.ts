/** The shop: what is on its shelves, changed against a version, removed and brought back; first values come when there are none. */
import { isDeepStrictEqual } from 'node:util';
import { and, asc, desc, eq, isNull, type SQL, sql } from 'drizzle-orm';
import { LIMITS } from '../core/limits';
import { type EntryOf, type KeptShop, SHELF_NAMES, SHELVES, type Shelf, type Shop } from '../core/schema/shop/shop';
import { startingShop } from '../core/shop/starting';
import type { Database } from './database';
import { jobs, settings, shopEntries } from './schema';

const STARTED = 'shop started';

/** First values, once: what is removed later stays away. */
async function start(db: Database): Promise<void> {
  const [row] = await db.select().from(settings).where(eq(settings.name, STARTED));
  if (row) return;
  await db.transaction(async (tx) => {
    const shop = startingShop();
    const values = SHELF_NAMES.flatMap((shelf) => shop[shelf].map(({ id, entry }) => ({ shelf, id, entry })));
    await tx.insert(shopEntries).values(values).onConflictDoNothing();
    await tx.insert(settings).values({ name: STARTED, value: true }).onConflictDoNothing();
  });
}

/** All that the shop has, by name or id; what can't be read is left out. */
export async function openShop(db: Database): Promise<KeptShop> {
  await start(db);
  const rows = await db.select().from(shopEntries).where(isNull(shopEntries.deletedAt)).orderBy(asc(shopEntries.id));
  const on = <S extends Shelf>(shelf: S): { id: string; version: number; entry: EntryOf<S> }[] =>
    rows.flatMap((row) => {
      const read = row.shelf === shelf ? SHELVES[shelf].safeParse(row.entry) : null;
      return read?.success ? [{ id: row.id, version: row.version, entry: read.data as EntryOf<S> }] : [];
    });
  const byName = <E extends { entry: { name: string } }>(list: E[]): E[] =>
    list.sort((a, b) => a.entry.name.localeCompare(b.entry.name, 'en'));
  return {
    machines: byName(on('machines')),
    materials: byName(on('materials')),
    tools: byName(on('tools')),
    chart: on('chart'),
  };
}

/** What keeping something came to: its new version, or why it was not kept. */
export type KeptEntry = { readonly version: number } | 'stale' | 'full';

const at = (shelf: Shelf, id: string) => and(eq(shopEntries.shelf, shelf), eq(shopEntries.id, id));

/** Put something on a shelf; `version` is that which was changed, null for something new. */
export async function keepEntry<S extends Shelf>(
  db: Database,
  shelf: S,
  id: string,
  { version, entry }: { readonly version: number | null; readonly entry: EntryOf<S> },
): Promise<KeptEntry> {
  return db.transaction(async (tx) => {
    const [there] = await tx.select().from(shopEntries).where(at(shelf, id)).for('update');
    if (there) {
      if (there.deletedAt !== null || there.version !== version) return 'stale';
      const next = { entry, version: there.version + 1, changedAt: new Date() };
      await tx.update(shopEntries).set(next).where(at(shelf, id));
      return { version: next.version };
    }
    if (version !== null) return 'stale';
    if (
      (await tx.$count(shopEntries, and(eq(shopEntries.shelf, shelf), isNull(shopEntries.deletedAt)))) >=
      LIMITS.shopEntries
    )
      return 'full';
    const made = await tx.insert(shopEntries).values({ shelf, id, entry }).onConflictDoNothing().returning();
    return made.length > 0 ? { version: 1 } : 'stale';
  });
}

/** Take something off a shelf, or put it back. False where there is none. */
export async function setEntryRemoved(db: Database, shelf: Shelf, id: string, isRemoved: boolean): Promise<boolean> {
  const changed = await db
    .update(shopEntries)
    .set({ deletedAt: isRemoved ? new Date() : null })
    .where(at(shelf, id))
    .returning({ id: shopEntries.id });
  return changed.length > 0;
}

/** Sheets of a job that are not in hand; none of jobs of older formats. */
const OTHER_SHEETS = sql`jsonb_array_elements(coalesce(${jobs.document} -> 'otherSheets', '[]'))`;

/** What tells a job that uses something of a shelf, by its id or its name there. */
const USED: Readonly<Record<Shelf, (id: string, name: string) => SQL | null>> = {
  machines: (id) => sql`${jobs.document} -> 'machine' ->> 'id' = ${id}`,
  materials: (_id, name) =>
    sql`lower(${jobs.material}) = lower(${name}) or exists (select from ${OTHER_SHEETS} s
      where lower(s -> 'sheet' ->> 'material') = lower(${name}))`,
  tools: (_id, name) =>
    sql`exists (select from (
        select o -> 'settings' from jsonb_array_elements(${jobs.document} -> 'operations') o
        union all select own.value from ${OTHER_SHEETS} s, jsonb_each(s -> 'settings') own
      ) used (settings)
      where coalesce(settings -> 'typed' ->> 'tool', settings -> 'charted' ->> 'tool') = ${name})`,
  chart: () => null,
};

/** The jobs that use something of the shop, those changed last first; none of a row of a chart, which jobs copy. */
export async function usersOfEntry(db: Database, shelf: Shelf, id: string): Promise<{ id: string; title: string }[]> {
  const [row] = await db.select({ entry: shopEntries.entry }).from(shopEntries).where(at(shelf, id));
  const name = (row?.entry as { name?: unknown } | undefined)?.name;
  const isUser = row && USED[shelf](id, typeof name === 'string' ? name : '');
  if (!isUser) return [];
  return db
    .select({ id: jobs.id, title: jobs.title })
    .from(jobs)
    .where(and(isNull(jobs.deletedAt), isUser))
    .orderBy(desc(jobs.changedAt))
    .limit(LIMITS.shopUsers);
}

/** How much of a shop that was brought in was new, other than it was, or there already. */
export type BroughtShop = { readonly added: number; readonly changed: number; readonly same: number };

/** Add what a shop has to this one; 'full' where a shelf would hold too much, and nothing is changed. */
export async function bringInShop(db: Database, shop: Shop): Promise<BroughtShop | 'full'> {
  await start(db);
  return db.transaction(async (tx) => {
    const rows = await tx.select().from(shopEntries).for('update');
    const on = (shelf: Shelf) => rows.filter((row) => row.shelf === shelf);
    const isThere = (shelf: Shelf, id: string) => on(shelf).some((row) => row.id === id && row.deletedAt === null);
    for (const shelf of SHELF_NAMES) {
      const live = on(shelf).filter((row) => row.deletedAt === null).length;
      if (live + shop[shelf].filter(({ id }) => !isThere(shelf, id)).length > LIMITS.shopEntries) return 'full';
    }
    let [added, changed, same] = [0, 0, 0];
    for (const shelf of SHELF_NAMES) {
      const there = new Map(on(shelf).map((row) => [row.id, row]));
      for (const { id, entry } of shop[shelf]) {
        const row = there.get(id);
        const read = row?.deletedAt === null ? SHELVES[shelf].safeParse(row.entry) : null;
        if (read?.success && isDeepStrictEqual(read.data, entry)) {
          same++;
          continue;
        }
        if (row?.deletedAt === null) changed++;
        else added++;
        const next = { entry, version: (row?.version ?? 0) + 1, changedAt: new Date(), deletedAt: null };
        await tx
          .insert(shopEntries)
          .values({ shelf, id, ...next })
          .onConflictDoUpdate({ target: [shopEntries.shelf, shopEntries.id], set: next });
      }
    }
    return { added, changed, same };
  });
}
