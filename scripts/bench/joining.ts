/** Speed of what keeps letters themselves: measured once a face, closing up and bridging with it against without it. */
import type { Part, StepOf } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { stepIn } from '../../src/core/kinds/steps';
import { EVIDENCE } from '../../src/core/lettering/evidence';
import type { Typeface } from '../../src/core/lettering/face';
import { layoutLettering, letterPaths } from '../../src/core/lettering/layout';
import { Memo } from '../../src/core/memo';
import { bridgeIslands } from '../../src/core/prepare/bridges/bridges';
import { faces, spec, typeface, wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { jobWith, lettering, partOf } from '../../tests/support/jobs';
import { median } from './median';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&';
const NAMES = [
  'Anneliese & Emilia',
  'Lilly Quentin Theo',
  'WILLIAM HANNAH IDA',
  "O'Brien Jean-Luc",
  'Jonas Klara Ludwig',
  'Maja Noah Ottilie',
].join('\n');

const measureAll = (face: Typeface, memory: Memo): void => {
  for (const text of LETTERS) {
    const paths = letterPaths(layoutLettering(spec(text, { size: { by: 'capital', mm: 1 } }), face));
    memory.get(EVIDENCE, { face, text, paths: () => paths, drawn: text });
  }
};

for (const family of ['Poppins', 'Caveat']) {
  const face = typeface(family);
  const first = median(
    7,
    () => new Memo(),
    (memory) => measureAll(face, memory),
  );
  figure({
    name: `What makes ${LETTERS.length} letters themselves, the first time, ${family}`,
    value: first / 1000,
    digits: 2,
    unit: 's',
    aim: { most: 0.5 },
  });

  // Another width each time: joints are found anew, what makes letters themselves is known.
  let width = 2;
  const closing = (joints: 'best' | 'overlap') => {
    const memory = new Memo();
    return median(
      9,
      () => {
        width += 1e-3;
        return spec(NAMES, { closeUp: { overlap: width, words: true, lines: false, joints } });
      },
      (words) => layoutLettering(words, face, memory),
    );
  };
  const [best, overlap] = [closing('best'), closing('overlap')];
  figure({
    name: `Closing ${NAMES.replace(/\s/g, '').length} letters up as reads best, against until they overlap, ${family}`,
    value: best / overlap,
    digits: 2,
    aim: { most: 1.3 },
    note: `${best.toFixed(0)} ms against ${overlap.toFixed(0)} ms`,
  });

  const job = jobWith([
    partOf([lettering(NAMES, family)], { keep: 'outside', steps: [{ kind: 'weld' }, { kind: 'bridge', width: 3 }] }),
  ]);
  const [part] = new Evaluator(wasmEngine).evaluate(job, faces).parts;
  if (!part) throw new Error('no part');
  const known = new Memo();
  const bridging = (reads: boolean) =>
    median(
      9,
      () => ({}),
      (owner) =>
        bridgeIslands(
          part.bare,
          {
            stockInside: false,
            frames: part.frames,
            step: { ...(stepIn(job.parts[0] as Part, 'bridge') as StepOf<'bridge'>), reads },
            leastMm: 1.5,
            thicknessMm: null,
            rims: [],
          },
          known,
          owner,
        ),
    );
  const [spared, plain] = [bridging(true), bridging(false)];
  figure({
    name: `Bridging them sparing what tells letters apart, against not, ${family}`,
    value: spared / plain,
    digits: 2,
    aim: { most: 1.3 },
    note: `${spared.toFixed(0)} ms against ${plain.toFixed(0)} ms`,
  });
}
