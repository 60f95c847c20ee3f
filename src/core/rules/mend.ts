/** Mending what was found, in one press. */
import { changed, partOf } from '../commands/changed';
import type { Job } from '../document/schema';
import type { Finding } from '../inspect/finding';
import { stepIn } from '../kinds/steps';
import type { Seen } from './rule';
import { MENDS } from './rules';

/** What a press does: change the job, or go to where it is done by hand. */
export type Mending = { readonly words: string } & (
  | { readonly run: (job: Job, seen: Seen) => Job }
  | { readonly byHand: 'lines'; readonly partId: string; readonly letter: string }
);

/** How a finding is mended; null where that takes more than a press, or its part is locked or gone. */
export function mendingOf(job: Job, { code, partId, mend: args }: Finding): Mending | null {
  const known = args && MENDS.get(code);
  const part = partOf(job, partId);
  if (!known || part?.locked || (!part && partId !== null)) return null;
  if (known.by === 'command') {
    const { words, apply } = known.mend;
    return { words, run: (now, seen) => apply(now, partId ?? '', args, seen) };
  }
  if (!part) return null;
  const { kind, mend } = known;
  if ('byHand' in mend)
    return { words: mend.words, byHand: mend.byHand, partId: part.id, letter: String(args.letter ?? '') };
  return {
    words: mend.words,
    run: (now) =>
      changed(now, (draft) => {
        const changing = partOf(draft, part.id);
        const step = changing && stepIn(changing, kind);
        if (!changing || !step) return;
        if ('step' in mend) mend.step(step);
        else changing.steps = changing.steps.filter((s) => s.kind !== kind);
      }),
  };
}
