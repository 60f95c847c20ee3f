/** A picture as pixels, and how light each of them is. */

/** Pixels row by row from the top; channels are grey, grey and opacity, red green blue, or these and opacity, 0 to 255. */
export type Raster = {
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 2 | 3 | 4;
  readonly data: Uint8Array;
};

/** Whether pixels say how opaque they are. */
export const hasOpacity = ({ channels }: Raster): boolean => channels === 2 || channels === 4;

/** Lightness by Rec. 601, in 256ths. */
const [RED, GREEN, BLUE] = [77, 150, 29];

/** One value a pixel, 0 to 255. */
export type Plane = { readonly width: number; readonly height: number; readonly data: Uint8Array };

/** How light each pixel is, laid on white where it can be seen through. */
export function lightnessOf({ width, height, channels, data }: Raster): Plane {
  const n = width * height;
  if (channels === 1) return { width, height, data };
  const out = new Uint8Array(n);
  const at = (i: number): number => data[i] as number;
  if (channels === 3)
    for (let i = 0, k = 0; i < n; i++, k += 3) out[i] = (RED * at(k) + GREEN * at(k + 1) + BLUE * at(k + 2) + 128) >> 8;
  else if (channels === 2)
    for (let i = 0, k = 0; i < n; i++, k += 2) out[i] = Math.round(255 + ((at(k) - 255) * at(k + 1)) / 255);
  else
    for (let i = 0, k = 0; i < n; i++, k += 4) {
      const light = (RED * at(k) + GREEN * at(k + 1) + BLUE * at(k + 2) + 128) >> 8;
      out[i] = at(k + 3) === 255 ? light : Math.round(255 + ((light - 255) * at(k + 3)) / 255);
    }
  return { width, height, data: out };
}

/** How opaque each pixel is; null where the picture does not say, or all of it is. */
export function opacityOf(raster: Raster): Plane | null {
  if (!hasOpacity(raster)) return null;
  const { width, height, channels, data } = raster;
  const out = new Uint8Array(width * height);
  let seeThrough = 0;
  for (let i = 0; i < out.length; i++) {
    out[i] = data[i * channels + channels - 1] as number;
    if ((out[i] as number) < 128) seeThrough++;
  }
  return seeThrough > out.length / 200 ? { width, height, data: out } : null;
}

/** The part of a picture from a column and row on, so many pixels wide and high; all of it lies within the picture. */
export function croppedRaster(
  raster: Raster,
  {
    left,
    top,
    width,
    height,
  }: { readonly left: number; readonly top: number; readonly width: number; readonly height: number },
): Raster {
  if (left === 0 && top === 0 && width === raster.width && height === raster.height) return raster;
  const { channels } = raster;
  const data = new Uint8Array(width * height * channels);
  for (let y = 0; y < height; y++) {
    const from = ((top + y) * raster.width + left) * channels;
    data.set(raster.data.subarray(from, from + width * channels), y * width * channels);
  }
  return { width, height, channels, data };
}

/** A picture made smaller by the mean of blocks of `by` × `by` pixels; what does not fill a block at its right and lower side is left out. */
export function reducedRaster(raster: Raster, by: number): Raster {
  if (by <= 1) return raster;
  const { channels, data } = raster;
  const [width, height] = [Math.max(1, Math.floor(raster.width / by)), Math.max(1, Math.floor(raster.height / by))];
  const out = new Uint8Array(width * height * channels);
  const sums = new Float64Array(channels);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      sums.fill(0);
      for (let v = 0; v < by; v++) {
        let i = ((y * by + v) * raster.width + x * by) * channels;
        for (let u = 0; u < by; u++)
          for (let k = 0; k < channels; k++) sums[k] = (sums[k] as number) + (data[i++] ?? 0);
      }
      for (let k = 0; k < channels; k++) out[(y * width + x) * channels + k] = (sums[k] as number) / (by * by) + 0.5;
    }
  return { width, height, channels, data: out };
}
