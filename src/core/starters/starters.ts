/** The starters that ship, in the order they are shown. */
import { type ShippedStarter, starter } from './draft';
import { OF_LINES } from './of-lines';
import { OF_NAMES } from './of-names';
import { OF_PLATES } from './of-plates';

const EMPTY = starter('empty', 'Empty sheet', 'Nothing is on it yet.', {
  sheet: { width: 600, height: 400 },
  parts: [],
});

/** All starters that ship; the last is the empty sheet. */
export const STARTERS: readonly ShippedStarter[] = [...OF_NAMES, ...OF_PLATES, ...OF_LINES, EMPTY];
