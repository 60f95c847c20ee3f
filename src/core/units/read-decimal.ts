/** Decimal numbers read where they stand in a long text, without cutting them out: large files are little else. */

/** Digits that a whole number of doubles holds for certain, and powers of ten that are exact. */
const SURE_DIGITS = 15;
const POWERS = Float64Array.from({ length: 23 }, (_, i) => Number(`1e${i}`));

const [ZERO, NINE, PLUS, MINUS, POINT] = [48, 57, 43, 45, 46];
const [CAPITAL_E, SMALL_E] = [69, 101];
const isDigit = (sign: number): boolean => sign >= ZERO && sign <= NINE;

/** Whether a number may begin with a sign of a text, by its code. */
export const beginsNumber = (sign: number): boolean =>
  isDigit(sign) || sign === PLUS || sign === MINUS || sign === POINT;

/** Reads one number after the other; `end` is where the last one ended. */
export class DecimalReader {
  end = 0;

  /**
   * The number that begins at a place: a sign, digits with or without a point, an exponent. The nearest double to what is written.
   * NaN where none begins there, and where an exponent has no digits.
   */
  read(text: string, from: number): number {
    // Digits as a whole number, over a power of ten: both are exact, so that the quotient is rounded once.
    let at = from;
    let sign = text.charCodeAt(at);
    const isNegative = sign === MINUS;
    if (isNegative || sign === PLUS) sign = text.charCodeAt(++at);
    let value = 0;
    const first = at;
    for (; isDigit(sign); sign = text.charCodeAt(++at)) value = 10 * value + (sign - ZERO);
    let digits = at - first;
    let decimals = 0;
    if (sign === POINT) {
      const point = at;
      for (sign = text.charCodeAt(++at); isDigit(sign); sign = text.charCodeAt(++at))
        value = 10 * value + (sign - ZERO);
      decimals = at - point - 1;
      digits += decimals;
    }
    this.end = at;
    if (digits === 0) return Number.NaN;
    if (sign === SMALL_E || sign === CAPITAL_E) return this.withExponent(text, from, at + 1);
    if (digits > SURE_DIGITS) return Number(text.slice(from, at));
    const size = decimals === 0 ? value : value / (POWERS[decimals] as number);
    return isNegative ? -size : size;
  }

  private withExponent(text: string, from: number, exponent: number): number {
    const sign = text.charCodeAt(exponent);
    let at = sign === PLUS || sign === MINUS ? exponent + 1 : exponent;
    if (!isDigit(text.charCodeAt(at))) return Number.NaN;
    while (isDigit(text.charCodeAt(at))) at++;
    this.end = at;
    return Number(text.slice(from, at));
  }
}
