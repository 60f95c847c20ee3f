/** The list of jobs, some at a time: what is looked for is looked for among all of them. */
import { and, desc, eq, isNull, lt, or, type SQL, sql } from 'drizzle-orm';
import type { JobSummary, JobsPage } from '../core/job/summary';
import { LIMITS } from '../core/limits';
import type { Database } from './database';
import { jobs } from './schema';

/** Jobs listed at a time. */
export const JOBS_A_PAGE = 24;

/** Where a page begins: the time of the last job before it in microseconds since 1970, and its id. */
export const AFTER = /^(\d{1,17})\.([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})$/;

/** Microseconds, as the database counts: several jobs may have been changed in one millisecond. */
const changedMicros = sql<string>`(extract(epoch from ${jobs.changedAt}) * 1000000)::bigint::text`;

const summaryColumns = {
  id: jobs.id,
  title: jobs.title,
  tags: jobs.tags,
  material: jobs.material,
  thickness: jobs.thickness,
  width: jobs.width,
  height: jobs.height,
  units: jobs.units,
  openFindings: jobs.openFindings,
  version: jobs.version,
  changedAt: jobs.changedAt,
};
type SummaryRow = Omit<JobSummary, 'changedAt'> & { readonly changedAt: Date };

const summaryOf = ({ changedAt, ...row }: SummaryRow): JobSummary => ({ ...row, changedAt: changedAt.toISOString() });

const text = sql`lower(${jobs.title} || ' ' || ${jobs.material} || ' ' || array_to_string(${jobs.tags}, ' '))`;

/** What is looked for: jobs whose name, material and tags hold all the words, that have the tag, and come after a place in the list. */
function lookedFor(words: string, tag: string, after: string): SQL | undefined {
  const parts: (SQL | undefined)[] = [isNull(jobs.deletedAt), eq(jobs.isStarter, false)];
  for (const word of words.toLowerCase().split(/\s+/).filter(Boolean))
    parts.push(sql`position(${word} in ${text}) > 0`);
  if (tag) parts.push(sql`${tag} = any(${jobs.tags})`);
  const place = AFTER.exec(after);
  if (place) {
    const at = sql`to_timestamp(0) + ${place[1]}::bigint * interval '1 microsecond'`;
    parts.push(or(lt(jobs.changedAt, at), and(eq(jobs.changedAt, at), lt(jobs.id, place[2] as string))));
  }
  return and(...parts);
}

/** What a page of the list is asked for: words and a tag, '' for any; `after`: where it begins, '' for the first. */
export type Looked = { readonly words: string; readonly tag: string; readonly after: string };

/** A page of the jobs that are not deleted, last changed first. */
export async function listJobs(
  db: Database,
  { words, tag, after }: Looked = { words: '', tag: '', after: '' },
): Promise<JobsPage> {
  const [rows, tags] = await Promise.all([
    db
      .select({ ...summaryColumns, micros: changedMicros })
      .from(jobs)
      .where(lookedFor(words, tag, after))
      .orderBy(desc(jobs.changedAt), desc(jobs.id))
      .limit(JOBS_A_PAGE + 1),
    db
      .selectDistinct({ tag: sql<string>`unnest(${jobs.tags})` })
      .from(jobs)
      .where(and(isNull(jobs.deletedAt), eq(jobs.isStarter, false))),
  ]);
  const shown = rows.slice(0, JOBS_A_PAGE);
  const last = shown.at(-1);
  return {
    jobs: shown.map(({ micros: _micros, ...row }) => summaryOf(row)),
    tags: tags.map((row) => row.tag).sort(),
    next: rows.length > JOBS_A_PAGE && last ? `${last.micros}.${last.id}` : null,
  };
}

/** The shop's own starters, by name. */
export async function listStarters(db: Database): Promise<JobSummary[]> {
  const rows = await db
    .select(summaryColumns)
    .from(jobs)
    .where(and(isNull(jobs.deletedAt), eq(jobs.isStarter, true)))
    .orderBy(sql`lower(${jobs.title})`, jobs.id)
    .limit(LIMITS.starters);
  return rows.map(summaryOf);
}

/** What a list shows of one job; null where there is none, or it was deleted. */
export async function openSummary(db: Database, id: string): Promise<JobSummary | null> {
  const [row] = await db
    .select(summaryColumns)
    .from(jobs)
    .where(and(eq(jobs.id, id), isNull(jobs.deletedAt)));
  return row ? summaryOf(row) : null;
}
