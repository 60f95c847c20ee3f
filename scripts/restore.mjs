// npm run restore -- FILE: everything out of a backup. What there is now is set aside first, and put back where that does not go well.
import fs from 'node:fs';
import path from 'node:path';
import { BackupFault, countWords, lookThrough, restoreInto } from './lib/backup.mjs';
import { ensureDebian, ensureNodeModules } from './lib/install.mjs';
import { lock } from './lib/lock.mjs';
import { postgres } from './lib/postgres.mjs';
import { progress } from './lib/progress.mjs';
import { bin, must, stop } from './lib/run.mjs';
import { servedAt } from './lib/served.mjs';

const given = process.argv[2];
if (!given) stop('Which backup? npm run restore -- FILE');
const file = path.resolve(given);
const release = await lock('start', () => console.log('Needlefile is being started; waiting for that …'));
const served = await servedAt();
if (served) stop(`Needlefile is running at ${served}. Stop it first.`);
ensureNodeModules();
ensureDebian(['postgresql']);

const { say, end } = progress();
const database = postgres('database');
let put = null;
let isBegun = false;
try {
  say('Looking through the backup …');
  const inside = await lookThrough(file);
  end();
  console.log(`${countWords(inside)} are in ${file}`);
  put = database.setAside();
  isBegun = true;
  const url = await database.start();
  const counts = await restoreInto(url, file, say);
  must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/migrate.ts'], { env: { DATABASE_URL: url } });
  database.stop();
  end();
  console.log(`${countWords(counts)} are back; they were counted, and the files compared with what they were.`);
  if (put)
    console.log(
      `What there was before is set aside in ${put.aside}.\nTo bring that back: put ${put.home} away, and rename that folder to ${put.home}.`,
    );
} catch (reason) {
  end();
  if (!(reason instanceof BackupFault)) throw reason;
  if (isBegun) database.remove();
  if (put) fs.renameSync(put.aside, put.home);
  stop(`${reason.message} ${put ? 'What there was is back in its place.' : 'Nothing was changed.'}`);
} finally {
  release();
}
