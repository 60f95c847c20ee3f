/** The list of tools from one job to the next: what was typed once is there again. */
import { JOB_FORMAT, type Job, jobSchema, type ListedTool } from '../document/schema';
import { stepIn } from '../kinds/steps';
import { LIMITS } from '../limits';

/** The tools that a job begins with where nothing is known. */
const TO_BEGIN_WITH: readonly ListedTool[] = jobSchema.parse({
  format: JOB_FORMAT,
  sheet: { width: 1, height: 1 },
}).tools;

const sizes = ({ shape, tip, angle, depth }: Omit<ListedTool, 'id' | 'feed'>): string =>
  JSON.stringify([shape, tip, shape === 'cone' ? angle : 0, shape === 'cone' || shape === 'round' ? depth : 0]);

/** The tools of a job: those of its list, and those typed where something is filled, as many as a list takes. */
export function toolsOf(job: Pick<Job, 'tools' | 'parts'>): readonly ListedTool[] {
  const tools = [...job.tools];
  const known = new Set(tools.map(sizes));
  const ids = new Set(tools.map((t) => t.id));
  for (const part of job.parts) {
    const tool = stepIn(part, 'hatch')?.tool;
    if (!tool || known.has(sizes(tool)) || tools.length >= LIMITS.tools) continue;
    let n = 1;
    while (ids.has(`tool-${n}`)) n++;
    const id = `tool-${n}`;
    tools.push({ id, ...tool, feed: FEED });
    ids.add(id);
    known.add(sizes(tool));
  }
  return tools;
}

/** Feed of a tool that was typed without one, in mm a minute. */
const FEED = 1000;

/** A new job with the tools of another, where its own are but those that every job begins with. */
export const withTools = (job: Job, tools: readonly ListedTool[]): Job =>
  tools.length > 0 && JSON.stringify(job.tools) === JSON.stringify(TO_BEGIN_WITH) ? { ...job, tools: [...tools] } : job;
