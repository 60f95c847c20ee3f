/** Reading back the DXF we write: a table of layers, then polylines with bulges, circles and points; y upwards, its numbers in mm or inches. */
import {
  NotAsWritten,
  numberOf,
  type ReadBack,
  type ReadItem,
  type ReadLayer,
  type ReadPiece,
  textOf,
} from './read-back';

type Tag = { code: number; value: string };

/** Tags of a file one by one, from a place on. */
class Tags {
  constructor(
    private readonly text: string,
    private at = 0,
  ) {}

  /** The next tag; null at the end. */
  next(): Tag | null {
    if (this.at >= this.text.length) return null;
    const code = numberOf(this.line().trim());
    return { code, value: this.line() };
  }

  private line(): string {
    const end = this.text.indexOf('\r\n', this.at);
    if (end < 0) throw new NotAsWritten('a line does not end');
    const line = this.text.slice(this.at, end);
    this.at = end + 2;
    return line;
  }
}

const END = '  0\r\nEOF\r\n';

/** What a DXF says of its unit, and how many mm that is. */
const UNITS = {
  mm: { says: '  9\r\n$INSUNITS\r\n 70\r\n4\r\n', mm: 1 },
  in: { says: '  9\r\n$INSUNITS\r\n 70\r\n1\r\n', mm: 25.4 },
} as const;

/**
 * The bytes of a DXF, whose numbers are to be in a unit, as what is drawn in it; `NotAsWritten` where they are none of ours. What is
 * given back is in mm.
 */
export function readBackDxf(bytes: Uint8Array, { dxfUnit }: { readonly dxfUnit: keyof typeof UNITS }): ReadBack {
  const text = textOf(bytes);
  const section = (name: string): number => {
    const at = text.indexOf(`  0\r\nSECTION\r\n  2\r\n${name}\r\n`);
    if (at < 0) throw new NotAsWritten(`there is no section ${name}`);
    return at;
  };
  const [header, tables, entities] = [section('HEADER'), section('TABLES'), section('ENTITIES')];
  if (!text.endsWith(END)) throw new NotAsWritten('the end is missing');
  const isR12 = text.indexOf('\r\nAC1009\r\n') > header;
  const unit = UNITS[dxfUnit];
  if (!isR12 && !text.slice(header, tables).includes(unit.says)) throw new NotAsWritten(`the unit is not ${dxfUnit}`);
  const layers = layersOf(new Tags(text, tables));
  const layerOf = new Map(layers.map(({ name }, i) => [name, i]));
  return { head: { page: null, layers }, items: inMm(itemsOf(new Tags(text, entities), layerOf), unit.mm) };
}

/** Layers of the table but for 0, which every file has. */
function layersOf(tags: Tags): ReadLayer[] {
  const layers: { name: string; colour: string | null; lineMm: null }[] = [];
  let isLayer = false;
  for (let tag = tags.next(); tag; tag = tags.next()) {
    if (tag.code === 0) {
      if (tag.value === 'ENDSEC') break;
      isLayer = tag.value === 'LAYER';
      if (isLayer) layers.push({ name: '', colour: null, lineMm: null });
      continue;
    }
    const layer = layers[layers.length - 1];
    if (!isLayer || !layer) continue;
    if (tag.code === 2) layer.name = tag.value;
    if (tag.code === 420) layer.colour = `#${numberOf(tag.value).toString(16).padStart(6, '0')}`;
  }
  if (layers[0]?.name !== '0') throw new NotAsWritten('the layer 0 is missing');
  return layers.slice(1);
}

/** What is drawn, so many times as large. */
function* inMm(items: Iterable<ReadItem>, mm: number): Generator<ReadItem> {
  for (const item of items) {
    if (mm === 1) yield item;
    else if (item.kind === 'dot')
      yield { ...item, x: item.x * mm, y: item.y * mm, r: item.r === null ? null : item.r * mm };
    else
      yield {
        ...item,
        paths: item.paths.map((path) => ({
          ...path,
          x: path.x * mm,
          y: path.y * mm,
          pieces: path.pieces.map((piece) => ({ ...piece, x: piece.x * mm, y: piece.y * mm })),
        })),
      };
  }
}

type Entity = { kind: string; layer: string; flags: number; values: Map<number, number>; vertices: Vertex[] };
type Vertex = { x: number; y: number; bulge: number };

function* itemsOf(tags: Tags, layerOf: ReadonlyMap<string, number>): Generator<ReadItem> {
  let entity: Entity | null = null;
  let inVertex = false;
  tags.next();
  tags.next();
  for (let tag = tags.next(); ; tag = tags.next()) {
    if (!tag) throw new NotAsWritten('the section does not end');
    const { code, value } = tag;
    if (code === 0) {
      inVertex = value === 'VERTEX';
      if (inVertex) {
        entity?.vertices.push({ x: 0, y: 0, bulge: 0 });
        continue;
      }
      if (entity) yield itemOf(entity, layerOf);
      if (value === 'ENDSEC') return;
      entity = value === 'SEQEND' ? null : { kind: value, layer: '', flags: 0, values: new Map(), vertices: [] };
      continue;
    }
    if (!entity || (inVertex && code === 8)) continue;
    if (code === 8) entity.layer = value;
    else if (code === 70) entity.flags = numberOf(value);
    else if (code === 90 || (code >= 10 && code <= 42)) put(entity, inVertex, code, numberOf(value));
  }
}

/** Puts a number where it belongs: to the vertex that is being read, or to the entity. */
function put({ kind, values, vertices }: Entity, inVertex: boolean, code: number, value: number): void {
  // All lies in one plane, and a polyline of R12 says so itself.
  if (value !== 0 && (code === 30 || (kind === 'POLYLINE' && !inVertex && code <= 30)))
    throw new NotAsWritten('something lies above the sheet');
  if (kind === 'LWPOLYLINE' && code === 10) vertices.push({ x: value, y: 0, bulge: 0 });
  const vertex = inVertex || kind === 'LWPOLYLINE' ? vertices[vertices.length - 1] : undefined;
  if (!vertex || code === 90) values.set(code, value);
  else if (code === 10) vertex.x = value;
  else if (code === 20) vertex.y = value;
  else if (code === 42) vertex.bulge = value;
}

function itemOf(
  { kind, layer: name, flags, values, vertices }: Entity,
  layerOf: ReadonlyMap<string, number>,
): ReadItem {
  const layer = layerOf.get(name);
  if (layer === undefined) throw new NotAsWritten(`there is no layer “${name}”`);
  const value = (code: number) => values.get(code) ?? Number.NaN;
  if (kind === 'POINT') return { kind: 'dot', layer, x: value(10), y: value(20), r: null };
  if (kind === 'CIRCLE') return { kind: 'dot', layer, x: value(10), y: value(20), r: value(40) };
  const first = vertices[0];
  if ((kind !== 'POLYLINE' && kind !== 'LWPOLYLINE') || !first || vertices.length < 2)
    throw new NotAsWritten(`“${kind}” is no path`);
  if (kind === 'LWPOLYLINE' && value(90) !== vertices.length) throw new NotAsWritten('vertices are missing');
  const closed = flags === 1;
  const ends = closed ? [...vertices.slice(1), first] : vertices.slice(1);
  const pieces = ends.map(({ x, y }, i): ReadPiece => {
    const { bulge } = vertices[i] as Vertex;
    return bulge === 0 ? { kind: 'line', x, y } : { kind: 'arc', x, y, sweep: 4 * Math.atan(bulge) };
  });
  return { kind: 'path', layer, filled: false, paths: [{ x: first.x, y: first.y, pieces, closed }] };
}
