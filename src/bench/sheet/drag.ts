/** Moving, sizing and turning the selected member on the sheet. */

import type { Member } from '@/core/document/schema';
import { mapLengths } from '@/core/document/shapes';
import type { Point } from '@/core/geometry/point';
import { moveMember, scaleMember, turnMember } from '@/core/job/place';
import { memberOf, moveWholePart } from '../edits';
import { change, settle, useBench } from '../store';
import { useCamera } from './camera';
import { clearSnap, snapperFor } from './snapping';

export type Grab =
  | { readonly kind: 'move' }
  /** Sizing away from the opposite corner. */
  | { readonly kind: 'size'; readonly about: Point }
  | { readonly kind: 'turn'; readonly about: Point };

/** Turning with Shift held stops at multiples of this, in degrees. */
const TURN_STEP = 15;
/** A drag begins after the pointer has moved this far, in pixels. */
const SLACK_PX = 3;
const LEAST_FACTOR = 0.001;

/** Things snap to lines within this distance, in pixels; with Alt held they don't. */
const SNAP_PX = 6;

const copyOf = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const roundMm = (value: number): number => Math.round(value * 1e3) / 1e3;

/**
 * Follow the pointer from a press to its release. `toMm` maps client coordinates to the sheet; `say` is told in words
 * what is happening, and null at the end.
 */
export function followDrag(
  event: { readonly clientX: number; readonly clientY: number },
  grab: Grab,
  toMm: (clientX: number, clientY: number) => Point,
  say: (at: { x: number; y: number; words: (member: Member) => string } | null) => void,
): void {
  const { job, selection } = useBench.getState();
  const { partId, memberId, others } = selection;
  const original = memberOf(job, partId, memberId);
  if (!original) return;
  const snapping = grab.kind === 'move' ? snapperFor(useBench.getState()) : null;
  const several = others.length > 0;
  const start = toMm(event.clientX, event.clientY);

  const apply = (at: Point, shift: boolean, free: boolean) => {
    const next = copyOf(original);
    if (grab.kind === 'move') {
      const dx = at.x - start.x;
      const dy = at.y - start.y;
      const level = Math.abs(dx) > Math.abs(dy);
      const move = { dx: shift && !level ? 0 : dx, dy: shift && level ? 0 : dy };
      const snapped = snapping && !free ? snapping(move, SNAP_PX / useCamera.getState().k) : move;
      if (free) clearSnap();
      if (several) return moveAll(snapped);
      moveMember(next, snapped.dx, snapped.dy);
    } else if (grab.kind === 'size') {
      const before = Math.hypot(start.x - grab.about.x, start.y - grab.about.y);
      const along =
        ((at.x - grab.about.x) * (start.x - grab.about.x) + (at.y - grab.about.y) * (start.y - grab.about.y)) / before;
      scaleMember(next, Math.max(LEAST_FACTOR, along / before), grab.about);
    } else {
      const angle = (p: Point) => (Math.atan2(p.y - grab.about.y, p.x - grab.about.x) * 180) / Math.PI;
      let by = angle(at) - angle(start);
      if (shift) by = Math.round((original.placement.turn + by) / TURN_STEP) * TURN_STEP - original.placement.turn;
      turnMember(next, by, grab.about);
    }
    round(next);
    change((draft) => {
      const part = draft.parts.find((p) => p.id === partId);
      const i = part?.members.findIndex((m) => m.id === memberId) ?? -1;
      if (part && i >= 0) part.members[i] = next;
    }, `drag:${memberId}`);
  };

  /** Several parts go together, each by what it has not gone yet. */
  let gone = { dx: 0, dy: 0 };
  const moveAll = (to: { dx: number; dy: number }) => {
    const next = { dx: roundMm(to.dx), dy: roundMm(to.dy) };
    change((draft) => {
      for (const id of [partId, ...others]) if (id) moveWholePart(draft, id, next.dx - gone.dx, next.dy - gone.dy);
    }, 'drag:several');
    gone = next;
  };

  followPointer(
    event,
    (e, first) => {
      if (first) settle();
      apply(toMm(e.clientX, e.clientY), e.shiftKey, e.altKey);
      say({ x: e.clientX, y: e.clientY, words: wordsFor[grab.kind] });
    },
    (begun) => {
      if (begun) settle();
      clearSnap();
      say(null);
    },
  );
}

/**
 * Calls `move` for every step of a drag, from when the pointer has left its place by a little; `end` when it is let go,
 * with whether there was a drag at all.
 */
export function followPointer(
  event: { readonly clientX: number; readonly clientY: number },
  move: (e: PointerEvent, first: boolean) => void,
  end: (begun: boolean) => void,
): void {
  let begun = false;
  const step = (e: PointerEvent) => {
    if (!begun && Math.hypot(e.clientX - event.clientX, e.clientY - event.clientY) < SLACK_PX) return;
    const first = !begun;
    begun = true;
    move(e, first);
  };
  const stop = () => {
    window.removeEventListener('pointermove', step);
    window.removeEventListener('pointerup', stop);
    window.removeEventListener('pointercancel', stop);
    if (begun) swallowClick();
    end(begun);
  };
  window.addEventListener('pointermove', step);
  window.addEventListener('pointerup', stop);
  window.addEventListener('pointercancel', stop);
}

/** The click a browser makes of a finished drag, wherever it ended, must not select anything. */
function swallowClick(): void {
  const swallow = (e: MouseEvent) => e.stopPropagation();
  window.addEventListener('click', swallow, { capture: true, once: true });
  setTimeout(() => window.removeEventListener('click', swallow, { capture: true }));
}

const wordsFor: Readonly<Record<Grab['kind'], (member: Member) => string>> = {
  move: () => 'move',
  size: () => 'size',
  turn: (member) => `${Math.round(member.placement.turn * 10) / 10}°`,
};

/** Dragged values are kept to a micrometre and a hundredth of a degree, so that documents stay readable. */
function round(member: Member): void {
  const r = roundMm;
  member.placement.x = r(member.placement.x);
  member.placement.y = r(member.placement.y);
  member.placement.turn = Math.round(member.placement.turn * 100) / 100;
  mapLengths(member, (mm) => (mm === 0 ? 0 : Math.max(1e-3, r(mm))));
}
