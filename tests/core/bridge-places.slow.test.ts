/**
 * How good the places of bridges are: against every place and direction tried one by one, by the same cost.
 *
 * @module-tag slow
 */
import { expect, test } from 'vitest';
import type { StepOf } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { bridgeIslands } from '../../src/core/prepare/bridges/bridges';
import type { BridgeSetting } from '../../src/core/prepare/bridges/notes';
import { candidateAt, usualAcross } from '../../src/core/prepare/bridges/search';
import { edgesFor, longestAcross, siteOn } from '../../src/core/prepare/bridges/sites';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { jobWith, lettering, partOf } from '../support/jobs';
import { sample } from '../support/scale';

const LETTERS = [...'ABDOPQRabdegopq04689&@'];
const CAPITAL_MM = 30;
const WIDTH_MM = 3;
/** Places around an island and directions at each that are tried one by one. */
const PLACES = 360;
const TURN_DEG = 2;
const EVERY = 3;

const setting = (text: string, face: string) => {
  const job = jobWith([
    partOf([lettering(text, face, { size: { by: 'capital', mm: CAPITAL_MM } })], {
      keep: 'outside',
      steps: [{ kind: 'weld' }, { kind: 'bridge', width: WIDTH_MM, count: 1, alike: false }],
    }),
  ]);
  const [part] = new Evaluator(wasmEngine).evaluate(job, faces).parts;
  if (!part) throw new Error(text);
  const given: BridgeSetting = {
    stockInside: false,
    frames: part.frames,
    leastMm: null,
    thicknessMm: null,
    rims: [],
    step: job.parts[0]?.steps[1] as StepOf<'bridge'>,
  };
  return { part, given };
};

/** The least cost of all places, directions and sides tried, on the first island of a letter; null without one. */
function bruteForce(text: string, face: string): { ours: number; best: number } | null {
  const { part, given } = setting(text, face);
  const { notes } = bridgeIslands(part.bare, given);
  const [island] = notes.islands;
  const [chosen] = notes.bridges;
  if (!island || !chosen || chosen.isNarrowed) return null;
  const shape = notes.before;
  const outline = shape.indexOf(island.outline);
  const edges = edgesFor(shape, given, WIDTH_MM);
  const usual = usualAcross(edges, outline, longestAcross(shape, outline));
  const site = siteOn(shape, given, { outline, label: island.label, width: WIDTH_MM, usual, evidence: null });
  const whole = edges.length[outline] as number;
  let best = Infinity;
  let ours = Infinity;
  for (let i = 0; i < PLACES; i++)
    for (let turn = 0; turn < 360; turn += TURN_DEG) {
      const found = candidateAt(edges, site, { at: (i * whole) / PLACES, angle: (turn * Math.PI) / 180 });
      if (found) best = Math.min(best, found.cost);
    }
  const near = edges.nearest(chosen.from, [outline]);
  if (near) {
    const at = (edges.start[near.chord] as number) + near.along * edges.chordLength(near.chord);
    const angle = Math.atan2(chosen.to.y - chosen.from.y, chosen.to.x - chosen.from.x);
    ours = candidateAt(edges, site, { at, angle })?.cost ?? Infinity;
  }
  return { ours, best };
}

test('no place tried one by one is better than the one that is chosen', () => {
  const all = FAMILIES.flatMap((face) => LETTERS.map((letter) => ({ face, letter })));
  const tried = all.filter((_, i) => i % EVERY === 0).slice(0, sample(20, 88));
  const ratios: { ratio: number; name: string }[] = [];
  for (const { face, letter } of tried) {
    const found = bruteForce(letter, face);
    if (found) ratios.push({ ratio: found.ours / found.best, name: `${letter} in ${face}` });
  }
  ratios.sort((a, b) => a.ratio - b.ratio);
  const middle = ratios[Math.floor(ratios.length / 2)]?.ratio ?? Infinity;
  const worst = ratios.at(-1);
  const note = `${ratios.length} letters, ${PLACES} places × ${360 / TURN_DEG} directions each`;
  figure({
    name: 'Cost of the place chosen against the best of all tried, median',
    value: middle,
    digits: 3,
    aim: { most: 1.001 },
    note,
  });
  figure({
    name: 'Cost of the place chosen against the best of all tried, worst',
    value: worst?.ratio ?? Infinity,
    digits: 3,
    aim: { most: 1.05 },
    note: worst?.name ?? '',
  });
  expect(ratios.length).toBeGreaterThan(sample(8, 55));
  expect(middle).toBeLessThanOrEqual(1.001);
  expect(worst?.ratio, worst?.name).toBeLessThanOrEqual(1.05);
});
