/** Reading DXF, text or binary, R12 and later, into the neutral drawing. */
import { transformPath } from '../../geometry/path';
import { compose, scaling } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { colourOfIndex } from '../dxf-colour';
import {
  Finder,
  type ReadDrawing,
  type Reading,
  ReadingStops,
  type ReadProgress,
  type ReadStroke,
  type SizeClaim,
} from '../read-drawing';
import { Entity } from './entity';
import { drawEntity } from './outlines';
import { after, movedSpace, objectSpace, place, type Space, scaledSpace, turnedSpace, UP, WORLD } from './space';
import { binaryTags, decoderFor, isBinaryDxf, type TagSource, textTags } from './tags';
import { wordsOf } from './words';

const INCH = 25.4;

/** What the numbers of $INSUNITS stand for. */
const UNITS: ReadonlyMap<number, readonly [name: string, mm: number]> = new Map([
  [1, ['inches', INCH]],
  [2, ['feet', 12 * INCH]],
  [4, ['millimetres', 1]],
  [5, ['centimetres', 10]],
  [6, ['metres', 1000]],
  [8, ['microinches', INCH / 1e6]],
  [9, ['thousandths of an inch', INCH / 1000]],
  [10, ['yards', 36 * INCH]],
  [13, ['micrometres', 0.001]],
  [14, ['decimetres', 100]],
]);

const RELEASES: Readonly<Record<string, string>> = {
  AC1009: 'R12',
  AC1012: 'R13',
  AC1014: 'R14',
  AC1015: '2000',
  AC1018: '2004',
  AC1021: '2007',
  AC1024: '2010',
  AC1027: '2013',
  AC1032: '2018',
};

/** Entities that are not outlines, in the user's words. */
const NOT_OUTLINES: Readonly<Record<string, string>> = {
  DIMENSION: 'dimensions',
  ARC_DIMENSION: 'dimensions',
  LEADER: 'leaders',
  MULTILEADER: 'leaders',
  MLEADER: 'leaders',
  XLINE: 'endless lines',
  RAY: 'endless lines',
  IMAGE: 'pictures',
  WIPEOUT: 'covers',
  '3DSOLID': 'solids',
  REGION: 'solids and regions',
  BODY: 'solids',
  SURFACE: 'surfaces',
  MESH: 'meshes',
  POLYLINE: 'meshes',
  MLINE: 'multiple lines',
  ACAD_TABLE: 'tables',
  TOLERANCE: 'tolerance frames',
  OLE2FRAME: 'pieces of other documents',
  SHAPE: 'shapes from shape files',
};
/** Entities that mean nothing here. */
const SILENT = new Set(['VIEWPORT', 'ATTDEF', 'SEQEND', 'ENDBLK', 'LIGHT', 'SUN']);

/** How far fitted curves may stray, in mm. */
const FIT_MM = 0.001;

type LayerEntry = { readonly colour: string; readonly hidden: boolean };
type Block = {
  readonly base: readonly [number, number, number];
  readonly entities: Entity[];
  readonly external: boolean;
};
/** What an entity takes over from the insert it is drawn by. */
type Owner = { readonly layer: string; readonly colour: string };

const OWN_COLOUR: Owner = { layer: '0', colour: '#000000' };
const BY_BLOCK = 0;
const BY_LAYER = 256;

/**
 * Reads a DXF file, text or binary, of any release. Never throws for what is in the file; `progress` hears shares
 * from 0 to 1.
 */
export function readDxf(bytes: Uint8Array, progress: ReadProgress = () => {}): Reading {
  const isBinary = isBinaryDxf(bytes);
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, HEAD_BYTES));
  // In a binary file words end in a zero, so that the same search does.
  const version = /\$ACADVER[\s\0]+1?[\s\0]*\0?(AC\d{4})/.exec(head)?.[1] ?? 'AC1009';
  const page = /\$DWGCODEPAGE[\s\0]+3?[\s\0]*\0?(\w+)/.exec(head)?.[1] ?? '';
  if (!isBinary && !/^\uFEFF?(?:ï»¿)?\s*(?:999[^\S\n]*\n[^\n]*\n\s*)*0\s*\r?\n\s*SECTION/.test(head))
    return { ok: false, sentence: 'This is no DXF drawing: it does not begin with a section.' };
  const decoder = decoderFor(version, page);
  const tags = isBinary ? binaryTags(bytes, decoder) : textTags(decoder.decode(bytes).replace(/^\uFEFF/, ''));
  const reader = new DxfReader(tags, progress);
  try {
    reader.read();
  } catch (stop) {
    if (!(stop instanceof ReadingStops)) throw stop;
    reader.finder.breaksOff(stop.message);
  }
  progress(1);
  const release = RELEASES[version] ?? '';
  return { ok: true, found: reader.found(`DXF${release ? ` ${release}` : ''}${isBinary ? ', binary' : ''}`) };
}

const DRAWN_SECTIONS = new Set(['TABLES', 'BLOCKS', 'ENTITIES']);
/** Codes that say nothing about a shape: handles, owners, class names, line types, data of other programs. */
const IDLE = new Set([5, 6, 39, 48, 100, 102, 105, 330, 347, 348, 360, 370, 390, 410]);
const FROM_OTHERS = 1000;
const IDLE_CODES = Uint8Array.from({ length: FROM_OTHERS }, (_, code) => (IDLE.has(code) ? 1 : 0));
const isIdle = (code: number): boolean => code >= FROM_OTHERS || IDLE_CODES[code] === 1;

/** How much of a file is searched for its version. */
const HEAD_BYTES = 65_536;

class DxfReader {
  readonly finder = new Finder();
  private readonly layers = new Map<string, LayerEntry>();
  private readonly blocks = new Map<string, Block>();
  private readonly hairlines = new Map<string, ReadStroke>();
  /** What an entity lies within that lies in no block. */
  private readonly inNone: ReadonlySet<Block> = new Set();
  private insertUnits = 0;
  private used = 0;
  private entities = 0;
  private sawEnd = false;
  private section = '';
  /** Whether what is in the section is drawn, or says how something is. */
  private isDrawn = false;
  /** The variable of the header that was named last. */
  private variable = '';
  /** What has begun with a code 0, and its tags so far; null where nothing has. What is to be kept is copied. */
  private begun: Entity | null = null;
  private readonly current = new Entity('');
  /** The block that is being read. */
  private block: Block | null = null;
  /** An entity that others belong to, as long as they may come. */
  private open: Entity | null = null;
  /** Inserts of blocks that were not known when they came. */
  private readonly later: Entity[] = [];

  constructor(
    private readonly tags: TagSource,
    private readonly progress: ReadProgress,
  ) {}

  found(format: string): ReadDrawing {
    return this.finder.found(format, this.claim, null);
  }

  /** Millimetres of one unit of the drawing. */
  private get mmPerUnit(): number {
    return UNITS.get(this.insertUnits)?.[1] ?? 1;
  }

  private get claim(): SizeClaim {
    const [unit, mmPerUnit] = UNITS.get(this.insertUnits) ?? ['millimetres', 1];
    return { unit, mmPerUnit, stated: UNITS.has(this.insertUnits), measure: 'units' };
  }

  /** Walks the sections. Inserts of blocks that are not known yet wait for the end. */
  read(): void {
    const { tags } = this;
    let count = 0;
    while (!this.sawEnd && tags.next()) {
      if ((++count & 0xffff) === 0) this.progress(tags.share());
      if (tags.code === 0) this.begin((tags.text ?? '').trim());
      else this.take(tags.code, tags.number, tags.text);
    }
    // What is whole in a file that breaks off is drawn; of a polyline nobody knows how it went on.
    if (!this.sawEnd) {
      const isCut = this.open?.type === 'POLYLINE';
      if (isCut) this.open = null;
      const isInEntity = this.begun !== null && DRAWN_SECTIONS.has(this.section) && this.section !== 'TABLES';
      this.takeDamage(isCut || isInEntity);
    }
    this.finishOpen();
    for (const e of this.later) this.draw(e, WORLD, OWN_COLOUR, this.inNone);
  }

  /** Code 0: what came before is complete, and something of a type begins. */
  private begin(type: string): void {
    this.finishBegun();
    if (type === 'EOF') {
      this.sawEnd = true;
      return;
    }
    if (type === 'ENDSEC') {
      this.finishOpen();
      this.section = '';
      this.isDrawn = false;
    }
    this.current.begin(type);
    this.begun = this.current;
  }

  /** Any other code: the name of a section, a variable of the header, or a tag of what has begun. */
  private take(code: number, number: number, text: string | null): void {
    const { begun, section } = this;
    if (code === 2 && begun?.type === 'SECTION') {
      this.section = (text ?? '').trim();
      this.isDrawn = DRAWN_SECTIONS.has(this.section);
      this.begun = null;
    } else if (this.isDrawn) {
      if (begun && !isIdle(code)) begun.add(code, number, text);
    } else if (section === 'HEADER') {
      if (code === 9) this.variable = (text ?? '').trim();
      else if (this.variable === '$INSUNITS' && code === 70) this.insertUnits = number;
    }
  }

  /** What had begun is complete: a layer, the start or end of a block, a part of the open entity, or an entity. */
  private finishBegun(): void {
    const { begun, section } = this;
    if (!begun) return;
    const e = begun;
    this.begun = null;
    if (section === 'TABLES' && e.type === 'LAYER') this.takeLayer(e);
    if (section !== 'BLOCKS' && section !== 'ENTITIES') return;
    if (e.type === 'BLOCK') {
      const isExternal = (e.number(70, 0) & 4) !== 0;
      this.block = { base: [e.number(10, 0), e.number(20, 0), e.number(30, 0)], entities: [], external: isExternal };
      this.blocks.set(e.words(2).toUpperCase(), this.block);
    } else if (e.type === 'ENDBLK') {
      this.finishOpen();
      this.block = null;
    } else if (this.open && (e.type === 'VERTEX' || e.type === 'ATTRIB')) this.open.parts.push(e.copy());
    else {
      this.finishOpen();
      if (e.type === 'POLYLINE' || (e.type === 'INSERT' && e.number(66, 0) === 1)) this.open = e.copy();
      else if (e.type !== 'SEQEND') this.keep(e);
    }
  }

  /** An entity that others belonged to is complete. */
  private finishOpen(): void {
    const done = this.open;
    this.open = null;
    if (done) this.keep(done);
  }

  /** A whole entity: kept in its block, or drawn. */
  private keep(e: Entity): void {
    if (++this.entities > LIMITS.drawnElements)
      throw new ReadingStops(
        `The drawing has more than ${LIMITS.drawnElements.toLocaleString('en')} entities; what comes after them was left out.`,
      );
    if (this.section === 'BLOCKS') this.block?.entities.push(e.copy());
    else if (e.type === 'INSERT' && !this.blocks.has(e.words(2).toUpperCase())) this.later.push(e.copy());
    else this.draw(e, WORLD, OWN_COLOUR, this.inNone);
  }

  private takeDamage(inEntity: boolean): void {
    const fault = this.tags.fault ?? 'breaks off before its end';
    this.finder.breaksOff(`The file ${fault}; what came before was read.`);
    if (inEntity) this.finder.unread('shapes cut off by the damage');
  }

  private takeLayer(e: Entity): void {
    const index = e.number(62, 7);
    const isFrozen = (e.number(70, 0) & 1) !== 0;
    const colour = e.has(420) ? trueColour(e.number(420, 0)) : colourOfIndex(Math.abs(index));
    this.layers.set(e.words(2).toUpperCase(), { colour, hidden: index < 0 || isFrozen });
  }

  private draw(e: Entity, space: Space, owner: Owner, within: ReadonlySet<Block>): void {
    if (SILENT.has(e.type)) return;
    if (e.number(67, 0) === 1) {
      this.finder.unread('shapes on layout pages');
      return;
    }
    const name = e.words(8, '0');
    const layer = name === '0' ? owner.layer : name;
    const entry = this.layers.get(layer.toUpperCase());
    if (e.number(60, 0) === 1 || entry?.hidden) {
      this.finder.unread('shapes that are switched off');
      return;
    }
    const colour = this.colourOf(e, entry, owner);
    if (e.type === 'INSERT') {
      this.insert(e, space, { layer, colour }, within);
      return;
    }
    if (e.type === 'TEXT' || e.type === 'MTEXT' || e.type === 'ATTRIB') {
      if (e.type === 'ATTRIB' && (e.number(70, 0) & 1) !== 0) return;
      const { mmPerUnit } = this;
      for (const words of wordsOf(e, space))
        this.finder.text({
          ...words,
          matrix: compose(words.matrix, scaling(mmPerUnit)),
          group: this.finder.groupOf(layer, colour, true),
        });
      return;
    }
    if (e.type === 'POINT') {
      const [x, y] = place(space, e.vector(10, [0, 0, 0]));
      const { mmPerUnit } = this;
      this.finder.point({ x: x * mmPerUnit, y: y * mmPerUnit }, { name: layer, colour });
      return;
    }
    const drawn = drawEntity(e, space, FIT_MM / this.mmPerUnit);
    if (!drawn) {
      this.finder.unread(NOT_OUTLINES[e.type] ?? `entities called “${e.type.slice(0, 40)}”`);
      return;
    }
    if (e.number(43, 0) > 0 || (e.type.endsWith('POLYLINE') && e.number(40, 0) > 0))
      this.finder.unread('widths of lines, read as their middle');
    const some = drawn.paths.filter((p) => p.segments.length > 0);
    const { mmPerUnit } = this;
    const paths = mmPerUnit === 1 ? some : some.map((p) => transformPath(p, scaling(mmPerUnit)));
    if (paths.length === 0) {
      this.finder.unread('shapes without size');
      return;
    }
    this.finder.shape({
      paths,
      group: this.finder.groupOf(layer, colour, drawn.filled),
      fill: drawn.filled ? { colour, rule: 'evenodd' } : null,
      stroke: drawn.filled ? null : this.hairline(colour),
      clips: [],
    });
  }

  /** A thin line in a colour: one for all that are drawn in it. */
  private hairline(colour: string): ReadStroke {
    let known = this.hairlines.get(colour);
    if (!known) {
      known = { ...HAIRLINE, colour };
      this.hairlines.set(colour, known);
    }
    return known;
  }

  private colourOf(e: Entity, layer: LayerEntry | undefined, owner: Owner): string {
    if (e.has(420)) return trueColour(e.number(420, 0));
    const index = e.number(62, BY_LAYER);
    if (index === BY_BLOCK) return owner.colour;
    return index === BY_LAYER ? (layer?.colour ?? '#000000') : colourOfIndex(Math.abs(index));
  }

  /** A block in rows and columns. Nothing can contain itself, and how often blocks are drawn in all is limited. */
  private insert(e: Entity, space: Space, owner: Owner, within: ReadonlySet<Block>): void {
    const block = this.blocks.get(e.words(2).toUpperCase());
    if (!block) {
      this.finder.unread('uses of blocks that are not there');
      return;
    }
    if (block.external) {
      this.finder.unread('drawings that are kept in other files');
      return;
    }
    if (within.has(block)) {
      this.finder.unread('blocks that contain themselves');
      return;
    }
    if (within.size >= LIMITS.drawnDepth) {
      this.finder.unread(`blocks more than ${LIMITS.drawnDepth} levels deep`);
      return;
    }
    const [sx, sy, sz] = [e.number(41, 1), e.number(42, 1), e.number(43, 1)];
    const turn = turnedSpace(e.number(50, 0));
    const at = e.vector(10, [0, 0, 0]);
    const own = after(objectSpace(e.vector(210, UP)), space);
    const columns = Math.max(1, Math.floor(e.number(70, 1)));
    const rows = Math.max(1, Math.floor(e.number(71, 1)));
    const inside = new Set(within).add(block);
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        if (++this.used > LIMITS.usedShapes)
          throw new ReadingStops(
            `The drawing uses blocks more than ${LIMITS.usedShapes.toLocaleString('en')} times; what comes after that was left out.`,
          );
        const step = movedSpace([column * e.number(44, 0), row * e.number(45, 0), 0]);
        const [bx, by, bz] = block.base;
        let to = after(movedSpace([-bx, -by, -bz]), scaledSpace(sx, sy, sz));
        to = after(after(to, step), turn);
        to = after(after(to, movedSpace(at)), own);
        for (const entity of block.entities) this.draw(entity, to, owner, inside);
      }
    for (const attribute of e.parts) this.draw(attribute, space, owner, within);
  }
}

const HAIRLINE = { widthMm: 0.1, cap: 'round', join: 'round', miter: 4, dashesMm: [], dashOffsetMm: 0 } as const;

const trueColour = (value: number): string => `#${(value & 0xffffff).toString(16).padStart(6, '0')}`;
