/** Words as they were set: for where their typeface is not, so that they can still be cut as they are. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, pathDataField } from './fields';

const figure = z.number().min(-1e9).max(1e9);
const index = z.int().min(0).max(LIMITS.letteringStoredCharacters);
const short = z.string().max(100);

const faceSchema = z.strictObject({
  family: short,
  capHeight: about(z.number().min(1e-6).max(1e6), 'Height of a capital in its own units.'),
  slantDeg: about(z.number().min(-60).max(60), 'How far its uprights lean to the right, in degrees.'),
  isSingleStroke: about(z.boolean(), 'Whether its glyphs are lines.'),
  glyphs: about(
    z
      .array(z.strictObject({ glyph: z.int().min(0).max(LIMITS.typefaceGlyphs), d: pathDataField }))
      .max(LIMITS.letteringCharacters),
    'Glyphs that the words use: their outlines as path data, y upwards, in its own units.',
  ),
});

const trackSchema = z.strictObject({
  d: about(pathDataField, 'The line that the words run along, in mm.'),
  left: about(figure, 'How far to the left of it the baseline lies, in mm.'),
  from: about(figure, 'Where the words begin and end on that, in mm.'),
  to: figure,
});

/** Words as they were set: their letters with the outlines of these, and of what words that was. */
export const asSetSchema = z.strictObject({
  of: about(
    z.string().max(4 * LIMITS.letteringStoredCharacters),
    'What the words were then: with other words this is not used.',
  ),
  scale: about(z.number().min(1e-9).max(1e6), 'Millimetres per unit of the first typeface.'),
  capHeightMm: about(z.number().min(1e-6).max(1e6), 'Height of the capitals in mm.'),
  faces: about(
    z
      .array(faceSchema)
      .min(1)
      .max(LIMITS.ownLines + 1),
    'The typefaces, as far as the words use them.',
  ),
  letters: about(
    z
      .array(
        z.strictObject({
          text: short,
          start: index,
          end: index,
          line: index,
          x: figure,
          y: figure,
          own: z.array(figure).length(6).nullable(),
          drawn: pathDataField.nullable().default(null),
          baselineDeg: figure,
          glyphs: z.array(z.tuple([z.int().min(0).max(LIMITS.typefaceGlyphs), figure, figure])).max(1000),
        }),
      )
      .max(LIMITS.letteringCharacters),
    'Letters: their place in the text, their origin in units, their own turn and size as a matrix, their outlines where joining changed them, and their glyphs.',
  ),
  lines: about(
    z
      .array(
        z.strictObject({
          line: index,
          face: z.int().min(0).max(LIMITS.ownLines),
          text: z.string().max(LIMITS.letteringCharacters),
          capital: figure,
          x: figure,
          y: figure,
          track: trackSchema.nullable(),
        }),
      )
      .max(LIMITS.letteringCharacters),
    'Lines that have letters.',
  ),
  baselines: about(z.array(figure).max(LIMITS.letteringCharacters), 'Baselines in mm, one a line.'),
  shift: about(
    z.tuple([figure, figure]),
    'How far the words lie from their origin where they are fitted into something, in mm.',
  ),
});

/** Words as they were set. */
export type AsSet = z.infer<typeof asSetSchema>;
