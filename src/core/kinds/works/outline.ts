/** Along outlines and open lines. */
import { pathLength } from '../../geometry/path';
import type { Memory } from '../../memo';
import type { PreparedPart } from '../../prepare/prepared';
import type { WorkKind } from '../work';

/** Length of a part's outlines and open lines: the same wherever it lies, so that it is measured once. */
const lengthOf = (own: PreparedPart, memory: Memory): number =>
  memory.of(own, 'length', () =>
    [...own.outlines.map((o) => o.path), ...own.openPaths].reduce((sum, path) => sum + pathLength(path), 0),
  );

/** Going along outlines, and open paths of drawings. */
export const outlineWork: WorkKind<'outline'> = {
  what: 'outline',
  word: 'Outline',
  describes: 'its outlines and lines',
  draws: null,
  comesOff: true,
  toDraw: (part, _steps, memory) => ({
    polylines: part.openPaths,
    outlines: part.outlines.map(({ path, box }) => ({ kind: 'outline', path, box })),
    lengthMm: lengthOf(part.own, memory),
  }),
};
