/** Copying parts and members and putting them in again, in the same job or another. */

import { checkJob } from '../document/read';
import { JOB_FORMAT, type Job, jobSchema, type Lettering, type Operation, type Part } from '../document/schema';
import { LIMITS } from '../limits';
import { partMatrix, placementOf } from '../prepare/placement';
import { faceOf } from '../schema/lettering';
import { madeFrom } from '../schema/members';
import { cutTo, keepable } from '../units/text';
import { changed, type Done, type MiddleOf, memberOf, partOf, plain } from './changed';
import { type Chosen, moveChosen } from './chosen';
import { betweenParts, inCoordinates } from './coordinates';
import { newPart } from './defaults';
import { freeId } from './ids';
import { addPart, relinked } from './parts';

/**
 * What was copied: a job by itself that holds the parts and all they refer to, and which of them were chosen; or the part that a
 * member was copied out of, with that member alone.
 */
export type Copied = {
  readonly document: Job;
  readonly partIds: readonly string[];
  readonly memberId: string | null;
};

/** Copy what is chosen; null when that is nothing. */
export function copyOf(job: Job, { partIds, memberId }: Chosen): Copied | null {
  const chosen = job.parts.filter((p) => partIds.includes(p.id));
  const [first] = chosen;
  if (!first) return null;
  const member = memberId === null ? undefined : first.members.find((m) => m.id === memberId);
  if (memberId !== null && !member) return null;
  const wanted = member ? [{ ...first, members: [member], steps: [], work: [] }] : chosen;
  const parts = withOriginals(job, wanted);
  const used = new Set(parts.flatMap((p) => p.work.map((w) => w.operation)));
  // Parts that are not along lie where they were.
  const ids = new Set(parts.map((p) => p.id));
  const document = jobSchema.parse({
    format: JOB_FORMAT,
    sheet: job.sheet,
    operations: job.operations.filter((o) => used.has(o.id)),
    parts: parts.map((p) =>
      p.along === null || ids.has(p.along)
        ? p
        : { ...p, along: null, placement: placementOf(partMatrix(job.parts, p)) },
    ),
  });
  return { document, partIds: wanted.map((p) => p.id), memberId: member?.id ?? null };
}

/** The parts with all that they are made from, straight or by way of others, in the order of the job. */
function withOriginals(job: Job, wanted: readonly Part[]): Part[] {
  const wantedById = new Map(wanted.map((p) => [p.id, p]));
  const toVisit = [...wanted];
  for (let part = toVisit.pop(); part; part = toVisit.pop())
    for (const m of part.members) {
      for (const of of madeFrom(m)) {
        const original = wantedById.has(of) ? undefined : partOf(job, of);
        if (!original) continue;
        wantedById.set(original.id, original);
        toVisit.push(original);
      }
    }
  return job.parts.flatMap((p) => wantedById.get(p.id) ?? []);
}

/** What was copied, read back from where it was kept; null when it is nothing of the kind. */
export function readCopied(kept: unknown): Copied | null {
  if (typeof kept !== 'object' || kept === null) return null;
  const { document, partIds, memberId } = kept as Record<string, unknown>;
  const read = checkJob(document);
  if (!read.ok || !Array.isArray(partIds)) return null;
  const ids = read.job.parts.map((p) => p.id).filter((id) => partIds.includes(id));
  if (ids.length === 0) return null;
  const isMember = typeof memberId === 'string';
  if (isMember && !memberOf(read.job, ids[0] as string, memberId)) return null;
  return { document: read.job, partIds: ids, memberId: isMember ? memberId : null };
}

/** What pasting gives: the job, what is chosen in it then, and a sentence where not all could be pasted. */
export type Pasted = Done<{ readonly chosen: Chosen; readonly sentence: string | null }>;

/** How far what is put in lies from what is there already, in mm. */
const BESIDE_MM = 10;

/**
 * Put what was copied into a job: a member into the part `into`, or as a part of its own; parts as they were, beside what lies in
 * their place already. Operations are those of the same name and kind, else of the kind, else they come along.
 */
export function paste(job: Job, copied: Copied, into: string | null, middleOf: MiddleOf): Pasted {
  const refused = (sentence: string): Pasted => ({ job, chosen: { partIds: [], memberId: null }, sentence });
  const target = partOf(job, into);
  if (copied.memberId !== null && target && !target.locked) {
    if (target.members.length >= LIMITS.members) return refused(`A part has up to ${LIMITS.members} members.`);
    return pasteMember(job, copied, target, middleOf);
  }
  const { document, partIds } = copied;
  const isMember = copied.memberId !== null;
  const wanted = isMember
    ? document.parts.map((p) => (partIds.includes(p.id) ? { ...p, name: '', along: null } : p))
    : document.parts;
  // Originals that the job has as they are need not come again.
  const known = new Set(
    wanted.filter((p) => !partIds.includes(p.id) && sameShape(p, partOf(job, p.id))).map((p) => p.id),
  );
  const coming = wanted.filter((p) => !known.has(p.id));
  if (job.parts.length + coming.length > LIMITS.parts) return refused(`A job has up to ${LIMITS.parts} parts.`);
  const ids = new Map<string, string>();
  for (const part of coming) ids.set(part.id, freeId(job, 'part', [...ids.values()]));
  const operations = new Map<string, string>();
  const withOperations = changed(job, (draft) => {
    for (const operation of document.operations) operations.set(operation.id, operationFor(draft, operation));
  });
  const put = changed(withOperations, (draft) => {
    for (const part of coming) {
      const copy = relinked(plain(part), ids);
      draft.parts.push({
        ...copy,
        id: ids.get(part.id) as string,
        locked: false,
        sheet: job.sheetId,
        hidden: part.hidden || !partIds.includes(part.id),
        // A member that becomes a part is cut, as what is new is.
        ...(isMember && partIds.includes(part.id)
          ? cutAsNew(draft)
          : {
              work: copy.work.flatMap((w) => {
                const operation = operations.get(w.operation);
                return operation ? [{ ...w, operation }] : [];
              }),
            }),
      });
    }
  });
  const chosen = { partIds: partIds.map((id) => ids.get(id) as string), memberId: null };
  return { job: besideOthers(put, job, chosen), chosen, sentence: null };
}

/**
 * Put words into a job as lettering of its own, set as those of the part `like` are, or as new ones; beside what lies in its place
 * already.
 */
export function pasteWords(job: Job, text: string, like: string | null): Pasted {
  const nothing: Chosen = { partIds: [], memberId: null };
  const lines = keepable(text.replace(/\r\n?/g, '\n').replace(/\t/g, ' ')).split('\n');
  const words = cutTo(
    lines
      .map((line) => line.trimEnd())
      .join('\n')
      .trim(),
    LIMITS.letteringStoredCharacters,
  );
  if (words === '') return { job, chosen: nothing, sentence: 'There are no words to paste.' };
  if (job.parts.length >= LIMITS.parts)
    return { job, chosen: nothing, sentence: `A job has up to ${LIMITS.parts} parts.` };
  const model = partOf(job, like)?.members.find((m): m is Lettering => m.kind === 'lettering');
  const { job: added, partId, memberId } = addPart(job, 'lettering');
  const put = changed(added, (draft) => {
    const lettering = memberOf(draft, partId, memberId);
    if (lettering?.kind !== 'lettering') return;
    if (model) {
      const { features, size, letterSpacing, lineSpacing, align } = plain(model);
      Object.assign(lettering, { ...faceOf(plain(model)), features, size, letterSpacing, lineSpacing, align });
    }
    lettering.text = words;
  });
  const chosen = { partIds: [partId], memberId: null };
  return { job: besideOthers(put, job, chosen), chosen, sentence: null };
}

const cutAsNew = (job: Job): Pick<Part, 'steps' | 'work'> => {
  const { steps, work } = newPart('new', '', [], job);
  return { steps, work };
};

function pasteMember(job: Job, { document, partIds, memberId }: Copied, target: Part, middleOf: MiddleOf): Pasted {
  const from = partOf(document, partIds[0] as string) as Part;
  const member = memberOf(document, from.id, memberId);
  if (!member) return { job, chosen: { partIds: [target.id], memberId: null }, sentence: null };
  const isTaken = memberOf(job, target.id, member.id) !== undefined;
  const both = { ...document, parts: [...document.parts.filter((p) => p.id !== target.id), ...job.parts] };
  const source = { ...from, id: freeId(both, 'source'), along: null };
  const placedMember = inCoordinates(
    plain(member),
    betweenParts({ ...both, parts: [...both.parts, source] }, source, target),
    middleOf,
  );
  const id = freeId(job, member.kind);
  const put = changed(job, (draft) => {
    (partOf(draft, target.id) as Part).members.push({ ...placedMember, id });
  });
  const chosen = { partIds: [target.id], memberId: id };
  return {
    job: isTaken ? moveChosen(put, chosen, BESIDE_MM, -BESIDE_MM) : put,
    chosen,
    sentence: null,
  };
}

/** The operation of a job that does the work of one from elsewhere; it is put in where there is none of its kind. */
function operationFor(draft: Job, operation: Operation): string {
  const kind = draft.operations.filter((o) => o.kind === operation.kind);
  const found = kind.find((o) => o.name === operation.name) ?? kind[0];
  if (found) return found.id;
  const id = draft.operations.some((o) => o.id === operation.id) ? freeId(draft, operation.kind) : operation.id;
  draft.operations.push({ ...operation, id });
  return id;
}

const sameShape = (a: Part, b: Part | undefined): boolean =>
  b !== undefined && JSON.stringify([a.keep, a.members, a.steps]) === JSON.stringify([b.keep, b.members, b.steps]);

/** Moved aside until nothing that was there lies in just the same place, and onto the sheet if its origin is beside it. */
function besideOthers(job: Job, before: Job, chosen: Chosen): Job {
  const first = partOf(job, chosen.partIds[0] ?? null);
  if (!first) return job;
  const firstMatrix = partMatrix(job.parts, first);
  const { width, height } = job.sheet;
  const isOff = firstMatrix.e < 0 || firstMatrix.f < 0 || firstMatrix.e > width || firstMatrix.f > height;
  let [x, y] = isOff ? [width / 2, height / 2] : [firstMatrix.e, firstMatrix.f];
  const lying = before.parts.map((p) => partMatrix(before.parts, p));
  while (lying.some((m) => Math.hypot(m.e - x, m.f - y) < 1e-3)) {
    x += BESIDE_MM;
    y -= BESIDE_MM;
  }
  return moveChosen(job, chosen, x - firstMatrix.e, y - firstMatrix.f);
}
