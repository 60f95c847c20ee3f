// npm run backup [-- FILE]: everything (jobs, versions, files, settings) into one file, while Needlefile may be running.
import path from 'node:path';
import { BackupFault, backUp, countWords } from './lib/backup.mjs';
import { progress } from './lib/progress.mjs';
import { stop } from './lib/run.mjs';
import { withDatabase } from './lib/with-database.mjs';

const today = new Date().toISOString().slice(0, 16).replace('T', '-').replace(':', '');
const file = path.resolve(process.argv[2] ?? `needlefile-${today}.backup`);
const { say, end } = progress();
try {
  const counts = await withDatabase((env) => backUp(env.DATABASE_URL, file, say));
  end();
  console.log(
    `${countWords(counts)} are in ${file}\nIt was read back and counted. To bring it back: npm run restore -- FILE`,
  );
} catch (reason) {
  end();
  if (!(reason instanceof BackupFault)) throw reason;
  stop(reason.message);
}
