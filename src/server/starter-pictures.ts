/** Pictures of the starters that ship, drawn when the app was built. */
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import { type Picture, pictureSchema } from '../core/job/picture';

const FILE = path.join(process.cwd(), '.next', 'needlefile-starters.json');
const picturesSchema = z.record(z.string(), pictureSchema);

/** The pictures by the ids of their starters; those that are not there are shown as empty sheets. */
export async function starterPictures(): Promise<Readonly<Record<string, Picture>>> {
  try {
    return picturesSchema.parse(JSON.parse(await readFile(FILE, 'utf8')));
  } catch (reason) {
    console.error('The pictures of the starters are not there:', reason);
    return {};
  }
}
