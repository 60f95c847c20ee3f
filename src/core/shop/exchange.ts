/** The shop as a file: written as JSON, and read from what somebody else wrote, with a sentence where that can't be. */
import { LIMITS } from '../limits';
import { sentencesFor } from '../schema/said-of';
import { type EntryOf, SHELF_NAMES, SHELVES, type Shelf, type Shop, shopSchema } from '../schema/shop/shop';

/** What a file with a shop says of itself. */
const MARK = 'needlefile shop';
const FORMAT = 1;

/** The shop as JSON text. */
export const writeShop = (shop: Shop): string => {
  const shelves = SHELF_NAMES.map((shelf) => [shelf, shop[shelf].map(({ id, entry }) => ({ id, entry }))]);
  return `${JSON.stringify({ is: MARK, format: FORMAT, ...Object.fromEntries(shelves) }, null, 1)}\n`;
};

/** A shop that was read, or what is wrong with it. */
export type ReadShop = { readonly ok: true; readonly shop: Shop } | { readonly ok: false; readonly sentence: string };

/** Check a shop that was parsed. Rows of charts whose machine or material is not among it are for those that are there already. */
export function readShop(value: unknown): ReadShop {
  if (typeof value !== 'object' || value === null || Array.isArray(value) || (value as { is?: unknown }).is !== MARK)
    return {
      ok: false,
      sentence: 'There is no shop in this file. One is written by “Take along” on the Shop screen.',
    };
  const { is: _is, format, ...shelves } = value as Record<string, unknown>;
  if (format !== FORMAT)
    return {
      ok: false,
      sentence: `This shop was written in format ${String(format).slice(0, 20)}; this Needlefile reads format ${FORMAT}. Nothing was changed.`,
    };
  const read = shopSchema.safeParse(shelves, { reportInput: true });
  if (!read.success)
    return { ok: false, sentence: sentencesFor(read.error, 'a shop', 'The shop').slice(0, 4).join(' ') };
  for (const shelf of SHELF_NAMES) {
    const ids = read.data[shelf].map((kept) => kept.id);
    const twice = ids.find((id, i) => ids.indexOf(id) !== i);
    if (twice !== undefined) return { ok: false, sentence: `The id “${twice}” is used twice among its ${shelf}.` };
  }
  return { ok: true, shop: read.data };
}

/** Read a shop from JSON text. */
export function readShopText(text: string): ReadShop {
  if (text.length > LIMITS.shopBytes)
    return {
      ok: false,
      sentence: `This file is larger than the ${LIMITS.shopBytes / 1024 / 1024} MB that a shop can have.`,
    };
  try {
    return readShop(JSON.parse(text));
  } catch {
    return { ok: false, sentence: 'There is no shop in this file: it is not JSON.' };
  }
}

/** Check something for a shelf of the shop. */
export function readEntry<S extends Shelf>(
  shelf: S,
  value: unknown,
): { readonly ok: true; readonly entry: EntryOf<S> } | { readonly ok: false; readonly sentence: string } {
  const read = SHELVES[shelf].safeParse(value, { reportInput: true });
  if (read.success) return { ok: true, entry: read.data as EntryOf<S> };
  return { ok: false, sentence: sentencesFor(read.error, 'the shop', 'This').slice(0, 4).join(' ') };
}
