/** Files that were brought in and drawings read from them, kept by what is in them as long as something uses them. */
import { createHash } from 'node:crypto';
import { and, eq, inArray, isNotNull, isNull, lt, type SQL, sql } from 'drizzle-orm';
import { LIMITS } from '../core/limits';
import type { Database } from './database';
import { assets, givenFiles, jobRevisions, jobs, typefaces } from './schema';

/**
 * Keep bytes; returns their id, null where there is no more room for files. The same bytes are kept once, under the first name they
 * came with.
 */
export async function keepAsset(db: Database, bytes: Buffer, name: string): Promise<string | null> {
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const again = await db
    .update(assets)
    .set({ unusedSince: null })
    .where(eq(assets.sha256, sha256))
    .returning({ id: assets.sha256 });
  if (again.length > 0) return sha256;
  const [kept] = await db.select({ bytes: sql<string>`coalesce(sum(octet_length(${assets.bytes})), 0)` }).from(assets);
  if (Number(kept?.bytes) + bytes.length > LIMITS.assetsBytes) return null;
  await db.insert(assets).values({ sha256, bytes, name }).onConflictDoNothing();
  return sha256;
}

/** The bytes and the name of a file that is kept; null where there is none of that id. */
export async function openAsset(db: Database, sha256: string): Promise<{ bytes: Buffer; name: string } | null> {
  const [found] = await db
    .select({ bytes: assets.bytes, name: assets.name })
    .from(assets)
    .where(eq(assets.sha256, sha256));
  return found ?? null;
}

/**
 * The bytes of several kept files, in the order of their ids; null where there is none, and where what came before it weighs as much as
 * one answer may: those are asked for one by one.
 */
export async function openAssets(db: Database, ids: readonly string[]): Promise<(Buffer | null)[]> {
  const sizes = await db
    .select({ id: assets.sha256, size: sql<number>`octet_length(${assets.bytes})` })
    .from(assets)
    .where(inArray(assets.sha256, [...ids]));
  let sum = 0;
  const taken = ids.filter((id) => {
    const size = sizes.find((s) => s.id === id)?.size ?? 0;
    if (sum + size > LIMITS.assetsAtOnceBytes) return false;
    sum += size;
    return true;
  });
  const found = await db
    .select({ id: assets.sha256, bytes: assets.bytes })
    .from(assets)
    .where(inArray(assets.sha256, taken));
  return ids.map((id) => found.find((f) => f.id === id)?.bytes ?? null);
}

/**
 * Ids that stand in documents: those of jobs, deleted ones among them, since they can be had back, and of versions that are kept. And
 * those of typefaces that are in the list, and of files that were given out.
 */
const IDS_IN_USE: SQL = sql`
  select (regexp_matches(${jobs.document}::text, '"([0-9a-f]{64})"', 'g'))[1] as id from ${jobs}
  union select (regexp_matches(${jobRevisions.document}::text, '"([0-9a-f]{64})"', 'g'))[1] from ${jobRevisions}
  union select ${typefaces.content} from ${typefaces} where ${typefaces.removedAt} is null
  union select ${givenFiles.file} from ${givenFiles}`;

/**
 * Note which files nothing uses any more, and drop those that nothing has used for so long that nobody will miss them. Returns how many
 * were dropped.
 */
export async function clearUnusedAssets(db: Database): Promise<number> {
  return db.transaction(async (tx) => {
    const used = (await tx.execute<{ id: string }>(IDS_IN_USE)).rows.map(({ id }) => id);
    const isUsed = used.length > 0 ? sql`${assets.sha256} = any(${sql.param(used)}::text[])` : sql`false`;
    await tx
      .update(assets)
      .set({ unusedSince: null })
      .where(and(isNotNull(assets.unusedSince), isUsed));
    await tx
      .update(assets)
      .set({ unusedSince: sql`now()` })
      .where(and(isNull(assets.unusedSince), sql`not ${isUsed}`));
    const isOver = lt(assets.unusedSince, sql`now() - ${LIMITS.unusedAssetDays} * interval '1 day'`);
    // What was noted of a typeface goes with its file.
    const gone = tx.select({ id: assets.sha256 }).from(assets).where(isOver);
    await tx.delete(typefaces).where(inArray(typefaces.content, gone));
    return (await tx.delete(assets).where(isOver).returning({ id: assets.sha256 })).length;
  });
}
