/** Typefaces from disk for the headless command: the shipped ones and a folder of the user's. */
import { readdir, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { SHIPPED_FACES } from '../core/lettering/catalogue';
import type { Typeface } from '../core/lettering/face';
import { pickFace, sameFamily } from '../core/lettering/pick';
import { loadTypeface } from '../core/lettering/typeface';
import { LIMITS } from '../core/limits';
import type { FaceLookup } from '../core/prepare/prepared';
import { rootFolder } from './root';

const folderOfShipped = path.join(rootFolder, 'public', 'typefaces');
const MOST_FILES = 5_000;

async function loadFile(file: string): Promise<Typeface | string> {
  const size = (await stat(file)).size;
  if (size > LIMITS.typefaceBytes) return 'The typeface file is larger than 32 MB.';
  const loaded = await loadTypeface(new Uint8Array(await readFile(file)));
  return loaded.ok ? loaded.typeface : loaded.sentence;
}

/** All .ttf and .otf files of a folder and the folders in it. Files that can't be read are named on `warn`. */
async function loadFolder(folder: string, warn: (sentence: string) => void): Promise<Typeface[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  const files = entries
    .filter((e) => e.isFile() && /\.(ttf|otf)$/i.test(e.name))
    .map((e) => path.join(e.parentPath, e.name))
    .sort();
  if (files.length > MOST_FILES)
    warn(`The folder has ${files.length} typeface files; the first ${MOST_FILES} are read.`);
  const faces: Typeface[] = [];
  for (const file of files.slice(0, MOST_FILES)) {
    const face = await loadFile(file);
    if (typeof face === 'string') warn(`${path.basename(file)}: ${face}`);
    else faces.push(face);
  }
  return faces;
}

/** A lookup over the shipped families named in `families` and over the folder; the folder wins where both have a family. */
export async function diskFaces(
  families: readonly string[],
  folder: string | null,
  warn: (sentence: string) => void = () => {},
): Promise<FaceLookup> {
  const own = folder ? await loadFolder(folder, warn) : [];
  const shipped: Typeface[] = [];
  const faults = new Map<string, string>();
  for (const face of SHIPPED_FACES) {
    if (!families.some((family) => sameFamily(family, face.family))) continue;
    const loaded = await loadFile(path.join(folderOfShipped, face.file)).catch(() => 'Its file is missing.');
    if (typeof loaded === 'string') faults.set(face.family.toLowerCase(), loaded);
    else shipped.push({ ...loaded, family: face.family });
  }
  return (wish) => {
    const typeface = pickFace(wish, own) ?? pickFace(wish, shipped);
    if (typeface) return { typeface };
    const fault = faults.get(wish.face.trim().toLowerCase());
    return { sentence: fault ?? 'It is not among the typefaces here.' };
  };
}
