/**
 * What a machine understands of a file: the operations it would run and in which order, how long the ways are and what they take, what it
 * passes over, and whether all of it fits its bed. It knows only what the file says, the profile of the machine it stands for, and what
 * that is set to; nothing of the job the file was made from.
 */
import type { ReadDrawing } from '../core/formats/read-drawing';
import { floatAt } from '../core/geometry/elements';
import { countSegments } from '../core/geometry/path';
import { type Box, boxHeight, boxWidth, EMPTY_BOX, isEmptyBox, uniteBoxes } from '../core/geometry/point';
import type { Machine } from '../core/schema/shop/machine';
import { isFilled, type Program, type ProgramOperation, programOf } from './program';
import { readByMachine } from './read';
import { type Run, runOf } from './run';
import { type LayerSet, setFor } from './set';

/** An operation as a machine understands it. */
export type UnderstoodOperation = ProgramOperation & {
  /** By the colours or layers that the machine reads, or what is set for it; null where it tells none apart. */
  readonly kind: Kind | null;
  /** Null where no speed is set for it, or no machine is given. */
  readonly seconds: number | null;
};

/** What a file comes to on a machine. Lengths in mm. */
export type Understood = {
  /** "SVG", "DXF R12". */
  readonly format: string;
  /** What its numbers are, and whether the file itself says so. */
  readonly unit: string;
  readonly isUnitStated: boolean;
  /** In the order they are run: as the file first comes to each. */
  readonly operations: readonly UnderstoodOperation[];
  readonly box: Box;
  readonly segments: number;
  /** What all of it takes on the machine, in seconds, shown at some speed where none is set; 0 without a machine. */
  readonly wholeSeconds: number;
  /** Sentences: why it would not run as meant. None: it would. */
  readonly troubles: readonly string[];
  /** Sentences about the file that keep nothing from running. */
  readonly notes: readonly string[];
};

type Kind = keyof NonNullable<Machine['file']['colours']>;
const KINDS: readonly Kind[] = ['cut', 'score', 'engrave', 'mark'];

/** A machine that a file is held against. */
export type Profile = Machine;

/** Larger than the bed by less than this, in mm, is as large as it. */
const FITS_MM = 0.01;
/** What a machine understands of a file, or a sentence why it can't be read. Of a file with pages that is the first. */
export async function understand(
  bytes: Uint8Array,
  profile: Profile | null,
  set: readonly LayerSet[] = [],
): Promise<Understood | { readonly sentence: string }> {
  const made = await readAndUnderstood(bytes, profile, set);
  return 'sentence' in made ? made : made.understood;
}

/** The same, with what was read; what the machine is set to may hang on that. */
export async function readAndUnderstood(
  bytes: Uint8Array,
  profile: Profile | null,
  set: readonly LayerSet[] | ((read: ReadDrawing) => readonly LayerSet[]),
): Promise<{ readonly understood: Understood; readonly read: ReadDrawing } | { readonly sentence: string }> {
  const read = await readByMachine(bytes, profile);
  if ('sentence' in read) return read;
  const own = typeof set === 'function' ? set(read.drawing) : set;
  const understood = understoodOf(read.drawing, programOf(read.drawing), { profile, set: own });
  const pages = read.pages < 2 ? [] : [`It has ${read.pages} pages; a machine runs the first.`];
  return { understood: { ...understood, troubles: [...pages, ...understood.troubles] }, read: read.drawing };
}

/** The same of what was read. */
export function understoodOf(
  found: ReadDrawing,
  program: Program,
  {
    profile,
    set,
    run = profile && runOf(program, { machine: profile, set }),
  }: { readonly profile: Profile | null; readonly set: readonly LayerSet[]; readonly run?: Run | null },
): Understood {
  const operations = program.operations.map(
    (o, i): UnderstoodOperation => ({
      ...o,
      kind: (profile && kindOf(o, profile)) ?? setFor(set, o)?.kind ?? null,
      seconds: run?.operations[i] ?? null,
    }),
  );
  const box = operations.reduce<Box>((all, o) => uniteBoxes(all, o.box), EMPTY_BOX);
  const segments = found.shapes.reduce((sum, s) => sum + countSegments(s.paths), 0);
  const made = {
    format: found.format,
    unit: found.claim.unit,
    isUnitStated: found.claim.stated,
    operations,
    box,
    segments,
    wholeSeconds: run && run.ends.length > 0 ? floatAt(run.ends, run.ends.length - 1) : 0,
  };
  const notes = [...found.notes];
  const both = found.shapes.filter((s) => s.fill !== null && !isFilled(s)).length;
  if (both > 0)
    notes.push(
      `${several(both, 'shape is', 'shapes are')} filled and drawn along its edge as well: it is run along the edge here.`,
    );
  if (!found.claim.stated) notes.push(`It does not say what its numbers are; they were taken for ${found.claim.unit}.`);
  return { ...made, notes, troubles: [...passedOver(found), ...(profile ? against(profile, found, made) : [])] };
}

/** What a machine does with a layer: by its name where the machine goes by names, by its colour where it goes by colours; null for nothing. */
function kindOf({ name, colour }: ProgramOperation, { file: { colours, layers } }: Profile): Kind | null {
  const said = (by: Record<Kind, string> | null, value: string): Kind | null =>
    KINDS.find((kind) => by?.[kind].toLowerCase() === value.toLowerCase()) ?? null;
  return said(layers, name) ?? said(colours, colour);
}

const several = (count: number, one: string, more: string): string =>
  `${count.toLocaleString('en')} ${count === 1 ? one : more}`;

/** What of a file no machine runs. */
function* passedOver({ isWhole, shapes, points, texts, pictures, unread, clips }: ReadDrawing): Generator<string> {
  if (!isWhole) yield 'It is not whole: what is missing would not be run.';
  if (shapes.length + points.length === 0) yield 'There is nothing in it to run.';
  if (texts.length > 0)
    yield `${several(texts.length, 'line of words is', 'lines of words are')} passed over: they are no outlines.`;
  if (pictures.length > 0) yield `${several(pictures.length, 'picture is', 'pictures are')} passed over.`;
  for (const { kind, count } of unread) yield `Passed over: ${count.toLocaleString('en')} × ${kind}.`;
  const clipped = shapes.filter((s) => s.clips.length > 0).length;
  if (clips.length > 0 && clipped > 0)
    yield `${several(clipped, 'shape is', 'shapes are')} cut off by a clip, which a machine does not heed.`;
}

const FORMAT_WORDS = { svg: 'SVG', dxf: 'DXF', pdf: 'PDF', hpgl: 'HPGL' } as const;
const mm = (value: number): string => `${Number(value.toFixed(2))} mm`;

/** What a machine does not do of a file. */
function* against(
  { name, bed, areas, file }: Profile,
  { format, shapes }: ReadDrawing,
  { operations, box, segments }: Pick<Understood, 'operations' | 'box' | 'segments'>,
): Generator<string> {
  if (!format.toUpperCase().startsWith(FORMAT_WORDS[file.format]))
    yield `${name} reads ${FORMAT_WORDS[file.format]}; this is ${format}.`;
  if (!isEmptyBox(box) && (boxWidth(box) > bed.width + FITS_MM || boxHeight(box) > bed.height + FITS_MM))
    yield `It is ${mm(boxWidth(box))} × ${mm(boxHeight(box))}; the bed of ${name} is ${mm(bed.width)} × ${mm(bed.height)}.`;
  if (file.mostSegments !== null && segments > file.mostSegments)
    yield `It has ${segments.toLocaleString('en')} segments; ${name} takes ${file.mostSegments.toLocaleString('en')} at most.`;
  const kinds = new Set(shapes.flatMap((s) => s.paths.flatMap((p) => p.segments.map((seg) => seg.kind))));
  const isCurved = kinds.has('quadratic') || kinds.has('cubic');
  if (file.curves !== 'curves' && isCurved)
    yield `It has curves; ${name} reads ${file.curves === 'arcs' ? 'lines and arcs' : 'lines'} alone.`;
  else if (file.curves === 'lines' && kinds.has('arc')) yield `It has arcs; ${name} reads lines alone.`;
  for (const o of operations) {
    const called = o.name || o.colour;
    if ((file.colours || file.layers) && o.kind === null)
      yield `${name} does nothing with “${called}”: it is no ${file.layers ? 'layer' : 'colour'} it reads.`;
    if (o.isFilled && o.open > 0)
      yield `${several(o.open, 'open path', 'open paths')} of “${called}” ${o.open === 1 ? 'is' : 'are'} filled: where it closes is up to the machine.`;
    if (o.isFilled && areas === null) yield `“${called}” is filled, and ${name} does not go over areas.`;
  }
}
