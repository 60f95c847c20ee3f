/** TrueType files made for a test: a few glyphs, the tables a face must have, and what they are packed in. */
import { zlibSync } from 'fflate';
import { sfntOf, tablesOf } from '../../src/core/lettering/sfnt';

type Component = { readonly glyph: number; readonly x?: number; readonly y?: number };
export type TestGlyph = {
  readonly char?: string;
  readonly advance?: number;
  /** Closed outlines of straight lines. */
  readonly contours?: readonly (readonly (readonly [number, number])[])[];
  readonly components?: readonly Component[];
};

export type TestFont = {
  readonly glyphs: readonly TestGlyph[];
  readonly names?: Readonly<Record<number, string>>;
  readonly weight?: number;
  readonly embedding?: number;
  readonly familyClass?: number;
  /** Tables put in, or left out where null. */
  readonly tables?: Readonly<Record<string, Uint8Array | null>>;
};

class Writer {
  private readonly out: number[] = [];
  u8 = (...values: number[]) => this.put(values, 1);
  u16 = (...values: number[]) => this.put(values, 2);
  u32 = (...values: number[]) => this.put(values, 4);
  bytes(): Uint8Array {
    return Uint8Array.from(this.out);
  }
  private put(values: readonly number[], size: number): this {
    for (const value of values) for (let i = size - 1; i >= 0; i--) this.out.push((value >>> (8 * i)) & 0xff);
    return this;
  }
}

/** A square as large as a capital. */
export const SQUARE: readonly (readonly [number, number])[] = [
  [100, 0],
  [100, 700],
  [600, 700],
  [600, 0],
];

function glyphBytes({ contours, components }: TestGlyph): Uint8Array {
  const w = new Writer();
  if (components) {
    w.u16(-1, 0, 0, 1000, 1000);
    components.forEach(({ glyph, x = 0, y = 0 }, i) => {
      // Places as words; more follow.
      w.u16(0x0003 | (i + 1 < components.length ? 0x20 : 0), glyph, x, y);
    });
    return w.bytes();
  }
  if (!contours || contours.length === 0) return new Uint8Array();
  const points = contours.flat();
  w.u16(contours.length, 0, 0, 1000, 1000);
  let end = -1;
  for (const contour of contours) {
    end += contour.length;
    w.u16(end);
  }
  w.u16(0);
  w.u8(...points.map(() => 1));
  for (const axis of [0, 1] as const) {
    let last = 0;
    for (const point of points) {
      w.u16(point[axis] - last);
      last = point[axis];
    }
  }
  return w.bytes();
}

/** A TrueType file; glyph 0 is added. */
export function fontOf({
  glyphs: given,
  names = {},
  weight = 400,
  embedding = 0,
  familyClass = 0,
  tables = {},
}: TestFont) {
  const glyphs: TestGlyph[] = [{ contours: [SQUARE] }, ...given];
  const glyf = new Writer();
  const loca = new Writer();
  let at = 0;
  for (const glyph of glyphs) {
    loca.u32(at);
    const bytes = glyphBytes(glyph);
    glyf.u8(...bytes, ...Array(-bytes.length & 3).fill(0));
    at += (bytes.length + 3) & ~3;
  }
  loca.u32(at);
  const hmtx = new Writer();
  for (const { advance = 700 } of glyphs) hmtx.u16(advance, 100);
  const coded = glyphs.flatMap(({ char }, i) => (char ? [[char.codePointAt(0) as number, i] as const] : []));
  coded.sort(([a], [b]) => a - b);
  const cmap = new Writer()
    .u16(0, 1, 3, 10)
    .u32(12)
    .u16(12, 0)
    .u32(16 + 12 * coded.length, 0, coded.length);
  for (const [code, glyph] of coded) cmap.u32(code, code, glyph);
  const said = { 1: 'Trial', 2: 'Regular', ...names };
  const name = new Writer();
  const records = Object.entries(said).map(
    ([id, text]) => [Number(id), Buffer.from(text, 'utf16le').swap16()] as const,
  );
  name.u16(0, records.length, 6 + 12 * records.length);
  let offset = 0;
  for (const [id, text] of records) {
    name.u16(3, 1, 0x409, id, text.length, offset);
    offset += text.length;
  }
  for (const [, text] of records) name.u8(...text);
  const os2 = new Writer().u16(4, 500, weight, 5, embedding, ...Array(10).fill(0), familyClass);
  os2
    .u8(...Array(10).fill(0))
    .u32(0, 0, 0, 0, 0)
    .u16(0, 32, 0xffff, 800, -200, 0, 800, 200)
    .u32(0, 0);
  os2.u16(500, 700, 0, 32, 1);
  const all: Record<string, Uint8Array | null> = {
    'OS/2': os2.bytes(),
    cmap: cmap.bytes(),
    glyf: glyf.bytes(),
    head: new Writer()
      .u32(0x10000, 0x10000, 0, 0x5f0f3cf5)
      .u16(0, 1000)
      .u32(0, 0, 0, 0)
      .u16(0, 0, 1000, 1000, 0, 8, 2, 1, 0)
      .bytes(),
    hhea: new Writer().u32(0x10000).u16(800, -200, 0, 700, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, glyphs.length).bytes(),
    hmtx: hmtx.bytes(),
    loca: loca.bytes(),
    maxp: new Writer()
      .u32(0x10000)
      .u16(glyphs.length, ...Array(13).fill(0))
      .bytes(),
    name: name.bytes(),
    post: new Writer().u32(0x30000, 0, 0, 0, 0, 0, 0, 0).bytes(),
    ...tables,
  };
  const tag = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
  return sfntOf(
    Uint8Array.of(0, 1, 0, 0),
    Object.entries(all).flatMap(([name, data]) => (data ? [{ tag: tag(name), data }] : [])),
  );
}

/** A face packed as WOFF; `sizes` overrides what tables say they unpack to. */
export function woffOf(font: Uint8Array, sizes: Readonly<Record<string, number>> = {}): Uint8Array {
  const tables = [...tablesOf(font, 0)].map(([tag, { data }]) => {
    const packed = zlibSync(data);
    return { tag, size: sizes[tag] ?? data.length, packed: packed.length < data.length ? packed : data.slice() };
  });
  const w = new Writer()
    .u8(...Buffer.from('wOFF'))
    .u8(...font.subarray(0, 4))
    .u32(0)
    .u16(tables.length, 0)
    .u32(0, 0, 0, 0, 0, 0, 0);
  let at = 44 + 20 * tables.length;
  for (const { tag, size, packed } of tables) {
    w.u8(...Buffer.from(tag, 'latin1')).u32(at, packed.length, size, 0);
    at += (packed.length + 3) & ~3;
  }
  for (const { packed } of tables) w.u8(...packed, ...Array(-packed.length & 3).fill(0));
  return w.bytes();
}

/** Faces put together in a collection. */
export function collectionOf(fonts: readonly Uint8Array[]): Uint8Array {
  const head = 12 + 4 * fonts.length;
  const starts: number[] = [];
  let at = head;
  for (const font of fonts) {
    starts.push(at);
    at += (font.length + 3) & ~3;
  }
  const out = new Uint8Array(at);
  out.set(
    new Writer()
      .u8(...Buffer.from('ttcf'))
      .u32(0x10000, fonts.length, ...starts)
      .bytes(),
  );
  fonts.forEach((font, i) => {
    const start = starts[i] as number;
    out.set(font, start);
    // Tables of a collection are counted from the beginning of the file.
    const view = new DataView(out.buffer);
    for (let t = 0; t < view.getUint16(start + 4); t++) {
      const entry = start + 12 + 16 * t + 8;
      view.setUint32(entry, view.getUint32(entry) + start);
    }
  });
  return out;
}

/** A face under another name, as many are for a list. */
/** A face whose licence does not let it be put into other files (OS/2, fsType bit 1). */
export function restricted(font: Uint8Array): Uint8Array {
  const tag = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
  const tables = [...tablesOf(font, 0)].map(([key, { data }]) => {
    const own = data.slice();
    if (key === 'OS/2') new DataView(own.buffer).setUint16(8, 2);
    return { tag: tag(key), data: own };
  });
  return sfntOf(font.subarray(0, 4), tables);
}

export function renamed(font: Uint8Array, family: string): Uint8Array {
  const name = tablesOf(fontOf({ glyphs: [], names: { 1: family } }), 0).get('name')?.data ?? new Uint8Array();
  const tag = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0));
  return sfntOf(
    font.subarray(0, 4),
    [...tablesOf(font, 0)].map(([key, { data }]) => ({ tag: tag(key), data: key === 'name' ? name : data })),
  );
}
