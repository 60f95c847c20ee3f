/**
 * Letters that are worked by themselves: which outlines, lines and dots of a part belong to the letters that an operation of their own is
 * given, and which to the rest.
 */

import { isIn, laid, pathsNear } from '../geometry/lying';
import { type Path, pathLength } from '../geometry/path';
import { applyMatrix, boxCentre, EMPTY_BOX, invert, type Point, uniteBoxes } from '../geometry/point';
import { pointAt, type Segment } from '../geometry/segment';
import type { Outline } from '../prepare/outline';
import type { PreparedPart } from '../prepare/prepared';
import type { Source } from '../prepare/source';
import { hatchWithin } from '../toolpath/hatch/hatch-within';
import { lengthAround, type ToDraw } from './work';
import type { Work } from './works';

/** Lines and dots within so many mm of an outline lie on it. */
const ON_MM = 0.05;

/** What of a part letters are told by. */
type Lettered = Pick<PreparedPart, 'outlines' | 'sources' | 'frames'>;

/** Whether some of the work of a kind is for letters by themselves. */
export const hasLettersAlone = (work: readonly Work[], what: Work['what']): boolean =>
  work.some((w) => w.what === what && w.only !== null);

/** Letters with a dot of their own, whatever else is on them, or several made into one of which one has. */
export const hasDot = (text: string): boolean => /[ijіј]|I\p{M}*\u0307/u.test(text.normalize('NFD'));

/** Dots stand over letters: higher than this above the baseline, in capital heights. */
const DOT_HEIGHT = 0.55;

/** Whether a place that is not on the body of a letter is on a dot of it. */
const isOnDot = (at: Point, label: number, { sources, frames }: Pick<Lettered, 'sources' | 'frames'>): boolean => {
  const frame = frames[label];
  return (
    frame !== undefined && hasDot(sources[label]?.text ?? '') && applyMatrix(invert(frame.matrix), at).y > DOT_HEIGHT
  );
};

/**
 * Of each outline the entry of the work, of some kind, that its letter is given by itself; null for what belongs to the rest. An outline
 * that several letters have in common belongs to the rest, whatever they are given, but where all of them are given alike.
 */
function ownersOf({ outlines, sources, frames }: Lettered, entries: readonly Work[]): (Work | null)[] {
  const labelsOf = outlines.map(({ labels }) => new Set(labels.filter((l) => l >= 0)));
  const alone = outlines.map((_, i) => {
    const [label, ...others] = labelsOf[i] as Set<number>;
    return label === undefined || others.length > 0 ? null : label;
  });
  const roots = outlines.map((_, i) => rootOf(outlines, alone, i));
  const bodies = bodiesOf(
    roots.map((root, i) => (root === i ? (alone[i] ?? null) : null)),
    outlines.map((o) => Math.abs(o.area)),
  );
  const given = entries.flatMap((entry) =>
    entry.only ? [{ entry, labels: labelsGiven(entry.only.letters, { sources, frames }) }] : [],
  );
  return outlines.map((_, i) => {
    const labels = [...(labelsOf[i] as Set<number>)];
    const label = alone[i] ?? null;
    const root = roots[i] as number;
    const isDot =
      label !== null &&
      bodies.get(label) !== root &&
      isOnDot(boxCentre((outlines[root] as Outline).box), label, { sources, frames });
    const found = given.find(
      ({ entry, labels: own }) =>
        (isDot && entry.only?.dots === true) || (labels.length > 0 && labels.every((l) => own.has(l))),
    );
    return found?.entry ?? null;
  });
}

/** The outermost outline around one that is of the same letter alone. */
function rootOf(outlines: readonly Outline[], alone: readonly (number | null)[], at: number): number {
  let root = at;
  for (let up = outlines[root]?.parent ?? -1; up >= 0 && alone[up] === alone[at] && alone[at] !== null; ) {
    root = up;
    up = outlines[root]?.parent ?? -1;
  }
  return root;
}

/** Of each letter its largest piece; what else it has stands apart from that, as a dot does. */
function bodiesOf(labels: readonly (number | null)[], sizes: readonly number[]): ReadonlyMap<number, number> {
  const bodies = new Map<number, number>();
  labels.forEach((label, i) => {
    if (label === null) return;
    const known = bodies.get(label);
    if (known === undefined || (sizes[i] as number) > (sizes[known] as number)) bodies.set(label, i);
  });
  return bodies;
}

/** The letters of some keys, as labels; a character that was joined with others into one letter stands for that. */
function labelsGiven(
  letters: readonly string[],
  { sources, frames }: Pick<Lettered, 'sources' | 'frames'>,
): ReadonlySet<number> {
  const byKey = new Map(frames.map(({ key }, label) => [key, label]));
  return new Set(
    letters.flatMap((letter) => {
      const exact = byKey.get(letter);
      if (exact !== undefined) return [exact];
      const [, member, start] = /^(.+):(\d+)$/.exec(letter) ?? [];
      const joined = sources.findIndex((s: Source) => holds(s, member ?? '', Number(start)));
      return joined >= 0 ? [joined] : [];
    }),
  );
}

const holds = ({ memberId, start, text }: Source, member: string, at: number): boolean =>
  memberId === member && at > start && at < start + text.length;

/** All work on a part, and some of its entries: those of one operation, or of several. */
type Entries = { readonly work: readonly Work[]; readonly entries: readonly Work[] };

/** Of outlines that are run along those that some entries of a part's work are for; entries of other kinds of work say nothing of them. */
export function outlinesGiven(
  outlines: readonly Outline[],
  { sources, frames }: Pick<Lettered, 'sources' | 'frames'>,
  { work, entries }: Entries,
): Outline[] {
  const isAlong = (w: Work) => w.what === 'outline';
  const owners = ownersOf({ outlines, sources, frames }, work.filter(isAlong));
  const own = entries.filter(isAlong);
  return outlines.filter((_, i) => isOf(own, owners[i] ?? null));
}

/** The outlines of the regions of a part that some entries of a kind of work are for: letters with their holes. */
export function regionGiven(part: Lettered, { work, entries }: Entries, what: Work['what']): Outline[] {
  const owners = ownersOf(
    part,
    work.filter((w) => w.what === what),
  );
  const own = entries.filter((w) => w.what === what);
  return part.outlines.filter((_, i) => isOf(own, regionOwner(part.outlines, owners, i)));
}

/** Whether what belongs to an entry, or to the rest, is for some of them. */
const isOf = (entries: readonly Work[], owner: Work | null): boolean =>
  entries.some((entry) => (entry.only === null ? owner === null : owner === entry));

/** What some entries of a kind of work draw of a part, of all that is drawn of it by that kind. */
export function drawnByEntries(all: ToDraw, part: Lettered, { work, entries }: Entries): ToDraw {
  const owners = ownersOf(part, work);
  const isOurs = (owner: Work | null): boolean => isOf(entries, owner);
  const ownerAt = ownersByPlace(part, owners, work);
  const isOursAt = (at: Point) => isOurs(ownerAt(at));
  const outlines = all.outlines.filter((_, i) => isOurs(owners[i] ?? null));
  const openOwners = part.outlines.length > 0 ? null : ownersOfLines(all.polylines, part, work);
  const polylines = all.polylines.filter((path, i) =>
    openOwners ? isOurs(openOwners[i] ?? null) : isOursAt(middleOf(path)),
  );
  const dots = all.dots.filter(isOursAt);
  const fillings = all.fillings.map((hatch) => hatchWithin(hatch, isOursAt)).filter((hatch) => hatch.drawn.length > 0);
  return {
    areas:
      all.areas.length > 0 ? areaOf(part.outlines.filter((_, i) => isOurs(regionOwner(part.outlines, owners, i)))) : [],
    fillings,
    polylines,
    dots,
    outlines,
    lengthMm:
      [...polylines, ...outlines.map((o) => o.path)].reduce((sum, path) => sum + pathLength(path), 0) +
      lengthAround(dots) +
      fillings.reduce((sum, { drawnMm }) => sum + drawnMm, 0),
  };
}

/** Holes go with what they are holes of. */
const regionOwner = (outlines: readonly Outline[], owners: readonly (Work | null)[], at: number): Work | null => {
  const { depth, parent } = outlines[at] as Outline;
  return owners[depth % 2 === 1 && parent >= 0 ? parent : at] ?? null;
};

function areaOf(outlines: readonly Outline[]): ToDraw['areas'] {
  if (outlines.length === 0) return [];
  return [
    {
      kind: 'area',
      paths: outlines.map((o) => o.path),
      box: outlines.reduce((box, o) => uniteBoxes(box, o.box), EMPTY_BOX),
      areaMm2: outlines.reduce((sum, o) => sum + o.area, 0),
    },
  ];
}

/** Whose a place is: that of the letters given by themselves whose outlines it lies within or on. */
function ownersByPlace(
  { outlines }: Lettered,
  owners: readonly (Work | null)[],
  work: readonly Work[],
): (at: Point) => Work | null {
  const regions = work
    .filter((entry) => owners.includes(entry))
    .map((entry) => ({ entry, region: laid(outlines.filter((_, i) => owners[i] === entry).map((o) => o.path)) }));
  return (at) => regions.find(({ region }) => isIn(at, region) || pathsNear(at, region, ON_MM).size > 0)?.entry ?? null;
}

/** Whose the lines of a one-line face are: of the letter on whose width they lie, a dot being whatever is not the letter's longest line. */
function ownersOfLines(lines: readonly Path[], { sources, frames }: Lettered, work: readonly Work[]): (Work | null)[] {
  const labels = lines.map((path) => letterUnder(middleOf(path), frames));
  const bodies = bodiesOf(labels, lines.map(pathLength));
  const given = work.flatMap((entry) =>
    entry.only ? [{ entry, labels: labelsGiven(entry.only.letters, { sources, frames }) }] : [],
  );
  return labels.map((label, i) => {
    if (label === null) return null;
    const isDot = bodies.get(label) !== i && isOnDot(middleOf(lines[i] as Path), label, { sources, frames });
    return (
      given.find(({ entry, labels: own }) => (isDot && entry.only?.dots === true) || own.has(label))?.entry ?? null
    );
  });
}

/** The letter whose origin is the nearest to the left of a place, in the line that it lies in; null where there is none. */
function letterUnder(at: Point, frames: Lettered['frames']): number | null {
  let [best, least] = [null as number | null, Number.POSITIVE_INFINITY];
  frames.forEach(({ matrix }, label) => {
    const own = applyMatrix(invert(matrix), at);
    // Half of what descends and what accents stand over is about as high as a capital.
    const far = own.x + Math.max(0, Math.abs(own.y - 0.4) - 0.9) * 10;
    if (own.x > -0.05 && far < least) [best, least] = [label, far];
  });
  return best;
}

const middleOf = ({ segments }: Path): Point => pointAt(segments[segments.length >> 1] as Segment, 0.5);

/** Letters given by themselves of which nothing stands alone, since all of it hangs together with other letters: their labels. */
export function notAlone({ outlines, sources, frames }: Lettered, work: readonly Work[], what: Work['what']): number[] {
  const entries = work.filter((w) => w.what === what);
  const owners = ownersOf({ outlines, sources, frames }, entries);
  return entries.flatMap((entry) =>
    entry.only
      ? [...labelsGiven(entry.only.letters, { sources, frames })].filter((label) => {
          const own = outlines.flatMap((o, i) => (o.labels.includes(label) ? [owners[i] ?? null] : []));
          return own.length > 0 && !own.includes(entry);
        })
      : [],
  );
}
