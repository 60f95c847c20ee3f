/**
 * DXF at true size in millimetres: every path a closed polyline of lines and arcs, a layer per operation.
 * R12 (AC1009) has POLYLINE and numbered colours only; 2000 (AC1015) and 2007 (AC1021) have LWPOLYLINE, and 2007 true
 * colour and UTF-8. Group codes as in the published DXF reference.
 */
import { pathToArcs } from '../geometry/arcs';
import { drawnPaths } from '../geometry/drawable';
import type { Path } from '../geometry/path';
import { EMPTY_BOX, isEmptyBox, type Point, uniteBoxes } from '../geometry/point';
import { boxOf } from '../geometry/segment-measures';
import { decimal } from '../units/decimal';
import { type Drawing, distinctNames, type FormatToWrite, rgbOf, scanWords } from './drawing';
import { nearestColourIndex } from './dxf-colour';

/** A release of DXF by its year: R12 knows arcs and polylines only, 2000 and 2007 splines; 2007 is UTF-8. */
export type DxfVersion = 'R12' | '2000' | '2007';

const ACADVER: Readonly<Record<DxfVersion, string>> = { R12: 'AC1009', '2000': 'AC1015', '2007': 'AC1021' };

type Tag = readonly [code: number, value: string | number];

type Vertex = { readonly x: number; readonly y: number; readonly bulge: number };

/** Handles fixed by the structure below; entities count on from FIRST_FREE_HANDLE. */
const FIRST_FREE_HANDLE = 0x100;

const real = (value: number): string => {
  const text = decimal(value, 9);
  return text.includes('.') ? text : `${text}.0`;
};

const xyz = (code: number, x: number, y: number): Tag[] => [
  [code, real(x)],
  [code + 10, real(y)],
  [code + 20, '0.0'],
];

class DxfFile {
  private handle = FIRST_FREE_HANDLE;
  readonly r12: boolean;
  constructor(readonly version: DxfVersion) {
    this.r12 = version === 'R12';
  }

  nextHandle(): string {
    return (this.handle++).toString(16).toUpperCase();
  }

  /** Layer names can't hold some signs at all, before 2007 only ASCII, in R12 no more than 31 of these. */
  layerName(value: string): string {
    const plain = value.replace(/[<>/\\":;?*|=,`\p{Cc}]/gu, '-').trim() || 'Layer';
    if (this.version === '2007') return plain.slice(0, 200);
    const ascii = plain
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .replace(/[^\u0020-\u007e]/g, '_');
    return this.r12 ? ascii.replace(/[^A-Za-z0-9_$-]/g, '_').slice(0, 28) : ascii.slice(0, 200);
  }
}

function verticesOf(path: Path, tolerance: number): Vertex[] {
  const pieces = pathToArcs(path, tolerance);
  const vertices = pieces.map((s) => ({ x: s.x0, y: s.y0, bulge: s.kind === 'arc' ? Math.tan(s.sweep / 4) : 0 }));
  const last = pieces[pieces.length - 1];
  if (!path.closed && last) vertices.push({ x: last.x1, y: last.y1, bulge: 0 });
  return vertices;
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

type LayerEntry = { readonly name: string; readonly index: number; readonly rgb: number | null };

function table(
  file: DxfFile,
  name: string,
  handle: string,
  records: readonly Tag[][],
  extra: readonly Tag[] = [],
): Tag[] {
  const owner: Tag[] = file.r12
    ? []
    : [
        [5, handle],
        [330, '0'],
        [100, 'AcDbSymbolTable'],
      ];
  return [[0, 'TABLE'], [2, name], ...owner, [70, records.length], ...extra, ...records.flat(), [0, 'ENDTAB']];
}

/** The opening tags of a table record: in R12 just its type. */
function record(file: DxfFile, type: string, subclass: string, handle: string, owner: string): Tag[] {
  if (file.r12) return [[0, type]];
  return [
    [0, type],
    [type === 'DIMSTYLE' ? 105 : 5, handle],
    [330, owner],
    [100, 'AcDbSymbolTableRecord'],
    [100, subclass],
  ];
}

function tables(file: DxfFile, layers: readonly LayerEntry[], width: number, height: number): Tag[] {
  const linetype = (name: string, handle: string, text: string): Tag[] => [
    ...record(file, 'LTYPE', 'AcDbLinetypeTableRecord', handle, '5'),
    [2, name],
    [70, 0],
    [3, text],
    [72, 65],
    [73, 0],
    [40, '0.0'],
  ];
  const layer = (entry: LayerEntry, handle: string): Tag[] => [
    ...record(file, 'LAYER', 'AcDbLayerTableRecord', handle, '2'),
    [2, entry.name],
    [70, 0],
    [62, entry.index],
    ...(entry.rgb === null ? [] : ([[420, entry.rgb]] as Tag[])),
    [6, file.r12 ? 'CONTINUOUS' : 'Continuous'],
    ...(file.r12
      ? []
      : ([
          [370, -3],
          [390, 'F'],
        ] as Tag[])),
  ];
  const viewport: Tag[] = [
    ...record(file, 'VPORT', 'AcDbViewportTableRecord', '30', '8'),
    [2, '*ACTIVE'],
    [70, 0],
    [10, '0.0'],
    [20, '0.0'],
    [11, '1.0'],
    [21, '1.0'],
    [12, real(width / 2)],
    [22, real(height / 2)],
    [13, '0.0'],
    [23, '0.0'],
    [14, '10.0'],
    [24, '10.0'],
    [15, '10.0'],
    [25, '10.0'],
    ...xyz(16, 0, 0).slice(0, 2),
    [36, '1.0'],
    ...xyz(17, 0, 0),
    [40, real(Math.max(1, height))],
    [41, real(Math.max(0.01, width / Math.max(1e-9, height)))],
    [42, '50.0'],
    [43, '0.0'],
    [44, '0.0'],
    [50, '0.0'],
    [51, '0.0'],
    [71, 0],
    [72, 100],
    [73, 1],
    [74, 3],
    [75, 0],
    [76, 0],
    [77, 0],
    [78, 0],
  ];
  const style: Tag[] = [
    ...record(file, 'STYLE', 'AcDbTextStyleTableRecord', '11', '3'),
    [2, file.r12 ? 'STANDARD' : 'Standard'],
    [70, 0],
    [40, '0.0'],
    [41, '1.0'],
    [50, '0.0'],
    [71, 0],
    [42, '1.0'],
    [3, 'txt'],
    [4, ''],
  ];
  const linetypes = file.r12
    ? [linetype('CONTINUOUS', '', 'Solid line')]
    : [linetype('ByBlock', '14', ''), linetype('ByLayer', '15', ''), linetype('Continuous', '16', 'Solid line')];
  const base = [
    ...table(file, 'VPORT', '8', [viewport]),
    ...table(file, 'LTYPE', '5', linetypes),
    ...table(
      file,
      'LAYER',
      '2',
      layers.map((entry, i) => layer(entry, i === 0 ? '10' : file.nextHandle())),
    ),
    ...table(file, 'STYLE', '3', [style]),
    ...table(file, 'VIEW', '6', []),
    ...table(file, 'UCS', '7', []),
    ...table(file, 'APPID', '9', [
      [...record(file, 'APPID', 'AcDbRegAppTableRecord', '12', '9'), [2, 'ACAD'], [70, 0]],
    ]),
  ];
  if (file.r12) return base;
  const dimstyle: Tag[] = [...record(file, 'DIMSTYLE', 'AcDbDimStyleTableRecord', '27', 'A'), [2, 'Standard'], [70, 0]];
  const block = (name: string, handle: string, layout: string): Tag[] => [
    ...record(file, 'BLOCK_RECORD', 'AcDbBlockTableRecord', handle, '1'),
    [2, name],
    [340, layout],
  ];
  return [
    ...base,
    ...table(file, 'DIMSTYLE', 'A', [dimstyle], [[100, 'AcDbDimStyleTable']]),
    ...table(file, 'BLOCK_RECORD', '1', [block('*Model_Space', '1F', '22'), block('*Paper_Space', '1B', '1E')]),
  ];
}

function blocks(): Tag[] {
  const block = (name: string, owner: string, begin: string, end: string, paper: boolean): Tag[] => {
    const space: Tag[] = paper ? [[67, 1]] : [];
    return [
      [0, 'BLOCK'],
      [5, begin],
      [330, owner],
      [100, 'AcDbEntity'],
      ...space,
      [8, '0'],
      [100, 'AcDbBlockBegin'],
      [2, name],
      [70, 0],
      ...xyz(10, 0, 0),
      [3, name],
      [1, ''],
      [0, 'ENDBLK'],
      [5, end],
      [330, owner],
      [100, 'AcDbEntity'],
      ...space,
      [8, '0'],
      [100, 'AcDbBlockEnd'],
    ];
  };
  return [...block('*Model_Space', '1F', '20', '21', false), ...block('*Paper_Space', '1B', '1C', '1D', true)];
}

function objects(width: number, height: number): Tag[] {
  const dictionary = (handle: string, owner: string, entries: readonly [string, string][]): Tag[] => [
    [0, 'DICTIONARY'],
    [5, handle],
    [330, owner],
    [100, 'AcDbDictionary'],
    [281, 1],
    ...entries.flatMap(([name, target]): Tag[] => [
      [3, name],
      [350, target],
    ]),
  ];
  const layout = (name: string, handle: string, blockRecord: string, order: number, model: boolean): Tag[] => [
    [0, 'LAYOUT'],
    [5, handle],
    [330, '1A'],
    [100, 'AcDbPlotSettings'],
    [1, ''],
    [2, 'none_device'],
    [4, ''],
    [6, ''],
    ...[40, 41, 42, 43, 44, 45, 46, 47, 48, 49, 140, 141].map((code): Tag => [code, '0.0']),
    [142, '1.0'],
    [143, '1.0'],
    [70, model ? 1024 : 0],
    [72, 1],
    [73, 0],
    [74, 5],
    [7, ''],
    [75, 16],
    [147, '1.0'],
    [148, '0.0'],
    [149, '0.0'],
    [100, 'AcDbLayout'],
    [1, name],
    [70, 1],
    [71, order],
    ...xyz(10, 0, 0).slice(0, 2),
    [11, real(width)],
    [21, real(height)],
    ...xyz(12, 0, 0),
    ...xyz(14, 0, 0),
    ...xyz(15, width, height),
    [146, '0.0'],
    ...xyz(13, 0, 0),
    ...xyz(16, 1, 0),
    ...xyz(17, 0, 1),
    [76, 0],
    [330, blockRecord],
  ];
  return [
    ...dictionary('C', '0', [
      ['ACAD_GROUP', 'D'],
      ['ACAD_LAYOUT', '1A'],
      ['ACAD_PLOTSTYLENAME', 'E'],
    ]),
    ...dictionary('D', 'C', []),
    [0, 'ACDBDICTIONARYWDFLT'],
    [5, 'E'],
    [330, 'C'],
    [100, 'AcDbDictionary'],
    [281, 1],
    [3, 'Normal'],
    [350, 'F'],
    [100, 'AcDbDictionaryWithDefault'],
    [340, 'F'],
    [0, 'ACDBPLACEHOLDER'],
    [5, 'F'],
    [330, 'E'],
    ...dictionary('1A', 'C', [
      ['Layout1', '1E'],
      ['Model', '22'],
    ]),
    ...layout('Layout1', '1E', '1B', 1, false),
    ...layout('Model', '22', '1F', 0, true),
  ];
}

const section = (name: string, tags: readonly Tag[]): Tag[] => [[0, 'SECTION'], [2, name], ...tags, [0, 'ENDSEC']];

/** The drawing as DXF text. Filled areas are written as their closed outlines. Curves stray by the tolerance of their layer. */
export function writeDxf(drawing: Drawing, version: DxfVersion): string {
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
        return dot(file, name, d.at, d.r);
      }
      return drawnPaths(d).flatMap((path) => {
        const vertices = verticesOf(path, layer.tolerance);
        if (vertices.length < 2) return [];
        extents = uniteBoxes(extents, boxOf(path.segments));
        return polyline(file, name, vertices, path.closed);
      });
    }),
  );
  const tableTags = tables(file, layers, drawing.width, drawing.height);
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
    [9, '$INSBASE'],
    ...xyz(10, 0, 0),
    [9, '$EXTMIN'],
    ...xyz(10, box.minX, box.minY),
    [9, '$EXTMAX'],
    ...xyz(10, box.maxX, box.maxY),
    [9, '$LIMMIN'],
    ...xyz(10, 0, 0).slice(0, 2),
    [9, '$LIMMAX'],
    ...xyz(10, drawing.width, drawing.height).slice(0, 2),
    ...(file.r12
      ? []
      : ([
          [9, '$MEASUREMENT'],
          [70, 1],
          [9, '$INSUNITS'],
          [70, 4],
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
    ...(file.r12 ? [] : section('OBJECTS', objects(drawing.width, drawing.height))),
    // Comments at the end disturb no reader.
    ...drawing.layers.flatMap((layer, i): Tag[] => {
      const words = scanWords({ ...layer, name: (layers[i + 1] as LayerEntry).name });
      return words ? [[999, words]] : [];
    }),
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
  write: (drawing, { dxf }) => new TextEncoder().encode(writeDxf(drawing, dxf)),
};
