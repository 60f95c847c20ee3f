/** Outlines of the plain shapes, counter-clockwise about their centre, in mm. Round things are true arcs. */

import { closedPath, type Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import { arcAbout, cubic, line, type Segment } from '../geometry/segment';
import type { Shape } from '../schema/members';

/** The outline of a shape about its origin. */
export function shapePath(shape: Shape): Path {
  switch (shape.kind) {
    case 'rectangle':
      return roundedRectangle(shape.width, shape.height, shape.corner);
    case 'ellipse':
      return ellipsePath(shape.width, shape.height);
    case 'polygon':
      return polygonPath(shape.width / 2, shape.width / 2, shape.sides);
    case 'star':
      return polygonPath(shape.width / 2, (shape.width / 2) * shape.inner, 2 * shape.points);
    case 'heart':
      return heartPath(shape.width, shape.height);
    case 'bar':
      return shape.ends === 'round'
        ? roundedRectangle(shape.width, shape.height, Math.min(shape.width, shape.height) / 2)
        : roundedRectangle(shape.width, shape.height, 0);
    case 'spike':
      return spikePath(shape.width, shape.height, shape.point);
  }
}

/** A rectangle about the origin, counter-clockwise; `corner` is the radius of its corners, at most half its sides. */
export function roundedRectangle(width: number, height: number, corner: number): Path {
  const w = width / 2;
  const h = height / 2;
  const r = Math.min(corner, w, h);
  if (r <= 0) return closedPath([line(-w, -h, w, -h), line(w, -h, w, h), line(w, h, -w, h), line(-w, h, -w, -h)]);
  const quarter = Math.PI / 2;
  const sides: Segment[] = [
    line(-w + r, -h, w - r, -h),
    arcAbout(w - r, -h + r, r, -quarter, quarter),
    line(w, -h + r, w, h - r),
    arcAbout(w - r, h - r, r, 0, quarter),
    line(w - r, h, -w + r, h),
    arcAbout(-w + r, h - r, r, quarter, quarter),
    line(-w, h - r, -w, -h + r),
    arcAbout(-w + r, -h + r, r, 2 * quarter, quarter),
  ];
  return closedPath(joined(sides.filter((s) => Math.hypot(s.x1 - s.x0, s.y1 - s.y0) > 1e-9)));
}

/** A circle is four arcs; an ellipse eight cubics, off by less than 2e-6 of its size. */
export function ellipsePath(width: number, height: number): Path {
  const a = width / 2;
  const b = height / 2;
  if (a === b) {
    const quarter = Math.PI / 2;
    return closedPath(joined([0, 1, 2, 3].map((i) => arcAbout(0, 0, a, i * quarter, quarter))));
  }
  const n = 8;
  const theta = (2 * Math.PI) / n;
  const handle = (4 / 3) * Math.tan(theta / 4);
  return closedPath(
    joined(
      Array.from({ length: n }, (_, i) => {
        const [c0, s0] = [Math.cos(i * theta), Math.sin(i * theta)];
        const [c1, s1] = [Math.cos((i + 1) * theta), Math.sin((i + 1) * theta)];
        return cubic(
          a * c0,
          b * s0,
          a * (c0 - handle * s0),
          b * (s0 + handle * c0),
          a * (c1 + handle * s1),
          b * (s1 - handle * c1),
          a * c1,
          b * s1,
        );
      }),
    ),
  );
}

const pathThrough = (points: readonly Point[]): Path =>
  closedPath(
    points.map((p, i) => {
      const q = points[(i + 1) % points.length] as Point;
      return line(p.x, p.y, q.x, q.y);
    }),
  );

/** Corners on two circles by turns, the first on top. */
function polygonPath(radius: number, innerRadius: number, corners: number): Path {
  return pathThrough(
    Array.from({ length: corners }, (_, i) => {
      const angle = Math.PI / 2 + (2 * Math.PI * i) / corners;
      const r = i % 2 === 0 ? radius : innerRadius;
      return { x: r * Math.cos(angle), y: r * Math.sin(angle) };
    }),
  );
}

/** Two half ellipses on top, and two curves that leave them upright and meet in the tip. */
function heartPath(width: number, height: number): Path {
  const w = width / 2;
  const h = height / 2;
  const lobe = Math.min(w / 2, h * 0.6);
  const level = h - lobe;
  const drop = level + h;
  const k = (4 / 3) * Math.tan(Math.PI / 8);
  const half = (cx: number): Segment[] => {
    const a = w / 2;
    const [right, top, left] = [cx + a, level + lobe, cx - a];
    return [
      cubic(right, level, right, level + k * lobe, cx + k * a, top, cx, top),
      cubic(cx, top, cx - k * a, top, left, level + k * lobe, left, level),
    ];
  };
  return closedPath(
    joined([
      cubic(0, -h, w * 0.32, level - drop * 0.72, w, level - drop * 0.42, w, level),
      ...half(w / 2),
      ...half(-w / 2),
      cubic(-w, level, -w, level - drop * 0.42, -w * 0.32, level - drop * 0.72, 0, -h),
    ]),
  );
}

/** Down from its top edge to a point. */
function spikePath(width: number, height: number, point: number): Path {
  const w = width / 2;
  const shoulder = -(height - Math.min(point, height));
  const corners = [
    { x: 0, y: -height },
    { x: w, y: shoulder },
    { x: w, y: 0 },
    { x: -w, y: 0 },
    { x: -w, y: shoulder },
  ];
  return pathThrough(shoulder === 0 ? corners.filter((_, i) => i < 2 || i === 4) : corners);
}

/** The same segments with every start put exactly on the end before it. */
function joined(segments: readonly Segment[]): Segment[] {
  return segments.map((s, i) => {
    const before = segments[(i + segments.length - 1) % segments.length] as Segment;
    return { ...s, x0: before.x1, y0: before.y1 };
  });
}
