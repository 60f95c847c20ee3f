/** Starters of words that a tool runs along: drawn, set with stones, scribed. */
import { part, type ShippedStarter, starter, words } from './draft';

/** Words for a pen. */
const forPen = starter('for-a-pen', 'Words for a pen', 'Words drawn in single lines by a pen or a marker.', {
  sheet: { width: 210, height: 148, material: 'Card', thickness: null, leastWidth: null, kerf: null },
  parts: [
    part('words', '', [words('Words', 'Open every\nSaturday', 'EMS Allure', 26, { lineSpacing: 1 })], {
      work: [{ what: 'outline', operation: 'mark' }],
    }),
  ],
});

/** Stones, or dots, in a row down the middle of the strokes. */
const stones = starter(
  'stones',
  'Stones along a line',
  'Dots down the middle of every stroke, to be set with stones or pecked.',
  {
    sheet: { width: 200, height: 140, material: 'Felt', thickness: null, leastWidth: null, kerf: null },
    parts: [
      part('name', '', [words('Name', 'Mint', 'Pacifico', 60)], {
        steps: [
          { kind: 'weld' },
          { kind: 'centerline' },
          { kind: 'dots', along: 'centerline', diameter: 3, spacing: 4 },
        ],
        work: [{ what: 'dots', operation: 'mark' }],
      }),
    ],
  },
);

/** A number on a part. */
const partNumber = starter(
  'part-number',
  'Part number to scribe',
  'A number in single lines, to scribe, etch or peck into a part.',
  {
    sheet: { width: 80, height: 40, material: 'Mild steel', thickness: 3, leastWidth: null, kerf: null },
    parts: [
      part('number', '', [words('Number', 'AL-0042', 'Hershey Sans', 8, { letterSpacing: 0.05 })], {
        work: [{ what: 'outline', operation: 'mark' }],
      }),
    ],
  },
);

/** Words along which a tool runs. */
export const OF_LINES: readonly ShippedStarter[] = [forPen, stones, partNumber];
