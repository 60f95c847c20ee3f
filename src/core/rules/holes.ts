/** What is found about holes that the beam or tool can't cut, or not well. */
import type { Job, Operation } from '../document/schema';
import { largestCircleIn } from '../geometry/inscribed';
import { pathLength } from '../geometry/path';
import type { Box } from '../geometry/point';
import type { Rule } from '../inspect/rule';
import type { Outline } from '../prepare/outline';
import { settingsOn } from '../shop/in-force';
import { type AnyMend, type PartSubject, partRule } from './rule';

/** So many holes are told one by one. */
const TOLD = 8;

type SmallHole = { readonly box: Box; readonly wide: number };

/** Holes in what is kept that are nowhere as wide as `least`, in mm, with how wide they are. */
function smallHoles(outlines: readonly Outline[], least: number): SmallHole[] {
  return outlines.flatMap(({ path, area, box }): SmallHole[] => {
    // What has more area than its largest circle has radius for the length around it holds a larger one (Bonnesen 1921).
    if (area >= 0 || -area >= (least / 2) * pathLength(path)) return [];
    const wide = 2 * largestCircleIn(path).radius;
    return wide < least ? [{ box, wide }] : [];
  });
}

/** The cut that a part comes out by; undefined where none is given. */
const cutOf = ({ part, job }: PartSubject): Operation | undefined =>
  job.operations.find(
    (o) => o.on && o.kind === 'cut' && part.work.some((w) => w.what === 'outline' && w.operation === o.id),
  );

/** How wide the cut is that a part comes out by, in mm; 0 where that is not known. */
const kerfFor = (about: PartSubject): number => {
  const cut = cutOf(about);
  return (cut ? settingsOn(cut, about.job.sheet).kerf : about.job.sheet.kerf) ?? 0;
};

const isByPlasma = ({ machine, sheet }: Pick<Job, 'machine' | 'sheet'>): boolean =>
  (machine ? machine.kind : sheet.process) === 'plasma';

/** What is found about the holes of a part. */
export const HOLE_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  partRule({
    code: 'hole-under-kerf',
    severity: 'fault',
    station: 'hold',
    many: (count) => `${count} holes are narrower than a cut is wide.`,
    find(about) {
      const { part, ready, isCut, length } = about;
      const kerf = kerfFor(about);
      if (!isCut || kerf === 0 || part.keep !== 'inside') return [];
      const so = cutOf(about)?.kerfSide === 'beside' ? 'it is not cut' : 'it comes out larger';
      return smallHoles(ready.outlines, kerf)
        .slice(0, TOLD)
        .map(({ box, wide }, i) => ({
          sentence: `A hole is ${length(wide)} wide and a cut takes ${length(kerf)}: ${so}.`,
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
    find(about) {
      const { part, ready, job, isCut, length } = about;
      const { thickness } = job.sheet;
      const kerf = kerfFor(about);
      if (!isCut || thickness === null || !isByPlasma(job) || part.keep !== 'inside') return [];
      return smallHoles(ready.outlines, thickness)
        .filter(({ wide }) => wide >= kerf)
        .slice(0, TOLD)
        .map(({ box, wide }, i) => ({
          sentence: `A hole is ${length(wide)} wide in stock ${length(thickness)} thick: plasma leaves it rough and tapered.`,
          detail: `hole ${i}`,
          box,
        }));
    },
  }),
];
