/** Going inside what is chosen, a step at a time. */
import { memberInHand } from './chosen';
import { focusWords } from './focus-words';
import { enterNodes } from './nodes/hand';
import { goToStation, pick, select, useBench } from './store';

/** A step inside: from a part to its member, from that to its letters or nodes. */
export function goInside(memberId: string | null = null): void {
  const { job, selection } = useBench.getState();
  const { partId, others } = selection;
  const part = job.parts.find((p) => p.id === partId);
  if (!part || part.locked || others.length > 0 || useBench.getState().pen) return;
  // A path that is all of its part opens its nodes at once, as words that are all of theirs open.
  const [only] = part.members;
  if (part.members.length === 1 && only?.kind === 'path' && selection.memberId === null) {
    select(part.id, only.id);
    goToStation('close');
    void enterNodes(part.id, only.id);
    return;
  }
  if (selection.memberId === null || (memberId !== null && memberId !== selection.memberId)) {
    select(part.id, memberId ?? part.members[0]?.id ?? null);
    return;
  }
  const member = memberInHand(job, selection);
  if (member?.kind === 'lettering') {
    goToStation('compose');
    select(part.id, member.id);
    pick([]);
    return;
  }
  goToStation('close');
  void enterNodes(part.id, selection.memberId);
}

/** To the words of what is chosen, inside it where it is made of several things. */
export function goToWords(): void {
  const { job, selection } = useBench.getState();
  const part = job.parts.find((p) => p.id === selection.partId);
  const words = part?.members.find((m) => m.kind === 'lettering');
  if (part && words && !part.locked && memberInHand(job, selection)?.kind !== 'lettering') select(part.id, words.id);
  focusWords();
}
