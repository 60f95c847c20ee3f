/** Which areas should be gone over together and which by themselves, so that it takes least on the job's machine, against how they are now. */
import type { Job, Operation } from '../document/schema';
import { type InkRows, inkRowsOf } from '../geometry/ink-rows';
import { type Path, regionBox } from '../geometry/path';
import { applyMatrix, boxWidth, rotation } from '../geometry/point';
import { LIMITS } from '../limits';
import { alongRows, sampledRows } from '../motion/area-motion';
import { asGiven, sharingGap, together } from '../motion/areas-together';
import { settingsOn } from '../shop/in-force';
import type { Go } from './drawn';
import type { JobResult } from './evaluate';
import { homeOf } from './run';
import { areaMotion } from './run-times';

/** Parts that are gone over in one go, and what that takes, in seconds. */
export type AreaGo = { readonly parts: readonly string[]; readonly seconds: number };

/** Areas as they are gone over now, and as would be best. */
export type AreasApart = {
  /** The operations that go over them, all alike, in their order. */
  readonly operations: readonly string[];
  readonly now: readonly AreaGo[];
  readonly best: readonly AreaGo[];
  /** What the best takes less than now, in seconds; less than nothing where the search found none as good. */
  readonly savedSeconds: number;
  /** Whether that is enough to be told. */
  readonly isWorthwhile: boolean;
  /** So far apart in a row, in mm, areas are better gone over together; null where that is so however far. */
  readonly gapMm: number | null;
};

type OfOperation = { readonly operation: Operation; readonly go: Go };

/** The operations that go over areas as one of them does, it among them: with the same settings, and none filling a part that another does. */
function alike(job: Job, result: JobResult, operationId: string): OfOperation[] {
  const how = ({ kind, tip, scan, settings }: Operation): string =>
    JSON.stringify([kind, tip, scan, Object.entries(settingsOn({ kind, settings }, job.sheet)).sort()]);
  const all = result.operations.flatMap(({ operation, goes }): OfOperation[] => {
    const go = operation.on ? goes.find((g) => g.how === 'areas') : undefined;
    return go ? [{ operation, go }] : [];
  });
  const asked = all.find((o) => o.operation.id === operationId);
  if (!asked) return [];
  const own = how(asked.operation);
  const taken = new Set(asked.go.drawn.map((d) => d.partId));
  return all.filter((other) => {
    if (other === asked) return true;
    if (how(other.operation) !== own || other.go.drawn.some((d) => taken.has(d.partId))) return false;
    for (const { partId } of other.go.drawn) taken.add(partId);
    return true;
  });
}

/** The parts that goes fill, each with its outlines so turned that rows lie level. */
function fillsOf(goes: readonly Go[], direction: number): Map<string, Path[]> {
  const byPart = new Map<string, Path[]>();
  for (const { drawn } of goes)
    for (const { partId, drawable } of drawn) {
      if (drawable.kind !== 'area') continue;
      const paths = byPart.get(partId) ?? [];
      byPart.set(partId, paths);
      paths.push(...alongRows(drawable.paths, direction));
    }
  return byPart;
}

/**
 * How what is filled as areas, by an operation and those like it, is gone over now and would be best; null where that is a single area, or
 * nothing is known of its time. Yields the share done.
 */
export function* areasApart(job: Job, result: JobResult, operationId: string): Generator<number, AreasApart | null> {
  const family = alike(job, result, operationId);
  const asked = family.find((o) => o.operation.id === operationId)?.operation;
  if (!asked) return null;
  const settings = settingsOn(asked, job.sheet);
  const motion = areaMotion(job, asked, settings);
  if (!motion) return null;
  const direction = asked.scan?.direction ?? 0;
  const byPart = fillsOf(
    family.map((o) => o.go),
    direction,
  );
  const ids = [...byPart.keys()];
  if (ids.length < 2 || ids.length > LIMITS.areasApart) return null;
  // As exact as a comparison needs: of many rows every so manieth stands for those between.
  const sampled = sampledRows(motion, [...byPart.values()].flat(), LIMITS.rowsCompared);
  const rows = ids.map((id): InkRows => inkRowsOf(byPart.get(id) ?? [], sampled.step));
  const home = applyMatrix(rotation(-direction), homeOf(job));
  const found = yield* together(rows, sampled, home);
  const factor = job.machine?.factors[asked.kind] ?? 1;
  const goesOf = (order: readonly (readonly number[])[]) => {
    const { runs, seconds } = asGiven(rows, order, sampled, home);
    const goes = runs.map(({ areas, seconds: own }): AreaGo => {
      return { parts: areas.map((i) => ids[i] as string), seconds: factor * own };
    });
    return { goes, seconds: factor * seconds };
  };
  const now = goesOf(
    family.map(({ go }) => [...new Set(go.drawn.map((d) => ids.indexOf(d.partId)))].filter((i) => i >= 0)),
  );
  const best = goesOf(found.groups.map((g) => g.areas));
  const widths = ids.map((id) => boxWidth(regionBox(byPart.get(id) ?? [])));
  return {
    operations: family.map((o) => o.operation.id),
    now: now.goes,
    best: best.goes,
    savedSeconds: now.seconds - best.seconds,
    isWorthwhile: now.seconds - best.seconds >= LIMITS.savedSeconds,
    gapMm: sharingGap(widths.reduce((sum, w) => sum + w, 0) / widths.length, motion),
  };
}
