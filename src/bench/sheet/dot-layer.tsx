/** Dots of the selected part at station Fill: pressed to choose one, dragged to move it, Delete leaves it out. */
import { useState } from 'react';
import type { Point } from '@/core/geometry/point';
import type { PartView } from '@/worker/view';
import { moveDot } from '../dot-edits';
import { chooseDot, useBench } from '../store';
import type { Camera } from './camera';
import { followPointer } from './drag';
import styles from './sheet.module.css';

type Props = { readonly camera: Camera; readonly toMm: (x: number, y: number) => Point };

/** A dot is pressed within this many pixels of its middle at least. */
const NEAR_PX = 7;

/** Dots, to be dragged and taken out. */
export function DotLayer({ camera, toMm }: Props) {
  const part = useBench((s) => s.view?.parts.find((p) => p.id === s.selection.partId && p.dots));
  const locked = useBench((s) => s.job.parts.find((p) => p.id === s.selection.partId)?.locked ?? true);
  if (!part?.dots || locked) return null;
  return <Dots part={part} dots={part.dots} camera={camera} toMm={toMm} />;
}

function Dots({ part, dots, camera, toMm }: Props & { part: PartView; dots: NonNullable<PartView['dots']> }) {
  const chosen = useBench((s) => s.atDot);
  const [moving, setMoving] = useState<Point | null>(null);
  const { k, x, y } = camera;
  const r = Math.max(NEAR_PX / k, dots.diameter / 2);
  const nearest = (p: Point): number => {
    let [best, least] = [-1, r];
    for (let i = 0; i < dots.places.length; i += 4) {
      const d = Math.hypot((dots.places[i] as number) - p.x, (dots.places[i + 1] as number) - p.y);
      if (d <= least) [best, least] = [i, d];
    }
    return best;
  };
  const press = (event: React.PointerEvent) => {
    if (event.button !== 0) return;
    const from = toMm(event.clientX, event.clientY);
    const i = nearest(from);
    if (i < 0) return;
    event.stopPropagation();
    const [px, py, hx, hy] = dots.places.subarray(i, i + 4) as unknown as [number, number, number, number];
    const at = { partId: part.id, x: hx, y: hy };
    chooseDot(at);
    let to: Point | null = null;
    followPointer(
      event,
      (e) => {
        const now = toMm(e.clientX, e.clientY);
        to = { x: px + now.x - from.x, y: py + now.y - from.y };
        setMoving(to);
      },
      () => {
        if (to) moveDot(at, to);
        setMoving(null);
      },
    );
  };
  let area = '';
  let mark: Point | null = moving;
  for (let i = 0; i < dots.places.length; i += 4) {
    const [px, py, hx, hy] = dots.places.subarray(i, i + 4) as unknown as [number, number, number, number];
    area += `M${(px - r).toFixed(3)} ${py.toFixed(3)}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
    if (!mark && chosen?.partId === part.id && Math.hypot(chosen.x - hx, chosen.y - hy) < 1e-6) mark = { x: px, y: py };
  }
  return (
    <g>
      <path
        data-grab="dots"
        data-dots
        className={styles.dotArea}
        d={area}
        transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}
        onPointerDown={press}
      />
      {mark && (
        <circle
          className={styles.dotChosen}
          cx={x + mark.x * k}
          cy={y - mark.y * k}
          r={Math.max(6, (dots.diameter / 2) * k + 3)}
        />
      )}
    </g>
  );
}
