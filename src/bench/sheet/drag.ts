/** Moving, sizing and turning what is chosen on the sheet. */
import { type Chosen, moveChosen, sizeChosen, stretchShape, turnChosen, withPartsOf } from '@/core/commands/chosen';
import type { Job } from '@/core/document/schema';
import { applyMatrix, invert, type Matrix, type Point } from '@/core/geometry/point';
import { chosenNow, turnOf } from '../chosen';
import { dispatch, settle, useBench } from '../store';
import { useCamera } from './camera';
import { clearSnap, snapperFor } from './snapping';

/** What a drag has hold of. */
export type Grab =
  | { readonly kind: 'move' }
  /** Sizing away from the opposite corner. */
  | { readonly kind: 'size'; readonly about: Point }
  /** Stretching a shape along its own sides, away from the opposite corner or side; `matrix` is its own. */
  | {
      readonly kind: 'stretch';
      readonly about: Point;
      readonly matrix: Matrix;
      readonly width: number;
      readonly height: number;
      readonly ways: { readonly across: boolean; readonly upright: boolean };
      readonly chosen: Chosen;
    }
  | { readonly kind: 'turn'; readonly about: Point };

/** Turning with Shift held stops at multiples of this, in degrees. */
const TURN_STEP = 15;
/** A drag begins after the pointer has moved this far, in pixels. */
const SLACK_PX = 3;
const LEAST_FACTOR = 0.001;
const LEAST_MM = 0.1;

/** Things snap to lines within this distance, in pixels; with Alt held they don't. */
const SNAP_PX = 6;

const roundMm = (value: number): number => Math.round(value * 1e3) / 1e3;
/** A hundredth of a degree, and six digits of a factor. */
const roundDegrees = (value: number): number => Math.round(value * 100) / 100;
const roundFactor = (value: number): number => Number(value.toPrecision(6));

/** What is said of a drag under way, and where in the window; null at its end. */
export type DragSaying = { readonly x: number; readonly y: number; readonly words: string } | null;

type Following = {
  /** Maps client coordinates to the sheet. */
  readonly toMm: (clientX: number, clientY: number) => Point;
  readonly say: (saying: DragSaying) => void;
  /** Hears of a press that is let go in its place. */
  readonly pressed?: (() => void) | undefined;
};

/** Follow the pointer from a press to its release. */
export function followDrag(
  event: { readonly clientX: number; readonly clientY: number },
  grab: Grab,
  { toMm, say, pressed = () => {} }: Following,
): void {
  const { job: from } = useBench.getState();
  const chosen = grab.kind === 'stretch' ? grab.chosen : chosenNow();
  if (chosen.partIds.length === 0) return;
  const snapping = grab.kind === 'move' ? snapperFor(useBench.getState()) : null;
  const start = toMm(event.clientX, event.clientY);

  /** The document as it was when the drag began, changed by how far it has come. */
  const changedBy = (at: Point, shift: boolean, free: boolean): Job => {
    switch (grab.kind) {
      case 'move': {
        const dx = at.x - start.x;
        const dy = at.y - start.y;
        const level = Math.abs(dx) > Math.abs(dy);
        const move = { dx: shift && !level ? 0 : dx, dy: shift && level ? 0 : dy };
        const snapped = snapping && !free ? snapping(move, SNAP_PX / useCamera.getState().k) : move;
        if (free) clearSnap();
        return moveChosen(from, chosen, roundMm(snapped.dx), roundMm(snapped.dy));
      }
      case 'size': {
        const before = Math.hypot(start.x - grab.about.x, start.y - grab.about.y) || 1;
        const along =
          ((at.x - grab.about.x) * (start.x - grab.about.x) + (at.y - grab.about.y) * (start.y - grab.about.y)) /
          before;
        return sizeChosen(from, chosen, {
          factor: Math.max(LEAST_FACTOR, roundFactor(along / before)),
          about: grab.about,
        });
      }
      case 'stretch': {
        const own = (p: Point) => applyMatrix(invert(grab.matrix), p);
        const [to, fixed] = [own(at), own(grab.about)];
        const [w, h] = [Math.abs(to.x - fixed.x), Math.abs(to.y - fixed.y)].map((mm) =>
          Math.max(LEAST_MM, roundMm(mm)),
        );
        const { ways, width, height } = grab;
        return stretchShape(from, chosen, {
          width: ways.across ? (w as number) : width,
          height: ways.upright ? (h as number) : height,
          about: grab.about,
        });
      }
      case 'turn': {
        const angle = (p: Point) => (Math.atan2(p.y - grab.about.y, p.x - grab.about.x) * 180) / Math.PI;
        const now = turnOf(from, chosen);
        let by = angle(at) - angle(start);
        by = shift ? Math.round((now + by) / TURN_STEP) * TURN_STEP - now : roundDegrees(by);
        return turnChosen(from, chosen, by, grab.about);
      }
    }
  };

  followPointer(
    event,
    (e, first) => {
      if (first) settle();
      const next = changedBy(toMm(e.clientX, e.clientY), e.shiftKey, e.altKey);
      dispatch((job) => withPartsOf(job, next, chosen.partIds), `drag:${chosen.memberId ?? chosen.partIds.join()}`);
      say({ x: e.clientX, y: e.clientY, words: grab.kind === 'turn' ? `${shownTurn(chosen)}°` : grab.kind });
    },
    (begun) => {
      if (begun) settle();
      else pressed();
      clearSnap();
      say(null);
    },
  );
}

const shownTurn = (chosen: Chosen): number => Math.round(turnOf(useBench.getState().job, chosen) * 10) / 10;

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
