/** Earlier versions of a job: kept by age or under a name, listed, looked at, brought back. */
import { and, desc, eq, inArray, isNull, lt, sql } from 'drizzle-orm';
import { checkJob } from '../core/document/read';
import { pictureSchema } from '../core/job/picture';
import type { KeptPicture } from '../core/job/summary';
import { type Version, type VersionSummary, type VersionsPage, versionsToDrop } from '../core/job/versions';
import type { Database } from './database';
import { jobRevisions, jobs } from './schema';

/** Versions listed at a time. */
export const VERSIONS_A_PAGE = 24;

/** The database, or a transaction in it. */
type Open = Pick<Database, 'select' | 'insert' | 'update' | 'delete'>;
type JobRow = typeof jobs.$inferSelect;
type RevisionRow = typeof jobRevisions.$inferSelect;

/** Keep a job as it is stored as one of its versions; one that is kept already, under a name, stays as it is. */
export async function keepVersion(db: Open, job: JobRow, name: string | null = null): Promise<void> {
  const { id, version, document, picture, openFindings, changedAt } = job;
  await db
    .insert(jobRevisions)
    .values({ jobId: id, version, document, picture, openFindings, name, savedAt: changedAt })
    .onConflictDoNothing();
}

/** Drop the versions of a job that are too old for how many there are of their age. */
export async function dropOldVersions(db: Open, jobId: string): Promise<void> {
  const kept = await db
    .select({ version: jobRevisions.version, savedAt: jobRevisions.savedAt, name: jobRevisions.name })
    .from(jobRevisions)
    .where(eq(jobRevisions.jobId, jobId));
  const ages = kept.map((v) => ({ version: v.version, savedAt: v.savedAt.getTime(), isNamed: v.name !== null }));
  const old = versionsToDrop(ages, Date.now());
  if (old.length > 0)
    await db.delete(jobRevisions).where(and(eq(jobRevisions.jobId, jobId), inArray(jobRevisions.version, old)));
}

/** What lists show of a version: of its document only the title is read. */
const summaryColumns = {
  version: jobRevisions.version,
  savedAt: jobRevisions.savedAt,
  name: jobRevisions.name,
  title: sql<string>`${jobRevisions.document}->>'title'`,
  openFindings: jobRevisions.openFindings,
};
type SummaryRow = Pick<RevisionRow, 'version' | 'savedAt' | 'name' | 'openFindings'> & {
  readonly title: string;
};

const summaryOf = ({ version, savedAt, name, title, openFindings }: SummaryRow): VersionSummary => ({
  version,
  savedAt: savedAt.toISOString(),
  name,
  title,
  openFindings,
});

const openRow = async (db: Open, jobId: string): Promise<JobRow | undefined> => {
  const [row] = await db
    .select()
    .from(jobs)
    .where(and(eq(jobs.id, jobId), isNull(jobs.deletedAt)));
  return row;
};

const revisionRow = async (db: Open, jobId: string, version: number): Promise<RevisionRow | undefined> => {
  const [row] = await db
    .select()
    .from(jobRevisions)
    .where(and(eq(jobRevisions.jobId, jobId), eq(jobRevisions.version, version)));
  return row;
};

/** The newest version as it would be kept. */
const newest = (job: JobRow, name: string | null): SummaryRow => ({
  ...job,
  name,
  savedAt: job.changedAt,
});

/**
 * Versions of a job, the newest first and so many at a time: with 0 from the newest on, else those before version `before`. Null when
 * there is no such job.
 */
export async function listVersions(db: Database, jobId: string, before: number): Promise<VersionsPage | null> {
  const job = await openRow(db, jobId);
  if (!job) return null;
  const from = before === 0 ? job.version : before;
  const rows = await db
    .select(summaryColumns)
    .from(jobRevisions)
    .where(and(eq(jobRevisions.jobId, jobId), lt(jobRevisions.version, from)))
    .orderBy(desc(jobRevisions.version))
    .limit(VERSIONS_A_PAGE + 1);
  const versions = rows.slice(0, VERSIONS_A_PAGE).map(summaryOf);
  if (before === 0) {
    const name = (await revisionRow(db, jobId, job.version))?.name ?? null;
    versions.unshift(summaryOf(newest(job, name)));
  }
  return { versions, hasMore: rows.length > VERSIONS_A_PAGE };
}

/** A version with its document, the newest among them; null when it is not kept, or there is no such job. */
export async function openVersion(db: Open, jobId: string, version: number): Promise<Version | null> {
  const job = await openRow(db, jobId);
  if (!job) return null;
  const row = await revisionRow(db, jobId, version);
  if (row) return { ...summaryOf({ ...row, title: row.document.title }), document: row.document };
  return job.version === version ? { ...summaryOf(newest(job, null)), document: job.document } : null;
}

/** Keep a version for good under a name, or by its age again; false when it is not kept, or there is no such job. */
export async function nameVersion(db: Database, jobId: string, version: number, name: string | null): Promise<boolean> {
  return db.transaction(async (tx) => {
    const job = await openRow(tx, jobId);
    if (!job) return false;
    if (job.version === version) await keepVersion(tx, job, name);
    const changed = await tx
      .update(jobRevisions)
      .set({ name })
      .where(and(eq(jobRevisions.jobId, jobId), eq(jobRevisions.version, version)))
      .returning({ version: jobRevisions.version });
    return changed.length > 0;
  });
}

/** A version as it can be saved again, in the present format; null when it is not kept or there is no such job, a sentence when it can't be read. */
export async function readVersion(db: Open, jobId: string, version: number) {
  const found = await openVersion(db, jobId, version);
  if (!found) return null;
  const read = checkJob(found.document);
  const { picture } = await openPicture(db, jobId, version);
  return read.ok ? { job: read.job, extras: { picture, openFindings: found.openFindings } } : read.sentences.join(' ');
}

/** A version's picture, or the newest one where that version is no longer kept; none where there is no such job. */
export async function openPicture(db: Open, jobId: string, wanted: number): Promise<KeptPicture> {
  const at = and(eq(jobs.id, jobId), isNull(jobs.deletedAt));
  const [newest] = await db.select({ version: jobs.version, picture: jobs.picture }).from(jobs).where(at);
  if (!newest) return { version: null, picture: null };
  const [earlier] =
    newest.version === wanted
      ? []
      : await db
          .select({ version: jobRevisions.version, picture: jobRevisions.picture })
          .from(jobRevisions)
          .where(and(eq(jobRevisions.jobId, jobId), eq(jobRevisions.version, wanted)));
  const { version, picture } = earlier ?? newest;
  return { version, picture: pictureSchema.safeParse(picture).data ?? null };
}
