/** Typefaces as the server keeps them, and what a shop notes of a face. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { assetId } from './artwork';
import { LOOKS, listedAboutSchema } from './face-about';

/** A typeface file that was brought in: its bytes by their id, the name it came with, what a list shows of its faces. */
export const keptTypefaceSchema = z.object({
  content: assetId,
  name: z.string(),
  addedAt: z.string(),
  faces: z.array(listedAboutSchema).min(1).max(LIMITS.facesInFile),
});

/** A typeface file that was brought in. */
export type KeptTypeface = z.infer<typeof keptTypefaceSchema>;

/** What is noted of a face: by its content and number, or by the family of one that ships. */
export const faceMarkSchema = z.object({
  face: z.string().min(1).max(LIMITS.nameCharacters),
  favourite: z.boolean(),
  /** How it is built, where the user knows better. */
  look: z.enum(LOOKS).nullable(),
  usedAt: z.string().nullable(),
});

/** What is noted of a face. */
export type FaceMark = z.infer<typeof faceMarkSchema>;

/** A job that uses a typeface. */
export const faceUserSchema = z.object({ id: z.string(), title: z.string() });

/** A job that uses a typeface. */
export type FaceUser = z.infer<typeof faceUserSchema>;
