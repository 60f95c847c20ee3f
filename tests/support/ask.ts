/** Asking a database itself, by a connection of its own. */
import pg from 'pg';

/** The rows that a query gives. */
export async function ask<T>(url: string, query: string, values: readonly unknown[] = []): Promise<T[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(query, [...values])).rows as T[];
  } finally {
    await client.end();
  }
}
