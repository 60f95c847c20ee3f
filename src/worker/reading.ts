/** A file looked at before it is brought in: what is in it, drawn for a preview, and the drawing to be kept. */
import { withoutClips } from '../core/formats/clip';
import { writeFound } from '../core/formats/found-file';
import { readDrawing } from '../core/formats/read';
import type { ReadText, SizeClaim } from '../core/formats/read-drawing';
import { type SizeChoice, sizeChoices } from '../core/formats/size';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import { type Path, regionBox } from '../core/geometry/path';
import { pathData } from '../core/geometry/path-data';
import { type Box, boxHeight, boxWidth } from '../core/geometry/point';

/** A group of a drawing that is brought in, as the dialog shows it. */
export type FoundGroupView = {
  readonly name: string;
  readonly colour: string;
  readonly filled: boolean;
  /** Number of the pen that draws it, in files for plotters. */
  readonly pen?: number;
  readonly shapes: number;
  readonly words: number;
  /** Path data, y upwards, for the preview. */
  readonly d: string;
};

/** What is in a file that is brought in, and its drawing as it is kept. */
export type Looked = {
  readonly ok: true;
  readonly format: string;
  readonly claim: SizeClaim;
  readonly sizes: readonly SizeChoice[];
  /** Bounds of all shapes in mm, as read. */
  readonly box: Box;
  readonly groups: readonly FoundGroupView[];
  readonly texts: readonly ReadText[];
  readonly unread: readonly { readonly kind: string; readonly count: number }[];
  readonly notes: readonly string[];
  /** The drawing as it is kept. */
  readonly drawing: string;
};

/** What is in a file, or a sentence why it can't be read. */
export type FilePreview = Looked | { readonly ok: false; readonly sentence: string };

/** Places told apart in a preview of the whole, in thousands across. */
const PREVIEW_DIGITS = 4;

/** Reads a file and says what is in it. `engine` is asked for only where a drawing has clips. */
export async function previewFile(
  bytes: Uint8Array,
  progress: (share: number) => void,
  engine: () => Promise<ClipEngine>,
): Promise<FilePreview> {
  const reading = readDrawing(bytes, progress);
  if (!reading.ok) return reading;
  const found = reading.found.clips.length > 0 ? withoutClips(reading.found, await engine()) : reading.found;
  if (found.shapes.length === 0 && found.texts.length === 0) {
    const unreadKinds = found.unread.map(({ kind, count }) => `${count} ${kind}`).join(', ');
    const why = found.notes[0] ? ` ${found.notes[0]}` : '';
    return {
      ok: false,
      sentence: unreadKinds
        ? `There are no outlines in this file. It holds ${unreadKinds}.${why}`
        : `There is no drawing in this file.${why}`,
    };
  }
  const box = regionBox(found.shapes.flatMap((s) => s.paths));
  const digits = Math.max(0, PREVIEW_DIGITS - Math.floor(Math.log10(Math.max(boxWidth(box), boxHeight(box), 1e-3))));
  const groups = found.groups.map((group, i): FoundGroupView => {
    const shapes = found.shapes.filter((s) => s.group === i);
    const paths: Path[] = shapes.flatMap((s) => s.paths);
    const words = found.texts.filter((t) => t.group === i).length;
    return { ...group, shapes: shapes.length, words, d: pathData(paths, null, Math.min(6, digits)) };
  });
  return {
    ok: true,
    format: found.format,
    claim: found.claim,
    sizes: sizeChoices(found.claim),
    box,
    groups,
    texts: found.texts,
    unread: found.unread,
    notes: found.notes,
    drawing: writeFound(found),
  };
}
