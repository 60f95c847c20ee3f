/** Paths told apart wherever they lie: what hangs on their shape alone is reckoned once. */
import type { Path } from './path';
import type { Segment } from './segment';

/** A path wherever it lies, as whole numbers of this many to a mm: the same letters take as long anywhere. */
const PER_MM = 1_000_000;

/** What tells paths apart that are not the same but for where they lie; of several, with where each lies from the first. */
export function shapeKey(...paths: readonly Path[]): string {
  const first = paths[0]?.segments[0];
  const [x, y] = [first?.x0 ?? 0, first?.y0 ?? 0];
  const fromX = (value: number): number => Math.round(PER_MM * (value - x));
  const fromY = (value: number): number => Math.round(PER_MM * (value - y));
  const numbers: (number | string)[] = [];
  for (const { segments, closed } of paths) {
    numbers.push(closed ? 'closed' : 'open');
    for (const s of segments) {
      numbers.push(s.kind, fromX(s.x0), fromY(s.y0), fromX(s.x1), fromY(s.y1));
      switch (s.kind) {
        case 'line':
          break;
        case 'quadratic':
          numbers.push(fromX(s.ax), fromY(s.ay));
          break;
        case 'cubic':
          numbers.push(fromX(s.ax), fromY(s.ay), fromX(s.bx), fromY(s.by));
          break;
        case 'arc':
          numbers.push(fromX(s.cx), fromY(s.cy), Math.round(PER_MM * s.sweep));
      }
    }
  }
  return numbers.join();
}

/** What is reckoned wherever it lies is reckoned from whole numbers of this many to a mm: finer than anything that is drawn. */
const FINE_PER_MM = 1e9;

/** A path from some place, its numbers rounded, and these as text. */
export type RoundedPath = { readonly key: string; readonly path: Path };

/** A path from a place, rounded: where the text is the same so is the path, to the last digit, wherever it lay. */
export function roundedFrom({ segments, closed }: Path, x0: number, y0: number): RoundedPath {
  let key = '';
  const rounded = (value: number): number => {
    const whole = Math.round(FINE_PER_MM * value);
    key += `${whole},`;
    return whole / FINE_PER_MM;
  };
  const x = (value: number): number => rounded(value - x0);
  const y = (value: number): number => rounded(value - y0);
  const from = (s: Segment): Segment => {
    key += s.kind.charAt(0);
    const ends = { x0: x(s.x0), y0: y(s.y0), x1: x(s.x1), y1: y(s.y1) };
    switch (s.kind) {
      case 'line':
        return { kind: 'line', ...ends };
      case 'quadratic':
        return { kind: 'quadratic', ...ends, ax: x(s.ax), ay: y(s.ay) };
      case 'cubic':
        return { kind: 'cubic', ...ends, ax: x(s.ax), ay: y(s.ay), bx: x(s.bx), by: y(s.by) };
      case 'arc':
        // An angle, not a length: of a wide arc a little is much.
        key += `${s.sweep},`;
        return { kind: 'arc', ...ends, cx: x(s.cx), cy: y(s.cy), sweep: s.sweep };
    }
  };
  const local = segments.map(from);
  return { key, path: { segments: local, closed } };
}
