/**
 * A job computed: every part prepared, paths given to operations in running order, findings. Pure, and held by content:
 * an edit recomputes only what hangs on it.
 */

import type { Chosen } from '../commands/chosen';
import type { FillTool, Job, Operation, Part, StepOf, Work } from '../document/schema';
import { stepIn } from '../document/steps';
import { readFound } from '../formats/found-file';
import type { ClipEngine } from '../geometry/boolean/engine';
import { lengthOfPath } from '../geometry/length';
import { type KnownNesting, nestMeasured } from '../geometry/nesting';
import { type Path, pathBox } from '../geometry/path';
import { type Box, boxesMeet, compose, EMPTY_BOX, type Matrix, type Point, uniteBoxes } from '../geometry/point';
import type { Finding } from '../inspect/finding';
import { inspect } from '../inspect/inspect';
import { type Strength, type StrengthBefore, strengthAfter, strengthOf, transformStrength } from '../inspect/strength';
import type { ArtworkLookup, KeptDrawing, PreparedArtwork } from '../prepare/artwork';
import { BridgeWorkshops } from '../prepare/bridges/workshop';
import type { HandMade } from '../prepare/hand-made';
import { type Outline, outlineLength } from '../prepare/outline';
import { prepareSized } from '../prepare/overall';
import { type FaceLookup, onSheet, type PreparedPart, rimOf, withBridges } from '../prepare/part';
import { placementMatrix } from '../prepare/placement';
import { transformPart } from '../prepare/transform';
import { weldCaches } from '../prepare/weld';
import { ResultCache } from '../result-cache';
import type { Centerline } from '../toolpath/centerline/centerline';
import { letterMiddle, partLines } from '../toolpath/centerline/part-lines';
import { partDots } from '../toolpath/dots/part-dots';
import type { PartFill } from '../toolpath/fill/part-fill';
import { countStrokes, lengthsOf, type Strokes, strokesBox } from '../toolpath/fill/strokes';
import { type Linework, NO_LINEWORK, transformLinework } from '../toolpath/linework';
import { insideFirst } from '../toolpath/order';
import { joinedRuns, nearestNext, nearestPoints } from '../toolpath/runs';
import { Fillings, type ToolTry } from './fillings';
import { sizeBox } from './size-box';

export type OperationShape =
  | { readonly what: 'outline'; readonly partId: string; readonly outline: Outline }
  /** A line that does not close; or, where it `fills`, a ring or a pass along the edge. */
  | {
      readonly what: 'line';
      readonly partId: string;
      readonly path: Path;
      readonly box: Box;
      readonly fills: boolean;
    }
  /** A dot: a circle, or where `r` is null a point. */
  | { readonly what: 'dot'; readonly partId: string; readonly at: Point; readonly r: number | null; readonly box: Box }
  /** Lines that fill, drawn in their order. */
  | {
      readonly what: 'strokes';
      readonly partId: string;
      readonly strokes: Strokes;
      readonly box: Box;
      readonly lengthMm: number;
    }
  | { readonly what: 'fill'; readonly partId: string; readonly outlines: readonly Outline[] };

export type OperationResult = {
  readonly operation: Operation;
  /** In running order: fills first, then outlines, inside before outside. */
  readonly shapes: readonly OperationShape[];
  /** Length of the outlines in mm. */
  readonly lengthMm: number;
  /** Area of the fills in mm². */
  readonly fillMm2: number;
};

export type JobResult = {
  /** Parts that are not hidden, in order. */
  readonly parts: readonly PreparedPart[];
  /** The same parts' lines and dots. */
  readonly lineworks: readonly Linework[];
  /** The same parts' bounds: of what is cut or drawn of them. */
  readonly sizes: readonly Box[];
  /** The same parts' thin places and tight gaps. */
  readonly strengths: readonly Strength[];
  /** All operations, in order, whether on or off. */
  readonly operations: readonly OperationResult[];
  readonly findings: readonly Finding[];
  /** Bounds of what would be exported; empty when nothing is. */
  readonly workBox: Box;
};

/** How far an evaluation has come. */
export type Progress = { readonly done: number; readonly of: number };

const PARTS_HELD = 600;
const ORDERS_HELD = 64;
const ARTWORKS_HELD = 64;
const STRENGTHS_HELD = 600;
const TRACED_HELD = 4_000;
const PENS_HELD = 100;

export class Evaluator {
  private readonly caches = weldCaches();
  private readonly handMadeCache = new ResultCache<HandMade>(ARTWORKS_HELD);
  private readonly artworkCache = new ResultCache<PreparedArtwork>(ARTWORKS_HELD);
  private readonly parts = new ResultCache<PreparedPart>(PARTS_HELD);
  private readonly bridged = new ResultCache<PreparedPart>(PARTS_HELD);
  private readonly workshops = new BridgeWorkshops();
  private readonly orders = new ResultCache<readonly number[]>(ORDERS_HELD);
  private readonly strengths = new ResultCache<Strength>(STRENGTHS_HELD);
  // Parts are prepared in their own coordinates, so that moving one computes nothing anew.
  private readonly rims = new ResultCache<Path>(PARTS_HELD);
  private readonly sheeted = new ResultCache<PreparedPart>(PARTS_HELD);
  private readonly placed = new WeakMap<PreparedPart, Map<string, PreparedPart>>();
  private readonly bases = new WeakMap<PreparedPart, PreparedPart>();
  private readonly unbridged = new WeakMap<PreparedPart, PreparedPart>();
  private readonly shapes = new WeakMap<PreparedPart, PreparedPart>();
  private readonly lastStrengths = new WeakMap<PreparedPart, StrengthBefore & { least: number; kerf: number }>();
  private readonly strengthsPlaced = new WeakMap<PreparedPart, { of: Strength; strength: Strength }>();
  private readonly traced = new ResultCache<Centerline>(TRACED_HELD);
  private readonly pens = new ResultCache<number | null>(PENS_HELD);
  private readonly lineworks = new ResultCache<Linework>(PARTS_HELD);
  private readonly fillings: Fillings;
  private readonly fillRuns = new WeakMap<PreparedPart, { of: PartFill; shapes: readonly OperationShape[] }>();
  private readonly runs = new ResultCache<readonly OperationShape[]>(PARTS_HELD);
  private readonly lineworksPlaced = new WeakMap<
    PreparedPart,
    { of: Linework; fill: PartFill | null; linework: Linework }
  >();
  private readonly serials = new WeakMap<object, number>();
  private nextSerial = 1;

  // Ids tell what is in a drawing, so that one more at hand changes nothing that was computed with it.
  private readonly drawings = new Map<string, KeptDrawing>();
  private readonly artworks: ArtworkLookup = (id) => this.drawings.get(id) ?? { sentence: 'It is not at hand here.' };

  constructor(readonly engine: ClipEngine) {
    this.fillings = new Fillings(engine, (of) => this.serial(of));
  }

  hasDrawing(id: string): boolean {
    return this.drawings.has(id);
  }

  /** Put a kept drawing at hand; false when the text is none. */
  addDrawing(id: string, text: string): boolean {
    const drawing = readFound(text);
    if (drawing) this.drawings.set(id, { drawing, serial: this.nextSerial++ });
    return drawing !== null;
  }

  /** Evaluate step by step: yields after each part, so that a caller can show progress or stop; returns the result. */
  *steps(job: Job, faces: FaceLookup): Generator<Progress, JobResult> {
    const shown = job.parts.filter((part) => !part.hidden);
    const prepared: PreparedPart[] = [];
    const strengths: Strength[] = [];
    const lineworks: Linework[] = [];
    const parts = new PartsOf(job);
    for (const part of shown) {
      const ready = this.prepared(part, job, faces, parts);
      prepared.push(ready);
      strengths.push(this.strengthOf(ready, job));
      const filling = this.lineworkOf(part, ready, job, faces);
      let filled = filling.next();
      for (; !filled.done; filled = filling.next())
        yield { done: prepared.length - 1 + filled.value, of: shown.length + 1 };
      lineworks.push(filled.value);
      yield { done: prepared.length, of: shown.length + 1 };
    }
    const byId = new Map(prepared.map((p) => [p.id, p]));
    const strengthById = new Map(prepared.map((p, i) => [p.id, strengths[i] as Strength]));
    const linework = new Map(prepared.map((p, i) => [p.id, lineworks[i] as Linework]));
    const operations = job.operations.map((operation) => this.operationResult(operation, shown, byId, linework));
    let workBox = EMPTY_BOX;
    for (const { operation, shapes } of operations)
      if (operation.on)
        for (const shape of shapes) for (const box of boxesOf(shape)) workBox = uniteBoxes(workBox, box);
    return {
      parts: prepared,
      lineworks,
      sizes: shown.map((part, i) => sizeBox(part, prepared[i] as PreparedPart, lineworks[i] as Linework)),
      strengths,
      operations,
      findings: inspect(job, byId, strengthById, linework),
      workBox,
    };
  }

  /** Evaluate in one go. */
  evaluate(job: Job, faces: FaceLookup): JobResult {
    return finished(this.steps(job, faces));
  }

  /** The true middle of a letter's strokes on the sheet, for lines that are drawn by hand to keep to. */
  middleOf(job: Job, partId: string, letter: string, faces: FaceLookup): Path[] {
    const part = job.parts.find((p) => p.id === partId);
    const ready = this.prepare(job, partId, faces);
    return part && ready
      ? letterMiddle(part, ready, letter, { engine: this.engine, faces, traced: this.traced, pens: this.pens })
      : [];
  }

  /** Bounds on the sheet of what is cut or drawn of parts, or of a member of one; empty when nothing is. */
  boxOf(job: Job, { partIds, memberId }: Chosen, faces: FaceLookup): Box {
    const parts = new PartsOf(job);
    let box = EMPTY_BOX;
    for (const part of job.parts) {
      if (!partIds.includes(part.id)) continue;
      const ready = this.prepared(part, job, faces, parts);
      if (memberId !== null) return ready.members.find((m) => m.id === memberId)?.box ?? EMPTY_BOX;
      // Lines that fill lie within the outline: they say nothing about the size.
      const work = part.work.filter((w) => w.what !== 'hatch');
      const unfilled = { ...part, work };
      const linework = finished(this.lineworkOf(unfilled, ready, job, faces));
      box = uniteBoxes(box, sizeBox(part, ready, linework));
    }
    return box;
  }

  /** One part prepared by itself; undefined when there is no such part. */
  prepare(job: Job, partId: string, faces: FaceLookup): PreparedPart | undefined {
    const parts = new PartsOf(job);
    const part = parts.byId.get(partId);
    return part && this.prepared(part, job, faces, parts);
  }

  private prepared(part: Part, job: Job, faces: FaceLookup, parts: PartsOf): PreparedPart {
    const placed = parts.placed.get(part.id);
    if (placed) return placed;
    const made = this.inPlace(this.own(part, job, faces, parts), part.id, parts.matrixOf(part));
    parts.placed.set(part.id, made);
    return made;
  }

  /** A part in its own coordinates. Parts that differ in nothing but their place and name are prepared once. */
  private own(part: Part, job: Job, faces: FaceLookup, parts: PartsOf): PreparedPart {
    const ready = parts.own.get(part.id);
    if (ready) return ready;
    const copied = (id: string): PreparedPart | 'gone' | 'loop' => {
      const original = parts.byId.get(id);
      if (!original) return 'gone';
      return parts.reaches(id, part.id) ? 'loop' : this.own(original, job, faces, parts);
    };
    const { keep, selfAdhesive, overallWidth, members } = part;
    const dependsOn = members.map((member) => {
      if (member.kind === 'copy') {
        const original = copied(member.of);
        return typeof original === 'string' ? original : this.serial(original);
      }
      if (member.kind === 'artwork') {
        const drawing = this.artworks(member.drawing);
        return 'sentence' in drawing ? drawing.sentence : drawing.serial;
      }
      if (member.kind !== 'lettering') return '';
      const answer = faces(member);
      return 'typeface' in answer ? answer.typeface.serial : answer.sentence;
    });
    const steps = part.steps.filter((step) => !['bridge', 'centerline', 'dots', 'hatch'].includes(step.kind));
    const bare = this.parts.get(JSON.stringify([keep, selfAdhesive, overallWidth, members, steps, dependsOn]), () =>
      prepareSized(part, {
        engine: this.engine,
        faces,
        artworks: this.artworks,
        artworkCache: this.artworkCache,
        handMadeCache: this.handMadeCache,
        caches: this.caches,
        copied,
      }),
    );
    const rim = bare.keep === 'outside' ? this.rimFor(job, parts.matrixOf(part)) : null;
    const unbridged = rim
      ? this.sheeted.get(`${this.serial(bare)}|${this.serial(rim)}`, () => onSheet(bare, rim, this.engine))
      : bare;
    const { leastWidth, thickness } = job.sheet;
    const bridges = part.steps.find((step) => step.kind === 'bridge');
    const made = this.bridged.get(JSON.stringify([this.serial(unbridged), bridges, leastWidth, thickness]), () =>
      withBridges(part, unbridged, job.sheet, rim, this.engine, this.workshops.of(unbridged)),
    );
    this.unbridged.set(made, unbridged);
    // What does not ask for the sheet goes by the shape, wherever it lies.
    if (made.outlines === bare.outlines) this.shapes.set(made, bare);
    parts.own.set(part.id, made);
    return made;
  }

  /** The rim of the sheet in the coordinates of a part: the same object for the same sheet and place. */
  private rimFor({ sheet: { width, height } }: Job, matrix: Matrix): Path {
    return this.rims.get(JSON.stringify([width, height, matrix]), () => rimOf({ width, height }, matrix));
  }

  /** A part prepared in its own coordinates where it lies on the sheet; the same object as long as it stays there. */
  private inPlace(own: PreparedPart, id: string, matrix: Matrix): PreparedPart {
    let places = this.placed.get(own);
    if (!places) {
      places = new Map();
      this.placed.set(own, places);
    }
    const last = places.get(id);
    if (last && sameMatrix(last.matrix, matrix)) return last;
    const placed = transformPart(own, matrix);
    const part = placed.id === id ? placed : { ...placed, id };
    places.set(id, part);
    this.bases.set(part, own);
    return part;
  }

  private strengthOf(part: PreparedPart, { sheet }: Job): Strength {
    const [least, kerf] = [sheet.leastWidth ?? 0, sheet.kerf ?? 0];
    const base = this.bases.get(part) ?? part;
    const found = this.strengths.get(`${this.serial(base)}|${least}|${kerf}`, () => {
      // With other bridges only, most of a part stays as it was.
      const unbridged = this.unbridged.get(base);
      const known = unbridged && this.lastStrengths.get(unbridged);
      const strength =
        known && known.least === least && known.kerf === kerf
          ? strengthAfter(known, base.kept, least, kerf)
          : strengthOf(base.kept, least, kerf);
      if (unbridged) this.lastStrengths.set(unbridged, { kept: base.kept, strength, least, kerf });
      return strength;
    });
    const last = this.strengthsPlaced.get(part);
    if (last && last.of === found) return last.strength;
    const strength = transformStrength(found, part.matrix);
    this.strengthsPlaced.set(part, { of: found, strength });
    return strength;
  }

  /** Lines, dots and filling of a part, found in its own coordinates and put where it lies; yields the share done. */
  private *lineworkOf(part: Part, ready: PreparedPart, job: Job, faces: FaceLookup): Generator<number, Linework> {
    const [line, dot, hatch] = [withAllCorrections(part, job), stepIn(part, 'dots'), stepIn(part, 'hatch')];
    const wants = (what: Work['what']) => part.work.some((w) => w.what === what);
    const dotsWanted = dot?.on && wants('dots');
    const linesWanted = line?.on && (wants('centerline') || (dotsWanted && dot.along === 'centerline'));
    const fillWanted = hatch?.on && wants('hatch');
    if (!dotsWanted && !linesWanted && !fillWanted) return NO_LINEWORK;
    const own = this.bases.get(ready) ?? ready;
    const base = this.shapes.get(own) ?? own;
    const fill = fillWanted && base.outlines.length > 0 ? yield* this.fillings.of(base, hatch) : null;
    const key = JSON.stringify([this.serial(base), linesWanted && line, dotsWanted && dot]);
    const found = this.lineworks.get(key, () => {
      const lines = linesWanted
        ? partLines(part, base, line, { engine: this.engine, faces, traced: this.traced, pens: this.pens })
        : null;
      return { lines, dots: dotsWanted ? partDots(base, lines, dot) : null, fill: null };
    });
    const last = this.lineworksPlaced.get(ready);
    if (last && last.of === found && last.fill === fill) return last.linework;
    const linework = transformLinework({ ...found, fill }, ready.matrix);
    this.lineworksPlaced.set(ready, { of: found, fill, linework });
    return linework;
  }

  /**
   * A part filled as its step says, but by another tool, and what that cannot reach; null when there is nothing to fill. Yields
   * the share done.
   */
  *tryTool(job: Job, partId: string, tool: FillTool, faces: FaceLookup): Generator<number, ToolTry | null> {
    const ready = this.prepare(job, partId, faces);
    const part = job.parts.find((p) => p.id === partId);
    const step = part && stepIn(part, 'hatch');
    const own = ready && (this.bases.get(ready) ?? ready);
    const base = own && (this.shapes.get(own) ?? own);
    if (!base || !step || base.outlines.length === 0) return null;
    return yield* this.fillings.tried(base, { ...step, tool });
  }

  private serial(of: object): number {
    let known = this.serials.get(of);
    if (!known) {
      known = this.nextSerial++;
      this.serials.set(of, known);
    }
    return known;
  }

  /** The lines, circles and points of a part that an operation draws, in long runs, the nearest next. */
  private linesOf(
    part: Part,
    ready: PreparedPart,
    { lines, dots, fill }: Linework,
    does: (what: Work['what']) => boolean,
  ): readonly OperationShape[] {
    const line = does('centerline') && lines;
    const dot = does('dots') && dots;
    const filled = does('hatch') && fill;
    const open = does('outline') ? ready.lines : [];
    const fills = filled ? this.fillShapes(part, ready, filled) : [];
    if (!line && !dot && open.length === 0) return fills;
    const key = [ready, line, dot, open].map((o) => (o ? this.serial(o) : 0)).join();
    const runs = this.runs.get(key, () => {
      const [line0, dot0] = [stepIn(part, 'centerline'), stepIn(part, 'dots')];
      const all = [
        ...(line ? line.dots : []).map(({ x, y, r }) => ({ x, y, r: line0?.dots === 'point' ? null : r / 2 })),
        ...(dot ? dot.dots : []).map(({ x, y }) => ({
          x,
          y,
          r: dot0?.as === 'point' ? null : dot0 ? dot0.diameter / 2 : 0,
        })),
      ];
      const runs = nearestNext(joinedRuns([...open, ...(line ? line.lines : [])]));
      return [
        ...runs.map(
          (path): OperationShape => ({ what: 'line', partId: part.id, path, box: pathBox(path), fills: false }),
        ),
        ...nearestPoints(all).map(({ x, y, r }): OperationShape => {
          const [around, at] = [r ?? 0, { x, y }];
          const box = { minX: x - around, minY: y - around, maxX: x + around, maxY: y + around };
          return { what: 'dot', partId: part.id, at, r, box };
        }),
      ];
    });
    return fills.length > 0 ? [...fills, ...runs] : runs;
  }

  /** The lines that fill a part in the order they are drawn: the pass along the edge first or last. */
  private fillShapes(part: Part, ready: PreparedPart, fill: PartFill): readonly OperationShape[] {
    // Held by the part: parts that are alike may share one filling, but not whose it is.
    const known = this.fillRuns.get(ready);
    if (known?.of === fill) return known.shapes;
    const partId = part.id;
    const drawn = (path: Path): OperationShape => ({ what: 'line', partId, path, box: pathBox(path), fills: true });
    const lines = (strokes: Strokes): OperationShape[] =>
      countStrokes(strokes) > 0
        ? [{ what: 'strokes', partId, strokes, box: strokesBox(strokes), lengthMm: lengthsOf(strokes).drawn }]
        : [];
    // Closed, it could be taken for the rim of an area.
    const edge = nearestNext(fill.edge).map(({ segments }) => drawn({ segments, closed: false }));
    const isFirst = stepIn(part, 'hatch')?.outline === 'first';
    const shapes = [
      ...(isFirst ? edge : []),
      ...lines(fill.strokes),
      ...fill.rings.map(drawn),
      ...lines(fill.rest),
      ...(isFirst ? [] : edge),
    ];
    this.fillRuns.set(ready, { of: fill, shapes });
    return shapes;
  }

  private operationResult(
    operation: Operation,
    parts: readonly Part[],
    prepared: ReadonlyMap<string, PreparedPart>,
    lineworks: ReadonlyMap<string, Linework>,
  ): OperationResult {
    const fills: OperationShape[] = [];
    const outlines: { what: 'outline'; partId: string; outline: Outline }[] = [];
    const lines: OperationShape[] = [];
    const sources: PreparedPart[] = [];
    for (const part of parts) {
      const ready = prepared.get(part.id) as PreparedPart;
      const mine = part.work.filter((w) => w.operation === operation.id);
      const does = (what: Work['what']) => mine.some((w) => w.what === what);
      if (ready.outlines.length > 0 && does('fill'))
        fills.push({ what: 'fill', partId: part.id, outlines: ready.outlines });
      lines.push(...this.linesOf(part, ready, lineworks.get(part.id) ?? NO_LINEWORK, does));
      if (!does('outline') || ready.outlines.length === 0) continue;
      sources.push(ready);
      for (const outline of ready.outlines) outlines.push({ what: 'outline', partId: part.id, outline });
    }
    const order = this.orders.get(sources.map((s) => this.serial(s)).join(','), () =>
      insideFirst(
        outlines.map((o) => o.outline),
        parentsOver(sources),
      ),
    );
    return {
      operation,
      // Open lines come off nothing, so they are worked before anything is cut free.
      shapes: [...fills, ...lines, ...order.map((i) => outlines[i] as (typeof outlines)[number])],
      lengthMm:
        outlines.reduce((sum, o) => sum + outlineLength(o.outline), 0) +
        lines.reduce((sum, l) => sum + lineLength(l), 0),
      fillMm2: fills.reduce((sum, f) => sum + (f.what === 'fill' ? f.outlines.reduce((a, o) => a + o.area, 0) : 0), 0),
    };
  }
}

/** What a computation that yields its progress comes to. */
function finished<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

const lineLength = (l: OperationShape): number =>
  l.what === 'strokes'
    ? l.lengthMm
    : l.what === 'line'
      ? lengthOfPath(l.path)
      : l.what === 'dot'
        ? 2 * Math.PI * (l.r ?? 0)
        : 0;

/** Bounds of everything in a shape. */
export function boxesOf(shape: OperationShape): readonly Box[] {
  if (shape.what === 'line' || shape.what === 'dot' || shape.what === 'strokes') return [shape.box];
  return shape.what === 'outline' ? [shape.outline.box] : shape.outlines.map((o) => o.box);
}

/** A part's centerline step with what was drawn in other parts for every letter of its kind; its own comes first. */
function withAllCorrections(part: Part, job: Job): StepOf<'centerline'> | undefined {
  const step = stepIn(part, 'centerline');
  if (!step) return undefined;
  const others = job.parts
    .filter((p) => p !== part)
    .flatMap((p) => stepIn(p, 'centerline')?.corrections.filter((c) => c.alike !== null) ?? []);
  return others.length > 0 ? { ...step, corrections: [...step.corrections, ...others] } : step;
}

const sameMatrix = (m: Matrix, n: Matrix): boolean =>
  m.a === n.a && m.b === n.b && m.c === n.c && m.d === n.d && m.e === n.e && m.f === n.f;

/** The parts of one evaluation: by id, those ready, and which copies lead to which. */
class PartsOf {
  readonly byId: ReadonlyMap<string, Part>;
  /** Those prepared so far, in their own coordinates and on the sheet. */
  readonly own = new Map<string, PreparedPart>();
  readonly placed = new Map<string, PreparedPart>();
  private readonly matrices = new Map<string, Matrix>();
  private readonly reached = new Map<string, ReadonlySet<string>>();

  constructor(job: Job) {
    this.byId = new Map(job.parts.map((part) => [part.id, part]));
  }

  /** From a part's own coordinates to the sheet. */
  matrixOf(part: Part): Matrix {
    let known = this.matrices.get(part.id);
    if (!known) {
      // Set before the leader's is asked for: a circle, which the schema refuses, ends there.
      this.matrices.set(part.id, placementMatrix(part.placement));
      const leader = part.along === null ? undefined : this.byId.get(part.along);
      known = leader
        ? compose(placementMatrix(part.placement), this.matrixOf(leader))
        : placementMatrix(part.placement);
      this.matrices.set(part.id, known);
    }
    return known;
  }

  /** Whether a part is another, or copies it directly or by way of others. */
  reaches(from: string, to: string): boolean {
    let known = this.reached.get(from);
    if (!known) {
      const met = new Set<string>();
      const waiting = [from];
      for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
        if (met.has(id)) continue;
        met.add(id);
        for (const member of this.byId.get(id)?.members ?? []) if (member.kind === 'copy') waiting.push(member.of);
      }
      known = met;
      this.reached.set(from, known);
    }
    return known.has(to);
  }
}

/** Nesting over the outlines of several parts, one after the other: how each part's lie in each other is known. */
function parentsOver(parts: readonly PreparedPart[]): readonly number[] {
  const known: KnownNesting[] = [];
  parts.forEach((part, group) => {
    const first = known.length;
    for (const o of part.outlines) known.push({ group, parent: o.parent < 0 ? -1 : o.parent + first });
  });
  const apart = parts.every((a, i) => parts.every((b, j) => j <= i || !boxesMeet(a.box, b.box)));
  if (apart) return known.map((o) => o.parent);
  return nestMeasured(
    parts.flatMap((part) => part.outlines),
    known,
  ).parent;
}
