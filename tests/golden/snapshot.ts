/** What a job comes to, written down: every path with its segments in order, the report and the findings. */
import { readJob } from '../../src/core/document/read';
import { drawnPaths } from '../../src/core/geometry/drawable';
import type { Path } from '../../src/core/geometry/path';
import type { Segment } from '../../src/core/geometry/segment';
import type { DrawnWork } from '../../src/core/job/drawn';
import type { Evaluator, JobResult } from '../../src/core/job/evaluate';
import { reportOf } from '../../src/core/job/report';
import { DRAWINGS } from '../support/any-document';
import { faces } from '../support/faces';
import type { Kept } from './documents';

/**
 * A path as it is written down. `kinds` has a letter for each segment: l line, q quadratic, c cubic, a arc; a capital where it
 * does not start where the one before ends, and then its start comes first. Numbers are its points in mm, in order; of an arc
 * its end, its centre and its sweep in radians.
 */
export type Line = { readonly kinds: string; readonly closed: boolean; readonly numbers: readonly number[] };

/** A shape of an operation, with its paths. */
export type ShapeNow = { readonly what: string; readonly of: string; readonly lines: readonly Line[] };

export type Snapshot = {
  readonly name: string;
  /** Of each part its outlines and open lines, before any operation. */
  readonly parts: readonly {
    readonly id: string;
    readonly outlines: readonly Line[];
    readonly open: readonly Line[];
  }[];
  /** Of each operation its shapes in running order. */
  readonly operations: readonly { readonly id: string; readonly shapes: readonly ShapeNow[] }[];
  readonly report: unknown;
  readonly findings: unknown;
};

const LETTERS: Readonly<Record<Segment['kind'], string>> = { line: 'l', quadratic: 'q', cubic: 'c', arc: 'a' };

function lineOf({ segments, closed }: Path): Line {
  let kinds = '';
  const numbers: number[] = [];
  let end: Segment | undefined;
  for (const s of segments) {
    const goesOn = end !== undefined && end.x1 === s.x0 && end.y1 === s.y0;
    const letter = LETTERS[s.kind];
    kinds += goesOn ? letter : letter.toUpperCase();
    if (!goesOn) numbers.push(s.x0, s.y0);
    if (s.kind === 'quadratic') numbers.push(s.ax, s.ay);
    if (s.kind === 'cubic') numbers.push(s.ax, s.ay, s.bx, s.by);
    numbers.push(s.x1, s.y1);
    if (s.kind === 'arc') numbers.push(s.cx, s.cy, s.sweep);
    end = s;
  }
  return { kinds, closed, numbers };
}

/** Polylines of a filling: straight segments between their points. */
function strokeLines(xy: Float64Array, start: Int32Array | readonly number[]): Line[] {
  const out: Line[] = [];
  for (let i = 0; i + 1 < start.length; i++) {
    const [from, to] = [start[i] as number, start[i + 1] as number];
    const kinds = `L${'l'.repeat(Math.max(0, to - from - 2))}`;
    out.push({ kinds, closed: false, numbers: [...xy.subarray(2 * from, 2 * to)] });
  }
  return out;
}

function shapeNow({ partId: of, what, drawable: d }: DrawnWork): ShapeNow {
  switch (d.kind) {
    case 'outline':
      return { what: 'outline', of, lines: [lineOf(d.path)] };
    case 'polyline':
      if ('xy' in d.geometry) return { what: 'strokes', of, lines: strokeLines(d.geometry.xy, d.geometry.start) };
      return { what: what === 'hatch' ? 'filling line' : 'line', of, lines: [lineOf(d.geometry)] };
    case 'dot':
      return { what: 'dot', of, lines: [{ kinds: '', closed: false, numbers: [d.at.x, d.at.y, d.r ?? -1] }] };
    case 'area':
      return { what: 'fill', of, lines: drawnPaths(d).map(lineOf) };
  }
}

function snapshotOf(name: string, result: JobResult, report: unknown): Snapshot {
  return {
    name,
    parts: result.parts.map((part) => ({
      id: part.id,
      outlines: part.outlines.map((o) => lineOf(o.path)),
      open: part.openPaths.map(lineOf),
    })),
    operations: result.operations
      .filter((o) => o.drawn.length > 0)
      .map((o) => ({ id: o.operation.id, shapes: o.drawn.map(shapeNow) })),
    report,
    findings: result.findings,
  };
}

/** A kept document read, evaluated and written down. */
export function snapshotNow({ name, document }: Kept, evaluator: Evaluator): Snapshot {
  for (const [id, text] of DRAWINGS) if (!evaluator.hasDrawing(id)) evaluator.addDrawing(id, text);
  const read = readJob(JSON.stringify(document));
  if (!read.ok) throw new Error(`${name}: ${read.sentences.join(' ')}`);
  const result = evaluator.evaluate(read.job, faces);
  return snapshotOf(name, result, JSON.parse(JSON.stringify(reportOf(read.job, result))));
}
