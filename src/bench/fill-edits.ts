/** Filling a part: what its inside is worked by, and mending what is found about it. */
import type { Job, Part } from '@/core/document/schema';
import { newCopy } from '@/core/job/defaults';
import { stepIn } from '@/core/job/steps';
import type { PartView } from '@/worker/view';
import { editStep, freeId, measureOf } from './edits';
import { change } from './store';

/** How the inside of a part is worked: not at all, as an area that is scanned, or with lines. */
export type Inside = 'alone' | 'area' | 'lines';

export const insideOf = (part: Part): Inside => {
  if (stepIn(part, 'hatch')?.on && part.work.some((w) => w.what === 'hatch')) return 'lines';
  return part.work.some((w) => w.what === 'fill') ? 'area' : 'alone';
};

/** The operation that suits: lines go to a pen's, an area to an engraving one, else to whatever there is. */
function suiting(job: Job, inside: Inside): string | undefined {
  const kinds = inside === 'lines' ? (['mark', 'engrave', 'score'] as const) : (['engrave', 'mark', 'score'] as const);
  for (const kind of kinds) {
    const found = job.operations.find((o) => o.kind === kind);
    if (found) return found.id;
  }
  return job.operations[0]?.id;
}

/** Work the inside of a part in another way. */
export function setInside(partId: string, inside: Inside, view: PartView): void {
  change((job) => {
    const part = job.parts.find((p) => p.id === partId);
    if (!part) return;
    const before = part.work.find((w) => w.what === 'fill' || w.what === 'hatch')?.operation;
    part.work = part.work.filter((w) => w.what !== 'fill' && w.what !== 'hatch');
    if (inside !== 'alone') {
      const operation = before ?? suiting(job, inside);
      if (operation) part.work.unshift({ what: inside === 'lines' ? 'hatch' : 'fill', operation });
    }
    const step = stepIn(part, 'hatch');
    if (inside !== 'lines') {
      if (step?.on && inside === 'alone' && part.work.length === 0) {
        // The lines took the outline's place, and give it back.
        const cut = job.operations.find((o) => o.kind === 'cut');
        if (cut) part.work.push({ what: 'outline', operation: cut.id });
      }
      if (step) step.on = false;
      return;
    }
    editStep(job, partId, 'hatch', measureOf(job, view), (s) => {
      s.on = true;
    });
    // The lines take the place of an outline that would cut or draw the same letters.
    part.work = part.work.filter((w) => w.what !== 'outline');
  });
}

/** Strokes over what the lines miss. */
export function fillTheRest(partId: string): void {
  change((job) => {
    const part = job.parts.find((p) => p.id === partId);
    const step = part && stepIn(part, 'hatch');
    if (step) step.rest = true;
  });
}

/** Cut a member out of what its part is made of, instead of joining it. */
export function punchMember(partId: string, memberId: string): void {
  change((job) => {
    const members = job.parts.find((p) => p.id === partId)?.members;
    const at = members?.findIndex((m) => m.id === memberId) ?? -1;
    const [member] = members && at >= 0 ? members.splice(at, 1) : [];
    if (!member) return;
    member.role = 'punch';
    members?.push(member);
  });
}

/**
 * Cut a part out of another that is filled around it. Plain members go over as they are; a part with steps of its own stays
 * behind, out of sight, and is cut out as a live copy.
 */
export function cutOutOf(outerId: string, innerId: string): void {
  change((job) => {
    const outer = job.parts.find((p) => p.id === outerId);
    const inner = job.parts.find((p) => p.id === innerId);
    if (!outer || !inner) return;
    const isPlain =
      inner.members.every((m) => m.role === 'join') &&
      !job.parts.some((p) => p.members.some((m) => m.kind === 'copy' && m.of === innerId)) &&
      inner.steps.every((s) => s.kind === 'weld' || s.kind === 'hatch' || !s.on);
    if (!isPlain) {
      outer.members.push({
        ...newCopy(freeId(job, 'copy'), innerId, job.sheet),
        role: 'punch',
        follows: true,
        placement: { x: 0, y: 0, turn: 0, mirror: false },
      });
      inner.hidden = true;
      return;
    }
    const taken = new Set(outer.members.map((m) => m.id));
    for (const member of inner.members)
      outer.members.push({ ...member, id: taken.has(member.id) ? freeId(job, member.kind) : member.id, role: 'punch' });
    job.parts = job.parts.filter((p) => p.id !== innerId);
  });
}
