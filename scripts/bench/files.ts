/** What reading a file back and comparing it takes, against writing it: a sign of words with hatch lines and centerlines. */

import { differenceFrom } from '../../src/core/formats/read-back/compare';
import { WRITTEN_FORMATS } from '../../src/core/formats/written';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { differencesOf } from '../../src/core/proof/differences';
import { itemsOf } from '../../src/core/proof/read-items';
import { readByMachine } from '../../src/machine/read';
import { faces, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { jobWith, lettering, partOf } from '../../tests/support/jobs';
import { middle } from './median';

const ROUNDS = 9;
const TEXT = Array.from({ length: 5 }, () => 'The quick brown fox jumps over a lazy dog').join('\n');
const words = (face: string, y: number) =>
  lettering(TEXT, face, { placement: { x: 500, y }, size: { by: 'capital', mm: 20 } });
const job = jobWith(
  [
    partOf([words('Pacifico', 700)], { id: 'cut' }),
    partOf([words('Archivo Black', 400)], {
      id: 'hatched',
      steps: [{ kind: 'weld' }, { kind: 'hatch', tool: { shape: 'line', tip: 0.3 } }],
      work: [{ what: 'hatch', operation: 'engrave' }],
    }),
    partOf([words('Poppins', 150)], {
      id: 'lines',
      steps: [{ kind: 'weld' }, { kind: 'centerline' }],
      work: [{ what: 'centerline', operation: 'mark' }],
    }),
  ],
  { sheet: { width: 1000, height: 900 } },
);
const result = new Evaluator(wasmEngine).evaluate(job, faces);

for (const format of WRITTEN_FORMATS) {
  const drawing = drawingOf(job, result, { partIds: null }, format.frame(job.export));
  if (!drawing) throw new Error('nothing is drawn');
  const timed = <T>(run: () => T): readonly [number, T] => {
    const began = performance.now();
    const out = run();
    return [performance.now() - began, out];
  };
  const [writing, reading]: [number[], number[]] = [[], []];
  // By turns, so that neither has the warmer machine; the first rounds are for the compiler.
  for (let i = 0; i < ROUNDS + 3; i++) {
    const [wrote, bytes] = timed(() => writeFile(drawing, format.id, job.export));
    const keeps = { keeps: format.keeps, lineMm: job.export.lineWidth };
    const [read, difference] = timed(() => differenceFrom(drawing, () => format.readBack(bytes, job.export), keeps));
    if (difference) throw new Error(`${format.word}: ${difference}`);
    if (i < 3) continue;
    writing.push(wrote);
    reading.push(read);
  }
  figure({
    name: `Reading a ${format.word} file back and comparing it, against writing it: a sign of 525 letters`,
    value: middle(reading) / middle(writing),
    digits: 2,
    aim: { most: 1 },
    note: `${middle(reading).toFixed(0)} ms against ${middle(writing).toFixed(0)} ms`,
  });
  const bytes = writeFile(drawing, format.id, job.export);
  const asMachine: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const began = performance.now();
    const read = await readByMachine(bytes, null);
    if ('sentence' in read) throw new Error(read.sentence);
    differencesOf(drawing, itemsOf(read.drawing), format.keeps);
    asMachine.push(performance.now() - began);
  }
  figure({
    name: `Reading a ${format.word} file as a machine does and comparing it, against reading it back and comparing it`,
    value: middle(asMachine) / middle(reading),
    digits: 1,
    note: `${middle(asMachine).toFixed(0)} ms against ${middle(reading).toFixed(0)} ms`,
  });
}
