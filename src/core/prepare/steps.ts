/** The steps after welding, in the order the part has them: each takes a clean shape and gives a clean shape. */
import type { Part } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { BooleanSession, FLATTEN_MM, type LabelledPath } from '../geometry/boolean/session';
import type { Path } from '../geometry/path';
import type { Matrix } from '../geometry/point';
import type { Layout } from '../lettering/layout';
import { barsOf } from './bar';
import { border } from './border';
import type { BridgeNotes } from './bridges/notes';
import { measureOutlines, type Outline, transformOutlines } from './outline';
import { type Piece, piecesOf } from './pieces';
import { plate } from './plate';
import type { Source } from './source';
import { type Thickened, thicken } from './thicken';
import { type Tie, type Tied, tiesFor } from './ties';

export type StepNotes = {
  /** Holes that thickening kept open, and how wide, in mm. */
  readonly heldOpen: Thickened['held'];
  readonly ties: readonly Tie[];
  /** The pieces there were before they were tied, with their keys; null when there is no such step. */
  readonly untied: { readonly pieces: readonly Piece[]; readonly keys: readonly string[] } | null;
  /** Keys of pieces left loose on purpose. */
  readonly leftLoose: readonly string[];
  /** Pieces that are too many to be tied; 0 when they were. */
  readonly tooManyToTie: number;
  /** The islands there were and what bridging did; null when there are none and nothing was to be bridged. */
  readonly bridged: BridgeNotes | null;
  /**
   * The overall width that was asked for and the one it has, in mm, and how many times as large as its members say the part is
   * for it; null when none was asked for.
   */
  readonly overall: { readonly askedMm: number; readonly gotMm: number; readonly factor: number } | null;
};

type SetMember = { readonly layout: Layout | null; readonly matrix: Matrix };

export type StepContext = {
  readonly part: Part;
  readonly members: readonly SetMember[];
  readonly sources: readonly Source[];
};

/** What the steps of a part but bridging make of its bare shape, and whether that is what stays or what is cut away. */
export function applySteps(
  engine: ClipEngine,
  bare: readonly Outline[],
  { part, members, sources }: StepContext,
): { readonly shape: readonly Outline[]; readonly keep: Part['keep']; readonly notes: StepNotes } {
  let notes: StepNotes = {
    heldOpen: [],
    ties: [],
    untied: null,
    leftLoose: [],
    tooManyToTie: 0,
    bridged: null,
    overall: null,
  };
  let shape = bare;
  let keep = part.keep;
  for (const step of part.steps) {
    if (!step.on || shape.length === 0) continue;
    if (step.kind === 'thicken') {
      const done = thicken(engine, shape, step);
      shape = done.outlines;
      notes = { ...notes, heldOpen: done.held };
    } else if (step.kind === 'bar') {
      const bars = members.flatMap((m, i) =>
        m.layout && part.members[i]?.role === 'join' ? barsOf(m.layout, m.matrix, step) : [],
      );
      if (bars.length > 0) shape = united(engine, shape, bars);
    } else if (step.kind === 'tie' && part.keep === 'inside') {
      const pieces = piecesOf(shape);
      const tied = tiesFor(shape, pieces, sources, step);
      shape = joined(engine, shape, tied);
      notes = {
        ...notes,
        ties: tied.ties,
        untied: { pieces, keys: tied.keys },
        leftLoose: tied.left,
        tooManyToTie: tied.tooMany,
      };
    } else if (step.kind === 'border') shape = border(engine, shape, step);
    else if (step.kind === 'plate' && keep === 'outside') {
      shape = plate(engine, shape, step);
      keep = 'inside';
    }
  }
  return { shape, keep, notes };
}

const unlabelled = (paths: readonly Path[]): LabelledPath[] =>
  paths.map((path) => ({ path, labels: path.segments.map(() => -1) }));

/** One clean shape of outlines that may overlap and of strips laid over them. */
function united(engine: ClipEngine, shape: readonly Outline[], strips: readonly Path[]): readonly Outline[] {
  const session = new BooleanSession(engine, FLATTEN_MM, true);
  const polygons = [...session.addLabelled(shape), ...session.addLabelled(unlabelled(strips))];
  return measureOutlines(session.rebuild(session.clip('union', polygons)));
}

function joined(engine: ClipEngine, shape: readonly Outline[], { ties, moved }: Tied): readonly Outline[] {
  if (ties.length === 0 && moved.size === 0) return shape;
  const placed = shape.map((o, i) => {
    const m = moved.get(i);
    return m ? (transformOutlines([o], m)[0] as Outline) : o;
  });
  return united(
    engine,
    placed,
    ties.map((t) => t.path),
  );
}
