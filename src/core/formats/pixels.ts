/** The pixels of a picture as they are kept: a PNG file, so that page and headless command trace exactly the same. */
import { decode, encode } from 'fast-png';
import { LIMITS } from '../limits';
import type { Raster } from '../tracing/raster';
import { pngSize } from './picture-size';

/** Pixels as a PNG file. */
export const writePixels = ({ width, height, channels, data }: Raster): Uint8Array =>
  encode({ width, height, data, channels, depth: 8 });

/** The pixels in a PNG file of 8 bits a channel; null where it is none, or larger than what is kept. */
export function readPixels(bytes: Uint8Array): Raster | null {
  const size = pngSize(bytes);
  if (!size || size.width * size.height > LIMITS.rasterPixels) return null;
  try {
    const { width, height, channels, depth, data, palette } = decode(bytes);
    const isPlain = depth === 8 && !palette && data.length === width * height * channels;
    if (!isPlain || channels < 1 || channels > 4) return null;
    return { width, height, channels: channels as Raster['channels'], data: Uint8Array.from(data) };
  } catch {
    return null;
  }
}
