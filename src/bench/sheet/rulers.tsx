/** Rulers along the top and the left, in the job's unit. */
import { formatLengthNumber, type LengthUnit } from '@/core/units/quantity';
import { type Camera, RULER } from './camera';
import styles from './sheet.module.css';

/** Least distance of labelled ticks on the screen, in pixels. */
const LABEL_PX = 62;

const MM_STEPS = [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000];
const INCH_STEPS = [1 / 64, 1 / 32, 1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2, 6, 12, 24, 60, 120];

function stepFor(k: number, unit: LengthUnit): number {
  const [steps, mm] = unit === 'mm' ? [MM_STEPS, 1] : [INCH_STEPS, 25.4];
  return (steps.find((s) => s * mm * k >= LABEL_PX) ?? (steps[steps.length - 1] as number)) * mm;
}

function ticks(from: number, to: number, step: number): number[] {
  const first = Math.ceil(from / step);
  const count = Math.min(400, Math.floor(to / step) - first + 1);
  return Array.from({ length: Math.max(0, count) }, (_, i) => (first + i) * step);
}

/** The rulers along the sheet. */
export function Rulers({ camera, unit }: { camera: Camera; unit: LengthUnit }) {
  const { k, x, y, width, height } = camera;
  const step = stepFor(k, unit);
  const digits = unit === 'mm' ? 2 : 4;
  const across = ticks(-x / k, (width - x) / k, step);
  const up = ticks((y - height) / k, y / k, step);
  const half = step / 2;
  return (
    <>
      <svg className={styles.rulerTop} width={width} height={RULER.top} aria-hidden="true">
        {across.map((mm) => (
          <g key={mm}>
            <path d={`M${x + mm * k} 13V22M${x + (mm + half) * k} 17V22`} className={styles.tick} />
            <text x={x + mm * k + 3} y={11}>
              {formatLengthNumber(mm, unit, digits)}
            </text>
          </g>
        ))}
      </svg>
      <svg className={styles.rulerLeft} width={RULER.left} height={height} aria-hidden="true">
        {up.map((mm) => (
          <g key={mm}>
            <path d={`M21 ${y - mm * k}H30M25 ${y - (mm + half) * k}H30`} className={styles.tick} />
            <text transform={`translate(11 ${y - mm * k - 3}) rotate(-90)`}>
              {formatLengthNumber(mm, unit, digits)}
            </text>
          </g>
        ))}
      </svg>
    </>
  );
}
