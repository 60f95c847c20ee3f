/** The frame of each letter: what places on a letter are told in, so that they go with it through every change. */
import { type Region, transformRegion } from '../geometry/path';
import {
  type Box,
  boxHeight,
  compose,
  IDENTITY,
  isEmptyBox,
  type Matrix,
  scaling,
  translation,
} from '../geometry/point';
import type { Typeface } from '../lettering/face';
import { faceOfLetter, type Layout, type PlacedLetter } from '../lettering/layout';
import { glyphNames, letterOutlines } from '../lettering/set-letter';
import type { Lettering } from '../schema/lettering';
import type { Member } from '../schema/members';
import type { Source } from './source';

/** The own coordinates of a letter, or of a shape: what is placed by hand on it is kept in them. */
export type LetterFrame = {
  /** Which letter: member and where it starts in the text. */
  readonly key: string;
  /** The same for letters that look the same but for their size; null for what is no letter. */
  readonly alike: string | null;
  /** The line it stands in. */
  readonly line: string;
  /** From its own coordinates, in capital heights from its origin on the baseline, to the sheet. */
  readonly matrix: Matrix;
  /** How far its uprights lean to the right, in degrees. */
  readonly slantDeg: number;
  /** The letter as its face draws it, in the frame's own coordinates; null for what is no letter. */
  readonly glyphs: FramedGlyphs | null;
};

/** What a letter is drawn by in its face: its outlines in capital heights about its origin, and a name for them. */
export type FramedGlyphs = {
  readonly face: Typeface;
  readonly text: string;
  readonly drawn: string;
  readonly outlines: () => Region;
};

type FramedMember = {
  readonly id: string;
  readonly matrix: Matrix;
  readonly ownBox: Box;
  readonly layout: Layout | null;
};

/** One frame for each source of a part, in their order. Copies have the frame of the whole copy. */
export function framesOf(
  members: readonly Member[],
  framed: readonly FramedMember[],
  sources: readonly (readonly Source[])[],
): LetterFrame[] {
  return members.flatMap((member, i): LetterFrame[] => {
    const { layout, matrix, ownBox } = framed[i] as FramedMember;
    const of = sources[i] as readonly Source[];
    if (member.kind === 'lettering' && layout)
      return layout.letters.map((letter) => ({
        key: `${member.id}:${letter.start}`,
        alike: `${faceNameOf(member, letter.line)}/${glyphNames(letter.glyphs)}${letter.drawn?.lowered ? `/${letter.drawn.lowered.name}` : ''}`,
        line: `${member.id}:${letter.line}`,
        matrix: compose(letterMatrix(layout, letter), matrix),
        slantDeg: faceOfLetter(layout, letter).slantDeg,
        glyphs: glyphsIn(faceOfLetter(layout, letter), letter),
      }));
    const unit = isEmptyBox(ownBox) ? 1 : Math.max(1, boxHeight(ownBox));
    return of.map((source) => ({
      key: `${member.id}:${source.start}`,
      alike: null,
      line: `${member.id}:${source.line}`,
      matrix: compose(scaling(unit), matrix),
      slantDeg: 0,
      glyphs: null,
    }));
  });
}

function glyphsIn(face: Typeface, { text, glyphs }: PlacedLetter): FramedGlyphs | null {
  if (face.isSingleStroke) return null;
  const plain = { glyphs, own: null, drawn: null };
  return {
    face,
    text,
    drawn: glyphNames(glyphs),
    outlines: () => transformRegion(letterOutlines(plain, face), scaling(1 / face.capHeight)),
  };
}

/** The face of a line by its name: what is drawn by hand for alike letters is kept under it. */
function faceNameOf(member: Lettering, line: number): string {
  const { face, weight, italic } = member.lines.find((own) => own.line === line)?.face ?? member;
  return `${face}/${weight ?? ''}/${italic}`;
}

/** From capital heights of a letter to the lettering's own mm. */
function letterMatrix(layout: Layout, letter: PlacedLetter): Matrix {
  const own = compose(scaling(faceOfLetter(layout, letter).capHeight), letter.own ?? IDENTITY);
  return compose(compose(own, translation(letter.x, letter.y)), scaling(layout.scale));
}
