/**
 * The contact sheet of joints: every shipped face with names that are hard to join, closed up as reads best, drawn from the exported
 * outlines. Writes docs/joints.svg. Run with: npx tsx scripts/joint-sheet.ts [file]
 */
import { writeFileSync } from 'node:fs';
import { diskFaces } from '../src/cli/typefaces';
import { checkJob } from '../src/core/document/read';
import { loadWasmEngine } from '../src/core/geometry/boolean/engine-wasm';
import { Evaluator } from '../src/core/job/evaluate';
import { drawingOf, writeFile } from '../src/core/job/export';
import { isLineFace, SHIPPED_FACES } from '../src/core/lettering/catalogue';
import { faceOfFamily } from '../src/core/schema/lettering';

const NAMES = ['Lilly', 'RIDGE', 'Mimi', 'Anneliese', "O'Brien", 'Åsa & Jo', 'Zoë', 'Jean-Luc'];
const NAME_MM = 165;
const CAPITAL_MM = 22;
const ROW_MM = 46;

const families = SHIPPED_FACES.filter((f) => !isLineFace(f)).map((f) => f.family);
const faces = await diskFaces([...families].map(faceOfFamily), null);
const height = families.length * ROW_MM;
const words = (text: string, face: string, mm: number, x: number, y: number) => ({
  id: 'words',
  kind: 'lettering',
  placement: { x, y },
  text,
  face,
  size: { by: 'capital', mm },
  align: 'left',
});
const parts = families.flatMap((face, i) => {
  const y = height - (i + 1) * ROW_MM + 18;
  const work = [{ what: 'fill', operation: 'engrave' }];
  return [
    { id: `name${i}`, members: [words(face, 'Poppins', 3, 10, y + 36)], work },
    ...NAMES.map((name, k) => ({
      id: `row${i}-${k}`,
      members: [
        {
          ...words(name, face, CAPITAL_MM, 10 + k * NAME_MM, y),
          closeUp: { overlap: 2.4, words: true, joints: 'best' },
        },
      ],
      work,
    })),
  ];
});
const read = checkJob({ format: 1, title: 'Joints', sheet: { width: 20 + NAMES.length * NAME_MM, height }, parts });
if (!read.ok) throw new Error(read.sentences.join(' '));
const result = new Evaluator(await loadWasmEngine()).evaluate(read.job, faces);
const drawing = drawingOf(read.job, result);
if (!drawing) throw new Error('Nothing is drawn.');
writeFileSync(process.argv[2] ?? 'docs/joints.svg', writeFile(drawing, 'svg', read.job.export));
for (const finding of result.findings)
  if (finding.station === 'hold' && finding.severity === 'fault') console.log(finding.sentence);
