/** The job of a row: its fields filled, and what the row has of its own; a job like any other, without a roster. */
import { produce } from 'immer';
import { changed } from '../commands/changed';
import { carryWords } from '../commands/words';
import { partSchema } from '../document/part';
import type { Job, Lettering, Part, RosterRow, RowOwn, Step } from '../document/schema';
import { stepTroubles } from '../kinds/steps';
import { type FilledWith, fillWords, hasFields, type RowWords, wordsOfRow } from './fields';

/** The part's own in a row. */
export type PartOwn = RowOwn['parts'][number];

/** Lettering whose words take something from the roster. */
export const takesFields = (member: Part['members'][number]): member is Lettering =>
  member.kind === 'lettering' && hasFields(member.text);

/** Steps with which of their kind they are, from 0. */
export const numbered = (steps: readonly Step[]): { readonly step: Step; readonly nth: number }[] =>
  steps.map((step, i) => ({ step, nth: steps.slice(0, i).filter((s) => s.kind === step.kind).length }));

/** A part with what a row has of its own; itself where that cannot be: a part it no longer fits. */
function withOwn(part: Part, own: PartOwn): Part {
  const members = part.members.map((member) => {
    const set = own.members.find((m) => m.id === member.id)?.set;
    return set ? { ...member, ...set } : member;
  });
  const steps = numbered(part.steps).flatMap(({ step, nth }): unknown[] => {
    const found = own.steps.find((s) => s.kind === step.kind && s.nth === nth);
    if (!found) return [step];
    return found.set === null ? [] : [{ ...step, ...found.set }];
  });
  const there = new Set(numbered(part.steps).map(({ step, nth }) => `${step.kind} ${nth}`));
  for (const { kind, nth, at, set } of own.steps)
    if (at !== null && set && !there.has(`${kind} ${nth}`)) steps.splice(at, 0, { ...set, kind });
  const checked = partSchema.safeParse({ ...part, ...own.set, id: part.id, members, steps });
  if (!checked.success || stepTroubles(checked.data.steps).length > 0) return part;
  // What is as it was stays the same object, so that nothing about it is asked again.
  const kept = <T extends { id: string }>(list: readonly T[], before: readonly T[]): T[] =>
    list.map((one) => {
      const was = before.find((b) => b.id === one.id);
      return was && !own.members.some((m) => m.id === one.id) ? was : one;
    });
  return { ...checked.data, members: kept(checked.data.members, part.members) };
}

/** What a row is called: what it has in the first column that is typed and not empty; by its place where there is none. */
export function rowTitle(job: Job, nth: number): string {
  const { roster } = job;
  const row = roster?.rows[nth];
  const typed = roster?.columns.findIndex(
    (column, i) => column.kind === 'typed' && (row?.cells[i] ?? '').trim() !== '',
  );
  const words = typed !== undefined && typed >= 0 ? (row?.cells[typed] ?? '').trim() : '';
  return words || `Row ${nth + 1}`;
}

/** Words of a lettering filled, in place, with what stands on its letters. */
function fill(draft: Job, part: Part, member: Lettering, words: RowWords): void {
  carryWords(draft, part.id, member.id, (before) => fillWords(before, words));
}

/** The job of a row of its roster, by the row's place; parts in which nothing is filled stay the same objects. The job itself where there is no such row. */
export function jobInRow(job: Job, nth: number, filling: FilledWith): Job {
  const { roster } = job;
  const row = roster?.rows[nth];
  if (!roster || !row) return job;
  const words = wordsOfRow(roster, nth, filling);
  const filled = changed({ ...job, roster: null, layout: null }, (draft) => {
    draft.title = fillWords(job.title, words).text;
    for (const part of draft.parts) {
      if (hasFields(part.name)) part.name = fillWords(part.name, words).text;
      const own = row.own?.parts.find((p) => p.id === part.id);
      for (const member of part.members) {
        if (member.kind !== 'lettering') continue;
        const text = own?.members.find((m) => m.id === member.id)?.set.text;
        if (typeof text === 'string') carryWords(draft, part.id, member.id, (before) => rewrittenTo(before, text));
        if (hasFields(member.text)) fill(draft, part, member, words);
      }
    }
  });
  return row.own ? withRowOwn(filled, row.own) : filled;
}

/** Words of a row's own in the place of those of all: nothing goes from the one to the other by its letters. */
const rewrittenTo = (before: string, text: string) => ({
  text,
  map: (at: number) => (before === text ? at : null),
});

/** A row's job with what the row has of its own, its words aside. */
function withRowOwn(job: Job, own: RowOwn): Job {
  const parts = job.parts.map((part) => {
    const found = own.parts.find((p) => p.id === part.id);
    if (!found) return part;
    const members = found.members.map(({ id, set: { text: _, ...set } }) => ({ id, set }));
    return withOwn(part, { ...found, members });
  });
  return produce({ ...job, parts }, (draft) => {
    if (own.leftAsIs.length > 0) draft.leftAsIs.push(...own.leftAsIs);
  });
}

/** The place of a row by its id; the first that is not left out where it is gone; -1 where there is none. */
export function placeOfRow(job: Job, rowId: string | null): number {
  const rows: readonly RosterRow[] = job.roster?.rows ?? [];
  const found = rows.findIndex((row) => row.id === rowId);
  if (found >= 0) return found;
  const first = rows.findIndex((row) => !row.out);
  return first >= 0 ? first : rows.length - 1;
}

/** A job whose parts name all typefaces and files that its rows need. */
export function withPartsOfRows(job: Job, filling: FilledWith): Job {
  const own = (job.roster?.rows ?? []).flatMap(({ own }, nth) =>
    own?.parts.some((part) => part.members.some(({ set }) => 'face' in set || 'lines' in set || 'content' in set))
      ? jobInRow(job, nth, filling).parts
      : [],
  );
  return own.length > 0 ? { ...job, parts: [...job.parts, ...own] } : job;
}

/** The words that a row has of its own for a lettering; null where it has those of all. */
export function ownWordsOf(job: Job, nth: number, partId: string, memberId: string): string | null {
  const own = job.roster?.rows[nth]?.own?.parts.find((p) => p.id === partId);
  const text = own?.members.find((m) => m.id === memberId)?.set.text;
  return typeof text === 'string' ? text : null;
}
