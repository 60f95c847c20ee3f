/** Goes over areas, on the sheet: what is gone over together has one tint and one number, the first area of each its time. */
import { isEmptyBox } from '@/core/geometry/point';
import { formatSeconds } from '@/core/units/duration';
import { useBench } from '../store';
import type { Camera } from './camera';
import styles from './sheet.module.css';

/** Tints are so far apart around the wheel, in degrees, that neighbours differ (the golden angle). */
const APART_DEG = 137.5;
const FIRST_DEG = 210;

/** The goes that are shown, of what is told at Assign. */
export function AreaGoesLayer({ camera: { k, x, y } }: { camera: Camera }) {
  const shown = useBench((s) => s.areaGoes);
  const view = useBench((s) => s.view);
  if (!shown || !view) return null;
  return (
    <g className={styles.goes} data-goes={shown.goes.length}>
      {shown.goes.map(({ parts, seconds }, n) =>
        parts.map((id, i) => {
          const box = view.parts.find((p) => p.id === id)?.size;
          if (!box || isEmptyBox(box)) return null;
          const [left, top] = [box.minX * k + x, -box.maxY * k + y];
          const hue = (FIRST_DEG + n * APART_DEG) % 360;
          return (
            <g key={id}>
              <rect
                x={left}
                y={top}
                width={(box.maxX - box.minX) * k}
                height={(box.maxY - box.minY) * k}
                style={{ fill: `hsl(${hue} 70% 50% / 0.22)`, stroke: `hsl(${hue} 70% 40%)` }}
              />
              <text x={left + 4} y={top - 5}>
                {i === 0 ? `${n + 1}: ${formatSeconds(seconds)}` : n + 1}
              </text>
            </g>
          );
        }),
      )}
    </g>
  );
}
