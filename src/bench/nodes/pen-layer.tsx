/** Drawing a path on the sheet: a press is a corner, a press that is dragged a bend. */
import { type PointerEvent, useEffect, useState } from 'react';
import { memberOf } from '@/core/commands/changed';
import { newPart } from '@/core/commands/defaults';
import { freeId } from '@/core/commands/ids';
import type { WordsAt } from '@/core/commands/own-lines';
import { runAlongDrawn } from '@/core/commands/run-along';
import { joined } from '@/core/geometry/nodes';
import { type Path, regionBox, reversePath, transformPath } from '@/core/geometry/path';
import { KEPT_DIGITS, pathData } from '@/core/geometry/path-data';
import { boxCentre, compose, invert, type Point, scaling, translation } from '@/core/geometry/point';
import { pathOf } from '@/core/geometry/read-path-data';
import { cubic, line, type Segment } from '@/core/geometry/segment';
import { memberView } from '../seen';
import type { Camera } from '../sheet/camera';
import { followPointer } from '../sheet/drag';
import { change, dispatch, select, setPen, useBench } from '../store';
import { onEdge, usePictureEdges } from './edges';
import styles from './nodes.module.css';

type Props = { readonly camera: Camera; readonly toMm: (x: number, y: number) => Point };
/** A node with where its curve leaves to; the handle into it is the mirror image. */
type Drawn = { readonly at: Point; readonly out: Point | null };
/** A path that is gone on with, its end where drawing starts. */
type From = { readonly partId: string; readonly memberId: string; readonly index: number; readonly path: Path };

/** Where a press is meant to be, and whether that is on an edge of a picture. */
type Meant = { readonly at: Point; readonly isOnEdge: boolean };

const NEAR_PX = 10;

const mirrored = ({ at, out }: Drawn): Point => (out ? { x: 2 * at.x - out.x, y: 2 * at.y - out.y } : at);

function segmentsOf(nodes: readonly Drawn[], closed: boolean): Segment[] {
  const pairs = nodes.slice(1).map((b, i) => [nodes[i] as Drawn, b] as const);
  const [first, last] = [nodes[0], nodes[nodes.length - 1]];
  if (closed && first && last) pairs.push([last, first]);
  return pairs.map(([a, b]) => {
    if (!a.out && !b.out) return line(a.at.x, a.at.y, b.at.x, b.at.y);
    const [p, q] = [a.out ?? a.at, mirrored(b)];
    return cubic(a.at.x, a.at.y, p.x, p.y, q.x, q.y, b.at.x, b.at.y);
  });
}

/** The open end of a drawn path near a place. */
function endNear(at: Point, reach: number): From | null {
  const { job, view } = useBench.getState();
  for (const part of job.parts)
    for (const member of part.members) {
      const seen = view?.parts.find((p) => p.id === part.id)?.members.find((m) => m.id === member.id);
      if (member.kind !== 'path' || !seen || part.locked) continue;
      const m = compose(scaling(member.scale), seen.matrix);
      for (const [index, own] of pathOf(member.d).paths.entries()) {
        if (own.closed) continue;
        const path = transformPath(own, m);
        const [first, last] = [path.segments[0] as Segment, path.segments[path.segments.length - 1] as Segment];
        const from = { partId: part.id, memberId: member.id, index };
        if (Math.hypot(last.x1 - at.x, last.y1 - at.y) <= reach) return { ...from, path };
        if (Math.hypot(first.x0 - at.x, first.y0 - at.y) <= reach) return { ...from, path: reversePath(path) };
      }
    }
  return null;
}

/** Put what was drawn into the job: on from the path it started at, or as a part of its own. */
function keep(nodes: readonly Drawn[], closed: boolean, from: From | null): void {
  if (nodes.length < 2) return;
  const drawn: Path = { segments: segmentsOf(nodes, closed), closed };
  if (from) {
    const whole = joined(from.path, { ...drawn, closed: false });
    change((job) => {
      const member = memberOf(job, from.partId, from.memberId);
      const seen = useBench
        .getState()
        .view?.parts.find((p) => p.id === from.partId)
        ?.members.find((m) => m.id === from.memberId);
      if (member?.kind !== 'path' || !seen) return;
      const back = invert(compose(scaling(member.scale), seen.matrix));
      const paths = pathOf(member.d).paths.map((path, i) => (i === from.index ? transformPath(whole, back) : path));
      member.d = pathData(paths, null, KEPT_DIGITS);
    });
    select(from.partId, from.memberId);
    return;
  }
  const middle = boxCentre(regionBox([drawn]));
  let made: readonly [string, string] | null = null;
  change((job) => {
    const id = freeId(job, 'path');
    const partId = freeId(job, 'part', [id]);
    const member = {
      id,
      kind: 'path' as const,
      role: 'join' as const,
      placement: { x: middle.x, y: middle.y, turn: 0, mirror: false },
      d: pathData([transformPath(drawn, translation(-middle.x, -middle.y))], null, KEPT_DIGITS),
      scale: 1,
    };
    job.parts.push(newPart(partId, '', [member], job));
    made = [partId, id];
  });
  if (made) select(made[0]);
}

/** Let words run along what was drawn; the pen is put down. */
function keepForWords(nodes: readonly Drawn[], closed: boolean, at: WordsAt): void {
  const seen = memberView(at.partId, at.memberId);
  setPen(false);
  if (nodes.length < 2 || !seen) return;
  const drawn = transformPath({ segments: segmentsOf(nodes, closed), closed }, invert(seen.matrix));
  dispatch((job) => runAlongDrawn(job, at, drawn));
}

/** The path that is being drawn. */
export function PenLayer({ camera, toMm }: Props) {
  const [nodes, setNodes] = useState<readonly Drawn[]>([]);
  const [from, setFrom] = useState<From | null>(null);
  const [over, setOver] = useState<Meant | null>(null);
  const { k, x, y, width, height } = camera;
  const edges = usePictureEdges();
  const keepsToEdges = useBench((s) => s.keepsToEdges);
  /** Where a press is meant to be: on an edge of a picture that is near, unless Alt is held. */
  const meant = (event: { readonly clientX: number; readonly clientY: number; readonly altKey: boolean }): Meant => {
    const at = toMm(event.clientX, event.clientY);
    const snapped = keepsToEdges && !event.altKey ? onEdge(at, edges, NEAR_PX / k) : null;
    return { at: snapped ?? at, isOnEdge: snapped !== null };
  };
  const finish = (closed: boolean) => {
    const { penFor } = useBench.getState();
    if (penFor) {
      keepForWords(nodes, closed, penFor);
      return;
    }
    keep(nodes, closed, from);
    // The pen stays in hand for another path.
    setNodes([]);
    setFrom(null);
  };
  useEffect(() => {
    const key = (event: KeyboardEvent) => {
      if (event.key === 'Enter' && nodes.length > 0) finish(false);
      else if (event.key === 'Enter') setPen(false);
      else if (event.key === 'Escape') setPen(false);
      else if (event.key === 'Backspace' || event.key === 'Delete') setNodes((now) => now.slice(0, -1));
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener('keydown', key, true);
    return () => window.removeEventListener('keydown', key, true);
  });
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const { at } = meant(event);
    const reach = NEAR_PX / k;
    const first = nodes[0];
    if (first && nodes.length > 2 && !from && Math.hypot(first.at.x - at.x, first.at.y - at.y) <= reach) {
      // Let go first: the press must not reach the sheet under the pen.
      followPointer(
        event,
        () => {},
        () => requestAnimationFrame(() => finish(true)),
      );
      return;
    }
    let start = at;
    if (!first && !useBench.getState().penFor) {
      const end = endNear(at, reach);
      const last = end?.path.segments[end.path.segments.length - 1];
      setFrom(end);
      if (last) start = { x: last.x1, y: last.y1 };
    }
    const before = nodes;
    setNodes([...before, { at: start, out: null }]);
    followPointer(
      event,
      (e) => setNodes([...before, { at: start, out: toMm(e.clientX, e.clientY) }]),
      () => {},
    );
  };
  const preview = over && nodes.length > 0 ? [...nodes, { at: over.at, out: null }] : nodes;
  const toScreen = (p: Point) => ({ x: x + p.x * k, y: y - p.y * k });
  return (
    <g>
      <path
        className={styles.shape}
        d={pathData([{ segments: segmentsOf(preview, false), closed: false }], null, 4)}
        transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}
      />
      <rect
        data-grab="pen"
        className={styles.pen}
        width={width}
        height={height}
        onPointerDown={press}
        onPointerMove={(e) => setOver(meant(e))}
        onPointerLeave={() => setOver(null)}
      />
      <path
        className={styles.node}
        d={nodes
          .map((node) => toScreen(node.at))
          .map((p) => `M${p.x - 3} ${p.y - 3}h6v6h-6Z`)
          .join('')}
      />
      {over?.isOnEdge && (
        <g transform={`translate(${toScreen(over.at).x} ${toScreen(over.at).y})`} pointerEvents="none">
          <circle className={styles.onEdge} r={5} />
          <text className={styles.onEdgeWords} x={10} y={-8}>
            edge of the picture
          </text>
        </g>
      )}
    </g>
  );
}
