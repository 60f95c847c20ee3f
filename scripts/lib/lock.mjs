// One at a time: a lock that a process holds until it lets go or is gone.
import fs from 'node:fs';
import path from 'node:path';
import { local } from './paths.mjs';

const POLL_MS = 200;

/** A process by its number and when it began: numbers are given out again. */
function mark(pid) {
  try {
    const stat = fs.readFileSync(`/proc/${pid}/stat`, 'utf8');
    return `${pid} ${stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]}`;
  } catch {
    return null;
  }
}

const holderOf = (file) => {
  try {
    return fs.readFileSync(file, 'utf8');
  } catch {
    return null;
  }
};

/** Whether the lock is ours now. What it holds is written before it is in its place, so that it never names nobody. */
function take(file) {
  const own = `${file}.${process.pid}`;
  fs.writeFileSync(own, mark(process.pid) ?? '');
  try {
    fs.linkSync(own, file);
    return true;
  } catch (reason) {
    if (reason.code !== 'EEXIST') throw reason;
    const holder = holderOf(file);
    const isGone = holder !== null && mark(holder.split(' ')[0]) !== holder;
    // Only the one that still finds what it read takes it away; whoever links next has the lock.
    if (isGone && holderOf(file) === holder) fs.rmSync(file, { force: true });
    return false;
  } finally {
    fs.rmSync(own, { force: true });
  }
}

/** Waits until the lock of a name is ours; `waits` is called once when another has it. Returns what lets it go. */
export async function lock(name, waits = () => {}) {
  fs.mkdirSync(local, { recursive: true });
  const file = path.join(local, `${name}.lock`);
  let hasSaid = false;
  while (!take(file)) {
    if (!hasSaid && holderOf(file) !== null) {
      waits();
      hasSaid = true;
    }
    await new Promise((resolve) => setTimeout(resolve, POLL_MS));
  }
  let isHeld = true;
  const release = () => {
    if (isHeld) fs.rmSync(file, { force: true });
    isHeld = false;
  };
  process.on('exit', release);
  return release;
}
