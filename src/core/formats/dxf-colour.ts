/** The numbered colours of DXF, for versions and programs that don't read true colour. */
import { numberAt } from '../geometry/elements';
import { rgbOf } from './drawing';

type Rgb = readonly [number, number, number];

const BASIC: readonly Rgb[] = [
  [255, 0, 0],
  [255, 255, 0],
  [0, 255, 0],
  [0, 255, 255],
  [0, 0, 255],
  [255, 0, 255],
];

/** Brightness of the ten shades of each hue in the numbered palette; odd ones are half saturated. */
const SHADES = [1, 1, 0.65, 0.65, 0.5, 0.5, 0.3, 0.3, 0.15, 0.15];

function hueColour(hue: number, value: number, half: boolean): Rgb {
  const channel = (offset: number) => {
    const k = (offset + hue / 60) % 6;
    const full = value * (1 - (half ? 0.5 : 1) * Math.max(0, Math.min(k, 4 - k, 1)));
    return Math.round(255 * full);
  };
  return [channel(5), channel(3), channel(1)];
}

const PALETTE: ReadonlyMap<number, Rgb> = new Map<number, Rgb>([
  ...BASIC.map((rgb, i): [number, Rgb] => [i + 1, rgb]),
  [7, [0, 0, 0]],
  ...Array.from({ length: 240 }, (_, k): [number, Rgb] => {
    const index = 10 + k;
    return [index, hueColour((Math.floor(index / 10) - 1) * 15, numberAt(SHADES, index % 10), index % 2 === 1)];
  }),
]);

/** The nearest numbered colour to "#rrggbb" (7, black or white by background, for the darkest). */
export function nearestColourIndex(colour: string): number {
  const [r, g, b] = rgbOf(colour);
  let best = 7;
  let least = Infinity;
  for (const [index, [pr, pg, pb]] of PALETTE) {
    const d = (r - pr) ** 2 + (g - pg) ** 2 + (b - pb) ** 2;
    if (d < least) {
      least = d;
      best = index;
    }
  }
  return best;
}

/** "#rrggbb" of a numbered colour; black for numbers without one. */
export function colourOfIndex(index: number): string {
  const [r, g, b] = PALETTE.get(index) ?? [0, 0, 0];
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`;
}
