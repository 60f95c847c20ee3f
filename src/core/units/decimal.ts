/** Numbers as files have them. */
/** A number with at most `digits` places, no trailing zeros, never "-0" or exponents. */
export function decimal(value: number, digits: number): string {
  if (!Number.isFinite(value)) throw new RangeError(`a coordinate is not a number: ${value}`);
  const text = value.toFixed(digits);
  const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return short === '-0' ? '0' : short;
}
