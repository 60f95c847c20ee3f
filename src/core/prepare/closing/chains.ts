/** Strands linked end to end: as the file has them, and where ends lie on each other. */
import { intAt, numberAt } from '../../geometry/elements';
import { pathLength } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { PointGrid } from '../../geometry/point-grid';
import { type Segment, withEnds } from '../../geometry/segment';
import { leaving } from './strand';

/** Ends closer than this are one place, in mm: files keep so many digits. */
export const EXACT_MM = 0.002;

/** For each end the end it is joined to, or -1. Ends are numbered 2·segment + end. */
export type Links = Int32Array;

/** A run of segments, each forwards or backwards. */
export type Chain = {
  /** Ends at which segments are entered: end 0 forwards, end 1 backwards. */
  readonly entries: readonly number[];
  readonly closed: boolean;
};

/** The other end of the segment that an end belongs to. */
export const otherEnd = (end: number): number => end ^ 1;

/** Joins two ends. */
export const link = (links: Links, a: number, b: number): void => {
  links[a] = b;
  links[b] = a;
};

/** How straight two lines must run on through a place where more than two meet to be one line, as a cosine. */
const THROUGH = Math.cos((3 * Math.PI) / 180);
const NOT_THROUGH = Math.cos((25 * Math.PI) / 180);

/** Link free ends that lie on each other. Returns the places where more than two meet and nothing tells them apart. */
export function linkTouching(segments: readonly Segment[], links: Links): (readonly number[])[] {
  const free: number[] = [];
  for (let end = 0; end < links.length; end++) if (intAt(links, end) < 0) free.push(end);
  const knots: (readonly number[])[] = [];
  if (free.length < 2) return knots;
  const [x, y] = [new Float64Array(free.length), new Float64Array(free.length)];
  free.forEach((end, i) => {
    const s = segments[end >> 1] as Segment;
    x[i] = (end & 1) === 0 ? s.x0 : s.x1;
    y[i] = (end & 1) === 0 ? s.y0 : s.y1;
  });
  const grid = new PointGrid(x, y, EXACT_MM);
  const taken = new Uint8Array(free.length);
  const toVisit: number[] = [];
  const visit = (j: number) => {
    if (taken[j]) return;
    taken[j] = 1;
    toVisit.push(j);
  };
  for (let i = 0; i < free.length; i++) {
    if (taken[i]) continue;
    const group: number[] = [];
    visit(i);
    for (let k = toVisit.pop(); k !== undefined; k = toVisit.pop()) {
      group.push(numberAt(free, k));
      grid.eachNear(k, visit);
    }
    if (group.length === 2) link(links, numberAt(group, 0), numberAt(group, 1));
    else if (group.length > 2) {
      const free = linkThrough(segments, links, group);
      if (free.length > 0) knots.push(free);
    }
  }
  return knots;
}

/**
 * Lines that cross in one place, an even number of ends, are linked straight through it when that leaves none over and
 * nothing else would do. Returns the ends that are still free: all or none.
 */
function linkThrough(segments: readonly Segment[], links: Links, group: readonly number[]): readonly number[] {
  if (group.length % 2 === 1) return group;
  const ways = group.map((end) => leaving(segments[end >> 1] as Segment, end & 1));
  const straight = (i: number, j: number): number => {
    const [u, v] = [ways[i] as Point, ways[j] as Point];
    return -(u.x * v.x + u.y * v.y);
  };
  const partner = group.map((_, i) => {
    const likely = [...group.keys()].filter((j) => j !== i && straight(i, j) > NOT_THROUGH);
    return likely.length === 1 && straight(i, numberAt(likely, 0)) > THROUGH ? numberAt(likely, 0) : -1;
  });
  if (!partner.every((j, i) => j >= 0 && partner[j] === i)) return group;
  partner.forEach((j, i) => {
    if (i < j) link(links, numberAt(group, i), numberAt(group, j));
  });
  return [];
}

/** Every segment in exactly one chain. */
export function chainsOf(count: number, links: Links): Chain[] {
  const seen = new Uint8Array(count);
  const chains: Chain[] = [];
  const walk = (start: number): Chain => {
    const entries: number[] = [];
    let end = start;
    for (;;) {
      entries.push(end);
      seen[end >> 1] = 1;
      const next = intAt(links, otherEnd(end));
      if (next < 0) return { entries, closed: false };
      if (next === start) return { entries, closed: true };
      end = next;
    }
  };
  for (let end = 0; end < 2 * count; end++) if (!seen[end >> 1] && intAt(links, end) < 0) chains.push(walk(end));
  for (let i = 0; i < count; i++) if (!seen[i]) chains.push(walk(2 * i));
  return chains;
}

/** Segments end to start exactly, where they only nearly meet. */
export function sealed(segments: readonly Segment[], closed: boolean): Segment[] {
  const out = [...segments];
  for (let i = 0; i < out.length; i++) {
    const s = out[i] as Segment;
    const before = out[(i + out.length - 1) % out.length] as Segment;
    if (i === 0 && !closed) continue;
    if (s.x0 === before.x1 && s.y0 === before.y1) continue;
    out[i] = withEnds(s, { x: before.x1, y: before.y1 }, { x: s.x1, y: s.y1 });
  }
  return out;
}

/** Arc length of segments. */
export const segmentsLength = (segments: readonly Segment[]): number => pathLength({ segments, closed: false });
