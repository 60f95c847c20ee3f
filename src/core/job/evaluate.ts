/**
 * A job computed: every part prepared, paths given to operations in running order, findings. Pure, and held by content:
 * an edit recomputes only what hangs on it.
 */

import type { Job, Operation, Part } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { nestMeasured } from '../geometry/nesting';
import { type Box, boxesMeet, EMPTY_BOX, uniteBoxes } from '../geometry/point';
import type { Finding } from '../inspect/finding';
import { inspect } from '../inspect/inspect';
import { type Strength, strengthOf } from '../inspect/strength';
import { type Outline, outlineLength } from '../prepare/outline';
import { type FaceLookup, type PreparedPart, preparePart } from '../prepare/part';
import { weldCaches } from '../prepare/weld';
import { ResultCache } from '../result-cache';
import { insideFirst } from '../toolpath/order';

export type OperationShape =
  | { readonly what: 'outline'; readonly partId: string; readonly outline: Outline }
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
const STRENGTHS_HELD = 600;

export class Evaluator {
  private readonly caches = weldCaches();
  private readonly parts = new ResultCache<PreparedPart>(PARTS_HELD);
  private readonly orders = new ResultCache<readonly number[]>(ORDERS_HELD);
  private readonly strengths = new ResultCache<Strength>(STRENGTHS_HELD);
  private readonly serials = new WeakMap<object, number>();
  private nextSerial = 1;

  constructor(readonly engine: ClipEngine) {}

  /** Evaluate step by step: yields after each part, so that a caller can show progress or stop; returns the result. */
  *steps(job: Job, faces: FaceLookup): Generator<Progress, JobResult> {
    const shown = job.parts.filter((part) => !part.hidden);
    const prepared: PreparedPart[] = [];
    const strengths: Strength[] = [];
    const parts = new PartsOf(job);
    for (const part of shown) {
      const ready = this.prepared(part, job, faces, parts);
      prepared.push(ready);
      strengths.push(this.strengthOf(ready, job));
      yield { done: prepared.length, of: shown.length + 1 };
    }
    const byId = new Map(prepared.map((p) => [p.id, p]));
    const strengthById = new Map(prepared.map((p, i) => [p.id, strengths[i] as Strength]));
    const operations = job.operations.map((operation) => this.operationResult(operation, shown, byId));
    let workBox = EMPTY_BOX;
    for (const { operation, shapes } of operations)
      if (operation.on)
        for (const shape of shapes)
          for (const { box } of shape.what === 'outline' ? [shape.outline] : shape.outlines)
            workBox = uniteBoxes(workBox, box);
    return { parts: prepared, strengths, operations, findings: inspect(job, byId, strengthById), workBox };
  }

  /** Evaluate in one go. */
  evaluate(job: Job, faces: FaceLookup): JobResult {
    const steps = this.steps(job, faces);
    for (;;) {
      const step = steps.next();
      if (step.done) return step.value;
    }
  }

  /** One part prepared by itself; undefined when there is no such part. */
  prepare(job: Job, partId: string, faces: FaceLookup): PreparedPart | undefined {
    const parts = new PartsOf(job);
    const part = parts.byId.get(partId);
    return part && this.prepared(part, job, faces, parts);
  }

  private prepared(part: Part, job: Job, faces: FaceLookup, parts: PartsOf): PreparedPart {
    const ready = parts.ready.get(part.id);
    if (ready) return ready;
    const copied = (id: string): PreparedPart | 'gone' | 'loop' => {
      const original = parts.byId.get(id);
      if (!original) return 'gone';
      return parts.reaches(id, part.id) ? 'loop' : this.prepared(original, job, faces, parts);
    };
    const { work: _work, name: _name, locked: _locked, ...shape } = part;
    const dependsOn = part.members.map((member) => {
      if (member.kind === 'copy') {
        const original = copied(member.of);
        return typeof original === 'string' ? original : this.serial(original);
      }
      if (member.kind !== 'lettering') return '';
      const answer = faces(member);
      return 'typeface' in answer ? answer.typeface.serial : answer.sentence;
    });
    const sheet = part.keep === 'outside' ? [job.sheet.width, job.sheet.height] : [];
    const made = this.parts.get(JSON.stringify([shape, dependsOn, sheet]), () =>
      preparePart(part, job.sheet, { engine: this.engine, faces, caches: this.caches, copied }),
    );
    parts.ready.set(part.id, made);
    return made;
  }

  private strengthOf(part: PreparedPart, { sheet }: Job): Strength {
    const [least, kerf] = [sheet.leastWidth ?? 0, sheet.kerf ?? 0];
    return this.strengths.get(`${this.serial(part)}|${least}|${kerf}`, () => strengthOf(part.kept, least, kerf));
  }

  private serial(of: object): number {
    let known = this.serials.get(of);
    if (!known) {
      known = this.nextSerial++;
      this.serials.set(of, known);
    }
    return known;
  }

  private operationResult(
    operation: Operation,
    parts: readonly Part[],
    prepared: ReadonlyMap<string, PreparedPart>,
  ): OperationResult {
    const fills: OperationShape[] = [];
    const outlines: { what: 'outline'; partId: string; outline: Outline }[] = [];
    const sources: PreparedPart[] = [];
    for (const part of parts) {
      const ready = prepared.get(part.id) as PreparedPart;
      const mine = part.work.filter((w) => w.operation === operation.id);
      if (ready.outlines.length === 0) continue;
      if (mine.some((w) => w.what === 'fill')) fills.push({ what: 'fill', partId: part.id, outlines: ready.outlines });
      if (!mine.some((w) => w.what === 'outline')) continue;
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
      shapes: [...fills, ...order.map((i) => outlines[i] as (typeof outlines)[number])],
      lengthMm: outlines.reduce((sum, o) => sum + outlineLength(o.outline), 0),
      fillMm2: fills.reduce((sum, f) => sum + (f.what === 'fill' ? f.outlines.reduce((a, o) => a + o.area, 0) : 0), 0),
    };
  }
}

/** The parts of one evaluation: by id, those ready, and which copies lead to which. */
class PartsOf {
  readonly byId: ReadonlyMap<string, Part>;
  readonly ready = new Map<string, PreparedPart>();
  private readonly reached = new Map<string, ReadonlySet<string>>();

  constructor(job: Job) {
    this.byId = new Map(job.parts.map((part) => [part.id, part]));
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

/** Nesting over the outlines of several parts, one after the other; each part's own where no two have a place in common. */
function parentsOver(parts: readonly PreparedPart[]): readonly number[] {
  const apart = parts.every((a, i) => parts.every((b, j) => j <= i || !boxesMeet(a.box, b.box)));
  if (!apart) return nestMeasured(parts.flatMap((part) => part.outlines)).parent;
  const parents: number[] = [];
  for (const part of parts) {
    const first = parents.length;
    for (const o of part.outlines) parents.push(o.parent < 0 ? -1 : o.parent + first);
  }
  return parents;
}
