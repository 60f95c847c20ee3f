/**
 * The contact sheet of bridges: every shipped face with the characters that have islands, bridged as they come. Writes
 * docs/stencils.svg. Run with: npx tsx scripts/stencil-sheet.ts [file]
 */
import { LEFT_MM, wordsIn, writeFaceSheet } from './lib/face-sheet';

const CHARACTERS = 'ABDOPQR abdegopq 04689 &@%';
const CAPITAL_MM = 30;

await writeFaceSheet(process.argv[2] ?? 'docs/stencils.svg', {
  title: 'Bridges',
  widthMm: 800,
  rowMm: 62,
  leastWidth: 1.2,
  row: (face, y) => [
    {
      id: 'row',
      keep: 'outside',
      members: [wordsIn(CHARACTERS, face, CAPITAL_MM, LEFT_MM, y)],
      steps: [{ kind: 'weld' }, { kind: 'bridge', width: 3, reads: true, small: 'ask' }],
    },
  ],
});
