/** A part made ready: members set, placed and combined into clean outlines; the region that is kept; its pieces. */

import type { Lettering, Member, Part, Sheet, StepOf } from '../document/schema';
import { sticks } from '../document/sticks';
import type { ClipEngine, TaggedPolygon } from '../geometry/boolean/engine';
import { BooleanSession, FLATTEN_MM } from '../geometry/boolean/session';
import { closedPath, countSegments, type Path, regionBox, reversePath, transformPath } from '../geometry/path';
import {
  type Box,
  boxCentre,
  boxesMeet,
  compose,
  determinant,
  EMPTY_BOX,
  IDENTITY,
  invert,
  isEmptyBox,
  type Matrix,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { line } from '../geometry/segment';
import { type Layout, layoutLettering, letterPaths } from '../lettering/layout';
import type { Typeface } from '../lettering/typeface';
import { LIMITS } from '../limits';
import { type ArtworkCache, type ArtworkLookup, type PreparedArtwork, prepareArtwork } from './artwork';
import { bridge, unbridgedIslands } from './bridges/bridges';
import type { BridgeWorkshop } from './bridges/workshop';
import { framesOf, type LetterFrame } from './frames';
import {
  amountOf,
  type HandMadeCache,
  handMade,
  labelledLike,
  nodesFrame,
  placed,
  sameAmount,
  unitOf,
} from './hand-made';
import { boundsOf, measureOutlines, nestAgain, type Outline, relabel, transformOutlines } from './outline';
import { type Piece, piecesOf } from './pieces';
import { placementMatrix } from './placement';
import { shapePath } from './shape';
import type { Source } from './source';
import { applySteps, type StepNotes } from './steps';
import { type WeldCaches, weldLettering } from './weld';
import { without } from './without';

/** Why a member has no outlines. */
export type MemberTrouble =
  | { readonly kind: 'no words' }
  | { readonly kind: 'too many characters'; readonly count: number }
  | { readonly kind: 'no typeface'; readonly face: string; readonly sentence: string }
  | { readonly kind: 'no drawing'; readonly sentence: string }
  | { readonly kind: 'no part' }
  | { readonly kind: 'copies itself' }
  | { readonly kind: 'too many segments'; readonly count: number };

export type PreparedMember = {
  readonly id: string;
  readonly matrix: Matrix;
  /** Bounds before placing, and on the sheet; both in mm, empty when nothing is drawn. */
  readonly ownBox: Box;
  readonly box: Box;
  readonly outlines: readonly Outline[];
  readonly layout: Layout | null;
  /** Where its letters would be without closing up, as they are drawn; empty when nothing is closed up. */
  readonly unclosed: readonly Path[];
  readonly missing: readonly string[];
  /** The letters and shapes of a copied part, by the names they have there; empty for other members. */
  readonly copied: readonly Source[];
  /** Open lines on the sheet: of a drawing, or of a one-line face. */
  readonly lines: readonly Path[];
  /** What closing a drawing found, in the member's own coordinates; null for other members. */
  readonly closing: PreparedArtwork['closing'] | null;
  readonly trouble: MemberTrouble | null;
};

export type PreparedPart = {
  readonly id: string;
  /** From its own coordinates, which places by hand are kept in, to those that all that follows is in: own, or the sheet's. */
  readonly matrix: Matrix;
  /** Whether the shape is what stays; a negative with a plate of its own is kept inside it. */
  readonly keep: Part['keep'];
  /** The welded shape, whatever the steps leave of it; what a copy copies. */
  readonly solid: readonly Outline[];
  readonly sources: readonly Source[];
  /** One for each source. */
  readonly frames: readonly LetterFrame[];
  readonly members: readonly PreparedMember[];
  /** The shape before thickening, ties and the like: what its words and shapes alone give. */
  readonly bare: readonly Outline[];
  /** The shape as drawn: what is cut along and filled. */
  readonly outlines: readonly Outline[];
  /** Lines that do not close, as they are in its drawings. */
  readonly lines: readonly Path[];
  /** Whether overlaps are left in the outlines because welding is off. */
  readonly overlaps: boolean;
  /** Outlines of what stays: the shape, or the sheet without it. */
  readonly kept: readonly Outline[];
  readonly pieces: readonly Piece[];
  /** Its outlines were worked on by hand; `stale` when what they stand in place of has changed since. Null when not. */
  readonly handMade: {
    readonly stale: boolean;
    readonly under: readonly Outline[];
    readonly underLines: readonly Path[];
  } | null;
  /** Bounds of the shape; empty when nothing is drawn. */
  readonly box: Box;
  /** The same in the part's own coordinates. */
  readonly ownBox: Box;
  /** What the steps after welding did. */
  readonly notes: StepNotes;
};

/** A typeface, or the sentence why there is none. */
export type FaceAnswer = { readonly typeface: Typeface } | { readonly sentence: string };
export type FaceLookup = (lettering: Pick<Lettering, 'face' | 'weight' | 'italic'>) => FaceAnswer;

export type PrepareContext = {
  readonly engine: ClipEngine;
  readonly faces: FaceLookup;
  readonly artworks: ArtworkLookup;
  readonly artworkCache: ArtworkCache;
  readonly handMadeCache: HandMadeCache;
  readonly caches: WeldCaches;
  /** The part a copy copies: prepared, not there, or one that copies the asking part itself. */
  readonly copied: (partId: string) => PreparedPart | 'gone' | 'loop';
};

const weldIsOn = (part: Part): boolean => part.steps.every((s) => s.kind !== 'weld' || s.on);

/** `copies` is how many copies the part holds: they share what may be copied. */
function prepareMember(member: Member, weld: boolean, copies: number, context: PrepareContext): PreparedMember {
  let matrix = placementMatrix(member.placement);
  const bare = {
    id: member.id,
    matrix,
    ownBox: EMPTY_BOX,
    box: EMPTY_BOX,
    outlines: [],
    layout: null,
    unclosed: [],
    missing: [],
    copied: [],
    lines: [],
    closing: null,
  };
  let outlines: readonly Outline[];
  let ownBox: Box;
  let layout: Layout | null = null;
  let copied: readonly Source[] = [];
  let unclosed: readonly Path[] = [];
  let lines: readonly Path[] = [];
  let closing: PreparedArtwork['closing'] | null = null;
  if (member.kind === 'lettering') {
    if (member.text.trim() === '') return { ...bare, trouble: { kind: 'no words' } };
    if (member.text.length > LIMITS.letteringCharacters)
      return { ...bare, trouble: { kind: 'too many characters', count: member.text.length } };
    const answer = context.faces(member);
    if ('sentence' in answer)
      return { ...bare, trouble: { kind: 'no typeface', face: member.face, sentence: answer.sentence } };
    layout = layoutLettering(member, answer.typeface);
    ownBox = layout.box;
    if (answer.typeface.lines) {
      outlines = [];
      lines = letterPaths(layout, answer.typeface, matrix);
    } else outlines = weldLettering(context.engine, layout, answer.typeface, weld, matrix, context.caches);
    if (member.closeUp && !answer.typeface.lines)
      unclosed = letterPaths(layoutLettering({ ...member, closeUp: null }, answer.typeface), answer.typeface, matrix);
  } else if (member.kind === 'copy') {
    const original = context.copied(member.of);
    if (typeof original === 'string')
      return { ...bare, trouble: { kind: original === 'gone' ? 'no part' : 'copies itself' } };
    const count = copies * countSegments(original.solid.map((o) => o.path));
    if (count > LIMITS.copiedSegments) return { ...bare, trouble: { kind: 'too many segments', count } };
    const middle = isEmptyBox(original.box) ? { x: 0, y: 0 } : boxCentre(original.box);
    const toOrigin = compose(translation(-middle.x, -middle.y), scaling(member.scale));
    if (member.follows) matrix = compose(matrix, translation(middle.x, middle.y));
    const own = transformOutlines(original.solid, toOrigin);
    ownBox = boundsOf(own);
    outlines = transformOutlines(own, matrix);
    copied = original.sources;
  } else if (member.kind === 'path') {
    const made = placed(handMade(context.engine, member.d, context.handMadeCache), scaling(member.scale));
    ownBox = uniteBoxes(boundsOf(made.outlines), regionBox(made.lines));
    outlines = transformOutlines(made.outlines, matrix);
    lines = made.lines.map((path) => transformPath(path, matrix));
  } else if (member.kind === 'artwork') {
    const answer = context.artworks(member.drawing);
    if ('sentence' in answer) return { ...bare, trouble: { kind: 'no drawing', sentence: answer.sentence } };
    const made = prepareArtwork(context.engine, answer, member, context.artworkCache);
    ownBox = uniteBoxes(boundsOf(made.outlines), regionBox(made.lines));
    outlines = transformOutlines(made.outlines, matrix);
    lines = made.lines.map((path) => transformPath(path, matrix));
    closing = made.closing;
  } else {
    const path = shapePath(member);
    const own = measureOutlines([{ path, labels: path.segments.map(() => 0) }]);
    ownBox = boundsOf(own);
    outlines = transformOutlines(own, matrix);
  }
  return {
    id: member.id,
    matrix,
    ownBox,
    box: uniteBoxes(boundsOf(outlines), regionBox(lines)),
    outlines,
    layout,
    unclosed,
    missing: layout?.missing ?? [],
    copied,
    lines,
    closing,
    trouble: null,
  };
}

const sourcesOf = (member: Member, prepared: PreparedMember, part: Part): Source[] => {
  const takesAway = (member.role === 'punch') !== (part.keep === 'outside');
  if (member.kind === 'copy') return prepared.copied.map((source) => ({ ...source, memberId: member.id, takesAway }));
  if (member.kind !== 'lettering')
    return [
      {
        memberId: member.id,
        text: '',
        shape: member.kind === 'artwork' ? 'drawing' : member.kind,
        line: 0,
        start: 0,
        takesAway,
      },
    ];
  return (prepared.layout?.letters ?? []).map((letter) => ({
    memberId: member.id,
    text: letter.text,
    shape: 'letter',
    line: letter.line,
    start: letter.start,
    takesAway,
  }));
};

type Drawn = { readonly member: Member; readonly outlines: readonly Outline[] };

/** Members combined in order into clean outlines. Booleans run only where shapes meet. */
function combineMembers(drawn: readonly Drawn[], engine: ClipEngine): readonly Outline[] {
  const apart = drawn.every(
    (a, i) =>
      a.member.role === 'join' &&
      drawn.every((b, j) => i >= j || !boxesMeet(boundsOf(a.outlines), boundsOf(b.outlines))),
  );
  if (apart) return sideBySide(drawn);
  const session = new BooleanSession(engine, FLATTEN_MM, true);
  let current: TaggedPolygon[] = [];
  for (const { member, outlines } of drawn) {
    const polygons = session.addLabelled(outlines);
    if (member.role === 'join') current = session.clip('union', [...current, ...polygons]);
    else current = session.clip(member.role === 'punch' ? 'difference' : 'intersection', current, polygons);
  }
  return measureOutlines(session.rebuild(current));
}

const sideBySide = (drawn: readonly Drawn[]): Outline[] => {
  const all: Outline[] = [];
  for (const { outlines } of drawn) all.push(...relabel(outlines, all.length, 0));
  return all;
};

/** The rim of a sheet in the coordinates of a part that lies on it as `matrix` says. */
export function rimOf({ width, height }: Pick<Sheet, 'width' | 'height'>, matrix: Matrix): Path {
  const rim = closedPath([
    line(0, 0, width, 0),
    line(width, 0, width, height),
    line(width, height, 0, height),
    line(0, height, 0, 0),
  ]);
  const own = transformPath(rim, invert(matrix));
  return determinant(matrix) < 0 ? reversePath(own) : own;
}

const totalArea = (outlines: readonly Outline[]): number => outlines.reduce((sum, o) => sum + o.area, 0);
/** Letters overlap when uniting them loses more than this share of their area. */
const OVERLAP_SHARE = 1e-6;

/**
 * Prepare one part in its own coordinates, all but its bridges. Pure: the same part, drawings and typefaces give the same
 * result, wherever the part lies. What is kept of a negative without a plate is not known before its sheet is: see `onSheet`.
 */
export function preparePart(part: Part, context: PrepareContext): PreparedPart {
  const copies = part.members.filter((member) => member.kind === 'copy').length;
  const solid = part.members.map((member) => prepareMember(member, true, copies, context));
  const sources = part.members.map((member, i) => sourcesOf(member, solid[i] as PreparedMember, part));
  const drawnFrom = (prepared: readonly PreparedMember[]): Drawn[] => {
    let firstLabel = 0;
    return part.members.flatMap((member, i) => {
      const outlines = relabel((prepared[i] as PreparedMember).outlines, 0, firstLabel);
      firstLabel += (sources[i] as Source[]).length;
      return outlines.length > 0 ? [{ member, outlines }] : [];
    });
  };
  const bare = combineMembers(drawnFrom(solid), context.engine);
  const stepped = applySteps(context.engine, bare, { part, members: solid, sources: sources.flat() });
  const { keep, notes } = stepped;
  let shape = stepped.shape;
  const byHand = part.steps.find((s): s is StepOf<'nodes'> => s.kind === 'nodes' && s.on);
  const first = solid[0];
  let lines = solid.flatMap((member) => member.lines);
  let handMadeNote: PreparedPart['handMade'] = null;
  if (byHand && first) {
    handMadeNote = {
      stale: !sameAmount(byHand.over, amountOf(shape, unitOf(first.layout?.capHeightMm ?? null, first.ownBox))),
      under: shape,
      underLines: lines,
    };
    const made = placed(handMade(context.engine, byHand.d, context.handMadeCache), nodesFrame(byHand, first));
    shape = labelledLike(made.outlines, stepped.shape);
    lines = [...made.lines];
  }
  let outlines = shape;
  let overlaps = false;
  if (!weldIsOn(part) && shape === bare && part.members.every((m) => m.role === 'join')) {
    const separate = sideBySide(drawnFrom(part.members.map((member) => prepareMember(member, false, copies, context))));
    overlaps = totalArea(separate) - totalArea(shape) > OVERLAP_SHARE * totalArea(shape);
    if (overlaps) outlines = nestAgain(separate);
  }
  const box = uniteBoxes(boundsOf(shape), regionBox(lines));
  return {
    id: part.id,
    matrix: IDENTITY,
    keep,
    solid: shape,
    sources: sources.flat(),
    frames: framesOf(part, solid, sources),
    members: solid,
    bare,
    outlines,
    lines,
    overlaps,
    handMade: handMadeNote,
    box,
    ownBox: box,
    notes,
    ...(keep === 'inside' ? keptOf(shape, null, context.engine) : { kept: [], pieces: [] }),
  };
}

function keptOf(shape: readonly Outline[], rim: Path | null, engine: ClipEngine) {
  const kept = rim ? without(engine, rim, [shape]) : shape;
  return { kept, pieces: shape.length === 0 ? [] : piecesOf(kept) };
}

/** A part that is cut out of the sheet with what is kept of that; `rim` is the sheet's in the part's coordinates. */
export const onSheet = (prepared: PreparedPart, rim: Path, engine: ClipEngine): PreparedPart => ({
  ...prepared,
  ...keptOf(prepared.solid, rim, engine),
});

/**
 * The part with its islands found and, where it has that step, bridged. `rim` is the sheet's, in the part's coordinates, for a
 * part that is cut out of it; null for others. `workshop` keeps what was found out about the shape for the next time, when
 * only the bridges are others.
 */
export function withBridges(
  part: Part,
  prepared: PreparedPart,
  sheet: Pick<Sheet, 'leastWidth' | 'thickness'>,
  rim: Path | null,
  engine: ClipEngine,
  workshop: BridgeWorkshop,
): PreparedPart {
  const step = part.steps.find((s): s is StepOf<'bridge'> => s.kind === 'bridge' && s.on);
  const setting = {
    stockInside: prepared.keep === 'inside',
    frames: prepared.frames,
    leastMm: sheet.leastWidth,
    thicknessMm: sheet.thickness,
    rims: rim ? [rim] : [],
  };
  if (!step || sticks(part) || prepared.overlaps) {
    const found = unbridgedIslands(prepared.solid, setting);
    return found ? { ...prepared, notes: { ...prepared.notes, bridged: found } } : prepared;
  }
  const { shape, notes } = bridge(prepared.solid, { ...setting, step }, workshop);
  const withNotes = { ...prepared, notes: { ...prepared.notes, bridged: notes } };
  if (shape === prepared.solid) return withNotes;
  return { ...withNotes, solid: shape, outlines: shape, ...keptOf(shape, rim, engine) };
}
