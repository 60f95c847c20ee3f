/** Lines that fill, in the order they are drawn: the pass along the edge first or last. */
import { hatchDrawables } from '../../toolpath/hatch/hatch-drawn';
import { stepIn } from '../steps';
import type { WorkKind } from '../work';

/** Going along hatch lines. */
export const hatchWork: WorkKind<'hatch'> = {
  what: 'hatch',
  word: 'Hatch lines',
  describes: 'lines that fill it',
  draws: 'hatch',
  comesOff: false,
  toDraw({ linework }, steps) {
    const hatch = linework.hatch;
    if (!hatch) return {};
    return { ordered: hatchDrawables(hatch, stepIn({ steps }, 'hatch')?.outline === 'first'), lengthMm: hatch.drawnMm };
  },
};
