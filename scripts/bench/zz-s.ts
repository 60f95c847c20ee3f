import { Evaluator } from '../../src/core/job/evaluate';
import { finished } from '../../src/core/memo';
import { machineSchema } from '../../src/core/schema/shop/machine';
import { faces, wasmEngine } from '../../tests/support/faces';
import { jobWith, lettering, partOf } from '../../tests/support/jobs';
const TEXT = Array.from({ length: 10 }, () => 'Gate sign Alder Lane no 7').join('\n');
const sign = jobWith([partOf([lettering(TEXT, 'Archivo Black', { size: { by: 'capital', mm: 20 } })], { placement: { x: 900, y: 500 }, steps: [{ kind: 'weld' }], work: [{ what: 'outline', operation: 'cut' }] })],
 { operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 20 } } }], machine: { ...machineSchema.parse({ name: 'Laser', kind: 'laser' }), id: 'laser' }, sheet: { width: 2000, height: 1000, thickness: 3, kerf: 0.2, leastWidth: 1 } });
for (let i = 0; i < 2; i++) {
const ev = new Evaluator(wasmEngine);
let b = process.cpuUsage().user; const r = ev.evaluate(sign, faces); const e = (process.cpuUsage().user - b) / 1000;
b = process.cpuUsage().user; const run = finished(r.run('full')) as never as Record<string, unknown>; const f = (process.cpuUsage().user - b) / 1000;
console.log(process.env.KICK, process.env.KICKS, 'eval', e.toFixed(0), 'full', f.toFixed(0), (f / e).toFixed(2), JSON.stringify(run, (k, v) => ArrayBuffer.isView(v) || Array.isArray(v) || k==='order' ? undefined : v)?.slice(0, 200)); }
