/** What is known of a typeface: the names it carries, its styles and axes, what is in it, and what it may be used for. */
import { z } from 'zod';
import { LIMITS } from '../limits';

const words = z.string().max(LIMITS.faceWords);
const label = z.string().max(LIMITS.nameCharacters);
const value = z.number().min(-100_000).max(100_000);
const tag = z.string().regex(/^[ -~]{4}$/);

/** How the letters of a face are built: what a user picks by. */
export const LOOKS = [
  'script',
  'hand',
  'plain',
  'narrow',
  'rounded',
  'serif',
  'slab',
  'stencil',
  'fixed width',
  'one line',
  'lines side by side',
] as const;

/** How the letters of a face are built. */
export type Look = (typeof LOOKS)[number];

/** A face of a typeface file, described. */
export const faceAboutSchema = z.strictObject({
  /** Which face of its file, from 0. */
  number: z
    .int()
    .min(0)
    .max(LIMITS.facesInFile - 1),
  family: label.min(1),
  style: label,
  weight: z.int().min(1).max(1000),
  /** Width in percent of the usual. */
  width: z.number().min(1).max(1000),
  italic: z.boolean(),
  slantDeg: z.number().min(-45).max(45),
  isSingleStroke: z.boolean(),
  /** How many characters it has, and the scripts most of which it has. */
  characters: z.int().min(0),
  scripts: z.array(label).max(200),
  axes: z.array(z.strictObject({ tag, name: label, least: value, usual: value, most: value })).max(LIMITS.faceAxes),
  /** Places along the axes that the face has a name for. */
  instances: z.array(z.strictObject({ name: label, axes: z.record(tag, value) })).max(LIMITS.faceInstances),
  /** OpenType features that a user may switch, with the names of the forms each gives where it gives several. */
  features: z
    .array(z.strictObject({ tag, name: label, forms: z.array(label).max(LIMITS.faceForms) }))
    .max(LIMITS.facesFeatures),
  foundry: label,
  copyright: words,
  licence: words,
  /** What the face says of being put into other files (OS/2, fsType). */
  embedding: z.enum(['any', 'editable', 'preview', 'restricted']),
  look: z.enum(LOOKS),
  /** Of its glyphs how many can't be drawn. */
  broken: z.int().min(0),
});

/** A face of a typeface file, described. */
export type FaceAbout = z.infer<typeof faceAboutSchema>;

/** What a list of faces shows of each; the rest is asked for one by one. */
export const listedAboutSchema = faceAboutSchema.pick({
  number: true,
  family: true,
  style: true,
  weight: true,
  width: true,
  italic: true,
  isSingleStroke: true,
  foundry: true,
  look: true,
});

/** What a list of faces shows of each. */
export type ListedAbout = z.infer<typeof listedAboutSchema>;
