/** A picture file looked at before it is brought in: its size, its pixels as they are kept, what each start would trace. */
import type { PictureHead } from '../core/formats/picture-size';
import { pathData } from '../core/geometry/path-data';
import { LIMITS } from '../core/limits';
import { finished } from '../core/memo';
import { type Raster, reducedRaster } from '../core/tracing/raster';
import { leastOf, likelyStart, likelyTones, type StartId, TRACE_STARTS } from '../core/tracing/starts';
import { coverageBy } from '../core/tracing/tones';
import { traceCoverage } from '../core/tracing/trace';

/** What a start would trace: path data in columns and rows, y upwards from the lower edge of a picture as wide and high as said. */
export type StartView = { readonly id: StartId; readonly d: string; readonly shapes: number };

/** A picture that can be brought in. */
export type PictureFound = {
  readonly ok: true;
  readonly isPicture: true;
  readonly format: string;
  /** Pixels as they are kept, turned upright; and as they came, where these were more. */
  readonly columns: number;
  readonly rows: number;
  readonly came: { readonly columns: number; readonly rows: number } | null;
  /** Dots per inch as kept, where the file says how many. */
  readonly dpi: number | null;
  /** The pixels, a PNG file. */
  readonly pixels: Uint8Array;
  readonly tones: ReturnType<typeof likelyTones>;
  readonly likely: StartId;
  readonly starts: readonly StartView[];
  /** Columns and rows that the paths of the starts are in. */
  readonly shown: { readonly columns: number; readonly rows: number };
};

/** A picture decoded: its pixels, and the same as a PNG file. */
export type Decoded = { readonly raster: Raster; readonly png: Uint8Array };

/** Decodes a picture, turned upright and no larger than said; rejects where it can't. */
export type Decode = (bytes: Uint8Array, size: { readonly columns: number; readonly rows: number }) => Promise<Decoded>;

/** The starts are tried on a picture of about so many pixels. */
const TRIED = 300_000;

const count = (n: number): string => n.toLocaleString('en');

/** Looks at a picture whose head was read. `progress` hears the share done. */
export async function lookAtPicture(
  bytes: Uint8Array,
  head: PictureHead,
  decode: Decode,
  progress: (share: number) => void,
): Promise<PictureFound | { readonly ok: false; readonly sentence: string }> {
  const { format, width, height, orientation } = head;
  if (width > LIMITS.rasterSide || height > LIMITS.rasterSide || width * height > LIMITS.decodedPixels)
    return {
      ok: false,
      sentence: `This picture says it is ${count(width)} × ${count(height)} pixels; pictures of up to ${count(LIMITS.decodedPixels / 1e6)} million are read. Save it smaller first: for a clean edge, ten pixels a millimetre are plenty.`,
    };
  progress(0.1);
  // EXIF says by 5 to 8 that it was taken on its side.
  const [columns, rows] = orientation >= 5 ? [height, width] : [width, height];
  const factor = Math.min(1, Math.sqrt(LIMITS.rasterPixels / (columns * rows)));
  const wanted = { columns: Math.max(1, Math.floor(columns * factor)), rows: Math.max(1, Math.floor(rows * factor)) };
  let decoded: Decoded;
  try {
    decoded = await decode(bytes, wanted);
  } catch {
    return {
      ok: false,
      sentence: `This ${format} picture breaks off, or is not as it should be: it can’t be unpacked.`,
    };
  }
  progress(0.5);
  const { raster, png } = decoded;
  const small = reducedRaster(raster, Math.max(1, Math.round(Math.sqrt((raster.width * raster.height) / TRIED))));
  const tones = likelyTones(small);
  const starts = TRACE_STARTS.map((start, i): StartView => {
    const coverage = coverageBy(small, { by: tones, picks: [], evenLight: start.evenLight });
    progress(0.5 + (0.5 * (i + 1)) / TRACE_STARTS.length);
    if (!coverage) return { id: start.id, d: '', shapes: 0 };
    const least = leastOf(start, small.width, small.height);
    const { paths } = finished(traceCoverage(coverage, { least, tolerance: null, dropRim: true }));
    return { id: start.id, d: pathData(paths, null, 1), shapes: paths.length };
  });
  return {
    ok: true,
    isPicture: true,
    format,
    columns: raster.width,
    rows: raster.height,
    came: factor < 1 ? { columns, rows } : null,
    dpi: head.dpi === null ? null : head.dpi * factor,
    pixels: png,
    tones,
    likely: likelyStart(small),
    starts,
    shown: { columns: small.width, rows: small.height },
  };
}
