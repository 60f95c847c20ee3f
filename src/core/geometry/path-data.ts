/** Paths as SVG path data, written and read. */
import svgpath from 'svgpath';
import { LIMITS } from '../limits';
import { decimal } from '../units/decimal';
import type { Path } from './path';
import { compose, type Matrix, rotation, scaling, translation } from './point';
import {
  arcAbout,
  arcRadius,
  arcToCubics,
  cubic,
  line,
  pointAt,
  quadratic,
  type Segment,
  transformSegment,
  withEnds,
} from './segment';

/** What path data gives; `damaged` where it was not read to its end. */
export type ReadPaths = { readonly paths: readonly Path[]; readonly damaged: boolean };

/** Decimal places in files: 0.01 µm in millimetres, so that rounding never shows. */
export const FILE_DIGITS = 5;
/**
 * An arc that turns farther is written as several, in radians. Near half a turn, rounding its radius or ends by 1e-5 mm moves its
 * middle by hundredths, and a whole turn has no ends to tell it from none.
 */
const WIDEST_ARC = 2;
/** An arc too flat to be written as one becomes a curve this close, in mm. */
const FLAT_MM = 1e-6;
/** Decimal places of what a document keeps: a nanometre, so that it comes back as it was. */
export const KEPT_DIGITS = 6;

/**
 * Path data with y turned downwards about `height` (pass null to keep y upwards). Curves stay curves, arcs stay arcs.
 */
export function pathData(paths: readonly Path[], height: number | null, digits = FILE_DIGITS): string {
  const n = (value: number) => decimal(value, digits);
  const x = n;
  const y = (value: number) => n(height === null ? value : height - value);
  const command = (s: Segment): string => {
    switch (s.kind) {
      case 'line':
        return `L${x(s.x1)} ${y(s.y1)}`;
      case 'quadratic':
        return `Q${x(s.ax)} ${y(s.ay)} ${x(s.x1)} ${y(s.y1)}`;
      case 'cubic':
        return `C${x(s.ax)} ${y(s.ay)} ${x(s.bx)} ${y(s.by)} ${x(s.x1)} ${y(s.y1)}`;
      case 'arc': {
        if (arcRadius(s) > LIMITS.arcRadiusMm) return arcToCubics(s, FLAT_MM).map(command).join('');
        const clockwise = s.sweep > 0 === (height === null) ? 1 : 0;
        const r = n(arcRadius(s));
        const pieces = Math.ceil(Math.abs(s.sweep) / WIDEST_ARC);
        return Array.from({ length: pieces }, (_, i) => {
          const end = pointAt(s, (i + 1) / pieces);
          return `A${r} ${r} 0 0 ${clockwise} ${x(end.x)} ${y(end.y)}`;
        }).join('');
      }
    }
  };
  let out = '';
  for (const path of paths) {
    const first = path.segments[0];
    if (!first) continue;
    out += `M${x(first.x0)} ${y(first.y0)}`;
    path.segments.forEach((s, i) => {
      // Closing draws the last straight piece itself.
      if (path.closed && s.kind === 'line' && i === path.segments.length - 1 && i > 0) return;
      out += command(s);
    });
    if (path.closed) out += 'Z';
  }
  return out;
}

/** Path data; a fault in it ends it there, what came before is drawn (SVG 1.1, F.2). */
export function pathOf(data: string): ReadPaths {
  const parsed = svgpath(data);
  const damaged = (parsed as { err?: string }).err !== '' && (parsed as { err?: string }).err !== undefined;
  const paths: Path[] = [];
  let segments: Segment[] = [];
  let start = { x: 0, y: 0 };
  let at = { x: 0, y: 0 };
  const finish = (closed: boolean) => {
    if (segments.length > 0) paths.push({ segments, closed });
    segments = [];
  };
  const push = (s: Segment) => {
    if (!isPoint(s)) segments.push(s);
    at = { x: s.x1, y: s.y1 };
  };
  parsed
    .abs()
    .unshort()
    .iterate((raw) => {
      const [command, ...n] = raw as [string, ...number[]];
      const [p, q, r, s, t, u, v] = n as [number, number, number, number, number, number, number];
      switch (command) {
        case 'M':
          finish(false);
          start = { x: p, y: q };
          at = start;
          break;
        case 'L':
          push(line(at.x, at.y, p, q));
          break;
        case 'H':
          push(line(at.x, at.y, p, at.y));
          break;
        case 'V':
          push(line(at.x, at.y, at.x, p));
          break;
        case 'Q':
          push(quadratic(at.x, at.y, p, q, r, s));
          break;
        case 'C':
          push(cubic(at.x, at.y, p, q, r, s, t, u));
          break;
        case 'A':
          for (const piece of ellipticalArc(at.x, at.y, p, q, r, s !== 0, t !== 0, u, v)) push(piece);
          at = { x: u, y: v };
          break;
        case 'Z':
          if (at.x !== start.x || at.y !== start.y) push(line(at.x, at.y, start.x, start.y));
          finish(true);
          at = start;
          break;
      }
    });
  finish(false);
  return { paths, damaged };
}

function isPoint(s: Segment): boolean {
  if (s.x0 !== s.x1 || s.y0 !== s.y1) return false;
  if (s.kind === 'line') return true;
  if (s.kind === 'arc') return s.sweep === 0;
  const still = s.ax === s.x0 && s.ay === s.y0;
  return s.kind === 'quadratic' ? still : still && s.bx === s.x0 && s.by === s.y0;
}

/** An arc by its ends (SVG 1.1, F.6.5): one true arc on a circle, cubics on an ellipse. */
function ellipticalArc(
  x0: number,
  y0: number,
  radiusX: number,
  radiusY: number,
  turn: number,
  large: boolean,
  clockwise: boolean,
  x1: number,
  y1: number,
): readonly Segment[] {
  let [rx, ry] = [Math.abs(radiusX), Math.abs(radiusY)];
  if (x0 === x1 && y0 === y1) return [];
  if (rx === 0 || ry === 0) return [line(x0, y0, x1, y1)];
  const angle = rx === ry ? 0 : turn;
  const phi = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const hx = (cos * (x0 - x1) + sin * (y0 - y1)) / 2;
  const hy = (-sin * (x0 - x1) + cos * (y0 - y1)) / 2;
  const reach = (hx / rx) ** 2 + (hy / ry) ** 2;
  if (reach > 1) {
    rx *= Math.sqrt(reach);
    ry *= Math.sqrt(reach);
  }
  const [ux, uy] = [hx / rx, hy / ry];
  const apart = ux * ux + uy * uy;
  const k = (large === clockwise ? -1 : 1) * Math.sqrt(Math.max(0, 1 - apart) / apart);
  // Centre on the unit circle's axes.
  const [cx, cy] = [k * uy, -k * ux];
  const from = Math.atan2(uy - cy, ux - cx);
  let sweep = Math.atan2(-uy - cy, -ux - cx) - from;
  if (clockwise && sweep < 0) sweep += 2 * Math.PI;
  if (!clockwise && sweep > 0) sweep -= 2 * Math.PI;
  if (sweep === 0) return [line(x0, y0, x1, y1)];
  const ellipseMatrix: Matrix = compose(scaling(rx, ry), rotation(angle));
  const middle = { x: (x0 + x1) / 2 + cos * cx * rx - sin * cy * ry, y: (y0 + y1) / 2 + sin * cx * rx + cos * cy * ry };
  const pieces = transformSegment(
    arcAbout(0, 0, 1, from, sweep),
    compose(ellipseMatrix, translation(middle.x, middle.y)),
  );
  return pieces.map((piece, i) =>
    withEnds(
      piece,
      i === 0 ? { x: x0, y: y0 } : { x: piece.x0, y: piece.y0 },
      i === pieces.length - 1 ? { x: x1, y: y1 } : { x: piece.x1, y: piece.y1 },
    ),
  );
}
