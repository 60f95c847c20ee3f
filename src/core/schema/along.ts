/** Lines that words run along. */
import { z } from 'zod';
import { about, coordinate, id, length, pathDataField } from './fields';

const arcSchema = z.strictObject({
  kind: z.literal('arc'),
  by: about(
    z.enum(['radius', 'rise']),
    '`radius`: of the arc; `rise`: how high its middle is above the ends of the words, whatever these are.',
  ),
  mm: about(length, 'That measure in mm.'),
  bends: about(z.enum(['up', 'down']).default('up'), '`up`: its middle is highest; `down`: it is lowest.'),
});

const circleSchema = z.strictObject({
  kind: z.literal('circle'),
  radius: about(length, 'Radius in mm, about the origin of the words.'),
});

const waveSchema = z.strictObject({
  kind: z.literal('wave'),
  length: about(length, 'From one crest to the next, in mm.'),
  height: about(length, 'From trough to crest, in mm.'),
});

const pathSchema = z.strictObject({
  kind: z.literal('path'),
  d: pathDataField,
  scale: about(z.number().min(1e-4).max(1e4).default(1), 'How many times as large as its path data says.'),
});

const outlineSchema = z.strictObject({
  kind: z.literal('outline'),
  of: about(id, 'Id of another part; the words lie as in that part’s own coordinates.'),
  outline: about(
    z.int().min(0).max(9_999).default(0),
    'Which of its outlines, the longest first; open lines come after those that are closed.',
  ),
});

/** A line that words run along, and where on it they stand. */
export const alongSchema = z.strictObject({
  line: about(
    z.discriminatedUnion('kind', [arcSchema, circleSchema, waveSchema, pathSchema, outlineSchema]),
    'What the words run along.',
  ),
  side: about(
    z.enum(['on', 'under']).default('on'),
    '`on`: letters stand on the line, of one that is closed outside; `under`: they hang from it, inside.',
  ),
  distance: about(coordinate.default(0), 'Room between the line and the letters, in mm.'),
  start: about(
    coordinate.default(0),
    'How far along the line, in mm, the words stand from its middle, its top or, where it is open and they align left or right, its end.',
  ),
  letters: about(
    z.enum(['following', 'upright']).default('following'),
    'Whether letters turn with the line or stay upright.',
  ),
  reversed: about(z.boolean().default(false), 'Whether an open line is run the other way.'),
  bottom: about(
    z.boolean().default(false),
    'Whether the last of several lines runs along the bottom of a closed line, the right way up.',
  ),
});

/** A line that words run along, and where on it they stand. */
export type Along = z.infer<typeof alongSchema>;
