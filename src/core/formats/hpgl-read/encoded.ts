/**
 * Polylines that a plotter file encodes in letters (PE), as in the published HP-GL/2 reference: numbers of base 64, or of base 32 for
 * lines that carry seven bits, the last digit of each told apart by its range.
 */

/** One move of an encoded polyline: a new pen, or a place to go to. */
export type EncodedMove =
  | { readonly kind: 'pen'; readonly pen: number }
  | {
      readonly kind: 'move';
      readonly x: number;
      readonly y: number;
      readonly isDrawn: boolean;
      readonly isAbsolute: boolean;
    };

/** Numbers longer than so many digits are none. */
const DIGITS_MOST = 10;

/** Reads an encoded polyline; what comes after a fault in it is left out. */
export function* encodedMoves(text: string): Generator<EncodedMove> {
  let at = 0;
  let isSevenBit = false;
  let fraction = 0;
  let isDrawn = true;
  let isAbsolute = false;

  /** A number, or null where there is none. */
  const number = (): number | null => {
    const base = isSevenBit ? 32 : 64;
    let value = 0;
    let weight = 1;
    for (let digits = 0; digits < DIGITS_MOST && at < text.length; ) {
      const code = text.charCodeAt(at++);
      if (code <= 32) continue;
      digits++;
      // Digits that go on are 63 and up; the last is 191 and up, with seven bits 95 and up.
      const last = isSevenBit ? 95 : 191;
      if (code < 63 || (code > 126 && code < 191) || code > 254 || (isSevenBit && code > 126)) return null;
      const isLast = code >= last;
      value += (isLast ? code - last : code - 63) * weight;
      weight *= base;
      if (isLast) return (value % 2 === 1 ? -1 : 1) * Math.floor(value / 2);
    }
    return null;
  };

  while (at < text.length) {
    const sign = text[at] as string;
    if (sign.charCodeAt(0) <= 32) at++;
    else if (sign === '7') {
      isSevenBit = true;
      at++;
    } else if (sign === '<') {
      isDrawn = false;
      at++;
    } else if (sign === '=') {
      isAbsolute = true;
      at++;
    } else if (sign === ':' || sign === '>') {
      at++;
      const value = number();
      if (value === null) return;
      if (sign === ':') yield { kind: 'pen', pen: value };
      else fraction = Math.max(-30, Math.min(30, value));
    } else {
      const x = number();
      const y = x === null ? null : number();
      if (x === null || y === null) return;
      yield { kind: 'move', x: x / 2 ** fraction, y: y / 2 ** fraction, isDrawn, isAbsolute };
      isDrawn = true;
      isAbsolute = false;
    }
  }
}
