/** What the bench shows of a member. */
import { transformPath } from '../core/geometry/path';
import { applyMatrix, type Box, type Matrix, type Point, turnWith } from '../core/geometry/point';
import type { Layout } from '../core/lettering/layout';
import type { JointKind } from '../core/lettering/set-letter';
import type { Gap } from '../core/prepare/closing/closing';
import type { MemberTrouble, PreparedMember } from '../core/prepare/prepared';
import type { TraceFound } from '../core/prepare/trace';
import type { Printer } from './printing';

/** What the bench shows of a member; places are on the sheet unless they say otherwise. */
export type MemberView = {
  readonly id: string;
  readonly matrix: Matrix;
  readonly ownBox: Box;
  readonly box: Box;
  /** Its own outlines on the sheet, for pointing at; path data with y upwards. */
  readonly d: string;
  readonly missing: readonly string[];
  readonly trouble: MemberTrouble | null;
  /** The typeface that words came without. */
  readonly lacks: PreparedMember['lacks'];
  readonly capHeightMm: number | null;
  readonly letters: number;
  /** Letters to pick one by one, when they are few enough. */
  readonly picks: readonly LetterView[];
  /** Heights of the baselines on the sheet; none when it is turned. */
  readonly baselines: readonly number[];
  /** Where its letters would be without closing up; empty when nothing is closed up. */
  readonly unclosedD: string;
  /** What closing up did; null when nothing is closed up. */
  readonly closedUp: ClosedUpView | null;
  /** The line that the words run along; null where they are straight. */
  readonly along: AlongView | null;
  /** What closing found in a drawing; null for other members. */
  readonly closing: ClosingView | null;
  /** What tracing a picture found; null for other members. */
  readonly traced: TraceFound | null;
};

/** The line that words run along, on the sheet: with where they start on it, and how long they are in their own mm. */
export type AlongView = {
  readonly d: string;
  readonly start: Point;
  /** Which way the line runs there, in degrees from that of the sheet's x. */
  readonly startDeg: number;
  readonly closed: boolean;
  readonly lengthMm: number;
};

/** A gap by its ends on the sheet. */
export type GapView = Omit<Gap, 'from' | 'to'> & { readonly from: Point; readonly to: Point };

/** What closing a drawing found, for its panel. */
export type ClosingView = {
  /** The smallest first. */
  readonly gaps: readonly GapView[];
  readonly doubled: number;
  readonly specks: number;
  readonly tees: number;
  readonly repeated: number;
  readonly shared: number;
};

/**
 * A letter by where it starts and ends in the text, with the corners of its ink on the sheet, how high its capitals are, and how its
 * baseline is turned in the words.
 */
export type LetterView = {
  readonly start: number;
  readonly end: number;
  readonly text: string;
  readonly corners: readonly Point[];
  readonly capitalMm: number;
  readonly baselineDeg: number;
};

/** A joint where two letters were closed up. */
export type ClosedUpView = {
  readonly moved: number;
  readonly mostMm: number;
  /** The weakest joint, and the letter at it. */
  readonly weakestMm: number | null;
  readonly weakestAt: string;
  /** Whether that is the tie of a part to its own letter: no wider, since it would make another letter of it. */
  readonly isWeakestHeld: boolean;
  /** Neighbours and how they are joined, those that are alike together; in the order they are first met. */
  readonly pairs: readonly JointsView[];
};

/** Neighbours that are alike: how each is joined, by where its right letter stands in the text. */
export type JointsView = {
  readonly left: string;
  readonly right: string;
  /** Whether a space stands between them. */
  readonly isSpace: boolean;
  readonly joints: readonly { readonly at: number; readonly kind: JointKind | 'apart'; readonly jointMm: number }[];
};

/** What the bench shows of a member. */
export const memberViewOf = (member: PreparedMember, print: Printer): MemberView => ({
  id: member.id,
  matrix: member.matrix,
  ownBox: member.ownBox,
  box: member.box,
  d: print.outlines(member.outlines) + print.paths(member.openPaths),
  missing: member.missing.map((m) => m.text),
  trouble: member.trouble,
  lacks: member.lacks,
  capHeightMm: member.layout?.capHeightMm ?? null,
  letters: member.layout?.letters.length ?? 0,
  picks: pickViews(member),
  baselines: baselinesOf(member),
  unclosedD: print.paths(member.unclosed),
  closedUp: member.unclosed.length > 0 ? closedUpView(member) : null,
  along: alongView(member, print),
  closing: closingView(member),
  traced: member.traced,
});

function alongView({ layout, matrix }: PreparedMember, print: Printer): AlongView | null {
  if (!layout?.along) return null;
  const { path, start } = layout.along;
  const way = turnWith(matrix, { x: Math.cos(start.angle), y: Math.sin(start.angle) });
  return {
    d: print.paths([transformPath(path, matrix)]),
    start: applyMatrix(matrix, start),
    startDeg: (Math.atan2(way.y, way.x) * 180) / Math.PI,
    closed: path.closed,
    lengthMm: layout.lines.reduce((most, { track }) => Math.max(most, track ? track.to - track.from : 0), 0),
  };
}

function closingView({ closing, matrix }: PreparedMember): ClosingView | null {
  if (!closing) return null;
  const gaps = closing.gaps.map((gap) => ({
    ...gap,
    from: applyMatrix(matrix, gap.from),
    to: applyMatrix(matrix, gap.to),
  }));
  return { ...closing, gaps: gaps.sort((a, b) => a.sizeMm - b.sizeMm) };
}

/** More letters than this are not picked one by one. */
export const MOST_PICKS = 400;

function pickViews({ layout, matrix }: PreparedMember): LetterView[] {
  if (!layout || layout.letters.length > MOST_PICKS) return [];
  const k = layout.scale;
  const capitals = layout.lines.flatMap(({ from, to, capital }) => Array<number>(to - from).fill(capital * k));
  return layout.letters.map(({ start, end, text, box, baselineDeg }, i) => ({
    start,
    end,
    text,
    capitalMm: capitals[i] ?? layout.capHeightMm,
    baselineDeg,
    corners: [
      { x: box.minX, y: box.minY },
      { x: box.maxX, y: box.minY },
      { x: box.maxX, y: box.maxY },
      { x: box.minX, y: box.maxY },
    ].map(({ x, y }) => applyMatrix(matrix, { x: x * k, y: y * k })),
  }));
}

const baselinesOf = ({ layout, matrix }: PreparedMember): number[] =>
  layout && !layout.along && Math.abs(matrix.b) < 1e-9 ? layout.baselines.map((y) => matrix.f + matrix.d * y) : [];

function closedUpView({ layout }: PreparedMember): ClosedUpView {
  const closed = layout?.closedUp ?? [];
  const weakest = closed.reduce<(typeof closed)[number] | null>((a, b) => (a && a.joint <= b.joint ? a : b), null);
  const letter = layout?.letters.find((l) => weakest && l.start >= weakest.start && l.start < weakest.end);
  return {
    moved: closed.filter((c) => c.move > 1e-6).length,
    mostMm: closed.reduce((most, c) => Math.max(most, c.move), 0),
    weakestMm: weakest?.joint ?? null,
    weakestAt: letter?.text ?? '',
    isWeakestHeld: weakest?.kind === 'held',
    pairs: layout ? jointsView(layout) : [],
  };
}

function jointsView({ letters, closedUp }: Layout): JointsView[] {
  const byStart = new Map(
    closedUp.flatMap((c) => (c.what === 'letter' && c.kind !== 'held' ? [[c.start, c] as const] : [])),
  );
  const pairs = new Map<string, JointsView & { joints: JointsView['joints'][number][] }>();
  letters.forEach((right, i) => {
    const left = letters[i - 1];
    const joint = byStart.get(right.start);
    if (!left || left.line !== right.line) return;
    const isSpace = left.end !== right.start && right.end !== left.start;
    const key = JSON.stringify([left.text, right.text, isSpace]);
    const pair = pairs.get(key) ?? { left: left.text, right: right.text, isSpace, joints: [] };
    pairs.set(key, pair);
    pair.joints.push({ at: right.start, kind: joint?.kind ?? 'apart', jointMm: joint?.joint ?? 0 });
  });
  return [...pairs.values()];
}
