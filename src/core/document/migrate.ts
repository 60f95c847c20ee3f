/**
 * Documents of older formats brought to the present one. Each format has one migration from the one before, on the JSON as it
 * was kept and before it is checked: what is not as it should be is passed on as it is, for the schema to name. A migration
 * gives an old job the values it was made with, never a newer default.
 */
import type { Json } from './json';
import { placeParts } from './migrate-2';
import { orderSteps } from './migrate-3';
import { renameSettings } from './migrate-4';
import { keepColours } from './migrate-10';

/** For formats that only have settings more, which older jobs were made without: their defaults change nothing of these. */
const asItWas = (document: Json): Json => document;

/** The migration to format 2, to format 3, and so on. */
const MIGRATIONS: readonly ((document: Json) => Json)[] = [
  placeParts,
  orderSteps,
  renameSettings,
  // Format 5: pens of operations, and where 0, 0 is in plotter files.
  asItWas,
  // Format 6: pictures on the sheet, and traces of them.
  asItWas,
  // Format 7: typefaces by style and content, axes, features, other forms of letters.
  asItWas,
  // Format 8: lines of their own, words along a line, sizes that are found, words as they were set.
  asItWas,
  // Format 9: starters, and words that are asked for.
  asItWas,
  keepColours,
  // Format 11: the machine, settings of operations, what must not be done to the stock.
  asItWas,
  // Format 12: tabs, starts of cuts by hand, letters with an operation of their own.
  asItWas,
  // Format 13: the order of what an operation does, how machines cut corners and how long a change of tool takes.
  asItWas,
  // Format 14: files that are written mirrored.
  asItWas,
  // Format 15: rosters, and words that are to fit a width.
  asItWas,
];

/** The document in the present format; itself when it is that already, or names no format. */
export function migrate(document: Json): Json {
  const { format } = document;
  if (typeof format !== 'number' || format < 1) return document;
  return MIGRATIONS.slice(format - 1).reduce((doc, to, i) => ({ ...to(doc), format: format + i + 1 }), document);
}
