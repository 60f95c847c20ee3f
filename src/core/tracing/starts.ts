/** Where tracing starts from: what to ask of a picture before anybody has said anything, by what kind of picture it is. */
import { lightnessOf, opacityOf, type Plane, type Raster } from './raster';
import { levelsOf, type Tones } from './tones';

/** A kind of picture to start from. */
export type StartId = 'clear' | 'photo' | 'lines';

/** A start: its words, and what it asks. */
export type TraceStart = {
  readonly id: StartId;
  readonly word: string;
  readonly about: string;
  /** The smallest thing that is kept: at least so many pixels, and such a share of the shorter side. */
  readonly leastPixels: number;
  readonly leastShare: number;
  readonly evenLight: boolean;
  /** Whether strokes are drawn down their middle in place of round about. */
  readonly isMiddle: boolean;
};

/** The three starts, from what leaves most as it is. */
export const TRACE_STARTS: readonly TraceStart[] = [
  {
    id: 'clear',
    word: 'Clear picture',
    about: 'A logo, a print, a silhouette. All but single dots is kept.',
    leastPixels: 3,
    leastShare: 0,
    evenLight: false,
    isMiddle: false,
  },
  {
    id: 'photo',
    word: 'Photo or scan',
    about: 'Uneven light is evened out, specks and pinholes are left out.',
    leastPixels: 6,
    leastShare: 0.015,
    evenLight: true,
    isMiddle: false,
  },
  {
    id: 'lines',
    word: 'Line drawing',
    about: 'Strokes of a pen become lines down their middle.',
    leastPixels: 4,
    leastShare: 0.01,
    evenLight: true,
    isMiddle: true,
  },
];

/** A start by its id. */
export const startOf = (id: StartId): TraceStart => TRACE_STARTS.find((s) => s.id === id) as TraceStart;

/** The smallest thing that a start keeps of a picture, in pixels. */
export const leastOf = ({ leastPixels, leastShare }: TraceStart, columns: number, rows: number): number =>
  Math.max(leastPixels, leastShare * Math.min(columns, rows));

/** Which tones the shape of a picture most likely has: all that is opaque where it can be seen through, else what its rim is not. */
export function likelyTones(raster: Raster): Exclude<Tones['by'], 'picked'> {
  if (opacityOf(raster)) return 'opaque';
  const plane = lightnessOf(raster);
  const levels = levelsOf(plane);
  return levels && rimTone(plane) < (levels.dark + levels.light) / 2 ? 'light' : 'dark';
}

/** How light the rim of a picture is, in the middle of its pixels. */
function rimTone({ width, height, data }: Plane): number {
  const values: number[] = [];
  for (let x = 0; x < width; x++) values.push(data[x] as number, data[(height - 1) * width + x] as number);
  for (let y = 0; y < height; y++) values.push(data[y * width] as number, data[y * width + width - 1] as number);
  values.sort((p, q) => p - q);
  return values[values.length >> 1] as number;
}

/** Pixels this near to the commonest dark and light tones are of them; a picture is clear where so large a share of its pixels is. */
const NEAR = 14;
const CLEAR = 0.9;

/** Whether a picture has two tones and what lies between them at edges, or is a photograph. A line drawing is for the user to say. */
export function likelyStart(raster: Raster): StartId {
  if (opacityOf(raster)) return 'clear';
  const { data } = lightnessOf(raster);
  const levels = levelsOf({ width: raster.width, height: raster.height, data });
  if (!levels) return 'photo';
  let near = 0;
  for (const value of data) if (Math.abs(value - levels.dark) < NEAR || Math.abs(value - levels.light) < NEAR) near++;
  return near >= CLEAR * data.length ? 'clear' : 'photo';
}
