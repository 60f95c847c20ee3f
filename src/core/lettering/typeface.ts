/** A typeface file made ready for use, whatever it is packed in. */
import type { Face } from 'harfbuzzjs';
import { LIMITS } from '../limits';
import { NOT_A_TYPEFACE, unpackTypeface } from './containers';
import type { Typeface } from './face';
import { type HarfBuzz, loadHarfBuzz } from './harfbuzz';
import { readLineFace } from './line-face';
import { outlineFace } from './outline-face';
import { type Bytes, tablesOf } from './sfnt';
import { readSvgFont } from './svg-font';

/** A typeface that was loaded, or a sentence why it could not be. */
export type TypefaceLoad =
  | { readonly ok: true; readonly typeface: Typeface }
  | { readonly ok: false; readonly sentence: string };

/** Which face of a file, and where along its axes. */
export type FaceChoice = {
  /** Which of the faces of a collection, from 0. */
  readonly number: number;
  /** Places along axes by their tags; others stay where the face has them. */
  readonly axes: Readonly<Record<string, number>>;
};

/** The first face of a file, as it is. */
const FIRST_FACE: FaceChoice = { number: 0, axes: {} };

/** A typeface file that is open: its faces at any place of their axes. */
export type OpenTypeface = {
  /** How many faces it holds. */
  readonly count: number;
  readonly at: (choice: FaceChoice) => TypefaceLoad;
  /** A face as HarfBuzz has it, with its tables; null where it is read by itself, or not at all. */
  readonly raw: (number: number) => { readonly face: Face; readonly tables: ReadonlyMap<string, Bytes> } | null;
};

const refused = (sentence: string): TypefaceLoad => ({ ok: false, sentence });

/** Open a typeface file. Bad files give a sentence, never an exception. */
export async function openTypeface(
  file: Uint8Array,
): Promise<{ readonly ok: true; readonly open: OpenTypeface } | { readonly ok: false; readonly sentence: string }> {
  const unpacked = await unpackTypeface(file);
  if (unpacked.kind === 'refused') return { ok: false, sentence: unpacked.sentence };
  if (unpacked.kind === 'outlines')
    return { ok: true, open: openOutlines(await loadHarfBuzz(), unpacked.bytes, unpacked.faces) };
  const load = unpacked.kind === 'svg' ? loadSvg(unpacked.markup) : loadLines(file);
  if (!load.ok) return load;
  return { ok: true, open: { count: 1, at: ({ number }) => (number === 0 ? load : NO_SUCH_FACE), raw: () => null } };
}

/** Load a face of a typeface file. Bad files give a sentence, never an exception. */
export async function loadTypeface(file: Uint8Array, choice: FaceChoice = FIRST_FACE): Promise<TypefaceLoad> {
  const opened = await openTypeface(file);
  return opened.ok ? opened.open.at(choice) : opened;
}

const NO_SUCH_FACE = refused('The file has fewer faces than that.');

function loadLines(file: Uint8Array): TypefaceLoad {
  const typeface = readLineFace(file);
  return typeface ? { ok: true, typeface } : refused(NOT_A_TYPEFACE);
}

function loadSvg(markup: string): TypefaceLoad {
  const read = readSvgFont(markup);
  return 'sentence' in read ? refused(read.sentence) : { ok: true, typeface: read.typeface };
}

function openOutlines(hb: HarfBuzz, bytes: Uint8Array, count: number): OpenTypeface {
  const blob = new hb.Blob(bytes);
  type Raw = { readonly face: Face; readonly tables: ReadonlyMap<string, Bytes> };
  const known = new Map<number, Raw | string>();
  const rawOf = (number: number): Raw | string => {
    let raw = known.get(number);
    if (raw === undefined) {
      const tables = tablesOf(bytes, number);
      raw = whatIsLacking(tables) ?? { face: new hb.Face(blob, number), tables };
      if (typeof raw !== 'string' && raw.face.collectUnicodes().length === 0)
        raw = 'The typeface file holds no characters, or is damaged.';
      known.set(number, raw);
    }
    return raw;
  };
  return {
    count,
    raw(number) {
      const raw = rawOf(number);
      return typeof raw === 'string' ? null : raw;
    },
    at({ number, axes }) {
      if (number >= count) return NO_SUCH_FACE;
      const raw = rawOf(number);
      if (typeof raw === 'string') return refused(raw);
      return { ok: true, typeface: outlineFace(hb, raw.face, raw.tables, axes) };
    },
  };
}

/** Why nothing can be cut along a face's letters; null where something can. */
function whatIsLacking(tables: ReadonlyMap<string, Bytes>): string | null {
  if ((tables.get('maxp')?.u16(4) ?? 0) > LIMITS.typefaceGlyphs)
    return `The typeface holds more than ${LIMITS.typefaceGlyphs.toLocaleString('en')} glyphs.`;
  if (['glyf', 'CFF ', 'CFF2'].some((tag) => tables.has(tag))) return null;
  if (['CBDT', 'sbix', 'SVG ', 'COLR'].some((tag) => tables.has(tag)))
    return 'The typeface holds coloured pictures of its letters only, no outlines: there is nothing to cut along.';
  if (['EBDT', 'bdat'].some((tag) => tables.has(tag)))
    return 'The typeface holds pictures of its letters (bitmaps), no outlines: there is nothing to cut along.';
  return 'The typeface file holds no outlines, or is damaged.';
}
