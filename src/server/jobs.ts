/** Keeping jobs: list, open, save with a version check, duplicate, delete with undo. */
import { and, eq, isNull, sql } from 'drizzle-orm';
import { asStarter } from '../core/commands/starters';
import { withTag } from '../core/commands/tags';
import { checkJob } from '../core/document/read';
import type { Job } from '../core/document/schema';
import type { SavedExtras, StoredJob } from '../core/job/summary';
import { LIMITS } from '../core/limits';
import { cutTo } from '../core/units/text';
import type { Database } from './database';
import { jobs } from './schema';
import { dropOldVersions, keepVersion, readVersion } from './versions';

/** What is said where what is stored is newer than what would replace it. */
export const OLDER =
  'This job was saved by a newer Needlefile than the one in this window. Nothing was changed; reload this page to go on.';

/** What a save came to. */
export type SaveResult =
  | { readonly outcome: 'saved'; readonly version: number; readonly changedAt: string }
  /** Somebody saved in between; theirs is the stored one. */
  | { readonly outcome: 'stale'; readonly stored: StoredJob }
  /** The job is kept in a newer format than that of the document that was sent: what is new in it would be lost. */
  | { readonly outcome: 'older' }
  | { readonly outcome: 'gone' };

const columnsOf = (job: Job) => ({
  document: job,
  title: job.title,
  tags: job.tags,
  units: job.units,
  material: job.sheet.material,
  thickness: job.sheet.thickness,
  width: job.sheet.width,
  height: job.sheet.height,
  // A document that was kept in an older format says nothing of it.
  isStarter: (job.starter ?? null) !== null,
});

type Row = typeof jobs.$inferSelect;

const stored = (row: Pick<Row, 'id' | 'version' | 'changedAt' | 'document'>): StoredJob => ({
  id: row.id,
  version: row.version,
  changedAt: row.changedAt.toISOString(),
  document: row.document,
});

/** A job as it is stored; null where there is none, or it was deleted. */
export async function openJob(db: Database, id: string): Promise<StoredJob | null> {
  const [row] = await db
    .select()
    .from(jobs)
    .where(and(eq(jobs.id, id), isNull(jobs.deletedAt)));
  return row ? stored(row) : null;
}

/** Keep a new job. Null where `sample` names a sample job that is kept already. */
export async function createJob(
  db: Database,
  job: Job,
  extras: SavedExtras,
  sample: string | null = null,
): Promise<StoredJob | null> {
  const [row] = await db
    .insert(jobs)
    .values({ ...columnsOf(job), picture: extras.picture, openFindings: extras.openFindings, sample })
    .onConflictDoNothing({ target: jobs.sample })
    .returning();
  return row ? stored(row) : null;
}

/** The database, or a transaction in it. */
type Open = Parameters<Parameters<Database['transaction']>[0]>[0];

/** A job that is not deleted, held until the transaction ends. */
async function heldRow(tx: Open, id: string): Promise<Row | undefined> {
  const [row] = await tx
    .select()
    .from(jobs)
    .where(and(eq(jobs.id, id), isNull(jobs.deletedAt)))
    .for('update');
  return row;
}

/** Put something newer in a job's place; what was stored before becomes an earlier version. */
async function replace(tx: Open, before: Row, columns: Partial<typeof jobs.$inferInsert>) {
  await keepVersion(tx, before);
  await dropOldVersions(tx, before.id);
  const [after] = await tx
    .update(jobs)
    .set({ ...columns, version: before.version + 1, changedAt: sql`now()` })
    .where(eq(jobs.id, before.id))
    .returning({ version: jobs.version, changedAt: jobs.changedAt });
  return after ?? null;
}

/** The format that a document says it is of; one that says none is taken for the first. */
export const formatOf = (document: unknown): number => {
  const { format } = document as { readonly format?: unknown };
  return typeof format === 'number' ? format : 1;
};

/**
 * Save over the version the document was made from; what was stored before becomes an earlier version. Without `extras` the
 * picture and the count of findings stay as they were.
 * @param format the format the document was sent in: a page that is older than the server knows less than what is stored
 */
export async function saveJob(
  db: Database,
  id: string,
  {
    from,
    job,
    extras,
    format = job.format,
  }: { readonly from: number; readonly job: Job; readonly extras: SavedExtras | null; readonly format?: number },
): Promise<SaveResult> {
  return db.transaction(async (tx): Promise<SaveResult> => {
    const before = await heldRow(tx, id);
    if (!before) return { outcome: 'gone' };
    if (format < formatOf(before.document)) return { outcome: 'older' };
    if (before.version !== from) return { outcome: 'stale', stored: stored(before) };
    const after = await replace(tx, before, { ...columnsOf(job), ...(extras ?? {}) });
    if (!after) return { outcome: 'gone' };
    return { outcome: 'saved', version: after.version, changedAt: after.changedAt.toISOString() };
  });
}

const COPY = ' copy';

/** A copy with its own life, named "… copy". */
export async function duplicateJob(db: Database, id: string): Promise<StoredJob | null> {
  const [row] = await db
    .select()
    .from(jobs)
    .where(and(eq(jobs.id, id), isNull(jobs.deletedAt)));
  if (!row) return null;
  const title = `${cutTo(row.document.title, LIMITS.nameCharacters - COPY.length)}${COPY}`;
  const document = { ...row.document, title };
  return createJob(db, document, { picture: row.picture, openFindings: row.openFindings });
}

/** A copy that others are started from; null where there is no such job, sentences where it can't be read. */
export async function keepAsStarter(db: Database, id: string): Promise<StoredJob | readonly string[] | null> {
  const [row] = await db
    .select()
    .from(jobs)
    .where(and(eq(jobs.id, id), isNull(jobs.deletedAt)));
  if (!row) return null;
  const read = checkJob(row.document);
  if (!read.ok) return read.sentences;
  return createJob(db, asStarter(read.job), { picture: row.picture, openFindings: row.openFindings });
}

/** Rename without opening: the document is changed too, and it is a save like others. A job that has the name stays as it is. */
export async function renameJob(db: Database, id: string, title: string): Promise<boolean> {
  return db.transaction(async (tx) => {
    const before = await heldRow(tx, id);
    if (!before || before.document.title === title) return before !== undefined;
    return (await replace(tx, before, { title, document: { ...before.document, title } })) !== null;
  });
}

/**
 * Give a tag to jobs, or take it from them: each is saved as a version of its own. Gives the ids of those that changed; others had it
 * already, have no room for it, or are gone.
 */
export async function tagJobs(
  db: Database,
  { ids, tag, on }: { readonly ids: readonly string[]; readonly tag: string; readonly on: boolean },
): Promise<string[]> {
  const changed: string[] = [];
  // In one order everywhere, so that two who tag at once do not wait for each other.
  for (const id of [...new Set(ids)].sort())
    await db.transaction(async (tx) => {
      const before = await heldRow(tx, id);
      if (!before) return;
      const tags = [...withTag(before.tags, tag, on)];
      if (tags.length === before.tags.length) return;
      await replace(tx, before, { tags, document: { ...before.document, tags } });
      changed.push(id);
    });
  return changed;
}

/** Deleted jobs stay in the table, so that deleting can be undone. */
export async function deleteJob(db: Database, id: string): Promise<boolean> {
  const changed = await db
    .update(jobs)
    .set({ deletedAt: sql`now()` })
    .where(and(eq(jobs.id, id), isNull(jobs.deletedAt)))
    .returning({ id: jobs.id });
  return changed.length > 0;
}

/** Take deleting back; false where there is no such job. */
export async function restoreJob(db: Database, id: string): Promise<boolean> {
  const changed = await db.update(jobs).set({ deletedAt: null }).where(eq(jobs.id, id)).returning({ id: jobs.id });
  return changed.length > 0;
}

/**
 * Make an earlier version the newest one; what was the newest becomes an earlier version. Null when there is no such version or job, a
 * sentence when it can't be read any more.
 */
export async function bringBackVersion(
  db: Database,
  id: string,
  version: number,
): Promise<{ readonly version: number; readonly changedAt: string } | string | null> {
  const found = await readVersion(db, id, version);
  if (found === null || typeof found === 'string') return found;
  // Whoever saves in between has made that the newest, and it becomes the earlier version: then it is tried over theirs.
  for (;;) {
    const now = await openJob(db, id);
    if (!now) return null;
    const saved = await saveJob(db, id, { from: now.version, job: found.job, extras: found.extras });
    if (saved.outcome === 'saved') return { version: saved.version, changedAt: saved.changedAt };
    if (saved.outcome === 'older') return OLDER;
  }
}
