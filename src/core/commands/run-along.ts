/** Words that run along a line: which, where on it, and its handles. */
import type { Job, Lettering } from '../document/schema';
import { ArcLength } from '../geometry/arc-length';
import type { Path } from '../geometry/path';
import { KEPT_DIGITS, pathData } from '../geometry/path-data';
import { applyMatrix, type Box, boxWidth, isEmptyBox, type Point } from '../geometry/point';
import { riseOfRadius } from '../lettering/text-path';
import { placementMatrix, UNMOVED } from '../prepare/placement';
import { type Along, alongSchema } from '../schema/along';
import { editLying, layOn } from './lie-on';
import { editWords, type WordsAt } from './own-lines';

/** What words were computed to, in their own coordinates: their bounds, capitals, and where they start on the line they run along. */
export type WordsSeen = {
  readonly ownBox: Box;
  readonly capHeightMm: number | null;
  readonly start: Point | null;
};

/** The lines that are made for words. */
export type MadeLine = 'arc' | 'circle' | 'wave';

const round = (mm: number): number => Math.round(mm * 1e3) / 1e3;
const LEAST_MM = 0.1;
const atLeast = (mm: number): number => Math.max(LEAST_MM, round(mm));

/** Of a circle words take about so much; an arc is so many times as long as it is high, a wave so long for its words. */
const OF_CIRCLE = 0.6;
const ARC_FLATNESS = 6;
const OF_WAVE = 0.6;

/** A line that suits words as they are. */
function madeFor(kind: MadeLine, width: number, capital: number): Along['line'] {
  switch (kind) {
    case 'arc':
      return { kind, by: 'rise', mm: atLeast(width / ARC_FLATNESS), bends: 'up' };
    case 'circle':
      return { kind, radius: atLeast(Math.max(1.5 * capital, width / OF_CIRCLE / 2 / Math.PI)) };
    case 'wave':
      return { kind, length: atLeast(OF_WAVE * width), height: atLeast(capital) };
  }
}

/** Where words are in the middle, which stays where it is when they are moved onto another line: of a circle its own. */
function middleOf({ along }: Lettering, { ownBox, start }: WordsSeen): Point {
  if (along?.line.kind === 'circle') return { x: 0, y: 0 };
  return start ?? { x: isEmptyBox(ownBox) ? 0 : (ownBox.minX + ownBox.maxX) / 2, y: 0 };
}

/** Move words by a way in their own coordinates. */
function moveBy(member: Lettering, by: Point): void {
  const { placement } = member;
  const { x, y } = applyMatrix(placementMatrix(placement), by);
  placement.x = round(x);
  placement.y = round(y);
}

/** Run on with what words have of a line, or as by default. */
const onLine = (member: Lettering, line: Along['line']): Along => ({
  ...(member.along ?? alongSchema.parse({ line })),
  line,
});

/** Let words run along a line that is made for them; their middle stays where it is. */
export const runAlong = (job: Job, at: WordsAt, kind: MadeLine, seen: WordsSeen): Job =>
  editLying(job, at, (member) => {
    const line = madeFor(kind, Math.max(1, boxWidth(seen.ownBox)), seen.capHeightMm ?? member.size.mm);
    moveBy(member, middleOf(member, seen));
    member.align = 'centre';
    member.along = { ...onLine(member, line), start: 0 };
  });

/** Let words run along a drawn line, in their own coordinates. */
export const runAlongDrawn = (job: Job, at: WordsAt, path: Path): Job =>
  editLying(job, at, (member) => {
    const line: Along['line'] = { kind: 'path', d: pathData([path], null, KEPT_DIGITS), scale: 1 };
    member.along = { ...onLine(member, line), start: 0 };
  });

/** Let words run along an outline of another part, and their part go along with it. */
export const runAlongPart = (job: Job, at: WordsAt, of: string): Job =>
  layOn(job, at, of, (member) => {
    member.placement = { ...UNMOVED };
    member.align = 'centre';
    member.along = { ...onLine(member, { kind: 'outline', of, outline: 0 }), start: 0 };
  });

/** Set words straight again; their middle stays where it is. */
export const runStraight = (job: Job, at: WordsAt, seen: WordsSeen): Job =>
  editLying(job, at, (member) => {
    if (seen.start) moveBy(member, middleOf(member, seen));
    member.along = null;
  });

/** Set how words stand on their line, or what it measures. */
export const setAlong = (job: Job, at: WordsAt, { line, ...more }: Partial<Along>): Job =>
  editWords(job, at, (member) => {
    if (!member.along) return;
    Object.assign(member.along, more);
    if (line) member.along.line = line;
  });

/** What a line is dragged by: where the words start, and what bends it. */
export type AlongHandle = 'start' | 'bend' | { readonly node: number };

/** What a drag goes by: the line as it is in the words' own coordinates, and how long the words are. */
export type AlongSeen = { readonly path: Path; readonly start: Point; readonly lengthMm: number };

/** Drag a handle of the line that words run along to a place in their own coordinates. */
export function dragAlong(
  job: Job,
  at: WordsAt,
  handle: AlongHandle,
  { to, seen }: { readonly to: Point; readonly seen: AlongSeen },
): Job {
  return editWords(job, at, (member) => {
    if (!member.along) return;
    if (handle === 'start') member.along.start = startAt(member.along.start, to, seen);
    else if (handle === 'bend') bendTo(member.along.line, to, seen);
    else if (member.along.line.kind === 'path') moveNode(member.along.line, handle.node, to, seen);
  });
}

/** How far along the line words start that are to start nearest to a place. */
function startAt(now: number, to: Point, { path, start }: AlongSeen): number {
  const curve = new ArcLength(path);
  const moved = curve.nearest(to) - curve.nearest(start);
  // The short way around a closed line.
  const around = path.closed ? Math.round(moved / curve.length) * curve.length : 0;
  const next = now + moved - around;
  const whole = path.closed && Math.abs(next) > curve.length / 2 ? Math.sign(next) * curve.length : 0;
  return round(next - whole);
}

function bendTo(line: Along['line'], { x, y }: Point, { lengthMm }: AlongSeen): void {
  if (line.kind === 'circle') line.radius = atLeast(Math.hypot(x, y));
  if (line.kind === 'wave') {
    line.length = atLeast(4 * Math.abs(x));
    line.height = atLeast(2 * Math.abs(y));
  }
  if (line.kind === 'arc' && Math.abs(y) > 1e-3) {
    // The arc through the origin, level there, and through the place.
    const radius = (x * x + y * y) / (2 * Math.abs(y));
    line.bends = y < 0 ? 'up' : 'down';
    line.mm = atLeast(line.by === 'radius' ? radius : riseOfRadius(lengthMm, radius));
  }
}

/** Move a node of a drawn line, the bends on both sides of it along. */
function moveNode(line: Extract<Along['line'], { kind: 'path' }>, node: number, to: Point, { path }: AlongSeen): void {
  const { segments } = path;
  const first = segments[node] ?? (path.closed ? segments[0] : undefined);
  const at = first ? { x: first.x0, y: first.y0 } : { x: segments[node - 1]?.x1 ?? 0, y: segments[node - 1]?.y1 ?? 0 };
  const [dx, dy] = [to.x - at.x, to.y - at.y];
  const moved = segments.map((s, i) => {
    const starts = i === node;
    const ends = i === node - 1 || (path.closed && node === 0 && i === segments.length - 1);
    if (!starts && !ends) return s;
    const start = starts ? { x0: s.x0 + dx, y0: s.y0 + dy } : {};
    const end = ends ? { x1: s.x1 + dx, y1: s.y1 + dy } : {};
    if (s.kind === 'cubic')
      return {
        ...s,
        ...start,
        ...end,
        ...(starts ? { ax: s.ax + dx, ay: s.ay + dy } : {}),
        ...(ends ? { bx: s.bx + dx, by: s.by + dy } : {}),
      };
    return s.kind === 'arc' ? s : { ...s, ...start, ...end };
  });
  line.d = pathData([{ ...path, segments: moved }], null, KEPT_DIGITS);
  line.scale = 1;
}
