/**
 * The log of the bench machine on disk: a line for each event, only ever added to. What was being written when the machine went off may be
 * half a line, which is left out; everything before it is there.
 */
import { appendFileSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { eventSchema, type MachineEvent } from './queue';

/** Events and files in a folder. */
export class MachineLog {
  private readonly file: string;
  private readonly files: string;

  constructor(home: string) {
    this.file = path.join(home, 'log.jsonl');
    this.files = path.join(home, 'files');
    mkdirSync(this.files, { recursive: true });
    // What is added comes on a line of its own, whatever was being written when the machine went off.
    if (existsSync(this.file) && !readFileSync(this.file, 'utf8').endsWith('\n')) appendFileSync(this.file, '\n');
  }

  /** All that happened, the oldest first. */
  read(): MachineEvent[] {
    if (!existsSync(this.file)) return [];
    return readFileSync(this.file, 'utf8')
      .split('\n')
      .flatMap((line) => {
        try {
          const read = eventSchema.safeParse(JSON.parse(line));
          return read.success ? [read.data] : [];
        } catch {
          return [];
        }
      });
  }

  add(event: MachineEvent): void {
    appendFileSync(this.file, `${JSON.stringify(event)}\n`);
  }

  /** Begin it anew with what is still needed of it. */
  rewrite(events: readonly MachineEvent[]): void {
    const beside = `${this.file}.new`;
    writeFileSync(beside, events.map((event) => `${JSON.stringify(event)}\n`).join(''));
    renameSync(beside, this.file);
  }

  /** Keep the bytes of a file, by what is in them. */
  keep(sha256: string, bytes: Uint8Array): void {
    const at = path.join(this.files, sha256);
    if (existsSync(at)) return;
    writeFileSync(`${at}.new`, bytes);
    renameSync(`${at}.new`, at);
  }

  /** Let a file go. */
  forget(sha256: string): void {
    rmSync(path.join(this.files, sha256), { force: true });
  }
}
