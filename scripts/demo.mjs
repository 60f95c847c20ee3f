// npm run demo: everything from a fresh machine to a served app with sample data. --reset starts over; --host ADDRESS lets others of the
// network in, by a passphrase.
import path from 'node:path';
import { ensureBuilt } from './lib/build.mjs';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { lock } from './lib/lock.mjs';
import { local } from './lib/paths.mjs';
import { freePort, portIsFree, postgres } from './lib/postgres.mjs';
import { bin, must, start, stop } from './lib/run.mjs';
import { endWithParent, servedAt, serving, servingEnded } from './lib/served.mjs';

const WANTED_PORT = 3480;
const WAIT_MS = 60_000;
/** How often it is looked whether the database is still there. */
const LOOK_MS = 2_000;
/** A bench machine that ended is started again after this. */
const MACHINE_AGAIN_MS = 1_000;
const reset = process.argv.includes('--reset');
const atHost = process.argv.indexOf('--host');
/** The address of this machine in the network that others are let in by; '' for none. */
const host = atHost === -1 ? '' : (process.argv[atHost + 1] ?? '');
if (atHost !== -1 && !host) stop('--host needs the address of this machine in the network, such as 192.168.1.5.');

// Two starts at once would make the same database: the second waits, and joins what the first has started.
const release = await lock('start', () => console.log('Needlefile is being started already; waiting for that …'));
const already = await servedAt();
if (already && host) stop(`Needlefile is running at ${already}. Stop it first, then start with --host.`);
if (already && reset) stop(`Needlefile is running at ${already}. Stop it first, then start over.`);
if (already) {
  console.log(`Needlefile is already running at ${already}`);
  process.exit(0);
}

ensureNodeModules();
ensureDebian(['postgresql']);
await ensureBuilt();
const database = postgres('database');
if (reset) {
  const put = database.setAside();
  if (put)
    console.log(
      `The jobs there were are set aside in ${put.aside}.\nTo bring them back: stop Needlefile, put ${put.home} away, and rename that folder to ${put.home}.`,
    );
}
let url = await database.start();
const env = () => ({ DATABASE_URL: url, NEXT_TELEMETRY_DISABLED: '1' });
must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/migrate.ts', '--demo'], { env: env() });

const port = process.env.PORT ?? String((await portIsFree(WANTED_PORT)) ? WANTED_PORT : await freePort());
const address = `http://127.0.0.1:${port}`;

let ending = false;
let app = null;
let machine = null;
/** Where the bench machine listens; another one as long as it is started anew. */
const machinePort = String(await freePort());
const end = (code, why) => {
  if (ending) return;
  ending = true;
  console.log(`\nNeedlefile ends: ${why}`);
  app?.kill('SIGTERM');
  machine?.kill('SIGTERM');
  database.stop();
  servingEnded();
  process.exit(code);
};
function startApp() {
  const started = start(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'src/serve/main.ts'], {
    ...env(),
    PORT: port,
    NODE_ENV: 'production',
    NEEDLEFILE_HOST: host,
    NEEDLEFILE_MACHINE_URL: `http://127.0.0.1:${machinePort}`,
  });
  app = started;
  started.on('exit', (code, signal) => {
    if (app === started) end(code || 1, `the app ended by itself (${signal ?? code}).`);
  });
}
/** The bench machine is a process of its own; one that ended by itself is started again, and knows where it was. */
function startMachine() {
  machine = start(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'src/bench-machine/main.ts'], {
    NEEDLEFILE_MACHINE_PORT: machinePort,
    NEEDLEFILE_MACHINE_HOME: path.join(local, 'bench-machine'),
  });
  machine.on('exit', () => {
    if (!ending) setTimeout(() => ending || startMachine(), MACHINE_AGAIN_MS);
  });
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0, `it was stopped (${signal}).`));
endWithParent(() => end(0, 'the command that started it is gone.'));

startMachine();
startApp();
const isUp = () =>
  fetch(`${address}/api/health`).then(
    (r) => r.ok,
    () => false,
  );
const began = Date.now();
let up = await isUp();
while (!up && Date.now() - began < WAIT_MS) {
  await new Promise((resolve) => setTimeout(resolve, 100));
  up = await isUp();
}
if (!up) end(1, `the app did not answer at ${address} within a minute.`);
serving(address);
release();
console.log(`\nNeedlefile is at ${address}\nStop with Ctrl+C; the jobs are kept.`);

/** A database that ended by itself is started again; where it has to be elsewhere, so is the app. */
async function look() {
  if (ending || database.isRunning()) return;
  console.log('The database ended by itself; it is started again.');
  const before = url;
  url = await database.start();
  if (url === before || ending) return;
  const old = app;
  app = null;
  old.once('exit', startApp);
  old.kill('SIGTERM');
}
for (;;) {
  await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  await look();
}
