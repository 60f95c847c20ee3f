/**
 * DXF at true size in millimetres or inches: every path a closed polyline of lines and arcs, a layer per operation.
 * R12 (AC1009) has POLYLINE and numbered colours only; 2000 (AC1015) and 2007 (AC1021) have LWPOLYLINE, and 2007 true
 * colour and UTF-8. Group codes as in the published DXF reference.
 */
import { pathToArcs } from '../geometry/arcs';
import { drawnPaths } from '../geometry/drawable';
import type { Path } from '../geometry/path';
import { EMPTY_BOX, isEmptyBox, type Point, uniteBoxes } from '../geometry/point';
import { boxOf } from '../geometry/segment-measures';
import { type Drawing, distinctNames, type FormatToWrite, layerWords, rgbOf, type WriteSettings } from './drawing';
import { nearestColourIndex } from './dxf-colour';
import { DxfFile, type DxfVersion, real, type Tag, xyz } from './dxf-file';
import { blocks, type LayerEntry, objects, tables } from './dxf-structure';
import { readBackDxf } from './read-back/dxf';

export type { DxfVersion } from './dxf-file';

const ACADVER: Readonly<Record<DxfVersion, string>> = { R12: 'AC1009', '2000': 'AC1015', '2007': 'AC1021' };

type Vertex = { readonly x: number; readonly y: number; readonly bulge: number };

function verticesOf(path: Path, tolerance: number, inUnit: (mm: number) => number): Vertex[] {
  const pieces = pathToArcs(path, tolerance);
  const vertices = pieces.map((s) => ({ x: s.x0, y: s.y0, bulge: s.kind === 'arc' ? Math.tan(s.sweep / 4) : 0 }));
  const last = pieces[pieces.length - 1];
  if (!path.closed && last) vertices.push({ x: last.x1, y: last.y1, bulge: 0 });
  return vertices.map(({ x, y, bulge }) => ({ x: inUnit(x), y: inUnit(y), bulge }));
}

function polyline(file: DxfFile, layer: string, vertices: readonly Vertex[], closed: boolean): Tag[] {
  const bulge = (v: Vertex): Tag[] => (Math.abs(v.bulge) > 1e-12 ? [[42, real(v.bulge)]] : []);
  if (file.r12)
    return [
      [0, 'POLYLINE'],
      [8, layer],
      [66, 1],
      ...xyz(10, 0, 0),
      [70, closed ? 1 : 0],
      ...vertices.flatMap((v): Tag[] => [[0, 'VERTEX'], [8, layer], ...xyz(10, v.x, v.y), ...bulge(v)]),
      [0, 'SEQEND'],
      [8, layer],
    ];
  return [
    [0, 'LWPOLYLINE'],
    [5, file.nextHandle()],
    [330, '1F'],
    [100, 'AcDbEntity'],
    [8, layer],
    [100, 'AcDbPolyline'],
    [90, vertices.length],
    [70, closed ? 1 : 0],
    ...vertices.flatMap((v): Tag[] => [[10, real(v.x)], [20, real(v.y)], ...bulge(v)]),
  ];
}

/** A circle, or a point. */
function dot(file: DxfFile, layer: string, { x, y }: Point, r: number | null): Tag[] {
  const kind = r === null ? 'POINT' : 'CIRCLE';
  const owner: Tag[] = file.r12
    ? [[8, layer]]
    : [
        [5, file.nextHandle()],
        [330, '1F'],
        [100, 'AcDbEntity'],
        [8, layer],
        [100, r === null ? 'AcDbPoint' : 'AcDbCircle'],
      ];
  return [[0, kind], ...owner, ...xyz(10, x, y), ...(r === null ? [] : [[40, real(r)] as Tag])];
}

const section = (name: string, tags: readonly Tag[]): Tag[] => [[0, 'SECTION'], [2, name], ...tags, [0, 'ENDSEC']];

const MM_PER = { mm: 1, in: 25.4 } as const;

/** A day as DXF has it: the number of the Julian day that begins at noon before it, and half a day. */
const julianDay = (date: string): number => Date.parse(`${date}T00:00:00Z`) / 86_400_000 + 2_440_587.5;

/**
 * The drawing as DXF text, its numbers in the unit. Filled areas are written as their closed outlines. Curves stray by the tolerance of
 * their layer. R12 has no place to say the unit: there it is as agreed.
 */
export function writeDxf(drawing: Drawing, version: DxfVersion, unit: WriteSettings['dxfUnit']): string {
  // Curves become arcs in mm, in which what is near enough is known; only what is written is in the unit.
  const inUnit = (mm: number) => mm / MM_PER[unit];
  const [width, height] = [inUnit(drawing.width), inUnit(drawing.height)];
  const file = new DxfFile(version);
  const names = distinctNames(drawing.layers.map((layer) => file.layerName(layer.name)));
  const layers: LayerEntry[] = [
    { name: '0', index: 7, rgb: null },
    ...drawing.layers.map((layer, i) => {
      const [r, g, b] = rgbOf(layer.colour);
      return {
        name: (names[i] as string).replace(/ (?=\d+$)/, file.r12 ? '_' : ' '),
        index: nearestColourIndex(layer.colour),
        rgb: version === '2007' ? (r << 16) | (g << 8) | b : null,
      };
    }),
  ];
  let extents = EMPTY_BOX;
  const entities = drawing.layers.flatMap((layer, i) =>
    layer.drawn.flatMap((d) => {
      const { name } = layers[i + 1] as LayerEntry;
      if (d.kind === 'dot') {
        extents = uniteBoxes(extents, d.box);
        return dot(file, name, { x: inUnit(d.at.x), y: inUnit(d.at.y) }, d.r === null ? null : inUnit(d.r));
      }
      return drawnPaths(d).flatMap((path) => {
        const vertices = verticesOf(path, layer.tolerance, inUnit);
        if (vertices.length < 2) return [];
        extents = uniteBoxes(extents, boxOf(path.segments));
        return polyline(file, name, vertices, path.closed);
      });
    }),
  );
  const tableTags = tables(file, layers, width, height);
  const box = isEmptyBox(extents) ? { minX: 0, minY: 0, maxX: drawing.width, maxY: drawing.height } : extents;
  const header: Tag[] = [
    [9, '$ACADVER'],
    [1, ACADVER[version]],
    ...(file.r12
      ? []
      : ([
          [9, '$DWGCODEPAGE'],
          [3, 'ANSI_1252'],
        ] as Tag[])),
    ...(drawing.date
      ? ([
          [9, '$TDCREATE'],
          [40, real(julianDay(drawing.date))],
        ] as Tag[])
      : []),
    [9, '$INSBASE'],
    ...xyz(10, 0, 0),
    [9, '$EXTMIN'],
    ...xyz(10, inUnit(box.minX), inUnit(box.minY)),
    [9, '$EXTMAX'],
    ...xyz(10, inUnit(box.maxX), inUnit(box.maxY)),
    [9, '$LIMMIN'],
    ...xyz(10, 0, 0).slice(0, 2),
    [9, '$LIMMAX'],
    ...xyz(10, width, height).slice(0, 2),
    ...(file.r12
      ? []
      : ([
          [9, '$MEASUREMENT'],
          [70, unit === 'in' ? 0 : 1],
          [9, '$INSUNITS'],
          [70, unit === 'in' ? 1 : 4],
          [9, '$HANDSEED'],
          [5, file.nextHandle()],
        ] as Tag[])),
  ];
  const all: Tag[] = [
    ...section('HEADER', header),
    ...(file.r12 ? [] : section('CLASSES', [])),
    ...section('TABLES', tableTags),
    ...section('BLOCKS', file.r12 ? [] : blocks()),
    ...section('ENTITIES', entities),
    ...(file.r12 ? [] : section('OBJECTS', objects(width, height))),
    // Comments at the end disturb no reader.
    ...drawing.layers.flatMap((layer, i) =>
      layerWords({ ...layer, name: (layers[i + 1] as LayerEntry).name }).flatMap((words) =>
        file.comments(words).map((line): Tag => [999, line]),
      ),
    ),
    [0, 'EOF'],
  ];
  return all.map(([code, value]) => `${String(code).padStart(3)}\r\n${value}\r\n`).join('');
}

/** Writing DXF. */
export const dxfWriter: FormatToWrite<'dxf'> = {
  id: 'dxf',
  word: 'DXF',
  ending: 'dxf',
  type: 'application/dxf',
  // Lines of a DXF have no width, and the work's lower left corner is its origin.
  frame: ({ page }) => ({ page, origin: 'corner', roomMm: 0 }),
  readBack: readBackDxf,
  keeps: { curves: false, areas: false, names: 'cut', circles: 'circles', gridMm: null },
  write: (drawing, { dxf, dxfUnit }) => new TextEncoder().encode(writeDxf(drawing, dxf, dxfUnit)),
};
