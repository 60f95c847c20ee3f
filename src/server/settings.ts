/** Settings of the service: who is let in from the network, and by which names. */
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import type { Database } from './database';
import { settings } from './schema';

const hex = z.string().regex(/^([0-9a-f]{2})+$/);
const passphraseSchema = z.strictObject({ salt: hex, key: hex, secret: hex });

const settingsSchema = z.strictObject({
  /** Further names that this machine may be called by, in lower case. */
  names: z.array(z.string()).default([]),
  /** The passphrase of the network, as it is kept; null where there is none. */
  passphrase: passphraseSchema.nullable().default(null),
  /** Files of the certificate and of its key, in PEM; null where lines are not encrypted. */
  certificate: z.strictObject({ certFile: z.string(), keyFile: z.string() }).nullable().default(null),
});

/** A passphrase as scrypt made it, with its salt, and the secret that sessions are signed with. In hexadecimal digits. */
export type Passphrase = z.infer<typeof passphraseSchema>;
/** Settings of the service. */
export type Settings = z.infer<typeof settingsSchema>;

const NAME = 'service';

/** The settings; what was never set is as it is at first. */
export async function readSettings(db: Database): Promise<Settings> {
  const [row] = await db.select({ value: settings.value }).from(settings).where(eq(settings.name, NAME));
  return settingsSchema.parse(row?.value ?? {});
}

/** Change some of the settings. */
export async function changeSettings(db: Database, changes: Partial<Settings>): Promise<void> {
  const value = settingsSchema.parse({ ...(await readSettings(db)), ...changes });
  await db.insert(settings).values({ name: NAME, value }).onConflictDoUpdate({ target: settings.name, set: { value } });
}
