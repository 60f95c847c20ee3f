/** Paths told apart wherever they lie: what hangs on their shape alone is reckoned once. */
import type { Path } from './path';

/** A path wherever it lies, as whole numbers of this many to a mm: the same letters take as long anywhere. */
const PER_MM = 1_000_000;

/** What tells paths apart that are not the same but for where they lie. */
export function shapeKey({ segments }: Path): string {
  const [first] = segments;
  const numbers: (number | string)[] = [];
  for (const s of segments) {
    numbers.push(s.kind);
    // Ends, control points and centres by where the path begins; the turn of an arc is none of them.
    for (const [name, value] of Object.entries(s)) {
      if (typeof value !== 'number') continue;
      const from = name === 'sweep' ? 0 : name.includes('x') ? (first?.x0 ?? 0) : (first?.y0 ?? 0);
      numbers.push(Math.round(PER_MM * (value - from)));
    }
  }
  return numbers.join();
}
