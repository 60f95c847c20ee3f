/** What a machine read from a file, thing by thing in the order of the file, as it is held against what was meant. */

import type { ReadItem, ReadPath, ReadPiece } from '../formats/read-back/read-back';
import type { ReadDrawing, ReadGroup } from '../formats/read-drawing';
import { type Path, pathBox, regionBox } from '../geometry/path';
import type { Box } from '../geometry/point';
import type { Segment } from '../geometry/segment';

/** A thing of a file: the layer it is on, where it lies, and what it is. */
export type FoundItem = {
  readonly of: Pick<ReadGroup, 'name' | 'colour' | 'pen'>;
  readonly box: Box;
  readonly item: ReadItem;
};

function pieceOf(s: Segment): ReadPiece {
  switch (s.kind) {
    case 'line':
      return { kind: 'line', x: s.x1, y: s.y1 };
    case 'quadratic':
      return { kind: 'quadratic', ax: s.ax, ay: s.ay, x: s.x1, y: s.y1 };
    case 'cubic':
      return { kind: 'cubic', ax: s.ax, ay: s.ay, bx: s.bx, by: s.by, x: s.x1, y: s.y1 };
    case 'arc':
      return { kind: 'arc', x: s.x1, y: s.y1, sweep: s.sweep };
  }
}

const pathOf = ({ segments, closed }: Path): ReadPath => ({
  x: segments[0]?.x0 ?? 0,
  y: segments[0]?.y0 ?? 0,
  pieces: segments.map(pieceOf),
  closed,
});

/** What was read, thing by thing: of a shape that is filled all its paths together, of others path by path. */
export function itemsOf({ shapes, groups, points }: ReadDrawing): FoundItem[] {
  const out: FoundItem[] = [];
  let nextPoint = 0;
  const pointsBefore = (shape: number): void => {
    for (let p = points[nextPoint]; p && p.before <= shape; p = points[++nextPoint]) {
      const { x, y } = p.at;
      const box = { minX: x, minY: y, maxX: x, maxY: y };
      out.push({ of: p.of, box, item: { kind: 'dot', layer: 0, x, y, r: null } });
    }
  };
  shapes.forEach((shape, i) => {
    pointsBefore(i);
    const of = groups[shape.group];
    if (!of) return;
    if (shape.fill !== null && shape.stroke === null) {
      const item: ReadItem = { kind: 'path', layer: 0, filled: true, paths: shape.paths.map(pathOf) };
      out.push({ of, box: regionBox(shape.paths), item });
      return;
    }
    for (const path of shape.paths)
      out.push({
        of,
        box: pathBox(path),
        item: { kind: 'path', layer: 0, filled: shape.fill !== null, paths: [pathOf(path)] },
      });
  });
  pointsBefore(shapes.length);
  return out;
}
