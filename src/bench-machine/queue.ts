/**
 * The queue of the bench machine: files in line, one of them running. Everything that happens is an event; the queue is what events come
 * to, so that a log of them is enough to stand where one stood.
 */
import { z } from 'zod';
import { type MachineRun, machineRunSchema, type RunOrder } from '../api/bench-machine';
import { LIMITS } from '../core/limits';

/** What happens to runs; `at` is ISO, `done` in seconds of the run. */
export const eventSchema = z.discriminatedUnion('what', [
  z.object({ what: z.literal('came'), at: z.string(), run: machineRunSchema }),
  z.object({ what: z.literal('refused'), at: z.string(), name: z.string(), why: z.string() }),
  z.object({
    what: z.enum(['began', 'reached', 'paused', 'went on', 'stopped', 'finished', 'went off', 'taken out']),
    at: z.string(),
    id: z.string(),
    done: z.number(),
  }),
]);

/** Something that happened. */
export type MachineEvent = z.infer<typeof eventSchema>;

const STATE_AFTER: Readonly<Record<string, MachineRun['state']>> = {
  began: 'running',
  paused: 'paused',
  'went on': 'running',
  stopped: 'stopped',
  finished: 'finished',
  'went off': 'stopped',
};

/** Runs after an event. */
export function after(runs: readonly MachineRun[], event: MachineEvent): readonly MachineRun[] {
  if (event.what === 'refused') return runs;
  if (event.what === 'came') return [...runs, event.run];
  if (event.what === 'taken out') return runs.filter((run) => run.id !== event.id);
  return runs.map((run): MachineRun => {
    if (run.id !== event.id) return run;
    const state = STATE_AFTER[event.what] ?? run.state;
    const isOver = state === 'stopped' || state === 'finished';
    return { ...run, state, done: event.done, endedAt: isOver ? event.at : null };
  });
}

const isOver = ({ state }: MachineRun): boolean => state === 'stopped' || state === 'finished';
const atWork = (runs: readonly MachineRun[]): MachineRun | undefined =>
  runs.find(({ state }) => state === 'running' || state === 'paused');

/** What happens when time passes: the one that runs goes on, and ends; the next in line begins. */
export function* passing(runs: readonly MachineRun[], seconds: number, at: string): Generator<MachineEvent> {
  const now = atWork(runs);
  if (now?.state === 'paused') return;
  if (now) {
    const done = Math.min(now.seconds, now.done + seconds);
    yield { what: done >= now.seconds ? 'finished' : 'reached', at, id: now.id, done };
    if (done < now.seconds) return;
  }
  const next = runs.find(({ state }) => state === 'in line');
  if (next) yield { what: 'began', at, id: next.id, done: 0 };
}

/** What an order to a run comes to: an event, or a sentence why it can't be. */
export function ordered(
  runs: readonly MachineRun[],
  id: string,
  order: RunOrder,
  at: string,
): MachineEvent | { readonly sentence: string } {
  const run = runs.find((r) => r.id === id);
  if (!run) return { sentence: 'There is no such run on the bench machine.' };
  const { done, state, name } = run;
  const may = {
    pause: state === 'running',
    'go on': state === 'paused',
    stop: !isOver(run),
    'take out': isOver(run) || state === 'in line',
  }[order];
  if (!may) return { sentence: `${name} is ${state}.` };
  const what = ({ pause: 'paused', 'go on': 'went on', stop: 'stopped', 'take out': 'taken out' } as const)[order];
  return { what, at, id, done };
}

/** What was at work when the machine went off stays where it was: nobody knows what lies on the table. */
export const goneOff = (runs: readonly MachineRun[], at: string): MachineEvent[] => {
  const run = atWork(runs);
  return run ? [{ what: 'went off', at, id: run.id, done: run.done }] : [];
};

/** The oldest of those that are over, where there are too many runs. */
export const toForget = (runs: readonly MachineRun[]): readonly MachineRun[] =>
  runs.filter(isOver).slice(0, Math.max(0, runs.length - LIMITS.machineRuns));

const percent = ({ seconds, done }: Pick<MachineRun, 'seconds' | 'done'>): string =>
  `${seconds > 0 ? Math.floor((100 * done) / seconds) : 0} %`;

/** What the log says of an event; null where it says nothing. */
export function wordsOf(event: MachineEvent, runs: readonly MachineRun[]): string | null {
  if (event.what === 'came') return `${event.run.name} came, for ${event.run.machine}.`;
  if (event.what === 'refused') return `${event.name} was not taken: ${event.why}`;
  const run = runs.find((r) => r.id === event.id);
  if (!run || event.what === 'reached') return null;
  const at = percent({ seconds: run.seconds, done: event.done });
  return {
    began: `${run.name} began.`,
    paused: `${run.name} was paused at ${at}.`,
    'went on': `${run.name} went on.`,
    stopped: `${run.name} was stopped at ${at}.`,
    finished: `${run.name} is finished.`,
    'went off': `The machine went off in the middle of ${run.name}, at ${at}.`,
    'taken out': `${run.name} was taken out of the list.`,
  }[event.what];
}
