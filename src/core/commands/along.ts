/** Parts that go along with others: copies that stay on what they copy, and the border around words. */

import { partWords } from '../document/part-words';
import type { Copy, Job, Part } from '../document/schema';
import { type Box, boxHeight, compose, isEmptyBox, translation } from '../geometry/point';
import type { Measure } from '../kinds/step';
import { newStep, stepIn, withStep } from '../kinds/steps';
import { workBy } from '../kinds/works';
import { partMatrix, placementFor, placementMatrix, placementOf, UNMOVED } from '../prepare/placement';
import { changed, type Done, type MiddleOf, memberOf, partOf } from './changed';
import { newCopy, newPart } from './defaults';
import { freeId } from './ids';

/** Whether a part leads, straight or by way of others, to another that it goes along with. */
export function follows(job: Job, part: Part, leaderId: string): boolean {
  const met = new Set<string>();
  for (let id = part.along; id !== null && !met.has(id); id = partOf(job, id)?.along ?? null) {
    if (id === leaderId) return true;
    met.add(id);
  }
  return false;
}

/**
 * Let a part go along with another, or by itself; it does not move by this. Nothing happens where the other already goes along
 * with it.
 */
export function goAlong(job: Job, partId: string, leaderId: string | null): Job {
  const part = partOf(job, partId);
  const leader = partOf(job, leaderId);
  if (!part || part.along === leaderId || (leaderId !== null && !leader)) return job;
  if (leader && (leader.id === partId || follows(job, leader, partId))) return job;
  return changed(job, (draft) => {
    const target = partOf(draft, partId) as Part;
    target.along = leaderId;
    target.placement = placementFor(job.parts, { ...part, along: leaderId }, partMatrix(job.parts, part));
  });
}

/** Let a copy, with the part it is in, go along with what it copies, or stay where it is; it does not move by this. */
export function setFollows(
  job: Job,
  partId: string,
  { memberId, on, middleOf }: { readonly memberId: string; readonly on: boolean; readonly middleOf: MiddleOf },
): Job {
  const copy = memberOf(job, partId, memberId);
  if (copy?.kind !== 'copy') return job;
  const middle = middleOf(copy.of);
  const way = on ? -1 : 1;
  const set = changed(job, (draft) => {
    if (copy.follows === on) return;
    const target = memberOf(draft, partId, memberId) as Copy;
    target.follows = on;
    target.placement = placementOf(
      compose(placementMatrix(copy.placement), translation(way * middle.x, way * middle.y)),
    );
  });
  if (on) return goAlong(set, partId, copy.of);
  return partOf(job, partId)?.along === copy.of ? goAlong(set, partId, null) : set;
}

/**
 * What is made around a part from its outline: the same outline cut while the part is engraved, a backing at a distance, or a line at a
 * distance that is scored.
 */
export type AroundIt = 'edge' | 'backing' | 'outline';

const AROUND_NAMES: Readonly<Record<AroundIt, string>> = {
  edge: 'Edge of',
  backing: 'Border of',
  outline: 'Outline around',
};

/** Something around a part, as a part of its own that goes along with it; null where there is no such part. */
export function addAround(
  job: Job,
  partId: string,
  what: AroundIt,
  measure: Measure,
): Done<{ readonly partId: string; readonly memberId: string }> | null {
  const at = job.parts.findIndex((p) => p.id === partId);
  const original = job.parts[at];
  if (!original) return null;
  const copy: Copy = { ...newCopy(freeId(job, 'copy'), partId, job.sheet), follows: true, placement: { ...UNMOVED } };
  const name = `${AROUND_NAMES[what]} ${partWords(original)}`.slice(0, 100);
  const made = newPart(freeId(job, 'part'), name, [copy], job);
  const steps = what === 'edge' ? made.steps : withStep(made.steps, newStep('border', measure));
  const around: Part = { ...made, along: partId, steps };
  const added = changed(job, (draft) => void draft.parts.splice(at + 1, 0, around));
  const ids = { partId: around.id, memberId: copy.id };
  if (what !== 'outline') return { job: setBackingUse(added, around.id, 'engraved', null), ...ids };
  const line = job.operations.find((o) => o.kind === 'score') ?? job.operations.find((o) => o.kind === 'mark');
  return {
    job: changed(added, (draft) => {
      const part = partOf(draft, around.id);
      if (part) part.work = line ? [workBy('outline', line.id)] : [];
    }),
    ...ids,
  };
}

/** What becomes of the words on a backing. */
export type BackingUse = 'glued' | 'engraved';

/** The part that a border goes around. */
function bordered(job: Job, part: Part): Part | null {
  const copy = part.members.find((m): m is Copy => m.kind === 'copy');
  return (copy && partOf(job, copy.of)) ?? null;
}

/** Whether the words of a border's part are cut to be glued on, or engraved; null for a part that is no border. */
export function backingUse(job: Job, part: Part): BackingUse | null {
  const original = bordered(job, part);
  if (!original || !stepIn(part, 'border')) return null;
  return original.work.some((w) => w.what === 'fill') && part.along === original.id ? 'engraved' : 'glued';
}

/** Distance between two pieces laid side by side, in mm. */
const BESIDE_MM = 5;

/** Bounds on the sheet of the words and of their border, as they were computed. */
export type BackingBoxes = { readonly words: Box; readonly border: Box };

/**
 * Cut the words too and lay the backing below them, or engrave them on it. Without knowing how large they are the backing stays
 * where it is.
 */
export function setBackingUse(job: Job, partId: string, use: BackingUse, boxes: BackingBoxes | null): Job {
  const part = partOf(job, partId);
  const original = part && bordered(job, part);
  if (!part || !original) return job;
  const operation = (kind: 'cut' | 'engrave') => job.operations.find((o) => o.kind === kind)?.id;
  const [cut, engrave] = [operation('cut'), operation('engrave')];
  const kindOf = (work: Part['work'][number]) => job.operations.find((o) => o.id === work.operation)?.kind;
  // Only cutting and engraving change places; what else is done to the words stays.
  const other = original.work.filter((w) => kindOf(w) !== 'cut' && kindOf(w) !== 'engrave');
  const worked = changed(job, (draft) => {
    const [backing, words] = [partOf(draft, partId) as Part, partOf(draft, original.id) as Part];
    if (cut) backing.work = [workBy('outline', cut)];
    if (use === 'engraved' && engrave) words.work = [...other, workBy('fill', engrave)];
    if (use === 'glued' && cut) words.work = [...other, workBy('outline', cut)];
  });
  if (use === 'engraved') {
    const on = goAlong(worked, partId, original.id);
    return changed(on, (draft) => {
      const backing = partOf(draft, partId) as Part;
      backing.placement = { ...UNMOVED };
      for (const m of backing.members)
        if (m.kind === 'copy' && m.of === original.id && !m.follows) {
          m.follows = true;
          m.placement = { ...UNMOVED };
        }
    });
  }
  if (part.along !== original.id || !boxes || isEmptyBox(boxes.words)) return worked;
  const free = goAlong(worked, partId, null);
  const { words, border } = boxes;
  const top = isEmptyBox(border) ? words.maxY + (stepIn(part, 'border')?.distance ?? 0) : border.maxY;
  const down = Math.round((top - words.minY + BESIDE_MM) * 1e3) / 1e3;
  return boxHeight(words) > 0
    ? changed(free, (draft) => {
        (partOf(draft, partId) as Part).placement.y -= down;
      })
    : free;
}
