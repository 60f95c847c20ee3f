/** Whether a path of a file is one that was to be written, piece by piece: for formats that keep curves, and for lines and arcs. */
import type { Path } from '../../geometry/path';
import type { Segment } from '../../geometry/segment';
import type { ReadPath, ReadPiece } from './read-back';

/** Where a path strays, in mm, and by how much. */
export type Straying = { readonly x: number; readonly y: number; readonly mm: number };

/** Formats that keep curves write them this exactly: five digits, and arcs as cubics within 1e-4 mm. */
const KEPT_MM = 3e-4;
/** A place. */
export type Xy = { readonly x: number; readonly y: number };

const apart = (ax: number, ay: number, bx: number, by: number): Straying | null => {
  const [dx, dy] = [ax - bx, ay - by];
  // Written so that what is no number strays.
  return dx * dx + dy * dy <= KEPT_MM * KEPT_MM ? null : { x: ax, y: ay, mm: Math.hypot(dx, dy) };
};

/** Where a path of a file first strays from one with the same curves; null where it does not. */
export function strayingKept(path: Path, read: ReadPath): Straying | null {
  const { segments } = path;
  const first = segments[0] as Segment;
  const off = apart(read.x, read.y, first.x0, first.y0);
  if (off) return off;
  let at: Xy = read;
  let next = 0;
  for (let i = 0; i < segments.length; i++) {
    const s = segments[i] as Segment;
    const piece = read.pieces[next];
    // Shorter than places are told apart it may have been dropped.
    if (isDropped(s, at, piece)) continue;
    if (!piece) {
      // Closing draws the last straight piece itself.
      const isClosing = path.closed && read.closed && s.kind === 'line' && i === segments.length - 1;
      return isClosing
        ? apart(read.x, read.y, s.x1, s.y1)
        : { x: at.x, y: at.y, mm: Math.hypot(s.x1 - at.x, s.y1 - at.y) };
    }
    if (s.kind === 'arc' && piece.kind !== 'line') {
      const around = arcFollowed(s, at, read.pieces, next);
      if (typeof around !== 'number') return around;
      next = around;
    } else {
      const strays = pieceStrays(s, piece);
      if (strays) return strays;
      next++;
    }
    at = read.pieces[next - 1] as ReadPiece;
  }
  const more = read.pieces[next];
  return more ? { x: more.x, y: more.y, mm: Math.hypot(more.x - at.x, more.y - at.y) } : null;
}

/** Whether a straight segment is shorter than files tell places apart, and what comes next in the file is not it. */
const isDropped = (s: Segment, at: Xy, piece: ReadPiece | undefined): boolean =>
  s.kind === 'line' &&
  apart(s.x1, s.y1, s.x0, s.y0) === null &&
  apart(at.x, at.y, s.x1, s.y1) === null &&
  (!piece || apart(piece.x, piece.y, s.x1, s.y1) !== null);

function pieceStrays(s: Segment, piece: ReadPiece): Straying | null {
  const end = apart(piece.x, piece.y, s.x1, s.y1);
  if (end) return end;
  if (s.kind === 'line' && piece.kind === 'line') return null;
  if (s.kind === 'quadratic' && piece.kind === 'quadratic') return apart(piece.ax, piece.ay, s.ax, s.ay);
  if (s.kind === 'cubic' && piece.kind === 'cubic')
    return apart(piece.ax, piece.ay, s.ax, s.ay) ?? apart(piece.bx, piece.by, s.bx, s.by);
  // A quadratic raised to a cubic has its controls two thirds of the way.
  if (s.kind === 'quadratic' && piece.kind === 'cubic')
    return (
      apart(piece.ax, piece.ay, (s.x0 + 2 * s.ax) / 3, (s.y0 + 2 * s.ay) / 3) ??
      apart(piece.bx, piece.by, (s.x1 + 2 * s.ax) / 3, (s.y1 + 2 * s.ay) / 3)
    );
  return { x: piece.x, y: piece.y, mm: Number.POSITIVE_INFINITY };
}

/** The number of the piece after those that go round an arc, or where they stray from it. */
function arcFollowed(
  s: Extract<Segment, { kind: 'arc' }>,
  from: Xy,
  pieces: readonly ReadPiece[],
  first: number,
): number | Straying {
  const radius = Math.hypot(s.x0 - s.cx, s.y0 - s.cy);
  const onCircle = (x: number, y: number): Straying | null => {
    const mm = Math.abs(Math.hypot(x - s.cx, y - s.cy) - radius);
    return mm <= KEPT_MM ? null : { x, y, mm };
  };
  let at = from;
  let turned = 0;
  for (let i = first; i < pieces.length; i++) {
    const piece = pieces[i] as ReadPiece;
    if (piece.kind === 'line' || piece.kind === 'quadratic') break;
    const middle = piece.kind === 'arc' ? arcMiddle(at, piece) : cubicAt(at, piece, 0.5);
    const off = onCircle(middle.x, middle.y) ?? onCircle(piece.x, piece.y);
    if (off) return off;
    turned += angleAbout(s, at, middle) + angleAbout(s, middle, piece);
    at = piece;
    // What is left to turn, as a way along the circle.
    const left = Math.abs(s.sweep - turned) * radius;
    if (left <= 2 * KEPT_MM) return apart(piece.x, piece.y, s.x1, s.y1) ?? i + 1;
    if (turned * s.sweep < 0 || Math.abs(turned) > Math.abs(s.sweep)) break;
  }
  return { x: at.x, y: at.y, mm: Math.abs(s.sweep - turned) * radius };
}

/** By how much one turns about the centre of an arc from a place to another, at most half round. */
function angleAbout({ cx, cy }: { readonly cx: number; readonly cy: number }, p: Xy, q: Xy): number {
  const [px, py, qx, qy] = [p.x - cx, p.y - cy, q.x - cx, q.y - cy];
  return Math.atan2(px * qy - py * qx, px * qx + py * qy);
}

/** The middle of an arc by its ends and its sweep. */
export function arcMiddle(from: Xy, { x, y, sweep }: Extract<ReadPiece, { kind: 'arc' }>): Xy {
  const bulge = Math.tan(sweep / 4);
  return { x: (from.x + x + bulge * (y - from.y)) / 2, y: (from.y + y - bulge * (x - from.x)) / 2 };
}

/** The point of a cubic at a parameter from 0 to 1. */
export function cubicAt(from: Xy, c: Extract<ReadPiece, { kind: 'cubic' }>, t: number): Xy {
  const u = 1 - t;
  const [a, b, d, e] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return { x: a * from.x + b * c.ax + d * c.bx + e * c.x, y: a * from.y + b * c.ay + d * c.by + e * c.y };
}
