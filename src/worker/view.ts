/** What the sheet draws of a computed job: path data and figures, small enough to send from the worker at every change. */
import type { OperationKind, StepOf } from '../core/document/schema';
import { drawnPaths } from '../core/geometry/drawable';
import type { Box } from '../core/geometry/point';
import type { Finding } from '../core/inspect/finding';
import type { CutPiece } from '../core/job/as-cut';
import type { BridgeVariant } from '../core/job/compare-bridges';
import type { DrawnWork, OperationResult } from '../core/job/drawn';
import type { JobResult } from '../core/job/evaluate';
import { type DotTotal, dotTotals, totalSetDowns } from '../core/job/totals';
import { type Memory, NO_MEMORY } from '../core/memo';
import type { PieceKind } from '../core/prepare/pieces';
import { type CutView, cutViews, type PartsById } from './cut-view';
import { type PartView, partViewOf } from './part-view';
import { dotData, Printer } from './printing';

export type { CutView, PlaceView } from './cut-view';
export type { ClosingView, GapView, MemberView } from './member-view';
export type { CenterlineView, LetterLinesView, PartView, TieView, UntiedView } from './part-view';

/** What the bench shows of an operation. */
export type OperationView = {
  readonly id: string;
  readonly kind: OperationKind;
  readonly lengthMm: number;
  readonly fillMm2: number;
  /** How often the tool is set down. */
  readonly paths: number;
  readonly dots: readonly DotTotal[];
  /** The parts along whose outlines it runs, and whose insides it goes over as areas. */
  readonly outlinesOf: readonly OfPart[];
  readonly areasOf: readonly OfPart[];
  /** Parts it fills with lines; of which `d` is what it fills. */
  readonly hatchedParts: readonly OfPart[];
  /** The lines and dots it draws, by part, without those that fill. */
  readonly linesOf: readonly { readonly id: string; readonly d: string }[];
  /** Where its cuts begin and leave tabs. */
  readonly cuts: readonly CutView[];
};

/** A part that an operation works on; `d` is path data of what of it, null where that is all of its outlines as they are. */
export type OfPart = { readonly id: string; readonly d: string | null };

/** What the bench shows of a job. */
export type JobView = {
  readonly parts: readonly PartView[];
  readonly operations: readonly OperationView[];
  readonly findings: readonly Finding[];
  readonly workBox: Box;
};

/** A piece left standing after the cut. */
export type CutPieceView = {
  readonly partId: string | null;
  readonly kind: PieceKind;
  readonly d: string;
};

/** The pieces after the cut, as they are drawn. */
export const cutViewOf = (pieces: readonly CutPiece[], print: Printer): CutPieceView[] =>
  pieces.map(({ partId, kind, outlines }) => ({ partId, kind, d: print.outlines(outlines) }));

/** A part bridged in another way, as it is compared. */
export type BridgeVariantView = {
  readonly values: Pick<StepOf<'bridge'>, 'count' | 'direction'>;
  readonly d: string;
  readonly box: Box;
  readonly bridges: number;
  readonly unheld: number;
  readonly readability: number;
};

/** A way to bridge a part, as it is compared. */
export const variantViewOf = ({ prepared, ...figures }: BridgeVariant, print: Printer): BridgeVariantView => ({
  values: figures.values,
  d: print.outlines(prepared.outlines),
  box: prepared.box,
  bridges: figures.bridges,
  unheld: figures.unheld,
  readability: figures.readability,
});

/** A view as it is sent: parts that are the same object as in the view before, and findings that say the same, are named only. */
export type JobUpdate = Omit<JobView, 'parts' | 'findings'> & {
  readonly serial: number;
  readonly parts: readonly (PartView | string)[];
  readonly findings: readonly (Finding | string)[];
};

/** What is drawn of each part, of what is meant. */
function byPart(drawn: readonly DrawnWork[], isMeant: (d: DrawnWork) => boolean): ReadonlyMap<string, DrawnWork[]> {
  const parts = new Map<string, DrawnWork[]>();
  for (const d of drawn) {
    if (!isMeant(d)) continue;
    const list = parts.get(d.partId);
    if (list) list.push(d);
    else parts.set(d.partId, [d]);
  }
  return parts;
}

/** Parts with the paths drawn of them, which need not be told where they are the part's own outlines. */
const partsOf = (
  drawn: readonly DrawnWork[],
  isMeant: (d: DrawnWork) => boolean,
  { parts, print }: { readonly parts: PartsById; readonly print: Printer },
): OfPart[] =>
  [...byPart(drawn, isMeant)].map(([id, list]) => {
    const paths = list.flatMap((d) => drawnPaths(d.drawable));
    const own = new Set(parts.get(id)?.outlines.map((o) => o.path));
    const isOwn = paths.length === own.size && paths.every((path) => own.has(path));
    return { id, d: isOwn ? null : print.paths(paths) };
  });

/** Whether something runs along outlines: a cut with lead-ins or tabs is lines, and runs along them all the same. */
const isAlongOutline = ({ what, drawable }: DrawnWork, cuts: OperationResult['cuts']): boolean =>
  what === 'outline' && (drawable.kind === 'outline' || cuts.length > 0);

function linesOf({ drawn, cuts }: OperationResult, print: Printer): OperationView['linesOf'] {
  const byPart = new Map<string, string[]>();
  for (const one of drawn) {
    const { partId, what, drawable } = one;
    if (what === 'hatch' || drawable.kind === 'area' || isAlongOutline(one, cuts)) continue;
    const data = drawable.kind === 'dot' ? dotData(drawable.at, drawable.r) : print.paths(drawnPaths(drawable));
    const list = byPart.get(partId);
    if (list) list.push(data);
    else byPart.set(partId, [data]);
  }
  return [...byPart].map(([id, list]) => ({ id, d: list.join('') }));
}

const operationView = (
  result: OperationResult,
  { parts, print }: { readonly parts: PartsById; readonly print: Printer },
): OperationView => {
  const { operation, drawn, cuts, filledOnly, lengthMm, fillMm2 } = result;
  return {
    id: operation.id,
    kind: operation.kind,
    lengthMm,
    fillMm2,
    paths: totalSetDowns(drawn),
    dots: dotTotals(drawn),
    outlinesOf: partsOf(drawn, (d) => isAlongOutline(d, cuts), { parts, print }),
    areasOf: partsOf(drawn, (d) => d.drawable.kind === 'area', { parts, print }),
    hatchedParts: [...byPart(drawn, (d) => d.what === 'hatch').keys()].map((id) => {
      const only = filledOnly.find((f) => f.partId === id);
      return { id, d: only ? print.outlines(only.outlines) : null };
    }),
    linesOf: linesOf(result, print),
    cuts: cutViews(cuts, parts),
  };
};

/** The view of a computed job; `memory` keeps what is printed for the next. */
export function viewOf(result: JobResult, memory: Memory = NO_MEMORY): JobView {
  const print = new Printer(memory);
  const parts: PartsById = new Map(result.parts.map((part) => [part.id, part]));
  return {
    parts: result.parts.map((part) => partViewOf(part, memory)),
    operations: result.operations.map((o) => operationView(o, { parts, print })),
    findings: result.findings,
    workBox: result.workBox,
  };
}

/** A view as an update against the one before: parts that are the same are only named. */
export function updateOf(view: JobView, serial: number, before: JobView | null): JobUpdate {
  const partsBefore = new Map(before?.parts.map((part) => [part.id, part]));
  const told = new Map(before?.findings.map((finding) => [finding.key, JSON.stringify(finding)]));
  return {
    ...view,
    serial,
    parts: view.parts.map((part) => (partsBefore.get(part.id) === part ? part.id : part)),
    findings: view.findings.map((f) => (told.get(f.key) === JSON.stringify(f) ? f.key : f)),
  };
}

/** Entries as they were sent: those that are only named are those there were. */
const filledIn = <T extends object>(sent: readonly (T | string)[], before: ReadonlyMap<string, T>): T[] =>
  sent.flatMap((entry) => (typeof entry === 'string' ? (before.get(entry) ?? []) : [entry]));

/** The view an update stands for, where `before` is the view it was made against; what did not change is the same object. */
export const applyUpdate = (
  { serial: _serial, parts, findings, ...others }: JobUpdate,
  before: JobView | null,
): JobView => ({
  ...others,
  parts: filledIn(parts, new Map(before?.parts.map((part) => [part.id, part]))),
  findings: filledIn(findings, new Map(before?.findings.map((finding) => [finding.key, finding]))),
});
