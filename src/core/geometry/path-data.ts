/** Paths written as SVG path data. */
import { LIMITS } from '../limits';
import { decimal } from '../units/decimal';
import type { Path } from './path';
import { arcRadius, arcToCubics, pointAt, type Segment } from './segment';

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
