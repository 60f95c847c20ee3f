/** The bench machine at work: files come, are run one after the other, and everything that happens is in its log. */
import { createHash, randomBytes } from 'node:crypto';
import type { Arriving, BenchMachine, LogLine, MachineRun, RunOrder } from '../api/bench-machine';
import { LIMITS } from '../core/limits';
import { understand } from '../machine/understand';
import type { MachineLog } from './log';
import { after, goneOff, type MachineEvent, ordered, passing, toForget, wordsOf } from './queue';

/** What is said to whoever sent something: a run, or a sentence why it was not taken. */
export type Said<T> = { readonly ok: T } | { readonly sentence: string };

/** So far a run gets before that is written down, in seconds of it. */
const NOTED_S = 5;

/** The bench machine over a log; `now` gives ms since 1970, `pace` how many seconds of a run pass in one. */
export class Machine {
  private runs: readonly MachineRun[] = [];
  private events: MachineEvent[] = [];
  private lines: LogLine[] = [];
  private last: number;
  /** How much of the run at work has passed and is not written down. */
  private unnoted = 0;

  constructor(
    private readonly log: MachineLog,
    private readonly now: () => number,
    private readonly pace: number,
  ) {
    for (const event of log.read()) this.take(event);
    this.last = now();
    for (const event of goneOff(this.runs, this.at())) this.happen(event);
  }

  /** Takes a file in; a sentence where it can't be run at all. */
  async receive({ name, bytes, sha256, machine, set }: Arriving): Promise<Said<MachineRun>> {
    const refuse = (why: string): Said<MachineRun> => {
      this.happen({ what: 'refused', at: this.at(), name, why });
      return { sentence: `${name} was not taken: ${why}` };
    };
    if (this.runs.filter((r) => r.state === 'in line').length >= LIMITS.machineLine)
      return refuse(`${LIMITS.machineLine} files are in line already.`);
    const file = Buffer.from(bytes, 'base64');
    if (file.length === 0) return refuse('it is empty.');
    if (createHash('sha256').update(file).digest('hex') !== sha256) return refuse('only a part of it came.');
    const understood = await understand(new Uint8Array(file), machine, set);
    if ('sentence' in understood) return refuse(understood.sentence);
    if (understood.operations.length === 0) return refuse('there is nothing in it to run.');
    this.log.keep(sha256, file);
    const run: MachineRun = {
      id: randomBytes(6).toString('hex'),
      name,
      sha256,
      machine: machine.name,
      state: 'in line',
      seconds: understood.wholeSeconds,
      done: 0,
      operations: understood.operations.length,
      troubles: [...understood.troubles],
      sentAt: this.at(),
      endedAt: null,
    };
    this.happen({ what: 'came', at: run.sentAt, run });
    this.pass();
    return { ok: run };
  }

  /** Does what is asked with a run. */
  order(id: string, order: RunOrder): Said<null> {
    this.pass();
    const event = ordered(this.runs, id, order, this.at());
    if ('sentence' in event) return event;
    this.happen(event);
    this.pass();
    return { ok: null };
  }

  /** Lets the time pass that has passed. */
  pass(): void {
    const now = this.now();
    const seconds = (Math.max(0, now - this.last) / 1000) * this.pace;
    this.last = now;
    for (const event of passing(this.runs, seconds, this.at())) {
      this.unnoted += event.what === 'reached' ? seconds : 0;
      // How far it is is written down now and then.
      if (event.what !== 'reached' || this.unnoted >= NOTED_S) {
        this.unnoted = 0;
        this.happen(event);
      } else this.runs = after(this.runs, event);
    }
  }

  /** How it stands. */
  state(): BenchMachine {
    this.pass();
    return { runs: [...this.runs], log: this.lines.slice(-LIMITS.machineLogLines).reverse(), pace: this.pace };
  }

  private at(): string {
    return new Date(this.now()).toISOString();
  }

  private happen(event: MachineEvent): void {
    this.log.add(event);
    this.take(event);
    for (const { id, done } of toForget(this.runs)) this.happen({ what: 'taken out', at: this.at(), id, done });
    if (this.events.length > LIMITS.machineEvents) this.shorten();
  }

  private take(event: MachineEvent): void {
    const words = wordsOf(event, this.runs);
    if (words) this.lines.push({ at: event.at, words });
    const before = this.runs;
    this.runs = after(before, event);
    this.events.push(event);
    if (event.what === 'taken out') {
      const gone = before.find((r) => r.id === event.id);
      if (gone && !this.runs.some((r) => r.sha256 === gone.sha256)) this.log.forget(gone.sha256);
    }
  }

  /** The log without what says nothing any more: how far runs were on the way, and runs that are not in the list. */
  private shorten(): void {
    const listed = new Set(this.runs.map((run) => run.id));
    const last = new Map(this.events.flatMap((event) => ('id' in event ? [[event.id, event] as const] : [])));
    this.events = this.events.filter((event) => {
      if (event.what === 'refused') return false;
      if (event.what === 'came') return listed.has(event.run.id);
      return listed.has(event.id) && (event.what !== 'reached' || last.get(event.id) === event);
    });
    this.log.rewrite(this.events);
  }
}
