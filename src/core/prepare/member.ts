/** A member made ready: set, drawn or closed, and placed in its part. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { countSegments, regionBox, transformPath } from '../geometry/path';
import {
  type Box,
  boxCentre,
  boxHeight,
  boxWidth,
  compose,
  EMPTY_BOX,
  isEmptyBox,
  type Matrix,
  type Point,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { isAsSet, layoutAsSet } from '../lettering/as-set';
import type { LineFaces } from '../lettering/draft-lines';
import type { Typeface } from '../lettering/face';
import { type Fitted, fitLettering } from '../lettering/fit';
import { faceOfLetter, type Layout, layoutLettering, letterPaths } from '../lettering/layout';
import type { LetteringSpec } from '../lettering/spec';
import { setWithin } from '../lettering/within';
import { LIMITS } from '../limits';
import type { Memory } from '../memo';
import type { Artwork } from '../schema/artwork';
import type { Fit } from '../schema/fit';
import { facesOf, type Lettering } from '../schema/lettering';
import type { Copy, Member, Shape } from '../schema/members';
import type { Trace } from '../schema/picture';
import { type ArtworkLookup, prepareArtwork } from './artwork';
import { type HandMade, handMade, moveHandMade } from './hand-made';
import { boundsOf, measureOutlines, transformOutlines } from './outline';
import { placementMatrix } from './placement';
import type { FaceLookup, Keep, MemberTrouble, PreparedMember, PreparedPart, TroubleOf } from './prepared';
import { lineToRunAlong, toFitInto } from './run-along';
import { shapePath } from './shape';
import type { Source } from './source';
import { type PictureLookup, prepareTrace } from './trace';
import { weldLettering } from './weld';

/** What preparing members needs of the outside: the boolean engine, typefaces, drawings, and where results are kept. */
export type PrepareContext = {
  readonly engine: ClipEngine;
  readonly faces: FaceLookup;
  readonly artworks: ArtworkLookup;
  readonly pictures: PictureLookup;
  readonly memory: Memory;
  /** The part a copy copies: prepared, not there, or one that copies the asking part itself. */
  readonly copied: (partId: string) => PreparedPart | 'gone' | 'loop';
};

/** What a member comes to: what is left out is as for a member that has nothing of it. */
type Made = Pick<PreparedMember, 'ownBox' | 'outlines'> &
  Partial<
    Pick<
      PreparedMember,
      'matrix' | 'openPaths' | 'layout' | 'shift' | 'lacks' | 'unclosed' | 'copied' | 'closing' | 'traced'
    >
  >;
type MadeOrTrouble = Made | { readonly trouble: MemberTrouble };

/** The typefaces of words and of their lines, or which of them is not there. */
function lineFacesOf(member: Lettering, lookup: FaceLookup): LineFaces | TroubleOf<'no typeface'> {
  const found: Typeface[] = [];
  for (const named of facesOf(member)) {
    const answer = lookup(named);
    if ('sentence' in answer) return { kind: 'no typeface', named, sentence: answer.sentence };
    found.push(answer.typeface);
  }
  const [face, ...others] = found as [Typeface, ...Typeface[]];
  const own = new Map(member.lines.filter((l) => l.face).map(({ line }, i) => [line, others[i] as Typeface]));
  return { face, ofLine: (line) => own.get(line) ?? face };
}

/** Words: set, and their letters welded; those of a single-stroke typeface are open paths. */
function madeOfWords(member: Lettering, weld: boolean, matrix: Matrix, context: PrepareContext): MadeOrTrouble {
  const { engine, memory } = context;
  if (member.text.trim() === '') return { trouble: { kind: 'no words' } };
  if (member.text.length > LIMITS.letteringCharacters)
    return { trouble: { kind: 'too many characters', count: member.text.length } };
  const faces = lineFacesOf(member, context.faces);
  if ('kind' in faces) return wordsThatCame(member, weld, matrix, context, faces);
  const drawn = lineToRunAlong(member.along, matrix, context);
  if (drawn && 'kind' in drawn) return { trouble: drawn };
  const set = (words: LetteringSpec) => layoutLettering(words, faces.face, memory, { ofLine: faces.ofLine, drawn });
  const fitted = member.fit && fittedWords(member, member.fit, set, matrix, context);
  if (fitted && 'kind' in fitted) return { trouble: fitted };
  const layout = fitted?.layout ?? (member.within ? setWithin(member, member.within, set) : set(member));
  const trouble = sizeTrouble(layout.box);
  if (trouble) return { trouble };
  const made = madeOfLayout(layout, fitted?.shift ?? { x: 0, y: 0 }, { weld, matrix, engine, memory });
  const found = { by: 'capital', mm: layout.capHeightMm } as const;
  const size = fitted || member.within ? found : member.size;
  const apart = member.closeUp && set({ ...member, size, closeUp: null });
  const hasInk = layout.lines.some((line) => !line.face.isSingleStroke);
  return { ...made, unclosed: apart && hasInk ? letterPaths(apart, made.matrix) : [] };
}

/** Words that are set: their letters welded, those of one-line faces as they are. */
function madeOfLayout(
  layout: Layout,
  shift: Point,
  {
    weld,
    matrix,
    engine,
    memory,
  }: { readonly weld: boolean; readonly matrix: Matrix } & Pick<PrepareContext, 'engine' | 'memory'>,
): Made & { readonly matrix: Matrix } {
  const to = compose(translation(shift.x, shift.y), matrix);
  const letters = layout.letters.filter((letter) => faceOfLetter(layout, letter).isSingleStroke);
  return {
    matrix: to,
    ownBox: layout.box,
    outlines: weldLettering(engine, layout, { weld, matrix: to, memory }),
    openPaths: letterPaths({ ...layout, letters }, to),
    layout,
    shift,
  };
}

/** Words whose typeface is not here: as they were set where they came from, unless they were changed since. */
function wordsThatCame(
  member: Lettering,
  weld: boolean,
  matrix: Matrix,
  { engine, memory }: PrepareContext,
  trouble: TroubleOf<'no typeface'>,
): MadeOrTrouble {
  const kept = member.asSet;
  if (!kept || !isAsSet(member)) return { trouble };
  const layout = memory.of(kept, 'layout', () => layoutAsSet(kept));
  const shift = { x: kept.shift[0], y: kept.shift[1] };
  return { ...madeOfLayout(layout, shift, { weld, matrix, engine, memory }), lacks: trouble.named };
}

/** Words as large as what they are fitted into, and where they lie in it; or what is in the way of that. */
function fittedWords(
  member: Lettering,
  fit: Fit,
  set: (words: LetteringSpec) => Layout,
  matrix: Matrix,
  context: PrepareContext,
): NonNullable<Fitted> | TroubleOf<'no panel' | 'no room'> {
  const into = toFitInto(fit, matrix, context);
  if ('kind' in into) return into;
  const fitted = fitLettering((mm) => set({ ...member, size: { by: 'capital', mm } }), into, fit);
  return fitted ?? { kind: 'no room' };
}

/** What is wrong with the size of what lies within bounds, made `scale` times as large; null when nothing is. */
function sizeTrouble(box: Box, scale = 1): MemberTrouble | null {
  if (isEmptyBox(box)) return null;
  const mm = scale * Math.max(boxWidth(box), boxHeight(box));
  if (!(mm <= LIMITS.memberMostMm)) return { kind: 'too large', mm };
  return mm < LIMITS.memberLeastMm ? { kind: 'too small', mm } : null;
}

/** Another part's shape about its middle; where the copy follows, it is placed from where that middle is. */
function madeOfCopy(member: Copy, copies: number, matrix: Matrix, context: PrepareContext): MadeOrTrouble {
  const original = context.copied(member.of);
  if (typeof original === 'string') return { trouble: { kind: original === 'gone' ? 'no part' : 'copies itself' } };
  const count = copies * countSegments(original.solid.map((o) => o.path));
  if (count > LIMITS.copiedSegments) return { trouble: { kind: 'too many segments', count } };
  const size = sizeTrouble(original.box, member.scale);
  if (size) return { trouble: size };
  const middle = isEmptyBox(original.box) ? { x: 0, y: 0 } : boxCentre(original.box);
  const toOrigin = compose(translation(-middle.x, -middle.y), scaling(member.scale));
  const placed = member.follows ? compose(matrix, translation(middle.x, middle.y)) : matrix;
  const own = transformOutlines(original.solid, toOrigin);
  return {
    matrix: placed,
    ownBox: boundsOf(own),
    outlines: transformOutlines(own, placed),
    copied: original.sources,
  };
}

/** Outlines and open paths in the member's own coordinates, placed. */
const madeOfPaths = (own: HandMade, matrix: Matrix): Made => ({
  ownBox: uniteBoxes(boundsOf(own.outlines), regionBox(own.openPaths)),
  outlines: transformOutlines(own.outlines, matrix),
  openPaths: own.openPaths.map((path) => transformPath(path, matrix)),
});

/** A drawing from a file, closed. */
function madeOfArtwork(member: Artwork, matrix: Matrix, context: PrepareContext): MadeOrTrouble {
  const answer = context.artworks(member.drawing);
  if ('sentence' in answer) return { trouble: { kind: 'no drawing', sentence: answer.sentence } };
  const own = prepareArtwork(context.engine, answer.drawing, member, context.memory);
  return { ...madeOfPaths(own, matrix), closing: own.closing };
}

/** The outlines of a shape in a picture. */
function madeOfTrace(member: Trace, matrix: Matrix, context: PrepareContext): MadeOrTrouble {
  const answer = context.pictures(member.pixels);
  if ('sentence' in answer) return { trouble: { kind: 'no picture', sentence: answer.sentence } };
  const own = prepareTrace(context.engine, answer.raster, member, context.memory);
  if (!own) return { trouble: { kind: 'nothing traced' } };
  return { ...madeOfPaths({ outlines: own.outlines, openPaths: [] }, matrix), traced: own.found };
}

/** A plain shape. */
function madeOfShape(member: Shape, matrix: Matrix): Made {
  const path = shapePath(member);
  const own = measureOutlines([{ path, labels: path.segments.map(() => 0) }]);
  return { ownBox: boundsOf(own), outlines: transformOutlines(own, matrix) };
}

function made(member: Member, weld: boolean, copies: number, context: PrepareContext): MadeOrTrouble {
  const matrix = placementMatrix(member.placement);
  switch (member.kind) {
    case 'lettering':
      return madeOfWords(member, weld, matrix, context);
    case 'copy':
      return madeOfCopy(member, copies, matrix, context);
    case 'path':
      return madeOfPaths(
        moveHandMade(handMade(context.engine, member.d, context.memory), scaling(member.scale)),
        matrix,
      );
    case 'artwork':
      return madeOfArtwork(member, matrix, context);
    case 'trace':
      return madeOfTrace(member, matrix, context);
    default:
      return madeOfShape(member, matrix);
  }
}

/** The member in the coordinates of its part. `copies` is how many copies the part holds: they share what may be copied. */
export function prepareMember(member: Member, weld: boolean, copies: number, context: PrepareContext): PreparedMember {
  const done = made(member, weld, copies, context);
  const trouble = 'trouble' in done ? done.trouble : sizeTrouble(done.ownBox);
  const { outlines, ownBox, ...more }: Made = 'trouble' in done || trouble ? { outlines: [], ownBox: EMPTY_BOX } : done;
  const { matrix = placementMatrix(member.placement), openPaths = [], layout = null } = more;
  return {
    id: member.id,
    matrix,
    ownBox,
    box: uniteBoxes(boundsOf(outlines), regionBox(openPaths)),
    outlines,
    layout,
    shift: more.shift ?? { x: 0, y: 0 },
    lacks: more.lacks ?? null,
    unclosed: more.unclosed ?? [],
    missing: layout?.missing ?? [],
    broken: layout?.broken ?? [],
    copied: more.copied ?? [],
    openPaths,
    closing: more.closing ?? null,
    traced: more.traced ?? null,
    trouble,
  };
}

/** The letters or the shape a member is made of. */
export const sourcesOf = (member: Member, prepared: PreparedMember, keep: Keep): Source[] => {
  const takesAway = (member.role === 'punch') !== (keep === 'outside');
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
