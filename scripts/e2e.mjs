// npm run e2e: the built app against a real database in headless Chromium.
import { ensureBuilt } from './lib/build.mjs';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { freePort, postgres } from './lib/postgres.mjs';
import { bin, must, run } from './lib/run.mjs';

ensureNodeModules();
ensureDebian(['postgresql', 'chromium']);
await ensureBuilt();
const database = postgres('test-database', { fast: true });
database.remove();
const env = {
  DATABASE_URL: await database.start(),
  E2E_PORT: String(await freePort()),
  E2E_MACHINE_PORT: String(await freePort()),
  NEXT_TELEMETRY_DISABLED: '1',
};
must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/migrate.ts', '--demo'], { env });
const { status } = run(process.execPath, [bin('@playwright', 'test', 'cli.js'), 'test', ...process.argv.slice(2)], {
  env,
});
database.stop();
process.exit(status);
