/** Adding, removing and doubling parts and members; taking parts apart and putting them together. */

import { partWords } from '../document/part-words';
import type { Job, Member, Part } from '../document/schema';
import { applyMatrix, boxWidth, invert, type Point } from '../geometry/point';
import { workBy } from '../kinds/works';
import { partMatrix, placementFor, placementOf } from '../prepare/placement';
import { faceOf } from '../schema/lettering';
import { madeFrom, remadeFrom } from '../schema/members';
import {
  type Around,
  besideIn,
  placeBeside,
  roughBounds,
  setAlike,
  sizedAlike,
  wordsBeside,
  workAlike,
} from './beside';
import { changed, type Done, type MiddleOf, memberOf, partOf, plain, type Refusable } from './changed';
import { type Chosen, moveChosen } from './chosen';
import { betweenParts, inCoordinates } from './coordinates';
import { newPart } from './defaults';
import { isOneLine } from './faces';
import { freeId } from './ids';
import { makeMember, type NewThing } from './new-member';
import { putTogether, splitPart } from './regroup';

/** Ornaments are worked as the words they come beside; panels and spikes are cut. */
const ORNAMENTS: ReadonlySet<Member['kind']> = new Set(['lettering', 'bar', 'heart', 'star', 'polygon']);

/** A new member alike to what it comes beside. */
function makeAlike(job: Job, kind: NewThing, around: Around): Member {
  const member = makeMember(job, kind);
  const words = wordsBeside(job, around);
  if (member.kind === 'lettering') {
    if (!words) return member;
    const alike = setAlike(member, words.words, words.capHeightMm);
    // In a face of single lines whatever stands beside it, as large as that.
    return kind === 'one-line lettering' && !isOneLine(alike) ? { ...alike, ...faceOf(member) } : alike;
  }
  const part = besideIn(job, around);
  const box = part && around.boxes.get(part.id);
  return 'width' in member && box ? sizedAlike(member, box) : member;
}

/**
 * A new part with one member: beside what is there, in the typeface, size and operations of the words next to it; in the middle of the
 * sheet where nothing is.
 */
export function addPart(
  job: Job,
  kind: NewThing,
  around: Around = NOTHING_AROUND,
): Done<{ readonly partId: string; readonly memberId: string }> {
  const made = makeAlike(job, kind, around);
  const words = wordsBeside(job, around);
  const wordsBox = words && around.boxes.get(words.part.id);
  const at = placeBeside(roughBounds(made, wordsBox ? boxWidth(wordsBox) : 0), job, around);
  const member = { ...made, placement: { ...made.placement, ...at } };
  const partId = freeId(job, 'part');
  const part = newPart(partId, '', [member], job);
  const mark = job.operations.find((o) => o.kind === 'mark');
  const alike =
    kind === 'one-line lettering'
      ? { ...part, ...(mark && { work: [workBy('outline', mark.id)] }) }
      : words && ORNAMENTS.has(member.kind)
        ? { ...part, ...workAlike(words.part) }
        : part;
  return { job: changed(job, (draft) => void draft.parts.push(alike)), partId, memberId: member.id };
}

const NOTHING_AROUND: Around = { beside: null, boxes: new Map(), capHeightOf: () => undefined };

/**
 * A new member at the end of a part: words beneath words, anything else at a point of the sheet; without one, in the middle of the
 * sheet.
 */
export function addMember(
  job: Job,
  partId: string,
  kind: NewThing,
  where: Point | null,
  around: Around = NOTHING_AROUND,
): Done<{ readonly memberId: string | null }> {
  const part = partOf(job, partId);
  if (!part) return { job, memberId: null };
  const beside = { ...around, beside: partId };
  const member = makeAlike(job, kind, beside);
  const words = wordsBeside(job, beside);
  const box = around.boxes.get(partId);
  // In a plate words come to its middle; beside words of the same part they come beneath.
  const isBeneath = member.kind === 'lettering' && words?.part === part && box && part.members.every(isLettering);
  const own = roughBounds(member, box ? boxWidth(box) : 0);
  const only = new Map(box ? [[partId, box]] : []);
  const at = applyMatrix(
    invert(partMatrix(job.parts, part)),
    isBeneath ? placeBeside(own, job, { ...beside, boxes: only }) : (where ?? member.placement),
  );
  const place = { x: Math.round(at.x * 1e3) / 1e3, y: Math.round(at.y * 1e3) / 1e3 };
  const placedMember = { ...member, placement: { ...member.placement, ...place } };
  return {
    job: changed(job, (draft) => void partOf(draft, partId)?.members.push(placedMember)),
    memberId: member.id,
  };
}

const isLettering = (member: Member): boolean => member.kind === 'lettering';

/** Take parts out. What went along with one of them stays where it is. */
export const removeParts = (job: Job, partIds: readonly string[]): Job =>
  changed(job, (draft) => {
    for (const part of draft.parts) {
      if (part.along === null || !partIds.includes(part.along) || partIds.includes(part.id)) continue;
      part.placement = placementOf(partMatrix(job.parts, part));
      part.along = null;
    }
    draft.parts = draft.parts.filter((p) => !partIds.includes(p.id));
  });

/** Take a member out; a part without members goes too. */
export function removeMember(job: Job, partId: string, memberId: string): Job {
  const part = partOf(job, partId);
  if (!memberOf(job, partId, memberId) || !part) return job;
  if (part.members.length === 1) return removeParts(job, [partId]);
  return changed(job, (draft) => {
    const draftPart = partOf(draft, partId) as Part;
    draftPart.members = draftPart.members.filter((m) => m.id !== memberId);
  });
}

/** How far a copy lies from the original, in mm. */
const COPY_OFFSET_MM = 10;

/** What is chosen once more, beside it and next in the list; what is made is chosen. Copies of locked parts are not locked. */
export function duplicate(job: Job, chosen: Chosen): Done<{ readonly chosen: Chosen }> {
  const by = { dx: COPY_OFFSET_MM, dy: -COPY_OFFSET_MM };
  const { memberId } = chosen;
  if (memberId !== null) {
    const part = partOf(job, chosen.partIds[0] ?? null);
    const member = memberOf(job, part?.id ?? null, memberId);
    if (!part || !member || part.locked) return { job, chosen };
    const id = freeId(job, member.kind);
    const copy = { ...plain(member), id };
    const made = { partIds: [part.id], memberId: id };
    const beside = changed(job, (draft) => {
      const { members } = partOf(draft, part.id) as Part;
      members.splice(members.findIndex((m) => m.id === memberId) + 1, 0, copy);
    });
    return { job: moveChosen(beside, made, by.dx, by.dy), chosen: made };
  }
  const ids = new Map<string, string>();
  for (const part of job.parts)
    if (chosen.partIds.includes(part.id)) ids.set(part.id, freeId(job, 'part', [...ids.values()]));
  const next = changed(job, (draft) => {
    for (const part of job.parts) {
      const id = ids.get(part.id);
      if (id === undefined) continue;
      const copy = relinked(plain(part), ids);
      draft.parts.splice(draft.parts.findIndex((p) => p.id === part.id) + 1, 0, {
        ...copy,
        id,
        locked: false,
        name: part.name ? `${part.name} copy` : '',
      });
      // What goes along with another copy lies beside by that.
      if (copy.along !== part.along) continue;
      const m = partMatrix(job.parts, part);
      const own = partOf(draft, id) as Part;
      own.placement = placementFor(draft.parts, own, { ...m, e: m.e + by.dx, f: m.f + by.dy });
    }
  });
  return { job: next, chosen: { partIds: [...ids.values()], memberId: null } };
}

/** A part whose references to others lead to those made in their place. */
export const relinked = (part: Part, ids: ReadonlyMap<string, string>): Part => ({
  ...part,
  along: part.along === null ? null : (ids.get(part.along) ?? part.along),
  members: part.members.map((m) => remadeFrom(m, (of) => ids.get(of) ?? of)),
});

/** Take a part apart into one for every joined member; its place in the list is theirs. */
export function split(job: Job, partId: string): Refusable {
  const at = job.parts.findIndex((p) => p.id === partId);
  const part = job.parts[at];
  if (!part) return { job, sentence: null };
  const copying = job.parts.find((p) => p.members.some((m) => madeFrom(m).includes(partId)));
  if (copying)
    return {
      job,
      sentence: copying.members.some((m) => m.kind === 'copy' && m.of === partId)
        ? `${partWords(copying)} copies it; taken apart, only the first piece would be copied.`
        : `The words of ${partWords(copying)} lie on it; taken apart, they would lie on the first piece.`,
    };
  if (part.overallWidth !== null)
    return { job, sentence: 'Its overall width is given; taken apart, each piece would be made as wide.' };
  const pieces = splitPart(plain(part), (ids) => freeId(job, 'part', ids));
  return {
    job: pieces.length > 1 ? changed(job, (draft) => void draft.parts.splice(at, 1, ...pieces)) : job,
    sentence: null,
  };
}

/** Put another part into this one. */
export function takeIn(job: Job, partId: string, otherId: string, middleOf: MiddleOf): Refusable {
  const part = partOf(job, partId);
  const other = partOf(job, otherId);
  if (!part || !other || part === other) return { job, sentence: null };
  const into = betweenParts(job, other, part);
  const moved = { ...plain(other), members: plain(other.members).map((m) => inCoordinates(m, into, middleOf)) };
  const together = putTogether(plain(part), moved, (ids) => freeId(job, 'member', ids));
  if (!together.ok) return { job, sentence: together.sentence };
  const joined = changed(job, (draft) => {
    const { ok: _, ...whole } = together;
    Object.assign(partOf(draft, partId) as Part, whole);
  });
  return { job: removeParts(joined, [otherId]), sentence: null };
}

/** Put several parts into the first of them. */
export function group(job: Job, partIds: readonly string[], middleOf: MiddleOf): Refusable {
  const [first, ...otherIds] = partIds;
  let next = job;
  for (const id of otherIds) {
    const done = takeIn(next, first as string, id, middleOf);
    if (done.sentence !== null) return { job, sentence: done.sentence };
    next = done.job;
  }
  return { job: next, sentence: null };
}
