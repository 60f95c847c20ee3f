/** Which areas of an operation should be gone over together and which by themselves, so that it takes least on the job's machine. */
import type { Job } from '../document/schema';
import { type InkRows, inkRowsOf } from '../geometry/ink-rows';
import type { Path } from '../geometry/path';
import { applyMatrix, rotation } from '../geometry/point';
import { LIMITS } from '../limits';
import { allTogether, together } from '../motion/areas-together';
import { settingsOn } from '../shop/in-force';
import type { JobResult } from './evaluate';
import { homeOf } from './run';
import { alongRows, areaMotion, rowsFor } from './run-times';

/** Parts that are gone over in one go each, in order, and what that saves against all of them in one, in seconds. */
export type AreasApart = { readonly groups: readonly (readonly string[])[]; readonly savedSeconds: number };

/** The best way to go over what an operation fills as areas; null where that is one go, or nothing is known of its time. Yields the share done. */
export function* areasApart(job: Job, result: JobResult, operationId: string): Generator<number, AreasApart | null> {
  const made = result.operations.find((o) => o.operation.id === operationId);
  const go = made?.goes.find((g) => g.how === 'areas');
  if (!made || !go) return null;
  const { operation } = made;
  const settings = settingsOn(operation, job.sheet);
  const motion = areaMotion(job, operation, settings);
  if (!motion) return null;
  const direction = operation.scan?.direction ?? 0;
  const byPart = new Map<string, Path[]>();
  for (const { partId, drawable } of go.drawn) {
    if (drawable.kind !== 'area') continue;
    const paths = byPart.get(partId) ?? [];
    byPart.set(partId, paths);
    paths.push(...alongRows(drawable.paths, direction));
  }
  const ids = [...byPart.keys()];
  if (ids.length < 2 || ids.length > LIMITS.areasApart) return null;
  // As exact as a comparison needs: of many rows every so manieth stands for those between.
  const each = rowsFor([...byPart.values()].flat(), motion, LIMITS.rowsCompared);
  const coarse = { ...motion, step: motion.step * each };
  const rows = ids.map((id): InkRows => inkRowsOf(byPart.get(id) ?? [], coarse.step));
  const home = applyMatrix(rotation(-direction), homeOf(job));
  const best = yield* together(rows, coarse, home);
  const factor = each * settings.passes * (job.machine?.factors[operation.kind] ?? 1);
  const savedSeconds = factor * (allTogether(rows, coarse, home) - best.seconds);
  if (best.groups.length < 2 || savedSeconds < LIMITS.savedSeconds) return null;
  return { groups: best.groups.map(({ areas }) => areas.map((i) => ids[i] as string)), savedSeconds };
}
