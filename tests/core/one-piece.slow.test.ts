/**
 * Closing up and ties make one piece of any name in any face, judged by a picture of the exported file.
 *
 * @module-tag slow
 */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from 'vitest';
import { Evaluator } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { countDark, folder, renderSvg } from '../support/checkers';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { jobWith, lettering, partOf } from '../support/jobs';
import { sample } from '../support/scale';

const NAMES = [
  'Io',
  'Al',
  'Bo',
  'Willow',
  'Anna',
  'Fig jam',
  'Zoë',
  'Émile',
  'Ångström',
  'Jiří',
  'Toffee & Co',
  'A & B',
  'Ivy-Lane',
  'O’Rourke',
  'Mississippi',
  'fjord',
  'LAVATTA',
  'HILL',
  'Tiny dots: i j',
  'Question?',
  'Hey!',
  'Ñandú',
  'Öl',
  'Oak\nFern',
  'Rose\n& Thyme',
  'Bücherei',
  'Wm. Tell',
  '“Oak”',
  'Alexandria',
  'xyz 1987',
];
const PX_PER_MM = 20;
const CAPITAL_MM = 20;

test('one piece, counted in a picture of the exported file', () => {
  const where = folder();
  const evaluator = new Evaluator(wasmEngine);
  const each = sample(2, NAMES.length);
  const bad: string[] = [];
  let count = 0;
  FAMILIES.forEach((family, f) => {
    for (let i = 0; i < each; i++) {
      const name = NAMES[(i + f * each) % NAMES.length] as string;
      const job = jobWith([
        partOf([lettering(name, family, { size: { by: 'capital', mm: CAPITAL_MM }, closeUp: { overlap: 0.8 } })], {
          steps: [{ kind: 'weld' }, { kind: 'tie', width: 1.6, overlap: 0.8 }],
          work: [{ what: 'fill', operation: 'engrave' }],
        }),
      ]);
      const result = evaluator.evaluate(job, faces);
      const drawing = drawingOf(job, result);
      if (!drawing) throw new Error(name);
      const file = path.join(where, 'piece.svg');
      // Only the area: hairlines around it would join what they touch.
      const svg = new TextDecoder().decode(writeFile(drawing, 'svg', job.export));
      expect(svg.match(/<path/g)).toEqual(svg.match(/<path[^>]* stroke="none"/g)?.map(() => '<path'));
      writeFileSync(file, svg);
      const ink = renderSvg(file, Math.ceil(drawing.width * PX_PER_MM), Math.ceil(drawing.height * PX_PER_MM));
      const pieces = countDark(ink, 4);
      count++;
      if (pieces !== 1 || result.parts[0]?.pieces.length !== 1)
        bad.push(`${family} “${name}”: ${pieces} in the picture, ${result.parts[0]?.pieces.length} by outlines`);
    }
  });
  figure({
    name: `Names closed up and tied (${count}): not one piece in a picture at ${PX_PER_MM} px/mm`,
    value: bad.length,
    digits: 0,
    aim: { most: 0 },
  });
  expect(bad).toEqual([]);
});
