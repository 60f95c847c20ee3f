/** Small systems of linear equations. */
import { floatAt } from './elements';

/**
 * Solves `n` equations, each row its `n` coefficients and its right side, by elimination with pivots; the solution then stands in the
 * last column, in the order of the unknowns. False where there is no single solution. The rows change, also in their order.
 */
export function solve(rows: Float64Array[]): boolean {
  const n = rows.length;
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++)
      if (Math.abs(floatAt(rows[i] as Float64Array, k)) > Math.abs(floatAt(rows[pivot] as Float64Array, k))) pivot = i;
    const row = rows[pivot] as Float64Array;
    rows[pivot] = rows[k] as Float64Array;
    rows[k] = row;
    const head = floatAt(row, k);
    if (Math.abs(head) < 1e-12) return false;
    for (let j = k; j <= n; j++) row[j] = floatAt(row, j) / head;
    for (let i = 0; i < n; i++) {
      if (i === k) continue;
      const other = rows[i] as Float64Array;
      const factor = floatAt(other, k);
      if (factor === 0) continue;
      for (let j = k; j <= n; j++) other[j] = floatAt(other, j) - factor * floatAt(row, j);
    }
  }
  return true;
}
