/** Where cuts begin and where they leave tabs, at station Assign: pressed to choose one, dragged along the outline, Delete lets it go. */
import type { PointerEvent } from 'react';
import type { Point } from '@/core/geometry/point';
import type { CutView, PlaceView } from '@/worker/view';
import type { AtCut } from '../at';
import { takeHold } from '../cut-edits';
import { chooseCut, select, settle, useBench } from '../store';
import type { Camera } from './camera';
import { followPointer } from './drag';
import styles from './sheet.module.css';

type ToMm = (clientX: number, clientY: number) => Point;
type Props = { readonly camera: Camera; readonly toMm: ToMm };

/** Half the length of a mark on the screen, in pixels: as many for each pixel that a mm takes, and no more or less than these. */
const MARK_PER_PX = 3;
const MARK_LEAST_PX = 3;
const MARK_MOST_PX = 6;
/** A mark is taken hold of within so many pixels of it. */
const NEAR_PX = 4;

const isSame = (a: AtCut | null, b: AtCut): boolean =>
  a !== null && a.operationId === b.operationId && a.partId === b.partId && a.nth === b.nth && a.place === b.place;

/** Press on a mark: choose it, and drag it where the part is not locked. */
function press(event: PointerEvent, { at, cut, toMm }: { at: AtCut; cut: CutView; toMm: ToMm }): void {
  const { selection, job, pointing } = useBench.getState();
  if (event.button !== 0 || pointing) return;
  if (selection.partId !== at.partId) select(at.partId);
  chooseCut(at);
  if (job.parts.find((p) => p.id === at.partId)?.locked) return;
  const held = takeHold({ at, cut });
  followPointer(
    event,
    (e, first) => {
      if (first) settle();
      held.moveTo(toMm(e.clientX, e.clientY));
    },
    (begun) => {
      if (begun) void held.letGo();
    },
  );
}

/** Places of operations that are on, to be dragged. */
export function CutLayer({ camera, toMm }: Props) {
  const view = useBench((s) => s.view);
  const operations = useBench((s) => s.job.operations);
  const only = useBench((s) => s.only);
  const chosen = useBench((s) => s.atCut);
  const pointing = useBench((s) => s.pointing);
  const shown = operations.filter((o) => o.on && (only === null || only === o.id)).map((o) => o.id);
  return (
    <g style={pointing ? { pointerEvents: 'none' } : undefined}>
      {view?.operations
        .filter(({ id }) => shown.includes(id))
        .flatMap(({ id: operationId, cuts }) =>
          cuts.map((cut) => (
            <Cut
              key={`${operationId}/${cut.partId}/${cut.nth}`}
              operationId={operationId}
              cut={cut}
              chosen={chosen}
              camera={camera}
              toMm={toMm}
            />
          )),
        )}
    </g>
  );
}

function Cut({
  operationId,
  cut,
  chosen,
  camera,
  toMm,
}: Props & { operationId: string; cut: CutView; chosen: AtCut | null }) {
  const { partId, nth, start, tabs } = cut;
  const { k, x, y } = camera;
  const px = (p: Point): Point => ({ x: x + p.x * k, y: y - p.y * k });
  const size = Math.min(MARK_MOST_PX, Math.max(MARK_LEAST_PX, MARK_PER_PX * k));
  const at = (place: AtCut['place']): AtCut => ({ operationId, partId, nth, place });
  const mark = (place: AtCut['place'], of: PlaceView, d: string, words: string) => (
    <g key={place} data-grab="cut" onPointerDown={(event) => press(event, { at: at(place), cut, toMm })}>
      <path
        data-cut-place={place === 'start' ? 'start' : 'tab'}
        data-by-hand={of.byHand !== null}
        data-chosen={isSame(chosen, at(place))}
        className={place === 'start' ? styles.startOfCut : styles.tabOfCut}
        d={d}
      />
      <path d={d} fill="transparent" stroke="transparent" strokeWidth={2 * NEAR_PX} style={{ cursor: 'move' }}>
        <title>{words}</title>
      </path>
    </g>
  );
  return (
    <>
      {tabs.map((tab, i) => {
        const { x: mx, y: my } = px(tab.at);
        const [tx, ty] = [tab.tangent.x, -tab.tangent.y];
        const half = Math.max(size / 2, (tab.widthMm * k) / 2);
        const corner = (s: number, c: number) =>
          `${(mx + s * half * tx - c * size * ty).toFixed(1)} ${(my + s * half * ty + c * size * tx).toFixed(1)}`;
        const d = `M${corner(-1, -1)}L${corner(1, -1)}L${corner(1, 1)}L${corner(-1, 1)}Z`;
        return mark(i, tab, d, 'A tab: drag it along the outline; Delete takes it out');
      })}
      {start &&
        mark(
          'start',
          start,
          arrow(px(start.at), { x: start.tangent.x, y: -start.tangent.y }, size),
          'The cut begins here and runs this way: drag it along the outline; Delete lets it go',
        )}
    </>
  );
}

/** A triangle that points along a direction on the screen. */
function arrow({ x, y }: Point, { x: tx, y: ty }: Point, size: number): string {
  const p = (along: number, aside: number) =>
    `${(x + along * tx - aside * ty).toFixed(1)} ${(y + along * ty + aside * tx).toFixed(1)}`;
  return `M${p(size * 1.4, 0)}L${p(-size, size)}L${p(-size, -size)}Z`;
}
