/**
 * Parts of a letter that hang free (dots, accents, rings) held to it: by an upright tie over the middle of its stem, or lowered until
 * they touch, whichever costs the letter least of what makes it itself. All lengths in capital heights.
 */
import { columnsOf, type InkRows } from '../../geometry/ink-rows';
import { type Path, pathArea, regionBox, reversePath, transformRegion } from '../../geometry/path';
import {
  applyMatrix,
  type Box,
  boxCentre,
  boxHeight,
  boxWidth,
  type Matrix,
  type Point,
  translation,
} from '../../geometry/point';
import { type Evidence, evidenceLost } from '../evidence';
import { imageOf, middleOf } from '../letter-image';
import { clumpsOf, rowsOfLetter, rowWith, STEP } from './profile';
import { barCorners, rectangle, stripPath } from './strip-path';

/** A letter whose parts are held: all its outlines with those of the ties, and those of its body alone. */
export type HeldLetter = {
  readonly paths: readonly Path[];
  readonly body: readonly Path[];
  /** The width of its narrowest tie; null where nothing of it hung free. */
  readonly tieWidth: number | null;
  /** Its outlines without ties where parts of it were lowered, and how far, part by part; null where none was. */
  readonly lowered: { readonly paths: readonly Path[]; readonly by: readonly number[] } | null;
};

/** What is known of a letter when its parts are held. */
export type Holding = {
  readonly evidence: Evidence;
  /** Width of a tie that is asked for. */
  readonly width: number;
  /** How far the face leans: x by y. */
  readonly slope: number;
};

/** How far a tie runs into the ink at both ends. */
const INTO = 0.03;
/** Widths tried, as shares of the one asked for: a dot on a tie as wide as its stem is none. Places tried over a part. */
const WIDTHS = [1, 0.75, 0.5];
const PLACES = 9;
/** How far parts are lowered, as shares of the gap. */
const LOWERED = [0, 0.35, 0.7, 1];
/** A part so lowered overlaps what is below it by this. */
const OVERLAP = 0.015;
/** The ends of a tie may lie so far apart in height. */
const UNEVEN = 0.15;

/** What a way of holding costs: evidence lost, beside the middle of the stem, lowered, aslant, how long its tie is and how narrow. */
const COSTS = { evidence: 5, aside: 3, lowered: 0.6, aslant: 0.5, length: 1.8, narrow: 0.8 };

/** Hold the free parts of a letter, given by its outlines: the nearest to the greatest first. */
export function heldLetter(paths: readonly Path[], holding: Holding): HeldLetter {
  const [body = [], ...free] = alikeTurned(partsOf(paths));
  if (free.length === 0) return { paths, body: paths, tieWidth: null, lowered: null };
  const isClockwise = areaOf(body) < 0;
  const middle = middleOf(paths);
  const done: Path[] = [...body];
  const strokes: Path[] = [...body];
  const by: number[] = [];
  let narrowest = Infinity;
  const around = regionBox(body);
  const away = (part: readonly Path[]) => boxGap(regionBox(part), around);
  for (const part of [...free].sort((a, b) => away(a) - away(b))) {
    // A speck lower than a row of ink has no room for a tie.
    if (isSpeck(part)) {
      done.push(...part);
      strokes.push(...part);
      continue;
    }
    const best = bestHold(part, done, { ...holding, middle, isClockwise });
    done.push(...best.part);
    strokes.push(...best.part);
    by.push(best.lowered);
    narrowest = Math.min(narrowest, best.width);
    // What hangs above can stand on this tie in turn.
    done.push(best.tie);
  }
  return {
    paths: done,
    body,
    tieWidth: Number.isFinite(narrowest) ? narrowest : null,
    lowered: by.some((moved) => moved !== 0) ? { paths: strokes, by } : null,
  };
}

const boxGap = (a: Box, b: Box): number =>
  Math.hypot(Math.max(0, a.minX - b.maxX, b.minX - a.maxX), Math.max(0, a.minY - b.maxY, b.minY - a.maxY));

const isSpeck = (part: readonly Path[]): boolean => rowsOfLetter(part).rows.every((row) => row.length === 0);

const areaOf = (paths: readonly Path[]): number => paths.reduce((sum, p) => sum + pathArea(p), 0);

/** Parts whose outlines run the other way than those of the first are turned: a tie would else be white where it meets them. */
function alikeTurned(parts: readonly (readonly Path[])[]): (readonly Path[])[] {
  const [first = []] = parts;
  const isClockwise = areaOf(first) < 0;
  return parts.map((part) => (areaOf(part) < 0 === isClockwise ? part : part.map(reversePath)));
}

/** The outlines of a letter by what hangs together, the greatest first. */
function partsOf(paths: readonly Path[]): Path[][] {
  const clumps = clumpsOf(rowsOfLetter(paths));
  if (clumps.length < 2) return [[...paths]];
  const rows = clumps.map(() => new Map<number, [number, number][]>());
  clumps.forEach(({ stretches }, i) => {
    for (const [row, from, to] of stretches) {
      const known = rows[i]?.get(row);
      if (known) known.push([from, to]);
      else rows[i]?.set(row, [[from, to]]);
    }
  });
  const groups: Path[][] = clumps.map(() => []);
  for (const path of paths) {
    const box = regionBox([path]);
    // An outline is of the part whose ink lies along it: most of its rows tell.
    const votes = clumps.map(() => 0);
    for (const { x0, y0 } of path.segments) {
      const row = rowWith(Math.min(y0, box.maxY - STEP / 4));
      rows.forEach((of, i) => {
        const near = [row - 1, row, row + 1].some((r) =>
          of.get(r)?.some(([from, to]) => x0 >= from - 2 * STEP && x0 <= to + 2 * STEP),
        );
        if (near) votes[i] = (votes[i] as number) + 1;
      });
    }
    groups[votes.indexOf(Math.max(...votes))]?.push(path);
  }
  return groups.filter((group) => group.length > 0);
}

type Hold = Way & { readonly cost: number };
type About = Holding & { readonly middle: number; readonly isClockwise: boolean };

function bestHold(part: readonly Path[], own: readonly Path[], about: About): Hold {
  const upright = uprightHolds(part, own, about);
  const ways = [...upright, shortest(part, own, about)];
  const { cells: before } = imageOf([...own, ...part], about.middle);
  const holds = ways.map((way): Hold => {
    const { cells: after } = imageOf([...own, ...way.part, way.tie], about.middle);
    return { ...way, cost: way.place + COSTS.evidence * evidenceLost(about.evidence, before, after) };
  });
  return holds.reduce((a, b) => (b.cost < a.cost ? b : a));
}

type Way = {
  readonly part: readonly Path[];
  readonly tie: Path;
  readonly width: number;
  /** How far the part is moved towards what it is held to; upwards positive. */
  readonly lowered: number;
  readonly place: number;
};

/** The ink of each column above the other's or below it: how far it reaches towards the other, and the other towards it. */
type Facing = { readonly part: number; readonly own: number };

function uprightHolds(part: readonly Path[], own: readonly Path[], { width, slope, isClockwise }: About): Way[] {
  const lean = (by: number): Matrix => ({ a: 1, b: 0, c: by, d: 1, e: 0, f: 0 });
  const [p, o] = [transformRegion(part, lean(-slope)), transformRegion(own, lean(-slope))];
  const [pb, ob] = [regionBox(p), regionBox(o)];
  const isAbove = boxCentre(pb).y > boxCentre(ob).y;
  const [pc, oc] = [columnsOf(p, STEP), columnsOf(o, STEP)];
  const facing = (x: number): Facing | null => facingAt(pc, oc, x, isAbove);
  const middle = stemMiddle(oc, pb, isAbove) ?? boxCentre(pb).x;
  const whole = Math.min(width, 0.8 * boxWidth(pb));
  const ways: Way[] = [];
  for (const share of WIDTHS) {
    const wide = whole * share;
    for (let i = 0; i < PLACES; i++) {
      const x = pb.minX + wide / 2 + ((boxWidth(pb) - wide) * i) / (PLACES - 1);
      const at = [-0.49, -0.25, 0, 0.25, 0.49].map((k) => facing(x + k * wide));
      if (at.some((f) => f === null)) continue;
      const all = at as Facing[];
      const owns = all.map((f) => f.own);
      const parts = all.map((f) => f.part);
      if (Math.max(...owns) - Math.min(...owns) > UNEVEN) continue;
      const gap = isAbove ? Math.min(...parts) - Math.max(...owns) : Math.min(...owns) - Math.max(...parts);
      if (gap < 0) continue;
      for (const k of LOWERED) {
        const by = (k * gap + (k === 1 ? OVERLAP : 0)) * (isAbove ? -1 : 1);
        const ends = isAbove
          ? [Math.min(...owns) - INTO, Math.max(...parts) + by + INTO]
          : [Math.min(...parts) + by - INTO, Math.max(...owns) + INTO];
        const [y0, y1] = ends as [number, number];
        const corners = rectangle(x - wide / 2, y0, x + wide / 2, y1).map((c) => applyMatrix(lean(slope), c));
        ways.push({
          width: wide,
          lowered: by,
          part: k === 0 ? part : transformRegion(part, translation(slope * by, by)),
          tie: stripPath(corners, isClockwise),
          place:
            COSTS.aside * Math.abs(x - middle) +
            COSTS.lowered * Math.abs(by) +
            COSTS.length * Math.max(0, gap - Math.abs(by)) +
            COSTS.narrow * (1 - share),
        });
      }
    }
  }
  return ways;
}

function columnAt({ first, rows }: InkRows, x: number): readonly number[] {
  return rows[Math.floor(x / STEP) - first] ?? [];
}

function facingAt(part: InkRows, own: InkRows, x: number, isAbove: boolean): Facing | null {
  const [p, o] = [columnAt(part, x), columnAt(own, x)];
  if (p.length === 0 || o.length === 0) return null;
  if (isAbove) {
    const low = p[0] as number;
    const tops = o.filter((y, i) => i % 2 === 1 && y <= low);
    return tops.length > 0 ? { part: low, own: Math.max(...tops) } : null;
  }
  const high = p[p.length - 1] as number;
  const bottoms = o.filter((y, i) => i % 2 === 0 && y >= high);
  return bottoms.length > 0 ? { part: high, own: Math.min(...bottoms) } : null;
}

/** How far from the end of a stroke its middle is looked for. */
const UNDER_END = 0.17;

/** The middle of the stroke that ends under a part, or over it; null where that is no narrow stem. */
function stemMiddle(own: InkRows, part: Box, isAbove: boolean): number | null {
  const ends = own.rows.flatMap((row) =>
    row.length === 0 ? [] : [isAbove ? (row[row.length - 1] as number) : (row[0] as number)],
  );
  const end = isAbove ? Math.max(...ends) : Math.min(...ends);
  const near: number[] = [];
  own.rows.forEach((row, k) => {
    const y = isAbove ? end - UNDER_END : end + UNDER_END;
    for (let i = 0; i + 1 < row.length; i += 2)
      if ((row[i] as number) <= y && (row[i + 1] as number) >= y) near.push((own.first + k + 0.5) * STEP);
  });
  if (near.length === 0) return null;
  const [from, to] = [Math.min(...near), Math.max(...near)];
  const middle = (from + to) / 2;
  return to - from < 2 * boxWidth(part) && middle > part.minX && middle < part.maxX ? middle : null;
}

/** The shortest bar between a part and the rest, where nothing of either stands over the other. */
function shortest(part: readonly Path[], own: readonly Path[], { width, isClockwise }: About): Way {
  const [a, b] = [cornersOf(part), cornersOf(own)];
  let best = { distance: Infinity, from: a[0] as Point, to: b[0] as Point };
  for (const p of a)
    for (const q of b) {
      const distance = Math.hypot(p.x - q.x, p.y - q.y);
      if (distance < best.distance) best = { distance, from: p, to: q };
    }
  const box = regionBox(part);
  const wide = Math.min(width, 0.8 * Math.min(boxWidth(box), boxHeight(box)));
  return {
    part,
    width: wide,
    lowered: 0,
    tie: stripPath(barCorners(best.from, best.to, wide, INTO), isClockwise),
    place: COSTS.aslant + COSTS.length * best.distance,
  };
}

/** Where the ink of outlines begins and ends, row by row. */
const cornersOf = (paths: readonly Path[]): Point[] => {
  const { first, rows } = rowsOfLetter(paths);
  return rows.flatMap((row, k) => row.map((x) => ({ x, y: (first + k + 0.5) * STEP })));
};
