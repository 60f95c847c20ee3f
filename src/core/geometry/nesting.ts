/** How the paths of a clean region lie in each other. */
import { numberAt } from './elements';
import { type Path, pathArea, pathBox } from './path';
import type { Box } from './point';
import { pointAt, type Segment } from './segment';
import { windingAt, windingIn } from './winding';

/**
 * How closed paths lie in each other. `parent` is the index of the smallest path around each, or -1; `depth` how many
 * lie around it.
 */
export type Nesting = { readonly parent: readonly number[]; readonly depth: readonly number[] };

/** A closed path with its bounds and signed area (counter-clockwise is positive). */
export type MeasuredPath = { readonly path: Path; readonly box: Box; readonly area: number };

/** Paths may touch, and bounds are rounded: an outline may seem to stick out of the one around it by this much, in mm. */
const ROUNDING_MM = 1e-6;

const mayContain = (outer: Box, inner: Box): boolean =>
  outer.minX - ROUNDING_MM <= inner.minX &&
  outer.minY - ROUNDING_MM <= inner.minY &&
  outer.maxX + ROUNDING_MM >= inner.maxX &&
  outer.maxY + ROUNDING_MM >= inner.maxY;

/** Paths may touch, so that several points of one are asked where they lie. */
const POINTS_ASKED = 3;

/** So many paths are looked for in another before that is prepared for being asked about more. */
const FEW = 2;

type WindingAbout = ReturnType<typeof windingIn>;

function liesIn({ segments }: Path, windingAbout: WindingAbout): boolean {
  const asked = Math.min(segments.length, POINTS_ASKED);
  let votes = 0;
  for (let m = 0; m < asked; m++) {
    const p = pointAt(segments[Math.floor((m * segments.length) / asked)] as Segment, 0.5);
    votes += windingAbout(p.x, p.y) !== 0 ? 1 : -1;
  }
  return votes > 0;
}

/** Of a path among others: which of them it belongs with, and the smallest of those around it, or -1. */
export type KnownNesting = { readonly group: number; readonly parent: number };

/**
 * Nesting of closed paths that do not cross one another; bounds and areas are taken as given. Where it is `known` how those of
 * each group lie in each other, only paths of different groups are compared.
 */
export function nestMeasured(paths: readonly MeasuredPath[], known?: readonly KnownNesting[]): Nesting {
  const windings: WindingAbout[] = [];
  const asked: number[] = [];
  const isAround = (j: number, i: number): boolean => {
    const [own, other] = [known?.[i], known?.[j]];
    if (own && other && own.group === other.group) return own.parent === j;
    const [inner, outer] = [paths[i] as MeasuredPath, paths[j] as MeasuredPath];
    if (!mayContain(outer.box, inner.box)) return false;
    const times = (asked[j] ?? 0) + 1;
    asked[j] = times;
    // To be asked where a few lie a path is not prepared.
    if (times <= FEW) return liesIn(inner.path, (x, y) => windingAt(outer.path, x, y));
    windings[j] ??= windingIn(outer.path);
    return liesIn(inner.path, windings[j]);
  };
  const size = (i: number) => Math.abs((paths[i] as MeasuredPath).area);
  const order = paths.map((_, i) => i).sort((a, b) => size(b) - size(a));
  const parent = paths.map(() => -1);
  const depth = paths.map(() => 0);
  order.forEach((i, rank) => {
    for (let k = rank - 1; k >= 0; k--) {
      const j = numberAt(order, k);
      if (!isAround(j, i)) continue;
      parent[i] = j;
      depth[i] = numberAt(depth, j) + 1;
      break;
    }
  });
  return { parent, depth };
}

/** Nesting of closed paths that do not cross one another. */
export const nestPaths = (paths: readonly Path[]): Nesting =>
  nestMeasured(paths.map((path) => ({ path, box: pathBox(path), area: pathArea(path) })));
