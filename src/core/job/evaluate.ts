/**
 * A job computed: every part made ready, paths given to operations in running order, findings. Pure, and remembered by content:
 * an edit computes only what hangs on it.
 */
import type { Chosen } from '../commands/chosen';
import { partsOnSheet } from '../document/on-sheet';
import type { FillTool, Job, Part, PlacedPicture, Step } from '../document/schema';
import { readFound } from '../formats/found-file';
import { readPixels } from '../formats/pixels';
import type { ClipEngine } from '../geometry/boolean/engine';
import { drawnBox } from '../geometry/drawable';
import { type Path, transformPath } from '../geometry/path';
import { type Box, compose, determinant, EMPTY_BOX, type Matrix, uniteBoxes } from '../geometry/point';
import type { Finding } from '../inspect/finding';
import { kindOf, type Linework, NO_LINEWORK, stepIn } from '../kinds/steps';
import { workBox, workKind } from '../kinds/works';
import { finished, Memo, type Memory } from '../memo';
import type { ArtworkLookup, KeptDrawing } from '../prepare/artwork';
import { placementMatrix } from '../prepare/placement';
import type { FaceLookup, PreparedPart } from '../prepare/prepared';
import type { LetterReadability } from '../prepare/readability';
import { type PictureLookup, traceSteps } from '../prepare/trace';
import { inspect } from '../rules/inspect';
import { facesOf } from '../schema/lettering';
import { madeFrom } from '../schema/members';
import { letterMiddle } from '../toolpath/centerline/part-lines';
import { TOOL_TRY, type ToolTry } from '../toolpath/hatch/stages';
import type { Search } from '../toolpath/ordering/search';
import type { Raster } from '../tracing/raster';
import { likelyTones } from '../tracing/starts';
import { type OperationResult, operationResult } from './drawn';
import { leftByTools } from './left-by-tools';
import { drawnPartOf, drawSteps, PLACED_LINEWORK } from './linework';
import type { PartResult } from './part-result';
import {
  BRIDGED,
  ON_SHEET,
  OWN_SHAPE,
  PART_RESULT,
  PLACED,
  PLACED_STRENGTH,
  READABILITY,
  RIM,
  STRENGTH,
} from './part-stages';
import { type JobRun, runSteps } from './run';

/** What a job comes to: its parts prepared, what each operation draws, and the findings. */
export type JobResult = {
  /** Parts that are not hidden, in order. */
  readonly parts: readonly PartResult[];
  /** All operations, in order, whether on or off. */
  readonly operations: readonly OperationResult[];
  /** The job as the machine runs it, put in order when asked for; yields the share done. */
  readonly run: (how: Search['how']) => Generator<number, JobRun>;
  readonly findings: readonly Finding[];
  /** Bounds of what would be exported; empty when nothing is. */
  readonly workBox: Box;
};

/** How far an evaluation has come. */
export type Progress = { readonly done: number; readonly of: number };

/** The document that is evaluated, and what is needed for that. */
type EvaluationContext = {
  readonly job: Job;
  readonly faces: FaceLookup;
  readonly parts: PartsOf;
  readonly memory: Memory;
};

/** A part in its own coordinates: with its bridges, and without what asks for the sheet. */
type OwnPart = {
  readonly made: PreparedPart;
  readonly unbridged: PreparedPart;
  /** What middle lines, dots and hatch lines go by: the shape wherever it lies, as long as no bridges changed it. */
  readonly shape: PreparedPart;
};

/** Edges around what is smaller than so many pixels are none to draw along. */
const EDGE_PIXELS = 4;

/** A job without the parts that are shown for reference only, or are on another sheet; itself where there are none. */
const onlyWorked = (job: Job): Job => {
  const worked = partsOnSheet(job).filter((part) => !part.reference);
  return worked.length === job.parts.length ? job : { ...job, parts: worked };
};

/** Evaluates job documents: one for all that a window looks at, so that an edit computes only what hangs on it. */
export class Evaluator {
  // Ids tell what is in a drawing, so that one more at hand changes nothing that was computed with it.
  private readonly drawings = new Map<string, { readonly drawing: KeptDrawing }>();
  private readonly rasters = new Map<string, { readonly raster: Raster }>();
  private readonly artworks: ArtworkLookup = (id) => this.drawings.get(id) ?? { sentence: 'It is not at hand here.' };

  /** `memo` is what is remembered from one evaluation to the next. */
  constructor(
    readonly engine: ClipEngine,
    readonly memo: Memo = new Memo(),
  ) {}

  hasDrawing(id: string): boolean {
    return this.drawings.has(id);
  }

  /** Put a kept drawing at hand; false when the text is none. */
  addDrawing(id: string, text: string): boolean {
    const drawing = readFound(text);
    if (drawing) this.drawings.set(id, { drawing });
    return drawing !== null;
  }

  hasPicture(id: string): boolean {
    return this.rasters.has(id);
  }

  /** Put the pixels of a picture at hand; false when the bytes are none. */
  addPicture(id: string, bytes: Uint8Array): boolean {
    const raster = readPixels(bytes);
    if (raster) this.rasters.set(id, { raster });
    return raster !== null;
  }

  /** The pixels of a picture, or why there are none. */
  readonly pictures: PictureLookup = (id) => this.rasters.get(id) ?? { sentence: 'It is not at hand here.' };

  /** Evaluate step by step: yields after each part, so that a caller can show progress or stop; returns the result. */
  *steps(job: Job, faces: FaceLookup): Generator<Progress, JobResult> {
    const memory = this.memo.turn();
    const shown = partsOnSheet(job).filter((part) => !part.hidden);
    const parts = new PartsOf(job);
    const results = new Map<string, PartResult>();
    for (const part of shown) {
      yield* this.traces(part, memory, results.size, shown.length + 1);
      const steps = this.partResult(part, { job, faces, parts, memory });
      let step = steps.next();
      for (; !step.done; step = steps.next()) yield { done: results.size + step.value, of: shown.length + 1 };
      results.set(part.id, step.value);
      yield { done: results.size, of: shown.length + 1 };
    }
    // What is shown for reference, or is on another sheet, is neither worked nor looked at.
    const doing = onlyWorked(job);
    const inspected =
      doing === job ? results : new Map([...results].filter(([id]) => doing.parts.some((p) => p.id === id)));
    const operations = job.operations.map((operation) =>
      operationResult(operation, doing, results, { engine: this.engine, memory }),
    );
    const exported = operations.filter((o) => o.operation.on).flatMap((o) => o.drawn.map((d) => d.drawable));
    return {
      parts: [...results.values()],
      operations,
      run: (how) => runSteps(operations, { job: doing, how, memory }),
      findings: inspect({ job: doing, inspected, drawn: operations, memory }),
      workBox: drawnBox(exported),
    };
  }

  /** The edges in a picture that lies on the sheet, there; none where its pixels are not at hand. Yields the share done. */
  *edgesOf(picture: PlacedPicture): Generator<number, Path[]> {
    const answer = this.pictures(picture.pixels);
    if ('sentence' in answer) return [];
    const { raster } = answer;
    const { crop, scale, placement } = picture;
    const tones = { by: likelyTones(raster), picks: [], evenLight: true };
    const asked = { crop, scale, tones, least: EDGE_PIXELS * scale, follow: null, dropRim: false };
    const made = yield* traceSteps(this.engine, raster, asked, this.memo);
    const matrix = placementMatrix(placement);
    return (made?.outlines ?? []).map((o) => transformPath(o.path, matrix, determinant(matrix) < 0));
  }

  /** Traces of a part, which take long, made so that they can be left; what is made of the part then has them at hand. */
  private *traces(part: Part, memory: Memory, done: number, of: number): Generator<Progress, void> {
    for (const member of part.members) {
      if (member.kind !== 'trace') continue;
      const answer = this.pictures(member.pixels);
      if ('sentence' in answer) continue;
      const steps = traceSteps(this.engine, answer.raster, member, memory);
      for (let step = steps.next(); !step.done; step = steps.next()) yield { done: done + step.value / 2, of };
    }
  }

  /** Evaluate in one go. */
  evaluate(job: Job, faces: FaceLookup): JobResult {
    return finished(this.steps(job, faces));
  }

  /** The true middle of a letter's strokes on the sheet, for lines that are drawn by hand to keep to. */
  middleOf(job: Job, partId: string, letter: string, faces: FaceLookup): Path[] {
    const part = job.parts.find((p) => p.id === partId);
    const ready = this.prepare(job, partId, faces);
    const { engine, memo } = this;
    const drawnPart = part && drawnPartOf(part);
    return drawnPart && ready ? letterMiddle(drawnPart, ready, letter, { engine, memory: memo }) : [];
  }

  /** Bounds on the sheet of what is cut or drawn of parts, or of a member of one; empty when nothing is. */
  boxOf(job: Job, { partIds, memberId }: Chosen, faces: FaceLookup): Box {
    const parts = new PartsOf(job);
    let box = EMPTY_BOX;
    for (const part of job.parts) {
      if (!partIds.includes(part.id)) continue;
      const { own, ready } = this.placedPart(part, { job, faces, parts, memory: this.memo });
      if (memberId !== null) return ready.members.find((m) => m.id === memberId)?.box ?? EMPTY_BOX;
      // What lies within the outline says nothing about the size.
      const sizing = { ...part, work: part.work.filter((w) => workKind(w.what).box) };
      const linework = finished(this.linework(sizing, { own, placed: ready, job, memory: this.memo }));
      box = uniteBoxes(
        box,
        workBox(
          part.work.map((w) => w.what),
          ready,
          linework,
        ),
      );
    }
    return box;
  }

  /** How readable the letters of a prepared part are. */
  readability(part: PreparedPart): readonly LetterReadability[] {
    return this.memo.get(READABILITY, { part, left: null });
  }

  /** One part prepared by itself, where it lies on the sheet; undefined when there is no such part. */
  prepare(job: Job, partId: string, faces: FaceLookup): PreparedPart | undefined {
    const parts = new PartsOf(job);
    const part = parts.byId.get(partId);
    return part && this.placedPart(part, { job, faces, parts, memory: this.memo }).ready;
  }

  /**
   * A part filled as its step says, but by another tool, and what that cannot reach; null when there is nothing to fill. Yields
   * the share done.
   */
  *tryTool(job: Job, partId: string, tool: FillTool, faces: FaceLookup): Generator<number, ToolTry | null> {
    const parts = new PartsOf(job);
    const part = parts.byId.get(partId);
    const step = part && stepIn(part, 'hatch');
    if (!part || !step) return null;
    const { shape } = this.own(part, { job, faces, parts, memory: this.memo });
    if (shape.outlines.length === 0) return null;
    return yield* this.memo.steps(TOOL_TRY, { part: shape, step: { ...step, tool }, engine: this.engine });
  }

  /** A part with all that belongs to it; yields the share done. */
  private *partResult(part: Part, { job, faces, parts, memory }: EvaluationContext): Generator<number, PartResult> {
    const { own, ready } = this.placedPart(part, { job, faces, parts, memory });
    const { made, unbridged } = own;
    const found = memory.get(STRENGTH, { asked: part, part: made, unbridged, setting: job });
    const strength = memory.get(PLACED_STRENGTH, { id: part.id, strength: found, matrix: ready.matrix });
    const linework = yield* this.linework(part, { own, placed: ready, job, memory });
    const left = leftByTools(part, { made, ready, linework, job, engine: this.engine, memory });
    const readability = memory.get(READABILITY, left);
    return memory.get(PART_RESULT, { part, ready, own: made, strength, readability, linework });
  }

  /** A part in its own coordinates, and where it lies on the sheet. */
  private placedPart(
    part: Part,
    { job, faces, parts, memory }: EvaluationContext,
  ): { readonly own: OwnPart; readonly ready: PreparedPart } {
    const own = this.own(part, { job, faces, parts, memory });
    return { own, ready: memory.get(PLACED, { own: own.made, id: part.id, matrix: parts.matrixOf(part) }) };
  }

  /** A part in its own coordinates. Parts that differ in nothing but their place and name are prepared once. */
  private own(part: Part, { job, faces, parts, memory }: EvaluationContext): OwnPart {
    const ready = parts.own.get(part.id);
    if (ready) return ready;
    const copied = (id: string): PreparedPart | 'gone' | 'loop' => {
      const original = parts.byId.get(id);
      if (!original) return 'gone';
      return parts.reaches(id, part.id) ? 'loop' : this.own(original, { job, faces, parts, memory }).made;
    };
    const { engine, artworks, pictures } = this;
    const context = { engine, faces, artworks, pictures, memory, copied };
    const content = this.contentOf(part, faces, copied, memory);
    const bare = memory.get(OWN_SHAPE, { part, content, context });
    const { sheet } = job;
    const rim = bare.keep === 'outside' ? memory.get(RIM, { sheet, matrix: parts.matrixOf(part) }) : null;
    const unbridged = rim ? memory.get(ON_SHEET, { shape: bare, rim, engine }) : bare;
    const made = memory.get(BRIDGED, { part, unbridged, sheet, rim, engine });
    // What does not ask for the sheet goes by the shape, wherever it lies.
    const own = { made, unbridged, shape: made.outlines === bare.outlines ? bare : made };
    parts.own.set(part.id, own);
    return own;
  }

  /** All that a part's own shape is made of, as text: its members and steps, and what these refer to. */
  private contentOf(
    part: Part,
    faces: FaceLookup,
    copied: (id: string) => PreparedPart | 'gone' | 'loop',
    memory: Memory,
  ): string {
    const refersTo = part.members.map((member): number | string => {
      if (member.kind === 'copy') {
        const original = copied(member.of);
        return typeof original === 'string' ? original : memory.idOf(original);
      }
      if (member.kind === 'artwork') {
        const answer = this.artworks(member.drawing);
        return 'sentence' in answer ? answer.sentence : memory.idOf(answer.drawing);
      }
      if (member.kind === 'trace') {
        const answer = this.pictures(member.pixels);
        return 'sentence' in answer ? answer.sentence : memory.idOf(answer.raster);
      }
      if (member.kind !== 'lettering') return 0;
      const answers = facesOf(member).map((named) => faces(named));
      const originals = madeFrom(member).map(copied);
      return [
        ...originals.map((original) => (typeof original === 'string' ? original : memory.idOf(original))),
        ...answers.map((a) => ('typeface' in a ? memory.idOf(a.typeface) : a.sentence)),
      ].join('|');
    });
    const written = memory.of(part, 'content', () => {
      const { keep, selfAdhesive, overallWidth, members, steps } = part;
      return JSON.stringify([keep, selfAdhesive, overallWidth, members, steps.filter(isOfShape)]);
    });
    return `${written}${JSON.stringify(refersTo)}`;
  }

  /** What steps draw of a part, found in its own coordinates and put where it lies; yields the share done. */
  private *linework(
    part: Part,
    {
      own: { shape },
      placed: { matrix },
      job,
      memory,
    }: {
      readonly own: OwnPart;
      readonly placed: PreparedPart;
      readonly job: Job;
      readonly memory: Memory;
    },
  ): Generator<number, Linework> {
    const made = yield* drawSteps(part, shape, job, { engine: this.engine, memory });
    return made.size > 0 ? memory.get(PLACED_LINEWORK, { id: part.id, made, matrix }) : NO_LINEWORK;
  }
}

/** Whether a step changes the shape before its bridges. */
const isOfShape = (step: Step): boolean => !['bridge', 'drawn'].includes(kindOf(step).place);

/** The parts of one evaluation: by id, those ready, and which are made from which. */
class PartsOf {
  readonly byId: ReadonlyMap<string, Part>;
  /** Those prepared so far. */
  readonly own = new Map<string, OwnPart>();
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

  /** Whether a part is another, or is made from it directly or by way of others. */
  reaches(from: string, to: string): boolean {
    let known = this.reached.get(from);
    if (!known) {
      const met = new Set<string>();
      const toVisit = [from];
      for (let id = toVisit.pop(); id !== undefined; id = toVisit.pop()) {
        if (met.has(id)) continue;
        met.add(id);
        for (const member of this.byId.get(id)?.members ?? []) {
          toVisit.push(...madeFrom(member));
        }
      }
      known = met;
      this.reached.set(from, known);
    }
    return known.has(to);
  }
}
