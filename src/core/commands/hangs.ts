/** Whether parts are to come off as one piece. */
import type { Job, Lettering, Part } from '../document/schema';
import type { Measure } from '../kinds/step';
import { stepIn } from '../kinds/steps';
import { changed, partOf } from './changed';
import { newCloseUp } from './defaults';
import { editStep } from './steps';

/** Say whether a part is to hang together; null: it is asked again. */
export const setHangs = (job: Job, partId: string, hangs: Part['hangsTogether']): Job =>
  changed(job, (draft) => {
    const part = draft.parts.find((p) => p.id === partId);
    if (part) part.hangsTogether = hangs;
  });

/**
 * Join what is loose of a part: its words closed up, over spaces and lines as well, where they are not yet; else by ties. `measure` is
 * what first values are made from.
 */
export const joinTogether = (job: Job, partId: string, measure: Measure): Job => {
  const part = partOf(job, partId);
  const words = part?.members.filter((m): m is Lettering => m.kind === 'lettering' && m.role === 'join') ?? [];
  const open = new Set(words.filter((m) => m.closeUp === null).map((m) => m.id));
  if (open.size === 0)
    return editStep(job, partId, 'tie', measure, (step) => {
      step.on = true;
    });
  return changed(job, (draft) => {
    for (const member of partOf(draft, partId)?.members ?? [])
      if (member.kind === 'lettering' && open.has(member.id))
        member.closeUp = { ...newCloseUp(measure), words: true, lines: true };
  });
};

/**
 * Give a part something to hang by, or take it away. At first words hang by a ring, whose strokes seldom have room for a hole, anything else
 * by a hole.
 */
export const setHanging = (job: Job, partId: string, on: boolean, measure: Measure): Job => {
  const part = partOf(job, partId);
  const isNew = part !== undefined && !stepIn(part, 'hang');
  const isWords = part?.members.every((m) => m.kind === 'lettering') === true;
  return editStep(job, partId, 'hang', measure, (step) => {
    step.on = on;
    if (isNew && isWords) step.by = 'ring';
  });
};

/** A job in which all that was never asked is to hang together. */
export const allHanging = (job: Job): Job =>
  changed(job, (draft) => {
    for (const part of draft.parts) part.hangsTogether ??= 'yes';
  });
