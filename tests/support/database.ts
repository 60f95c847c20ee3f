/**
 * The database of the unit tests: a private PostgreSQL server, started for the run where DATABASE_URL names none, with its
 * tables made.
 */
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { ensureDebian } from '../../scripts/lib/install.mjs';
import { postgres } from '../../scripts/lib/postgres.mjs';
import { openDatabase } from '../../src/server/database';

export default async function setup(): Promise<() => void> {
  const given = process.env.DATABASE_URL;
  if (!given) ensureDebian(['postgresql']);
  const server = given ? null : postgres('unit-database', { fast: true });
  // Another run may be using it.
  const isOurs = server !== null && !server.isRunning();
  const url = given ?? (await server?.start()) ?? '';
  process.env.DATABASE_URL = url;
  const { database, close } = openDatabase(url);
  await migrate(database, { migrationsFolder: 'drizzle' });
  await close();
  return () => {
    if (isOurs) server.stop();
  };
}
