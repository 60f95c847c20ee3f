/** Typefaces from disk for the headless command: the shipped ones and a folder of the user's. */
import { createHash } from 'node:crypto';
import { readdir, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { SHIPPED_FACES } from '../core/lettering/catalogue';
import { fileTooLarge, TYPEFACE_ENDINGS } from '../core/lettering/containers';
import type { Typeface } from '../core/lettering/face';
import { faceKey, pickFace, sameFamily } from '../core/lettering/pick';
import { loadTypeface, openTypeface, type TypefaceLoad } from '../core/lettering/typeface';
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

/**
 * Typefaces that were read, as long as their files are as they were: a process that prepares one job after the other reads them once, and
 * what was computed of their letters stays theirs.
 */
export class ReadFaces {
  private readonly known = new Map<string, { readonly stamp: string; readonly made: Promise<unknown> }>();

  /** What is made of a file, told apart by `of`: the same as before where the file is as it was then. */
  async made<T>(file: string, of: string, make: () => Promise<T>): Promise<T> {
    const { size, mtimeMs } = await stat(file);
    return this.kept(`${file} ${of}`, `${size} ${mtimeMs}`, make);
  }

  /** The same for what is not on disk; `stamp` tells its versions apart. */
  kept<T>(name: string, stamp: string, make: () => Promise<T>): Promise<T> {
    const known = this.known.get(name);
    if (known?.stamp === stamp) return known.made as Promise<T>;
    const made = make();
    this.known.set(name, { stamp, made });
    return made;
  }
}

/** All typeface files of a folder and the folders in it. What can't be read is named on `warn`. */
async function loadFolder(folder: string, read: ReadFaces, warn: Warn): Promise<OwnFace[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  const files = entries
    .filter((e) => e.isFile() && TYPEFACE_ENDINGS.some((ending) => e.name.toLowerCase().endsWith(ending)))
    .map((e) => path.join(e.parentPath, e.name))
    .sort();
  if (files.length > MOST_FILES)
    warn(`The folder has ${files.length} typeface files; the first ${MOST_FILES} are read.`);
  const faces: OwnFace[] = [];
  for (const file of files.slice(0, MOST_FILES))
    faces.push(...(await read.made(file, 'faces', () => facesOfFile(file, warn))));
  return faces;
}

async function facesOfFile(file: string, warn: Warn): Promise<OwnFace[]> {
  const say = (sentence: string) => warn(`${path.basename(file)}: ${sentence}`);
  const bytes = await bytesOf(file);
  const opened = typeof bytes === 'string' ? ({ ok: false, sentence: bytes } as const) : await openTypeface(bytes);
  if (!opened.ok || typeof bytes === 'string') {
    if (!opened.ok) say(opened.sentence);
    return [];
  }
  const content = createHash('sha256').update(bytes).digest('hex');
  const faces: OwnFace[] = [];
  for (let number = 0; number < opened.open.count; number++) {
    const load = opened.open.at({ number, axes: {} });
    if (load.ok) faces.push({ ...load.typeface, file, content, number });
    else say(load.sentence);
  }
  return faces;
}

/** A typeface file that came along with a job. */
export type BroughtFace = { readonly content: string; readonly bytes: Uint8Array };

/**
 * A lookup over the typefaces that words name: those that came along with the job and those of the folder by content, else by family, and those that ship. The folder wins
 * where both have a family. Without words no file is read.
 */
export async function diskFaces(
  named: readonly FaceNamed[],
  folder: string | null,
  warn: Warn = () => {},
  brought: readonly BroughtFace[] = [],
  read = new ReadFaces(),
): Promise<FaceLookup> {
  const own = folder && named.length > 0 ? await loadFolder(folder, read, warn) : [];
  const byKey = new Map<string, Typeface>();
  for (const wish of named) {
    const key = faceKey(wish);
    const along = brought.find((f) => f.content === wish.content);
    const load =
      along && !byKey.has(key) ? await read.kept(key, along.content, () => loadTypeface(along.bytes, wish)) : null;
    if (load?.ok) byKey.set(key, load.typeface);
    const face = wish.content && own.find((f) => f.content === wish.content && f.number === wish.number);
    if (!face || byKey.has(key)) continue;
    const fromDisk = await read.made(face.file, key, async () =>
      loadTypeface(new Uint8Array(await readFile(face.file)), wish),
    );
    if (fromDisk.ok) byKey.set(key, fromDisk.typeface);
  }
  const shipped: Typeface[] = [];
  const faults = new Map<string, string>();
  for (const face of SHIPPED_FACES) {
    if (!named.some((wish) => sameFamily(wish.face, face.family))) continue;
    const file = path.join(folderOfShipped, face.file);
    const load = await read.made(file, 'shipped', () => loadShipped(file, face.family)).catch(() => NO_FILE);
    if (load.ok) shipped.push(load.typeface);
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

const NO_FILE: TypefaceLoad = { ok: false, sentence: 'Its file is missing.' };

async function loadShipped(file: string, family: string): Promise<TypefaceLoad> {
  const bytes = await bytesOf(file);
  const load = typeof bytes === 'string' ? ({ ok: false, sentence: bytes } as const) : await loadTypeface(bytes);
  return load.ok ? { ok: true, typeface: { ...load.typeface, family } } : load;
}
