/** Words set in a typeface. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { alongSchema } from './along';
import { assetId } from './artwork';
import { asSetSchema } from './as-set';
import { about, length, name, turn } from './fields';
import { fitSchema } from './fit';
import { member } from './member';
import { withinSchema } from './within';

const share = z.number().min(-100).max(100).default(0);

const pairSchema = z.strictObject({
  left: about(z.string().min(1).max(LIMITS.pairCharacters), 'The left one of two neighbours, as they are seen.'),
  right: about(z.string().min(1).max(LIMITS.pairCharacters), 'The right one.'),
  at: about(
    z.int().min(0).max(LIMITS.letteringStoredCharacters).nullable().default(null),
    'Index of the right one in the text, in UTF-16 units; null for all pairs like it.',
  ),
  how: about(
    z.enum(['touch', 'foot', 'tie', 'apart']),
    'Moved until they overlap, a strip along a line that both stand on or hang from, one at another height, or left apart.',
  ),
});

const closeUpSchema = z.strictObject({
  overlap: about(
    z.number().min(0.01).max(1000),
    'Strength every joint is to have, in mm: how deep neighbours overlap and how wide the neck between them is, at least.',
  ),
  words: about(z.boolean().default(false), 'Also over the spaces between words.'),
  lines: about(z.boolean().default(false), 'Also each line with those above it.'),
  joints: about(
    z.enum(['overlap', 'best']).default('overlap'),
    '`overlap`: neighbours are moved together until they overlap. `best`: each pair by what costs the words least of how they read: touching, a foot, a tie.',
  ),
  pairs: about(
    z.array(pairSchema).max(LIMITS.pairAnswers).default([]),
    'Pairs that are joined as is said for them, where `joints` is `best`.',
  ),
});

const letterSpacing = z.number().min(-2).max(10);
const lineSpacing = z.number().min(0.1).max(10);

const tag = z.string().regex(/^[ -~]{4}$/, 'Tags have four letters.');

const featuresSchema = z
  .record(tag, z.int().min(0).max(255))
  .refine((features) => Object.keys(features).length <= LIMITS.facesFeatures, 'These are too many features.');

const formSchema = z.strictObject({
  tag: about(tag, 'Tag of the OpenType feature that gives the form.'),
  value: about(z.int().min(1).max(255), 'Which of the forms it gives.'),
});

const letterChangeSchema = z.strictObject({
  at: about(z.int().min(0).max(LIMITS.letteringStoredCharacters), 'Index of the letter in the text, in UTF-16 units.'),
  dx: about(share, 'Moved to the right by this share of the capital height.'),
  dy: about(share, 'The same upwards.'),
  turn: about(turn, 'Turned about its middle, degrees counter-clockwise.'),
  scale: about(z.number().min(0.05).max(20).default(1), 'How many times as large as the rest; the rest moves on.'),
  form: about(
    formSchema.nullable().default(null),
    'Another form that the typeface has for it; null for the usual one.',
  ),
});

/** How words name their typeface, and what they use of it. */
const faceFields = {
  face: about(name.min(1), 'Family name of the typeface.'),
  weight: about(
    z.int().min(1).max(1000).nullable().default(null),
    'Weight wanted where the family has several (400 regular, 700 bold).',
  ),
  italic: about(z.boolean().default(false), 'Italic where the family has it.'),
  style: about(
    name.nullable().default(null),
    'Name of the style, as its file has it; null where weight and italic say enough.',
  ),
  content: about(
    assetId.nullable().default(null),
    'The file of the typeface by what is in it, so that two files of one name are told apart; null for one that ships.',
  ),
  number: about(
    z
      .int()
      .min(0)
      .max(LIMITS.facesInFile - 1)
      .default(0),
    'Which face of that file, where it holds several; from 0.',
  ),
  axes: about(
    z.record(tag, z.number().min(-100_000).max(100_000)).default({}),
    'Places along the axes of a variable face by their tags; others stay where the face has them.',
  ),
  features: about(
    featuresSchema.default({}),
    'OpenType features by their tags: 0 off, 1 on, or which of several; others as the face has them.',
  ),
};

const ownLineSchema = z.strictObject({
  line: about(
    z
      .int()
      .min(0)
      .max(LIMITS.ownLines - 1),
    'Which line of the words, from 0.',
  ),
  face: about(z.strictObject(faceFields).nullable().default(null), 'Typeface of its own; null for that of the words.'),
  scale: about(
    z.number().min(0.01).max(100).default(1),
    'How many times as high its capitals are as those of the words.',
  ),
  letterSpacing: about(
    letterSpacing.nullable().default(null),
    'Letter spacing of its own, as a share of its capital height; null for that of the words.',
  ),
  lineSpacing: about(
    lineSpacing.nullable().default(null),
    'Distance of its own to the line above, as a multiple of what the typefaces have; null for that of the words.',
  ),
});

/** Words set in a typeface: their size, spacing, alignment, closing up, and changes to single letters. */
export const letteringSchema = z.strictObject({
  ...member,
  kind: z.literal('lettering'),
  text: about(z.string().max(LIMITS.letteringStoredCharacters), 'The words; lines are parted by \\n.'),
  ...faceFields,
  size: z
    .strictObject({
      by: about(
        z.enum(['capital', 'width', 'height']),
        '`capital`: height of a flat capital; `width`: of the widest line as drawn; `height`: of all lines as drawn.',
      ),
      mm: about(length, 'That measure in mm.'),
    })
    .describe('Size; proportions are always kept.'),
  letterSpacing: about(letterSpacing.default(0), 'Extra space between letters as a share of the capital height.'),
  lineSpacing: about(lineSpacing.default(1), 'Distance of baselines as a multiple of the typeface’s own.'),
  align: about(
    z.enum(['left', 'centre', 'right']).default('left'),
    'How lines align, by what is drawn; also which end of the first baseline is the origin.',
  ),
  evenLines: about(
    z.enum(['no', 'spacing', 'size', 'both']).default('no'),
    'Whether all lines are made as wide as the widest: by their letter spacing, their size, or half by each.',
  ),
  closeUp: about(closeUpSchema.nullable().default(null), 'Letters moved together until they overlap; null for not.'),
  insteadOf: about(
    name.nullable().default(null),
    'Typeface that a file asked for, where these words came from one; null when they did not.',
  ),
  letters: about(
    z.array(letterChangeSchema).max(LIMITS.letterChanges).default([]),
    'Letters that are moved, turned or sized by themselves.',
  ),
  lines: about(
    z
      .array(ownLineSchema)
      .max(LIMITS.ownLines)
      .refine((lines) => new Set(lines.map(({ line }) => line)).size === lines.length, 'A line is named twice.')
      .default([]),
    'Lines that have a typeface, size or spacing of their own.',
  ),
  fit: about(
    fitSchema.nullable().default(null),
    'A box or panel that the words are as large as; null where they have a size of their own.',
  ),
  within: about(
    withinSchema.nullable().default(null),
    'A width that the words keep within, whatever they are; null where they are as wide as they come. Words that are fitted into something keep to that.',
  ),
  asSet: about(
    asSetSchema.nullable().default(null),
    'The words as they were set, used where their typeface is not; null where that goes along with the job.',
  ),
  along: about(alongSchema.nullable().default(null), 'A line that the words run along; null where they are straight.'),
  asked: about(
    name.min(1).nullable().default(null),
    'What is asked for in the place of these words when a job is started from this one; null where they stay.',
  ),
});

/** Words set in a typeface, as a member of a part. */
export type Lettering = z.infer<typeof letteringSchema>;

/** How words name their typeface: by family, style and content, and where along its axes. */
export type FaceNamed = Pick<Lettering, 'face' | 'weight' | 'italic' | 'style' | 'content' | 'number' | 'axes'>;

/** The typeface of a lettering, as others can be set in it. */
export const faceOf = ({ face, weight, italic, style, content, number, axes }: Lettering): FaceNamed => ({
  face,
  weight,
  italic,
  style,
  content,
  number,
  axes,
});

/** A line of words with a typeface, size or spacing of its own. */
export type OwnLine = z.infer<typeof ownLineSchema>;

/** The typefaces that a lettering names: its own, and those of its lines. */
export const facesOf = (member: Lettering): FaceNamed[] => [
  faceOf(member),
  ...member.lines.flatMap(({ face }) => (face ? [face] : [])),
];

/** A typeface as words name it, and what they use of it. */
export type LineFace = FaceNamed & Pick<Lettering, 'features'>;

/** The typeface that a line of words is set in, by the number of the line. */
export const faceInLine = (member: Lettering, line: number): LineFace =>
  member.lines.find((own) => own.line === line)?.face ?? { ...faceOf(member), features: member.features };

/** Words as they would be, were all of them set as one of their lines is. */
export function setAsLine(member: Lettering, line: number): Lettering {
  const own = member.lines.find((l) => l.line === line);
  if (!own) return { ...member, lines: [] };
  return {
    ...member,
    ...faceInLine(member, line),
    letterSpacing: own.letterSpacing ?? member.letterSpacing,
    lineSpacing: own.lineSpacing ?? member.lineSpacing,
    lines: [],
  };
}

/** A typeface named by its family alone. */
export const faceOfFamily = (face: string): FaceNamed => ({
  face,
  weight: null,
  italic: false,
  style: null,
  content: null,
  number: 0,
  axes: {},
});

/** How a pair of neighbours is joined, as the user says. */
export type PairAnswer = z.infer<typeof pairSchema>;

/** How letters are moved together until they join. */
export type CloseUp = z.infer<typeof closeUpSchema>;

/**
 * A change to one letter, by where it stands in the text: moved, turned or sized. Lengths are shares of the capital
 * height.
 */
export type LetterChange = z.infer<typeof letterChangeSchema>;
