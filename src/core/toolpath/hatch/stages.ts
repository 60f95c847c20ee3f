/** Fillings of prepared parts: lines with their cover, tools tried, and the room each tip has. */
import type { ClipEngine } from '../../geometry/boolean/engine';
import { uniteLabelled } from '../../geometry/boolean/union';
import type { Path } from '../../geometry/path';
import type { Point } from '../../geometry/point';
import { type LongStage, type Memory, shareFrom } from '../../memo';
import { measureOutlines, type Outline, weighOutlines, weighPaths } from '../../prepare/outline';
import type { PreparedPart } from '../../prepare/prepared';
import { type HatchLines, type HatchSettings, hatchLines } from './hatch-lines';
import { type PartHatch, partHatch } from './part-hatch';
import { type Reach, reachOf } from './reach';
import { flatness, rowStep, type TipRoom, tipRoom } from './tip-room';
import { widthOf } from './tool';

/** The lines a tool would take, and what it cannot reach. */
export type ToolTry = { readonly lines: HatchLines; readonly reach: Reach };

/** A part in its own coordinates, filled as a step says. */
export type HatchInput = { readonly part: PreparedPart; readonly step: HatchSettings; readonly engine: ClipEngine };

const weighLines = ({ strokes, rings, edge }: HatchLines): number =>
  strokes.xy.length + weighPaths(rings) + weighPaths(edge);

/** What a filling weighs in a memory. */
export const weighHatch = (hatch: PartHatch): number => 2 * weighLines(hatch) + 2 * hatch.overMissed.xy.length;

/** A part filled; yields the share done. */
export function* hatchStages({ part, step, engine }: HatchInput, memory: Memory): Generator<number, PartHatch> {
  yield 0.02;
  const outlines = filledOutlines(part, engine, memory);
  const room = yield* shareFrom(memory.steps(ROOM, { part, widthMm: widthOf(step.tool), engine }), 0.02, 0.1);
  yield 0.1;
  return yield* shareFrom(partHatch(engine, outlines, { origin: originOf(part), step, room }), 0.1, 1);
}

/** The lines of a step, and what its tool cannot reach, without their cover. */
export const TOOL_TRY: LongStage<HatchInput, ToolTry> = {
  name: 'tool tried',
  key: ({ part, step: { tool, style, joined, overlap, angle, outline, least } }, idOf) =>
    JSON.stringify([idOf(part), tool, style, joined, overlap, angle, outline, least]),
  *run({ part, step, engine }, memory) {
    yield 0.02;
    const widthMm = widthOf(step.tool);
    const room = yield* shareFrom(memory.steps(ROOM, { part, widthMm, engine }), 0.02, 0.1);
    yield 0.1;
    const lines = yield* shareFrom(hatchLines(engine, originOf(part), step, room), 0.1, 0.9);
    const outlines = filledOutlines(part, engine, memory);
    const rowMm = rowStep(widthMm, outlines);
    const reach = yield* shareFrom(reachOf(outlines, room.reached, rowMm, flatness(widthMm)), 0.9, 1);
    return { lines, reach };
  },
  weigh: ({ lines }) => weighLines(lines),
};

type RoomInput = { readonly part: PreparedPart; readonly widthMm: number; readonly engine: ClipEngine };

const ROOM: LongStage<RoomInput, TipRoom> = {
  name: 'room of a tip',
  key: ({ part, widthMm }, idOf) => `${idOf(part)}|${widthMm}`,
  *run({ part, widthMm, engine }, memory) {
    return yield* tipRoom(engine, filledOutlines(part, engine, memory), widthMm);
  },
  weigh: ({ outlines, reached }) => weighOutlines(outlines) + weighOutlines(reached),
};

/** What is filled: overlaps that are left in the outlines are filled as one. */
function filledOutlines(part: PreparedPart, engine: ClipEngine, memory: Memory): readonly Outline[] {
  if (!part.overlaps) return part.outlines;
  return memory.of(part, 'overlaps united', () => {
    const groups: Path[][] = part.sources.map(() => []);
    for (const { path, labels } of part.outlines) groups[Math.max(0, labels[0] ?? 0)]?.push(path);
    return measureOutlines(uniteLabelled(engine, groups));
  });
}

/** Lines that fill pass through the first letter's origin, so that they go along with it. */
const originOf = ({ frames }: PreparedPart): Point => ({ x: frames[0]?.matrix.e ?? 0, y: frames[0]?.matrix.f ?? 0 });
