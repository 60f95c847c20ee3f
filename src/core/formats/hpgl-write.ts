/**
 * HPGL, the language of pen plotters, at true size: 40 steps a millimetre, every path from where the pen is set down to where it is
 * lifted, a pen for each operation, in running order. Commands as in the published HP-GL reference: IN, PA, SP, PU, PD.
 */
import { drawnPaths } from '../geometry/drawable';
import { flattenPath, type Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import { circleAt, type Drawing, type FormatToWrite, type Layer } from './drawing';
import { readBackHpgl } from './read-back/hpgl';

/** Steps of a plotter in a millimetre. */
const STEPS_PER_MM = 40;
/** Places in one command: plotters read a command into a small buffer. */
const PLACES_IN_COMMAND = 60;

/** The pen set down at the first place and drawn to the others; at the first alone it is only set down. */
function stroke(places: readonly Point[]): string {
  const steps = places.map(({ x, y }) => `${Math.round(x * STEPS_PER_MM)},${Math.round(y * STEPS_PER_MM)}`);
  // Rounding makes some places the same; the last stays, so that what is drawn at all is drawn.
  const told = steps.filter((step, i) => i === 0 || step !== steps[i - 1]);
  const [first, ...rest] = told.length === 1 && steps.length > 1 ? [...told, ...told] : told;
  const commands = [`PU${first};`];
  for (let at = 0; at === 0 || at < rest.length; at += PLACES_IN_COMMAND)
    commands.push(`PD${rest.slice(at, at + PLACES_IN_COMMAND).join(',')};`);
  return commands.join('');
}

/** A path as chords; a closed one comes back to where it starts. */
function chords(path: Path, toleranceMm: number): Point[] {
  const places = flattenPath(path, toleranceMm);
  return path.closed && places[0] ? [...places, places[0]] : places;
}

const strokesOf = ({ drawn, tolerance }: Layer): string[] =>
  drawn.flatMap((d) => {
    if (d.kind !== 'dot') return drawnPaths(d).map((path) => stroke(chords(path, tolerance)));
    return [stroke(d.r === null ? [d.at] : chords(circleAt(d.at, d.r), tolerance))];
  });

/** The drawing as HPGL text: curves as chords within the tolerance of their layer, filled areas as their outlines. */
export function writeHpgl(drawing: Drawing): string {
  const layers = drawing.layers.flatMap((layer) => [`SP${layer.pen};`, ...strokesOf(layer)]);
  return ['IN;PA;', ...layers, 'PU;SP0;', ''].join('\n');
}

/** Writing HPGL. */
export const hpglWriter: FormatToWrite<'hpgl'> = {
  id: 'hpgl',
  word: 'HPGL',
  ending: 'plt',
  type: 'application/vnd.hp-hpgl',
  // There is no page: 0, 0 is where the plotter or the table has its own.
  frame: ({ plotterOrigin }) => ({
    page: plotterOrigin === 'placed' ? 'sheet' : 'work',
    origin: plotterOrigin === 'middle' ? 'middle' : 'corner',
    roomMm: 0,
  }),
  readBack: readBackHpgl,
  keeps: { curves: false, areas: false, names: 'pens', circles: 'paths', gridMm: 1 / STEPS_PER_MM },
  write: (drawing) => new TextEncoder().encode(writeHpgl(drawing)),
};
