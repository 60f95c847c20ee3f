/** Reading back the HPGL we write: pens, and what each draws from where it is set down to where it is lifted; 0.025 mm a step. */
import { NotAsWritten, type ReadBack, type ReadItem, type ReadPiece, textOf } from './read-back';

const MM_PER_STEP = 0.025;
const START = 'IN;PA;\n';
const END = 'PU;SP0;\n';

/** The bytes of a plotter file as what is drawn in it; `NotAsWritten` where they are none of ours. */
export function readBackHpgl(bytes: Uint8Array): ReadBack {
  const text = textOf(bytes);
  if (!text.startsWith(START) || !text.endsWith(END)) throw new NotAsWritten('the start or the end is missing');
  const lines = text.slice(START.length, -END.length).split('\n').slice(0, -1);
  const layers = lines.flatMap((line) => {
    const pen = /^SP(\d+);$/.exec(line)?.[1];
    return pen === undefined ? [] : [{ name: pen, colour: null, lineMm: null }];
  });
  return { head: { page: null, layers }, items: itemsOf(lines) };
}

function* itemsOf(lines: readonly string[]): Generator<ReadItem> {
  let layer = -1;
  for (const line of lines) {
    if (line.startsWith('SP')) layer++;
    else if (layer < 0) throw new NotAsWritten('something is drawn without a pen');
    else yield itemOf(line, layer);
  }
}

/** A pen set down at one place and drawn to others. */
function itemOf(line: string, layer: number): ReadItem {
  const commands = line.split(';');
  const [lifted, ...drawn] = commands.slice(0, -1);
  if (commands.at(-1) !== '' || !lifted?.startsWith('PU') || drawn.length === 0)
    throw new NotAsWritten(`“${line.slice(0, 40)}” is no line`);
  const start = placesOf(lifted);
  if (start.length !== 1) throw new NotAsWritten('a pen is set down nowhere');
  const { x, y } = start[0] as ReadPiece;
  const pieces: ReadPiece[] = [];
  for (const command of drawn) {
    if (!command.startsWith('PD')) throw new NotAsWritten(`“${command.slice(0, 40)}” is no command`);
    if (command !== 'PD') pieces.push(...placesOf(command));
  }
  if (pieces.length === 0) return { kind: 'dot', layer, x, y, r: null };
  return { kind: 'path', layer, filled: false, paths: [{ x, y, pieces, closed: false }] };
}

function placesOf(command: string): ReadPiece[] {
  const steps = command.slice(2).split(',');
  if (steps.length % 2 > 0) throw new NotAsWritten('a place has one number');
  return Array.from({ length: steps.length / 2 }, (_, i) => ({
    kind: 'line' as const,
    x: mmOf(steps[2 * i] as string),
    y: mmOf(steps[2 * i + 1] as string),
  }));
}

function mmOf(steps: string): number {
  if (!/^-?\d+$/.test(steps)) throw new NotAsWritten(`“${steps}” is no number of steps`);
  return Number(steps) * MM_PER_STEP;
}
