/** A drawing that was read made into parts of a job: its groups by the operation each is given to, its words set anew. */

import { newLettering, newPart } from '../commands/defaults';
import { operationOfPen } from '../document/pens';
import type { Artwork, Job, Lettering, Operation, Part } from '../document/schema';
import { rgbOf } from '../formats/drawing';
import type { ReadGroup, ReadText } from '../formats/read-drawing';
import { type Box, boxCentre, isEmptyBox, type Point } from '../geometry/point';
import { workBy } from '../kinds/works';
import { closeSchema } from '../schema/artwork';

/** A drawing that is kept with the jobs, and what is in it. */
export type Brought = {
  /** Name of the file. */
  readonly name: string;
  readonly drawing: string;
  readonly original: string | null;
  readonly groups: readonly (ReadGroup & { readonly shapes: number })[];
  readonly texts: readonly ReadText[];
  /** Bounds of all its shapes in mm as read. */
  readonly box: Box;
};

/** What the user says of a drawing that is brought in: its size, its operations, its place. */
export type BringInChoices = {
  /** Times the size as read. */
  readonly factor: number;
  /** For each group the operation it is given to, or null to leave it out. */
  readonly operations: readonly (string | null)[];
  /** Whether groups given to the same operation stay parts of their own, as layers are; else they become one. */
  readonly apart?: boolean;
  /** Where the middle of the drawing goes. */
  readonly at: Point;
};

/** Colours at most this far apart, of 255 in each of three, are meant as the same. */
const SAME_COLOUR = 40;

/** Words for kinds of operations that layers are named by. */
const KIND_WORDS: readonly (readonly [Operation['kind'], RegExp])[] = [
  ['engrave', /\b(engrav\w*|raster|etch\w*|fill)\b/i],
  ['mark', /\b(mark\w*|scrib\w*)\b/i],
  ['score', /\b(scor\w*|crease|fold)\b/i],
  ['cut', /\b(cut\w*|through|profile|outline|contour)\b/i],
];

/**
 * The operation a group is most likely meant for: that of its pen, one of its name or of a kind that its name tells, one whose colour in
 * files it has; else by what it is, areas being engraved where other groups of the file are lines, and the first cut.
 */
export function likelyOperation(
  group: ReadGroup,
  job: Pick<Job, 'operations' | 'colourKey'>,
  groups: readonly ReadGroup[] = [group],
): string | null {
  const { operations } = job;
  const byPen = group.pen === undefined ? null : operationOfPen(group.pen, operations);
  if (byPen) return byPen.id;
  const byName = operations.find((o) => o.name.trim().toLowerCase() === group.name.trim().toLowerCase());
  if (byName) return byName.id;
  const name = group.name.replaceAll('_', ' ');
  // Groups of plotter files are called by their pens, which say nothing of a kind.
  const told = group.pen === undefined ? KIND_WORDS.find(([, word]) => word.test(name))?.[0] : undefined;
  const byKind = operations.find((o) => o.kind === told);
  if (byKind) return byKind.id;
  const away = (o: Operation): number => {
    const [p, q] = [rgbOf(group.colour), rgbOf(o.colour ?? job.colourKey[o.kind])];
    return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
  };
  // Files for plotters have no colours: those that pens are shown in are ours.
  const nearest = group.pen === undefined ? [...operations].sort((a, b) => away(a) - away(b))[0] : undefined;
  if (nearest && away(nearest) <= SAME_COLOUR) return nearest.id;
  const isArea = group.filled && groups.some((other) => !other.filled);
  const kind = isArea ? 'engrave' : 'cut';
  return (
    (operations.find((o) => o.kind === kind) ?? operations.find((o) => o.kind === 'cut') ?? operations[0])?.id ?? null
  );
}

/**
 * One part for each operation that something is given to, or for each group of it, and one for its words, all in their places to each
 * other. `freeId` names what is made.
 */
export function broughtParts(
  job: Job,
  brought: Brought,
  choices: BringInChoices,
  freeId: (stem: string) => string,
): Part[] {
  const used = job.operations.filter((o) => choices.operations.includes(o.id));
  const stem = brought.name.replace(/\.[^.]{1,5}$/, '').trim() || 'Drawing';
  const sets = used.flatMap((operation) => {
    const groups = brought.groups.flatMap((_, i) => (choices.operations[i] === operation.id ? [i] : []));
    return choices.apart ? groups.map((i) => ({ operation, groups: [i] })) : [{ operation, groups }];
  });
  return sets.flatMap(({ operation, groups }): Part[] => {
    const all = groups.length === brought.groups.length;
    const artwork: Artwork = {
      id: freeId('artwork'),
      kind: 'artwork',
      role: 'join',
      placement: { x: choices.at.x, y: choices.at.y, turn: 0, mirror: false },
      name: brought.name,
      drawing: brought.drawing,
      original: brought.original,
      groups: all ? null : groups,
      scale: choices.factor,
      close: closeSchema.parse({}),
    };
    const words = brought.texts
      .filter((text) => groups.includes(text.group))
      .map((text) => letteringFor(text, brought, { choices, job, id: freeId('lettering') }));
    const isDrawn = groups.some((i) => (brought.groups[i]?.shapes ?? 0) > 0);
    const [first = 0] = groups;
    const own = choices.apart ? (brought.groups[first]?.name ?? '') : operation.name;
    const name = sets.length > 1 && own ? `${stem}, ${own}` : stem;
    const filled = operation.kind === 'engrave' && groups.every((i) => brought.groups[i]?.filled);
    const made = (title: string, members: Part['members']): Part => ({
      ...newPart(freeId('part'), title, members, job),
      work: [workBy(filled ? 'fill' : 'outline', operation.id)],
    });
    // Words are a part of their own: joined to what they stand on they would vanish in it.
    return [...(isDrawn ? [made(name, [artwork])] : []), ...(words.length > 0 ? [made(`${name}, words`, words)] : [])];
  });
}

function letteringFor(
  text: ReadText,
  brought: Brought,
  { choices: { factor, at }, job, id }: { readonly choices: BringInChoices; readonly job: Job; readonly id: string },
): Lettering {
  const { matrix } = text;
  const middle = isEmptyBox(brought.box) ? { x: 0, y: 0 } : boxCentre(brought.box);
  const scale = Math.hypot(matrix.a, matrix.b);
  return {
    ...newLettering(id, job.sheet, text.text),
    placement: {
      x: at.x + (matrix.e - middle.x) * factor,
      y: at.y + (matrix.f - middle.y) * factor,
      turn: (Math.atan2(matrix.b, matrix.a) * 180) / Math.PI,
      mirror: false,
    },
    size: { by: 'capital', mm: Math.max(0.01, text.capitalMm * scale * factor) },
    align: text.align,
    insteadOf: text.face,
  };
}
