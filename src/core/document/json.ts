/** JSON as it was kept, before it is checked. */
import { isKeepable } from '../units/text';

/** A JSON object of which nothing is known. */
export type Json = Record<string, unknown>;

/** Whether a JSON value is an object: neither a list nor null. */
export const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A value in JSON, and how it is reached. */
type Place = { readonly value: unknown; readonly key: PropertyKey | null; readonly in: Place | null };

const pathTo = (place: Place): PropertyKey[] => {
  const path: PropertyKey[] = [];
  for (let at: Place | null = place; at; at = at.in) if (at.key !== null) path.unshift(at.key);
  return path;
};

/**
 * Where in JSON there is text that can't be kept, as keys: neither a database nor a file takes it. Null where there is none. However
 * deep values lie in each other.
 */
export function unkeepableIn(value: unknown): readonly PropertyKey[] | null {
  const toVisit: Place[] = [{ value, key: null, in: null }];
  for (let place = toVisit.pop(); place; place = toVisit.pop()) {
    const inner = place.value;
    if (typeof inner === 'string' && !isKeepable(inner)) return pathTo(place);
    if (typeof inner !== 'object' || inner === null) continue;
    const isList = Array.isArray(inner);
    for (const [key, one] of Object.entries(inner)) {
      if (!isList && !isKeepable(key)) return pathTo(place);
      if (typeof one === 'object' || typeof one === 'string')
        toVisit.push({ value: one, key: isList ? Number(key) : key, in: place });
    }
  }
  return null;
}
