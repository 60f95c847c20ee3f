/** How long paths are, as drawn and as a file has them. */
import type { Path } from '../../geometry/path';
import type { Segment } from '../../geometry/segment';
import type { Xy } from './follows';
import type { ReadPath } from './read-back';

/** Nodes and weights of Gauss–Legendre quadrature of eight points, for one half of -1 to 1. */
const NODES = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
] as const;
/** A part of a curve is measured in halves until these agree with it by this share, or so often. */
const AGREED = 1e-8;
const HALVINGS = 14;

/** Length of a curve by its speed: near a cusp that changes much, and only there it is looked at closely. */
function byQuadrature(speed: (t: number) => number): number {
  const part = (from: number, to: number): number => {
    const [middle, half] = [(from + to) / 2, (to - from) / 2];
    let sum = 0;
    for (const [node, weight] of NODES) sum += weight * (speed(middle - half * node) + speed(middle + half * node));
    return half * sum;
  };
  const inHalves = (from: number, to: number, whole: number, left: number): number => {
    const middle = (from + to) / 2;
    const [first, second] = [part(from, middle), part(middle, to)];
    if (left === 0 || Math.abs(first + second - whole) <= AGREED * whole) return first + second;
    return inHalves(from, middle, first, left - 1) + inHalves(middle, to, second, left - 1);
  };
  return inHalves(0, 1, part(0, 1), HALVINGS);
}

function segmentMm(s: Segment): number {
  switch (s.kind) {
    case 'line':
      return Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
    case 'arc':
      return Math.hypot(s.x0 - s.cx, s.y0 - s.cy) * Math.abs(s.sweep);
    case 'quadratic':
      return byQuadrature((t) => {
        const u = 1 - t;
        return 2 * Math.hypot(u * (s.ax - s.x0) + t * (s.x1 - s.ax), u * (s.ay - s.y0) + t * (s.y1 - s.ay));
      });
    case 'cubic':
      return byQuadrature((t) => {
        const u = 1 - t;
        const [a, b, c] = [u * u, 2 * u * t, t * t];
        return (
          3 *
          Math.hypot(
            a * (s.ax - s.x0) + b * (s.bx - s.ax) + c * (s.x1 - s.bx),
            a * (s.ay - s.y0) + b * (s.by - s.ay) + c * (s.y1 - s.by),
          )
        );
      });
  }
}

/** By how much a path of a file, of lines and arcs, is longer than the one it stands for, in mm. */
export function lengthened(path: Path, read: ReadPath): number {
  let mm = 0;
  let at: Xy = read;
  for (const piece of read.pieces) {
    const chord = Math.hypot(piece.x - at.x, piece.y - at.y);
    const half = piece.kind === 'arc' ? piece.sweep / 2 : 0;
    mm += half === 0 ? chord : (chord * half) / Math.sin(half);
    at = piece;
  }
  if (read.closed) mm += Math.hypot(read.x - at.x, read.y - at.y);
  for (const s of path.segments) mm -= segmentMm(s);
  return mm;
}
