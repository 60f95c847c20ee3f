/** Names laid as a job says: nested, in rows and columns, or on blanks. */
import type { Job } from '../document/schema';
import type { FaceLookup } from '../prepare/prepared';
import type { FilledWith } from '../roster/fields';
import type { RowLayout } from '../schema/layout';
import { rowsOnBlanks } from './blanks';
import type { Evaluator } from './evaluate';
import { type LaidRows, laidOutRows } from './lay-out';
import { rowShapes } from './row-shapes';

/** What of the work is done before rows are laid: their shapes. */
const SHAPES_SHARE = 0.1;

/** Lay the names of a job; yields the share that is done, with the layout whenever that became better. `moves`: how long it is searched for. */
export function* laidRows(
  job: Job,
  asked: { readonly filling: FilledWith; readonly layout: RowLayout; readonly moves?: number },
  means: { readonly evaluator: Evaluator; readonly faces: FaceLookup },
): Generator<{ readonly share: number; readonly laid: LaidRows | null }, LaidRows> {
  const { filling, layout, ...search } = asked;
  if (layout.way === 'blanks') {
    const fitting = rowsOnBlanks(job, { filling, layout }, means);
    let step = fitting.next();
    for (; !step.done; step = fitting.next()) yield { share: step.value.done / step.value.of, laid: null };
    return step.value;
  }
  const shaping = rowShapes(job, filling, means, layout.way === 'nested' && layout.apart !== 'no');
  let shape = shaping.next();
  for (; !shape.done; shape = shaping.next())
    yield { share: (SHAPES_SHARE * shape.value.done) / shape.value.of, laid: null };
  const laying = laidOutRows(job, shape.value, layout, search);
  let step = laying.next();
  for (; !step.done; step = laying.next())
    yield { share: SHAPES_SHARE + (1 - SHAPES_SHARE) * step.value.share, laid: step.value.laid };
  return step.value;
}
