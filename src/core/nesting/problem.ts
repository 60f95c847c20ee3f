/** What is to be laid on sheets, made ready: shapes as cells in all their turns, and the cells of a sheet. */
import {
  beside,
  cropped,
  type Mask,
  maskOf,
  type RingArea,
  type SheetGrid,
  takenBy,
  thinned,
  turned,
  turnedOver,
} from './raster';

/** A shape that is to be laid: one thing, whatever it consists of. In mm about its own origin. */
export type NestShape = {
  readonly id: string;
  readonly areas: readonly RingArea[];
  readonly copies: number;
  /** Shapes of one group come to lie on one sheet; null for none. */
  readonly group: string | null;
};

/** A shape that lies already and stays where it is. */
export type FixedShape = Place & { readonly shape: number };

/** Where something lies: turned about its origin, then moved. */
export type Place = { readonly sheet: number; readonly turnDeg: number; readonly x: number; readonly y: number };

/** How shapes are laid. Lengths in mm. */
export type NestSettings = {
  readonly width: number;
  readonly height: number;
  /** Room kept between shapes, and to the edge of the sheet. */
  readonly spacing: number;
  readonly margin: number;
  /** Turns that are tried, in degrees. */
  readonly turns: readonly number[];
  /** Whether shapes may lie in holes of others. */
  readonly usesHoles: boolean;
  /** Outline of an off-cut that the first sheet is; null where it is whole. */
  readonly offCut: RingArea | null;
  readonly lying: readonly FixedShape[];
};

/** Chords of curves may stray so far from them, in mm: shapes are grown by that too. */
export const CHORD_STRAY_MM = 0.015;
/** And corners that are left out of them by this share of a cell. */
const CORNER_STRAY = 0.05;

/** Cells are no smaller than this, in mm, and the longer side of a sheet is so many of them. */
const LEAST_CELL_MM = 0.5;
const CELLS_ALONG = 600;

/** A mask with where it can lie at most, by its true size, and what is settled most quickly about it. */
export type Fitting = Mask & {
  readonly id: number;
  /** The mask that is this one turned over; itself where there is none. */
  readonly over: number;
  /** Last column and row that its first cell may lie in. */
  readonly mostX: number;
  readonly mostY: number;
  /** Its runs, the longest first: row, two starts, and the level they are read at. */
  readonly probes: Int32Array;
};

/** One thing to lay: a copy of a shape. */
export type NestItem = {
  readonly shape: number;
  readonly copy: number;
  readonly group: string | null;
  /** Its masks, one a turn; none where it fits in no turn. */
  readonly masks: readonly number[];
  /** Size of its first mask, in cells. */
  readonly cells: number;
};

/** A nesting made ready. */
export type Problem = {
  readonly settings: NestSettings;
  readonly grid: SheetGrid;
  readonly items: readonly NestItem[];
  readonly masks: readonly Fitting[];
  /** Highest level that runs are read at. */
  readonly levels: number;
  /** Cells beside off-cuts, by sheet. */
  readonly blocked: ReadonlyMap<number, Mask>;
  /** What lies on sheets already and stays there. */
  readonly fixed: readonly LaidItem[];
};

const cellOf = ({ width, height }: NestSettings): number =>
  Math.max(LEAST_CELL_MM, Math.max(width, height) / CELLS_ALONG);

/** How much shapes are grown, in mm. */
const growOf = (settings: NestSettings): number =>
  settings.spacing / 2 + CHORD_STRAY_MM + CORNER_STRAY * cellOf(settings);

/** Cells of a sheet: the grown shapes may reach out over the margin by what they are grown. */
function gridOf(settings: NestSettings): SheetGrid & { readonly wideMm: number; readonly highMm: number } {
  const cellMm = cellOf(settings);
  const inset = settings.margin - growOf(settings);
  const [wideMm, highMm] = [settings.width - 2 * inset, settings.height - 2 * inset];
  return {
    cellMm,
    x0: inset,
    y0: inset,
    wideMm,
    highMm,
    // The last cell may stick out.
    width: Math.max(1, Math.floor(wideMm / cellMm + 1e-9) + 1),
    height: Math.max(1, Math.floor(highMm / cellMm + 1e-9) + 1),
  };
}

/** Runs are looked up in turn in so many bands of a mask: neighbours say much the same. */
const BANDS = 6;

/** Runs of a mask as they are looked up: the longest settle most places, and come first, of each band in turn. */
function probesOf({ width, height, runs, firstRun }: Mask): { readonly probes: Int32Array; readonly level: number } {
  const count = runs.length >> 1;
  const rowOf = new Int32Array(count);
  for (let row = 0; row < height; row++) rowOf.fill(row, firstRun[row], firstRun[row + 1]);
  // Sorted as numbers: what a run lacks of the width, then its place among all.
  const lack = (i: number) => width - (runs[2 * i + 1] as number) + (runs[2 * i] as number);
  const order = new Float64Array(count);
  for (let i = 0; i < count; i++) order[i] = lack(i) * count + i;
  order.sort();
  const met = new Int32Array(BANDS);
  for (let at = 0; at < count; at++) {
    const i = (order[at] as number) % count;
    const band = Math.floor(((rowOf[i] as number) * BANDS) / height);
    order[at] = ((met[band] as number) * (width + 1) + lack(i)) * count + i;
    met[band] = (met[band] as number) + 1;
  }
  order.sort();
  const probes = new Int32Array(4 * count);
  let most = 0;
  for (let at = 0; at < count; at++) {
    const i = (order[at] as number) % count;
    const [from, to] = [runs[2 * i] as number, runs[2 * i + 1] as number];
    // A run is covered by two of the largest power of two that it holds.
    const level = 31 - Math.clz32(to - from + 1);
    most = Math.max(most, level);
    probes[4 * at] = rowOf[i] as number;
    probes[4 * at + 1] = from;
    probes[4 * at + 2] = to + 1 - (1 << level);
    probes[4 * at + 3] = level;
  }
  return { probes, level: most };
}

function isSameMask(a: Mask, b: Mask): boolean {
  if (a.width !== b.width || a.height !== b.height || a.runs.length !== b.runs.length) return false;
  for (let i = 0; i < a.runs.length; i++) if (a.runs[i] !== b.runs[i]) return false;
  for (let i = 0; i < a.firstRun.length; i++) if (a.firstRun[i] !== b.firstRun[i]) return false;
  return true;
}

/** Make a nesting ready. */
export function prepareNesting(shapes: readonly NestShape[], settings: NestSettings): Problem {
  const grid = gridOf(settings);
  const growMm = growOf(settings);
  const rastering = { growMm, cellMm: grid.cellMm, fillsHoles: !settings.usesHoles };
  const masks: Fitting[] = [];
  const items: NestItem[] = [];
  let levels = 0;
  /** Add a mask of a shape; its id, that of one with the same cells, or null where it does not fit. */
  const add = (mask: Mask, own: readonly number[], over: number | null): number | null => {
    const mostX = Math.floor((grid.wideMm - mask.wideMm) / grid.cellMm + 1e-9);
    const mostY = Math.floor((grid.highMm - mask.highMm) / grid.cellMm + 1e-9);
    if (mostX < 0 || mostY < 0) return null;
    // A plate that is turned over is itself.
    const same = own.find((id) => isSameMask(masks[id] as Fitting, mask));
    if (same !== undefined) return same;
    const { probes, level } = probesOf(mask);
    levels = Math.max(levels, level);
    const id = masks.length;
    masks.push({ ...mask, id, over: over ?? id, mostX, mostY, probes });
    return id;
  };
  const turns = [...new Set(settings.turns.map((deg) => ((deg % 360) + 360) % 360))];
  shapes.forEach((shape, index) => {
    const own: number[] = [];
    const areas = shape.areas.map((area) => area.map((ring) => thinned(ring, CORNER_STRAY * grid.cellMm)));
    const take = (id: number | null): id is number => {
      if (id !== null && !own.includes(id)) own.push(id);
      return id !== null;
    };
    for (const deg of turns) {
      // Made below from its opposite.
      if (deg >= 180 && turns.includes(deg - 180)) continue;
      const mask = maskOf(areas, deg, rastering);
      if (!mask) continue;
      const id = add(mask, own, null);
      if (!take(id) || !turns.includes(deg + 180)) continue;
      const opposite = add(turnedOver(mask, grid.cellMm), own, id);
      if (!take(opposite) || opposite === id) continue;
      masks[id] = { ...(masks[id] as Fitting), over: opposite };
    }
    const first = own[0] === undefined ? null : (masks[own[0]] as Fitting);
    for (let copy = 0; copy < shape.copies; copy++)
      items.push({ shape: index, copy, group: shape.group, masks: own, cells: first ? cellsOf(first) : 0 });
  });
  const blocked = new Map(
    settings.offCut ? [[0, beside(settings.offCut, settings.margin - growMm, grid)] as const] : [],
  );
  const fixed = settings.lying.flatMap((lies): LaidItem[] => {
    const found = cropped(takenBy(placedAreas(shapes, lies), growMm, grid), grid.cellMm);
    if (!found) return [];
    const id = masks.length;
    masks.push({ ...found.mask, id, over: id, mostX: 0, mostY: 0, probes: new Int32Array() });
    return [{ mask: id, sheet: lies.sheet, x: found.x, y: found.y }];
  });
  return { settings, grid, items, masks, levels, blocked, fixed };
}

/** The areas of a shape where it lies. */
const placedAreas = (shapes: readonly NestShape[], { shape, turnDeg, x, y }: FixedShape): RingArea[] =>
  (shapes[shape]?.areas ?? []).map((area) =>
    turned(area, turnDeg).map((ring) => ring.map((value, i) => value + (i % 2 === 0 ? x : y))),
  );

const cellsOf = ({ runs }: Mask): number => {
  let cells = 0;
  for (let i = 0; i < runs.length; i += 2) cells += (runs[i + 1] as number) - (runs[i] as number) + 1;
  return cells;
};

/** Where each item lies, in cells; null for one that lies nowhere. */
export type NestLayout = {
  readonly places: readonly (LaidItem | null)[];
  readonly sheets: number;
  /** Rows of the last sheet up to its highest. */
  readonly top: number;
};

/** Where an item lies: its mask, its sheet, and the cell of its lower left corner. */
export type LaidItem = { readonly mask: number; readonly sheet: number; readonly x: number; readonly y: number };

/** Where an item lies, in mm. */
export function placeInMm({ grid, masks }: Problem, { mask: id, sheet, x, y }: LaidItem): Place {
  const mask = masks[id] as Fitting;
  return {
    sheet,
    turnDeg: ((mask.turnDeg % 360) + 360) % 360,
    x: grid.x0 + x * grid.cellMm - mask.x0,
    y: grid.y0 + y * grid.cellMm - mask.y0,
  };
}

/** How much a layout takes: whole sheets, and rows of the last. */
export const extentOf = ({ grid }: Problem, { sheets, top }: NestLayout): number => (sheets - 1) * grid.height + top;
