/** One entity of a DXF file: its tags in order, asked by code. */
import { numberAt } from '../../geometry/elements';
import type { Vector } from './space';

/** An entity of a DXF file: its kind and its tags, asked for by their codes. Numbers and words lie in lists of their own. */
export class Entity {
  /** Vertices of a polyline, attributes of an insert. */
  readonly parts: Entity[] = [];
  private codes: number[] = [];
  private numbers: number[] = [];
  /** Null where the value is a number. */
  private texts: (string | null)[] = [];
  private count = 0;

  constructor(public type: string) {}

  /** Begins anew with no tags: one entity stands for all that are drawn as they come. */
  begin(type: string): void {
    this.type = type;
    this.count = 0;
    if (this.parts.length > 0) this.parts.length = 0;
  }

  /** One more tag; `text` is null where its value is a number. */
  add(code: number, number: number, text: string | null): void {
    const i = this.count++;
    this.codes[i] = code;
    this.numbers[i] = number;
    this.texts[i] = text;
  }

  /** The same with lists of its own, to be kept. */
  copy(): Entity {
    const copy = new Entity(this.type);
    copy.codes = this.codes.slice(0, this.count);
    copy.numbers = this.numbers.slice(0, this.count);
    copy.texts = this.texts.slice(0, this.count);
    copy.count = this.count;
    copy.parts.push(...this.parts);
    return copy;
  }

  /** How many tags it has. */
  get size(): number {
    return this.count;
  }

  /** Where the first tag of a code stands, from one place on; -1 where there is none. */
  placeOf(code: number, from = 0): number {
    for (let i = from; i < this.count; i++) if (this.codes[i] === code) return i;
    return -1;
  }

  codeAt(i: number): number {
    return numberAt(this.codes, i);
  }

  /** The value at a place as a number. */
  valueAt(i: number): number {
    const text = this.texts[i] ?? null;
    return text === null ? numberAt(this.numbers, i) : Number(text);
  }

  /** The value at a place as it is written. */
  textAt(i: number): string {
    return this.texts[i] ?? String(this.numbers[i]);
  }

  number(code: number, fallback: number): number {
    const i = this.placeOf(code);
    return i < 0 ? fallback : this.valueAt(i);
  }

  words(code: number, fallback = ''): string {
    const i = this.placeOf(code);
    return i < 0 ? fallback : plainWords(this.textAt(i).trim());
  }

  /** Words as they are written, blanks and codes included. */
  raw(code: number): string {
    const i = this.placeOf(code);
    return i < 0 ? '' : this.textAt(i);
  }

  has(code: number): boolean {
    return this.placeOf(code) >= 0;
  }

  vector(code: number, fallback: Vector): Vector {
    return this.has(code) ? [this.number(code, 0), this.number(code + 10, 0), this.number(code + 20, 0)] : fallback;
  }

  all(code: number): number[] {
    const out: number[] = [];
    for (let i = 0; i < this.count; i++) if (this.codes[i] === code) out.push(this.valueAt(i));
    return out;
  }

  /** The points of a code in order; what each lacks is 0. */
  points(code: number): Vector[] {
    const out: [number, number, number][] = [];
    for (let i = 0; i < this.count; i++) {
      const last = out[out.length - 1];
      if (this.codes[i] === code) out.push([this.valueAt(i), 0, 0]);
      else if (last && this.codes[i] === code + 10) last[1] = this.valueAt(i);
      else if (last && this.codes[i] === code + 20) last[2] = this.valueAt(i);
    }
    return out;
  }
}

/** Signs that older files write as \U+XXXX. */
export const plainWords = (text: string): string =>
  !text.includes('\\U+')
    ? text
    : text.replace(/\\U\+([0-9A-Fa-f]{4})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)));
