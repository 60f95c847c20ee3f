/** Typefaces brought in: each file is read in a worker, kept on the server, and its faces noted. */
import { create } from 'zustand';
import { call, callWithBytes } from '@/api/call';
import { API } from '@/api/endpoints';
import { fileTooLarge, TYPEFACE_ENDINGS } from '@/core/lettering/containers';
import { LIMITS } from '@/core/limits';
import { TypefaceReader } from '@/worker/client';

/** What came of a file. */
export type Brought = { readonly file: string } & (
  | { readonly outcome: 'added' | 'known'; readonly families: readonly string[]; readonly notes: readonly string[] }
  | { readonly outcome: 'refused'; readonly sentence: string }
);

type State = {
  /** Files that are being brought in; null when none are. */
  readonly under: { readonly done: number; readonly of: number; readonly file: string } | null;
  /** What came of the last ones; null when that has been read. */
  readonly came: readonly Brought[] | null;
};

/** Typefaces that are being brought in, and what came of the last ones. */
export const useBroughtFaces = create<State>(() => ({ under: null, came: null }));

/** Whether a file is a typeface by its name; an SVG file may be one too, which only its text tells. */
const isTypefaceName = (name: string): boolean =>
  TYPEFACE_ENDINGS.some((ending) => ending !== '.svg' && name.toLowerCase().endsWith(ending));

const FONT = /<(?:\w+:)?font[\s>][\s\S]*?<\/(?:\w+:)?font\s*>/g;
const DRAWN = /<(?:\w+:)?(?:path|rect|circle|ellipse|line|polyline|polygon|text|use|image)[\s/>]/;

/** Whether an SVG file is a font and nothing else: a drawing may have the fonts of its words in it. */
export const isSvgFont = (text: string): boolean => text.search(FONT) >= 0 && !DRAWN.test(text.replace(FONT, ''));

/** Whether a file is a typeface: by its name, or an SVG file that is a font. */
export async function isTypeface(file: File): Promise<boolean> {
  if (isTypefaceName(file.name)) return true;
  const isRead = file.name.toLowerCase().endsWith('.svg') && file.size <= LIMITS.typefaceBytes;
  return isRead && isSvgFont(await file.text());
}

let isStopped = false;

/** Stop after the file that is being read. */
export const stopBringingFaces = (): void => {
  isStopped = true;
};

/** What came of the last files has been read. */
export const dismissBrought = (): void => useBroughtFaces.setState({ came: null });

const waiting: File[] = [];

/** Bring files in, one after the other; those of a second call come after those of the first. `added` is told after each. */
export async function bringInTypefaces(files: readonly File[], added: () => void): Promise<readonly Brought[]> {
  waiting.push(...files);
  if (useBroughtFaces.getState().under !== null) return [];
  isStopped = false;
  const came: Brought[] = [];
  const reader = new TypefaceReader();
  try {
    for (let file = waiting.shift(); file && !isStopped; file = waiting.shift()) {
      useBroughtFaces.setState({
        under: { done: came.length, of: came.length + 1 + waiting.length, file: file.name },
        came: null,
      });
      came.push(await bringInOne(reader, file));
      added();
    }
  } finally {
    waiting.length = 0;
    reader.end();
    useBroughtFaces.setState({ under: null, came });
  }
  return came;
}

async function bringInOne(reader: TypefaceReader, file: File): Promise<Brought> {
  const refused = (sentence: string): Brought => ({ file: file.name, outcome: 'refused', sentence });
  if (file.size > LIMITS.typefaceBytes) return refused(fileTooLarge());
  try {
    const described = await reader.describe(new Uint8Array(await file.arrayBuffer()));
    if (!described.ok) return refused(described.sentence);
    const { id: content } = await callWithBytes(API.keepAsset, file, file.name);
    const { outcome } = await call(API.addTypeface, {}, { content, faces: [...described.faces] });
    const families = [...new Set(described.faces.map(({ family }) => family))];
    return { file: file.name, outcome, families, notes: described.notes };
  } catch (reason) {
    return refused(reason instanceof Error ? reason.message : 'It could not be brought in.');
  }
}
