/** One-step booleans over the session: union of paths, and a region minus, with or within another. */
import type { Path, Region } from '../path';
import type { ClipEngine, ClipOperation } from './engine';
import type { LabelledPath } from './labelled';
import { BooleanSession, FLATTEN_MM } from './session';

/** Union (weld) of groups of closed paths by the non-zero rule; each segment keeps the index of its group as label. */
export function uniteLabelled(
  engine: ClipEngine,
  groups: readonly (readonly Path[])[],
  toleranceMm: number = FLATTEN_MM,
): LabelledPath[] {
  const session = new BooleanSession(engine, toleranceMm);
  const polygons = groups.flatMap((paths, i) => session.add(paths, i));
  return session.rebuild(session.clip('union', polygons));
}

/** Union of closed paths by the non-zero rule; edges along each other are brought together. */
export function unite(engine: ClipEngine, paths: readonly Path[], toleranceMm: number = FLATTEN_MM): Region {
  const session = new BooleanSession(engine, toleranceMm, true);
  return session.rebuild(session.clip('union', session.add(paths, 0))).map((l) => l.path);
}

/** An exact boolean of two regions: `subject` minus, united with or within `other`, both by the non-zero rule. */
export function combine(
  engine: ClipEngine,
  operation: ClipOperation,
  {
    subject,
    other,
    toleranceMm = FLATTEN_MM,
  }: { readonly subject: readonly Path[]; readonly other: readonly Path[]; readonly toleranceMm?: number | undefined },
): Region {
  const session = new BooleanSession(engine, toleranceMm, true);
  const a = session.add(subject, 0);
  const b = session.add(other, 1);
  return session.rebuild(session.clip(operation, a, b)).map((l) => l.path);
}
