/** Strips laid over a shape and made one with it. */
import type { ClipEngine } from '../geometry/boolean/engine';
import type { LabelledPath } from '../geometry/boolean/labelled';
import { BooleanSession, FLATTEN_MM } from '../geometry/boolean/session';
import type { Path } from '../geometry/path';
import { measureOutlines, type Outline, transformOutlines } from './outline';
import type { Tied } from './ties';

const unlabelled = (paths: readonly Path[]): LabelledPath[] =>
  paths.map((path) => ({ path, labels: path.segments.map(() => -1) }));

/** One clean shape of outlines that may overlap and of strips laid over them. */
export function withStrips(engine: ClipEngine, shape: readonly Outline[], strips: readonly Path[]): readonly Outline[] {
  const session = new BooleanSession(engine, FLATTEN_MM, true);
  const polygons = [...session.addLabelled(shape), ...session.addLabelled(unlabelled(strips))];
  return measureOutlines(session.rebuild(session.clip('union', polygons)));
}

/** One clean shape of pieces that are moved, or enlarged, and of the ties between them. */
export function movedAndTied(engine: ClipEngine, shape: readonly Outline[], { ties, moved }: Tied): readonly Outline[] {
  if (ties.length === 0 && moved.size === 0) return shape;
  const placedShapes = shape.map((o, i) => {
    const m = moved.get(i);
    return m ? (transformOutlines([o], m)[0] as Outline) : o;
  });
  return withStrips(
    engine,
    placedShapes,
    ties.map((t) => t.path),
  );
}
