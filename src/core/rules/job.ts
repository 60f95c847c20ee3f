/** What is found about a job as a whole: parts filled over each other, operations, lines drawn twice. */
import { cutOutOf } from '../commands/interior';
import { partTitle } from '../document/part-words';
import type { Operation, Part } from '../document/schema';
import { windingAt } from '../geometry/winding';
import { stepIn } from '../kinds/steps';
import type { PreparedPart } from '../prepare/prepared';
import { COLLISION_RULES } from './collide';
import { KERF_RULES } from './kerfs';
import { MACHINE_RULES } from './machine';
import { OPERATION_RULES } from './operations';
import { type JobRule, jobRule } from './rule';
import { drawnTwice } from './twice';

/** How a part is filled, and by which operation that is on; null when it is not. */
function fillOf(part: Part, operations: ReadonlyMap<string, Operation>): Operation | null {
  const hatched = stepIn(part, 'hatch')?.on === true;
  for (const w of part.work) {
    const operation = operations.get(w.operation);
    if (operation?.on && (w.what === 'fill' || (w.what === 'hatch' && hatched))) return operation;
  }
  return null;
}

/** Whether all of a shape lies in the filled inside of another, by a point of each of its outlines. */
function liesInside(inner: PreparedPart, outer: PreparedPart): boolean {
  const { box } = inner;
  const around = outer.box;
  if (box.minX < around.minX || box.maxX > around.maxX || box.minY < around.minY || box.maxY > around.maxY)
    return false;
  return inner.outlines.every(({ path }) => {
    const s = path.segments[0];
    if (!s) return true;
    const winding = outer.outlines.reduce((sum, o) => sum + windingAt(o.path, s.x0, s.y0), 0);
    return winding !== 0;
  });
}

/** What is found about a job as a whole. */
export const JOB_RULES: readonly JobRule[] = [
  /**
   * Filled parts that lie wholly in the filled inside of another would vanish in it: both are filled, and what was to be seen
   * is not there. They belong together, the inner cut out of the outer.
   */
  jobRule<{ otherId: string }>({
    code: 'filled-over',
    severity: 'fault',
    station: 'fill',
    many: (count) => `${count} filled parts lie in others that are filled: they would not be seen.`,
    mend: {
      words: 'Cut it out of the other',
      apply: (job, partId, { otherId }, { middleOf }) => cutOutOf(job, partId, otherId, middleOf),
    },
    find({ job, inspected }) {
      const operations = new Map(job.operations.map((o) => [o.id, o]));
      const filled = job.parts.flatMap((part) => {
        const ready = inspected.get(part.id);
        const by = ready && fillOf(part, operations);
        return by && ready.outlines.length > 0 ? [{ part, ready, by }] : [];
      });
      return filled.flatMap((inner) =>
        filled.flatMap((outer) =>
          inner !== outer && inner.by.kind === outer.by.kind && liesInside(inner.ready, outer.ready)
            ? [
                {
                  sentence: `${partTitle(inner.part)} lies in ${partTitle(outer.part)} and both are filled: it would not be seen.`,
                  partId: outer.part.id,
                  box: inner.ready.box,
                  detail: inner.part.id,
                  mend: { otherId: inner.part.id },
                },
              ]
            : [],
        ),
      );
    },
  }),
  ...COLLISION_RULES,
  ...KERF_RULES,
  ...MACHINE_RULES,
  ...OPERATION_RULES,
  drawnTwice,
];
