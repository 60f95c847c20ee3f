/** What the sheet draws of a computed job: path data and figures, small enough to send from the worker at every change. */
import type { OperationKind, Part, StepOf } from '../core/document/schema';
import { pathData } from '../core/formats/path-data';
import { countSegments, type Path, pathLength, regionBox } from '../core/geometry/path';
import { applyMatrix, type Box, growBox, type Matrix, type Point } from '../core/geometry/point';
import type { Finding } from '../core/inspect/finding';
import { pieceName } from '../core/inspect/names';
import type { Strength, Stretch } from '../core/inspect/strength';
import type { CutPiece } from '../core/job/as-cut';
import type { BridgeVariant } from '../core/job/compare-bridges';
import type { JobResult } from '../core/job/evaluate';
import { type DotTotal, dotTotals, setDowns } from '../core/job/totals';
import { LIMITS } from '../core/limits';
import type { Gap } from '../core/prepare/closing/closing';
import type { Outline } from '../core/prepare/outline';
import type { MemberTrouble, PreparedMember, PreparedPart } from '../core/prepare/part';
import type { Piece, PieceKind } from '../core/prepare/pieces';
import type { PartLines } from '../core/toolpath/centerline/part-lines';
import { type DotFrame, dotFrames } from '../core/toolpath/dots/part-dots';
import type { Linework } from '../core/toolpath/linework';
import { type BridgesView, bridgesView } from './bridge-view';
import { type FillView, fillView } from './fill-view';

export type MemberView = {
  readonly id: string;
  readonly matrix: Matrix;
  readonly ownBox: Box;
  readonly box: Box;
  /** Its own outlines on the sheet, for pointing at; path data with y upwards. */
  readonly d: string;
  readonly missing: readonly string[];
  readonly trouble: MemberTrouble | null;
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
  /** What closing found in a drawing; null for other members. */
  readonly closing: ClosingView | null;
};

/** A gap by its ends on the sheet. */
export type GapView = Omit<Gap, 'from' | 'to'> & { readonly from: Point; readonly to: Point };

export type ClosingView = {
  /** The smallest first. */
  readonly gaps: readonly GapView[];
  readonly doubled: number;
  readonly specks: number;
  readonly tees: number;
  readonly repeated: number;
  readonly shared: number;
};

/** A letter by where it starts and ends in the text, with the corners of its ink on the sheet. */
export type LetterView = {
  readonly start: number;
  readonly end: number;
  readonly text: string;
  readonly corners: readonly Point[];
};

export type ClosedUpView = {
  readonly moved: number;
  readonly mostMm: number;
  /** The weakest joint, and the letter at it. */
  readonly weakestMm: number | null;
  readonly weakestAt: string;
};

/** A piece there is before ties, and how it is held. */
export type UntiedView = { readonly key: string; readonly name: string; readonly box: Box };

/** A tie as it lies on the sheet, and in its part's own coordinates, which places by hand are kept in. */
export type TieView = {
  readonly piece: string;
  /** On the sheet. */
  readonly d: string;
  /** Its middle and direction, and bounds of the piece it holds, in the part's own coordinates. */
  readonly x: number;
  readonly y: number;
  readonly angleDeg: number;
  readonly length: number;
  readonly width: number;
  readonly pieceBox: Box;
  readonly byHand: boolean;
};

export type PieceView = {
  readonly kind: PieceKind;
  readonly name: string;
  readonly areaMm2: number;
  readonly box: Box;
  readonly d: string;
};

export type PartView = {
  readonly id: string;
  /** From the part's own coordinates to the sheet. */
  readonly matrix: Matrix;
  /** Bounds on the sheet of what is cut or drawn of it. */
  readonly size: Box;
  /** Bounds of its outlines and open lines, on the sheet and in the part's own coordinates. */
  readonly box: Box;
  readonly ownBox: Box;
  /** How many times as large as its members say it is made, for its overall width; 1 without one. */
  readonly scale: number;
  readonly d: string;
  readonly members: readonly MemberView[];
  /** Pieces that come away, the first of them by name. */
  readonly away: readonly PieceView[];
  readonly islands: number;
  readonly loose: number;
  /** All pieces that come away. */
  readonly awayD: string;
  readonly overlaps: boolean;
  readonly outlines: number;
  readonly segments: number;
  readonly open: number;
  /** Lines that do not close. */
  readonly linesD: string;
  readonly areaMm2: number;
  readonly ties: readonly TieView[];
  /** Whether the shape is what stays, its own plate included. */
  readonly keep: Part['keep'];
  readonly bridges: BridgesView;
  /** The pieces besides the largest before they were tied; empty without that step. */
  readonly untied: readonly UntiedView[];
  /** Lines across thin places, and across gaps narrower than the kerf. */
  readonly thinD: string;
  readonly tightD: string;
  /** The least width found under the least safe one. */
  readonly narrowestMm: number | null;
  /** Ends of segments as x, y pairs. */
  readonly nodes: Float64Array;
  readonly centerline: CenterlineView | null;
  readonly dots: DotsView | null;
  readonly fill: FillView | null;
};

/** The lines down the middle of a part's strokes. */
export type CenterlineView = {
  readonly d: string;
  readonly lines: number;
  readonly segments: number;
  readonly lengthMm: number;
  readonly dots: number;
  readonly corrected: number;
  /** The usual width of the strokes they run in. */
  readonly widthMm: number;
  /** Letters whose lines can be drawn by hand, when they are few enough. */
  readonly letters: readonly LetterLinesView[];
};

export type LetterLinesView = {
  readonly key: string;
  readonly text: string;
  readonly alike: string | null;
  readonly matrix: Matrix;
  /** Its own lines on the sheet, before they run on into the next. */
  readonly d: string;
  readonly box: Box;
  readonly corrected: boolean;
};

export type DotsView = {
  readonly count: number;
  readonly leftOut: number;
  readonly diameter: number;
  /** Of each dot where it is and where it would be by itself, on the sheet: x, y, home x, home y. */
  readonly places: Float64Array;
  /** What changes by hand are kept in: the first member, then each letter. */
  readonly frames: readonly DotFrame[];
};

export type OperationView = {
  readonly id: string;
  readonly kind: OperationKind;
  readonly lengthMm: number;
  readonly fillMm2: number;
  /** How often the tool is set down. */
  readonly paths: number;
  readonly dots: readonly DotTotal[];
  /** Ids of the parts it works on. */
  readonly outlinesOf: readonly string[];
  readonly fillsOf: readonly string[];
  /** Parts it fills with lines. */
  readonly hatchesOf: readonly string[];
  /** The lines and dots it draws, by part, without those that fill. */
  readonly linesOf: readonly { readonly id: string; readonly d: string }[];
};

export type JobView = {
  readonly parts: readonly PartView[];
  readonly operations: readonly OperationView[];
  readonly findings: readonly Finding[];
  readonly workBox: Box;
};

/** A piece left standing after the cut. */
export type CutPieceView = {
  readonly partId: string | null;
  readonly kind: PieceKind;
  readonly d: string;
};

export const cutViewOf = (pieces: readonly CutPiece[]): CutPieceView[] =>
  pieces.map(({ partId, kind, outlines }) => ({ partId, kind, d: dataOf(outlines) }));

/** The same words bridged in another way. */
export type BridgeVariantView = {
  readonly values: Pick<StepOf<'bridge'>, 'count' | 'direction'>;
  readonly d: string;
  readonly box: Box;
  readonly bridges: number;
  readonly unheld: number;
  readonly readability: number;
};

export const variantViewOf = ({ prepared, ...rest }: BridgeVariant): BridgeVariantView => ({
  values: rest.values,
  d: dataOf(prepared.outlines),
  box: prepared.box,
  bridges: rest.bridges,
  unheld: rest.unheld,
  readability: rest.readability,
});

/** A view as it is sent: parts that are the same object as in the view before are named only. */
export type JobUpdate = Omit<JobView, 'parts'> & {
  readonly serial: number;
  readonly parts: readonly (PartView | string)[];
};

/** Decimal places on the screen: 1 µm. */
const DIGITS = 3;

const printed = new WeakMap<Path, string>();

/** Path data of one outline, held as long as its path is: an edit prints only what it changed. */
function printedPath(path: Path): string {
  let data = printed.get(path);
  if (data === undefined) {
    data = pathData([path], null, DIGITS);
    printed.set(path, data);
  }
  return data;
}

const dataOf = (outlines: readonly Outline[]): string => outlines.map((o) => printedPath(o.path)).join('');

const memberView = (member: PreparedMember): MemberView => ({
  id: member.id,
  matrix: member.matrix,
  ownBox: member.ownBox,
  box: member.box,
  d: dataOf(member.outlines) + member.lines.map(printedPath).join(''),
  missing: member.missing,
  trouble: member.trouble,
  capHeightMm: member.layout?.capHeightMm ?? null,
  letters: member.layout?.letters.length ?? 0,
  picks: pickViews(member),
  baselines: baselinesOf(member),
  unclosedD: member.unclosed.length > 0 ? pathData(member.unclosed, null, DIGITS) : '',
  closedUp: member.unclosed.length > 0 ? closedUpView(member) : null,
  closing: closingView(member),
});

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
const MOST_PICKS = 400;

function pickViews({ layout, matrix }: PreparedMember): LetterView[] {
  if (!layout || layout.letters.length > MOST_PICKS) return [];
  const k = layout.scale;
  return layout.letters.map(({ start, end, text, box }) => ({
    start,
    end,
    text,
    corners: [
      [box.minX, box.minY],
      [box.maxX, box.minY],
      [box.maxX, box.maxY],
      [box.minX, box.maxY],
    ].map(([x, y]) => applyMatrix(matrix, { x: (x as number) * k, y: (y as number) * k })),
  }));
}

const baselinesOf = ({ layout, matrix }: PreparedMember): number[] =>
  layout && Math.abs(matrix.b) < 1e-9 ? layout.baselines.map((y) => matrix.f + matrix.d * y) : [];

function closedUpView({ layout }: PreparedMember): ClosedUpView {
  const closed = layout?.closedUp ?? [];
  const weakest = closed.reduce<(typeof closed)[number] | null>((a, b) => (a && a.joint <= b.joint ? a : b), null);
  const letter = layout?.letters.find((l) => weakest && l.start >= weakest.start && l.start < weakest.end);
  return {
    moved: closed.filter((c) => c.move > 1e-6).length,
    mostMm: closed.reduce((most, c) => Math.max(most, c.move), 0),
    weakestMm: weakest?.joint ?? null,
    weakestAt: letter?.text ?? '',
  };
}

const linesAcross = (stretches: readonly Stretch[]): string =>
  stretches
    .flatMap((s) =>
      s.across.map(([p, q]) => `M${p.x.toFixed(3)} ${p.y.toFixed(3)}L${q.x.toFixed(3)} ${q.y.toFixed(3)}`),
    )
    .join('');

function untiedViews(part: PreparedPart): UntiedView[] {
  const { untied } = part.notes;
  if (!untied) return [];
  const named = { sources: part.sources, pieces: untied.pieces };
  return untied.pieces.flatMap((piece, i) =>
    piece.kind === 'main' ? [] : [{ key: untied.keys[i] as string, name: pieceName(piece, named), box: piece.box }],
  );
}

const centerlineView = ({ lines, dots, letters }: PartLines): CenterlineView => {
  const widths = letters.map((l) => l.width).sort((a, b) => a - b);
  return {
    d: lines.map(printedPath).join(''),
    lines: lines.length,
    segments: countSegments(lines),
    lengthMm: lines.reduce((sum, p) => sum + pathLength(p), 0),
    dots: dots.length,
    corrected: letters.filter((l) => l.corrected).length,
    widthMm: widths[widths.length >> 1] ?? 0,
    letters:
      letters.length > MOST_PICKS
        ? []
        : letters.map((l) => ({
            key: l.key,
            text: l.text,
            alike: l.alike,
            matrix: l.matrix,
            d: l.lines.map(printedPath).join(''),
            box: growBox(regionBox(l.lines), l.width / 2),
            corrected: l.corrected,
          })),
  };
};

const views = new WeakMap<
  PreparedPart,
  { readonly strength: Strength; readonly linework: Linework; readonly view: PartView }
>();

const sameBox = (a: Box, b: Box): boolean =>
  a.minX === b.minX && a.minY === b.minY && a.maxX === b.maxX && a.maxY === b.maxY;

/** Views are held as long as the prepared part is, so that an edit elsewhere does not print its paths again. */
function partView(part: PreparedPart, size: Box, strength: Strength, linework: Linework): PartView {
  const known = views.get(part);
  if (known?.strength === strength && known.linework === linework && sameBox(known.view.size, size)) return known.view;
  const nodes = part.outlines.flatMap((o) => o.path.segments.flatMap((s) => [s.x0, s.y0]));
  const away = part.pieces.filter((piece) => piece.kind !== 'main');
  const holes = new Map<number, Outline[]>();
  for (const o of part.kept) if (o.depth % 2 === 1) holes.set(o.parent, [...(holes.get(o.parent) ?? []), o]);
  const pieceData = ({ outline }: Piece): string =>
    dataOf([part.kept[outline] as Outline, ...(holes.get(outline) ?? [])]);
  const view: PartView = {
    id: part.id,
    matrix: part.matrix,
    size,
    box: part.box,
    ownBox: part.ownBox,
    scale: part.notes.overall?.factor ?? 1,
    d: dataOf(part.outlines),
    members: part.members.map(memberView),
    away: away.slice(0, LIMITS.piecesNamed).map((piece) => ({
      kind: piece.kind,
      name: pieceName(piece, part),
      areaMm2: piece.area,
      box: piece.box,
      d: pieceData(piece),
    })),
    islands: away.filter((piece) => piece.kind === 'island').length,
    loose: away.filter((piece) => piece.kind === 'loose').length,
    awayD: away.map(pieceData).join(''),
    overlaps: part.overlaps,
    outlines: part.outlines.length,
    segments: countSegments(part.outlines.map((o) => o.path)),
    open: part.lines.length,
    linesD: part.lines.map(printedPath).join(''),
    areaMm2: part.outlines.reduce((sum, o) => sum + o.area, 0),
    ties: part.notes.ties.map((t) => ({
      piece: t.piece,
      d: printedPath(t.path),
      x: t.centre.x,
      y: t.centre.y,
      angleDeg: t.angleDeg,
      length: t.length,
      width: t.width,
      pieceBox: t.pieceBox,
      byHand: t.byHand,
    })),
    keep: part.keep,
    bridges: bridgesView(part, dataOf),
    untied: untiedViews(part),
    thinD: linesAcross(strength.thin),
    tightD: linesAcross(strength.tight),
    narrowestMm: strength.thin[0]?.width ?? null,
    nodes: Float64Array.from(nodes),
    centerline: linework.lines && centerlineView(linework.lines),
    dots: linework.dots && {
      count: linework.dots.dots.length,
      leftOut: linework.dots.leftOut,
      diameter: linework.dots.diameter,
      places: Float64Array.from(linework.dots.dots.flatMap((d) => [d.x, d.y, d.home.x, d.home.y])),
      frames: dotFrames(part),
    },
    fill: linework.fill && fillView(part, linework.fill, printedPath),
  };
  views.set(part, { strength, linework, view });
  return view;
}

/** A dot as path data: a circle, or a line of no length, which round ends make a point. */
const dotData = ({ x, y }: Point, r: number | null): string => {
  const [left, low] = [(x - (r ?? 0)).toFixed(DIGITS), y.toFixed(DIGITS)];
  if (r === null) return `M${left} ${low}h0`;
  const [radius, across] = [r.toFixed(DIGITS), (2 * r).toFixed(DIGITS)];
  return `M${left} ${low}a${radius} ${radius} 0 1 0 ${across} 0a${radius} ${radius} 0 1 0 -${across} 0`;
};

function linesOf(shapes: JobResult['operations'][number]['shapes']): OperationView['linesOf'] {
  const byPart = new Map<string, string[]>();
  for (const s of shapes) {
    if ((s.what !== 'line' || s.fills) && s.what !== 'dot') continue;
    const data = s.what === 'line' ? printedPath(s.path) : dotData(s.at, s.r);
    const list = byPart.get(s.partId);
    if (list) list.push(data);
    else byPart.set(s.partId, [data]);
  }
  return [...byPart].map(([id, list]) => ({ id, d: list.join('') }));
}

export function viewOf(result: JobResult): JobView {
  return {
    parts: result.parts.map((part, i) =>
      partView(part, result.sizes[i] as Box, result.strengths[i] as Strength, result.lineworks[i] as Linework),
    ),
    operations: result.operations.map((o) => ({
      id: o.operation.id,
      kind: o.operation.kind,
      lengthMm: o.lengthMm,
      fillMm2: o.fillMm2,
      paths: setDowns(o.shapes),
      dots: dotTotals(o.shapes),
      outlinesOf: [...new Set(o.shapes.flatMap((s) => (s.what === 'outline' ? [s.partId] : [])))],
      fillsOf: [...new Set(o.shapes.flatMap((s) => (s.what === 'fill' ? [s.partId] : [])))],
      hatchesOf: [
        ...new Set(o.shapes.flatMap((s) => (s.what === 'strokes' || (s.what === 'line' && s.fills) ? [s.partId] : []))),
      ],
      linesOf: linesOf(o.shapes),
    })),
    findings: result.findings,
    workBox: result.workBox,
  };
}

export function updateOf(view: JobView, serial: number, before: JobView | null): JobUpdate {
  const held = new Map(before?.parts.map((part) => [part.id, part]));
  return { ...view, serial, parts: view.parts.map((part) => (held.get(part.id) === part ? part.id : part)) };
}

/** The view an update stands for, where `before` is the view it was made against. */
export function applyUpdate({ serial: _serial, parts, ...rest }: JobUpdate, before: JobView | null): JobView {
  const held = new Map(before?.parts.map((part) => [part.id, part]));
  return {
    ...rest,
    parts: parts.flatMap((part) => {
      const view = typeof part === 'string' ? held.get(part) : part;
      return view ? [view] : [];
    }),
  };
}
