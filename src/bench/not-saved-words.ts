/** What is said of a job that could not be saved: why, and where it is meanwhile. */
import type { SaveState } from './state';

const STAY = 'Leave this window open: this browser can’t keep your work either.';

const whereWords = (isKept: boolean | null, kept: string): string[] => {
  if (isKept === null) return [];
  return [isKept ? kept : STAY];
};

/**
 * Why a job is not saved, and where it is meanwhile; null where it is saved, or asks what is to be done.
 * @param isKept whether this browser keeps it; null before that was tried
 */
export function notSavedWords(save: SaveState, isKept: boolean | null): string | null {
  if (save.kind === 'away')
    return [save.sentence, ...whereWords(isKept, 'Your work is kept in this browser, and saved when it is back.')].join(
      ' ',
    );
  if (save.kind === 'refused')
    return [save.sentence, ...whereWords(isKept, 'Until it can be saved it is kept in this browser.')].join(' ');
  return null;
}
