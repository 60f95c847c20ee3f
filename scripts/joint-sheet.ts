/**
 * The contact sheet of joints: every shipped face with names that are hard to join, closed up as reads best. Writes docs/joints.svg.
 * Run with: npx tsx scripts/joint-sheet.ts [file]
 */
import { LEFT_MM, wordsIn, writeFaceSheet } from './lib/face-sheet';

const NAMES = ['Lilly', 'RIDGE', 'Mimi', 'Anneliese', "O'Brien", 'Åsa & Jo', 'Zoë', 'Jean-Luc'];
const NAME_MM = 165;
const CAPITAL_MM = 22;

await writeFaceSheet(process.argv[2] ?? 'docs/joints.svg', {
  title: 'Joints',
  widthMm: 2 * LEFT_MM + NAMES.length * NAME_MM,
  rowMm: 46,
  row: (face, y) =>
    NAMES.map((name, k) => ({
      id: `joined${k}-`,
      members: [
        {
          ...wordsIn(name, face, CAPITAL_MM, LEFT_MM + k * NAME_MM, y),
          closeUp: { overlap: 2.4, words: true, joints: 'best' },
        },
      ],
    })),
});
