// Which process of this checkout serves the app, so that a second one neither rebuilds nor stops what it stands on.
import fs from 'node:fs';
import path from 'node:path';
import { local } from './paths.mjs';
import { writeWhole } from './written.mjs';

const file = path.join(local, 'served.json');

const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

/** How long the app is waited for when it is asked whether it is there, in ms. */
const ANSWER_MS = 3_000;

/** Whether the app of this checkout answers at an address. */
const answers = (address) =>
  fetch(`${address}/api/health`, { signal: AbortSignal.timeout(ANSWER_MS) }).then(
    (r) => r.ok || r.status === 503,
    () => false,
  );

/** The address the app is served at, or null: the process that is noted may be gone, and its number another’s. */
export async function servedAt() {
  try {
    const { pid, address } = JSON.parse(fs.readFileSync(file, 'utf8'));
    return isAlive(pid) && (await answers(address)) ? address : null;
  } catch {
    return null;
  }
}

export function serving(address) {
  fs.mkdirSync(local, { recursive: true });
  writeWhole(file, JSON.stringify({ pid: process.pid, address }));
}

export const servingEnded = () => fs.rmSync(file, { force: true });

/** The process numbers of the two processes above this one: npm starts us through a shell. */
function above() {
  const parent = process.ppid;
  try {
    const stat = fs.readFileSync(`/proc/${parent}/stat`, 'utf8');
    return `${parent} ${stat.slice(stat.lastIndexOf(')') + 2).split(' ')[1]}`;
  } catch {
    return String(parent);
  }
}

/** Call `end` when the command that started this one is gone: npm doesn't pass every signal on. */
export function endWithParent(end) {
  const first = above();
  setInterval(() => {
    if (above() !== first) end();
  }, 500).unref();
}
