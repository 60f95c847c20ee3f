/** Shapes whose outlines are known, to be made into pictures: letters of faces that ship and of some that do not, and emblems. */
import { readdirSync, readFileSync } from 'node:fs';
import Flatbush from 'flatbush';
import { diskFaces } from '../../src/cli/typefaces';
import { readDrawing } from '../../src/core/formats/read';
import { flattenPath, type Path, regionArea, regionBox, transformRegion } from '../../src/core/geometry/path';
import { boxHeight, boxWidth, IDENTITY, type Point, rotation } from '../../src/core/geometry/point';
import { spanOf, tangentAt } from '../../src/core/geometry/segment';
import { layoutLettering } from '../../src/core/lettering/layout';
import { regionOf } from '../../src/core/prepare/closing/region';
import { weldLettering } from '../../src/core/prepare/weld';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { spec, wasmEngine } from './faces';

/** A shape by its name; its outlines in no particular unit, y upwards. */
export type Outlined = { readonly name: string; readonly paths: readonly Path[] };

const FACES = ['Archivo Black', 'Libre Baskerville', 'Pacifico', 'Alfa Slab One', 'Poppins', 'Dancing Script'];
const lookUp = await diskFaces(FACES.map(faceOfFamily), '/usr/share/fonts/truetype/dejavu');

/** A letter of a face, as a shape. */
export function letterShape(face: string, character: string): Outlined {
  const answer = lookUp(faceOfFamily(face));
  if ('sentence' in answer) throw new Error(`${face}: ${answer.sentence}`);
  const layout = layoutLettering(spec(character), answer.typeface);
  const outlines = weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY });
  return { name: `${face} ${character}`, paths: outlines.map((o) => o.path) };
}

/** Letters that are hard in some way each: tips, serifs, hairlines, bowls, points where strokes meet. */
export const HARD_LETTERS: readonly (readonly [face: string, character: string])[] = [
  ['Archivo Black', 'R'],
  ['Libre Baskerville', 'a'],
  ['Pacifico', 'g'],
  ['Alfa Slab One', 'S'],
  ['Poppins', 'K'],
  ['Dancing Script', 'd'],
  ['DejaVu Serif', '&'],
  ['DejaVu Sans', '8'],
  ['DejaVu Serif', 'E'],
  ['Archivo Black', 'W'],
  ['Libre Baskerville', 'Q'],
  ['DejaVu Sans', '@'],
];

/** Letters of all kinds. */
export const MANY_LETTERS: readonly (readonly [face: string, character: string])[] = [
  'Archivo Black',
  'Libre Baskerville',
  'Pacifico',
  'Alfa Slab One',
  'Poppins',
  'DejaVu Serif',
  'DejaVu Sans',
].flatMap((face) => [...'AGae5'].map((character) => [face, character] as const));

const ICONS = '/usr/share/bootstrap-icons/svg';

/** Filled emblems from a set of icons, every so many of them. */
export function emblems(every: number): Outlined[] {
  const files = readdirSync(ICONS).filter((file) => file.endsWith('-fill.svg'));
  return files.flatMap((file, i) => {
    if (i % every !== 0) return [];
    const reading = readDrawing(new Uint8Array(readFileSync(`${ICONS}/${file}`)));
    if (!reading.ok) return [];
    const areas = reading.found.shapes.map((s) => ({ paths: s.paths, rule: s.fill?.rule ?? ('nonzero' as const) }));
    return [{ name: file, paths: regionOf(wasmEngine, areas) }];
  });
}

/** A shape in pixels, y downwards, with room around it. */
export type Placed = Outlined & { readonly width: number; readonly height: number; readonly area: number };

/** A shape so many pixels large on its longer side, turned by degrees, at an odd place among the pixels. */
export function placedShape({ name, paths }: Outlined, size: number, turn = 0): Placed {
  const turned = transformRegion(paths, rotation(turn));
  const box = regionBox(turned);
  const k = size / Math.max(boxWidth(box), boxHeight(box));
  const margin = Math.ceil(size * 0.12) + 3;
  const matrix = { a: k, b: 0, c: 0, d: -k, e: margin + 0.37 - box.minX * k, f: margin + 0.21 + box.maxY * k };
  const placed = transformRegion(turned, matrix);
  return {
    name,
    paths: placed,
    width: Math.ceil(boxWidth(box) * k + 2 * margin),
    height: Math.ceil(boxHeight(box) * k + 2 * margin),
    area: Math.abs(regionArea(placed)),
  };
}

/** How far a point is from outlines. */
export function distanceFrom(paths: readonly Path[]): (p: Point) => number {
  const chords = paths.flatMap((path) => {
    const points = flattenPath(path, 0.003);
    return points.map((p, i) => [p, points[(i + 1) % points.length] as Point] as const);
  });
  const index = new Flatbush(chords.length);
  for (const [p, q] of chords)
    index.add(Math.min(p.x, q.x), Math.min(p.y, q.y), Math.max(p.x, q.x), Math.max(p.y, q.y));
  index.finish();
  return ({ x, y }) => {
    let best = Infinity;
    for (let reach = 1; best > reach && reach < 1e5; reach *= 4)
      for (const i of index.search(x - reach, y - reach, x + reach, y + reach)) {
        const [p, q] = chords[i] as readonly [Point, Point];
        const [dx, dy] = [q.x - p.x, q.y - p.y];
        const t = Math.max(0, Math.min(1, ((x - p.x) * dx + (y - p.y) * dy) / (dx * dx + dy * dy || 1)));
        best = Math.min(best, Math.hypot(x - p.x - t * dx, y - p.y - t * dy));
      }
    return best;
  };
}

/** Points along outlines, half a pixel apart. */
export const alongPaths = (paths: readonly Path[]): Point[] =>
  paths.flatMap((path) => {
    const points = flattenPath(path, 0.005);
    return points.flatMap((p, i) => {
      const q = points[(i + 1) % points.length] as Point;
      const steps = Math.max(1, Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / 0.5));
      return Array.from({ length: steps }, (_, k) => ({
        x: p.x + ((q.x - p.x) * k) / steps,
        y: p.y + ((q.y - p.y) * k) / steps,
      }));
    });
  });

/** Segments shorter than this, in pixels, are left out where corners are told: files have them where arcs meet. */
const TINY = 0.3;

/** The corners of outlines that turn by more than so many degrees, between sides of at least so many pixels. */
export const cornersAbove = (paths: readonly Path[], degrees: number, sides = 0): Point[] =>
  paths.flatMap((path) => {
    const segments = path.segments.filter((s) => spanOf(s) > TINY);
    return segments.flatMap((s, i) => {
      const before = segments[(i + segments.length - 1) % segments.length] as typeof s;
      const [u, v] = [tangentAt(before, 1), tangentAt(s, 0)];
      const turn = Math.abs(Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y));
      const isLong = Math.min(spanOf(before), spanOf(s)) >= sides;
      return isLong && turn > (degrees * Math.PI) / 180 ? [{ x: s.x0, y: s.y0 }] : [];
    });
  });
