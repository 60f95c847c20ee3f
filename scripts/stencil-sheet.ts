/**
 * The contact sheet of bridges: every shipped face with the characters that have islands, bridged as they come, drawn from
 * the exported outlines. Writes docs/stencils.svg. Run with: npx tsx scripts/stencil-sheet.ts [file]
 */
import { writeFileSync } from 'node:fs';
import { diskFaces } from '../src/cli/typefaces';
import { checkJob } from '../src/core/document/read';
import { loadWasmEngine } from '../src/core/geometry/boolean/engine-wasm';
import { Evaluator } from '../src/core/job/evaluate';
import { drawingOf, writeFile } from '../src/core/job/export';
import { isLineFace, SHIPPED_FACES } from '../src/core/lettering/catalogue';
import { faceOfFamily } from '../src/core/schema/lettering';

const CHARACTERS = 'ABDOPQR abdegopq 04689 &@%';
const CAPITAL_MM = 30;
const ROW_MM = 62;

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
    {
      id: `row${i}`,
      keep: 'outside',
      members: [words(CHARACTERS, face, CAPITAL_MM, 10, y)],
      steps: [{ kind: 'weld' }, { kind: 'bridge', width: 3, reads: true }],
      work,
    },
  ];
});
const read = checkJob({ format: 1, title: 'Bridges', sheet: { width: 800, height, leastWidth: 1.2 }, parts });
if (!read.ok) throw new Error(read.sentences.join(' '));
const result = new Evaluator(await loadWasmEngine()).evaluate(read.job, faces);
const drawing = drawingOf(read.job, result);
if (!drawing) throw new Error('Nothing is drawn.');
writeFileSync(process.argv[2] ?? 'docs/stencils.svg', writeFile(drawing, 'svg', read.job.export));
for (const finding of result.findings)
  if (finding.station === 'hold' && finding.severity === 'fault') console.log(finding.sentence);
