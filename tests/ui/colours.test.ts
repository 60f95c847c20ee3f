/**
 * The colours of operations, told apart in every kind of colour vision: how far apart they are (CIEDE2000; Sharma, Wu and Dalal 2005)
 * as people with normal vision, and without one kind of cone, see them (Machado, Oliveira and Fernandes 2009, severity 1), and how
 * well they stand out from the sheet (WCAG 2.2).
 */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { addOperation } from '../../src/core/commands/operations';
import { colourOf } from '../../src/core/document/colour-of';
import { jobWith } from '../support/jobs';

type Three = readonly [number, number, number];
const VISIONS: Readonly<Record<string, readonly [Three, Three, Three]>> = {
  normal: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  'without red': [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  'without green': [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  'without blue': [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
};

const linear = (hex: string): Three =>
  [1, 3, 5].map((i) => {
    const c = Number.parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as unknown as Three;

const luminance = ([r, g, b]: Three): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;
function contrast(a: string, b: string): number {
  const [x, y] = [luminance(linear(a)), luminance(linear(b))];
  return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
}

function labOf(hex: string, vision: string): Three {
  const rgb = linear(hex);
  const [r, g, b] = (VISIONS[vision] as readonly Three[]).map((row) =>
    Math.min(1, Math.max(0, row[0] * rgb[0] + row[1] * rgb[1] + row[2] * rgb[2])),
  ) as unknown as Three;
  const f = (t: number) => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);
  const x = f((0.4124 * r + 0.3576 * g + 0.1805 * b) / 0.95047);
  const y = f(luminance([r, g, b]));
  const z = f((0.0193 * r + 0.1192 * g + 0.9505 * b) / 1.08883);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

function ciede2000([l1, a1, b1]: Three, [l2, a2, b2]: Three): number {
  const rad = Math.PI / 180;
  const mean = (Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2;
  const g = 0.5 * (1 - Math.sqrt(mean ** 7 / (mean ** 7 + 25 ** 7)));
  const [p1, p2] = [(1 + g) * a1, (1 + g) * a2];
  const [c1, c2] = [Math.hypot(p1, b1), Math.hypot(p2, b2)];
  const hue = (b: number, a: number) => (Math.atan2(b, a) / rad + 360) % 360;
  const [h1, h2] = [hue(b1, p1), hue(b2, p2)];
  const isGrey = c1 * c2 === 0;
  const turn = isGrey ? 0 : ((h2 - h1 + 540) % 360) - 180;
  const dh = 2 * Math.sqrt(c1 * c2) * Math.sin((turn / 2) * rad);
  const [l, c] = [(l1 + l2) / 2, (c1 + c2) / 2];
  const sum = h1 + h2;
  const h = isGrey ? sum : Math.abs(h1 - h2) <= 180 ? sum / 2 : (sum + (sum < 360 ? 360 : -360)) / 2;
  const t =
    1 -
    0.17 * Math.cos((h - 30) * rad) +
    0.24 * Math.cos(2 * h * rad) +
    0.32 * Math.cos((3 * h + 6) * rad) -
    0.2 * Math.cos((4 * h - 63) * rad);
  const sl = 1 + (0.015 * (l - 50) ** 2) / Math.sqrt(20 + (l - 50) ** 2);
  const [sc, sh] = [1 + 0.045 * c, 1 + 0.015 * c * t];
  const rt = -2 * Math.sqrt(c ** 7 / (c ** 7 + 25 ** 7)) * Math.sin(60 * rad * Math.exp(-(((h - 275) / 25) ** 2)));
  const [dl, dc] = [(l2 - l1) / sl, (c2 - c1) / sc];
  return Math.sqrt(dl ** 2 + dc ** 2 + (dh / sh) ** 2 + rt * dc * (dh / sh));
}

/** Any two of some colours, in each kind of vision. */
const least = (colours: readonly string[]): number =>
  Math.min(
    ...Object.keys(VISIONS).flatMap((vision) =>
      colours.flatMap((a, i) => colours.slice(i + 1).map((b) => ciede2000(labOf(a, vision), labOf(b, vision)))),
    ),
  );

test('the measure itself, by a pair of its authors', () => {
  // Pair 1 and 25 of the test data of Sharma, Wu and Dalal.
  expect(ciede2000([50, 2.6772, -79.7751], [50, 0, -82.7485])).toBeCloseTo(2.0425, 4);
  expect(ciede2000([60.2574, -34.0099, 36.2677], [60.4626, -34.1751, 39.4387])).toBeCloseTo(1.2644, 4);
});

const KINDS = ['cut', 'score', 'engrave', 'mark'] as const;
const theme = readFileSync('src/app/theme.scss', 'utf8');
const inTheme = (name: string): string[] =>
  [...theme.matchAll(new RegExp(`--nf-${name}: (#[0-9a-f]{6})`, 'g'))].map((m) => m[1] as string);

describe.each([
  ['light', 0],
  ['dark', 1],
] as const)('in the %s scheme', (_, nth) => {
  const colours = KINDS.map((kind) => inTheme(kind)[nth] as string);

  test('operations are told apart in every kind of colour vision', () => {
    expect(least(colours)).toBeGreaterThan(25);
  });

  test('they stand out from the sheet and from the stock that is kept', () => {
    for (const colour of colours) {
      expect(contrast(colour, inTheme('sheet')[nth] as string), colour).toBeGreaterThan(3.5);
      expect(contrast(colour, inTheme('stock')[nth] as string), colour).toBeGreaterThan(2.8);
    }
  });
});

test('in files a new job has the colours of the screen, and further operations others', () => {
  const job = jobWith([]);
  expect(KINDS.map((kind) => job.colourKey[kind].toLowerCase())).toEqual(KINDS.map((kind) => inTheme(kind)[0]));
  const more = addOperation(addOperation(job, 'cut'), 'engrave');
  const colours = more.operations.map((o) => colourOf(o, more));
  expect(new Set(colours).size).toBe(6);
  expect(least(colours)).toBeGreaterThan(10);
});
