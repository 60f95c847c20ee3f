/**
 * The proof of a job: the very bytes that go out, as the machine they are for understands and runs them, held against what the job means.
 * Thing by thing, as the machine reads the file; and by what lies on the table after the run, what came free when, and what was still to
 * be done then.
 */
import { type Program, programOf, type RunItem } from '../../machine/program';
import { type Run, runOf } from '../../machine/run';
import { type LayerSet, setFor } from '../../machine/set';
import { type CutLine, type Table, tableAfter } from '../../machine/table';
import { understoodOf } from '../../machine/understand';
import { partTitle } from '../document/part-words';
import type { Job } from '../document/schema';
import type { ReadDrawing } from '../formats/read-drawing';
import { writtenFormat } from '../formats/written';
import type { ClipEngine } from '../geometry/boolean/engine';
import { drawnLength } from '../geometry/drawable';
import { regionBox } from '../geometry/path';
import {
  type Box,
  growBox,
  invert,
  isEmptyBox,
  type Matrix,
  type Point,
  transformedBox,
  uniteBoxes,
} from '../geometry/point';
import { pointAt, type Segment } from '../geometry/segment';
import { asCut, type CutPiece } from '../job/as-cut';
import type { JobResult, Progress } from '../job/evaluate';
import { type MeantFile, provedOn } from '../job/machine-files';
import type { Machine } from '../schema/shop/machine';
import { settingsOn } from '../shop/in-force';
import { differencesOf } from './differences';
import { type MeantPiece, onTable } from './on-table';
import { itemsOf } from './read-items';

/** A file and what the machine read from it; a sentence where it could not be read. */
export type ReadFile = MeantFile & { readonly read: ReadDrawing | { readonly sentence: string } };

/** Something the proof finds: a sentence, and its place on the sheet in mm; null for all of a file. */
export type ProofFinding = {
  readonly code: string;
  readonly sentence: string;
  readonly box: Box | null;
};

/** A run of all files of a job one after the other, on the sheet. */
export type ProvedRun = {
  readonly program: Program;
  readonly run: Run;
  /** From what the machine reads to the sheet. */
  readonly matrix: Matrix;
  /** What is set for each operation of the program; null where nothing is. */
  readonly set: readonly (LayerSet | null)[];
  readonly table: Table;
  /** Of each cut the number of its item. */
  readonly cutItems: readonly number[];
  /** Numbers of the pieces on the table that the job means to keep. */
  readonly kept: ReadonlySet<number>;
};

/** The proof of a job. */
export type Proof = {
  readonly profile: { readonly machine: Machine; readonly set: readonly LayerSet[] };
  readonly findings: readonly ProofFinding[];
  readonly proved: ProvedRun | null;
};

/** What a machine is set to for the layers of files, as the job says. */
export function setOf(job: Job, files: readonly Pick<MeantFile, 'meant'>[]): LayerSet[] {
  return files.flatMap(({ meant: { drawing, operations } }) =>
    drawing.layers.flatMap((layer, i): LayerSet[] => {
      const operation = operations[i];
      if (!operation) return [];
      const settings = settingsOn(operation, job.sheet);
      const isLeft = operation.kerfSide === 'machine';
      const width =
        operation.kind === 'cut' ? (isLeft ? 0 : settings.kerf) : (operation.tip ?? operation.settings.toolWidth);
      return [
        {
          name: layer.name,
          colour: layer.colour,
          pen: layer.pen,
          kind: operation.kind,
          speed: settings.speed,
          passes: settings.passes,
          rowDistance: settings.rowDistance ?? layer.scan?.interval ?? null,
          direction: layer.scan?.direction ?? 0,
          width,
          tool: settings.tool,
        },
      ];
    }),
  );
}

/** Stock around work that lies off the sheet, in mm. */
const AROUND_MM = 5;

/**
 * The proof of files of a job, by what a machine read from each. Yields how far it is. `files` are in the order they are run.
 */
export function* prove(
  engine: ClipEngine,
  job: Job,
  result: JobResult,
  files: readonly ReadFile[],
): Generator<Progress, Proof> {
  // A machine of the shop, without its id there.
  const { id: _, ...machine } = provedOn(job);
  const set = setOf(job, files);
  const profile = { machine, set };
  const findings: ProofFinding[] = [];
  const reads: ReadDrawing[] = [];
  const programs: Program[] = [];
  for (const [done, file] of files.entries()) {
    yield { done, of: files.length + 2 };
    const about = (sentence: string) => (files.length > 1 ? `${file.name}: ${sentence}` : sentence);
    if ('sentence' in file.read) {
      findings.push({ code: 'unread', sentence: about(file.read.sentence), box: null });
      continue;
    }
    reads.push(file.read);
    const keeps = { ...writtenFormat(file.format).keeps, curves: file.keepsCurves };
    const toSheet = invert(file.meant.matrix);
    for (const { code, sentence, box } of differencesOf(file.meant.drawing, itemsOf(file.read), keeps))
      findings.push({ code, sentence: about(sentence), box: box && transformedBox(box, toSheet) });
    // How long it takes is reckoned of all files together.
    const program = programOf(file.read);
    programs.push(program);
    const { troubles } = understoodOf(file.read, program, { profile: machine, set, run: null });
    for (const sentence of troubles) findings.push({ code: 'machine', sentence: about(sentence), box: null });
  }
  const [first] = files;
  if (!first || reads.length === 0) return { profile, findings, proved: null };
  yield { done: files.length, of: files.length + 2 };
  const [only, ...others] = programs as [Program, ...Program[]];
  const program = others.length === 0 ? only : programOf(joined(reads));
  const proved = provedRun(engine, job, { machine, set, program, matrix: first.meant.matrix });
  const toSheet = invert(first.meant.matrix);
  for (const { code, sentence, box } of workTooLate(proved))
    findings.push({ code, sentence, box: transformedBox(box, toSheet) });
  yield { done: files.length + 1, of: files.length + 2 };
  const around = {
    matrix: first.meant.matrix,
    slitsMm2: slitsOf(job, result),
    toleranceMm:
      (first.keepsCurves ? 0 : Math.max(...first.meant.drawing.layers.map((l) => l.tolerance))) +
      (writtenFormat(first.format).keeps.gridMm ?? 0),
  };
  let lying = onTable(yield* meantPieces(engine, job, { result, how: 'in chords' }), proved.table, around);
  // What is as wide as chords stray may hang together in chords and not exactly: before anything is said it is looked at exactly.
  if (lying.found.length > 0)
    lying = onTable(yield* meantPieces(engine, job, { result, how: 'exact' }), proved.table, around);
  for (const { code, sentence, box } of lying.found)
    findings.push({ code, sentence, box: transformedBox(box, toSheet) });
  return { profile, findings, proved: { ...proved, kept: lying.kept } };
}

/** What was read from several files as from one. */
function joined(reads: readonly ReadDrawing[]): ReadDrawing {
  const [first, ...rest] = reads as [ReadDrawing, ...ReadDrawing[]];
  const shapes = [...first.shapes];
  const points = [...first.points];
  const groups = [...first.groups];
  for (const next of rest) {
    for (const p of next.points) points.push({ ...p, before: p.before + shapes.length });
    for (const s of next.shapes) shapes.push({ ...s, group: s.group + groups.length });
    groups.push(...next.groups);
  }
  return { ...first, shapes, points, groups };
}

function provedRun(
  engine: ClipEngine,
  { sheet }: Job,
  {
    machine,
    set,
    program,
    matrix,
  }: {
    readonly machine: Machine;
    readonly set: readonly LayerSet[];
    readonly program: Program;
    readonly matrix: Matrix;
  },
): Omit<ProvedRun, 'kept'> {
  const own = program.operations.map((o) => setFor(set, o));
  const cuts: CutLine[] = [];
  const cutItems: number[] = [];
  program.items.forEach((item, i) => {
    const by = own[item.operation];
    if (by?.kind !== 'cut' || item.kind === 'areas') return;
    cuts.push({ path: item.paths[0] ?? null, at: item.from, widthMm: by.width ?? 0 });
    cutItems.push(i);
  });
  const work = program.operations.reduce<Box>(
    (all, o) => uniteBoxes(all, o.box),
    transformedBox(sheetBox(sheet), matrix),
  );
  const isOff = program.operations.some((o) => !isWithin(o.box, transformedBox(sheetBox(sheet), matrix)));
  const table = tableAfter(engine, isOff ? growBox(work, AROUND_MM) : work, cuts);
  return { program, run: runOf(program, { machine, set }), matrix: invert(matrix), set: own, table, cutItems };
}

const sheetBox = ({ width, height }: Job['sheet']): Box => ({ minX: 0, minY: 0, maxX: width, maxY: height });
const isWithin = (inner: Box, outer: Box): boolean =>
  isEmptyBox(inner) ||
  (inner.minX >= outer.minX && inner.minY >= outer.minY && inner.maxX <= outer.maxX && inner.maxY <= outer.maxY);

/** What is done to a piece after it came free. */
function* workTooLate({ program, set, table, cutItems }: Omit<ProvedRun, 'kept'>): Generator<{
  readonly code: string;
  readonly sentence: string;
  readonly box: Box;
}> {
  const told = new Set<string>();
  for (const [i, item] of program.items.entries()) {
    const kind = set[item.operation]?.kind;
    if (kind === 'cut') continue;
    for (const at of placesOf(item)) {
      const piece = table.pieceAt(at);
      const lying = piece === null ? undefined : table.pieces[piece];
      if (lying?.freeAfter == null || (cutItems[lying.freeAfter] ?? Infinity) > i) continue;
      const key = `${item.operation}|${piece}`;
      if (told.has(key)) continue;
      told.add(key);
      const called = program.operations[item.operation]?.name ?? '';
      yield {
        code: 'late',
        sentence: `A piece comes free before “${called}” on it is done.`,
        box: lying.box,
      };
    }
  }
  const [loose] = table.loose;
  if (loose === undefined) return;
  const boxes = table.loose.map((cut) => boxOfItem(program.items[cutItems[cut] as number] as RunItem));
  yield {
    code: 'loose',
    sentence:
      boxes.length === 1
        ? 'A cut runs in a piece that has come free.'
        : `${boxes.length} cuts run in pieces that have come free.`,
    box: boxes[0] as Box,
  };
}

const boxOfItem = ({ paths, from, to }: RunItem): Box =>
  paths.length > 0 ? regionBox(paths) : { minX: from.x, minY: from.y, maxX: to.x, maxY: to.y };

/** Looked at so often along a line. */
const LOOKS = 5;

/** Places that a thing works on. */
function placesOf({ kind, paths, from }: RunItem): Point[] {
  if (kind === 'point') return [from];
  return paths.flatMap(({ segments }) => {
    const looks = kind === 'areas' ? 1 : Math.min(LOOKS, segments.length);
    return Array.from({ length: looks }, (_, k) =>
      pointAt(segments[Math.floor((k * segments.length) / looks)] as Segment, 0.5),
    );
  });
}

/** Pieces that are to be kept, with what they are called and what holds them. */
function* meantPieces(
  engine: ClipEngine,
  job: Job,
  { result, how }: { readonly result: JobResult; readonly how: 'exact' | 'in chords' },
): Generator<Progress, MeantPiece[]> {
  const pieces = yield* asCut(engine, job, result, how);
  const held = new Set(
    result.operations.flatMap((o) => o.cuts.flatMap((cut) => (cut.tabs.length > 0 ? [cut.partId] : []))),
  );
  return pieces.map((piece): MeantPiece => {
    const part = job.parts.find((p) => p.id === piece.partId);
    return {
      ...piece,
      called: part ? calledOf(piece, partTitle(part)) : piece.kind === 'main' ? 'The sheet' : 'A piece of the sheet',
      isHeld: piece.partId !== null && held.has(piece.partId),
      isAnySize: (part?.sides.length ?? 0) > 0,
    };
  });
}

const calledOf = ({ kind }: CutPiece, title: string): string =>
  kind === 'main' ? title : kind === 'island' ? `An island of ${title}` : `A loose piece of ${title}`;

/** What lines that are cut, and are no outlines, may take away, in mm². */
const slitsOf = (job: Job, { operations }: JobResult): number =>
  operations
    .filter(({ operation }) => operation.on && operation.kind === 'cut')
    .flatMap(({ operation, drawn }) =>
      drawn.flatMap(({ what, drawable }) =>
        what === 'outline' && drawable.kind === 'outline'
          ? []
          : [(settingsOn(operation, job.sheet).kerf ?? 0) * drawnLength(drawable)],
      ),
    )
    .reduce((sum, a) => sum + a, 0);
