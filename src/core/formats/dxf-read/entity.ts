/** One entity of a DXF file: its tags in order, asked by code. */
import type { Vector } from './space';

/** An entity of a DXF file: its kind and its tags, asked for by their codes. */
export class Entity {
  /** Vertices of a polyline, attributes of an insert. */
  readonly parts: Entity[] = [];

  constructor(
    readonly type: string,
    readonly codes: readonly number[],
    readonly values: readonly (string | number)[],
  ) {}

  number(code: number, fallback: number): number {
    const i = this.codes.indexOf(code);
    return i < 0 ? fallback : Number(this.values[i]);
  }

  words(code: number, fallback = ''): string {
    const i = this.codes.indexOf(code);
    return i < 0 ? fallback : plainWords(String(this.values[i]).trim());
  }

  /** Words as they are written, blanks and codes included. */
  raw(code: number): string {
    const i = this.codes.indexOf(code);
    return i < 0 ? '' : String(this.values[i]);
  }

  has(code: number): boolean {
    return this.codes.includes(code);
  }

  vector(code: number, fallback: Vector): Vector {
    return this.has(code) ? [this.number(code, 0), this.number(code + 10, 0), this.number(code + 20, 0)] : fallback;
  }

  all(code: number): number[] {
    const out: number[] = [];
    for (let i = 0; i < this.codes.length; i++) if (this.codes[i] === code) out.push(Number(this.values[i]));
    return out;
  }

  /** The points of a code in order; what each lacks is 0. */
  points(code: number): Vector[] {
    const out: [number, number, number][] = [];
    for (let i = 0; i < this.codes.length; i++) {
      const last = out[out.length - 1];
      if (this.codes[i] === code) out.push([Number(this.values[i]), 0, 0]);
      else if (last && this.codes[i] === code + 10) last[1] = Number(this.values[i]);
      else if (last && this.codes[i] === code + 20) last[2] = Number(this.values[i]);
    }
    return out;
  }
}

/** Signs that older files write as \U+XXXX. */
export const plainWords = (text: string): string =>
  !text.includes('\\U+')
    ? text
    : text.replace(/\\U\+([0-9A-Fa-f]{4})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)));
