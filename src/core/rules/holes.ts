/** What is found about holes that the beam or tool can't cut, or not well. */
import type { Job } from '../document/schema';
import { largestCircleIn } from '../geometry/inscribed';
import { pathBox } from '../geometry/path';
import { type Box, boxHeight, boxWidth } from '../geometry/point';
import type { Rule } from '../inspect/rule';
import type { Outline } from '../prepare/outline';
import { type AnyMend, type PartSubject, partRule } from './rule';

/** So many holes are told one by one. */
const TOLD = 8;

type SmallHole = { readonly box: Box; readonly wide: number };

/** Holes in what is kept that are nowhere as wide as `least`, in mm, with how wide they are. */
function smallHoles(outlines: readonly Outline[], least: number): SmallHole[] {
  return outlines.flatMap(({ path, area }): SmallHole[] => {
    if (area >= 0) return [];
    const box = pathBox(path);
    // A hole that holds a circle may be long: only its least side tells that it holds none.
    if (-area > 4 * least * Math.max(boxWidth(box), boxHeight(box))) return [];
    const wide = 2 * largestCircleIn(path).radius;
    return wide < least ? [{ box, wide }] : [];
  });
}

const isByPlasma = ({ machine, sheet }: Pick<Job, 'machine' | 'sheet'>): boolean =>
  (machine ? machine.kind : sheet.process) === 'plasma';

/** What is found about the holes of a part. */
export const HOLE_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  partRule({
    code: 'hole-under-kerf',
    severity: 'fault',
    station: 'hold',
    many: (count) => `${count} holes are narrower than a cut is wide.`,
    find({ part, ready, job, isCut, length }) {
      const { kerf } = job.sheet;
      if (!isCut || kerf === null || kerf === 0 || part.keep !== 'inside') return [];
      return smallHoles(ready.outlines, kerf)
        .slice(0, TOLD)
        .map(({ box, wide }, i) => ({
          sentence: `A hole is ${length(wide)} wide: a cut takes ${length(kerf)}, so that it would come out larger.`,
          detail: `hole ${i}`,
          box,
        }));
    },
  }),
  partRule({
    code: 'hole-under-thickness',
    severity: 'caution',
    station: 'hold',
    many: (count) => `${count} holes are smaller than the stock is thick: plasma leaves them rough.`,
    find({ part, ready, job, isCut, length }) {
      const { thickness, kerf } = job.sheet;
      if (!isCut || thickness === null || !isByPlasma(job) || part.keep !== 'inside') return [];
      return smallHoles(ready.outlines, thickness)
        .filter(({ wide }) => wide >= (kerf ?? 0))
        .slice(0, TOLD)
        .map(({ box, wide }, i) => ({
          sentence: `A hole is ${length(wide)} wide in stock ${length(thickness)} thick: plasma leaves it rough and tapered.`,
          detail: `hole ${i}`,
          box,
        }));
    },
  }),
];
