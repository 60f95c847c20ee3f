/**
 * How a part is made ready: a row of stages. All but the last few work in the part's own coordinates, so that moving, turning
 * or mirroring it computes nothing anew but where things lie.
 *
 *     OWN_SHAPE      members set and placed, combined, outline steps, overall width
 *     ON_SHEET       what is kept of the sheet, for a part that is cut out of it
 *     BRIDGED        islands found and bridged
 *     STRENGTH       thin places and tight gaps
 *     READABILITY    how much is left of what tells its letters apart
 *     drawSteps      what steps draw of the finished shape: middle lines, dots, hatch lines
 *     PLACED …       the same where the part lies on the sheet
 *     PART_RESULT    all of it together
 */
import type { Job, Part } from '../document/schema';
import type { ClipEngine } from '../geometry/boolean/engine';
import type { Path } from '../geometry/path';
import type { Matrix } from '../geometry/point';
import {
  type Strength,
  type StrengthBefore,
  strengthAfter,
  strengthOf,
  transformStrength,
  withoutPoints,
} from '../inspect/strength';
import { workBox } from '../kinds/works';
import type { Stage } from '../memo';
import { onSheet, rimOf } from '../prepare/kept';
import type { PrepareContext } from '../prepare/member';
import { type Outline, weighOutlines, weighPaths } from '../prepare/outline';
import type { PreparedPart } from '../prepare/prepared';
import { type LetterReadability, readabilityOf } from '../prepare/readability';
import { transformPart } from '../prepare/transform';
import { withBridges } from './bridged';
import { prepareSized } from './overall';
import { type PartResult, partResult } from './part-result';
import { takenBySide, takenOf } from './taken-by-cut';

type Sheet = Job['sheet'];

/** A matrix in a key. */
const matrixKey = ({ a, b, c, d, e, f }: Matrix): string => `${a},${b},${c},${d},${e},${f}`;

/** Each list of outlines once; those that are shared are not weighed twice. */
const weighPart = ({ solid, bare, outlines, kept, openPaths: lines, members }: PreparedPart): number => {
  const lists = new Set<readonly Outline[]>([solid, bare, outlines, kept, ...members.map((m) => m.outlines)]);
  return [...lists].reduce((sum, list) => sum + weighOutlines(list), weighPaths(lines));
};

/** What a part's own shape is made from: the part, its content as text, and what is needed of the outside. */
export type OwnShapeInput = { readonly part: Part; readonly content: string; readonly context: PrepareContext };

/** A part in its own coordinates, all but its bridges. `content` says all that it is made of. */
export const OWN_SHAPE: Stage<OwnShapeInput, PreparedPart> = {
  name: 'own shape',
  key: ({ content }) => content,
  run: ({ part, context }) => prepareSized(part, context),
  weigh: weighPart,
};

type RimInput = { readonly sheet: Pick<Sheet, 'width' | 'height'>; readonly matrix: Matrix };

/** The rim of the sheet in the coordinates of a part: the same object for the same sheet and place. */
export const RIM: Stage<RimInput, Path> = {
  name: 'rim',
  key: ({ sheet: { width, height }, matrix }) => `${width},${height}|${matrixKey(matrix)}`,
  run: ({ sheet, matrix }) => rimOf(sheet, matrix),
  weigh: (rim) => weighPaths([rim]),
};

type OnSheetInput = { readonly shape: PreparedPart; readonly rim: Path; readonly engine: ClipEngine };

/** A part from its own coordinates to the sheet's. */
export const ON_SHEET: Stage<OnSheetInput, PreparedPart> = {
  name: 'on sheet',
  key: ({ shape, rim }, idOf) => `${idOf(shape)}|${idOf(rim)}`,
  run: ({ shape, rim, engine }, memory) => onSheet(shape, rim, engine, memory),
  weigh: ({ kept }) => weighOutlines(kept),
};

/** What a part's bridges hang on: the part as it is prepared, its step, the sheet and its rims. */
export type BridgedInput = {
  readonly part: Part;
  readonly unbridged: PreparedPart;
  readonly sheet: Sheet;
  readonly rim: Path | null;
  readonly engine: ClipEngine;
};

/** A part with its bridges. */
export const BRIDGED: Stage<BridgedInput, PreparedPart> = {
  name: 'bridged',
  key: ({ part, unbridged, sheet: { leastWidth, thickness } }, idOf) =>
    JSON.stringify([idOf(unbridged), part.steps.find((s) => s.kind === 'bridge'), leastWidth, thickness]),
  run: ({ part, unbridged, sheet, rim, engine }, memory) =>
    withBridges(part, unbridged, { sheet, rim, engine, memory }),
  weigh: ({ solid, kept }) => weighOutlines(solid) + (kept === solid ? 0 : weighOutlines(kept)),
};

type StrengthInput = {
  /** As the document has it, for the sides its outlines are cut on. */
  readonly asked: Part;
  readonly part: PreparedPart;
  /** The part it was bridged from. */
  readonly unbridged: PreparedPart;
  readonly setting: Pick<Job, 'operations' | 'sheet'>;
};

const NUMBERS_PER_STRETCH = 60;
const weighStrength = ({ thin, tight }: Strength): number => NUMBERS_PER_STRETCH * (thin.length + tight.length);

/** What was last found about a part under its bridges: with other bridges, most of it stays. */
type LastStrength = { found: (StrengthBefore & { readonly by: string }) | null };

/** What strength is looked at by, as text: widths asked for, and what cuts take. */
function strengthBy({ asked, setting }: StrengthInput): string {
  const { leastWidth, kerf } = setting.sheet;
  const taken = takenBySide(asked, setting);
  const most = Math.max(...Object.values(taken));
  return JSON.stringify([leastWidth ?? 0, kerf ?? 0, most > 0 && leastWidth ? [taken, asked.sides] : null]);
}

/** Where a part is thinner than is safe once it is cut, in the coordinates it is prepared in. */
export const STRENGTH: Stage<StrengthInput, Strength> = {
  name: 'strength',
  key: (input, idOf) => `${idOf(input.part)}|${strengthBy(input)}`,
  run(input, memory) {
    const { asked, part, unbridged, setting } = input;
    const last = memory.of(unbridged, 'last strength', (): LastStrength => ({ found: null }));
    const by = strengthBy(input);
    const taken = takenOf(asked, part, takenBySide(asked, setting));
    const widths = { least: setting.sheet.leastWidth ?? 0, kerf: setting.sheet.kerf ?? 0, taken };
    const strength =
      last.found?.by === by ? strengthAfter(last.found, part.kept, widths) : strengthOf(part.kept, widths);
    last.found = { kept: part.kept, strength, by };
    return withoutPoints(strength, part.sources);
  },
  weigh: weighStrength,
};

type PlacedInput = { readonly own: PreparedPart; readonly id: string; readonly matrix: Matrix };

/** A part where it lies on the sheet; the same object as long as it stays there. What is moved of it when asked for weighs what was moved. */
export const PLACED: Stage<PlacedInput, PreparedPart> = {
  name: 'placed',
  key: ({ own, id, matrix }, idOf) => `${idOf(own)}|${id}|${matrixKey(matrix)}`,
  slot: ({ own, id }, idOf) => `${idOf(own)}|${id}`,
  run: ({ own, id, matrix }) => transformPart(own, matrix, id),
  weigh: (_placed, { own }) => weighPart(own),
};

type PlacedStrengthInput = { readonly id: string; readonly strength: Strength; readonly matrix: Matrix };

/** Where a part is thinner than is safe, on the sheet. */
export const PLACED_STRENGTH: Stage<PlacedStrengthInput, Strength> = {
  name: 'placed strength',
  key: ({ strength, matrix }, idOf) => `${idOf(strength)}|${matrixKey(matrix)}`,
  slot: ({ id }) => id,
  run: ({ strength, matrix }) => transformStrength(strength, matrix),
  weigh: weighStrength,
};

/** A part, and what its tool leaves of it in the same coordinates; null for its outlines. */
type ReadInput = { readonly part: PreparedPart; readonly left: readonly Outline[] | null };

/** How readable the letters of a part stay; nothing is measured where nothing was done to them. */
export const READABILITY: Stage<ReadInput, readonly LetterReadability[]> = {
  name: 'readability',
  key: ({ part, left }, idOf) => `${idOf(part)}|${left ? idOf(left) : ''}`,
  run: ({ part, left }, memory) => (left || isChanged(part) ? readabilityOf(part, left, memory) : []),
  weigh: (letters) => 2 * letters.length,
};

/** Whether joints, bridges or outline steps changed what the words and shapes of a part give. */
const isChanged = ({ bare, outlines, members, bridged }: PreparedPart): boolean =>
  outlines !== bare ||
  (bridged?.bridges.length ?? 0) > 0 ||
  (bridged?.small.length ?? 0) > 0 ||
  members.some(({ layout }) => layout?.closedUp.some(({ what }) => what === 'letter') ?? false);

type PartResultInput = Omit<PartResult, keyof PreparedPart | 'size'> & {
  readonly part: Part;
  readonly ready: PreparedPart;
};

const whatsIn = ({ work }: Pick<Part, 'work'>) => work.map((w) => w.what);

/** A part with all that belongs to it: the same object as long as nothing about the part changes. */
export const PART_RESULT: Stage<PartResultInput, PartResult> = {
  name: 'part',
  key: ({ part, ready, strength, readability, linework }, idOf) =>
    `${idOf(ready)}|${idOf(strength)}|${idOf(readability)}|${idOf(linework)}|${whatsIn(part).join()}`,
  slot: ({ part }) => part.id,
  run: ({ part, ready, own, strength, readability, linework }) =>
    partResult(ready, { own, strength, readability, linework, size: workBox(whatsIn(part), ready, linework) }),
  weigh: () => 1,
};
