/** What typefaces are packed in: as they are, as collections, as WOFF or WOFF2 (W3C), as SVG fonts, or as one-line faces of our own. */
import { unzlibSync } from 'fflate';
import { LIMITS } from '../limits';
import { seemsLineFace } from './line-face';
import { Bytes, facesInFile, seemsSfnt, sfntOf } from './sfnt';

/** A typeface file unpacked, or a sentence why it could not be. */
export type Unpacked =
  /** TrueType or OpenType: its bytes, and how many faces are in it. */
  | { readonly kind: 'outlines'; readonly bytes: Uint8Array; readonly faces: number }
  | { readonly kind: 'svg'; readonly markup: string }
  | { readonly kind: 'lines' }
  | { readonly kind: 'refused'; readonly sentence: string };

/** What names of typeface files end in. */
export const TYPEFACE_ENDINGS = ['.ttf', '.otf', '.ttc', '.otc', '.woff', '.woff2', '.svg'] as const;

/** What is said of a file that is something else. */
export const NOT_A_TYPEFACE = 'The file is not a typeface we can read: TTF, OTF, TTC, OTC, WOFF, WOFF2 or SVG font.';

/** What is said of a file that is too large to be read. */
export const fileTooLarge = (): string => `The typeface file is larger than ${mega(LIMITS.typefaceBytes)}.`;

const mega = (bytes: number): string => `${Math.round(bytes / 1024 / 1024)} MB`;
const refused = (sentence: string): Unpacked => ({ kind: 'refused', sentence });

/** Bytes of the header of a WOFF file and of an entry of its directory. */
const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;

/** What other files a user may take for a typeface begin with, and what is said of them. */
const KNOWN: readonly (readonly [string, string])[] = [
  ['%!PS', 'This is a PostScript typeface (Type 1), a kind that is no longer made. Ask for the same face as OTF.'],
  ['\x80\x01', 'This is a PostScript typeface (Type 1), a kind that is no longer made. Ask for the same face as OTF.'],
  ['STARTFONT', 'The typeface holds pictures of its letters (bitmaps), no outlines: there is nothing to cut along.'],
  ['PK\x03\x04', 'This is a packed folder (ZIP). Unpack it and bring in the typeface files that are in it.'],
];

/** Unpack a typeface file. Nothing is believed of it but what its bytes come to; what it would unpack to is limited. */
export async function unpackTypeface(file: Uint8Array): Promise<Unpacked> {
  if (file.length > LIMITS.typefaceBytes) return refused(fileTooLarge());
  if (seemsLineFace(file)) return { kind: 'lines' };
  const tag = new Bytes(file).tag(0);
  if (tag === 'wOFF') return unpackWoff(file);
  if (tag === 'wOF2') return unpackWoff2(file);
  if (seemsSfnt(file)) return whole(file);
  if (seemsMarkup(file)) return { kind: 'svg', markup: new TextDecoder().decode(file) };
  const start = String.fromCharCode(...file.subarray(0, 16));
  return refused(KNOWN.find(([begin]) => start.startsWith(begin))?.[1] ?? NOT_A_TYPEFACE);
}

/** A file as it is: the faces of a collection are counted. */
function whole(bytes: Uint8Array): Unpacked {
  const faces = facesInFile(bytes);
  if (faces < 1) return refused('The typeface file holds no face, or is damaged.');
  if (faces > LIMITS.facesInFile)
    return refused(
      `The file says it holds ${faces.toLocaleString('en')} faces; at most ${LIMITS.facesInFile} are read.`,
    );
  return { kind: 'outlines', bytes, faces };
}

const unpacksToTooMuch = refused(
  `The typeface unpacks to more than ${mega(LIMITS.typefaceUnpackedBytes)}, or is damaged.`,
);
const BROKEN = refused('The typeface file breaks off, or is damaged.');

function unpackWoff(file: Uint8Array): Unpacked {
  const woff = new Bytes(file);
  const count = woff.u16(12);
  const tables: { tag: Uint8Array; data: Uint8Array }[] = [];
  let room = LIMITS.typefaceUnpackedBytes;
  for (let i = 0; i < count; i++) {
    const entry = WOFF_HEADER + WOFF_ENTRY * i;
    const [offset, packed, size] = [woff.u32(entry + 4), woff.u32(entry + 8), woff.u32(entry + 12)];
    if (entry + WOFF_ENTRY > file.length || offset + packed > file.length || packed > size) return BROKEN;
    room -= size;
    if (room < 0) return unpacksToTooMuch;
    const data = file.subarray(offset, offset + packed);
    try {
      // What would come to more than it says is cut off there.
      tables.push({
        tag: file.subarray(entry, entry + 4),
        data: packed === size ? data : unzlibSync(data, { out: new Uint8Array(size) }),
      });
    } catch {
      return BROKEN;
    }
  }
  return count === 0 ? BROKEN : whole(sfntOf(file.subarray(4, 8), tables));
}

/** Where the header of a WOFF2 file says how much it unpacks to. */
const WOFF2_SIZE = 16;

async function unpackWoff2(file: Uint8Array): Promise<Unpacked> {
  if (new Bytes(file).u32(WOFF2_SIZE) > LIMITS.typefaceUnpackedBytes) return unpacksToTooMuch;
  const { default: decompress } = await import('woff2-encoder/decompress');
  try {
    const bytes = await decompress(file);
    // What the decoder gives is a view of its own memory.
    return bytes.length > LIMITS.typefaceUnpackedBytes ? unpacksToTooMuch : whole(bytes.slice());
  } catch {
    return BROKEN;
  }
}

/** Characters of a file in which markup begins. */
const MARKUP_BEGINS = 256;

const seemsMarkup = (file: Uint8Array): boolean =>
  /^\s*</.test(new TextDecoder().decode(file.subarray(0, MARKUP_BEGINS)).replace(/^\ufeff/, ''));
