/** Reading any drawing file: what it is is told from its first bytes, not from its name. */
import { Gunzip } from 'fflate';
import { LIMITS } from '../limits';
import { READ_FORMATS_SAID } from './endings';
import type { Reading, ReadProgress } from './read-drawing';
import type { FileToRead, FormatToRead, Opened } from './read-format';
import { READ_FORMATS } from './readers';

const fail = (sentence: string): { readonly ok: false; readonly sentence: string } => ({ ok: false, sentence });
const MB = 1024 * 1024;

const PICTURE = 'a picture that breaks off before it says how large it is';

const POSTSCRIPT = `an EPS or PostScript drawing, which can’t be read here. Ask for it as ${READ_FORMATS_SAID}`;

/** Kinds of files that hold no lines, by their first bytes; in the user's words. */
const OTHERS: readonly (readonly [mark: string, what: string])[] = [
  ['\x89PNG', PICTURE],
  ['\xff\xd8\xff', PICTURE],
  ['GIF8', PICTURE],
  ['RIFF', PICTURE],
  ['PK\x03\x04', `a packed folder. Unpack it and bring in the ${READ_FORMATS_SAID} in it`],
  ['AC10', 'a DWG. Save it as DXF'],
  ['%!PS', POSTSCRIPT],
  // The same with a picture of itself before it.
  ['\xc5\xd0\xd3\xc6', POSTSCRIPT],
];

/** A file and the format it is read by, or a sentence why it can't be. */
type Recognition =
  | { readonly ok: true; readonly file: FileToRead; readonly format: FormatToRead }
  | { readonly ok: false; readonly sentence: string };

function recognise(bytes: Uint8Array): Recognition {
  if (bytes.length === 0) return fail('This file is empty.');
  if (bytes.length > LIMITS.drawingBytes)
    return fail(
      `This file has ${(bytes.length / MB).toFixed(0)} MB; drawings of up to ${LIMITS.drawingBytes / MB} MB can be brought in.`,
    );
  if (bytes[0] === 0x1f && bytes[1] === 0x8b) {
    const unpacked = unpack(bytes);
    return 'sentence' in unpacked ? fail(unpacked.sentence) : recognise(unpacked.bytes);
  }
  let text: string | null = null;
  const file: FileToRead = {
    bytes,
    start: new TextDecoder('latin1').decode(bytes.subarray(0, 4096)),
    text() {
      text ??= textOf(bytes);
      return text;
    },
  };
  const known = READ_FORMATS.find((f) => f.recognises(file));
  if (known) return { ok: true, file, format: known };
  const other = OTHERS.find(([mark]) => file.start.startsWith(mark));
  if (other) return fail(`This file is ${other[1]}.`);
  if (/^\uFEFF?\s*</.test(file.text()))
    return fail('There is no drawing in this file: it is written as a drawing would be, but has none in it.');
  const likely = READ_FORMATS.find((f) => f.mayBe?.(file));
  if (likely) return { ok: true, file, format: likely };
  return fail(`This is no drawing that can be read here. Bring in an ${READ_FORMATS_SAID} file.`);
}

/** Read a file that is one drawing. Never throws for what is in it: damaged files give what could be read, or a sentence. */
export function readDrawing(bytes: Uint8Array, progress: ReadProgress = () => {}): Reading {
  const known = recognise(bytes);
  if (!known.ok) return known;
  if ('open' in known.format) return fail('This file has pages, which are read one by one.');
  return known.format.read(known.file, progress);
}

/** Open any file that can be read; one that is one drawing has one page. */
export async function openDrawing(bytes: Uint8Array): Promise<Opened> {
  const known = recognise(bytes);
  if (!known.ok) return known;
  const { file, format } = known;
  if ('open' in format) return format.open(file);
  return { ok: true, pages: 1, read: async (_, progress) => format.read(file, progress), close: async () => {} };
}

function textOf(bytes: Uint8Array): string {
  const label =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  if (label) return new TextDecoder(label).decode(bytes);
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const named = /<\?xml[^>]*encoding=["']([\w-]+)["']/.exec(head)?.[1];
  try {
    return new TextDecoder(named ?? 'utf-8').decode(bytes);
  } catch {
    return new TextDecoder('utf-8').decode(bytes);
  }
}

/** A packed drawing; what would unpack to more than a drawing may have is refused while it is unpacked. */
function unpack(bytes: Uint8Array): { readonly bytes: Uint8Array } | { readonly sentence: string } {
  const chunks: Uint8Array[] = [];
  let size = 0;
  const gunzip = new Gunzip((chunk) => {
    size += chunk.length;
    if (size > LIMITS.drawingBytes) throw new RangeError('too large');
    chunks.push(chunk);
  });
  try {
    const STEP = 1 << 16;
    for (let at = 0; at < bytes.length; at += STEP)
      gunzip.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
  } catch (fault) {
    if (fault instanceof RangeError)
      return { sentence: `Unpacked, this file has more than ${LIMITS.drawingBytes / MB} MB; it was not read.` };
    if (size === 0) return { sentence: 'This packed file is damaged and can’t be unpacked.' };
  }
  const all = new Uint8Array(size);
  let at = 0;
  for (const chunk of chunks) {
    all.set(chunk, at);
    at += chunk.length;
  }
  // A packed file in a packed file is not unpacked again.
  if (all[0] === 0x1f && all[1] === 0x8b) return { sentence: 'This file is packed more than once. Unpack it first.' };
  return { bytes: all };
}
