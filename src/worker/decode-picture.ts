/** Pictures unpacked by the browser: upright, no larger than asked for, with the pixels they are kept as. */
import { readPixels } from '../core/formats/pixels';
import type { Raster } from '../core/tracing/raster';
import type { Decode } from './picture-reading';

async function pngOf(canvas: OffscreenCanvas): Promise<Uint8Array> {
  const blob = await canvas.convertToBlob({ type: 'image/png' });
  return new Uint8Array(await blob.arrayBuffer());
}

const isOpaque = (data: Uint8ClampedArray): boolean => {
  for (let i = 3; i < data.length; i += 4) if (data[i] !== 255) return false;
  return true;
};

/** Decodes a picture in a worker. What is kept is read back, so that here and elsewhere the same pixels are traced. */
export const decodePicture: Decode = async (bytes, { columns, rows }) => {
  const bitmap = await createImageBitmap(new Blob([new Uint8Array(bytes)]), {
    imageOrientation: 'from-image',
    resizeWidth: columns,
    resizeHeight: rows,
    resizeQuality: 'high',
  });
  const canvas = new OffscreenCanvas(columns, rows);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('no canvas');
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  let drawn = canvas;
  const { data } = context.getImageData(0, 0, columns, rows);
  if (isOpaque(data)) {
    drawn = new OffscreenCanvas(columns, rows);
    drawn.getContext('2d', { alpha: false })?.drawImage(canvas, 0, 0);
  }
  const png = await pngOf(drawn);
  const raster = readPixels(png);
  if (!raster) throw new Error('not kept');
  return { raster, png };
};

/** A PNG file of pixels, by the browser, which is quick at it. */
export async function encodePixels({ width, height, channels, data }: Raster): Promise<Uint8Array> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { alpha: channels === 2 || channels === 4 });
  if (!context) throw new Error('no canvas');
  const image = context.createImageData(width, height);
  const isGrey = channels < 3;
  for (let i = 0, k = 0; i < width * height; i++, k += channels) {
    image.data[4 * i] = data[k] as number;
    image.data[4 * i + 1] = data[isGrey ? k : k + 1] as number;
    image.data[4 * i + 2] = data[isGrey ? k : k + 2] as number;
    image.data[4 * i + 3] = channels % 2 === 0 ? (data[k + channels - 1] as number) : 255;
  }
  context.putImageData(image, 0, 0);
  return pngOf(canvas);
}
