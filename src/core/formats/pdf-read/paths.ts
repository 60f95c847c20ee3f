/** Paths as pdf.js hands them over: numbers in a row, each run of them led by what is drawn. */
import { closedPath, type Path } from '../../geometry/path';
import { cubic, line, quadratic, type Segment } from '../../geometry/segment';

/** Codes of its drawing operators. */
const [MOVE, LINE, CURVE, QUADRATIC, CLOSE] = [0, 1, 2, 3, 4];

/** The paths of such a row, in its own numbers. What a fill closes by itself is closed where `isFilled`. */
export function pathsOf(row: ArrayLike<number>, isFilled: boolean): Path[] {
  const paths: Path[] = [];
  let segments: Segment[] = [];
  let [startX, startY, x, y] = [0, 0, 0, 0];
  const n = (k: number): number => row[k] ?? 0;
  const close = (): void => {
    if (segments.length === 0) return;
    if (x !== startX || y !== startY) segments.push(line(x, y, startX, startY));
    paths.push(closedPath(segments));
    segments = [];
    [x, y] = [startX, startY];
  };
  const finish = (): void => {
    if (isFilled) close();
    else if (segments.length > 0) paths.push({ segments, closed: false });
    segments = [];
  };
  for (let k = 0; k < row.length; ) {
    const code = n(k++);
    if (code === MOVE) {
      finish();
      [startX, startY, x, y] = [n(k), n(k + 1), n(k), n(k + 1)];
      k += 2;
    } else if (code === LINE) {
      const [toX, toY] = [n(k), n(k + 1)];
      if (toX !== x || toY !== y) segments.push(line(x, y, toX, toY));
      [x, y] = [toX, toY];
      k += 2;
    } else if (code === CURVE) {
      segments.push(cubic(x, y, n(k), n(k + 1), n(k + 2), n(k + 3), n(k + 4), n(k + 5)));
      [x, y] = [n(k + 4), n(k + 5)];
      k += 6;
    } else if (code === QUADRATIC) {
      segments.push(quadratic(x, y, n(k), n(k + 1), n(k + 2), n(k + 3)));
      [x, y] = [n(k + 2), n(k + 3)];
      k += 4;
    } else if (code === CLOSE) close();
    else break;
  }
  finish();
  return paths;
}
