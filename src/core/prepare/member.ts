/** A member made ready: set, drawn or closed, and placed in its part. */
import type { ClipEngine } from '../geometry/boolean/engine';
import { countSegments, type Path, regionBox, transformPath } from '../geometry/path';
import {
  type Box,
  boxCentre,
  compose,
  EMPTY_BOX,
  isEmptyBox,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import { type Layout, layoutLettering, letterPaths } from '../lettering/layout';
import { LIMITS } from '../limits';
import type { Memory } from '../memo';
import type { Member } from '../schema/members';
import { type ArtworkLookup, type PreparedArtwork, prepareArtwork } from './artwork';
import { handMade, moveHandMade } from './hand-made';
import { boundsOf, measureOutlines, type Outline, transformOutlines } from './outline';
import { placementMatrix } from './placement';
import type { FaceLookup, Keep, PreparedMember, PreparedPart } from './prepared';
import { shapePath } from './shape';
import type { Source } from './source';
import { weldLettering } from './weld';

/** What preparing members needs of the outside: the boolean engine, typefaces, drawings, and where results are kept. */
export type PrepareContext = {
  readonly engine: ClipEngine;
  readonly faces: FaceLookup;
  readonly artworks: ArtworkLookup;
  readonly memory: Memory;
  /** The part a copy copies: prepared, not there, or one that copies the asking part itself. */
  readonly copied: (partId: string) => PreparedPart | 'gone' | 'loop';
};

/** The member in the coordinates of its part. `copies` is how many copies the part holds: they share what may be copied. */
export function prepareMember(member: Member, weld: boolean, copies: number, context: PrepareContext): PreparedMember {
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
    openPaths: [],
    closing: null,
  };
  let outlines: readonly Outline[];
  let ownBox: Box;
  let layout: Layout | null = null;
  let copied: readonly Source[] = [];
  let unclosed: readonly Path[] = [];
  let openPaths: readonly Path[] = [];
  let closing: PreparedArtwork['closing'] | null = null;
  if (member.kind === 'lettering') {
    if (member.text.trim() === '') return { ...bare, trouble: { kind: 'no words' } };
    if (member.text.length > LIMITS.letteringCharacters)
      return { ...bare, trouble: { kind: 'too many characters', count: member.text.length } };
    const answer = context.faces(member);
    if ('sentence' in answer)
      return { ...bare, trouble: { kind: 'no typeface', face: member.face, sentence: answer.sentence } };
    layout = layoutLettering(member, answer.typeface, context.memory);
    ownBox = layout.box;
    if (answer.typeface.isSingleStroke) {
      outlines = [];
      openPaths = letterPaths(layout, answer.typeface, matrix);
    } else
      outlines = weldLettering(context.engine, layout, { face: answer.typeface, weld, matrix, memory: context.memory });
    if (member.closeUp && !answer.typeface.isSingleStroke)
      unclosed = letterPaths(
        layoutLettering({ ...member, closeUp: null }, answer.typeface, context.memory),
        answer.typeface,
        matrix,
      );
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
    const made = moveHandMade(handMade(context.engine, member.d, context.memory), scaling(member.scale));
    ownBox = uniteBoxes(boundsOf(made.outlines), regionBox(made.openPaths));
    outlines = transformOutlines(made.outlines, matrix);
    openPaths = made.openPaths.map((path) => transformPath(path, matrix));
  } else if (member.kind === 'artwork') {
    const answer = context.artworks(member.drawing);
    if ('sentence' in answer) return { ...bare, trouble: { kind: 'no drawing', sentence: answer.sentence } };
    const made = prepareArtwork(context.engine, answer.drawing, member, context.memory);
    ownBox = uniteBoxes(boundsOf(made.outlines), regionBox(made.openPaths));
    outlines = transformOutlines(made.outlines, matrix);
    openPaths = made.openPaths.map((path) => transformPath(path, matrix));
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
    box: uniteBoxes(boundsOf(outlines), regionBox(openPaths)),
    outlines,
    layout,
    unclosed,
    missing: layout?.missing ?? [],
    copied,
    openPaths,
    closing,
    trouble: null,
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
