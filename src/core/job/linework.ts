/** What a part's steps draw of its finished shape: each where some work asks for it, or another step is made from it. */
import type { Job, Part } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import { isIdentity, type Matrix } from '../geometry/point';
import type { DrawnPart } from '../kinds/step';
import { DRAW_STEPS, kindOf, type Linework, NO_LINEWORK, stepIn } from '../kinds/steps';
import { drawnBy } from '../kinds/works';
import type { Memory, Stage } from '../memo';
import type { PreparedPart } from '../prepare/prepared';

/** What drawing steps need of the outside: the boolean engine, and where results are kept. */
export type DrawContext = { readonly engine: ClipEngine; readonly memory: Memory };

/** What was drawn, by the kind of step. */
export type Made = ReadonlyMap<string, object>;

/** A part as steps that draw see it. */
export const drawnPartOf = ({ id, members, steps }: Pick<Part, 'id' | 'members' | 'steps'>): DrawnPart => ({
  id,
  members,
  isAsSet: steps.every((step) => !step.on || kindOf(step).keepsLetters),
});

/** What the steps of a part draw, in its own coordinates; yields the share done. */
export function* drawSteps(
  part: Pick<Part, 'id' | 'members' | 'steps' | 'work'>,
  shape: PreparedPart,
  { parts }: Job,
  { engine, memory }: DrawContext,
): Generator<number, Made> {
  const asked = new Set<string>(drawnBy(part.work));
  for (const { kind, needs, isAlways } of [...DRAW_STEPS].reverse()) {
    const step = stepIn(part, kind);
    if (isAlways) asked.add(kind);
    if (step?.on && asked.has(kind)) for (const other of needs?.(step) ?? []) asked.add(other);
  }
  const drawnPart = drawnPartOf(part);
  const made = new Map<string, object>();
  for (const { kind, canDraw, completed, draw } of DRAW_STEPS) {
    const own = stepIn(part, kind);
    if (!own?.on || !asked.has(kind) || !(canDraw?.(shape) ?? true)) continue;
    const others = completed ? parts.flatMap((p) => (p.id === part.id ? [] : (stepIn(p, kind) ?? []))) : [];
    const step = completed?.(own, others) ?? own;
    made.set(kind, yield* memory.steps(draw, { step, shape, part: drawnPart, made, engine }));
  }
  return made;
}

type PlacedInput = { readonly id: string; readonly made: Made; readonly matrix: Matrix };

/** What a part has drawn, where the part lies on the sheet. */
export const PLACED_LINEWORK: Stage<PlacedInput, Linework> = {
  name: 'placed linework',
  key: ({ made, matrix: { a, b, c, d, e, f } }, idOf) =>
    `${[...made].map(([kind, drawn]) => `${kind} ${idOf(drawn)}`).join()}|${a},${b},${c},${d},${e},${f}`,
  slot: ({ id }) => id,
  run: ({ made, matrix }) =>
    ({
      ...NO_LINEWORK,
      ...Object.fromEntries(
        DRAW_STEPS.flatMap(({ kind, moved }) => {
          const drawn = made.get(kind);
          return drawn ? [[kind, isIdentity(matrix) ? drawn : moved(drawn, matrix)]] : [];
        }),
      ),
    }) as Linework,
  weigh: (_placed, { made }) =>
    DRAW_STEPS.reduce((sum, { kind, draw }) => {
      const drawn = made.get(kind);
      return drawn ? sum + draw.weigh(drawn) : sum;
    }, 0),
};
