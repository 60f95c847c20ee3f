/** Paths told apart wherever they lie: what hangs on their shape alone is reckoned once. */
import type { Path } from './path';

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
