/** What screen readers are told: what was chosen, where it came to lie, and how much there is to look at. */
import { useEffect, useState } from 'react';
import { isEmptyBox } from '@/core/geometry/point';
import { openGroups } from '@/core/rules/groups';
import { formatLength } from '@/core/units/quantity';
import { chosenBox, chosenIn, chosenWords } from './chosen';
import { useBench } from './store';

/** How long a pause is after which it is said, in ms: keys that follow each other are said once. */
const PAUSE_MS = 500;

/** What is chosen and where it lies, in words. */
function chosenNowWords(): string {
  const { job, selection, view } = useBench.getState();
  if (selection.partId === null) return 'Nothing chosen.';
  const chosen = chosenIn(selection, view);
  const box = chosenBox(chosen, view);
  const words = chosenWords(job, chosen);
  if (isEmptyBox(box)) return `${words}.`;
  return `${words}, ${formatLength(box.minX, job.units)} from the left, ${formatLength(box.minY, job.units)} from the bottom.`;
}

function foundWords(): string {
  const count = openGroups(useBench.getState().view?.findings ?? []).length;
  return count === 0 ? 'Nothing more to look at.' : count === 1 ? '1 thing to look at.' : `${count} things to look at.`;
}

/** A line that is not seen, but read out. */
export function Announce() {
  const [words, setWords] = useState('');
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let said = { chosen: chosenNowWords(), found: foundWords() };
    const leave = useBench.subscribe((now, before) => {
      if (now.selection === before.selection && now.view === before.view) return;
      clearTimeout(timer);
      timer = setTimeout(() => {
        const next = { chosen: chosenNowWords(), found: foundWords() };
        const news = [
          next.chosen === said.chosen ? '' : next.chosen,
          next.found === said.found ? '' : next.found,
        ].filter(Boolean);
        if (news.length > 0) setWords(news.join(' '));
        said = next;
      }, PAUSE_MS);
    });
    return () => {
      clearTimeout(timer);
      leave();
    };
  }, []);
  return (
    <p className="visually-hidden" role="status" aria-label="What has changed">
      {words}
    </p>
  );
}
