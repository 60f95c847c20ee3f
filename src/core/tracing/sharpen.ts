/**
 * Blur undone, as far as a shape in a picture allows it: what is sought lies between none and all of each pixel, and blurred again
 * gives the picture that there is. Van Cittert's iteration held between these bounds (Jansson 1970), tile by tile where edges are.
 */
import type { Coverage } from './contours';

/** Rounds of going nearer to what was before the blur: more of them hardly move an edge. */
const ROUNDS = 20;
/** Side of a tile in pixels. */
const TILE = 128;
/** A Gaussian is followed so many times its spread; tiles overlap by so many times that. */
const SPREADS = 3;
const OVERLAP = 3;

/** Half of a Gaussian kernel, its middle first; the whole sums to 1. */
function kernelOf(sigma: number): Float64Array {
  const radius = Math.max(1, Math.ceil(SPREADS * sigma));
  const kernel = Float64Array.from({ length: radius + 1 }, (_, i) => Math.exp(-(i * i) / (2 * sigma * sigma)));
  const sum = kernel.reduce((all, v, i) => all + (i === 0 ? v : 2 * v), 0);
  return kernel.map((v) => v / sum);
}

/** For each line of a square the pixels from `from` up to `to` that have to do with an edge; none where these are equal. */
type Spans = { readonly from: Int32Array; readonly to: Int32Array };

/**
 * A square of pixels blurred along its rows, where `spans` say, each row of the result a column of what is given: twice over it is
 * blurred both ways.
 */
function blurAcross(from: Float32Array, into: Float32Array, kernel: Float64Array, spans: Spans): void {
  const side = spans.from.length;
  const radius = kernel.length - 1;
  const middle = kernel[0] as number;
  const line = new Float32Array(side + 2 * radius);
  for (let row = 0; row < side; row++) {
    const [first, last] = [spans.from[row] as number, spans.to[row] as number];
    if (first === last) continue;
    line.fill(from[row * side] as number, 0, radius);
    line.set(from.subarray(row * side, (row + 1) * side), radius);
    line.fill(from[(row + 1) * side - 1] as number, radius + side);
    for (let i = first; i < last; i++) {
      const at = i + radius;
      let sum = middle * (line[at] as number);
      for (let k = 1; k <= radius; k++)
        sum += (kernel[k] as number) * ((line[at - k] as number) + (line[at + k] as number));
      into[i * side + row] = sum;
    }
  }
}

/** Where a square of pixels has to do with an edge, along its rows and its columns: within `reach` of what differs from its neighbours. */
function spansOf(tile: Float32Array, side: number, reach: number): { readonly rows: Spans; readonly columns: Spans } {
  const none = (): Spans => ({ from: new Int32Array(side).fill(side), to: new Int32Array(side) });
  const spans = { rows: none(), columns: none() };
  const widen = ({ from, to }: Spans, line: number, at: number) => {
    const [first, last] = [Math.max(0, line - reach), Math.min(side - 1, line + reach)];
    for (let l = first; l <= last; l++) {
      if ((from[l] as number) > at - reach) from[l] = Math.max(0, at - reach);
      if ((to[l] as number) < at + reach + 1) to[l] = Math.min(side, at + reach + 1);
    }
  };
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const v = tile[y * side + x] as number;
      const isFlat =
        (x + 1 === side || tile[y * side + x + 1] === v) && (y + 1 === side || tile[(y + 1) * side + x] === v);
      if (isFlat) continue;
      widen(spans.rows, y, x);
      widen(spans.columns, x, y);
    }
  for (const { from, to } of [spans.rows, spans.columns])
    for (let l = 0; l < side; l++) if ((from[l] as number) > (to[l] as number)) from[l] = to[l] = 0;
  return spans;
}

/** A picture of a shape with a Gaussian blur of `sigma` pixels undone. Yields how far it is, from 0 to 1. */
export function* sharpened({ width, height, data }: Coverage, sigma: number): Generator<number, Coverage> {
  const kernel = kernelOf(sigma);
  const margin = OVERLAP * kernel.length;
  const side = TILE + 2 * margin;
  const out = data.slice();
  const tile = () => new Float32Array(side * side);
  const [given, found, half, again] = [tile(), tile(), tile(), tile()];
  for (let top = 0; top < height; top += TILE) {
    for (let left = 0; left < width; left += TILE) {
      if (!takeTile(given, { width, height, data }, { left: left - margin, top: top - margin, side })) continue;
      // What lies away from edges stays as it is given.
      found.set(given);
      again.set(given);
      for (let p = 0; p < half.length; p++) half[(p % side) * side + Math.floor(p / side)] = given[p] as number;
      const { rows, columns } = spansOf(given, side, 2 * kernel.length);
      for (let round = 0; round < ROUNDS; round++) {
        blurAcross(found, half, kernel, rows);
        blurAcross(half, again, kernel, columns);
        nearer(found, given, again, rows);
      }
      for (let j = 0; j < TILE && top + j < height; j++)
        for (let i = 0; i < TILE && left + i < width; i++)
          out[(top + j) * width + left + i] = Math.round(found[(j + margin) * side + i + margin] as number);
    }
    yield Math.min(1, (top + TILE) / height);
  }
  return { width, height, data: out };
}

/** What was blurred again is taken from what is given, and the rest added to what is sought, within its bounds. */
function nearer(found: Float32Array, given: Float32Array, again: Float32Array, { from, to }: Spans): void {
  const side = from.length;
  for (let row = 0; row < side; row++)
    for (let p = row * side + (from[row] as number); p < row * side + (to[row] as number); p++) {
      const v = (found[p] as number) + (given[p] as number) - (again[p] as number);
      found[p] = v < 0 ? 0 : v > 255 ? 255 : v;
    }
}

/** A square of a picture, which goes on beyond its rim as it is there; whether an edge runs through it. */
function takeTile(
  into: Float32Array,
  { width, height, data }: Coverage,
  { left, top, side }: { readonly left: number; readonly top: number; readonly side: number },
): boolean {
  const within = (value: number, count: number) => (value < 0 ? 0 : value >= count ? count - 1 : value);
  let [least, most] = [255, 0];
  for (let j = 0; j < side; j++) {
    const row = within(top + j, height) * width;
    for (let i = 0; i < side; i++) {
      const v = data[row + within(left + i, width)] as number;
      into[j * side + i] = v;
      if (v < least) least = v;
      if (v > most) most = v;
    }
  }
  return most > least;
}
