// npm run mutate: small changes are made to the sources named in stryker.config.json one at a time, and the quick unit tests
// must notice. Writes what they did not notice into docs/measurements.md, with the reason where one is known.
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { postgres } from './lib/postgres.mjs';
import { bin, must, run } from './lib/run.mjs';

ensureNodeModules();
ensureDebian(['postgresql']);
const database = postgres('mutate-database', { fast: true });
const env = { DATABASE_URL: await database.start() };
must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/migrate.ts'], { env });
const { status } = run(process.execPath, [bin('@stryker-mutator', 'core', 'bin', 'stryker.js'), 'run', ...process.argv.slice(2)], { env });
database.stop();
process.exit(status);
