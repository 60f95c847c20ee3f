/** The outlines of SVG's basic shapes and paths, in user units. */
import { numberAt } from '../../geometry/elements';
import type { Path } from '../../geometry/path';
import { compose, type Point, scaling, translation } from '../../geometry/point';
import { pathOf, type ReadPaths } from '../../geometry/read-path-data';
import { arcAbout, line, type Segment, transformSegment, withEnds } from '../../geometry/segment';
import type { SvgElement } from './tree';
import { lengthAttribute, lengthIn, numbersIn } from './values';

/** What percentages count from, in user units. */
export type Viewport = { readonly width: number; readonly height: number };

const diagonal = (v: Viewport): number => Math.hypot(v.width, v.height) / Math.SQRT2;

const sound = (paths: readonly Path[]): ReadPaths => ({ paths, damaged: false });
const NOTHING = sound([]);

/** The outline of a basic shape or path; null when the element is none. */
export function outlineOf(element: SvgElement, view: Viewport): ReadPaths | null {
  switch (element.name) {
    case 'path':
      return pathOf(element.attributes.get('d') ?? '');
    case 'rect':
      return rectangle(element, view);
    case 'circle': {
      const r = lengthAttribute(element, 'r', diagonal(view));
      return ellipse(element, view, r, r);
    }
    case 'ellipse': {
      const rx = lengthIn(element.attributes.get('rx'), view.width);
      const ry = lengthIn(element.attributes.get('ry'), view.height);
      return ellipse(element, view, rx ?? ry ?? 0, ry ?? rx ?? 0);
    }
    case 'line': {
      const [x1, y1] = [lengthAttribute(element, 'x1', view.width), lengthAttribute(element, 'y1', view.height)];
      const [x2, y2] = [lengthAttribute(element, 'x2', view.width), lengthAttribute(element, 'y2', view.height)];
      return sound([{ segments: [line(x1, y1, x2, y2)], closed: false }]);
    }
    case 'polyline':
    case 'polygon': {
      const n = numbersIn(element.attributes.get('points') ?? '');
      const points: (readonly [number, number])[] = [];
      for (let i = 0; i + 1 < n.length; i += 2) points.push([numberAt(n, i), numberAt(n, i + 1)]);
      const closed = element.name === 'polygon';
      if (points.length < 2) return NOTHING;
      const segments = points
        .slice(closed ? 0 : 1)
        .map(([x, y], i) => {
          const [px, py] = points[closed ? (i + points.length - 1) % points.length : i] as readonly [number, number];
          return line(px, py, x, y);
        })
        .filter((s) => s.x0 !== s.x1 || s.y0 !== s.y1);
      return sound([{ segments: closed ? [...segments.slice(1), ...segments.slice(0, 1)] : segments, closed }]);
    }
    default:
      return null;
  }
}

function rectangle(element: SvgElement, view: Viewport): ReadPaths {
  const [x, y] = [lengthAttribute(element, 'x', view.width), lengthAttribute(element, 'y', view.height)];
  const [w, h] = [lengthAttribute(element, 'width', view.width), lengthAttribute(element, 'height', view.height)];
  if (!(w > 0 && h > 0)) return NOTHING;
  const radius = (name: string, reference: number): number | null => {
    const value = lengthIn(element.attributes.get(name), reference);
    return value !== null && value >= 0 ? value : null;
  };
  const [givenX, givenY] = [radius('rx', view.width), radius('ry', view.height)];
  const rx = Math.min(givenX ?? givenY ?? 0, w / 2);
  const ry = Math.min(givenY ?? givenX ?? 0, h / 2);
  if (rx === 0 || ry === 0) return pathOf(`M${x} ${y}h${w}v${h}h${-w}z`);
  const corner = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
  const [across, down] = [w - 2 * rx, h - 2 * ry];
  return pathOf(
    `M${x + rx} ${y}h${across}${corner(rx, ry)}v${down}${corner(-rx, ry)}h${-across}${corner(-rx, -ry)}v${-down}${corner(rx, -ry)}z`,
  );
}

function ellipse(element: SvgElement, view: Viewport, rx: number, ry: number): ReadPaths {
  if (!(rx > 0 && ry > 0)) return NOTHING;
  const [cx, cy] = [lengthAttribute(element, 'cx', view.width), lengthAttribute(element, 'cy', view.height)];
  const place = compose(scaling(rx, ry), translation(cx, cy));
  const quarter = Math.PI / 2;
  const arcs = [0, 1, 2, 3].flatMap((i) => transformSegment(arcAbout(0, 0, 1, i * quarter, quarter), place));
  return sound([{ segments: joined(arcs), closed: true }]);
}

const joined = (segments: readonly Segment[]): Segment[] =>
  segments.map((s, i) => {
    const before = segments[(i + segments.length - 1) % segments.length] as Segment;
    return withEnds(s, { x: before.x1, y: before.y1 }, { x: s.x1, y: s.y1 });
  });

/** Where a path of no length is, in user units; null where its data do not begin with a place. */
export function pointOf(element: SvgElement): Point | null {
  const start = /^\s*M\s*([-+\d.e]+)[\s,]+([-+\d.e]+)\s*[A-Z]/i.exec(element.attributes.get('d') ?? '');
  return start && { x: Number(start[1]), y: Number(start[2]) };
}

/** The rectangle around the ends of an element’s segments, in user units; null where it has none. */
export function elementBounds(element: SvgElement, view: Viewport) {
  const outlined = outlineOf(element, view);
  const xs = outlined?.paths.flatMap((p) => p.segments.flatMap((s) => [s.x0, s.x1])) ?? [];
  const ys = outlined?.paths.flatMap((p) => p.segments.flatMap((s) => [s.y0, s.y1])) ?? [];
  if (xs.length === 0) return null;
  const least = (n: readonly number[]) => n.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (n: readonly number[]) => n.reduce((a, b) => Math.max(a, b), -Infinity);
  return { x: least(xs), y: least(ys), width: most(xs) - least(xs), height: most(ys) - least(ys) };
}
