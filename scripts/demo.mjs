// npm run demo: everything from a fresh machine to a served app with sample data. --reset starts over.
import { ensureBuilt } from './lib/build.mjs';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { freePort, portIsFree, postgres } from './lib/postgres.mjs';
import { bin, must, start, stop } from './lib/run.mjs';
import { endWithParent, servedAt, serving, servingEnded } from './lib/served.mjs';

const WANTED_PORT = 3480;
const reset = process.argv.includes('--reset');

const already = servedAt();
if (already && reset) stop(`Needlefile is running at ${already}. Stop it first, then start over.`);
if (already) {
  console.log(`Needlefile is already running at ${already}`);
  process.exit(0);
}

ensureNodeModules();
ensureDebian(['postgresql']);
ensureBuilt();
const database = postgres('database');
if (reset) database.reset();
const url = await database.start();
const env = { DATABASE_URL: url, NEXT_TELEMETRY_DISABLED: '1' };
must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/migrate.ts', '--demo'], { env });

const port = process.env.PORT ?? String((await portIsFree(WANTED_PORT)) ? WANTED_PORT : await freePort());
const address = `http://127.0.0.1:${port}`;
const app = start(process.execPath, [bin('next', 'dist', 'bin', 'next'), 'start', '-H', '127.0.0.1', '-p', port], env);
serving(address);

let ending = false;
const end = (code) => {
  if (ending) return;
  ending = true;
  app.kill('SIGTERM');
  database.stop();
  servingEnded();
  process.exit(code);
};
app.on('exit', (code) => end(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0));
endWithParent(() => end(0));

const WAIT_MS = 60_000;
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
if (up) console.log(`\nNeedlefile is at ${address}\nStop with Ctrl+C; the jobs are kept.`);
else {
  console.error(`The app did not answer at ${address} within a minute.`);
  end(1);
}
