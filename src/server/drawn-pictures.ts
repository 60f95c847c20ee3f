/** Pictures of the starters that ship, and of the help, drawn when the app was built. */
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import { type Picture, pictureSchema } from '../core/job/picture';

const FILE = path.join(process.cwd(), '.next', 'needlefile-pictures.json');
const picturesSchema = z.record(z.string(), pictureSchema);
const drawnSchema = z.object({ starters: picturesSchema, help: picturesSchema });

/** Pictures by the ids of what they show; those that are not there are shown as empty sheets. */
export async function drawnPictures(of: keyof z.infer<typeof drawnSchema>): Promise<Record<string, Picture>> {
  try {
    return drawnSchema.parse(JSON.parse(await readFile(FILE, 'utf8')))[of];
  } catch (reason) {
    console.error('The pictures drawn with the app are not there:', reason);
    return {};
  }
}
