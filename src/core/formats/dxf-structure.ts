/** What a DXF file holds around its entities: tables, blocks and objects, without which readers refuse it. */
import { type DxfFile, real, type Tag, xyz } from './dxf-file';

/** A layer as its table has it; `rgb` is null where only numbered colours are known. */
export type LayerEntry = { readonly name: string; readonly index: number; readonly rgb: number | null };

function table(
  file: DxfFile,
  name: string,
  {
    handle,
    records,
    extra = [],
  }: { readonly handle: string; readonly records: readonly Tag[][]; readonly extra?: readonly Tag[] | undefined },
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
function record(
  file: DxfFile,
  {
    type,
    subclass,
    handle,
    owner,
  }: { readonly type: string; readonly subclass: string; readonly handle: string; readonly owner: string },
): Tag[] {
  if (file.r12) return [[0, type]];
  return [
    [0, type],
    [type === 'DIMSTYLE' ? 105 : 5, handle],
    [330, owner],
    [100, 'AcDbSymbolTableRecord'],
    [100, subclass],
  ];
}

/** The tables of a file: line types, layers, views, and what else readers insist on. */
export function tables(file: DxfFile, layers: readonly LayerEntry[], width: number, height: number): Tag[] {
  const linetype = (name: string, handle: string, text: string): Tag[] => [
    ...record(file, { type: 'LTYPE', subclass: 'AcDbLinetypeTableRecord', handle, owner: '5' }),
    [2, name],
    [70, 0],
    [3, text],
    [72, 65],
    [73, 0],
    [40, '0.0'],
  ];
  const layer = (entry: LayerEntry, handle: string): Tag[] => [
    ...record(file, { type: 'LAYER', subclass: 'AcDbLayerTableRecord', handle, owner: '2' }),
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
    ...record(file, { type: 'VPORT', subclass: 'AcDbViewportTableRecord', handle: '30', owner: '8' }),
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
    ...record(file, { type: 'STYLE', subclass: 'AcDbTextStyleTableRecord', handle: '11', owner: '3' }),
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
    ...table(file, 'VPORT', { handle: '8', records: [viewport] }),
    ...table(file, 'LTYPE', { handle: '5', records: linetypes }),
    ...table(file, 'LAYER', {
      handle: '2',
      records: layers.map((entry, i) => layer(entry, i === 0 ? '10' : file.nextHandle())),
    }),
    ...table(file, 'STYLE', { handle: '3', records: [style] }),
    ...table(file, 'VIEW', { handle: '6', records: [] }),
    ...table(file, 'UCS', { handle: '7', records: [] }),
    ...table(file, 'APPID', {
      handle: '9',
      records: [
        [
          ...record(file, { type: 'APPID', subclass: 'AcDbRegAppTableRecord', handle: '12', owner: '9' }),
          [2, 'ACAD'],
          [70, 0],
        ],
      ],
    }),
  ];
  if (file.r12) return base;
  const dimstyle: Tag[] = [
    ...record(file, { type: 'DIMSTYLE', subclass: 'AcDbDimStyleTableRecord', handle: '27', owner: 'A' }),
    [2, 'Standard'],
    [70, 0],
  ];
  const block = (name: string, handle: string, layout: string): Tag[] => [
    ...record(file, { type: 'BLOCK_RECORD', subclass: 'AcDbBlockTableRecord', handle, owner: '1' }),
    [2, name],
    [340, layout],
  ];
  return [
    ...base,
    ...table(file, 'DIMSTYLE', { handle: 'A', records: [dimstyle], extra: [[100, 'AcDbDimStyleTable']] }),
    ...table(file, 'BLOCK_RECORD', {
      handle: '1',
      records: [block('*Model_Space', '1F', '22'), block('*Paper_Space', '1B', '1E')],
    }),
  ];
}

/** The blocks of a file: model and paper space, both empty. */
export function blocks(): Tag[] {
  const block = (
    name: string,
    {
      owner,
      begin,
      end,
      paper,
    }: { readonly owner: string; readonly begin: string; readonly end: string; readonly paper: boolean },
  ): Tag[] => {
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
  return [
    ...block('*Model_Space', { owner: '1F', begin: '20', end: '21', paper: false }),
    ...block('*Paper_Space', { owner: '1B', begin: '1C', end: '1D', paper: true }),
  ];
}

/** The objects of a file: its dictionaries and layouts. */
export function objects(width: number, height: number): Tag[] {
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
  const layout = (
    name: string,
    {
      handle,
      blockRecord,
      order,
      model,
    }: { readonly handle: string; readonly blockRecord: string; readonly order: number; readonly model: boolean },
  ): Tag[] => [
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
    ...layout('Layout1', { handle: '1E', blockRecord: '1B', order: 1, model: false }),
    ...layout('Model', { handle: '22', blockRecord: '1F', order: 0, model: true }),
  ];
}
