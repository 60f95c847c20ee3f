/** Speed of proving a sign of 200 letters, against reading its file by the same reader. */
import { Evaluator } from '../../src/core/job/evaluate';
import { meantFiles, provedOn } from '../../src/core/job/machine-files';
import { finished } from '../../src/core/memo';
import { prove } from '../../src/core/proof/prove';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { readByMachine } from '../../src/machine/read';
import { faces, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { jobWith, lettering, partOf } from '../../tests/support/jobs';
import { middle } from './median';

const ROUNDS = 5;
const TEXT = Array.from({ length: 10 }, () => 'Gate sign Alder Lane no 7').join('\n');

for (const format of ['svg', 'dxf', 'pdf', 'hpgl'] as const) {
  const file = { format, curves: format === 'svg' || format === 'pdf' ? 'curves' : 'arcs' };
  const job = jobWith(
    [
      partOf([lettering(TEXT, 'Archivo Black', { size: { by: 'capital', mm: 20 } })], {
        placement: { x: 900, y: 500 },
        hangsTogether: 'no',
        steps: [{ kind: 'weld' }],
        work: [{ what: 'outline', operation: 'cut' }],
      }),
    ],
    {
      operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 20 } } }],
      machine: { ...machineSchema.parse({ name: 'Laser', kind: 'laser', file }), id: 'laser' },
      sheet: { width: 2000, height: 1000, thickness: 3, kerf: 0.2, leastWidth: 1 },
    },
  );
  const result = new Evaluator(wasmEngine).evaluate(job, faces);
  const { files } = finished(meantFiles(job, result, { partIds: null }));
  const reading: number[] = [];
  const proving: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    let began = performance.now();
    const read = [];
    for (const made of files) {
      const found = await readByMachine(made.bytes, provedOn(job));
      read.push({ ...made, read: 'drawing' in found ? found.drawing : found });
    }
    reading.push(performance.now() - began);
    began = performance.now();
    const { findings } = finished(prove(wasmEngine, job, result, read));
    proving.push(performance.now() - began);
    if (findings.length > 0) throw new Error(findings.map((f) => f.sentence).join(' '));
  }
  const [read, proof] = [middle(reading), middle(proving)];
  figure({
    name: `proof of a sign of 200 letters against reading its ${format.toUpperCase()}`,
    value: proof / read,
    digits: 1,
    unit: '×',
    aim: { most: 5 },
    note: `${proof.toFixed(0)} ms against ${read.toFixed(0)} ms`,
  });
}
