import { test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { bridge } from '../../src/core/prepare/bridges/bridges';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { jobWith, lettering, partOf } from '../support/jobs';

test('x', () => {
  const text = 'ABDOPQR ABDEGOPQ abdegopq 04689 &@% The quick brown fox jumps over the lazy dog while BOARDS are drooped';
  for (const family of FAMILIES) {
    const job = jobWith([partOf([lettering(`${text}\n${text}`, family)], { keep: 'outside', steps: [{ kind: 'weld' }, { kind: 'bridge', alike: true }] })], { sheet: { width: 3000, height: 300, leastWidth: 1.2 } });
    const ev = new Evaluator(wasmEngine);
    const r = ev.evaluate(job, faces);
    const part = r.parts[0]!;
    const s = { stockInside: false, frames: part.notes.bridged!.frames, step: job.parts[0]!.steps[1] as never, leastMm: 1.2, thicknessMm: null, rims: [] };
    let out = bridge(part.bare, s);
    const t = performance.now();
    out = bridge(part.bare, s);
    const ms = performance.now() - t;
    const n = out.notes.islands.length;
    console.log(family.padEnd(20), ms.toFixed(1), 'ms', n, 'islands', out.notes.bridges.length, 'bridges', 'pieces', part.pieces.length, out.notes.islands.filter((i) => i.trouble).map((i) => `${part.sources[i.label]?.text}${i.trouble}`).join(' '), out.notes.bridges.filter((b) => b.isNarrowed).length, 'narrowed');
  }
});
