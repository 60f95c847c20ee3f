/** Drawings that were brought in, and how their loose lines are made into outlines. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, name } from './fields';
import { member } from './member';

/** The name of what is kept beside the document. */
export const assetId = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'must be the SHA-256 of what is kept, 64 hexadecimal digits')
  .describe('SHA-256 of what is kept beside the document.');

const gapAnswerSchema = z.strictObject({
  gap: about(z.string().max(120), 'Which gap: its two ends in the drawing.'),
  how: about(z.enum(['close', 'leave']), 'Whether these two ends are joined.'),
});

/** How the loose lines of a drawing are closed; lengths in mm. */
export const closeSchema = z.strictObject({
  gap: about(
    z.number().min(0).max(LIMITS.gapMostMm).default(0),
    'Gaps up to this are closed where it is sure which ends belong together, in mm; 0: none is.',
  ),
  findUpTo: about(z.number().min(0.01).max(LIMITS.gapMostMm).default(2), 'Gaps up to this are looked for, in mm.'),
  doubles: about(
    z.number().min(0).max(1).default(0.02),
    'Lines that run along each other closer than this are one, in mm; 0: all stay.',
  ),
  specks: about(
    z.number().min(0).max(LIMITS.gapMostMm).default(0.05),
    'Lines shorter than this that join nothing are left out, in mm.',
  ),
  refit: about(
    z.number().min(0.001).max(LIMITS.gapMostMm).nullable().default(null),
    'Runs of short lines become arcs and curves that stray from them no more than this, in mm; null: they stay.',
  ),
  answers: about(z.array(gapAnswerSchema).max(LIMITS.gapAnswers).default([]), 'Gaps that were answered one by one.'),
});

/** A drawing that was brought in: which one, its size, which of its groups, and how it is closed. */
export const artworkSchema = z.strictObject({
  ...member,
  kind: z.literal('artwork'),
  name: about(name.default(''), 'Name of the file it came from.'),
  drawing: about(assetId, 'The drawing as it was read, by its id; the origin is the middle of its bounds.'),
  original: about(assetId.nullable().default(null), 'The file itself, by its id.'),
  groups: about(
    z.array(z.int().min(0).max(LIMITS.drawnGroups)).max(LIMITS.drawnGroups).nullable().default(null),
    'Which groups of the drawing it has; null: all.',
  ),
  scale: about(z.number().min(1e-4).max(1e4).default(1), 'How many times as large as the file was read.'),
  close: closeSchema.prefault({}).describe('How its loose lines are made into outlines.'),
});

/** A drawing as a member of a part. */
export type Artwork = z.infer<typeof artworkSchema>;

/** How the loose lines of a drawing are closed. */
export type CloseSettings = z.infer<typeof closeSchema>;
