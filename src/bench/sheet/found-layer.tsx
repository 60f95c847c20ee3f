/** What was found, marked on the sheet: loose pieces, missed places; and the nodes of outlines. */
import { boxCentre } from '@/core/geometry/point';
import { useBench } from '../store';
import type { Camera } from './camera';
import styles from './sheet.module.css';

/** More nodes than this in sight are not drawn one by one. */
const MOST_NODES = 4_000;

/** Rings around what would drop out or hangs on nothing. */
export function LoosePlaces({ camera }: { camera: Camera }) {
  const view = useBench((s) => s.view);
  const { k, x, y } = camera;
  const places = (view?.findings ?? []).filter(
    (f) => (f.code === 'island' || f.code === 'unbridged' || f.code === 'loose') && f.leftReason === null && f.box,
  );
  return (
    <>
      <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
        {view?.parts
          .filter((part) => part.awayD !== '' && places.some((f) => f.partId === part.id))
          .map((part) => (
            <path key={part.id} d={part.awayD} className={styles.pieceArea} />
          ))}
      </g>
      {places.map((f) => {
        const box = f.box;
        if (!box) return null;
        const c = boxCentre(box);
        const rx = Math.max(9, ((box.maxX - box.minX) / 2) * k + 6);
        const ry = Math.max(9, ((box.maxY - box.minY) / 2) * k + 6);
        return <ellipse key={f.key} cx={x + c.x * k} cy={y - c.y * k} rx={rx} ry={ry} className={styles.ring} />;
      })}
    </>
  );
}

/** Rings around the largest places that lines miss. */
export function MissedPlaces({ camera }: { camera: Camera }) {
  const findings = useBench((s) => s.view?.findings);
  const { k, x, y } = camera;
  return (
    <>
      {(findings ?? []).map((f) => {
        if (f.code !== 'missed' || f.leftReason !== null || !f.box) return null;
        const c = boxCentre(f.box);
        const r = Math.max(8, ((f.box.maxX - f.box.minX + f.box.maxY - f.box.minY) / 5) * k);
        return <circle key={f.key} cx={x + c.x * k} cy={y - c.y * k} r={r} className={styles.missed} />;
      })}
    </>
  );
}

/** The nodes in sight of the selected part, or of all, when they are few enough to be told apart. */
export function Nodes({ camera }: { camera: Camera }) {
  const view = useBench((s) => s.view);
  const selected = useBench((s) => s.selection.partId);
  const { k, x, y, width, height } = camera;
  const inSight: [number, number][] = [];
  for (const part of view?.parts ?? []) {
    if (selected !== null && part.id !== selected) continue;
    for (let i = 0; i < part.nodes.length; i += 2) {
      const px = x + (part.nodes[i] as number) * k;
      const py = y - (part.nodes[i + 1] as number) * k;
      if (px >= 0 && py >= 0 && px <= width && py <= height) inSight.push([px, py]);
      if (inSight.length > MOST_NODES) return null;
    }
  }
  return (
    <path
      className={styles.node}
      d={inSight.map(([px, py]) => `M${(px - 2).toFixed(1)} ${(py - 2).toFixed(1)}h4v4h-4Z`).join('')}
    />
  );
}
