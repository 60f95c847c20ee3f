/** Bridges on the sheet: dragged along the gap, turned by their end, widened by their sides. */
import { type PointerEvent, useRef } from 'react';
import { applyMatrix, invert, type Point } from '@/core/geometry/point';
import type { BridgeView } from '@/worker/bridge-view';
import type { PartView } from '@/worker/view';
import { chooseBridge, chosenBridge, placeBridge } from '../bridge-edits';
import { settle, useBench } from '../store';
import type { Camera } from './camera';
import { followPointer } from './drag';
import styles from './sheet.module.css';

type ToMm = (clientX: number, clientY: number) => Point;
type At = { readonly part: PartView; readonly bridge: BridgeView; readonly toMm: ToMm };

const round = (value: number, per: number): number => Math.round(value * per) / per;
/** Bridges dragged wider or narrower go in steps of this, in mm. */
const WIDTH_STEP_MM = 0.1;
const LEAST_WIDTH_MM = 0.1;
const BESIDE_PX = 8;

function corners({ from, to, width }: BridgeView): readonly Point[] {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [nx, ny] = [(-(to.y - from.y) / length) * (width / 2), ((to.x - from.x) / length) * (width / 2)];
  return [
    { x: from.x + nx, y: from.y + ny },
    { x: from.x - nx, y: from.y - ny },
    { x: to.x - nx, y: to.y - ny },
    { x: to.x + nx, y: to.y + ny },
  ];
}

/** Runs a drag; every step changes the bridge as it lay when the drag began. */
function drag(
  event: PointerEvent,
  { part, bridge, toMm }: At,
  step: (at: Point, start: Point, isShift: boolean) => Parameters<typeof placeBridge>[3],
): void {
  if (event.button !== 0) return;
  chooseBridge(part.id, bridge);
  const start = toMm(event.clientX, event.clientY);
  followPointer(
    event,
    (e, first) => {
      if (first) settle();
      const recipe = step(toMm(e.clientX, e.clientY), start, e.shiftKey);
      placeBridge(part.id, bridge, part.bridges.bridges, recipe, `bridge:${bridge.letter}`);
    },
    (begun) => {
      if (begun) settle();
    },
  );
}

function Bridge({ part, bridge, isChosen, camera, toMm }: At & { isChosen: boolean; camera: Camera }) {
  const { k, x, y } = camera;
  const at = { part, bridge, toMm };
  const px = (p: Point): Point => ({ x: x + p.x * k, y: y - p.y * k });
  const [a, b, c, d] = corners(bridge).map(px) as [Point, Point, Point, Point];
  const back = invert(bridge.matrix);
  const move = (event: PointerEvent) =>
    drag(event, at, (now, start, isShift) => (pinned) => {
      const own = applyMatrix(back, { x: bridge.from.x + now.x - start.x, y: bridge.from.y + now.y - start.y });
      pinned.x = round(own.x, 1e5);
      pinned.y = round(own.y, 1e5);
      if (!isShift) pinned.turn = null;
    });
  const turn = (event: PointerEvent) =>
    drag(event, at, (now) => (pinned) => {
      const from = applyMatrix(back, bridge.from);
      const to = applyMatrix(back, now);
      pinned.turn = round((Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI, 10);
    });
  const widen = (event: PointerEvent) =>
    drag(event, at, (now) => (pinned) => {
      const length = Math.hypot(bridge.to.x - bridge.from.x, bridge.to.y - bridge.from.y) || 1;
      const [ux, uy] = [(bridge.to.x - bridge.from.x) / length, (bridge.to.y - bridge.from.y) / length];
      const aside = Math.abs((now.x - bridge.from.x) * uy - (now.y - bridge.from.y) * ux);
      pinned.width = Math.max(LEAST_WIDTH_MM, round(Math.round((2 * aside) / WIDTH_STEP_MM) * WIDTH_STEP_MM, 1e3));
    });
  // Handles lie beside the bridge, so that it can be taken itself however small it is drawn.
  const [s, e] = [px(bridge.from), px(bridge.to)];
  const drawn = Math.hypot(e.x - s.x, e.y - s.y) || 1;
  const [ux, uy] = [(e.x - s.x) / drawn, (e.y - s.y) / drawn];
  const end = { x: e.x + ux * BESIDE_PX * 1.6, y: e.y + uy * BESIDE_PX * 1.6 };
  const off = (bridge.width / 2) * k + BESIDE_PX;
  const middle = { x: (s.x + e.x) / 2, y: (s.y + e.y) / 2 };
  const sides = [
    { x: middle.x - uy * off, y: middle.y + ux * off },
    { x: middle.x + uy * off, y: middle.y - ux * off },
  ];
  return (
    // The whole group is grabbed: where a press and its release hit different parts of it, nothing is let go.
    <g data-grab="bridge">
      <path
        data-bridge={bridge.letter}
        data-by-hand={bridge.pinnedIndex !== null}
        data-chosen={isChosen}
        className={styles.bridge}
        d={`M${[a, b, c, d].map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`).join('L')}Z`}
        onPointerDown={move}
      >
        <title>Drag it along the gap; with Shift it keeps its direction</title>
      </path>
      {isChosen && (
        <>
          {sides.map((side, i) => (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: there are always the same two
              key={i}
              className={styles.handle}
              x={side.x - 4}
              y={side.y - 4}
              width={8}
              height={8}
              style={{ cursor: 'col-resize' }}
              onPointerDown={widen}
            >
              <title>Drag to make it wider or narrower</title>
            </rect>
          ))}
          <circle
            data-turn
            className={styles.handle}
            cx={end.x}
            cy={end.y}
            r={5}
            style={{ cursor: 'crosshair' }}
            onPointerDown={turn}
          >
            <title>Drag to turn it</title>
          </circle>
        </>
      )}
    </g>
  );
}

/** Bridges, to be dragged, turned and widened. */
export function BridgeLayer({ camera, toMm }: { camera: Camera; toMm: ToMm }) {
  const view = useBench((s) => s.view);
  const selected = useBench((s) => s.selection.partId);
  const at = useBench((s) => s.atIsland);
  const pointing = useBench((s) => s.pointing);
  const keys = useRef(new Map<string, number>());
  if (!view) return null;
  keys.current.clear();
  const keyOf = (part: PartView, bridge: BridgeView): string => {
    const base = `${part.id}/${bridge.letter}/${bridge.island}`;
    const nth = keys.current.get(base) ?? 0;
    keys.current.set(base, nth + 1);
    return `${base}/${nth}`;
  };
  return (
    <g style={pointing ? { pointerEvents: 'none' } : undefined}>
      {view.parts.flatMap((part) => {
        const chosen = part.id === selected ? chosenBridge(part, at) : null;
        return part.bridges.bridges.map((bridge) => (
          <Bridge
            key={keyOf(part, bridge)}
            part={part}
            bridge={bridge}
            isChosen={bridge === chosen}
            camera={camera}
            toMm={toMm}
          />
        ));
      })}
      <ChosenIsland camera={camera} />
    </g>
  );
}

/** A ring around the island chosen in the list. */
function ChosenIsland({ camera }: { camera: Camera }) {
  const at = useBench((s) => s.atIsland);
  const part = useBench((s) => s.view?.parts.find((p) => p.id === s.selection.partId));
  const island = part?.bridges.islands.find((i) => i.letter === at?.letter && i.island === at?.island);
  if (!island) return null;
  const { k, x, y } = camera;
  const { minX, minY, maxX, maxY } = island.box;
  return (
    <rect
      className={styles.chosen}
      x={x + minX * k - 5}
      y={y - maxY * k - 5}
      width={(maxX - minX) * k + 10}
      height={(maxY - minY) * k + 10}
      rx={5}
    />
  );
}
