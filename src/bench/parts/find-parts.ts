/** Finding parts in the list: by words, and by what is done to them. */

import { partsOnSheet } from '@/core/document/on-sheet';
import { aboutPart, partWords } from '@/core/document/part-words';
import type { Job, Part } from '@/core/document/schema';

/** What is looked for: all of the words, and one thing about a part; an operation stands for the parts it works. */
export type Sought = {
  readonly words: string;
  readonly about: '' | 'found' | 'unworked' | 'locked' | 'hidden' | 'reference' | { readonly operation: string };
};

/** Nothing in particular. */
export const ANY: Sought = { words: '', about: '' };

/** The parts that fit, in their order; `found` are those that findings are about. */
export function partsSought(job: Job, { words, about }: Sought, found: ReadonlySet<string>): Part[] {
  const sought = words.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = (part: Part): boolean => {
    if (about === '') return true;
    if (typeof about === 'object') return part.work.some((w) => w.operation === about.operation);
    switch (about) {
      case 'found':
        return found.has(part.id);
      case 'unworked':
        return part.work.length === 0 && !part.reference;
      case 'locked':
        return part.locked;
      case 'hidden':
        return part.hidden;
      case 'reference':
        return part.reference;
    }
  };
  return partsOnSheet(job).filter((part) => {
    if (!fits(part)) return false;
    const said = `${partWords(part)} ${aboutPart(part)}`.toLowerCase();
    return sought.every((word) => said.includes(word));
  });
}
