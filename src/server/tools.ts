/** The tools that a shop works with. */
import { and, desc, eq, isNull } from 'drizzle-orm';
import { toolsOf } from '../core/commands/tools';
import { checkJob } from '../core/document/read';
import type { ListedTool } from '../core/document/schema';
import type { Database } from './database';
import { jobs } from './schema';

/** The tools of the job that was saved last; none where there is no job, or it can't be read. */
export async function lastTools(db: Database): Promise<ListedTool[]> {
  const [row] = await db
    .select({ document: jobs.document })
    .from(jobs)
    .where(and(isNull(jobs.deletedAt), eq(jobs.isStarter, false)))
    .orderBy(desc(jobs.changedAt))
    .limit(1);
  const read = row && checkJob(row.document);
  return read?.ok ? [...toolsOf(read.job)] : [];
}
