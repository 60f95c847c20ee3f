/** A database of a test file's own, beside those of others on the server of the unit tests: empty, with its tables made by the migrations of a folder. */
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { type Database, openDatabase } from '../../src/server/database';

export async function ownDatabase(
  name: string,
  migrationsFolder = 'drizzle',
): Promise<{ db: Database; url: string; close: () => Promise<void> }> {
  const server = process.env.DATABASE_URL ?? '';
  const own = sql.identifier(`test_${name}_${process.pid}`);
  const first = openDatabase(server);
  await first.database.execute(sql`drop database if exists ${own} with (force)`);
  await first.database.execute(sql`create database ${own}`);
  const url = new URL(server);
  url.pathname = `/test_${name}_${process.pid}`;
  const { database: db, close } = openDatabase(url.href);
  await migrate(db, { migrationsFolder });
  return {
    db,
    url: url.href,
    close: async () => {
      await close();
      await first.database.execute(sql`drop database if exists ${own} with (force)`);
      await first.close();
    },
  };
}
