/** The line that words run along, with its handles: where the words start, and what bends it. */
import type { PointerEvent } from 'react';
import { type AlongHandle, dragAlong } from '@/core/commands/run-along';
import { ArcLength } from '@/core/geometry/arc-length';
import { type Path, transformPath } from '@/core/geometry/path';
import { pathData } from '@/core/geometry/path-data';
import { applyMatrix, invert, type Point } from '@/core/geometry/point';
import type { Along } from '@/core/schema/along';
import { formatLength } from '@/core/units/quantity';
import { memberInHand } from '../chosen';
import { alongSeen } from '../run-along';
import { dispatch, settle, useBench } from '../store';
import type { Camera } from './camera';
import { type DragSaying, followPointer } from './drag';
import { HANDLE_PX, toScreen } from './frame-handles';
import styles from './sheet.module.css';

type Props = {
  readonly camera: Camera;
  readonly toMm: (clientX: number, clientY: number) => Point;
  readonly say: (saying: DragSaying) => void;
};

/** Where the handle that bends a line is, in the words' own coordinates; null for lines that have none. */
function bendAt(line: Along['line'], curve: ArcLength, end: number): Point | null {
  if (line.kind === 'arc') return curve.at(end);
  if (line.kind === 'circle') return { x: line.radius, y: 0 };
  if (line.kind === 'wave') return { x: line.length / 4, y: line.height / 2 };
  return null;
}

/** What is said of a line while it is dragged. */
function measureOf({ line, start }: Along, handle: AlongHandle, unit: 'mm' | 'in'): string {
  const length = (mm: number) => formatLength(mm, unit);
  if (handle === 'start') return length(start);
  if (line.kind === 'arc') return `${line.by} ${length(line.mm)}`;
  if (line.kind === 'circle') return `radius ${length(line.radius)}`;
  if (line.kind === 'wave') return `${length(line.length)} × ${length(line.height)}`;
  return '';
}

/** Shown for the words in hand. */
export function AlongLayer({ camera, toMm, say }: Props) {
  const job = useBench((s) => s.job);
  const selection = useBench((s) => s.selection);
  const station = useBench((s) => s.station);
  const picked = useBench((s) => s.picked);
  const member = memberInHand(job, selection);
  const { partId } = selection;
  const view = useBench((s) => s.view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === member?.id));
  const locked = job.parts.find((p) => p.id === partId)?.locked ?? true;
  if (station !== 'compose' || picked || locked || !partId || member?.kind !== 'lettering' || !member.along || !view)
    return null;
  const { along } = member;
  const seen = alongSeen(view);
  if (!seen || !view.along) return null;
  const at = { partId, memberId: member.id };
  const curve = new ArcLength(seen.path);
  const run = curve.nearest(seen.start);
  const { k, x, y } = camera;
  const press = (event: PointerEvent, handle: AlongHandle) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const back = invert(view.matrix);
    const { job: from } = useBench.getState();
    followPointer(
      event,
      (e, first) => {
        if (first) settle();
        const to = applyMatrix(back, toMm(e.clientX, e.clientY));
        // Always from how it was when the drag began.
        const next = dragAlong(from, at, handle, { to, seen });
        const part = next.parts.find((p) => p.id === partId);
        dispatch(
          (now) => (part ? { ...now, parts: now.parts.map((p) => (p.id === partId ? part : p)) } : now),
          `along:${at.memberId}`,
        );
        const moved = part?.members.find((m) => m.id === at.memberId);
        if (moved?.kind === 'lettering' && moved.along)
          say({ x: e.clientX, y: e.clientY, words: measureOf(moved.along, handle, now()) });
      },
      (begun) => {
        if (begun) settle();
        say(null);
      },
    );
  };
  const start = toScreen(camera, view.along.start);
  // Of an arc no more than the words take, and a little on.
  const reach = ARC_SHOWN * seen.lengthMm;
  const isArc = along.line.kind === 'arc' && 2 * reach < curve.length;
  const shown = isArc
    ? pathData([transformPath(curve.between(run - reach, run + reach), view.matrix)], null, 3)
    : view.along.d;
  const bend = bendAt(along.line, curve, run + seen.lengthMm / 2);
  const nodes = along.line.kind === 'path' ? nodesOf(seen.path) : [];
  const knob = (p: Point, handle: AlongHandle, title: string, key: string) => {
    const s = toScreen(camera, applyMatrix(view.matrix, p));
    return (
      <circle
        key={key}
        data-grab="along"
        data-along={key}
        className={styles.handle}
        style={{ cursor: 'move' }}
        cx={s.x}
        cy={s.y}
        r={HANDLE_PX / 2 + 1}
        onPointerDown={(e) => press(e, handle)}
      >
        <title>{title}</title>
      </circle>
    );
  };
  return (
    <g data-frame="along">
      <path className={styles.runsAlong} d={shown} transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`} />
      {nodes.map((p, i) => knob(p, { node: i }, 'Drag the node', `node-${i}`))}
      {bend && knob(bend, 'bend', BEND_WORDS[along.line.kind] ?? '', 'bend')}
      <path
        data-grab="along"
        data-along="start"
        className={styles.handle}
        style={{ cursor: 'move' }}
        d="M0 -8L6 0L0 8L-6 0Z"
        transform={`translate(${start.x} ${start.y}) rotate(${-view.along.startDeg})`}
        onPointerDown={(e) => press(e, 'start')}
      >
        <title>Drag the words along the line</title>
      </path>
    </g>
  );
}

/** Of an arc so much is shown on each side of its middle, as a share of the length of the words. */
const ARC_SHOWN = 0.6;

const now = () => useBench.getState().job.units;

const BEND_WORDS: Readonly<Partial<Record<Along['line']['kind'], string>>> = {
  arc: 'Drag to bend the line',
  circle: 'Drag the radius',
  wave: 'Drag the crest',
};

/** The nodes of a drawn line. */
function nodesOf({ segments, closed }: Path): Point[] {
  const last = segments[segments.length - 1];
  return [...segments.map((s) => ({ x: s.x0, y: s.y0 })), ...(last && !closed ? [{ x: last.x1, y: last.y1 }] : [])];
}
