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
export const length = z.number().min(LIMITS.leastLengthMm).max(LIMITS.lengthMm);

/** A colour "#rrggbb". */
export const colour = z.string().regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour such as #1A26AF');

/** What something costs, in the money of the shop; null where that is not reckoned. */
export const price = z.number().min(0).max(LIMITS.price).nullable().default(null);

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

/** Path data whose coordinates are no farther from 0 than `most`. */
const pathDataWithin = (most: number) =>
  z
    .string()
    .max(LIMITS.pathCharacters)
    .superRefine((data, context) => {
      const message = numbersBeyond(data, most);
      if (message) context.addIssue({ code: 'custom', message });
    });

const NUMBER = /[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?/g;

/** What is wrong with the size of numbers in path data; null when nothing is. Radii of arcs may be larger than coordinates. */
function numbersBeyond(data: string, most: number): string | null {
  for (const [run] of data.matchAll(/[A-DF-Za-df-z][^A-DF-Za-df-z]*/g)) {
    const isArc = run[0] === 'A' || run[0] === 'a';
    let nth = 0;
    for (const [text] of run.matchAll(NUMBER)) {
      const isRadius = isArc && nth++ % 7 < 2;
      const limit = isRadius ? LIMITS.arcRadiusMm : most;
      if (!(Math.abs(Number(text)) <= limit))
        return `${text.slice(0, 20)} is too far out; ${isRadius ? 'a radius is' : 'coordinates are'} at most ${limit.toLocaleString('en')}`;
    }
  }
  return null;
}

/** Paths as text, in mm. */
export const pathDataField = about(
  pathDataWithin(LIMITS.lengthMm),
  'Paths as SVG path data in mm, y upwards; closed ones enclose areas, open ones are lines.',
);

/** Paths as text, in shares of what they lie on. */
export const pathSharesField = about(
  pathDataWithin(LIMITS.pathShares),
  'Paths as SVG path data, y upwards; closed ones enclose areas, open ones are lines.',
);

/** Whether a step does anything. */
export const stepOn = about(z.boolean().default(true), 'Off: the step is kept but does nothing.');
