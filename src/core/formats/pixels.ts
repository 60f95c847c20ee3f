/** The pixels of a picture as they are kept: a PNG file, so that page and headless command trace exactly the same. */
import { decode, encode } from 'fast-png';
import { Unzlib } from 'fflate';
import { LIMITS } from '../limits';
import type { Raster } from '../tracing/raster';
import { pngSize } from './picture-size';

/** Pixels as a PNG file. */
export const writePixels = ({ width, height, channels, data }: Raster): Uint8Array =>
  encode({ width, height, data, channels, depth: 8 });

/** Values of a pixel by the colour types of PNG; a palette has one. */
const VALUES: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** What may be packed in a file beside its pixels: how rows are filtered, and rows of a picture that comes in steps. */
const ROOM = 2;
const MORE_ROOM = 4096;

/** Whether what is packed in a PNG file is no more than its size says: a small file can hold gigabytes. Chunks as in the standard. */
function unpacksWithin(
  bytes: Uint8Array,
  { width, height }: { readonly width: number; readonly height: number },
): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [depth, type] = [bytes[24] ?? 0, bytes[25] ?? 0];
  const most = ROOM * height * (1 + Math.ceil((width * depth * (VALUES[type] ?? 4)) / 8)) + MORE_ROOM;
  let unpacked = 0;
  const counting = new Unzlib((piece) => {
    unpacked += piece.length;
    if (unpacked > most) throw new Error('more than it says');
  });
  try {
    for (let at = 8; at + 8 <= bytes.length; ) {
      const length = view.getUint32(at);
      const kind = view.getUint32(at + 4);
      // In small pieces: each unpacks to a thousand times its size at most.
      for (let i = 0; kind === IDAT && i < length; i += PIECE)
        counting.push(bytes.subarray(at + 8 + i, at + 8 + Math.min(length, i + PIECE)));
      if (kind === IEND) break;
      at += 12 + length;
    }
  } catch {
    return false;
  }
  return true;
}

const PIECE = 4096;
const IDAT = 0x49444154;
const IEND = 0x49454e44;

/** The pixels in a PNG file of 8 bits a channel; null where it is none, or larger than what is kept. */
export function readPixels(bytes: Uint8Array): Raster | null {
  const size = pngSize(bytes);
  if (!size || size.width * size.height > LIMITS.rasterPixels || !unpacksWithin(bytes, size)) return null;
  try {
    const { width, height, channels, depth, data, palette } = decode(bytes);
    const isPlain = depth === 8 && !palette && data.length === width * height * channels;
    if (!isPlain || channels < 1 || channels > 4) return null;
    return { width, height, channels: channels as Raster['channels'], data: Uint8Array.from(data) };
  } catch {
    return null;
  }
}
