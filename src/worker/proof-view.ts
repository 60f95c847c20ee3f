/** What the page shows of a proof: what was found, and the run as it is played on the sheet. */
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { floatAt } from '../core/geometry/elements';
import { flattenPath, type Path, regionBox, transformPath } from '../core/geometry/path';
import { pathData } from '../core/geometry/path-data';
import { applyMatrix, type Box, type Matrix, transformedBox } from '../core/geometry/point';
import type { MeantFile } from '../core/job/machine-files';
import type { Proof, ProofFinding, ProvedRun } from '../core/proof/prove';
import type { OperationKind } from '../core/schema/operations';
import type { Machine } from '../core/schema/shop/machine';
import type { LayerSet } from '../machine/set';

/** A file that was proved: its very bytes, and what tells them from any others. */
export type ProvedFile = { readonly name: string; readonly bytes: Uint8Array; readonly sha256: string };

/** An operation as it is played, in seconds from the start of the run. */
export type PlayedOperation = {
  readonly name: string;
  /** Null where the machine does nothing with it. */
  readonly kind: OperationKind | null;
  readonly begin: number;
  readonly end: number;
  /** Whether its speed is known; otherwise it is shown at some speed. */
  readonly isTimed: boolean;
  readonly paths: number;
  readonly lengthMm: number;
  /** How wide it works, in mm; 0 where that is not known. */
  readonly widthMm: number;
};

/** A piece of the stock, as path data on the sheet, and when nothing holds it any more, in seconds; null: held to the end. */
export type PlayedPiece = {
  readonly d: string;
  readonly box: Box;
  readonly free: number | null;
  /** Whether the job means to keep it. */
  readonly isKept: boolean;
};

/** A run as it is played. Things are run in their order; lines of all of them are packed, each its chords on the sheet in mm. */
export type PlayedRun = {
  readonly seconds: number;
  readonly operations: readonly PlayedOperation[];
  /** Of each thing its operation, and when it is begun and done. */
  readonly operation: Uint16Array;
  readonly begins: Float64Array;
  readonly ends: Float64Array;
  /** Points of all lines as x, y pairs; those of thing i from start[i] to start[i + 1]. */
  readonly xy: Float32Array;
  readonly start: Int32Array;
  /** Outlines of what is gone over as areas, by the number of the thing, with their bounds. */
  readonly areas: readonly { readonly thing: number; readonly d: string; readonly box: Box }[];
  readonly pieces: readonly PlayedPiece[];
};

/** A proof as the page has it. */
export type ProofView = {
  /** What the machine is called; null where the job has none. */
  readonly machine: string | null;
  readonly files: readonly ProvedFile[];
  /** The machine that they are for, and what it is set to, by layer. */
  readonly profile: { readonly machine: Machine; readonly set: readonly LayerSet[] };
  /** Why there are no files. */
  readonly refused: readonly string[];
  readonly findings: readonly ProofFinding[];
  readonly run: PlayedRun | null;
};

/** How exactly lines are shown that are run, in mm. */
const SHOWN_MM = 0.03;

/** A proof of files, for the page. */
export const proofViewOf = (
  machine: string | null,
  files: readonly MeantFile[],
  { findings, proved, profile }: Proof,
): ProofView => ({
  machine,
  profile,
  files: files.map(({ name, bytes }) => ({ name, bytes, sha256: bytesToHex(sha256(bytes)) })),
  refused: [],
  findings,
  run: proved && playedRun(proved),
});

/** What the page has where no file was made. */
export const refusedProof = (
  machine: string | null,
  profile: ProofView['profile'],
  refused: readonly string[],
): ProofView => ({
  machine,
  profile,
  files: [],
  refused,
  findings: [],
  run: null,
});

function playedRun({ program, run, matrix, set, table, cutItems, kept }: ProvedRun): PlayedRun {
  const { items } = program;
  const { xy, start } = packed(
    items.map(({ kind, paths, from }) => (kind === 'line' ? paths : kind === 'point' ? [pointPath(from)] : [])),
    matrix,
  );
  return {
    seconds: items.length > 0 ? floatAt(run.ends, items.length - 1) : 0,
    operations: program.operations.map((o, i) => ({
      name: o.name || o.colour,
      kind: set[i]?.kind ?? null,
      begin: o.end > o.first ? floatAt(run.begins, o.first) : 0,
      end: o.end > o.first ? floatAt(run.ends, o.end - 1) : 0,
      isTimed: run.operations[i] !== null,
      paths: o.paths,
      lengthMm: o.lengthMm,
      widthMm: set[i]?.width ?? 0,
    })),
    operation: Uint16Array.from(items, (item) => item.operation),
    begins: run.begins,
    ends: run.ends,
    xy,
    start,
    areas: items.flatMap(({ kind, paths }, thing) => {
      if (kind !== 'areas') return [];
      const moved = paths.map((p) => transformPath(p, matrix));
      return [{ thing, d: pathData(moved, null, 3), box: transformedBox(regionBox(paths), matrix) }];
    }),
    pieces: table.pieces.map(({ outlines, box, freeAfter }, i) => ({
      d: outlines.map((xy) => ringData(xy, matrix)).join(''),
      box: transformedBox(box, matrix),
      free: freeAfter === null ? null : floatAt(run.ends, cutItems[freeAfter] as number),
      isKept: kept.has(i),
    })),
  };
}

const pointPath = ({ x, y }: { readonly x: number; readonly y: number }): Path => ({
  closed: false,
  segments: [{ kind: 'line', x0: x, y0: y, x1: x, y1: y }],
});

/** The chords of each thing's one line, packed. */
function packed(lines: readonly (readonly Path[])[], matrix: Matrix): Pick<PlayedRun, 'xy' | 'start'> {
  const numbers: number[] = [];
  const start = new Int32Array(lines.length + 1);
  lines.forEach(([path], i) => {
    const points = path ? flattenPath(path, SHOWN_MM) : [];
    const [first] = points;
    for (const p of path?.closed && first ? [...points, first] : points) {
      const { x, y } = applyMatrix(matrix, p);
      numbers.push(x, y);
    }
    start[i + 1] = numbers.length / 2;
  });
  return { xy: Float32Array.from(numbers), start };
}

function ringData(xy: Float64Array, matrix: Matrix): string {
  let out = '';
  for (let i = 0; i + 1 < xy.length; i += 2) {
    const { x, y } = applyMatrix(matrix, { x: floatAt(xy, i), y: floatAt(xy, i + 1) });
    out += `${i === 0 ? 'M' : 'L'}${x.toFixed(3)} ${y.toFixed(3)}`;
  }
  return `${out}Z`;
}
