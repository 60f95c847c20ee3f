/** Typefaces from disk for the headless command: the shipped ones and a folder of the user's. */
import { createHash } from 'node:crypto';
import { readdir, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { SHIPPED_FACES } from '../core/lettering/catalogue';
import { fileTooLarge, TYPEFACE_ENDINGS } from '../core/lettering/containers';
import type { Typeface } from '../core/lettering/face';
import { faceKey, pickFace, sameFamily } from '../core/lettering/pick';
import { loadTypeface, openTypeface } from '../core/lettering/typeface';
import { LIMITS } from '../core/limits';
import type { FaceLookup } from '../core/prepare/prepared';
import type { FaceNamed } from '../core/schema/lettering';
import { rootFolder } from './root';

const folderOfShipped = path.join(rootFolder, 'public', 'typefaces');
const MOST_FILES = 5_000;

/** A face of a file in the user's folder. */
type OwnFace = Typeface & { readonly file: string; readonly content: string; readonly number: number };

type Warn = (sentence: string) => void;

async function bytesOf(file: string): Promise<Uint8Array | string> {
  if ((await stat(file)).size > LIMITS.typefaceBytes) return fileTooLarge();
  return new Uint8Array(await readFile(file));
}

/** All typeface files of a folder and the folders in it. What can't be read is named on `warn`. */
async function loadFolder(folder: string, warn: Warn): Promise<OwnFace[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  const files = entries
    .filter((e) => e.isFile() && TYPEFACE_ENDINGS.some((ending) => e.name.toLowerCase().endsWith(ending)))
    .map((e) => path.join(e.parentPath, e.name))
    .sort();
  if (files.length > MOST_FILES)
    warn(`The folder has ${files.length} typeface files; the first ${MOST_FILES} are read.`);
  const faces: OwnFace[] = [];
  for (const file of files.slice(0, MOST_FILES)) {
    const say = (sentence: string) => warn(`${path.basename(file)}: ${sentence}`);
    const bytes = await bytesOf(file);
    if (typeof bytes === 'string') {
      say(bytes);
      continue;
    }
    const content = createHash('sha256').update(bytes).digest('hex');
    const opened = await openTypeface(bytes);
    if (!opened.ok) {
      say(opened.sentence);
      continue;
    }
    for (let number = 0; number < opened.open.count; number++) {
      const load = opened.open.at({ number, axes: {} });
      if (load.ok) faces.push({ ...load.typeface, file, content, number });
      else say(load.sentence);
    }
  }
  return faces;
}

/** A typeface file that came along with a job. */
export type BroughtFace = { readonly content: string; readonly bytes: Uint8Array };

/**
 * A lookup over the typefaces that words name: those that came along with the job and those of the folder by content, else by family, and those that ship. The folder wins
 * where both have a family.
 */
export async function diskFaces(
  named: readonly FaceNamed[],
  folder: string | null,
  warn: Warn = () => {},
  brought: readonly BroughtFace[] = [],
): Promise<FaceLookup> {
  const own = folder ? await loadFolder(folder, warn) : [];
  const byKey = new Map<string, Typeface>();
  for (const wish of named) {
    const along = brought.find((f) => f.content === wish.content);
    const load = along && !byKey.has(faceKey(wish)) ? await loadTypeface(along.bytes, wish) : null;
    if (load?.ok) byKey.set(faceKey(wish), load.typeface);
    const face = wish.content && own.find((f) => f.content === wish.content && f.number === wish.number);
    if (!face || byKey.has(faceKey(wish))) continue;
    const fromDisk = await loadTypeface(new Uint8Array(await readFile(face.file)), wish);
    if (fromDisk.ok) byKey.set(faceKey(wish), fromDisk.typeface);
  }
  const shipped: Typeface[] = [];
  const faults = new Map<string, string>();
  for (const face of SHIPPED_FACES) {
    if (!named.some((wish) => sameFamily(wish.face, face.family))) continue;
    const bytes = await bytesOf(path.join(folderOfShipped, face.file)).catch(() => 'Its file is missing.');
    const load = typeof bytes === 'string' ? ({ ok: false, sentence: bytes } as const) : await loadTypeface(bytes);
    if (load.ok) shipped.push({ ...load.typeface, family: face.family });
    else faults.set(face.family.toLowerCase(), load.sentence);
  }
  return (wish) => {
    const typeface =
      wish.content === null ? (pickFace(wish, own) ?? pickFace(wish, shipped)) : byKey.get(faceKey(wish));
    if (typeface) return { typeface };
    const fault = faults.get(wish.face.trim().toLowerCase());
    return { sentence: fault ?? 'It is not among the typefaces here.' };
  };
}
