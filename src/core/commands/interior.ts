/** The inside of a part: what it is worked by, and mending what is found about it. */

import type { Copy, Job, Part, Work } from '../document/schema';
import type { Measure } from '../kinds/step';
import { stepIn } from '../kinds/steps';
import { workBy, workOn } from '../kinds/works';
import { UNMOVED } from '../prepare/placement';
import { madeFrom } from '../schema/members';
import type { HatchTool } from '../schema/tools';
import { changed, type MiddleOf, partOf } from './changed';
import { betweenParts, inCoordinates } from './coordinates';
import { newCopy } from './defaults';
import { freeId } from './ids';
import { removeParts } from './parts';
import { editStep } from './steps';

/** How the inside of a part is worked: not at all, as an area that is scanned, or with lines. */
export type Interior = 'alone' | 'area' | 'lines';

/** How the inside of a part is worked now. */
export const interiorOf = (part: Part): Interior => {
  if (stepIn(part, 'hatch')?.on && part.work.some((w) => w.what === 'hatch')) return 'lines';
  return part.work.some((w) => w.what === 'fill') ? 'area' : 'alone';
};

/** The operation that suits: lines go to a pen's, an area to an engraving one, else to whatever there is. */
function suiting(job: Job, inside: Interior): string | undefined {
  const kinds = inside === 'lines' ? (['mark', 'engrave', 'score'] as const) : (['engrave', 'mark', 'score'] as const);
  for (const kind of kinds) {
    const found = job.operations.find((o) => o.kind === kind);
    if (found) return found.id;
  }
  return job.operations[0]?.id;
}

/** Work the inside of a part in another way; `measure` is for the lines it gets. */
export function setInside(job: Job, partId: string, inside: Interior, measure: Measure): Job {
  const worked = changed(job, (draft) => {
    const part = partOf(draft, partId);
    if (!part) return;
    const before = (workOn(part.work, 'fill') ?? workOn(part.work, 'hatch'))?.operation;
    const isInside = (w: Work) => w.what === 'fill' || w.what === 'hatch';
    // Letters by themselves go along, to be filled in the other way.
    const alone = inside === 'alone' ? [] : part.work.filter((w) => isInside(w) && w.only !== null);
    const what = inside === 'lines' ? 'hatch' : 'fill';
    part.work = [...alone.map((w) => ({ ...w, what }) as const), ...part.work.filter((w) => !isInside(w))];
    if (inside !== 'alone') {
      const operation = before ?? suiting(draft, inside);
      if (operation) part.work.unshift(workBy(what, operation));
    }
    // The lines take the place of an outline that would cut or draw the same letters.
    if (inside === 'lines') part.work = part.work.filter((w) => w.what !== 'outline');
    const step = stepIn(part, 'hatch');
    if (inside === 'lines' || !step) return;
    if (step.on && inside === 'alone' && part.work.length === 0) {
      // The lines took the outline's place, and give it back.
      const cut = draft.operations.find((o) => o.kind === 'cut');
      if (cut) part.work.push(workBy('outline', cut.id));
    }
    step.on = false;
  });
  if (inside !== 'lines') return worked;
  return editStep(worked, partId, 'hatch', measure, (step) => {
    step.on = true;
  });
}

/** Whether a tool turns and takes stock away, rather than drawing as a pen or a beam does. */
export const isTurning = ({ shape }: Pick<HatchTool, 'shape'>): boolean => shape !== 'line';

/**
 * Fill a part with another tool. Where it is of the other kind, the work goes to the first operation that suits: engraving for one that
 * turns, marking for a pen; from an operation of a third kind it stays there.
 */
export const takeTool = (job: Job, partId: string, tool: HatchTool): Job =>
  changed(job, (draft) => {
    const part = partOf(draft, partId);
    const step = part && stepIn(part, 'hatch');
    if (!part || !step) return;
    const [from, to] = isTurning(tool) ? (['mark', 'engrave'] as const) : (['engrave', 'mark'] as const);
    const isOther = isTurning(tool) !== isTurning(step.tool);
    step.tool = tool;
    const work = workOn(part.work, 'hatch');
    const now = draft.operations.find((o) => o.id === work?.operation);
    const next = draft.operations.find((o) => o.kind === to && o.on);
    if (isOther && work && next && now?.kind === from) work.operation = next.id;
  });

/** Cut a member out of what its part is made of, instead of joining it. */
export const punchMember = (job: Job, partId: string, memberId: string): Job =>
  changed(job, (draft) => {
    const members = partOf(draft, partId)?.members;
    const at = members?.findIndex((m) => m.id === memberId) ?? -1;
    const [member] = members && at >= 0 ? members.splice(at, 1) : [];
    if (!member) return;
    member.role = 'punch';
    members?.push(member);
  });

/** Keep a part to what lies within another: a live copy of that at its end keeps the rest out. */
export function keepWithin(job: Job, partId: string, otherId: string, middleOf: MiddleOf): Job {
  const part = partOf(job, partId);
  const other = partOf(job, otherId);
  if (!part || !other || part === other || part.locked) return job;
  const copy: Copy = { ...newCopy(freeId(job, 'copy'), otherId, job.sheet), follows: true, placement: UNMOVED };
  const carried = inCoordinates(copy, betweenParts(job, other, part), middleOf);
  return changed(job, (draft) => void partOf(draft, partId)?.members.push({ ...carried, role: 'clip' }));
}

/**
 * Cut a part out of another that is filled around it. Plain members go over as they are; a part with steps of its own stays
 * behind, out of sight, and is cut out as a live copy.
 */
export function cutOutOf(job: Job, outerId: string, innerId: string, middleOf: MiddleOf): Job {
  const outer = partOf(job, outerId);
  const inner = partOf(job, innerId);
  if (!outer || !inner || outer === inner) return job;
  const into = betweenParts(job, inner, outer);
  const isPlain =
    inner.overallWidth === null &&
    inner.members.every((m) => m.role === 'join') &&
    !job.parts.some((p) => p.along === innerId || p.members.some((m) => madeFrom(m).includes(innerId))) &&
    inner.steps.every((s) => s.kind === 'weld' || s.kind === 'hatch' || !s.on);
  if (!isPlain) {
    const copy: Copy = { ...newCopy(freeId(job, 'copy'), innerId, job.sheet), follows: true, placement: UNMOVED };
    const carried = inCoordinates(copy, into, middleOf);
    return changed(job, (draft) => {
      partOf(draft, outerId)?.members.push({ ...carried, role: 'punch' });
      (partOf(draft, innerId) as Part).hidden = true;
    });
  }
  const ids = new Set(outer.members.map((m) => m.id));
  const joined = changed(job, (draft) => {
    for (const member of inner.members)
      partOf(draft, outerId)?.members.push({
        ...inCoordinates(member, into, middleOf),
        id: ids.has(member.id) ? freeId(draft, member.kind) : member.id,
        role: 'punch',
      });
  });
  return removeParts(joined, [innerId]);
}
