/**
 * Loose lines made into outlines. What is drawn twice goes, ends that lie on each other are joined, and gaps are looked
 * for: which ends belong together, how they would be joined, and whether that is sure. Only gaps that were accepted are
 * closed. Method: mutual nearest ends by gap and by how the lines run into each other, sure when clearly better than any
 * other; docs/architecture.md says more.
 */

import { joinRuns } from '../../geometry/boolean/join';
import { withoutDoubles } from '../../geometry/doubles';
import { numberAt } from '../../geometry/elements';
import { type Path, pathArea } from '../../geometry/path';
import { distance, type Point } from '../../geometry/point';
import { reverseSegment, type Segment } from '../../geometry/segment';
import { segmentLength } from '../../geometry/segment-measures';
import type { CloseSettings } from '../../schema/artwork';
import { chainsOf, type Links, link, linkTouching, otherEnd, sealed, segmentsLength } from './chains';
import { type JoinKind, joinEnds } from './join';
import { type LooseEnd, matchEnds } from './match';
import { endPoint, leaving, outwards } from './strand';
import { trimTees } from './tees';

/** A path of a drawing; `key` names it for ever, since a drawing never changes. */
export type LooseLine = { readonly key: string; readonly path: Path };

/** Curves are fitted after closing, so that ends stay where the file has them. */
export type ClosingSettings = Omit<CloseSettings, 'refit'>;

/** Two ends that are meant to meet, or may be: where they are, how far apart in mm, and what was made of them. */
export type Gap = {
  /** The two ends, e.g. "3.0.0:1~5.0.2:0". */
  readonly key: string;
  readonly from: Point;
  readonly to: Point;
  readonly sizeMm: number;
  readonly how: JoinKind;
  /** `sure`: one partner for both ends, not closed; `asked`: several could be meant. */
  readonly state: 'closed' | 'sure' | 'asked' | 'left';
};

/** What closing came to: paths that are closed, those still open, the gaps, and what was left out. */
export type Closed = {
  /** Outlines that close. */
  readonly loops: readonly Path[];
  /** What stays open. */
  readonly open: readonly Path[];
  readonly gaps: readonly Gap[];
  readonly doubled: number;
  readonly specks: number;
  /** Ends that were cut back, or run on, to the middle of another line. */
  readonly tees: number;
};

/** Segments shorter than this are points, in mm. */
const POINT_MM = 1e-4;

/** A segment of a line, by its place in that; `piece` counts where doubles leave it in several, else -1. */
type Strand = { readonly line: string; readonly at: number; readonly piece: number; readonly segment: Segment };

/** What names a strand for ever. */
const nameOf = ({ line, at, piece }: Strand): string => `${line}.${at}${piece < 0 ? '' : `+${piece}`}`;

/**
 * Loose lines made into paths: ends that lie on each other are joined, gaps closed where it is certain what is meant,
 * the others named.
 */
export function closeLines(lines: readonly LooseLine[], settings: ClosingSettings): Closed {
  const { strands, links, doubled } = strandsOf(lines, settings.doubles);
  const segments = strands.map((s) => s.segment);
  const knots = linkTouching(segments, links);
  const dropped = dropSpecks(segments, links, settings.specks);
  const gaps = findGaps(strands, { links, knots, dropped, settings });
  const made = closeGaps(segments, links, gaps);
  const loops: Path[] = [];
  const open: Path[] = [];
  for (const chain of chainsOf(segments.length, links)) {
    if (dropped.has(numberAt(chain.entries, 0) >> 1)) continue;
    const run: Segment[] = [];
    for (const end of chain.entries) {
      const pieces = made.get(end >> 1);
      const only = segments[end >> 1] as Segment;
      if (!pieces) run.push((end & 1) === 0 ? only : reverseSegment(only));
      else run.push(...((end & 1) === 0 ? pieces : pieces.map(reverseSegment).reverse()));
    }
    const path = { segments: sealed(run, chain.closed), closed: chain.closed };
    if (chain.closed) {
      if (Math.abs(pathArea(path)) > settings.specks ** 2) loops.push(joinedRuns(path));
    } else open.push(path);
  }
  const teed = trimTees(open, loops, settings.gap);
  return {
    loops,
    open: teed.open,
    gaps: gaps.map(({ a: _a, b: _b, ...gap }) => gap),
    doubled,
    specks: dropped.size,
    tees: teed.tees,
  };
}

const joinedRuns = (path: Path): Path => joinRuns({ path, labels: path.segments.map(() => 0) }).path;

/** Single segments with the links the file has between them, what is drawn twice taken out. */
function strandsOf(lines: readonly LooseLine[], doubles: number) {
  const all: Strand[] = [];
  const joints: (readonly [number, number])[] = [];
  const isClosed: boolean[] = [];
  for (const { key, path } of lines) {
    const first = all.length;
    path.segments.forEach((segment, i) => {
      if (segmentLength(segment) <= POINT_MM) return;
      all.push({ line: key, at: i, piece: -1, segment });
      isClosed.push(path.closed);
    });
    const last = all.length - 1;
    for (let i = first; i < last; i++) joints.push([i, i + 1]);
    if (path.closed && last >= first) joints.push([last, first]);
  }
  const { kept, doubled } =
    doubles > 0
      ? withoutDoubles(
          all.map((s) => s.segment),
          doubles,
          isClosed,
        )
      : { kept: all.map((s) => [s.segment]), doubled: 0 };
  const strands: Strand[] = [];
  const firstPiece: number[] = [];
  const lastPiece: number[] = [];
  kept.forEach((pieces, i) => {
    const whole = all[i] as Strand;
    const { segment } = whole;
    const starts = pieces[0] && pieces[0].x0 === segment.x0 && pieces[0].y0 === segment.y0;
    const end = pieces[pieces.length - 1];
    const ends = end && end.x1 === segment.x1 && end.y1 === segment.y1;
    firstPiece.push(starts ? strands.length : -1);
    for (let k = 0; k < pieces.length; k++) {
      const piece = pieces[k] as Segment;
      const isWhole = pieces.length === 1;
      strands.push(isWhole && piece === segment ? whole : { ...whole, piece: isWhole ? -1 : k, segment: piece });
    }
    lastPiece.push(ends ? strands.length - 1 : -1);
  });
  const links: Links = new Int32Array(2 * strands.length).fill(-1);
  for (const [i, j] of joints) {
    const [from, to] = [numberAt(lastPiece, i), numberAt(firstPiece, j)];
    if (from >= 0 && to >= 0) link(links, 2 * from + 1, 2 * to);
  }
  return { strands, links, doubled };
}

/** Open chains shorter than a length, as the segments in them. */
function dropSpecks(segments: readonly Segment[], links: Links, least: number): ReadonlySet<number> {
  const dropped = new Set<number>();
  if (least <= 0) return dropped;
  for (const chain of chainsOf(segments.length, links)) {
    if (chain.closed || segmentsLength(chain.entries.map((end) => segments[end >> 1] as Segment)) >= least) continue;
    for (const end of chain.entries) dropped.add(end >> 1);
  }
  return dropped;
}

type OpenGap = Gap & { readonly a: number; readonly b: number };

function findGaps(
  strands: readonly Strand[],
  {
    links,
    knots,
    dropped,
    settings,
  }: {
    readonly links: Links;
    readonly knots: readonly (readonly number[])[];
    readonly dropped: ReadonlySet<number>;
    readonly settings: ClosingSettings;
  },
): OpenGap[] {
  const segments = strands.map((s) => s.segment);
  const ends: LooseEnd[] = [];
  const inKnot = new Set(knots.flat());
  chainsOf(segments.length, links).forEach((chain, i) => {
    const first = numberAt(chain.entries, 0);
    if (chain.closed || dropped.has(first >> 1)) return;
    const chainMm = segmentsLength(chain.entries.map((end) => segments[end >> 1] as Segment));
    for (const id of [first, otherEnd(numberAt(chain.entries, chain.entries.length - 1))]) {
      if (inKnot.has(id)) continue;
      const s = segments[id >> 1] as Segment;
      ends.push({ id, at: endPoint(s, id & 1), way: leaving(s, id & 1), chain: i, chainMm });
    }
  });
  const { certain, asked } = matchEnds(ends, settings.findUpTo);
  const answers = new Map(settings.answers.map((a) => [a.gap, a.how]));
  const endName = (end: number) => `${nameOf(strands[end >> 1] as Strand)}:${end & 1}`;
  const keyOf = (a: number, b: number) => [endName(a), endName(b)].sort().join('~');
  const used = new Set<number>();
  const gapOf = (a: number, b: number, isSure: boolean): OpenGap => {
    const [p, q] = [a, b].map((end) => segments[end >> 1] as Segment) as [Segment, Segment];
    const key = keyOf(a, b);
    const from = endPoint(p, a & 1);
    const to = endPoint(q, b & 1);
    const sizeMm = distance(from, to);
    const answer = answers.get(key);
    const isFree = !used.has(a) && !used.has(b);
    const accepted = isFree && (answer === 'close' || (answer !== 'leave' && isSure && sizeMm <= settings.gap));
    if (accepted) {
      used.add(a);
      used.add(b);
    }
    const state = accepted ? 'closed' : answer === 'leave' ? 'left' : isSure ? 'sure' : 'asked';
    return { key, from, to, sizeMm, how: joinEnds(outwards(p, a & 1), outwards(q, b & 1)).kind, state, a, b };
  };
  const pairsIn = (knot: readonly number[]) => knot.flatMap((a, i) => knot.slice(i + 1).map((b) => [a, b] as const));
  const candidates = [
    ...certain.map(({ a, b }) => [a, b, true] as const),
    ...asked.map(({ a, b }) => [a, b, false] as const),
    ...knots.flatMap(pairsIn).map(([a, b]) => [a, b, false] as const),
  ];
  // What was answered comes first, so that it is not taken by what is only sure.
  const isAnswered = (a: number, b: number) => answers.size > 0 && answers.has(keyOf(a, b));
  const ordered = [
    ...candidates.filter(([a, b]) => isAnswered(a, b)),
    ...candidates.filter(([a, b]) => !isAnswered(a, b)),
  ];
  const gaps = ordered.map(([a, b, isSure]) => gapOf(a, b, isSure));
  // An end that found its partner is asked about no more.
  return gaps.filter((gap) => gap.state !== 'asked' || (!used.has(gap.a) && !used.has(gap.b)));
}

/** Join the ends of accepted gaps; returns what becomes of the segments there, in their own direction. */
function closeGaps(
  segments: readonly Segment[],
  links: Links,
  gaps: readonly OpenGap[],
): Map<number, readonly Segment[]> {
  const made = new Map<number, readonly Segment[]>();
  const atEnd = (end: number): readonly Segment[] => {
    const pieces = made.get(end >> 1) ?? [segments[end >> 1] as Segment];
    return (end & 1) === 1 ? pieces : pieces.map(reverseSegment).reverse();
  };
  const put = (end: number, pieces: readonly Segment[]) =>
    made.set(end >> 1, (end & 1) === 1 ? pieces : pieces.map(reverseSegment).reverse());
  for (const { a, b, state } of gaps) {
    if (state !== 'closed') continue;
    const [outA, outB] = [atEnd(a), atEnd(b)];
    const [lastA, lastB] = [outA[outA.length - 1] as Segment, outB[outB.length - 1] as Segment];
    if (a >> 1 === b >> 1) {
      // Both ends of one segment: a line closes it.
      put(a, [...outA, ...closingLine(outA)]);
    } else {
      const join = joinEnds(lastA, lastB);
      put(a, [...outA.slice(0, -1), ...join.a]);
      put(b, [...outB.slice(0, -1), ...join.b]);
    }
    link(links, a, b);
  }
  return made;
}

const closingLine = (run: readonly Segment[]): Segment[] => {
  const [first, last] = [run[0] as Segment, run[run.length - 1] as Segment];
  return [{ kind: 'line', x0: last.x1, y0: last.y1, x1: first.x0, y1: first.y0 }];
};
