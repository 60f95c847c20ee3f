/** The nodes of what is in hand, over the sheet: pressed, boxed, dragged; handles of curves beside the chosen ones. */
import { memo, type PointerEvent, useMemo, useState } from 'react';
import {
  addNode,
  asCubic,
  before,
  bent,
  moveHandle,
  moveNodes,
  nodeAt,
  nodeCount,
  nodesOf,
} from '@/core/geometry/nodes';
import type { Path } from '@/core/geometry/path';
import { pathData } from '@/core/geometry/path-data';
import type { Point } from '@/core/geometry/point';
import { pointAt, type Segment } from '@/core/geometry/segment';
import { nearestParameter } from '@/core/geometry/segment-measures';
import type { Camera } from '../sheet/camera';
import { followPointer } from '../sheet/drag';
import { useBench, workOnNodes } from '../store';
import { chosenNodesOf, nodeKey, parseKey } from './chosen';
import { putPaths, usePathsInHand } from './hand';
import { onMiddle, useMiddle } from './middle';
import styles from './nodes.module.css';

type Props = { readonly camera: Camera; readonly toMm: (x: number, y: number) => Point };

const NEAR_PX = 9;
/** More nodes in sight than this are not told apart. */
const MOST_NODES = 4_000;

/** The nodes that are worked on, and their handles. */
export function NodeLayer({ camera, toMm }: Props) {
  const at = useBench((s) => s.atNodes);
  const inSheet = usePathsInHand(at);
  const middle = useMiddle(at);
  const [draft, setDraft] = useState<readonly Path[] | null>(null);
  const [box, setBox] = useState<readonly [Point, Point] | null>(null);
  if (!at || !inSheet) return null;
  const stored = inSheet;
  const paths = draft ?? stored;
  const { k, x, y, width, height } = camera;
  const reach = NEAR_PX / k;
  const { chosen } = at;
  const choose = (next: ReadonlySet<string>) => workOnNodes({ ...at, chosen: next });

  const nearestNode = (p: Point): string | null => {
    let found: string | null = null;
    let least = reach;
    stored.forEach((path, i) => {
      nodesOf(path).forEach((q, node) => {
        const d = Math.hypot(q.x - p.x, q.y - p.y);
        if (d < least) {
          least = d;
          found = nodeKey(i, node);
        }
      });
    });
    return found;
  };
  const nearestSegment = (p: Point): { path: number; segment: number; t: number } | null => {
    let found: { path: number; segment: number; t: number } | null = null;
    let least = reach;
    stored.forEach((path, i) => {
      path.segments.forEach((s, segment) => {
        const slack = least + Math.hypot(s.x1 - s.x0, s.y1 - s.y0);
        if (
          s.kind === 'line' &&
          Math.min(Math.hypot(p.x - s.x0, p.y - s.y0), Math.hypot(p.x - s.x1, p.y - s.y1)) > slack
        )
          return;
        const t = nearestParameter(s, p.x, p.y);
        const q = pointAt(s, t);
        const d = Math.hypot(q.x - p.x, q.y - p.y);
        if (d < least) {
          least = d;
          found = { path: i, segment, t };
        }
      });
    });
    return found;
  };

  /** Follow a drag with paths that are put into the document when it ends. */
  const drag = (event: PointerEvent, make: (from: Point, to: Point, e: globalThis.PointerEvent) => readonly Path[]) => {
    const from = toMm(event.clientX, event.clientY);
    let last: readonly Path[] | null = null;
    followPointer(
      event,
      (e) => {
        last = make(from, toMm(e.clientX, e.clientY), e);
        setDraft(last);
      },
      () => {
        if (last) putPaths(last);
        setDraft(null);
      },
    );
  };
  const replaced = (path: number, next: Path): readonly Path[] => stored.map((p, i) => (i === path ? next : p));

  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const p = toMm(event.clientX, event.clientY);
    const node = nearestNode(p);
    if (node) {
      const add = event.shiftKey || event.ctrlKey || event.metaKey;
      const next = new Set(add ? chosen : chosen.has(node) ? chosen : []);
      if (add && chosen.has(node)) next.delete(node);
      else next.add(node);
      choose(next);
      drag(event, (from, to, e) => {
        let [dx, dy] = [to.x - from.x, to.y - from.y];
        // Shift while dragging keeps to level or upright.
        if (e.shiftKey) [dx, dy] = Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy];
        const home = nodePoint(node);
        const target = e.altKey ? null : snapTo({ x: home.x + dx, y: home.y + dy }, next);
        if (target) [dx, dy] = [target.x - home.x, target.y - home.y];
        return stored.map((path, i) => {
          const mine = chosenNodesOf(next, i);
          return mine.size > 0 ? moveNodes(path, mine, dx, dy) : path;
        });
      });
      return;
    }
    const on = nearestSegment(p);
    if (on) {
      drag(event, (_, to) => replaced(on.path, bent(stored[on.path] as Path, on.segment, on.t, to)));
      return;
    }
    // A box over nodes.
    const from = p;
    let to = p;
    followPointer(
      event,
      (e) => {
        to = toMm(e.clientX, e.clientY);
        setBox([from, to]);
      },
      () => {
        setBox(null);
        const [minX, maxX] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
        const [minY, maxY] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
        const inside = stored.flatMap((path, i) =>
          nodesOf(path).flatMap((q, node) =>
            q.x >= minX && q.x <= maxX && q.y >= minY && q.y <= maxY ? [nodeKey(i, node)] : [],
          ),
        );
        choose(new Set([...(event.shiftKey ? chosen : []), ...inside]));
      },
    );
  };
  const nodePoint = (key: string): Point => {
    const [path, node] = parseKey(key);
    return nodesOf(stored[path] as Path)[node] as Point;
  };
  /** Another node, or the true middle of a stroke, that what is dragged comes close to. */
  const snapTo = (p: Point, moving: ReadonlySet<string>): Point | null => {
    let found: Point | null = null;
    let least = reach * 0.7;
    stored.forEach((path, i) => {
      nodesOf(path).forEach((q, node) => {
        const d = Math.hypot(q.x - p.x, q.y - p.y);
        if (d < least && !moving.has(nodeKey(i, node))) {
          least = d;
          found = q;
        }
      });
    });
    return found ?? onMiddle(p, middle, reach * 0.7);
  };
  const double = (event: { clientX: number; clientY: number; stopPropagation: () => void }) => {
    event.stopPropagation();
    const on = nearestSegment(toMm(event.clientX, event.clientY));
    if (!on || nearestNode(toMm(event.clientX, event.clientY))) return;
    putPaths(replaced(on.path, addNode(stored[on.path] as Path, on.segment, on.t)));
    choose(new Set([nodeKey(on.path, on.segment + 1)]));
  };

  const toScreen = (p: Point) => ({ x: x + p.x * k, y: y - p.y * k });
  const picked = [...chosen].flatMap((key) => {
    const [path, node] = parseKey(key);
    const of = paths[path];
    return of && node < nodeCount(of) ? [square(toScreen(nodeAt(of, node)), 4.5)] : [];
  });
  const handles = [...chosen].length <= 12 ? handlesOf(paths, chosen) : [];
  return (
    <g>
      {middle.length > 0 && <Guide paths={middle} camera={camera} />}
      <Shape paths={stored} camera={camera} />
      {draft && (
        <path
          className={styles.moving}
          d={pathData(changedSegments(stored, draft), null, 4)}
          transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}
        />
      )}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: nodes are reached by key through the panel beside the sheet */}
      <rect
        data-nodes
        data-grab="nodes"
        className={styles.surface}
        width={width}
        height={height}
        onPointerDown={press}
        onDoubleClick={double}
      />
      <Marks paths={stored} camera={camera} />
      <path className={styles.chosen} d={picked.join('')} />
      {handles.map(({ path, segment, which, at: place, from }) => {
        const [a, b] = [toScreen(from), toScreen(place)];
        return (
          <g key={`${path}:${segment}:${which}`}>
            <path className={styles.arm} d={`M${a.x} ${a.y}L${b.x} ${b.y}`} />
            <circle
              data-grab="handle"
              className={styles.handle}
              cx={b.x}
              cy={b.y}
              r={5}
              onPointerDown={(event) => {
                if (event.button !== 0) return;
                event.stopPropagation();
                drag(event, (_, to) => replaced(path, moveHandle(stored[path] as Path, segment, which, to)));
              }}
            />
          </g>
        );
      })}
      {box && (
        <rect
          className={styles.box}
          x={Math.min(toScreen(box[0]).x, toScreen(box[1]).x)}
          y={Math.min(toScreen(box[0]).y, toScreen(box[1]).y)}
          width={Math.abs(box[0].x - box[1].x) * k}
          height={Math.abs(box[0].y - box[1].y) * k}
        />
      )}
    </g>
  );
}

const square = (p: Point, r: number): string =>
  `M${(p.x - r).toFixed(1)} ${(p.y - r).toFixed(1)}h${2 * r}v${2 * r}h${-2 * r}Z`;

type Still = { readonly paths: readonly Path[]; readonly camera: Camera };

/** The shape as it is in the document: not drawn anew while something is dragged. */
const Shape = memo(function Shape({ paths, camera: { k, x, y } }: Still) {
  const d = useMemo(() => pathData(paths, null, 4), [paths]);
  return <path className={styles.shape} d={d} transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`} />;
});

/** The middle of the strokes, to keep to. */
const Guide = memo(function Guide({ paths, camera: { k, x, y } }: Still) {
  const d = useMemo(() => pathData(paths, null, 4), [paths]);
  return <path className={styles.guide} d={d} transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`} data-guide />;
});

/** A mark for each node in sight. */
const Marks = memo(function Marks({ paths, camera: { k, x, y, width, height } }: Still) {
  const marks: string[] = [];
  for (const path of paths)
    for (let i = 0; i < nodeCount(path) && marks.length < MOST_NODES; i++) {
      const q = nodeAt(path, i);
      const s = { x: x + q.x * k, y: y - q.y * k };
      if (s.x >= 0 && s.y >= 0 && s.x <= width && s.y <= height) marks.push(square(s, 3));
    }
  return <path className={styles.node} d={marks.join('')} />;
});

/** The segments that a drag has changed, each by itself. */
const changedSegments = (before: readonly Path[], now: readonly Path[]): Path[] =>
  now.flatMap((path, i) =>
    path.segments.flatMap((s, k) => (s === before[i]?.segments[k] ? [] : [{ segments: [s], closed: false }])),
  );

type Handle = {
  readonly path: number;
  readonly segment: number;
  readonly which: 0 | 1;
  readonly at: Point;
  readonly from: Point;
};

/** Handles of the curves beside chosen nodes. */
function handlesOf(paths: readonly Path[], chosen: ReadonlySet<string>): Handle[] {
  return [...chosen].map(parseKey).flatMap(([i, node]): Handle[] => {
    const path = paths[i];
    if (!path || node >= nodeCount(path)) return [];
    const out: Handle[] = [];
    const add = (segment: number, which: 0 | 1) => {
      const s: Segment | undefined = path.segments[segment];
      if (!s || s.kind === 'line') return;
      const c = asCubic(s);
      out.push(
        which === 0
          ? { path: i, segment, which, at: { x: c.ax, y: c.ay }, from: { x: c.x0, y: c.y0 } }
          : { path: i, segment, which, at: { x: c.bx, y: c.by }, from: { x: c.x1, y: c.y1 } },
      );
    };
    add(before(path, node), 1);
    add(node, 0);
    return out;
  });
}
