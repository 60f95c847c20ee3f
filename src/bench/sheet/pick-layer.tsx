/** The letters of the selected lettering while they are picked one by one. */
import type { PointerEvent } from 'react';
import { nudgeLetters } from '@/core/commands/letters';
import type { Point } from '@/core/geometry/point';
import { memberView } from '../seen';
import { dispatch, pick, settle, useBench } from '../store';
import type { Camera } from './camera';
import { followPointer } from './drag';
import styles from './sheet.module.css';

/** Letters, to be picked and moved one by one. */
export function PickLayer({ camera, toMm }: { camera: Camera; toMm: (x: number, y: number) => Point }) {
  const picked = useBench((s) => s.picked);
  const { partId, memberId } = useBench((s) => s.selection);
  const member = useBench((s) => s.view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === memberId));
  if (picked === null || !member) return null;
  const { k, x, y } = camera;
  const press = (event: PointerEvent, start: number) => {
    if (event.button !== 0) return;
    const isIn = picked.includes(start);
    const next = event.shiftKey
      ? isIn
        ? picked.filter((p) => p !== start)
        : [...picked, start]
      : isIn
        ? picked
        : [start];
    pick(next);
    let last = toMm(event.clientX, event.clientY);
    followPointer(
      event,
      (e) => {
        const at = toMm(e.clientX, e.clientY);
        const seen = memberView(partId, memberId);
        const [dx, dy] = [at.x - last.x, at.y - last.y];
        if (partId && memberId && seen)
          dispatch(
            (job) => nudgeLetters(job, partId, { memberId, picked: next, dx, dy, seen }),
            `letters:${next.join()}`,
          );
        last = at;
      },
      () => settle(),
    );
  };
  return (
    <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
      {member.picks.map((letter) => (
        <path
          key={letter.start}
          data-grab="letter"
          data-letter={letter.start}
          className={styles.letter}
          data-picked={picked.includes(letter.start)}
          d={`M${letter.corners.map((c) => `${c.x} ${c.y}`).join('L')}Z`}
          onPointerDown={(e) => press(e, letter.start)}
        >
          <title>{letter.text}</title>
        </path>
      ))}
    </g>
  );
}
