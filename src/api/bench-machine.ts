/** What the bench machine takes and says: files as they are sent to it, and runs as it tells of them. */
import { z } from 'zod';
import { LIMITS } from '../core/limits';
import { machineSchema } from '../core/schema/shop/machine';
import { layerSetSchema } from '../machine/set';

const sha256 = z.string().regex(/^[0-9a-f]{64}$/);
const fileName = z.string().trim().min(1).max(LIMITS.fileNameCharacters);

/** The profile that a file is run in, and what the machine is set to, by layer. */
const profile = {
  machine: machineSchema,
  set: z.array(layerSetSchema).max(LIMITS.operations * LIMITS.sheets),
};

/** A file that is kept, to be sent to the bench machine. */
export const toSendSchema = z.object({ name: fileName, file: sha256, ...profile });

/** A file as it arrives there: its bytes in base64, and what they come to, so that half of it is known as that. */
export const arrivingSchema = z.object({ name: fileName, bytes: z.base64(), sha256, ...profile });

/** States of a run. */
const RUN_STATES = ['in line', 'running', 'paused', 'stopped', 'finished'] as const;

/** A file that was sent to the bench machine, and how far it is. Times as ISO. */
export const machineRunSchema = z.object({
  id: z.string().regex(/^[0-9a-f]{12}$/),
  name: fileName,
  sha256,
  machine: z.string(),
  state: z.enum(RUN_STATES),
  /** What it takes, and how much of that is done, in seconds; the machine passes them faster. */
  seconds: z.number(),
  done: z.number(),
  operations: z.int(),
  /** Why it would not run as meant. */
  troubles: z.array(z.string()),
  sentAt: z.string(),
  endedAt: z.string().nullable(),
});

/** A line of the machine's log. */
export const logLineSchema = z.object({ at: z.string(), words: z.string() });

/** The bench machine as it stands. */
export const benchMachineSchema = z.object({
  runs: z.array(machineRunSchema),
  /** The newest first. */
  log: z.array(logLineSchema),
  /** How many seconds of a run pass in one. */
  pace: z.number(),
});

/** What can be done to a run. */
export const RUN_ORDERS = ['pause', 'go on', 'stop', 'take out'] as const;

/** A run of the bench machine. */
export type MachineRun = z.infer<typeof machineRunSchema>;
/** A line of its log. */
export type LogLine = z.infer<typeof logLineSchema>;
/** The bench machine as it stands. */
export type BenchMachine = z.infer<typeof benchMachineSchema>;
/** A file as it arrives. */
export type Arriving = z.infer<typeof arrivingSchema>;
/** What can be done to a run. */
export type RunOrder = (typeof RUN_ORDERS)[number];
