/** What is to be said about bridges: islands that have none, and why; bridges that are not as asked. */
import type { Job, Part } from '../document/schema';
import type { Box } from '../geometry/point';
import { LIMITS } from '../limits';
import type { BridgedIsland } from '../prepare/bridges/notes';
import type { Piece } from '../prepare/pieces';
import type { PreparedPart } from '../prepare/prepared';
import { formatLength, type LengthUnit } from '../units/quantity';
import { type Draft, draft, partTitle } from './draft';
import type { Mend } from './finding';
import { islandNames, Names, startSentence } from './names';

const sameBox = (a: Box, b: Box): boolean =>
  a.minX === b.minX && a.minY === b.minY && a.maxX === b.maxX && a.maxY === b.maxY;

/** Why an island, called as `called` says, that bridges were looked for has none; null when none were. */
export function unbridged(piece: Piece, called: string, prepared: PreparedPart, unit: LengthUnit): string | null {
  const notes = prepared.notes.bridged;
  const island = notes?.islands.find((i) => i.trouble !== null && sameBox(i.outline.box, piece.box));
  if (!notes || !island) return null;
  const name = startSentence(called);
  const least = formatLength(notes.leastMm, unit);
  return island.trouble === 'too small'
    ? `${name} will drop out: it is too small for a bridge, which is ${least} wide at least.`
    : `${name} will drop out: no straight bridge at least ${least} wide reaches firm stock from it.`;
}

/** The bridge that would hold an island. */
export function bridgeFor(piece: Piece, prepared: PreparedPart): Mend | null {
  const island = prepared.notes.bridged?.islands.find((i) => sameBox(i.outline.box, piece.box));
  return island ? { kind: 'bridge', letter: island.letter, island: island.rank } : null;
}

export function bridgeFindings(part: Part, prepared: PreparedPart, job: Job): Draft[] {
  const notes = prepared.notes.bridged;
  if (!notes) return [];
  if (notes.tooMany > 0)
    return [
      draft(
        'too-many-to-bridge',
        'caution',
        'hold',
        `${partTitle(part)} has ${notes.tooMany.toLocaleString('en')} islands; up to ${LIMITS.islands.toLocaleString('en')} are bridged.`,
        { partId: part.id, detail: part.id, box: prepared.box },
      ),
    ];
  const length = (mm: number) => formatLength(mm, job.units);
  const names = islandNames(prepared.sources, notes.islands);
  const perIsland = notes.islands.flatMap((island, i): Draft[] => {
    const at = { partId: part.id, box: island.outline.box, detail: names[i] as string };
    return [...narrowed(island, names[i] as string), ...fewer(island, names[i] as string)].map(([code, sentence]) =>
      draft(code, code === 'fewer-bridges' ? 'note' : 'caution', 'hold', sentence, at),
    );
  });
  function narrowed({ bridges }: BridgedIsland, name: string): ['bridge-narrowed', string][] {
    const narrow = bridges.map((k) => notes?.bridges[k]).filter((b) => b?.isNarrowed);
    const least = Math.min(...narrow.map((b) => b?.width ?? Infinity));
    if (narrow.length === 0) return [];
    const verb = narrow.length > 1 ? `The bridges of ${name} are` : `The bridge of ${name} is`;
    return [['bridge-narrowed', `${verb} ${length(least)} wide; there is no room for ${length(notes?.askedMm ?? 0)}.`]];
  }
  function fewer({ how, asked, isCountAsked, bridges }: BridgedIsland, name: string): ['fewer-bridges', string][] {
    if (how !== 'auto' || !isCountAsked || bridges.length === 0 || bridges.length >= asked) return [];
    const has = bridges.length === 1 ? '1 bridge' : `${bridges.length} bridges`;
    return [['fewer-bridges', `${startSentence(name)} has ${has}; there is no place for ${asked}.`]];
  }
  const sources = new Names(prepared);
  const labels = new Map(prepared.frames.map((frame, label) => [frame.key, label]));
  const step = part.steps.find((s) => s.kind === 'bridge');
  const unplaced = notes.unplaced.map((index): Draft => {
    const label = labels.get(step?.kind === 'bridge' ? (step.placed[index]?.letter ?? '') : '');
    const letter = label === undefined ? partTitle(part) : sources.source(label);
    return draft(
      'bridge-unplaced',
      'caution',
      'hold',
      `A bridge placed by hand in ${letter} no longer fits there and is left out.`,
      { partId: part.id, box: prepared.box, detail: letter },
    );
  });
  const hairs = notes.hairs.map(({ at, width }): Draft => {
    const sentence = `A piece of ${partTitle(part)} hangs on ${length(width)} of stock here; it is cut free, to be held by a bridge.`;
    const box = { minX: at.x, minY: at.y, maxX: at.x, maxY: at.y };
    return draft('hair', 'note', 'hold', sentence, { partId: part.id, box, detail: part.id });
  });
  return [...perIsland, ...unplaced, ...hairs];
}
