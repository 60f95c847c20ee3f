/**
 * The tags of a DXF file, text or binary: a group code and a value each. A value is a number or words by its code, as the
 * published DXF reference has it.
 */

import { DecimalReader } from '../../units/read-decimal';

/** Walks the tags of a file; `next` is false at the end, and `fault` says why when that came too early. */
export type TagSource = {
  readonly next: () => boolean;
  readonly code: number;
  /** The value, where `text` is null. */
  readonly number: number;
  /** The words that the value is; null where it is a number. */
  readonly text: string | null;
  readonly fault: string | null;
  /** 0 to 1. */
  readonly share: () => number;
};

const isReal = (code: number): boolean =>
  (code >= 10 && code <= 59) ||
  (code >= 110 && code <= 149) ||
  (code >= 210 && code <= 239) ||
  (code >= 460 && code <= 469) ||
  (code >= 1010 && code <= 1059);

const isShort = (code: number): boolean =>
  (code >= 60 && code <= 79) ||
  (code >= 170 && code <= 179) ||
  (code >= 270 && code <= 289) ||
  (code >= 370 && code <= 389) ||
  (code >= 400 && code <= 409) ||
  (code >= 1060 && code <= 1070);

const isLong = (code: number): boolean =>
  (code >= 90 && code <= 99) || (code >= 420 && code <= 429) || (code >= 440 && code <= 459) || code === 1071;

const isNumber = (code: number): boolean =>
  isReal(code) || isShort(code) || isLong(code) || (code >= 160 && code <= 169) || (code >= 290 && code <= 299);

/** Codes that are known, and of each whether its value is a number. */
const HIGHEST_CODE = 1071;
const NUMBERS = Uint8Array.from({ length: HIGHEST_CODE + 1 }, (_, code) => (isNumber(code) ? 1 : 0));

const CARRIAGE_RETURN = 13;
const [ZERO, NINE, MINUS] = [48, 57, 45];
/** Digits of a code, at most. */
const CODE_DIGITS = 4;
const isBlank = (sign: number): boolean => sign === 32 || (sign >= 9 && sign <= 13) || sign === 160;

/** Tags of a text file: a line with the code, a line with the value. */
export const textTags = (text: string): TagSource => new TextTags(text);

class TextTags implements TagSource {
  code = 0;
  number = 0;
  text: string | null = null;
  fault: string | null = null;
  private at = 0;
  private line = 0;
  private from = 0;
  private to = 0;
  private readonly decimals = new DecimalReader();

  constructor(private readonly source: string) {}

  share(): number {
    return this.source.length === 0 ? 1 : this.at / this.source.length;
  }

  next(): boolean {
    if (!this.readLine()) return false;
    const code = this.codeHere();
    if (Number.isNaN(code)) {
      const isEnd = this.at >= this.source.length && this.source.slice(this.from, this.to).trim() === '';
      if (!isEnd) this.fault = `is damaged at line ${this.line.toLocaleString('en')}`;
      return false;
    }
    if (!this.readLine()) {
      this.fault = `breaks off at line ${this.line.toLocaleString('en')}`;
      return false;
    }
    this.code = code;
    if (NUMBERS[code] === 1) {
      this.number = this.numberHere();
      this.text = null;
    } else this.text = this.source.slice(this.from, this.to);
    return true;
  }

  private readLine(): boolean {
    const { source, at } = this;
    if (at >= source.length) return false;
    this.from = at;
    let to = source.indexOf('\n', at);
    if (to < 0) to = source.length;
    this.at = to + 1;
    if (to > at && source.charCodeAt(to - 1) === CARRIAGE_RETURN) to--;
    this.to = to;
    this.line++;
    return true;
  }

  /** The code on the line: up to four digits, with blanks around them; NaN where it is none. */
  private codeHere(): number {
    const { source: text, to } = this;
    let at = this.from;
    while (at < to && isBlank(text.charCodeAt(at))) at++;
    const isNegative = text.charCodeAt(at) === MINUS && at < to;
    if (isNegative) at++;
    const first = at;
    let code = 0;
    for (; at < to; at++) {
      const sign = text.charCodeAt(at);
      if (sign < ZERO || sign > NINE) break;
      code = 10 * code + (sign - ZERO);
    }
    const digits = at - first;
    while (at < to && isBlank(text.charCodeAt(at))) at++;
    if (digits === 0 || digits > CODE_DIGITS || at < to) return Number.NaN;
    return isNegative ? -code : code;
  }

  /** The number on the line; NaN where it is none. */
  private numberHere(): number {
    const { source: text, to, decimals } = this;
    let at = this.from;
    while (at < to && isBlank(text.charCodeAt(at))) at++;
    const value = decimals.read(text, at);
    at = decimals.end;
    while (at < to && isBlank(text.charCodeAt(at))) at++;
    if (at === to && !Number.isNaN(value)) return value;
    // What is written otherwise, the language may know.
    const written = text.slice(this.from, to).trim();
    return written === '' ? Number.NaN : Number(written);
  }
}

/** What a binary file starts with, after the name of the program that wrote it. */
const BINARY_MARK = ' Binary DXF\r\n\x1a\0';
const BINARY_START = 22;

/** Whether bytes begin as binary DXF does. */
export const isBinaryDxf = (bytes: Uint8Array): boolean => {
  const first = BINARY_START - BINARY_MARK.length;
  if (bytes.length < BINARY_START) return false;
  for (let i = 0; i < BINARY_MARK.length; i++) if (bytes[first + i] !== BINARY_MARK.charCodeAt(i)) return false;
  return true;
};

/** Tags of a binary file. Codes are one byte (255 leads in two more) before R13 and two since. */
export function binaryTags(bytes: Uint8Array, decoder: TextDecoder): TagSource {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const wide = bytes[BINARY_START + 1] === 0;
  let at = BINARY_START;
  const words = (): string => {
    const stop = bytes.indexOf(0, at);
    if (stop < 0) throw new RangeError('cut');
    const text = decoder.decode(bytes.subarray(at, stop));
    at = stop + 1;
    return text;
  };
  const chunk = (): string => {
    at += 1 + view.getUint8(at);
    if (at > bytes.length) throw new RangeError('cut');
    return '';
  };
  const take = <T>(value: T, size: number): T => {
    at += size;
    return value;
  };
  const codeHere = (): number => {
    if (wide) return take(view.getInt16(at, true), 2);
    const short = take(view.getUint8(at), 1);
    return short === 255 ? take(view.getInt16(at, true), 2) : short;
  };
  const readValue = (code: number): string | number => {
    if (isReal(code)) return take(view.getFloat64(at, true), 8);
    if (isShort(code)) return take(view.getInt16(at, true), 2);
    if (isLong(code)) return take(view.getInt32(at, true), 4);
    if (code >= 160 && code <= 169) return Number(take(view.getBigInt64(at, true), 8));
    if (code >= 290 && code <= 299) return take(view.getUint8(at), 1);
    if ((code >= 310 && code <= 319) || code === 1004) return chunk();
    return words();
  };
  const source = {
    code: 0,
    number: 0,
    text: null as string | null,
    fault: null as string | null,
    share: () => at / bytes.length,
    next(): boolean {
      if (at >= bytes.length) return false;
      try {
        const code = codeHere();
        if (code < 0 || code > 1071) {
          source.fault = 'is damaged';
          return false;
        }
        const value = readValue(code);
        source.text = typeof value === 'string' ? value : null;
        if (typeof value === 'number') source.number = value;
        source.code = code;
        return true;
      } catch {
        source.fault = 'breaks off';
        return false;
      }
    },
  };
  return source;
}

/** How the words of an older file are written, by its code page. */
export function decoderFor(version: string, codePage: string): TextDecoder {
  if (version >= 'AC1021') return new TextDecoder('utf-8');
  const page = /(\d+)\s*$/.exec(codePage)?.[1] ?? '1252';
  const label = { '932': 'shift_jis', '936': 'gbk', '949': 'euc-kr', '950': 'big5' }[page] ?? `windows-${page}`;
  try {
    return new TextDecoder(label);
  } catch {
    return new TextDecoder('windows-1252');
  }
}
