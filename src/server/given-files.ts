/** Files of jobs that were given out: noted with their version and proof; their bytes are kept as other files are. */
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { GivenFile, ToGive } from '../core/job/given-files';
import { LIMITS } from '../core/limits';
import type { Database } from './database';
import { assets, givenFiles, jobs } from './schema';

/** Files of a job, the newest first; null where there is no such job. */
export async function listGivenFiles(db: Database, jobId: string): Promise<GivenFile[] | null> {
  const [job] = await db.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
  if (!job) return null;
  const rows = await db
    .select({ of: givenFiles, bytes: sql<number>`octet_length(${assets.bytes})` })
    .from(givenFiles)
    .innerJoin(assets, eq(assets.sha256, givenFiles.file))
    .where(eq(givenFiles.jobId, jobId))
    .orderBy(desc(givenFiles.givenAt), desc(givenFiles.nth))
    .limit(LIMITS.givenFiles);
  return rows.map(({ of, bytes }) => ({
    id: of.id,
    name: of.name,
    file: of.file,
    version: of.version,
    bytes,
    partIds: of.partIds,
    proof: of.proof,
    givenAt: of.givenAt.toISOString(),
  }));
}

/** Note files that were given out together; false where there is no such job, or one of the files is not kept. The oldest go. */
export async function giveFiles(
  db: Database,
  jobId: string,
  {
    version,
    partIds,
    files,
  }: {
    readonly version: number;
    readonly partIds: readonly string[] | null;
    readonly files: readonly ToGive[];
  },
): Promise<boolean> {
  return db.transaction(async (tx) => {
    const [job] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId)).for('update');
    const ids = [...new Set(files.map((f) => f.file))];
    const kept = await tx.select({ id: assets.sha256 }).from(assets).where(inArray(assets.sha256, ids));
    if (!job || kept.length < ids.length) return false;
    const parts = partIds && [...partIds];
    await tx
      .insert(givenFiles)
      .values(files.map((file, nth) => ({ jobId, version, partIds: parts, ...file, nth: -nth })));
    const newest = tx
      .select({ id: givenFiles.id })
      .from(givenFiles)
      .where(eq(givenFiles.jobId, jobId))
      .orderBy(desc(givenFiles.givenAt), desc(givenFiles.nth))
      .limit(LIMITS.givenFiles);
    await tx.delete(givenFiles).where(and(eq(givenFiles.jobId, jobId), sql`${givenFiles.id} not in ${newest}`));
    return true;
  });
}
