/** Files that were brought in and drawings read from them, kept by what is in them. */
import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Database } from './database';
import { assets } from './schema';

/** Keep bytes; returns their id. The same bytes are kept once, under the first name they came with. */
export async function keepAsset(db: Database, bytes: Buffer, name: string): Promise<string> {
  const sha256 = createHash('sha256').update(bytes).digest('hex');
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
