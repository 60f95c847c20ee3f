// npm run bench: speed on realistic work, as ratios against something measured in the same run.
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { bin, must } from './lib/run.mjs';

ensureNodeModules();
ensureDebian(['postgresql', 'chromium']);
const env = { NEEDLEFILE_COMMAND: 'npm run bench' };
console.log('\n── core');
for (const name of ['core', 'parts', 'bridges', 'drawings', 'lines', 'fill', 'files'])
  must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), `scripts/bench/${name}.ts`], { env });
console.log('\n── browser');
must(process.execPath, ['scripts/e2e.mjs'], { env: { ...env, NEEDLEFILE_BROWSER_RUN: 'bench' } });
