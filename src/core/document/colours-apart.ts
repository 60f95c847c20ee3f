/**
 * How far colours are apart, for whoever sees them: the least distance in CIELAB (CIE 1976) among normal vision and vision without one
 * kind of cone, the latter as in Machado, Oliveira and Fernandes 2009, "A physiologically-based model for simulation of color vision
 * deficiency", severity 1.
 */

type Three = readonly [number, number, number];
type Vision = readonly [Three, Three, Three];

const VISIONS: readonly Vision[] = [
  [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
];

const times = (m: readonly Three[], [r, g, b]: Three): Three =>
  m.map((row) => row[0] * r + row[1] * g + row[2] * b) as unknown as Three;

const TO_XYZ: readonly Three[] = [
  [0.4124, 0.3576, 0.1805],
  [0.2126, 0.7152, 0.0722],
  [0.0193, 0.1192, 0.9505],
];
const WHITE: Three = [0.95047, 1, 1.08883];

/** A colour "#rrggbb" as it is seen: in CIELAB, once for each kind of vision. */
export function seenColour(colour: string): readonly Three[] {
  const linear = [1, 3, 5].map((i) => {
    const c = Number.parseInt(colour.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as unknown as Three;
  return VISIONS.map((vision) => {
    const seen = times(vision, linear).map((v) => Math.min(1, Math.max(0, v))) as unknown as Three;
    const [x, y, z] = times(TO_XYZ, seen).map((v, i) => {
      const t = v / (WHITE[i] as number);
      return t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116;
    }) as unknown as Three;
    return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
  });
}

/** How far two colours are apart where they are told apart least. */
export const apartWhereLeast = (a: readonly Three[], b: readonly Three[]): number =>
  a.reduce((least, seen, i) => {
    const other = b[i] as Three;
    return Math.min(least, Math.hypot(seen[0] - other[0], seen[1] - other[1], seen[2] - other[2]));
  }, Number.POSITIVE_INFINITY);
