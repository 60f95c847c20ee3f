/** Typing words: what is anchored to letters goes along, those picked one by one too. */

import { memberOf } from '@/core/commands/changed';
import { setWords } from '@/core/commands/words';
import { letterMap } from '@/core/lettering/changes';
import { dispatch, pick, useBench } from './store';

/** Put a text in place of the words of a lettering; what is anchored to its letters goes along. */
export function typeWords(partId: string, memberId: string, text: string): void {
  const { job, picked, selection } = useBench.getState();
  const member = memberOf(job, partId, memberId);
  if (member?.kind !== 'lettering') return;
  dispatch((now) => setWords(now, partId, memberId, text), `words:${memberId}`);
  if (picked === null || selection.memberId !== memberId) return;
  const map = letterMap(member.text, text);
  pick(picked.map(map).filter((at) => at !== null));
}
