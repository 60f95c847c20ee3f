/**
 * The tables of a TrueType or OpenType file (OpenType specification, "Organization of an OpenType Font"), read with every place checked
 * against the end of the file: what lies outside is not there.
 */

/** A view of some bytes in which what lies beyond the end reads as 0. */
export class Bytes {
  private readonly view: DataView;

  constructor(readonly data: Uint8Array) {
    this.view = new DataView(data.buffer, data.byteOffset, data.byteLength);
  }

  get length(): number {
    return this.data.length;
  }

  u8(at: number): number {
    return this.has(at, 1) ? this.view.getUint8(at) : 0;
  }

  u16(at: number): number {
    return this.has(at, 2) ? this.view.getUint16(at) : 0;
  }

  i16(at: number): number {
    return this.has(at, 2) ? this.view.getInt16(at) : 0;
  }

  u32(at: number): number {
    return this.has(at, 4) ? this.view.getUint32(at) : 0;
  }

  /** A 16.16 fixed point number. */
  fixed(at: number): number {
    return this.has(at, 4) ? this.view.getInt32(at) / 65_536 : 0;
  }

  tag(at: number): string {
    return String.fromCharCode(this.u8(at), this.u8(at + 1), this.u8(at + 2), this.u8(at + 3));
  }

  private has(at: number, size: number): boolean {
    return at >= 0 && at + size <= this.data.length;
  }
}

const SFNT_TAGS = new Set(['\0\x01\0\0', 'OTTO', 'true', 'typ1']);
const COLLECTION = 'ttcf';
/** Bytes of the header of a file, of an entry of its directory, and of the header of a collection. */
const HEADER = 12;
const ENTRY = 16;

/** Whether bytes begin as a TrueType or OpenType file, or a collection of such. */
export const seemsSfnt = (bytes: Uint8Array): boolean => {
  const tag = new Bytes(bytes).tag(0);
  return bytes.length >= HEADER && (SFNT_TAGS.has(tag) || tag === COLLECTION);
};

/** How many faces a file says it holds: several in a collection, else one. */
export function facesInFile(bytes: Uint8Array): number {
  const file = new Bytes(bytes);
  return file.tag(0) === COLLECTION ? file.u32(8) : 1;
}

/** The tables of a face of a file by their tags; those that reach beyond the end of the file are left out. */
export function tablesOf(bytes: Uint8Array, number: number): ReadonlyMap<string, Bytes> {
  const file = new Bytes(bytes);
  const start = file.tag(0) === COLLECTION ? file.u32(HEADER + 4 * number) : 0;
  const out = new Map<string, Bytes>();
  const count = file.u16(start + 4);
  for (let i = 0; i < count; i++) {
    const entry = start + HEADER + ENTRY * i;
    const [offset, length] = [file.u32(entry + 8), file.u32(entry + 12)];
    if (entry + ENTRY > file.length) break;
    if (offset + length <= file.length) out.set(file.tag(entry), new Bytes(bytes.subarray(offset, offset + length)));
  }
  return out;
}

/** A file put together from tables; checksums are left 0, since nobody here reads them. */
export function sfntOf(
  flavour: Uint8Array,
  tables: readonly { readonly tag: Uint8Array; readonly data: Uint8Array }[],
): Uint8Array {
  const padded = (size: number) => (size + 3) & ~3;
  const size = tables.reduce((sum, { data }) => sum + padded(data.length), HEADER + ENTRY * tables.length);
  const out = new Uint8Array(size);
  const view = new DataView(out.buffer);
  out.set(flavour.subarray(0, 4));
  view.setUint16(4, tables.length);
  let at = HEADER + ENTRY * tables.length;
  tables.forEach(({ tag, data }, i) => {
    const entry = HEADER + ENTRY * i;
    out.set(tag, entry);
    view.setUint32(entry + 8, at);
    view.setUint32(entry + 12, data.length);
    out.set(data, at);
    at += padded(data.length);
  });
  return out;
}
