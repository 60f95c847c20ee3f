/** Voids and the islands in them: what has to be held, and by which name it is known. */
import { applyMatrix, boxCentre, boxHeight, boxWidth, invert, type Point } from '../../geometry/point';
import type { LetterFrame } from '../frames';
import type { Outline } from '../outline';
import { DUST_MM2 } from '../pieces';

/** A void: the outline around it and the islands in it, as indices of outlines. */
export type Void = { readonly outer: number; readonly islands: readonly number[] };

/** An island: its outline, the void it stands in, its letter. */
export type Island = {
  readonly outline: number;
  readonly void: Void;
  /** The letter it is known by: the first that its outline or the one around it runs along; -1 for none. */
  readonly label: number;
  readonly letter: string;
  /** Which island of that letter, from the top, then from the left. */
  readonly rank: number;
  /** Middle of its bounds; area in mm², what lies in it included. */
  readonly middle: Point;
  readonly areaMm2: number;
};

/** The voids of a shape that have islands. `stockInside`: whether the shape is what stays, or what is cut away. */
export function voidsOf(shape: readonly Outline[], stockInside: boolean): Void[] {
  const around = stockInside ? 1 : 0;
  const islands = new Map<number, number[]>();
  shape.forEach((o, i) => {
    if (o.parent < 0 || o.depth % 2 === around) return;
    const list = islands.get(o.parent);
    if (list) list.push(i);
    else islands.set(o.parent, [i]);
  });
  return [...islands].map(([outer, list]) => ({ outer, islands: list })).sort((a, b) => a.outer - b.outer);
}

const firstLabel = (o: Outline): number => {
  let least = -1;
  for (const label of o.labels) if (label >= 0 && (least < 0 || label < least)) least = label;
  return least;
};

/** Heights nearer than this, in capital heights, count as one row. */
const ROW = 0.08;

/** All islands, letter by letter, each letter's from the top. Dust is none, though it is counted: the others keep their numbers. */
export function islandsOf(shape: readonly Outline[], voids: readonly Void[], frames: readonly LetterFrame[]): Island[] {
  const byLabel = new Map<number, { outline: number; void: Void; x: number; y: number }[]>();
  for (const v of voids)
    for (const outline of v.islands) {
      const o = shape[outline] as Outline;
      const own = firstLabel(o);
      const label = own >= 0 ? own : firstLabel(shape[v.outer] as Outline);
      const frame = frames[label];
      const middle = boxCentre(o.box);
      const at = frame ? applyMatrix(invert(frame.matrix), middle) : middle;
      const list = byLabel.get(label) ?? [];
      list.push({ outline, void: v, ...at });
      byLabel.set(label, list);
    }
  return [...byLabel]
    .sort(([a], [b]) => a - b)
    .flatMap(([label, list]) => {
      list.sort((a, b) => (Math.abs(a.y - b.y) > ROW ? b.y - a.y : a.x - b.x || b.y - a.y));
      return list.flatMap(({ outline, void: v }, rank): Island[] => {
        const o = shape[outline] as Outline;
        if (Math.abs(o.area) < DUST_MM2) return [];
        return [
          {
            outline,
            void: v,
            label,
            letter: frames[label]?.key ?? '',
            rank,
            middle: boxCentre(o.box),
            areaMm2: Math.abs(o.area),
          },
        ];
      });
    });
}

/** Half of what an island measures from end to end. */
export const halfExtent = (o: Outline): number => Math.hypot(boxWidth(o.box), boxHeight(o.box)) / 2;

/** Islands are heavy from this many bridge widths of reach, or so many squares of one, in stock as thick as it is wide. */
const FAR_REACH = 10;
const LARGE_AREA = 64;

/** How many bridges an island is to have where that is left to us: two where it is large or heavy. */
export function countFor(o: Outline, width: number, thicknessMm: number | null): 1 | 2 {
  // Thin stock bends sooner: what counts as large falls with its thickness.
  const stiffness = Math.sqrt(Math.min(1, Math.max(0.25, (thicknessMm ?? width) / width)));
  const isLarge =
    2 * halfExtent(o) > FAR_REACH * width * stiffness || Math.abs(o.area) > LARGE_AREA * width * width * stiffness ** 2;
  return isLarge ? 2 : 1;
}
