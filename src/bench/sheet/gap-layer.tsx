/** What station Close shows over the work: where drawings have gaps, and whether they are closed, open or to be asked. */
import { useBench } from '../store';
import type { Camera } from './camera';
import styles from './sheet.module.css';

/** More than these are not told apart on the sheet. */
const MOST = 400;

/** Gaps of drawings, where they lie. */
export function GapLayer({ camera }: { camera: Camera }) {
  const view = useBench((s) => s.view);
  const selected = useBench((s) => s.selection.partId);
  const { k, x, y } = camera;
  const gaps = (view?.parts ?? [])
    .filter((part) => selected === null || part.id === selected)
    .flatMap((part) =>
      part.members.flatMap((m) => (m.closing?.gaps ?? []).map((gap) => ({ gap, id: `${m.id} ${gap.key}` }))),
    )
    .slice(0, MOST);
  return (
    <g>
      {gaps.map(({ gap, id }) => {
        const px = x + ((gap.from.x + gap.to.x) / 2) * k;
        const py = y - ((gap.from.y + gap.to.y) / 2) * k;
        return (
          <circle
            key={id}
            className={styles.gap}
            data-state={gap.state}
            cx={px}
            cy={py}
            r={Math.max(7, (gap.sizeMm * k) / 2 + 4)}
          />
        );
      })}
    </g>
  );
}
