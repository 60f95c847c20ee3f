/** The connection to PostgreSQL; one pool for the whole process. */
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import * as schema from './schema';

/** The database, as queries see it. */
export type Database = NodePgDatabase<typeof schema> & { readonly $client: pg.Pool };

/** Room for a machine that stalls; a server that is not there refuses at once. */
const CONNECT_MS = 15_000;
const STATEMENT_MS = 30_000;

const globals = globalThis as typeof globalThis & { needlefileDatabase?: Database };

/** Connect to a URL; idle connections that break are dropped silently and made anew when next needed. */
export function openDatabase(url: string): { database: Database; close: () => Promise<void> } {
  const pool = new pg.Pool({
    connectionString: url,
    max: 8,
    connectionTimeoutMillis: CONNECT_MS,
    statement_timeout: STATEMENT_MS,
    query_timeout: STATEMENT_MS,
  });
  pool.on('error', () => {});
  return { database: drizzle(pool, { schema }), close: () => pool.end() };
}

/** The app's database, from DATABASE_URL. */
export function database(): Database {
  if (!globals.needlefileDatabase) {
    const url = process.env.DATABASE_URL;
    if (!url) throw new Error('DATABASE_URL is not set');
    globals.needlefileDatabase = openDatabase(url).database;
  }
  return globals.needlefileDatabase;
}
