/** A job made for a list of names that was read elsewhere. */
import { freeColumnName, rosterOf, setRoster } from '../commands/roster';
import type { Column, Job } from '../document/schema';
import type { ReadList } from './read-list';

type Read = Extract<ReadList, { ok: true }>;

/** What the columns of a list are called: as it says, else as those of the job's own list in their order. */
function headsOf({ columns, header }: Read, own: readonly Column[]): string[] {
  const typed = own.filter((column) => column.kind === 'typed').map((column) => column.name);
  const names: string[] = [];
  columns.forEach((name, i) => {
    names.push(freeColumnName((header ? name : typed[i]) || (i === 0 ? 'Name' : `Column ${i + 1}`), names));
  });
  return names;
}

/** The job with the names of a list in the place of its own; running numbers and dates of its own list stay columns. */
export function withList(job: Job, list: Read): Job {
  const own = job.roster?.columns ?? [];
  const heads = headsOf(list, own);
  const made = rosterOf(heads, list.rows);
  const taken = new Set(made.columns.map((column) => column.name.toLowerCase()));
  const ids = new Set(made.columns.map((column) => column.id));
  const kept = own
    .filter((column) => column.kind !== 'typed' && !taken.has(column.name.toLowerCase()))
    .map((column) => ({ ...column, id: freeId(column.id, ids) }));
  const named = setRoster(job, { ...made, columns: [...made.columns, ...kept] });
  // Where the names of before lay says nothing of these.
  return named.layout ? { ...named, layout: { ...named.layout, places: [] } } : named;
}

function freeId(wanted: string, ids: Set<string>): string {
  let id = wanted;
  for (let n = 2; ids.has(id); n++) id = `${wanted}-${n}`;
  ids.add(id);
  return id;
}
