/**
 * A row worker as a process. DATABASE_URL: the database that the app uses; typefaces that ship are read from this checkout.
 * It ends with SIGTERM or SIGINT, after the row it is at.
 */
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { openAsset } from '../server/assets';
import { openDatabase } from '../server/database';
import { openRowQueue } from '../server/row-queue';
import { openPreparing } from './prepare';
import { RowWorker } from './work';

const typefaces = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', '..', 'public', 'typefaces');
const url = process.env.DATABASE_URL;
if (!url) {
  console.error('needlefile: DATABASE_URL is not set: it says where the database of Needlefile is.');
  process.exit(1);
}

const { database: db, close } = openDatabase(url);
const now = () => performance.now();
const preparing = await openPreparing(
  async (file) => new Uint8Array(await readFile(path.join(typefaces, path.normalize(file)))),
  async (id) => {
    const asset = await openAsset(db, id);
    return asset && new Uint8Array(asset.bytes);
  },
  now,
);
const say = (line: string) => console.log(`row worker ${process.pid}: ${line}`);
const wait = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

let isEnding = false;
let worker: RowWorker | null = null;
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    isEnding = true;
    worker?.stop();
  });

/** The queue, once the database is there. */
async function queueWhenThere() {
  for (let isTold = false; !isEnding; isTold = true) {
    try {
      return await openRowQueue(db, { looks: true });
    } catch (reason) {
      if (!isTold) say(`The database is not there yet: ${reason instanceof Error ? reason.message : 'unknown'}.`);
      await wait(2_000);
    }
  }
  return null;
}

const queue = await queueWhenThere();
if (queue) {
  worker = new RowWorker({ id: randomUUID(), db, queue, preparing, now, wait, say });
  if (isEnding) worker.stop();
  say('ready.');
  await worker.run();
  await queue.close().catch(() => {});
}
await close().catch(() => {});
process.exit(0);
