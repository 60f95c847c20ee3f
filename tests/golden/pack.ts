/**
 * Snapshots packed small: every path once, its numbers as whole nanometres (billionths of a radian for sweeps), each as the
 * difference from the one two before, in as many bytes as it takes; all of it compressed.
 */
import { brotliCompressSync, brotliDecompressSync, constants } from 'node:zlib';
import type { Kept } from './documents';
import type { Line, Snapshot } from './snapshot';

const PER_MM = 1e6;

type Packed = {
  /** As they are, to the last digit. */
  readonly documents: string;
  readonly snapshots: readonly unknown[];
  readonly kinds: readonly string[];
  readonly closed: string;
};

/** A whole number of either sign in groups of seven bits, the lowest first. */
function put(bytes: number[], value: number): void {
  let left = value < 0 ? -2 * value - 1 : 2 * value;
  while (left >= 128) {
    bytes.push((left % 128) + 128);
    left = Math.floor(left / 128);
  }
  bytes.push(left);
}

export function pack(documents: readonly Kept[], snapshots: readonly Snapshot[]): Buffer {
  const lines = new Map<string, number>();
  const kinds: string[] = [];
  let closed = '';
  const bytes: number[] = [];
  const indexOf = (line: Line): number => {
    const whole = line.numbers.map((n) => Math.round(n * PER_MM));
    const key = `${line.kinds}|${line.closed}|${whole.join()}`;
    const known = lines.get(key);
    if (known !== undefined) return known;
    lines.set(key, kinds.length);
    kinds.push(line.kinds);
    closed += line.closed ? 'z' : '-';
    put(bytes, whole.length);
    whole.forEach((n, i) => {
      put(bytes, n - (whole[i - 2] ?? 0));
    });
    return kinds.length - 1;
  };
  const packed: Packed = {
    documents: JSON.stringify(documents),
    snapshots: snapshots.map((s) => ({
      ...s,
      parts: s.parts.map((p) => ({ ...p, outlines: p.outlines.map(indexOf), open: p.open.map(indexOf) })),
      operations: s.operations.map((o) => ({
        ...o,
        shapes: o.shapes.map((x) => ({ ...x, lines: x.lines.map(indexOf) })),
      })),
    })),
    kinds,
    closed,
  };
  // Places in reports and findings to the same nanometre.
  const json = JSON.stringify(packed, (_, value) =>
    typeof value === 'number' ? Math.round(value * PER_MM) / PER_MM : value,
  );
  const head = Buffer.alloc(4);
  const text = Buffer.from(json);
  head.writeUInt32LE(text.length);
  const all = Buffer.concat([head, text, Buffer.from(bytes)]);
  return brotliCompressSync(all, {
    params: {
      [constants.BROTLI_PARAM_QUALITY]: 11,
      [constants.BROTLI_PARAM_LGWIN]: 24,
      [constants.BROTLI_PARAM_SIZE_HINT]: all.length,
    },
  });
}

export function unpack(packed: Buffer): { documents: readonly Kept[]; snapshots: Snapshot[] } {
  const all = brotliDecompressSync(packed);
  const size = all.readUInt32LE(0);
  const json = JSON.parse(all.subarray(4, 4 + size).toString()) as Packed;
  let at = 4 + size;
  const take = (): number => {
    let [value, unit] = [0, 1];
    for (;;) {
      const byte = all[at++] as number;
      value += (byte % 128) * unit;
      if (byte < 128) break;
      unit *= 128;
    }
    return value % 2 === 1 ? -(value + 1) / 2 : value / 2;
  };
  const lines = json.kinds.map((kinds, i): Line => {
    const whole: number[] = [];
    for (let left = take(); left > 0; left--) whole.push(take() + (whole[whole.length - 2] ?? 0));
    return { kinds, closed: json.closed[i] === 'z', numbers: whole.map((n) => n / PER_MM) };
  });
  type Indexed = {
    parts: { id: string; outlines: number[]; open: number[] }[];
    operations: { id: string; shapes: { what: string; of: string; lines: number[] }[] }[];
  };
  const of = (list: readonly number[]): Line[] => list.map((i) => lines[i] as Line);
  return {
    documents: JSON.parse(json.documents) as Kept[],
    snapshots: (json.snapshots as (Omit<Snapshot, 'parts' | 'operations'> & Indexed)[]).map((s) => ({
      ...s,
      parts: s.parts.map((p) => ({ ...p, outlines: of(p.outlines), open: of(p.open) })),
      operations: s.operations.map((o) => ({ ...o, shapes: o.shapes.map((x) => ({ ...x, lines: of(x.lines) })) })),
    })),
  };
}
