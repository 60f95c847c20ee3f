// Doing something with the database of this checkout, whether Needlefile is running or not.
import { ensureDebian, ensureNodeModules } from './install.mjs';
import { lock } from './lock.mjs';
import { postgres } from './postgres.mjs';
import { bin, must } from './run.mjs';

/**
 * Run `act` with the environment in which the database is found, its tables up to date; a server that was not running is stopped again.
 * Returns what `act` returned.
 */
export async function withDatabase(act) {
  const release = await lock('start', () => console.log('Needlefile is being started; waiting for that …'));
  ensureNodeModules();
  ensureDebian(['postgresql']);
  const database = postgres('database');
  const wasRunning = database.isRunning();
  const env = { DATABASE_URL: await database.start() };
  try {
    if (!wasRunning) must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/migrate.ts'], { env });
    return await act(env);
  } finally {
    if (!wasRunning) database.stop();
    release();
  }
}
