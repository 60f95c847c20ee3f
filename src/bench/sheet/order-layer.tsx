/** The order in which things are run, on the sheet: a faint way from one to the next, each start numbered, the first and the last marked. */
import { useMemo } from 'react';
import type { OperationRunView } from '@/worker/run-view';
import { useBench } from '../store';
import type { Camera } from './camera';
import styles from './sheet.module.css';

/** Starts are numbered up to so many; beyond that one every so many is. */
const NUMBERED = 200;
/** Numbers nearer to each other than this, in pixels, are left out. */
const APART_PX = 16;
const FIRST_PX = 5;

/** Where things begin, in order, and the way from each to the next as path data in mm; null where nothing is run. */
function orderOf(shown: readonly OperationRunView[]) {
  const starts: { readonly x: number; readonly y: number }[] = [];
  let way = '';
  let last: readonly [number, number] | null = null;
  for (const { ends } of shown)
    for (let i = 0; i + 3 < ends.length; i += 4) {
      const [x, y] = [ends[i] as number, ends[i + 1] as number];
      way += `${last ? `M${last[0].toFixed(2)},${last[1].toFixed(2)}L` : 'M'}${x.toFixed(2)},${y.toFixed(2)}`;
      last = [ends[i + 2] as number, ends[i + 3] as number];
      starts.push({ x, y });
    }
  const [first] = starts;
  return first && last ? { starts, way, first, last: { x: last[0], y: last[1] } } : null;
}

/** The order of what is run, of the operation that is looked at alone or of all. */
export function OrderLayer({ camera: { k, x, y } }: { camera: Camera }) {
  const run = useBench((s) => s.run);
  const only = useBench((s) => s.only);
  const order = useMemo(
    () => orderOf(run?.operations.filter((o) => only === null || o.id === only) ?? []),
    [run, only],
  );
  if (!order) return null;
  const { starts, way } = order;
  const onScreen = (p: { readonly x: number; readonly y: number }) => ({ x: p.x * k + x, y: -p.y * k + y });
  const every = Math.ceil(starts.length / NUMBERED);
  const taken = new Set<string>();
  const numbered = starts.flatMap((start, i) => {
    if (i !== 0 && i !== starts.length - 1 && i % every !== 0) return [];
    const at = onScreen(start);
    const cell = `${Math.round(at.x / APART_PX)},${Math.round(at.y / APART_PX)}`;
    if (taken.has(cell)) return [];
    taken.add(cell);
    return [{ at, number: i + 1 }];
  });
  const [first, last] = [onScreen(order.first), onScreen(order.last)];
  return (
    <g className={styles.order} data-order={starts.length}>
      <path
        d={way}
        className={styles.orderWay}
        transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}
        vectorEffect="non-scaling-stroke"
      />
      {numbered.map(({ at, number }) => (
        <text key={number} x={at.x + 4} y={at.y - 4}>
          {number}
        </text>
      ))}
      <circle cx={first.x} cy={first.y} r={FIRST_PX} />
      <rect x={last.x - FIRST_PX} y={last.y - FIRST_PX} width={2 * FIRST_PX} height={2 * FIRST_PX} />
    </g>
  );
}
