/** Typing words: what is anchored to letters goes along, those picked one by one too. */
import { setWords } from '@/core/job/words';
import { letterMap } from '@/core/lettering/changes';
import { memberOf } from './edits';
import { change, pick, useBench } from './store';

export function typeWords(partId: string, memberId: string, text: string): void {
  const { job, picked, selection } = useBench.getState();
  const member = memberOf(job, partId, memberId);
  if (member?.kind !== 'lettering') return;
  change((draft) => setWords(draft, partId, memberId, text), `words:${memberId}`);
  if (picked === null || selection.memberId !== memberId) return;
  const map = letterMap(member.text, text);
  pick(picked.map(map).filter((at) => at !== null));
}
