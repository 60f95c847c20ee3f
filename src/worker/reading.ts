/** A file looked at before it is brought in: what is in it, drawn for a preview, and the drawing to be kept. */

import type { Placement } from '../core/document/schema';
import { withoutClips } from '../core/formats/clip';
import { writeFound } from '../core/formats/found-file';
import { writePixels } from '../core/formats/pixels';
import { openDrawing } from '../core/formats/read';
import type { ReadDrawing, ReadPicture, ReadText, SizeClaim } from '../core/formats/read-drawing';
import { type SizeChoice, sizeChoices } from '../core/formats/size';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import { countSegments, type Path, regionBox } from '../core/geometry/path';
import { pathData } from '../core/geometry/path-data';
import {
  type Box,
  boxHeight,
  boxWidth,
  compose,
  EMPTY_BOX,
  isEmptyBox,
  scaling,
  transformedBox,
  uniteBoxes,
} from '../core/geometry/point';
import { LIMITS } from '../core/limits';
import { placementMatrix, placementOf } from '../core/prepare/placement';
import type { Raster } from '../core/tracing/raster';
import { likelyTones } from '../core/tracing/starts';
import type { PictureFound } from './picture-reading';

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

/** A picture in a drawing: its pixels as a PNG file, and where its middle lies in the drawing, in mm, y upwards. */
export type FoundInDrawing = {
  readonly pixels: Uint8Array;
  readonly columns: number;
  readonly rows: number;
  /** Width of a pixel in mm. */
  readonly scale: number;
  readonly placement: Placement;
  readonly likely: ReturnType<typeof likelyTones>;
};

/** What is in a file that is brought in, and its drawing as it is kept. */
export type Looked = {
  readonly ok: true;
  readonly isPicture?: never;
  readonly format: string;
  readonly claim: SizeClaim;
  readonly sizes: readonly SizeChoice[];
  /** Bounds of all shapes in mm, as read. */
  readonly box: Box;
  readonly groups: readonly FoundGroupView[];
  readonly texts: readonly ReadText[];
  readonly pictures: readonly FoundInDrawing[];
  readonly unread: readonly { readonly kind: string; readonly count: number }[];
  readonly notes: readonly string[];
  /** How many paths come along that the preview has no room for. */
  readonly undrawn: number;
  /** The drawing as it is kept. */
  readonly drawing: string;
  /** How many pages the file has, and the number of this one, from 0. */
  readonly pages: number;
  readonly page: number;
};

/** A page as small as a stamp: its size in mm, and what it draws as path data, y upwards. */
export type PagePicture = {
  readonly page: number;
  readonly width: number;
  readonly height: number;
  readonly filled: string;
  readonly lines: string;
};

/** What is in a drawing, or a sentence why it can't be read. */
export type DrawingPreview = Looked | { readonly ok: false; readonly sentence: string };

/** What is in a file, or a sentence why it can't be read. */
export type FilePreview = DrawingPreview | PictureFound;

/** Places told apart in a preview of the whole, in thousands across; in a small picture. */
const PREVIEW_DIGITS = 4;
const SMALL_DIGITS = 3;

/** Digits behind the point by which so many powers of ten are told apart across a size in mm. */
const digitsFor = (sizeMm: number, powers: number): number =>
  Math.min(6, Math.max(0, powers - Math.floor(Math.log10(Math.max(sizeMm, 1e-3)))));

/**
 * Draws groups for the preview, up to LIMITS.previewSegments in all. What looks alike in a group is drawn once: a line drawn
 * half a million times over itself holds a browser up for minutes.
 */
function drawnOnce(digits: number): {
  readonly group: (paths: readonly Path[]) => string;
  readonly undrawn: () => number;
} {
  let room = LIMITS.previewSegments;
  let undrawn = 0;
  return {
    group: (paths) => {
      const drawn = new Set<string>();
      for (const path of paths) {
        const d = pathData([path], null, digits);
        if (drawn.has(d)) continue;
        if (path.segments.length > room) {
          undrawn++;
          continue;
        }
        room -= path.segments.length;
        drawn.add(d);
      }
      return [...drawn].join('');
    },
    undrawn: () => undrawn,
  };
}

/** Reads a page of a file and says what is in it. `engine` is asked for only where a drawing has clips. */
export async function previewFile(
  bytes: Uint8Array,
  {
    page,
    progress,
    encode = async (raster) => writePixels(raster),
  }: {
    readonly page: number;
    readonly progress: (share: number) => void;
    /** Makes a PNG file of pixels. */
    readonly encode?: (raster: Raster) => Promise<Uint8Array>;
  },
  engine: () => Promise<ClipEngine>,
): Promise<DrawingPreview> {
  const opened = await openDrawing(bytes);
  if (!opened.ok) return opened;
  const { pages } = opened;
  const reading = await opened.read(Math.min(page, pages - 1), progress);
  await opened.close();
  if (!reading.ok) return reading;
  const found = reading.found.clips.length > 0 ? withoutClips(reading.found, await engine()) : reading.found;
  // Of several pages another may have something on it.
  const isEmpty = found.shapes.length + found.texts.length + found.pictures.length === 0;
  if (isEmpty && pages === 1) return nothingIn(found);
  const pictures: FoundInDrawing[] = [];
  for (const picture of found.pictures) pictures.push(await pictureView(picture, encode));
  // The drawing itself is placed by its own middle; a page of pictures alone by theirs.
  const drawn = regionBox(found.shapes.flatMap((s) => s.paths));
  const box = isEmptyBox(drawn) ? pictures.map(boundsOfPicture).reduce(uniteBoxes, EMPTY_BOX) : drawn;
  const draw = drawnOnce(digitsFor(Math.max(boxWidth(box), boxHeight(box)), PREVIEW_DIGITS));
  const groups = found.groups.map((group, i): FoundGroupView => {
    const shapes = found.shapes.filter((s) => s.group === i);
    const words = found.texts.filter((t) => t.group === i).length;
    return { ...group, shapes: shapes.length, words, d: draw.group(shapes.flatMap((s) => s.paths)) };
  });
  return {
    ok: true,
    format: found.format,
    claim: found.claim,
    sizes: sizeChoices(found.claim),
    box,
    groups,
    texts: found.texts,
    pictures,
    unread: found.unread,
    notes: found.notes,
    undrawn: draw.undrawn(),
    drawing: writeFound(found),
    pages,
    page,
  };
}

async function pictureView(
  { raster, matrix }: ReadPicture,
  encode: (raster: Raster) => Promise<Uint8Array>,
): Promise<FoundInDrawing> {
  return {
    pixels: await encode(raster),
    columns: raster.width,
    rows: raster.height,
    scale: Math.hypot(matrix.a, matrix.b),
    placement: placementOf(matrix),
    likely: likelyTones(raster),
  };
}

/** Bounds of a picture in the drawing. */
const boundsOfPicture = ({ columns, rows, scale, placement }: FoundInDrawing): Box =>
  transformedBox(
    { minX: -columns / 2, minY: -rows / 2, maxX: columns / 2, maxY: rows / 2 },
    compose(scaling(scale), placementMatrix(placement)),
  );

function nothingIn({ unread, notes }: ReadDrawing): DrawingPreview {
  const unreadKinds = unread.map(({ kind, count }) => `${count} ${kind}`).join(', ');
  const why = notes[0] ? ` ${notes[0]}` : '';
  return {
    ok: false,
    sentence: unreadKinds
      ? `There are no outlines in this file. It holds ${unreadKinds}.${why}`
      : `There is no drawing in this file.${why}`,
  };
}

/** Small pictures of the pages of a file from one number up to another, one by one as they are read. */
export async function picturePages(
  bytes: Uint8Array,
  { from, to }: { readonly from: number; readonly to: number },
  put: (picture: PagePicture) => void,
): Promise<void> {
  const opened = await openDrawing(bytes);
  if (!opened.ok) return;
  for (let page = from; page < Math.min(to, opened.pages); page++) {
    const reading = await opened.read(page, () => {});
    if (reading.ok) put(pictureOf(reading.found, page));
  }
  await opened.close();
}

function pictureOf({ shapes, page: paper }: ReadDrawing, page: number): PagePicture {
  const box = regionBox(shapes.flatMap((s) => s.paths));
  const { width, height } = paper ?? { width: Math.max(1, box.maxX), height: Math.max(1, box.maxY) };
  const digits = digitsFor(Math.max(width, height), SMALL_DIGITS);
  let room = LIMITS.pagePictureSegments;
  const within = shapes.filter((s) => {
    room -= countSegments(s.paths);
    return room >= 0;
  });
  const drawn = (isFilled: boolean) =>
    pathData(
      within.filter((s) => (s.fill !== null) === isFilled).flatMap((s) => s.paths),
      null,
      digits,
    );
  return { page, width, height, filled: drawn(true), lines: drawn(false) };
}
