/** Typing words: what is anchored to letters goes along, those picked one by one too. */

import { memberOf } from '@/core/commands/changed';
import { type Case, setCase, setWords } from '@/core/commands/words';
import { letterMap } from '@/core/lettering/changes';
import { setFieldCase } from '@/core/roster/case';
import { hasFields } from '@/core/roster/fields';
import { ownWordsOf, placeOfRow } from '@/core/roster/in-row';
import { dispatch, dispatchDocument, pick, useBench } from './store';

/** Whether words of a lettering are changed as they are kept, with their fields, and not as a row has them. */
function isKept(partId: string, memberId: string): boolean {
  const { document, job, rowId, changeFor } = useBench.getState();
  if (document === job || changeFor === 'row') return false;
  return ownWordsOf(document, placeOfRow(document, rowId), partId, memberId) === null;
}

/** Put a text in place of the words of a lettering; what is anchored to its letters goes along. */
export function typeWords(partId: string, memberId: string, text: string): void {
  const { job, picked, selection } = useBench.getState();
  const member = memberOf(job, partId, memberId);
  if (member?.kind !== 'lettering') return;
  const merge = `words:${memberId}`;
  if (isKept(partId, memberId)) dispatchDocument((now) => setWords(now, partId, memberId, text), merge);
  else dispatchOwn((now) => setWords(now, partId, memberId, text), merge);
  if (picked === null || selection.memberId !== memberId) return;
  const after = memberOf(useBench.getState().job, partId, memberId);
  const map = letterMap(member.text, after?.kind === 'lettering' ? after.text : text);
  pick(picked.map(map).filter((at) => at !== null));
}

/** Words of a row's own are that row's, whoever else changes are for. */
function dispatchOwn(command: Parameters<typeof dispatch>[0], merge: string): void {
  const { document, job, changeFor } = useBench.getState();
  const isToTurn = document !== job && changeFor !== 'row';
  if (isToTurn) useBench.setState({ changeFor: 'row' });
  dispatch(command, merge);
  if (isToTurn) useBench.setState({ changeFor });
}

/** Write words in capitals, in small letters, or each with a capital; with fields, what the rows have for them too. */
export function writeIn(partId: string, memberId: string, as: Case): void {
  const { document } = useBench.getState();
  const kept = memberOf(document, partId, memberId);
  if (kept?.kind === 'lettering' && hasFields(kept.text) && isKept(partId, memberId))
    dispatchDocument((job) => setFieldCase(job, partId, memberId, as));
  else dispatch((job) => setCase(job, partId, memberId, as));
}
