/** `needlefile check`: files in, what a machine understands of each out, in lines or as JSON. */
import { readFile, stat } from 'node:fs/promises';
import { boxHeight, boxWidth, isEmptyBox } from '../core/geometry/point';
import { LIMITS } from '../core/limits';
import type { JobMachine } from '../core/schema/shop/machine';
import { type Understood, type UnderstoodOperation, understand } from '../machine/understand';
import { readMachine } from './machine-file';

/** What the command is asked to do. */
export type CheckOptions = {
  readonly files: readonly string[];
  /** A machine as JSON that the files are held against; null for any. */
  readonly machine: string | null;
  readonly json: boolean;
};

type Say = (line: string) => void;
type Checked =
  | { readonly file: string; readonly understood: Understood }
  | { readonly file: string; readonly sentence: string };

const round = (value: number): number => Number(value.toFixed(3));

async function checkFile(file: string, machine: JobMachine | null): Promise<Checked> {
  const size = await stat(file).then(
    (s) => (s.isFile() ? s.size : null),
    () => null,
  );
  if (size === null) return { file, sentence: `There is no file ${file}.` };
  if (size > LIMITS.drawingBytes)
    return { file, sentence: `${file} has more than ${LIMITS.drawingBytes / 1024 / 1024} MB; it was not read.` };
  const bytes = await readFile(file).catch(() => null);
  if (!bytes) return { file, sentence: `${file} can’t be read.` };
  const understood = await understand(new Uint8Array(bytes), machine);
  return 'sentence' in understood ? { file, sentence: understood.sentence } : { file, understood };
}

const sizeOf = ({ box }: Pick<Understood, 'box'>) =>
  isEmptyBox(box)
    ? null
    : { x: round(box.minX), y: round(box.minY), width: round(boxWidth(box)), height: round(boxHeight(box)) };

/** What is printed as JSON of a file. Lengths in mm. */
const asJson = (checked: Checked) =>
  'sentence' in checked
    ? { file: checked.file, runs: false, sentence: checked.sentence }
    : {
        file: checked.file,
        runs: checked.understood.troubles.length === 0,
        format: checked.understood.format,
        unit: checked.understood.unit,
        unitStated: checked.understood.isUnitStated,
        size: sizeOf(checked.understood),
        segments: checked.understood.segments,
        operations: checked.understood.operations.map((o) => ({
          name: o.name,
          colour: o.colour,
          pen: o.pen,
          kind: o.kind,
          filled: o.isFilled,
          paths: o.paths,
          open: o.open,
          lengthMm: round(o.lengthMm),
          travelMm: round(o.travelMm),
          size: sizeOf(o),
        })),
        troubles: checked.understood.troubles,
        notes: checked.understood.notes,
      };

function operationLine(o: UnderstoodOperation, n: number): string {
  const called = o.pen === null ? [o.name, o.colour].filter(Boolean).join(', ') : `Pen ${o.pen}`;
  const paths = `${o.paths.toLocaleString('en')} ${o.paths === 1 ? 'path' : 'paths'}`;
  return [
    `  ${n}. ${called}${o.kind ? ` (${o.kind})` : ''}${o.isFilled ? ', filled' : ''}: ${paths}`,
    o.open > 0 && !o.isFilled ? `${o.open.toLocaleString('en')} open` : '',
    `${round(o.lengthMm)} mm`,
    `${round(o.travelMm)} mm between`,
  ]
    .filter(Boolean)
    .join(', ');
}

function* linesOf(checked: Checked): Generator<string> {
  if ('sentence' in checked) {
    yield `${checked.file}: ${checked.sentence}`;
    return;
  }
  const { understood } = checked;
  const size = sizeOf(understood);
  yield `${checked.file}: ${understood.format}${size ? `, ${size.width} × ${size.height} mm` : ''}`;
  for (const [n, o] of understood.operations.entries()) yield operationLine(o, n + 1);
  for (const note of understood.notes) yield `  Note: ${note}`;
  for (const trouble of understood.troubles) yield `  ! ${trouble}`;
  if (understood.troubles.length === 0) yield '  It runs as it is.';
}

/** Checks files. 0: all of them would run, 1: one would not, 2: the machine can't be used. */
export async function check({ files, machine, json }: CheckOptions, say: Say, complain: Say): Promise<0 | 1 | 2> {
  const read = machine === null ? null : await readMachine(machine);
  if (read && 'sentences' in read) {
    for (const sentence of read.sentences) complain(sentence);
    return 2;
  }
  const checked: Checked[] = [];
  for (const file of files) checked.push(await checkFile(file, read));
  if (json) say(JSON.stringify(checked.map(asJson), null, 2));
  else for (const one of checked) for (const line of linesOf(one)) say(line);
  return checked.some((one) => 'sentence' in one || one.understood.troubles.length > 0) ? 1 : 0;
}
