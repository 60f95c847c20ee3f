// npm run settings: who is let in from the network, and by which names.
import { spawnSync } from 'node:child_process';
import { bin } from './lib/run.mjs';
import { withDatabase } from './lib/with-database.mjs';

process.exitCode = await withDatabase((env) => {
  const args = [bin('tsx', 'dist', 'cli.mjs'), 'scripts/settings.ts', ...process.argv.slice(2)];
  return spawnSync(process.execPath, args, { env: { ...process.env, ...env }, stdio: 'inherit' }).status ?? 1;
});
