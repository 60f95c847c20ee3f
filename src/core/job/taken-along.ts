/**
 * A job to take along: one zip file with its document, the drawings, pictures and typefaces it names, and what is said of them. The
 * same job comes to the same bytes. What others hand in is looked at before anything of it is unpacked.
 */
import { unzipSync, type Zippable, zipSync } from 'fflate';
import { z } from 'zod';
import { readJob } from '../document/read';
import type { Job } from '../document/schema';
import { keepAsSet } from '../lettering/as-set';
import { faceKey } from '../lettering/pick';
import { LIMITS } from '../limits';
import type { PreparedMember } from '../prepare/prepared';
import { type FaceNamed, facesOf } from '../schema/lettering';

/** The ending of such files, and which version of what is in them is written. */
export const TAKEN_ALONG = '.needlefile';
const VERSION = 1;

/** What a file that goes along is. */
const KINDS = ['drawing', 'picture', 'original', 'typeface'] as const;

/** A file that a job names: its id, and what it is. */
export type NamedFile = { readonly id: string; readonly as: (typeof KINDS)[number]; readonly name: string };

/** A file that goes along, with its bytes. */
export type TakenFile = NamedFile & { readonly bytes: Uint8Array };

const said = z.string().max(LIMITS.faceWords);
const manifestSchema = z.object({
  needlefile: z.number(),
  title: said,
  files: z
    .array(z.object({ id: z.string().regex(/^[0-9a-f]{64}$/), as: z.enum(KINDS), name: said }))
    .max(LIMITS.takenFiles),
  leftOut: z.array(said).max(LIMITS.takenFiles),
});

const MANIFEST = 'about.json';
const DOCUMENT = 'document.json';
const FOLDER = 'files/';

/** All files that a job names, each once, in the order they are met. */
export function filesNamed(job: Job): NamedFile[] {
  const found = new Map<string, NamedFile>();
  const add = (id: string | null, as: NamedFile['as'], name: string) => {
    if (id !== null && !found.has(id)) found.set(id, { id, as, name });
  };
  for (const member of job.parts.flatMap((p) => p.members)) {
    if (member.kind === 'lettering')
      for (const { content, face, style } of facesOf(member))
        add(content, 'typeface', [face, style].filter(Boolean).join(' '));
    if (member.kind === 'artwork') add(member.drawing, 'drawing', '');
    if (member.kind === 'trace') add(member.pixels, 'picture', '');
    if (member.kind === 'artwork' || member.kind === 'trace') add(member.original, 'original', member.name);
  }
  for (const { pixels, original, name } of job.pictures) {
    add(pixels, 'picture', '');
    add(original, 'original', name);
  }
  return [...found.values()];
}

/**
 * The job with the words in some typefaces kept as they are set, for where these are not. `prepared` prepares the members of a part
 * of a job that is given, at the size its members say.
 */
export function withWordsAsSet(
  job: Job,
  isLeftOut: (face: FaceNamed) => boolean,
  prepared: (job: Job, partId: string) => readonly PreparedMember[],
): Job {
  const own = { ...job, parts: job.parts.map((part) => ({ ...part, overallWidth: null })) };
  return {
    ...job,
    parts: job.parts.map((part) => ({
      ...part,
      members: part.members.map((member) => {
        if (member.kind !== 'lettering' || !facesOf(member).some(isLeftOut)) return member;
        const made = prepared(own, part.id).find((m) => m.id === member.id);
        // What came without its typeface goes on as it came.
        if (!made?.layout || made.lacks) return member;
        return { ...member, asSet: keepAsSet(member, made.layout, made.shift) };
      }),
    })),
  };
}

/** Pack a job with its files. `leftOut`: sentences about what does not go along. */
export function packJob(job: Job, files: readonly TakenFile[], leftOut: readonly string[]): Uint8Array {
  const text = (value: unknown) => new TextEncoder().encode(`${JSON.stringify(value, null, 2)}\n`);
  const about = {
    needlefile: VERSION,
    title: job.title,
    files: files.map(({ id, as, name }) => ({ id, as, name })),
    leftOut,
  };
  // The first day that zip files can tell: the same job comes to the same bytes.
  const first = { mtime: new Date(1980, 0, 1) };
  const entries: Zippable = { [MANIFEST]: [text(about), first], [DOCUMENT]: [text(job), first] };
  // Pictures are packed already.
  for (const { id, bytes, as } of files)
    entries[`${FOLDER}${id}`] = [bytes, { ...first, level: as === 'picture' ? 0 : 6 }];
  return zipSync(entries);
}

/** A job that was taken along, unpacked; or the sentence why it can't be used. */
export type OpenedJob =
  | { readonly ok: true; readonly job: Job; readonly files: readonly TakenFile[]; readonly leftOut: readonly string[] }
  | { readonly ok: false; readonly sentence: string };

const refused = (sentence: string): OpenedJob => ({ ok: false, sentence });
const DAMAGED = 'This job taken along is damaged and can’t be opened: it did not arrive whole. Nothing was changed.';

/** Whether bytes begin as a zip file does. */
export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);

/** The sentence for a file of so many bytes. */
export const takenTooLarge = (): string =>
  `This job taken along is larger than the ${LIMITS.takenBytes / 1024 / 1024} MB that are read at once. Nothing was changed.`;

/** What is wrong with the entries of a zip file, by their names and sizes alone; null where nothing is. */
class Entries {
  sentence: string | null = null;
  private readonly names = new Set<string>();
  private bytes = 0;

  /** Whether an entry is to be unpacked. */
  readonly take = ({ name, originalSize }: { readonly name: string; readonly originalSize: number }): boolean => {
    this.sentence ??= this.troubleWith(name, originalSize);
    return this.sentence === null;
  };

  private troubleWith(name: string, size: number): string | null {
    const shown = name.slice(0, 60);
    const isOurs = name === MANIFEST || name === DOCUMENT || /^files\/[0-9a-f]{64}$/.test(name);
    if (!isOurs)
      return `This zip file holds “${shown}”, which does not belong in a job taken along. Nothing was changed.`;
    if (this.names.has(name)) return `This job taken along holds “${shown}” twice. Nothing was changed.`;
    this.names.add(name);
    if (this.names.size > LIMITS.takenFiles + 2)
      return `This job taken along holds more than ${LIMITS.takenFiles.toLocaleString('en')} files. Nothing was changed.`;
    const most = name === DOCUMENT || name === MANIFEST ? LIMITS.documentBytes : LIMITS.assetBytes;
    this.bytes += size;
    if (size > most || this.bytes > LIMITS.takenBytes)
      return `Unpacked, “${shown}” would be larger than what is read. Nothing was changed.`;
    return null;
  }
}

/** Unpack a job that was taken along. That its files are what they are called is for whoever keeps them to see. */
export function openTaken(bytes: Uint8Array): OpenedJob {
  if (bytes.length > LIMITS.takenBytes) return refused(takenTooLarge());
  if (!isZip(bytes)) return refused('This is not a job taken along: it is no zip file. Nothing was changed.');
  const entries = new Entries();
  let unpacked: Record<string, Uint8Array>;
  try {
    unpacked = unzipSync(bytes, { filter: entries.take });
  } catch {
    return refused(entries.sentence ?? DAMAGED);
  }
  if (entries.sentence !== null) return refused(entries.sentence);
  const [about, document] = [unpacked[MANIFEST], unpacked[DOCUMENT]];
  if (!about || !document) return refused('This zip file is not a job taken along. Nothing was changed.');
  const manifest = manifestOf(about);
  if (typeof manifest === 'string') return refused(manifest);
  const read = readJob(new TextDecoder().decode(document));
  if (!read.ok) return refused(read.sentences.join(' '));
  const files: TakenFile[] = [];
  for (const { id, as, name } of manifest.files) {
    const file = unpacked[`${FOLDER}${id}`];
    if (!file) return refused(DAMAGED);
    files.push({ id, as, name, bytes: file });
  }
  return { ok: true, job: read.job, files, leftOut: manifest.leftOut };
}

/** What is said of a job and its files, or the sentence why that can't be used. */
function manifestOf(bytes: Uint8Array): z.infer<typeof manifestSchema> | string {
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return DAMAGED;
  }
  const version = (json as { readonly needlefile?: unknown } | null)?.needlefile;
  if (typeof version === 'number' && version > VERSION)
    return 'This job was taken along by a newer Needlefile than this one. Nothing was changed.';
  const read = manifestSchema.safeParse(json);
  return read.success ? read.data : DAMAGED;
}

/** The sentence about a typeface that does not go along. */
export const leftOutSentence = ({ face, style }: FaceNamed): string =>
  `${[face, style].filter(Boolean).join(' ')} stays here: its licence does not allow it to be handed on. The words set in it go along as outlines, so that the job can be cut as it is.`;

/** Typefaces of the user's own that a job names, each once. */
export function ownFacesNamed(job: Job): FaceNamed[] {
  const found = new Map<string, FaceNamed>();
  for (const member of job.parts.flatMap((p) => p.members))
    if (member.kind === 'lettering')
      for (const face of facesOf(member)) if (face.content !== null) found.set(faceKey(face), face);
  return [...found.values()];
}
