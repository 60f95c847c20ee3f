/** JSON as it was kept, before it is checked. */

/** A JSON object of which nothing is known. */
export type Json = Record<string, unknown>;

/** Whether a JSON value is an object: neither a list nor null. */
export const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
