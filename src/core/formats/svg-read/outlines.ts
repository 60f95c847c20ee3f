/** Basic shapes and path data as paths, in user units and the file's own axes. Round things stay true arcs. */
import svgpath from 'svgpath';
import type { Path } from '../../geometry/path';
import { compose, type Matrix, rotation, scaling, translation } from '../../geometry/point';
import { arcAbout, cubic, line, quadratic, type Segment, transformSegment, withEnds } from '../../geometry/segment';
import type { SvgElement } from './tree';
import { lengthIn, lengthOf, numbersIn } from './values';

export type Viewport = { readonly width: number; readonly height: number };

const diagonal = (v: Viewport): number => Math.hypot(v.width, v.height) / Math.SQRT2;

export type Outlined = { readonly paths: readonly Path[]; readonly damaged: boolean };

const sound = (paths: readonly Path[]): Outlined => ({ paths, damaged: false });
const NOTHING = sound([]);

/** The outline of a basic shape or path; null when the element is none. */
export function outlineOf(element: SvgElement, view: Viewport): Outlined | null {
  switch (element.name) {
    case 'path':
      return pathOf(element.attributes.get('d') ?? '');
    case 'rect':
      return rectangle(element, view);
    case 'circle': {
      const r = lengthOf(element, 'r', diagonal(view));
      return ellipse(element, view, r, r);
    }
    case 'ellipse': {
      const rx = lengthIn(element.attributes.get('rx'), view.width);
      const ry = lengthIn(element.attributes.get('ry'), view.height);
      return ellipse(element, view, rx ?? ry ?? 0, ry ?? rx ?? 0);
    }
    case 'line': {
      const [x1, y1] = [lengthOf(element, 'x1', view.width), lengthOf(element, 'y1', view.height)];
      const [x2, y2] = [lengthOf(element, 'x2', view.width), lengthOf(element, 'y2', view.height)];
      return sound([{ segments: [line(x1, y1, x2, y2)], closed: false }]);
    }
    case 'polyline':
    case 'polygon': {
      const n = numbersIn(element.attributes.get('points') ?? '');
      const points: (readonly [number, number])[] = [];
      for (let i = 0; i + 1 < n.length; i += 2) points.push([n[i] as number, n[i + 1] as number]);
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

function rectangle(element: SvgElement, view: Viewport): Outlined {
  const [x, y] = [lengthOf(element, 'x', view.width), lengthOf(element, 'y', view.height)];
  const [w, h] = [lengthOf(element, 'width', view.width), lengthOf(element, 'height', view.height)];
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

function ellipse(element: SvgElement, view: Viewport, rx: number, ry: number): Outlined {
  if (!(rx > 0 && ry > 0)) return NOTHING;
  const [cx, cy] = [lengthOf(element, 'cx', view.width), lengthOf(element, 'cy', view.height)];
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

/** Path data; a fault in it ends it there, what came before is drawn (SVG 1.1, F.2). */
export function pathOf(data: string): Outlined {
  const parsed = svgpath(data);
  const damaged = (parsed as { err?: string }).err !== '' && (parsed as { err?: string }).err !== undefined;
  const paths: Path[] = [];
  let segments: Segment[] = [];
  let start = { x: 0, y: 0 };
  let at = { x: 0, y: 0 };
  const finish = (closed: boolean) => {
    if (segments.length > 0) paths.push({ segments, closed });
    segments = [];
  };
  const push = (s: Segment) => {
    if (!isPoint(s)) segments.push(s);
    at = { x: s.x1, y: s.y1 };
  };
  parsed
    .abs()
    .unshort()
    .iterate((raw) => {
      const [command, ...n] = raw as [string, ...number[]];
      const [p, q, r, s, t, u, v] = n as [number, number, number, number, number, number, number];
      switch (command) {
        case 'M':
          finish(false);
          start = { x: p, y: q };
          at = start;
          break;
        case 'L':
          push(line(at.x, at.y, p, q));
          break;
        case 'H':
          push(line(at.x, at.y, p, at.y));
          break;
        case 'V':
          push(line(at.x, at.y, at.x, p));
          break;
        case 'Q':
          push(quadratic(at.x, at.y, p, q, r, s));
          break;
        case 'C':
          push(cubic(at.x, at.y, p, q, r, s, t, u));
          break;
        case 'A':
          for (const piece of ellipticalArc(at.x, at.y, p, q, r, s !== 0, t !== 0, u, v)) push(piece);
          at = { x: u, y: v };
          break;
        case 'Z':
          if (at.x !== start.x || at.y !== start.y) push(line(at.x, at.y, start.x, start.y));
          finish(true);
          at = start;
          break;
      }
    });
  finish(false);
  return { paths, damaged };
}

function isPoint(s: Segment): boolean {
  if (s.x0 !== s.x1 || s.y0 !== s.y1) return false;
  if (s.kind === 'line') return true;
  if (s.kind === 'arc') return s.sweep === 0;
  const still = s.ax === s.x0 && s.ay === s.y0;
  return s.kind === 'quadratic' ? still : still && s.bx === s.x0 && s.by === s.y0;
}

/** An arc by its ends (SVG 1.1, F.6.5): one true arc on a circle, cubics on an ellipse. */
function ellipticalArc(
  x0: number,
  y0: number,
  radiusX: number,
  radiusY: number,
  turn: number,
  large: boolean,
  clockwise: boolean,
  x1: number,
  y1: number,
): readonly Segment[] {
  let [rx, ry] = [Math.abs(radiusX), Math.abs(radiusY)];
  if (x0 === x1 && y0 === y1) return [];
  if (rx === 0 || ry === 0) return [line(x0, y0, x1, y1)];
  const angle = rx === ry ? 0 : turn;
  const phi = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const hx = (cos * (x0 - x1) + sin * (y0 - y1)) / 2;
  const hy = (-sin * (x0 - x1) + cos * (y0 - y1)) / 2;
  const reach = (hx / rx) ** 2 + (hy / ry) ** 2;
  if (reach > 1) {
    rx *= Math.sqrt(reach);
    ry *= Math.sqrt(reach);
  }
  const [ux, uy] = [hx / rx, hy / ry];
  const apart = ux * ux + uy * uy;
  const k = (large === clockwise ? -1 : 1) * Math.sqrt(Math.max(0, 1 - apart) / apart);
  // Centre on the unit circle's axes.
  const [cx, cy] = [k * uy, -k * ux];
  const from = Math.atan2(uy - cy, ux - cx);
  let sweep = Math.atan2(-uy - cy, -ux - cx) - from;
  if (clockwise && sweep < 0) sweep += 2 * Math.PI;
  if (!clockwise && sweep > 0) sweep -= 2 * Math.PI;
  if (sweep === 0) return [line(x0, y0, x1, y1)];
  const ellipseMatrix: Matrix = compose(scaling(rx, ry), rotation(angle));
  const middle = { x: (x0 + x1) / 2 + cos * cx * rx - sin * cy * ry, y: (y0 + y1) / 2 + sin * cx * rx + cos * cy * ry };
  const pieces = transformSegment(
    arcAbout(0, 0, 1, from, sweep),
    compose(ellipseMatrix, translation(middle.x, middle.y)),
  );
  return pieces.map((piece, i) =>
    withEnds(
      piece,
      i === 0 ? { x: x0, y: y0 } : { x: piece.x0, y: piece.y0 },
      i === pieces.length - 1 ? { x: x1, y: y1 } : { x: piece.x1, y: piece.y1 },
    ),
  );
}
