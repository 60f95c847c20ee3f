/** What a tip cannot get to: sharp inner corners, narrow gaps, strokes thinner than it is. Row by row, letter by letter. */
import { floatAt, intAt } from '../../geometry/elements';
import { flattenPath } from '../../geometry/path';
import type { Outline } from '../../prepare/outline';
import { type Polygons, polygonsOf, turnBy } from './polygons';
import { scanlinesOf } from './scanlines';

/** How much of one letter a tip leaves, because it does not fit. */
export type LetterReach = {
  /** Index of the letter or shape in the part's sources. */
  readonly source: number;
  readonly areaMm2: number;
  readonly missedMm2: number;
};

/** What a tip can cover of a part at all. */
export type Reach = {
  readonly areaMm2: number;
  /** What the tip leaves because it does not fit, in mm². */
  readonly missedMm2: number;
  readonly letters: readonly LetterReach[];
};

/** Stretches of a row shorter than this are the rounding of curves, in mm. */
const ROUNDING_MM = 0.006;

/** So many rows are looked at between two times of progress. */
const ROWS_A_TURN = 512;

/** The letter outlines against what the tip can cover, by rows `step` mm apart. Yields the share done. */
export function* reachOf(
  outlines: readonly Outline[],
  reached: readonly Outline[],
  step: number,
  flat: number,
): Generator<number, Reach> {
  const level = turnBy(0);
  const { polygons, sources } = labelled(outlines, flat);
  yield 0.2;
  const open = polygonsOf(
    reached.map((o) => o.path),
    flat,
    level,
  );
  yield 0.4;
  const rows = scanlinesOf(polygons, step, step / 2);
  yield 0.6;
  const within = scanlinesOf(open, step, step / 2, { first: rows.first, count: rows.count });
  const letters = new Map<number, { area: number; missed: number }>();
  const of = (edge: number) => {
    const source = intAt(sources, edge);
    let letter = letters.get(source);
    if (!letter) {
      letter = { area: 0, missed: 0 };
      letters.set(source, letter);
    }
    return letter;
  };
  let [area, missed] = [0, 0];
  for (let k = 0; k < rows.count; k++) {
    if (k % ROWS_A_TURN === 0) yield 0.7 + (0.3 * k) / rows.count;
    const [a, b] = [intAt(rows.start, k), intAt(rows.start, k + 1)];
    const [oa, ob] = [intAt(within.start, k), intAt(within.start, k + 1)];
    let o = oa;
    for (let i = a; i + 1 < b; i += 2) {
      const [left, right] = [floatAt(rows.x, i), floatAt(rows.x, i + 1)];
      const [l, r] = [of(intAt(rows.edge, i)), of(intAt(rows.edge, i + 1))];
      area += right - left;
      l.area += ((right - left) / 2) * step;
      r.area += ((right - left) / 2) * step;
      const middle = (left + right) / 2;
      const miss = (from: number, to: number) => {
        if (to - from < ROUNDING_MM) return;
        missed += to - from;
        ((from + to) / 2 < middle ? l : r).missed += (to - from) * step;
      };
      let at = left;
      while (o + 1 < ob && floatAt(within.x, o + 1) <= left) o += 2;
      for (let q = o; q + 1 < ob && floatAt(within.x, q) < right; q += 2) {
        miss(at, Math.min(right, floatAt(within.x, q)));
        at = Math.max(at, floatAt(within.x, q + 1));
      }
      miss(at, right);
    }
  }
  // Rows tell where; how much in all is known from the outlines themselves.
  const exact = areaOf(outlines);
  const missedArea = Math.max(0, exact - areaOf(reached));
  const ofArea = area > 0 ? exact / (area * step) : 1;
  const ofMissed = missed > 0 ? missedArea / (missed * step) : 1;
  return {
    areaMm2: exact,
    missedMm2: missedArea,
    letters: [...letters].map(([source, letter]) => ({
      source,
      areaMm2: letter.area * ofArea,
      missedMm2: letter.missed * ofMissed,
    })),
  };
}

const areaOf = (outlines: readonly Outline[]): number => outlines.reduce((sum, o) => sum + o.area, 0);

/** Polygons of outlines, and of each of their edges the letter it comes from. */
function labelled(outlines: readonly Outline[], flat: number): { polygons: Polygons; sources: Int32Array } {
  const polygons = polygonsOf(
    outlines.map((o) => o.path),
    flat,
    turnBy(0),
  );
  const sources = new Int32Array(polygons.x.length);
  let i = 0;
  for (const { path, labels } of outlines) {
    const counts = path.segments.map((s) => flattenPath({ segments: [s], closed: true }, flat).length);
    if (counts.reduce((sum, n) => sum + n, 0) < 3) continue;
    counts.forEach((n, k) => {
      sources.fill(labels[k] ?? -1, i, i + n);
      i += n;
    });
  }
  return { polygons, sources };
}
