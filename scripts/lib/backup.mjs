// All there is (jobs, versions, files, settings) in one file, and back: by PostgreSQL's own tools, as of one moment, counted and checked.
import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import pg from 'pg';
import { root } from './paths.mjs';

/** Thrown with a sentence for whoever started it. */
export class BackupFault extends Error {}

/** The tables whose rows are counted, and what they are called. */
const TABLES = {
  jobs: 'jobs',
  job_revisions: 'earlier versions',
  assets: 'files',
  settings: 'settings',
  shop_entries: 'things of the shop',
};

/** Tables of what can be computed again: they are made, but what is in them stays here. */
const PASSING = ['row_batches', 'rows_of_batch', 'prepared_rows', 'row_workers'];

/** The connection as PostgreSQL's tools are told it; a password is not for a command line that others see. */
const toolEnv = (url) => {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    PATH: process.env.PATH,
    LC_ALL: 'C.UTF-8',
    PGHOST: hostname,
    PGPORT: port,
    PGUSER: username,
    PGPASSWORD: password,
    PGDATABASE: pathname.slice(1),
  };
};

/** Run a tool to its end; `onLine` hears what it tells on the way. */
function tool(command, args, env, onLine = () => {}) {
  return new Promise((resolve, reject) => {
    const running = spawn(command, args, { env, stdio: ['ignore', 'ignore', 'pipe'] });
    let last = '';
    let rest = '';
    running.stderr.on('data', (chunk) => {
      const lines = (rest + chunk).split('\n');
      rest = lines.pop() ?? '';
      for (const line of lines) {
        if (/error|fatal|could not/i.test(line)) last = line;
        onLine(line);
      }
    });
    running.on('error', reject);
    running.on('close', (code) =>
      code === 0 ? resolve() : reject(new BackupFault(`${command} ended with ${code}: ${last || rest}`)),
    );
  });
}

const countsOf = async (client) => {
  const counts = {};
  for (const table of Object.keys(TABLES)) {
    // What was backed up by an older Needlefile may lack a table that came later.
    const { rows } = await client.query('select to_regclass($1) is not null as there', [`public.${table}`]);
    counts[table] = rows[0].there ? Number((await client.query(`select count(*) from ${table}`)).rows[0].count) : 0;
  }
  return counts;
};

/** How many rows of each table are in a backup; reads all of it, so that one that is cut short or damaged is found out. */
function countsIn(file) {
  return new Promise((resolve, reject) => {
    const reading = spawn('pg_restore', ['--data-only', '-f', '-', file], { stdio: ['ignore', 'pipe', 'pipe'] });
    const counts = Object.fromEntries(Object.keys(TABLES).map((table) => [table, 0]));
    let table = null;
    /** The beginning of the line that is being read: rows are long, and only their ends are counted. */
    let head = '';
    let said = '';
    reading.stderr.on('data', (chunk) => {
      said += chunk;
    });
    reading.stdout.on('data', (chunk) => {
      for (let from = 0; from < chunk.length; ) {
        const end = chunk.indexOf(10, from);
        const to = end === -1 ? chunk.length : end;
        if (head.length < 80) head += chunk.toString('latin1', from, Math.min(to, from + 80));
        if (end !== -1) {
          const begins = /^COPY public\.(\w+) \(/.exec(head)?.[1];
          if (table === null) table = begins ?? null;
          else if (head === '\\.') table = null;
          else if (table in counts) counts[table] += 1;
          head = '';
        }
        from = to + 1;
      }
    });
    reading.on('error', reject);
    reading.on('close', (code) =>
      code === 0
        ? resolve(counts)
        : reject(
            new BackupFault(`${path.basename(file)} is no backup of Needlefile, or it is damaged. ${said.trim()}`),
          ),
    );
  });
}

/** Counts in words. */
export const countWords = (counts) =>
  Object.entries(TABLES)
    .slice(0, 3)
    .map(([table, words]) => `${counts[table]} ${words}`)
    .join(', ');

/** Why two counts differ; null where they do not. */
const differenceOf = (wanted, found) => {
  const odd = Object.keys(TABLES).filter((table) => wanted[table] !== found[table]);
  return odd.length === 0 ? null : odd.map((t) => `${found[t]} of ${wanted[t]} ${TABLES[t]}`).join(', ');
};

const megabytes = (bytes) => (bytes / 1024 / 1024).toFixed(1);

/**
 * Write all of a database, as it is at this moment, into a file that is not there yet; the app may go on meanwhile. Says how far it is.
 * Returns how many rows of each table there are in it. Throws a BackupFault.
 */
export async function backUp(url, file, say = () => {}) {
  if (fs.existsSync(file)) throw new BackupFault(`There is a file ${file} already; nothing was written.`);
  const part = `${file}.part`;
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    // What is counted is what is written: both see the same moment.
    await client.query('begin isolation level repeatable read read only');
    const { pg_export_snapshot: snapshot } = (await client.query('select pg_export_snapshot()')).rows[0];
    const wanted = await countsOf(client);
    const size = Number((await client.query('select pg_database_size(current_database()) as size')).rows[0].size);
    const told = setInterval(() => {
      const written = fs.existsSync(part) ? fs.statSync(part).size : 0;
      say(`${megabytes(written)} MB written; the database is ${megabytes(size)} MB large`);
    }, 1_000);
    try {
      await tool(
        'pg_dump',
        [
          '-Fc',
          '--no-owner',
          '--no-privileges',
          ...PASSING.flatMap((name) => ['--exclude-table-data', name]),
          '--exclude-schema=pgboss',
          `--snapshot=${snapshot}`,
          '-f',
          part,
        ],
        toolEnv(url),
      );
    } finally {
      clearInterval(told);
    }
    await client.query('commit');
    say(`${megabytes(fs.statSync(part).size)} MB written; reading it back`);
    const found = await countsIn(part);
    const difference = differenceOf(wanted, found);
    if (difference) throw new BackupFault(`The backup does not hold all there is: ${difference}.`);
    fs.renameSync(part, file);
    return found;
  } finally {
    await client.end();
    fs.rmSync(part, { force: true });
  }
}

/** What is wrong with files as they lie in the database: those whose bytes are not what their name says. */
const damagedFiles = async (client) =>
  Number(
    (await client.query(`select count(*) from assets where encode(sha256(bytes), 'hex') <> sha256`)).rows[0].count,
  );

/** How many changes of the tables this release knows. */
const knownChanges = () =>
  JSON.parse(fs.readFileSync(path.join(root, 'drizzle', 'meta', '_journal.json'), 'utf8')).entries.length;

/** Look through a backup before anything is touched: how many rows of each table it holds. Throws a BackupFault. */
export function lookThrough(file) {
  if (!fs.existsSync(file)) throw new BackupFault(`There is no file ${file}.`);
  const list = spawnSync('pg_restore', ['-l', file], { encoding: 'utf8' });
  if (list.status !== 0 || !/TABLE DATA public jobs /.test(list.stdout))
    throw new BackupFault(`${path.basename(file)} is no backup of Needlefile, or it is damaged.`);
  return countsIn(file);
}

/**
 * Put all of a backup into a database in which there is nothing yet. Says how far it is. Returns how many rows of each table there are
 * then; they are counted and files are compared with their names. Throws a BackupFault.
 */
export async function restoreInto(url, file, say = () => {}) {
  const wanted = await lookThrough(file);
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows } = await client.query("select 1 from information_schema.tables where table_schema = 'public'");
    if (rows.length > 0) throw new BackupFault('There is something in the database already; nothing was changed.');
    await tool(
      'pg_restore',
      ['--verbose', '--no-owner', '--single-transaction', '-d', new URL(url).pathname.slice(1), file],
      toolEnv(url),
      (line) => {
        const table = /processing data for table "public\.(\w+)"/.exec(line)?.[1];
        if (table) say(`${TABLES[table] ?? table} …`);
      },
    ).catch((reason) => {
      // All of it or none: what was begun has been taken back.
      const why = `It is damaged, or the database went away: ${reason.message}`;
      throw new BackupFault(`${path.basename(file)} could not be put back; nothing was changed. ${why}`);
    });
    const changes = Number((await client.query('select count(*) from drizzle.__drizzle_migrations')).rows[0].count);
    if (changes > knownChanges())
      throw new BackupFault('This backup was made by a newer Needlefile. Bring that one up to date first.');
    const found = await countsOf(client);
    const difference = differenceOf(wanted, found);
    if (difference) throw new BackupFault(`Not all of the backup has arrived: ${difference}.`);
    const damaged = await damagedFiles(client);
    if (damaged > 0) throw new BackupFault(`${damaged} of the files are not what they were.`);
    return found;
  } finally {
    await client.end();
  }
}
