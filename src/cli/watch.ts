/** `needlefile prepare FOLDER --watch`: jobs of a folder are prepared as they come and as they change, by one process that stays warm. */
import { watch } from 'node:fs';
import { readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { TAKEN_ALONG } from '../core/job/taken-along';
import { Lasting } from './evaluated';
import { type ExitCode, type PrepareOptions, prepare } from './prepare';

type Say = (line: string) => void;

/** A file is whole once it has not changed for so long; and the folder is looked at so often though nothing tells of a change. */
const SETTLED_MS = 150;
const LOOK_MS = 2_000;

/** Drawings that lie beside jobs are called by what is in them. */
const DRAWING = /^[0-9a-f]{64}\.json$/;

const WORDS: Readonly<Record<ExitCode, string>> = {
  0: 'done',
  1: 'not as it should be',
  2: 'can’t be used',
};

/** What tells each job of a folder from another version of itself; null where the folder is gone. */
async function jobsIn(folder: string): Promise<Map<string, string> | null> {
  const names = await readdir(folder).catch(() => null);
  if (!names) return null;
  const jobs = new Map<string, string>();
  for (const name of names.sort()) {
    if (!/\.json$/i.test(name) && !name.toLowerCase().endsWith(TAKEN_ALONG)) continue;
    const found = DRAWING.test(name) ? null : await stat(path.join(folder, name)).catch(() => null);
    if (found?.isFile()) jobs.set(name, `${found.size} ${found.mtimeMs}`);
  }
  return jobs;
}

/** Waits until something in a folder changes, for a time at most, or until it is to end. */
function changed(folder: string, most: number, until: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      until.removeEventListener('abort', done);
      watcher?.close();
      resolve();
    };
    const timer = setTimeout(done, most);
    until.addEventListener('abort', done);
    // Where a folder can't be watched, it is looked at every now and then.
    let watcher: ReturnType<typeof watch> | null = null;
    try {
      watcher = watch(folder, done).on('error', () => {});
    } catch {
      // As above.
    }
    if (until.aborted) done();
  });
}

/**
 * Prepares all jobs of a folder, `options.job`, and then each that comes or changes, until it is to end. The files of a job go into a folder
 * of its own in `options.out`, its report with them. Returns 2 where the folder is not there, or goes; 0 when it is to end.
 */
export async function prepareFolder(
  options: PrepareOptions,
  { say, complain, until }: { readonly say: Say; readonly complain: Say; readonly until: AbortSignal },
): Promise<ExitCode> {
  const { job: folder, out, report } = options;
  if (out === null) {
    complain('Say with --out where the files of all these jobs are to go.');
    return 2;
  }
  if (report !== null && path.basename(report) !== report) {
    complain('With --watch each job has a report in its own folder: say its name alone with --report.');
    return 2;
  }
  const lasting = new Lasting();
  const looked = new Map<string, string>();
  const made = new Map<string, string>();
  for (let isFirst = true; !until.aborted; isFirst = false) {
    const jobs = await jobsIn(folder);
    if (!jobs) {
      complain(isFirst ? `There is no folder ${folder}.` : `The folder ${folder} is gone.`);
      return 2;
    }
    if (isFirst) say(`Watching ${folder}; Ctrl C ends it.`);
    const due = [...jobs].filter(([name, stamp]) => made.get(name) !== stamp);
    for (const [name, stamp] of due) {
      // What is still being written is waited for: it is looked at again before it is read.
      if (until.aborted || looked.get(name) !== stamp) continue;
      made.set(name, stamp);
      const own = path.join(out, folderOf(name, jobs));
      await prepareOne({ folder, name, own }, options, { say, complain, lasting });
    }
    for (const known of [looked, made]) for (const name of known.keys()) if (!jobs.has(name)) known.delete(name);
    for (const [name, stamp] of jobs) looked.set(name, stamp);
    const isWaiting = due.some(([name, stamp]) => made.get(name) !== stamp);
    if (isWaiting) await new Promise((resolve) => setTimeout(resolve, SETTLED_MS));
    else await changed(folder, LOOK_MS, until);
  }
  return 0;
}

/** The folder that the files of a job go into: its name without the ending, unless another has that too. */
function folderOf(name: string, jobs: ReadonlyMap<string, string>): string {
  const stem = (of: string) => of.slice(0, of.lastIndexOf('.'));
  return [...jobs.keys()].some((other) => other !== name && stem(other) === stem(name)) ? name : stem(name);
}

async function prepareOne(
  { folder, name, own }: { readonly folder: string; readonly name: string; readonly own: string },
  { report, assets, ...options }: PrepareOptions,
  { say, complain, lasting }: { readonly say: Say; readonly complain: Say; readonly lasting: Lasting },
): Promise<void> {
  const began = performance.now();
  let isWritten = false;
  const asked = {
    ...options,
    job: path.join(folder, name),
    out: own,
    report: report === null ? null : path.join(own, report),
    assets: assets ?? folder,
  };
  const tell = (line: string) => {
    isWritten ||= line.startsWith(own);
    say(`${name}: ${line}`);
  };
  const code = await prepare(asked, tell, (line) => complain(`${name}: ${line}`), lasting).catch((reason: unknown) => {
    complain(`${name}: ${reason instanceof Error ? reason.message : String(reason)}`);
    return 2 as const;
  });
  tell(`${WORDS[code]}, ${((performance.now() - began) / 1000).toFixed(2)} s`);
  const earlier = isWritten ? [] : await readdir(own).catch(() => []);
  if (earlier.length > 0)
    complain(`${name}: what lies in ${own} was made before, and is not of this job as it is now.`);
}
