/** Jobs kept as starters. */
import type { Job } from '../document/schema';
import { LIMITS } from '../limits';
import { cutTo } from '../units/text';
import { changed } from './changed';

/** What is asked for words that are called nothing. */
const WORDS = 'Words';

/**
 * A job as a starter: every lettering with words is asked for, by the name of its part or by what it says, unless some are asked
 * for already.
 */
export const asStarter = (job: Job): Job =>
  changed(job, (draft) => {
    draft.starter ??= { about: '' };
    const lettering = draft.parts.flatMap((part) =>
      part.members.flatMap((member) => (member.kind === 'lettering' ? [{ part, member }] : [])),
    );
    if (lettering.some(({ member }) => member.asked !== null)) return;
    for (const { part, member } of lettering.slice(0, LIMITS.starterWords)) {
      const said = member.text.split('\n')[0]?.trim() ?? '';
      member.asked = cutTo(part.name || said || WORDS, LIMITS.nameCharacters);
    }
  });
