/** Format 10: the colours that operations begin with are others. A job that named none was made, and read by machines, with these. */
import { isObject, type Json } from './json';

const COLOURS_BEFORE = { cut: '#3730A3', score: '#0F766E', engrave: '#92400E', mark: '#BE185D' } as const;

/** The colour key filled with the colours that were meant where it names none. */
export function keepColours(document: Json): Json {
  const { colourKey } = document;
  if (colourKey !== undefined && !isObject(colourKey)) return document;
  return { ...document, colourKey: { ...COLOURS_BEFORE, ...colourKey } };
}
