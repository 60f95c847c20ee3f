/** A file read back against the drawing it was written from: layers, order, paths, what is closed and filled, and where it all lies. */
import type { Drawable } from '../../geometry/drawable';
import type { Path } from '../../geometry/path';
import type { Strokes } from '../../geometry/strokes';
import type { Drawing, Layer } from '../drawing';
import { cleanName, isShortened } from '../layer-names';
import { type Straying, strayingKept } from './follows';
import { lengthened } from './length';
import {
  type FormatKeeps,
  NotAsWritten,
  type ReadBack,
  type ReadHead,
  type ReadItem,
  type ReadPath,
  type ReadPiece,
} from './read-back';
import { strayingWithin } from './within';

/** What numbers in files add to the tolerance of an operation, in mm. */
const ROUNDING_MM = 0.002;
/** Lines are as wide as asked for within this, in mm. */
const LINE_MM = 1e-5;
/** A page is as large as it was to be within this, in mm. */
const PAGE_MM = 0.001;

/**
 * What a file has that the drawing has not, or the other way round, in words that go on from
 * “read back, the file …”; null where they agree. `lineMm` is how wide lines are to be drawn.
 */
export function differenceFrom(
  drawing: Drawing,
  read: () => ReadBack,
  { keeps, lineMm }: { readonly keeps: FormatKeeps; readonly lineMm: number },
): string | null {
  try {
    const { head, items } = read();
    return headDifference(drawing, head, { keeps, lineMm }) ?? itemsDifference(drawing, items, keeps);
  } catch (reason) {
    if (reason instanceof NotAsWritten) return `can’t be read: ${reason.message}`;
    // Whatever else its bytes lead to, the file is not what was to be written.
    return `can’t be read: ${reason instanceof Error ? reason.message : String(reason)}`;
  }
}

function headDifference(
  drawing: Drawing,
  { page, layers }: ReadHead,
  { keeps, lineMm }: { readonly keeps: FormatKeeps; readonly lineMm: number },
): string | null {
  const isAs = (read: number, wanted: number) => Math.abs(read - wanted) <= PAGE_MM;
  if (page && !(isAs(page.width, drawing.width) && isAs(page.height, drawing.height)))
    return 'has a page of another size';
  if (layers.length !== drawing.layers.length)
    return `has ${layers.length} operations in place of ${drawing.layers.length}`;
  for (const [i, layer] of drawing.layers.entries()) {
    const found = layers[i];
    if (keeps.names === 'pens') {
      if (found?.name !== String(layer.pen))
        return `draws “${layer.name}” with pen ${found?.name ?? ''} in place of ${layer.pen}`;
      continue;
    }
    const isSame =
      keeps.names === 'whole'
        ? cleanName(found?.name ?? '') === cleanName(layer.name)
        : isShortened(layer.name, found?.name ?? '');
    if (!isSame) return `has “${found?.name ?? ''}” in place of “${layer.name}”`;
    if (found?.colour !== null && found?.colour.toLowerCase() !== layer.colour.toLowerCase())
      return `has “${layer.name}” in another colour`;
    if (found?.lineMm !== null && Math.abs((found?.lineMm ?? 0) - lineMm) > LINE_MM)
      return `has “${layer.name}” in lines of another width`;
  }
  return null;
}

/** The things a drawing has that a format writes, in order. */
export type Wanted = { readonly layer: number; readonly of: Layer } & (
  | { readonly kind: 'path'; readonly filled: boolean; readonly paths: readonly Path[] }
  | { readonly kind: 'dot'; readonly x: number; readonly y: number; readonly r: number | null }
);

/** What a drawing has, as a format writes it, in the order of the file. */
export function* wantedOf(drawing: Drawing, keeps: FormatKeeps): Generator<Wanted> {
  for (const [layer, of] of drawing.layers.entries())
    for (const d of of.drawn) {
      if (d.kind === 'dot') yield { layer, of, kind: 'dot', x: d.at.x, y: d.at.y, r: d.r };
      else if (d.kind === 'area' && keeps.areas) yield { layer, of, kind: 'path', filled: true, paths: d.paths };
      else for (const path of pathsOf(d)) yield { layer, of, kind: 'path', filled: false, paths: [path] };
    }
}

/** Paths one by one: packed lines are many. */
function* pathsOf(d: Exclude<Drawable, { kind: 'dot' }>): Generator<Path> {
  if (d.kind === 'outline') yield d.path;
  else if (d.kind === 'area') yield* d.paths;
  else if ('xy' in d.geometry) for (let i = 0; i + 1 < d.geometry.start.length; i++) yield unpacked(d.geometry, i);
  else yield d.geometry;
}

/** One of packed lines, by its number. */
function unpacked({ xy, start }: Strokes, nth: number): Path {
  const [first, last] = [start[nth] as number, (start[nth + 1] as number) - 1];
  const segments = Array.from({ length: Math.max(0, last - first) }, (_, k) => {
    const [x0, y0, x1, y1] = xy.subarray(2 * (first + k)) as unknown as [number, number, number, number];
    return { kind: 'line' as const, x0, y0, x1, y1 };
  });
  return { segments, closed: false };
}

function itemsDifference(drawing: Drawing, items: Iterable<ReadItem>, keeps: FormatKeeps): string | null {
  const found = items[Symbol.iterator]();
  let [layer, nth] = [-1, 0];
  for (const wanted of wantedOf(drawing, keeps)) {
    nth = wanted.layer === layer ? nth + 1 : 1;
    layer = wanted.layer;
    const item = found.next();
    const where = `in “${wanted.of.name}”, path ${nth.toLocaleString('en')}`;
    if (item.done || item.value.layer !== wanted.layer) return `does not have all that is drawn: ${where} is missing`;
    const difference = itemDifference(wanted, item.value, keeps);
    if (difference) return `is not what is drawn: ${where} ${difference}`;
  }
  return found.next().done ? null : 'has more than is drawn';
}

/** What a thing of a file is not, in words that go on from “it …”; null where it is what is wanted. */
export function itemDifference(wanted: Wanted, item: ReadItem, keeps: FormatKeeps): string | null {
  const tolerance = keeps.curves ? ROUNDING_MM : wanted.of.tolerance + ROUNDING_MM;
  if (wanted.kind === 'dot') return dotDifference(wanted, item, keeps, wanted.of.tolerance);
  if (item.kind !== 'path') return isPointOfGrid(wanted, item, keeps.gridMm) ? null : 'is a dot';
  if (item.filled !== wanted.filled) return wanted.filled ? 'is not filled' : 'is filled';
  if (item.paths.length !== wanted.paths.length) return 'has other holes';
  for (const [i, path] of wanted.paths.entries()) {
    const read = item.paths[i] as ReadPath;
    if (keeps.gridMm !== null) {
      const strays = strayingOnGrid(path, read, wanted.of.tolerance, keeps.gridMm);
      if (strays) return strays;
      continue;
    }
    if (read.closed !== path.closed) return path.closed ? 'is open' : 'is closed';
    const isCurved = path.segments.some((s) => s.kind === 'cubic' || s.kind === 'quadratic');
    const strays = keeps.curves || !isCurved ? strayingKept(path, read) : strayingWithin(path, read, tolerance);
    if (strays) return strayingWords(strays);
    const longer = keeps.curves || !isCurved ? 0 : lengthened(path, read);
    // Written so that what is no number is a difference.
    if (!(Math.abs(longer) <= tolerance))
      return `is ${Math.abs(longer).toFixed(3)} mm too ${longer > 0 ? 'long' : 'short'}`;
  }
  return null;
}

/**
 * What a path of chords on a grid is not. Its length is not looked at: rounding every place makes it longer or shorter by what
 * nobody chose.
 */
function strayingOnGrid(path: Path, read: ReadPath, toleranceMm: number, gridMm: number): string | null {
  const end = read.pieces.at(-1) ?? read;
  if (path.closed && (end.x !== read.x || end.y !== read.y)) return 'is open';
  const isStraight = path.segments.every((s) => s.kind === 'line');
  if (isStraight && areOnGrid(path, read, gridMm)) return null;
  const strays = strayingWithin(path, read, (isStraight ? 0 : toleranceMm) + gridMm * Math.SQRT1_2);
  return strays && strayingWords(strays);
}

/** Whether straight pieces go from place to place of the grid, each the nearest to where it should be: nearly all do. */
function areOnGrid({ segments }: Path, { x, y, pieces }: ReadPath, gridMm: number): boolean {
  const most = gridMm / 2 + 1e-9;
  const isNear = (a: number, b: number) => Math.abs(a - b) <= most;
  const [first] = segments;
  if (!first || pieces.length !== segments.length || !isNear(x, first.x0) || !isNear(y, first.y0)) return false;
  return segments.every((s, i) => {
    const piece = pieces[i] as ReadPiece;
    return isNear(piece.x, s.x1) && isNear(piece.y, s.y1);
  });
}

/** Whether a line is so short that all of it lies nearest to one place of the grid, where the tool is only set down then. */
const isPointOfGrid = (
  { filled, paths: [path, ...more] }: Extract<Wanted, { kind: 'path' }>,
  { x, y, r }: Extract<ReadItem, { kind: 'dot' }>,
  gridMm: number | null,
): boolean =>
  gridMm !== null &&
  r === null &&
  !filled &&
  path !== undefined &&
  more.length === 0 &&
  path.segments.every((s) =>
    [
      [s.x0, s.y0],
      [s.x1, s.y1],
    ].every(([px, py]) => Math.hypot((px as number) - x, (py as number) - y) <= gridMm * Math.SQRT1_2 + 1e-9),
  );

const strayingWords = ({ x, y, mm }: Straying): string =>
  Number.isFinite(mm) ? `is ${mm.toFixed(3)} mm off at ${x.toFixed(2)}, ${y.toFixed(2)}` : 'is another path';

function dotDifference(
  { x, y, r }: Extract<Wanted, { kind: 'dot' }>,
  item: ReadItem,
  keeps: FormatKeeps,
  toleranceMm: number,
): string | null {
  const within = keeps.gridMm === null ? ROUNDING_MM : keeps.gridMm / 2 + ROUNDING_MM;
  const isAs = (value: number, wanted: number) => Math.abs(value - wanted) <= within;
  if (item.kind === 'dot') {
    if (r !== null && keeps.circles === 'paths') return 'is a point';
    if ((item.r === null) !== (r === null)) return r === null ? 'is a circle' : 'is a point';
    const isThere = isAs(item.x, x) && isAs(item.y, y) && (r === null || isAs(item.r as number, r));
    return isThere ? null : 'is a dot elsewhere, or of another size';
  }
  const [path] = item.paths;
  if (r === null || keeps.circles === 'circles' || !path || item.paths.length > 1) return 'is no dot';
  if (keeps.gridMm !== null) return strayingOnGrid(circleAbout(x, y, r), path, toleranceMm, keeps.gridMm);
  if (!path.closed || item.filled) return 'is no circle';
  const strays = strayingKept(circleAbout(x, y, r), path);
  return strays ? strayingWords(strays) : null;
}

/** A circle of quarters, from its right. */
function circleAbout(cx: number, cy: number, r: number): Path {
  const corners = [
    { x: cx + r, y: cy },
    { x: cx, y: cy + r },
    { x: cx - r, y: cy },
    { x: cx, y: cy - r },
    { x: cx + r, y: cy },
  ];
  return {
    closed: true,
    segments: [0, 1, 2, 3].map((i) => {
      const [from, to] = [corners[i], corners[i + 1]] as [{ x: number; y: number }, { x: number; y: number }];
      return { kind: 'arc', x0: from.x, y0: from.y, x1: to.x, y1: to.y, cx, cy, sweep: Math.PI / 2 };
    }),
  };
}
