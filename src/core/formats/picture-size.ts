/**
 * What a picture file says of itself before it is decoded: its kind, its size in pixels, how many of them make an inch, and how it is
 * turned. Read from its first bytes, so that a picture that says it is a hundred thousand pixels wide is never unpacked.
 */

/** A picture file: what it is called, its pixels as they are stored, dots per inch where it says so, and its EXIF orientation, 1 to 8. */
export type PictureHead = {
  readonly format: 'PNG' | 'JPEG' | 'GIF' | 'BMP' | 'WebP' | 'AVIF';
  readonly width: number;
  readonly height: number;
  readonly dpi: number | null;
  readonly orientation: number;
};

const INCH_MM = 25.4;

/** Reading of numbers at offsets; 0 beyond the end. */
type Bytes = {
  readonly length: number;
  readonly u8: (at: number) => number;
  readonly u16: (at: number, little?: boolean) => number;
  readonly u32: (at: number, little?: boolean) => number;
  readonly text: (at: number, length: number) => string;
};

function bytesOf(data: Uint8Array): Bytes {
  const u8 = (at: number): number => data[at] ?? 0;
  const u16 = (at: number, little = false) => (little ? u8(at) + u8(at + 1) * 256 : u8(at) * 256 + u8(at + 1));
  const u32 = (at: number, little = false) =>
    little ? u16(at, true) + u16(at + 2, true) * 65_536 : u16(at) * 65_536 + u16(at + 2);
  const text = (at: number, length: number) => String.fromCharCode(...data.subarray(at, at + length));
  return { length: data.length, u8, u16, u32, text };
}

/** Dots per inch from what stands in a file, where that is one anybody means. */
const sensible = (dpi: number): number | null => (dpi >= 10 && dpi <= 10_000 ? Math.round(dpi * 100) / 100 : null);

/** The size in pixels of a PNG file; null where it is none. */
export function pngSize(data: Uint8Array): { readonly width: number; readonly height: number } | null {
  const b = bytesOf(data);
  if (b.u32(0) !== 0x89504e47 || b.text(12, 4) !== 'IHDR') return null;
  return { width: b.u32(16), height: b.u32(20) };
}

function png(data: Uint8Array): PictureHead | null {
  const size = pngSize(data);
  if (!size) return null;
  const b = bytesOf(data);
  let dpi: number | null = null;
  let orientation = 1;
  for (let at = 8; at + 8 < b.length; ) {
    const [length, kind] = [b.u32(at), b.text(at + 4, 4)];
    if (kind === 'IDAT') break;
    if (kind === 'pHYs' && b.u8(at + 16) === 1) dpi = sensible((b.u32(at + 8) * INCH_MM) / 1000);
    if (kind === 'eXIf') orientation = exif(data.subarray(at + 8, at + 8 + length)).orientation;
    at += length + 12;
  }
  return { format: 'PNG', ...size, dpi, orientation };
}

/** Orientation and resolution from EXIF, which is TIFF inside. */
function exif(data: Uint8Array): { readonly orientation: number; readonly dpi: number | null } {
  const b = bytesOf(data);
  const little = b.text(0, 2) === 'II';
  if (!little && b.text(0, 2) !== 'MM') return { orientation: 1, dpi: null };
  const start = b.u32(4, little);
  let [orientation, resolution, unit] = [1, 0, 2];
  const entries = Math.min(b.u16(start, little), 200);
  for (let i = 0; i < entries; i++) {
    const at = start + 2 + 12 * i;
    const tag = b.u16(at, little);
    if (tag === 0x0112) orientation = b.u16(at + 8, little);
    if (tag === 0x0128) unit = b.u16(at + 8, little);
    if (tag === 0x011a) {
      const where = b.u32(at + 8, little);
      resolution = b.u32(where, little) / Math.max(1, b.u32(where + 4, little));
    }
  }
  return {
    orientation: orientation >= 1 && orientation <= 8 ? orientation : 1,
    dpi: unit === 3 ? sensible(resolution * 2.54) : unit === 2 ? sensible(resolution) : null,
  };
}

function jpeg(data: Uint8Array): PictureHead | null {
  const b = bytesOf(data);
  if (b.u16(0) !== 0xffd8) return null;
  let dpi: number | null = null;
  let orientation = 1;
  for (let at = 2; at + 4 < b.length; ) {
    if (b.u8(at) !== 0xff) return null;
    const marker = b.u8(at + 1);
    if (marker === 0xff) {
      at++;
      continue;
    }
    const length = b.u16(at + 2);
    if (marker === 0xe0 && b.text(at + 4, 4) === 'JFIF') {
      const [unit, density] = [b.u8(at + 11), b.u16(at + 12)];
      if (unit === 1) dpi ??= sensible(density);
      if (unit === 2) dpi ??= sensible(density * 2.54);
    }
    if (marker === 0xe1 && b.text(at + 4, 4) === 'Exif') {
      const found = exif(data.subarray(at + 10, at + 2 + length));
      orientation = found.orientation;
      dpi = found.dpi ?? dpi;
    }
    // Starts of a frame, but for the three markers among them that are none.
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return { format: 'JPEG', width: b.u16(at + 7), height: b.u16(at + 5), dpi, orientation };
    if (marker === 0xda || length < 2) return null;
    at += 2 + length;
  }
  return null;
}

function webp(data: Uint8Array): PictureHead | null {
  const b = bytesOf(data);
  if (b.text(0, 4) !== 'RIFF' || b.text(8, 4) !== 'WEBP') return null;
  const kind = b.text(12, 4);
  const of = (width: number, height: number, orientation = 1): PictureHead => ({
    format: 'WebP',
    width,
    height,
    dpi: null,
    orientation,
  });
  if (kind === 'VP8 ') return of(b.u16(26, true) & 0x3fff, b.u16(28, true) & 0x3fff);
  if (kind === 'VP8L') {
    const bits = b.u32(21, true);
    return of((bits & 0x3fff) + 1, ((bits >>> 14) & 0x3fff) + 1);
  }
  if (kind !== 'VP8X') return null;
  const three = (at: number) => b.u16(at, true) + b.u8(at + 2) * 65_536;
  let orientation = 1;
  for (let at = 12; at + 8 < b.length; ) {
    const length = b.u32(at + 4, true);
    if (b.text(at, 4) === 'EXIF') {
      const skip = b.text(at + 8, 4) === 'Exif' ? 6 : 0;
      orientation = exif(data.subarray(at + 8 + skip, at + 8 + length)).orientation;
    }
    at += 8 + length + (length % 2);
  }
  return of(three(24) + 1, three(27) + 1, orientation);
}

function gif(data: Uint8Array): PictureHead | null {
  const b = bytesOf(data);
  if (!/^GIF8[79]a$/.test(b.text(0, 6))) return null;
  return { format: 'GIF', width: b.u16(6, true), height: b.u16(8, true), dpi: null, orientation: 1 };
}

function bmp(data: Uint8Array): PictureHead | null {
  const b = bytesOf(data);
  if (b.text(0, 2) !== 'BM' || b.u32(14, true) < 12 || b.u32(14, true) > 200) return null;
  if (b.u32(14, true) === 12)
    return { format: 'BMP', width: b.u16(18, true), height: b.u16(20, true), dpi: null, orientation: 1 };
  const dpi = sensible((b.u32(38, true) * INCH_MM) / 1000);
  // Rows from the top are said by a negative height.
  return { format: 'BMP', width: b.u32(18, true), height: Math.abs(b.u32(22, true) | 0), dpi, orientation: 1 };
}

/** How far into an AVIF file its size is looked for. */
const AVIF_HEAD = 64 * 1024;

function avif(data: Uint8Array): PictureHead | null {
  const b = bytesOf(data);
  if (b.text(4, 4) !== 'ftyp' || !/avi[fs]/.test(b.text(8, Math.min(b.u32(0), 64)))) return null;
  let [width, height] = [0, 0];
  // The largest of the sizes it names: others are of tiles and of opacity.
  for (let at = 8; at + 16 <= Math.min(b.length, AVIF_HEAD); at++)
    if (b.u32(at) === 0x69737065 && b.u32(at + 8) * b.u32(at + 12) > width * height)
      [width, height] = [b.u32(at + 8), b.u32(at + 12)];
  return width > 0 ? { format: 'AVIF', width, height, dpi: null, orientation: 1 } : null;
}

/** What a picture file says of itself; null where it is no picture, or breaks off before it says how large it is. */
export function pictureHead(data: Uint8Array): PictureHead | null {
  for (const read of [png, jpeg, webp, gif, bmp, avif]) {
    const head = read(data);
    if (head && head.width > 0 && head.height > 0) return head;
  }
  return null;
}
