/** Fields that documents are made of: names, lengths, colours, each with what it means. */
import { z } from 'zod';
import { LIMITS } from '../limits';

/** A field with what it means, for docs/job-format.md. */
export const about = <T extends z.ZodType>(schema: T, description: string): T => schema.describe(description);

/** An id within a document. */
export const id = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/, 'must be 1 to 64 letters, digits, - or _')
  .describe('Name used for references inside the document; letters, digits, - and _.');

/** A name the user gives. */
export const name = z.string().max(LIMITS.nameCharacters);

/** A coordinate in mm. */
export const coordinate = z.number().min(-LIMITS.lengthMm).max(LIMITS.lengthMm);

/** A length in mm, more than nothing. */
export const length = z.number().positive().max(LIMITS.lengthMm);

/** A colour "#rrggbb". */
export const colour = z.string().regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour such as #3730A3');

/** An angle in degrees, counter-clockwise. */
export const turn = z.number().min(-360_000).max(360_000).default(0);

/** Where something stands on a letter, whatever becomes of the words. */
export const letterKey = about(
  z.string().max(200),
  'Which letter: id of its member and index of its first character in the text, parted by a colon.',
);

/** Ends of bars and ties. */
export const ends = z.enum(['square', 'round']).default('square');
/** Corners of offsets. */
export const corners = z
  .enum(['round', 'mitre', 'square'])
  .default('round')
  .describe('Shape of the corners that grow.');

/** Paths as text. */
export const pathDataField = about(
  z.string().max(LIMITS.pathCharacters),
  'Paths as SVG path data in mm, y upwards; closed ones enclose areas, open ones are lines.',
);

/** Whether a step does anything. */
export const stepOn = about(z.boolean().default(true), 'Off: the step is kept but does nothing.');
