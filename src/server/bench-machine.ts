/** The bench machine, which is a service of its own on this machine: asked here, so that pages know one address only. */
import { createHash } from 'node:crypto';
import { z } from 'zod';
import {
  type BenchMachine,
  benchMachineSchema,
  type MachineRun,
  machineRunSchema,
  type toSendSchema,
} from '../api/bench-machine';
import { LIMITS } from '../core/limits';
import { Refusal } from './answer';
import { openAsset } from './assets';
import type { Database } from './database';

const AWAY = 'The bench machine is away. Nothing was sent; try again in a moment.';

/** What the bench machine answers; a refusal with its sentence, or where it is away. */
async function ask<T>(path: string, schema: z.ZodType<T>, sent: object | null = null, method = 'GET'): Promise<T> {
  const address = process.env.NEEDLEFILE_MACHINE_URL;
  if (!address) throw new Refusal(503, 'There is no bench machine here.');
  let response: Response;
  let said: unknown;
  try {
    response = await fetch(`${address}${path}`, {
      method,
      signal: AbortSignal.timeout(LIMITS.answerSeconds * 1000),
      ...(sent && { body: JSON.stringify(sent), headers: { 'content-type': 'application/json' } }),
    });
    said = await response.json();
  } catch {
    throw new Refusal(503, AWAY);
  }
  const { sentence } = said as { readonly sentence?: unknown };
  if (!response.ok)
    throw new Refusal(response.status >= 500 ? 503 : response.status, typeof sentence === 'string' ? sentence : AWAY);
  const read = schema.safeParse(said);
  if (!read.success) throw new Refusal(503, AWAY);
  return read.data;
}

/** How the bench machine stands. */
export const benchMachine = (): Promise<BenchMachine> => ask('/api/state', benchMachineSchema);

/** Sends a kept file to it. */
export async function sendToMachine(
  db: Database,
  { name, file, machine, set }: z.infer<typeof toSendSchema>,
): Promise<MachineRun> {
  const kept = await openAsset(db, file);
  if (!kept) throw new Refusal(404, 'There is no such file.');
  if (kept.bytes.length > LIMITS.machineFileBytes)
    throw new Refusal(413, `The bench machine runs files of up to ${LIMITS.machineFileBytes / 1024 / 1024} MB.`);
  const sha256 = createHash('sha256').update(kept.bytes).digest('hex');
  const sent = { name, machine, set, sha256, bytes: kept.bytes.toString('base64') };
  return ask('/api/runs', machineRunSchema, sent, 'POST');
}

/** Does something with a run. */
export const orderRun = ({ run, order }: { readonly run: string; readonly order: string }): Promise<object> =>
  ask(`/api/runs/${run}/${order}`, z.object({}), {}, 'POST');
