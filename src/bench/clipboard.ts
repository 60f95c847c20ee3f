/** Copy, cut, paste and duplicate. What is copied is kept in this browser, so that it can be put into another job. */

import { duplicate, removeMember, removeParts } from '@/core/commands/parts';
import { type Copied, copyOf, paste, pasteWords, readCopied } from '@/core/commands/paste';
import { chosenNow } from './chosen';
import { ownMiddle } from './seen';
import { dispatch, say, select, selectParts, useBench } from './store';

const KEY = 'needlefile:copied';

/** Whether it could be kept. */
function keep(copied: Copied): boolean {
  try {
    localStorage.setItem(KEY, JSON.stringify(copied));
    say(null);
    return true;
  } catch {
    say('This is too large for the browser to hold; nothing was copied.');
    return false;
  }
}

function kept(): Copied | null {
  try {
    return readCopied(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
  } catch {
    return null;
  }
}

/** Whether something was copied. */
export function copyChosen(): boolean {
  const copied = copyOf(useBench.getState().job, chosenNow());
  return copied !== null && keep(copied);
}

/** Copy what is chosen, and take it out; whether something was. */
export function cutChosen(): boolean {
  const { partIds, memberId } = chosenNow();
  const { job } = useBench.getState();
  const free = partIds.filter((id) => job.parts.find((p) => p.id === id)?.locked === false);
  if (free.length === 0 || !copyChosen()) return false;
  dispatch((now) => (memberId !== null ? removeMember(now, free[0] as string, memberId) : removeParts(now, free)));
  return true;
}

/** Put in what was copied here or in another window, and choose it. */
export function pasteCopied(): void {
  const copied = kept();
  if (!copied) {
    say('Nothing was copied yet.');
    return;
  }
  const { job, selection } = useBench.getState();
  const done = paste(job, copied, selection.partId, ownMiddle);
  say(done.sentence);
  dispatch(() => done.job);
  choose(done.chosen);
}

/** Put words from elsewhere in as lettering, and choose it. */
export function pasteText(text: string): void {
  const { job, selection } = useBench.getState();
  const done = pasteWords(job, text, selection.partId);
  say(done.sentence);
  dispatch(() => done.job);
  choose(done.chosen);
}

/** The words in what was copied, a line each: what a program of words gets of it. */
export function copiedWords(): string {
  const copied = kept();
  if (!copied) return '';
  const { document, partIds, memberId } = copied;
  return document.parts
    .filter((p) => partIds.includes(p.id))
    .flatMap((p) => p.members)
    .flatMap((m) => (m.kind === 'lettering' && (memberId === null || m.id === memberId) ? [m.text] : []))
    .join('\n');
}

/** Put a copy of what is chosen beside it, and choose that. */
export function duplicateChosen(): void {
  const { job } = useBench.getState();
  const done = duplicate(job, chosenNow());
  if (done.job === job) return;
  dispatch(() => done.job);
  choose(done.chosen);
}

const choose = ({ partIds, memberId }: ReturnType<typeof chosenNow>): void => {
  if (memberId !== null) select(partIds[0] ?? null, memberId);
  else if (partIds.length > 0) selectParts(partIds);
};
