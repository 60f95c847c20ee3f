/** Pictures on a page of a PDF, as pdf.js unpacks them. */
import type { Matrix } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { type Raster, reducedRaster } from '../../tracing/raster';
import type { ReadPicture } from '../read-drawing';

/** How pdf.js packs pixels: a bit of grey, or bytes of red, green, blue, and opacity. */
const GREY_BITS = 1;
const RGB = 2;
const RGBA = 3;

/** An unpacked picture, as far as it is one. */
type Unpacked = {
  readonly width?: unknown;
  readonly height?: unknown;
  readonly kind?: unknown;
  readonly data?: unknown;
};

const isBytes = (data: unknown): data is Uint8Array => data instanceof Uint8Array || data instanceof Uint8ClampedArray;

/** The pixels of an unpacked picture; null where it is none. */
export function rasterOf(image: unknown): Raster | null {
  const { width, height, kind, data } = (image ?? {}) as Unpacked;
  if (typeof width !== 'number' || typeof height !== 'number' || !(width > 0 && height > 0) || !isBytes(data))
    return null;
  const channels = kind === GREY_BITS ? 1 : kind === RGB ? 3 : kind === RGBA ? 4 : null;
  if (channels === null) return null;
  const bytes = kind === GREY_BITS ? unpackedBits(data, width, height) : new Uint8Array(data);
  if (bytes.length < width * height * channels) return null;
  const raster: Raster = { width, height, channels, data: bytes.subarray(0, width * height * channels) };
  const tooMany = Math.ceil(Math.sqrt((width * height) / LIMITS.rasterPixels));
  return tooMany > 1 ? reducedRaster(raster, tooMany) : raster;
}

/** Bits of grey as bytes; rows begin at whole bytes. */
function unpackedBits(data: Uint8Array, width: number, height: number): Uint8Array {
  const row = Math.ceil(width / 8);
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const byte = data[y * row + (x >> 3)] ?? 0;
      out[y * width + x] = (byte >> (7 - (x & 7))) & 1 ? 255 : 0;
    }
  return out;
}

/** Sides may differ by this share, and lean by as much, for a picture to be as it is shown. */
const EVEN = 0.01;

/** A picture that fills the unit square before `matrix`; null where it is stretched or slanted, which no picture on the sheet is. */
export function placedImage(raster: Raster, { a, b, c, d, e, f }: Matrix): ReadPicture | null {
  const [across, up] = [Math.hypot(a, b) / raster.width, Math.hypot(c, d) / raster.height];
  const isEven =
    Math.abs(across - up) <= EVEN * across && Math.abs(a * c + b * d) <= EVEN * Math.hypot(a, b) * Math.hypot(c, d);
  if (!isEven || !(across > 0)) return null;
  return {
    raster,
    matrix: {
      a: a / raster.width,
      b: b / raster.width,
      c: c / raster.height,
      d: d / raster.height,
      e: e + (a + c) / 2,
      f: f + (b + d) / 2,
    },
  };
}
