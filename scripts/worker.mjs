// npm run worker [-- N]: so many row workers (one), which prepare long lists of names for the app: on this machine, or on another with the
// app's DATABASE_URL set. One that ends by itself is started again. Ctrl+C ends them.
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { postgres } from './lib/postgres.mjs';
import { bin, start, stop } from './lib/run.mjs';

const MOST = 64;
const AGAIN_MS = 1_000;

const asked = process.argv[2] ?? '1';
const count = /^\d+$/.test(asked) ? Number(asked) : 0;
if (count < 1 || count > MOST) stop(`Say how many workers: npm run worker -- 2. From 1 to ${MOST}.`);
ensureNodeModules();

/** The database the user names; else that of the Needlefile that runs from this checkout. */
async function databaseUrl() {
  if (process.env.DATABASE_URL) return process.env.DATABASE_URL;
  ensureDebian(['postgresql']);
  const database = postgres('database');
  if (!database.isRunning())
    stop(
      'Needlefile is not running here. Start it first with “npm run demo”; or set DATABASE_URL to where its database is.',
    );
  return database.start();
}
const env = { DATABASE_URL: await databaseUrl() };

let isEnding = false;
const running = new Set();
function one() {
  const worker = start(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'src/row-workers/main.ts'], env);
  running.add(worker);
  worker.once('exit', () => {
    running.delete(worker);
    if (!isEnding) setTimeout(() => isEnding || one(), AGAIN_MS);
  });
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    isEnding = true;
    for (const worker of running) worker.kill('SIGTERM');
  });
console.log(`${count === 1 ? 'A row worker is' : `${count} row workers are`} started. Stop with Ctrl+C.`);
for (let n = 0; n < count; n++) one();
