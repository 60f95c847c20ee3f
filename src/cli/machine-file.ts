/** A machine of the shop in a file of its own, as JSON. */
import { readFile } from 'node:fs/promises';
import { type JobMachine, jobMachineSchema } from '../core/schema/shop/machine';
import { type Refused, refuse } from './refused';

/** A machine of a file, as the shop has them; or why it can’t be used. */
export async function readMachine(file: string): Promise<JobMachine | Refused> {
  const text = await readFile(file, 'utf8').catch(() => null);
  if (text === null) return refuse(`There is no file ${file}.`);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return refuse(`${file} is no JSON.`);
  }
  const read = jobMachineSchema.safeParse(value);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  return refuse(`${file} is no machine: ${issue?.path.join('.') || 'it'}: ${issue?.message ?? ''}.`);
}
