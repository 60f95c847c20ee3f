/** Integrals by Gauss–Legendre quadrature. */

/** Abscissae and weights of 8-point Gauss–Legendre quadrature on [-1, 1] (Abramowitz & Stegun 25.4.30). */
const GAUSS = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
] as const;

/** The integral of a smooth function over a short stretch. */
export function gaussLegendre(f: (t: number) => number, from: number, to: number): number {
  const half = (to - from) / 2;
  const mid = (from + to) / 2;
  let sum = 0;
  for (const [x, w] of GAUSS) sum += w * (f(mid + half * x) + f(mid - half * x));
  return sum * half;
}
