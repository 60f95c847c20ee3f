/** What the bench shows of a part: path data and figures, small enough to send from the worker at every change. */
import type { Part } from '../core/document/schema';
import { countSegments, regionBox } from '../core/geometry/path';
import { type Box, growBox, type Matrix, type Point } from '../core/geometry/point';
import { Names } from '../core/inspect/names';
import type { Stretch } from '../core/inspect/strength';
import type { PartResult } from '../core/job/part-result';
import { noteOf } from '../core/kinds/step';
import { hangStep } from '../core/kinds/steps/hang';
import { tieStep } from '../core/kinds/steps/tie';
import { lengthAround } from '../core/kinds/work';
import { LIMITS } from '../core/limits';
import type { Memory } from '../core/memo';
import type { Hanger } from '../core/prepare/hanger';
import type { Outline } from '../core/prepare/outline';
import type { Piece } from '../core/prepare/pieces';
import { meanReadability } from '../core/prepare/readability';
import type { PartLines } from '../core/toolpath/centerline/part-lines';
import { type DotFrame, dotFrames } from '../core/toolpath/dots/part-dots';
import { type BridgesView, bridgesView } from './bridge-view';
import { type HatchView, hatchView } from './hatch-view';
import { type MemberView, MOST_PICKS, memberViewOf } from './member-view';
import { Printer } from './printing';

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

/** What the bench shows of a part; places are on the sheet unless they say otherwise. */
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
  readonly away: readonly string[];
  readonly islands: number;
  readonly loose: number;
  /** All pieces that come away. */
  readonly awayD: string;
  readonly overlaps: boolean;
  /** Letters of it that are drawn. */
  readonly letters: number;
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
  /** How readable its letters stay in the mean, and the worst of them; null where nothing was done to them. */
  readonly readability: { readonly mean: number; readonly worst: number; readonly worstOf: string } | null;
  /** The pieces besides the largest before they were tied; empty without that step. */
  readonly untied: readonly UntiedView[];
  /** Lines across thin places, and across gaps narrower than the kerf. */
  readonly thinD: string;
  readonly tightD: string;
  /** The least width that stays once it is cut, where it is under the least safe one. */
  readonly narrowestMm: number | null;
  /** Ends of segments as x, y pairs. */
  readonly nodes: Float64Array;
  readonly centerline: CenterlineView | null;
  readonly dots: DotsView | null;
  readonly hatch: HatchView | null;
  /** What it hangs by, on the sheet; null without that step. */
  readonly hanger: Hanger | null;
  /** Places of studs on the sheet; null without that step. */
  readonly studs: { readonly at: readonly Point[]; readonly width: number } | null;
};

/** The lines down the middle of a part's strokes. */
export type CenterlineView = {
  readonly d: string;
  readonly lines: number;
  readonly segments: number;
  readonly lengthMm: number;
  /** Length around the dots where these are circles. */
  readonly aroundDotsMm: number;
  readonly dots: number;
  readonly corrected: number;
  /** The usual width of the strokes they run in. */
  readonly widthMm: number;
  /** Whether any letter is of a face with serifs, or of one drawn around white. */
  readonly hasSerifs: boolean;
  readonly hasInlines: boolean;
  /** Letters whose lines can be drawn by hand, when they are few enough. */
  readonly letters: readonly LetterLinesView[];
};

/** The middle lines of a letter, for working on them. */
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

/** The dots of a part. */
export type DotsView = {
  readonly count: number;
  readonly leftOut: number;
  readonly diameter: number;
  /** Of each dot where it is and where it would be by itself, on the sheet: x, y, home x, home y. */
  readonly places: Float64Array;
  /** What changes by hand are kept in: the first member, then each letter. */
  readonly frames: readonly DotFrame[];
};

const linesAcross = (stretches: readonly Stretch[]): string =>
  stretches
    .flatMap((s) =>
      s.across.map(([p, q]) => `M${p.x.toFixed(3)} ${p.y.toFixed(3)}L${q.x.toFixed(3)} ${q.y.toFixed(3)}`),
    )
    .join('');

function untiedViews(part: PartResult): UntiedView[] {
  const tied = noteOf(tieStep, part);
  if (!tied) return [];
  const names = new Names({ sources: part.sources, pieces: tied.pieces });
  return tied.pieces.flatMap((piece, i) =>
    piece.kind === 'main' ? [] : [{ key: tied.keys[i] as string, name: names.piece(piece), box: piece.box }],
  );
}

const centerlineView = ({ paths: lines, dots, letters, lengthMm }: PartLines, print: Printer): CenterlineView => {
  const widths = letters.map((l) => l.width).sort((a, b) => a - b);
  return {
    d: print.paths(lines),
    lines: lines.length,
    segments: countSegments(lines),
    lengthMm,
    aroundDotsMm: lengthAround(dots.map(({ x, y, r }) => ({ x, y, r: r / 2 }))),
    dots: dots.length,
    corrected: letters.filter((l) => l.corrected).length,
    widthMm: widths[widths.length >> 1] ?? 0,
    hasSerifs: letters.some((l) => l.hasSerifs),
    hasInlines: letters.some((l) => l.hasInlines),
    letters:
      letters.length > MOST_PICKS
        ? []
        : letters.map((l) => ({
            key: l.key,
            text: l.text,
            alike: l.alike,
            matrix: l.matrix,
            d: print.paths(l.paths),
            box: growBox(regionBox(l.paths), l.width / 2),
            corrected: l.corrected,
          })),
  };
};

function readabilityView({ readability, sources }: PartResult): PartView['readability'] {
  const [first, ...others] = readability;
  if (!first) return null;
  const worst = others.reduce((a, b) => (b.figure < a.figure ? b : a), first);
  return { mean: meanReadability(readability), worst: worst.figure, worstOf: sources[worst.label]?.text ?? '' };
}

/** The view of a part: the same object as long as the part is, so that an edit elsewhere does not print its paths again. */
export const partViewOf = (part: PartResult, memory: Memory): PartView =>
  memory.of(part, 'view', () => viewOfPart(part, new Printer(memory)));

function viewOfPart(part: PartResult, print: Printer): PartView {
  const { strength, linework } = part;
  const names = new Names(part);
  const nodes = part.outlines.flatMap((o) => o.path.segments.flatMap((s) => [s.x0, s.y0]));
  const away = part.pieces.filter((piece) => piece.kind !== 'main');
  const holes = new Map<number, Outline[]>();
  for (const o of part.kept) if (o.depth % 2 === 1) holes.set(o.parent, [...(holes.get(o.parent) ?? []), o]);
  const pieceData = ({ outline }: Piece): string =>
    print.outlines([part.kept[outline] as Outline, ...(holes.get(outline) ?? [])]);
  return {
    id: part.id,
    matrix: part.matrix,
    size: part.size,
    box: part.box,
    ownBox: part.ownBox,
    scale: part.overall?.factor ?? 1,
    d: print.outlines(part.outlines),
    members: part.members.map((member) => memberViewOf(member, print)),
    away: away.slice(0, LIMITS.piecesNamed).map((piece) => names.piece(piece)),
    islands: away.filter((piece) => piece.kind === 'island').length,
    loose: away.filter((piece) => piece.kind === 'loose').length,
    awayD: away.map(pieceData).join(''),
    overlaps: part.overlaps,
    letters: part.sources.filter(({ shape }) => shape === 'letter').length,
    outlines: part.outlines.length,
    segments: countSegments(part.outlines.map((o) => o.path)),
    open: part.openPaths.length,
    linesD: print.paths(part.openPaths),
    areaMm2: part.outlines.reduce((sum, o) => sum + o.area, 0),
    ties: (noteOf(tieStep, part)?.ties ?? []).map((t) => ({
      piece: t.piece,
      d: print.path(t.path),
      x: t.centre.x,
      y: t.centre.y,
      angleDeg: t.angleDeg,
      length: t.length,
      width: t.width,
      pieceBox: t.pieceBox,
      byHand: t.byHand,
    })),
    keep: part.keep,
    bridges: bridgesView(part, print.outlines),
    readability: readabilityView(part),
    untied: untiedViews(part),
    thinD: linesAcross(strength.thin),
    tightD: linesAcross(strength.tight),
    narrowestMm: strength.thin[0]?.left ?? null,
    nodes: Float64Array.from(nodes),
    centerline: linework.centerline && centerlineView(linework.centerline, print),
    dots: linework.dots && {
      count: linework.dots.dots.length,
      leftOut: linework.dots.leftOut,
      diameter: linework.dots.diameter,
      places: Float64Array.from(linework.dots.dots.flatMap((d) => [d.x, d.y, d.home.x, d.home.y])),
      frames: dotFrames(part),
    },
    hatch: linework.hatch && hatchView(part, linework.hatch, print.path),
    hanger: noteOf(hangStep, part),
    studs: linework.studs && { at: linework.studs.at, width: linework.studs.width },
  };
}
