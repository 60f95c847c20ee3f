/** A memory that counts what it has computed. */
import { Memo, type Memory } from '../../src/core/memo';

/** `made` says how often a stage was computed, by its name. */
export function countingMemory(): { readonly memory: Memory; readonly made: (stage: string) => number } {
  const memo = new Memo();
  const counts = new Map<string, number>();
  const count = (name: string) => counts.set(name, (counts.get(name) ?? 0) + 1);
  const memory: Memory = {
    idOf: memo.idOf,
    of: memo.of,
    get: (stage, input) =>
      memo.get(
        {
          ...stage,
          run: (i) => {
            count(stage.name);
            return stage.run(i, memory);
          },
        },
        input,
      ),
    steps: (stage, input) =>
      memo.steps(
        {
          ...stage,
          run: (i) => {
            count(stage.name);
            return stage.run(i, memory);
          },
        },
        input,
      ),
  };
  return { memory, made: (stage) => counts.get(stage) ?? 0 };
}
