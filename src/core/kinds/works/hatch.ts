/** Lines that fill, in the order they are drawn: the pass along the edge first or last. */
import type { WorkKind } from '../work';

/** Going along hatch lines. */
export const hatchWork: WorkKind<'hatch'> = {
  what: 'hatch',
  word: 'Hatch lines',
  describes: 'lines that fill it',
  draws: 'hatch',
  comesOff: false,
  toDraw: ({ linework: { hatch } }) => (hatch ? { fillings: [hatch], lengthMm: hatch.drawnMm } : {}),
};
