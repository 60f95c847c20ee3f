/**
 * What a file, as a machine reads it, has that was not meant, or lacks: by its size and place as a whole, then thing by thing in the order
 * of the file, each with its place.
 */
import type { Drawing, Layer } from '../formats/drawing';
import { colourOfIndex, nearestColourIndex } from '../formats/dxf-colour';
import { cleanName, isShortened } from '../formats/layer-names';
import { itemDifference, type Wanted, wantedOf } from '../formats/read-back/compare';
import type { FormatKeeps, ReadItem } from '../formats/read-back/read-back';
import { pathBox, regionBox } from '../geometry/path';
import { type Box, boxHeight, boxWidth, EMPTY_BOX, growBox, isEmptyBox, uniteBoxes } from '../geometry/point';
import { LIMITS } from '../limits';
import type { FoundItem } from './read-items';

/** Something that a file is not as it was meant: a sentence, and its place in the file in mm; null for the whole of it. */
export type FileDifference = { readonly code: DifferenceCode; readonly sentence: string; readonly box: Box | null };

/** Kinds of differences. */
export type DifferenceCode = 'size' | 'moved' | 'missing' | 'more' | 'twice' | 'order' | 'layer' | 'colour' | 'changed';

/** What files add to places by their rounding, in mm. */
const ROUNDING_MM = 0.002;
/** Sizes that differ by no more than this many mm, beyond what the file’s tolerance allows either edge, are one. */
const SIZE_MM = 0.004;

const boxOfWanted = (w: Wanted): Box => {
  if (w.kind === 'path') return w.paths.length === 1 && w.paths[0] ? pathBox(w.paths[0]) : regionBox(w.paths);
  const r = w.r ?? 0;
  return { minX: w.x - r, minY: w.y - r, maxX: w.x + r, maxY: w.y + r };
};

const mm = (value: number): string => `${Number(value.toFixed(Math.abs(value) < 1 ? 3 : 2))} mm`;

/** All that a file is not of what it is meant to be; `keeps` says what its format can carry, and whether curves are to be as they are. */
export function differencesOf(meant: Drawing, found: readonly FoundItem[], keeps: FormatKeeps): FileDifference[] {
  const wanted = [...wantedOf(meant, keeps)];
  const boxes = wanted.map(boxOfWanted);
  const tolerance = meant.layers.reduce((most, l) => Math.max(most, keeps.curves ? 0 : l.tolerance), 0);
  const whole = wholeDifference(
    boxes.reduce(uniteBoxes, EMPTY_BOX),
    found.reduce((all, f) => uniteBoxes(all, f.box), EMPTY_BOX),
    tolerance + (keeps.gridMm ?? 0),
  );
  if (whole?.code === 'size') return [whole];
  const out = thingByThing({ wanted, boxes, found, keeps });
  // Where something is missing or added the whole is larger or smaller by it, which says nothing.
  if (whole && out.length >= wanted.length) return [whole];
  return out;
}

/** Where all of it is larger or smaller, or lies elsewhere, that is said once. */
function wholeDifference(meant: Box, found: Box, toleranceMm: number): FileDifference | null {
  if (isEmptyBox(meant) || isEmptyBox(found)) return null;
  const within = SIZE_MM + 2 * toleranceMm;
  const [width, height] = [boxWidth(meant), boxHeight(meant)];
  const [wide, high] = [boxWidth(found), boxHeight(found)];
  const scale = width > height ? wide / width : high / height;
  const isAs = (a: number, b: number) => Math.abs(a - b) <= within;
  const isScaled = isAs(wide, width * scale) && isAs(high, height * scale);
  if (!isAs(wide, width) && !isAs(high, height) && isScaled)
    return {
      code: 'size',
      sentence: `It is ${mm(wide)} × ${mm(high)} in place of ${mm(width)} × ${mm(height)}: ${Number(scale.toPrecision(4))} times as large as it is meant.`,
      box: null,
    };
  const [dx, dy] = [found.minX - meant.minX, found.minY - meant.minY];
  if (isAs(wide, width) && isAs(high, height) && Math.hypot(dx, dy) > within)
    return { code: 'moved', sentence: `It lies ${mm(Math.hypot(dx, dy))} from where it is meant to.`, box: null };
  return null;
}

type Sides = {
  readonly wanted: readonly Wanted[];
  readonly boxes: readonly Box[];
  readonly found: readonly FoundItem[];
  readonly keeps: FormatKeeps;
};

/** What an item is compared as: a circle of arcs may be meant as a dot. */
function asMeant(w: Wanted, { item }: FoundItem): ReadItem {
  if (w.kind !== 'dot' || w.r === null || item.kind === 'dot' || item.paths.length !== 1) return item;
  const [path] = item.paths;
  if (!path?.closed || !path.pieces.every((p) => p.kind === 'arc')) return item;
  return circleOfPieces(path) ?? item;
}

/** A closed path of arcs as the circle that it is; null where it is none. */
function circleOfPieces({ x, y, pieces }: Extract<ReadItem, { kind: 'path' }>['paths'][number]): ReadItem | null {
  const turned = pieces.reduce((sum, p) => sum + (p.kind === 'arc' ? p.sweep : 0), 0);
  if (Math.abs(Math.abs(turned) - 2 * Math.PI) > 1e-3) return null;
  const places = [{ x, y }, ...pieces];
  const [left, right] = [Math.min(...places.map((p) => p.x)), Math.max(...places.map((p) => p.x))];
  const [low, high] = [Math.min(...places.map((p) => p.y)), Math.max(...places.map((p) => p.y))];
  // Arcs of a circle end where it is widest, or all places are as far from the middle of them.
  const [cx, cy] = [(left + right) / 2, (low + high) / 2];
  const r = Math.hypot(x - cx, y - cy);
  const isRound = places.every((p) => Math.abs(Math.hypot(p.x - cx, p.y - cy) - r) < ROUNDING_MM);
  return isRound ? { kind: 'dot', layer: 0, x: cx, y: cy, r } : null;
}

/** Whether a layer of a file is the one that is meant: by its pen, or its name as the format has it. */
function isLayer(layer: Layer, of: FoundItem['of'], keeps: FormatKeeps): boolean {
  if (keeps.names === 'pens') return of.pen === layer.pen;
  return keeps.names === 'whole' ? cleanName(of.name) === cleanName(layer.name) : isShortened(layer.name, of.name);
}

const calledOf = ({ name, colour, pen }: FoundItem['of']): string =>
  pen === undefined ? `“${name || colour}”` : `pen ${pen}`;

/** Goes through both in step; where they part it is looked for farther on which of them has more. */
function thingByThing({ wanted, boxes, found, keeps }: Sides): FileDifference[] {
  const out: FileDifference[] = [];
  const say = (code: DifferenceCode, sentence: string, box: Box | null) => {
    if (out.length < LIMITS.proofDifferences) out.push({ code, sentence, box });
  };
  const near = (a: Box, b: Box, w: Wanted): boolean => {
    const by = ROUNDING_MM + 2 * (keeps.curves ? 0 : w.of.tolerance) + (keeps.gridMm ?? 0);
    return (
      Math.abs(a.minX - b.minX) <= by &&
      Math.abs(a.maxX - b.maxX) <= by &&
      Math.abs(a.minY - b.minY) <= by &&
      Math.abs(a.maxY - b.maxY) <= by
    );
  };
  const differs = (i: number, j: number): string | null => {
    const [w, f] = [wanted[i] as Wanted, found[j] as FoundItem];
    return itemDifference(w, asMeant(w, f), keeps);
  };
  const isIt = (i: number, j: number): boolean =>
    near(boxes[i] as Box, (found[j] as FoundItem).box, wanted[i] as Wanted) && differs(i, j) === null;
  const used = new Set<number>();
  const met = new Set<number>();
  /** A thing that is meant was found: is it on its layer? */
  const meet = (i: number, j: number): void => {
    used.add(j);
    met.add(i);
    const [w, f] = [wanted[i] as Wanted, found[j] as FoundItem];
    if (!isLayer(w.of, f.of, keeps)) say('layer', `A line of “${w.of.name}” is on ${calledOf(f.of)}.`, f.box);
    else if (keeps.names !== 'pens' && !isColour(w.of.colour, f.of.colour))
      say('colour', `A line of “${w.of.name}” is in ${f.of.colour} in place of ${w.of.colour}.`, f.box);
  };
  const later = (from: number, end: number, taken: ReadonlySet<number>, is: (k: number) => boolean): number => {
    for (let k = from; k < end; k++) if (!taken.has(k) && is(k)) return k;
    return -1;
  };
  let j = 0;
  for (let i = 0; i < wanted.length; i++) {
    if (met.has(i)) continue;
    while (used.has(j)) j++;
    const w = wanted[i] as Wanted;
    while (j < found.length) {
      if (isIt(i, j)) break;
      const f = found[j] as FoundItem;
      const meantLater = later(i + 1, wanted.length, met, (k) => isIt(k, j));
      const foundLater = later(j + 1, found.length, used, (k) => isIt(i, k));
      if (foundLater >= 0 && meantLater < 0) {
        // What stands here is not meant at all, or once more than meant.
        const isAgain = later(0, i, new Set(), (k) => isIt(k, j)) >= 0;
        say(
          isAgain ? 'twice' : 'more',
          isAgain
            ? `A line of ${calledOf(f.of)} is there twice.`
            : `${calledOf(f.of)} has something that is not meant.`,
          f.box,
        );
        used.add(j);
        while (used.has(j)) j++;
        continue;
      }
      if (foundLater >= 0) {
        say('order', `A line of “${w.of.name}” comes later than it is meant to.`, boxes[i] ?? null);
        meet(i, foundLater);
      } else if (meantLater >= 0) say('missing', `A line of “${w.of.name}” is missing.`, boxes[i] ?? null);
      else {
        // Neither is found elsewhere: it is this one, and it is not as it should be.
        say('changed', `A line of “${w.of.name}” ${differs(i, j) ?? 'lies elsewhere'}.`, boxes[i] ?? null);
        used.add(j);
      }
      met.add(i);
      break;
    }
    if (met.has(i)) continue;
    if (j >= found.length) say('missing', `A line of “${w.of.name}” is missing.`, boxes[i] ?? null);
    else meet(i, j);
  }
  found.forEach((f, k) => {
    if (used.has(k)) return;
    const isAgain = wanted.some((_, i) => isIt(i, k));
    say(
      isAgain ? 'twice' : 'more',
      isAgain ? `A line of ${calledOf(f.of)} is there twice.` : `${calledOf(f.of)} has something that is not meant.`,
      f.box,
    );
  });
  return out.map((d) => ({ ...d, box: d.box && growBox(d.box, 1) }));
}

/** Whether a colour of a file is one that is meant: as it is, or the nearest of those that have numbers in older drawings. */
const isColour = (meant: string, read: string): boolean =>
  [meant, colourOfIndex(nearestColourIndex(meant))].some((c) => c.toLowerCase() === read.toLowerCase());
