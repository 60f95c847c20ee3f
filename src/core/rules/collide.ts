/** What is found where work collides: pieces cut over each other, work across an edge or off the piece, the outside cut before the inside. */
import { moveChosen } from '../commands/chosen';
import { keepWithin } from '../commands/interior';
import { runBefore } from '../commands/operations';
import { group } from '../commands/parts';
import { partTitle } from '../document/part-words';
import type { Job, Operation, Part } from '../document/schema';
import { drawnPaths, isHatch } from '../geometry/drawable';
import { type Laid, type Lying, laid, lyingTo } from '../geometry/lying';
import type { Path } from '../geometry/path';
import { type Box, boxCentre, boxesMeet, boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { LIMITS } from '../limits';
import type { Memory, Stage } from '../memo';
import { madeFrom } from '../schema/members';
import { type Inspected, type JobRule, type JobSubject, jobRule } from './rule';

/** A part that an operation works, with all of it that lies on the sheet. */
type Worked = {
  readonly part: Part;
  readonly ready: Inspected;
  readonly operation: Operation;
  readonly isCut: boolean;
  /** By which operation, and what of the part: with the part made ready it tells the paths. */
  readonly by: string;
  readonly paths: readonly Path[];
};

/** Room left between pieces that are moved apart, in mm. */
const APART_MM = 5;

const LAID: Stage<Pick<Worked, 'ready' | 'by' | 'paths'>, Laid> = {
  name: 'laid',
  key: ({ ready, by }, idOf) => `${idOf(ready)}|${by}`,
  slot: ({ ready, by }) => `${ready.id}|${by}`,
  run: ({ paths }) => laid(paths),
  weigh: ({ chords }) => 8 * chords.length,
};

const laidOf = (one: Worked, memory: Memory): Laid => memory.get(LAID, one);

type PairInput = { readonly first: Worked; readonly second: Worked };

/** How one lies to another, and where they cross. */
const LYING: Stage<PairInput, { readonly how: Lying; readonly where: Box }> = {
  name: 'lying',
  key: ({ first, second }, idOf) => `${idOf(first.ready)}|${first.by}|${idOf(second.ready)}|${second.by}`,
  slot: ({ first, second }) => `${first.ready.id}|${first.by}|${second.ready.id}|${second.by}`,
  run: ({ first, second }, memory) => lyingTo(laidOf(first, memory), laidOf(second, memory)),
  weigh: () => 8,
};

/** All that is worked by operations that are on, part by part: outlines of what is cut, and what other operations draw. */
function workedIn({ drawn, inspected, job }: JobSubject): Worked[] {
  const parts = new Map(job.parts.map((part) => [part.id, part]));
  return drawn.flatMap(({ operation, drawn: all }) => {
    if (!operation.on) return [];
    const byPart = new Map<string, Path[]>();
    const whats = new Map<string, Set<string>>();
    const filled = new Set<string>();
    for (const { partId, what, drawable } of all) {
      const ready = inspected.get(partId);
      if (!ready) continue;
      whats.set(partId, (whats.get(partId) ?? new Set()).add(what));
      const paths = byPart.get(partId) ?? [];
      byPart.set(partId, paths);
      if (drawable.kind === 'dot') continue;
      // Lines that fill are bounded by the outlines they fill.
      if (!isHatch(drawable)) paths.push(...drawnPaths(drawable));
      else if (!filled.has(partId)) {
        filled.add(partId);
        paths.push(...ready.outlines.map((o) => o.path));
      }
    }
    return [...byPart].flatMap(([id, paths]): Worked[] => {
      const part = parts.get(id);
      const ready = inspected.get(id);
      if (!part || !ready || paths.length === 0) return [];
      const by = `${operation.id}:${[...(whats.get(id) ?? [])].sort().join()}`;
      return [{ part, ready, operation, isCut: operation.kind === 'cut', by, paths }];
    });
  });
}

/** Pairs of what is worked of different parts whose bounds meet, in the order of the list; so many of them are looked at. */
function pairsIn(all: readonly Worked[]): PairInput[] {
  const pairs: PairInput[] = [];
  const inOrder = [...all.keys()].sort((a, b) => left(all[a]) - left(all[b]));
  for (const [n, i] of inOrder.entries())
    for (let m = n + 1; m < inOrder.length && pairs.length < LIMITS.collisionPairs; m++) {
      const j = inOrder[m] as number;
      const [first, second] = [all[Math.min(i, j)], all[Math.max(i, j)]] as [Worked, Worked];
      if (left(all[j]) > (all[i]?.ready.box.maxX ?? 0)) break;
      if (first.part.id !== second.part.id && boxesMeet(first.ready.box, second.ready.box))
        pairs.push({ first, second });
    }
  return pairs;
}

const left = (one: Worked | undefined): number => one?.ready.box.minX ?? 0;

/** The least way to move one box off another, with room between them, on the sheet where that is possible. */
function wayApart(
  moved: Box,
  from: Box,
  { width, height }: Job['sheet'],
): { readonly dx: number; readonly dy: number } {
  const ways = [
    { dx: from.maxX + APART_MM - moved.minX, dy: 0 },
    { dx: from.minX - APART_MM - moved.maxX, dy: 0 },
    { dx: 0, dy: from.minY - APART_MM - moved.maxY },
    { dx: 0, dy: from.maxY + APART_MM - moved.minY },
  ];
  const isOnSheet = ({ dx, dy }: { dx: number; dy: number }) =>
    moved.minX + dx >= 0 && moved.maxX + dx <= width && moved.minY + dy >= 0 && moved.maxY + dy <= height;
  const onSheet = ways.filter(isOnSheet);
  const [least] = (onSheet.length > 0 ? onSheet : ways).sort((a, b) => Math.abs(a.dx + a.dy) - Math.abs(b.dx + b.dy));
  return least as { dx: number; dy: number };
}

const move = (job: Job, partId: string, { dx, dy }: { readonly dx: number; readonly dy: number }): Job =>
  moveChosen(job, { partIds: [partId], memberId: null }, dx, dy);

/** Whether two parts may be welded into one: nothing else about them differs. */
const mayBeOne = (job: Job, first: Worked, second: Worked): boolean =>
  first.operation.id === second.operation.id &&
  first.part.keep === 'inside' &&
  !first.part.locked &&
  !second.part.locked &&
  group(job, [first.part.id, second.part.id], () => ({ x: 0, y: 0 })).sentence === null;

type Pair = { readonly first: Worked; readonly second: Worked; readonly where: Box; readonly isOne: boolean };

/** Pieces that are cut across each other, the first of them, and whether they may be one. */
export const cutAcross = (subject: JobSubject): readonly Pair[] =>
  subject.memory.of(subject.drawn, 'cut across', () => findAcross(subject));

function findAcross(subject: JobSubject): Pair[] {
  const { job, memory } = subject;
  const found = new Map<string, Pair>();
  for (const { first, second } of pairsOf(subject)) {
    // Parts that lie on each other by the dozen are told by the first of them.
    if (found.size >= LIMITS.collisionsNamed) break;
    const key = `${first.part.id}|${second.part.id}`;
    if (!first.isCut || !second.isCut || found.has(key) || leadsTo(first.part, second.part)) continue;
    const { how, where } = memory.get(LYING, { first, second });
    if (how === 'across') found.set(key, { first, second, where, isOne: mayBeOne(job, first, second) });
  }
  return [...found.values()];
}

/** A border and what it is around of lie as they are meant to. */
export const leadsTo = (a: Part, b: Part): boolean =>
  [a, b].some((part) => part.members.some((m) => madeFrom(m).some((id) => id === a.id || id === b.id)));

const pairsOf = (subject: JobSubject): readonly PairInput[] =>
  subject.memory.of(subject.drawn, 'pairs', () => pairsIn(allWorked(subject)));

const allWorked = (subject: JobSubject): readonly Worked[] =>
  subject.memory.of(subject.drawn, 'worked', () => workedIn(subject));

/** What is found where work collides. */
export const COLLISION_RULES: readonly JobRule[] = [
  jobRule<{ otherId: string }>({
    code: 'cut-over',
    severity: 'fault',
    station: 'close',
    many: (count) => `${count} times parts are cut over each other.`,
    mend: {
      words: 'Weld them into one',
      apply: (job, partId, { otherId }, { middleOf }) => group(job, [partId, otherId], middleOf).job,
    },
    find: (subject) =>
      cutAcross(subject).flatMap(({ first, second, where, isOne }) =>
        isOne
          ? [
              {
                sentence: `${partTitle(first.part)} and ${partTitle(second.part)} are cut over each other: both would be cut through.`,
                partId: first.part.id,
                box: where,
                detail: second.part.id,
                mend: { otherId: second.part.id },
              },
            ]
          : [],
      ),
  }),
  jobRule<{ dx: number; dy: number }>({
    code: 'cut-across',
    severity: 'fault',
    station: 'compose',
    many: (count) => `${count} times a part is cut across another.`,
    mend: { words: 'Move it apart', apply: (job, partId, by) => move(job, partId, by) },
    find: (subject) =>
      cutAcross(subject).flatMap(({ first, second, where, isOne }) =>
        isOne
          ? []
          : [
              {
                sentence: `${partTitle(second.part)} is cut across ${partTitle(first.part)}: neither would be whole.`,
                partId: second.part.id,
                box: where,
                detail: first.part.id,
                mend: wayApart(second.ready.box, first.ready.box, subject.job.sheet),
              },
            ],
      ),
  }),
  jobRule<{ otherId: string }>({
    code: 'across-edge',
    severity: 'caution',
    station: 'assign',
    many: (count) => `${count} pieces of work run across an edge.`,
    mend: {
      words: 'Keep it to the piece',
      apply: (job, partId, { otherId }, { middleOf }) => keepWithin(job, partId, otherId, middleOf),
    },
    find: (subject) =>
      pairsOf(subject).flatMap(({ first, second }) => {
        if (first.isCut === second.isCut) return [];
        const [on, piece] = first.isCut ? [second, first] : [first, second];
        const { how, where } = subject.memory.get(LYING, { first: on, second: piece });
        if (how !== 'across') return [];
        const isClosed = on.ready.outlines.length > 0 && on.ready.openPaths.length === 0;
        const mayBeKept = isClosed && piece.part.keep === 'inside' && !leadsTo(on.part, piece.part);
        return [
          {
            sentence: `${on.operation.name} of ${partTitle(on.part)} runs across the edge of ${partTitle(piece.part)}.`,
            partId: on.part.id,
            box: where,
            detail: `${piece.part.id}:${on.operation.id}`,
            ...(mayBeKept && { mend: { otherId: piece.part.id } }),
          },
        ];
      }),
  }),
  jobRule<{ dx: number; dy: number }>({
    code: 'off-piece',
    severity: 'caution',
    station: 'compose',
    many: (count) => `${count} parts lie beside the pieces: they stay on the rest of the sheet.`,
    mend: { words: 'Put it on the piece', apply: (job, partId, by) => move(job, partId, by) },
    /** Work beside every piece that is cut, where some work lies on one: it was meant to. */
    find(subject) {
      const worked = allWorked(subject);
      const pieces = worked.filter((w) => w.isCut && w.part.keep === 'inside');
      const others = worked.filter((w) => !w.isCut && !pieces.some((p) => p.part.id === w.part.id));
      if (pieces.length === 0 || worked.some((w) => w.isCut && w.part.keep === 'outside')) return [];
      const pairs = pairsOf(subject);
      const touched = new Set(
        pairs.flatMap(({ first, second }) => {
          if (first.isCut === second.isCut) return [];
          const [on, piece] = first.isCut ? [second, first] : [first, second];
          return subject.memory.get(LYING, { first: on, second: piece }).how === 'apart' ? [] : [on.part.id];
        }),
      );
      if (touched.size === 0) return [];
      const seen = new Set<string>();
      return others.flatMap((on) => {
        if (touched.has(on.part.id) || seen.has(on.part.id) || isEmptyBox(on.ready.box)) return [];
        seen.add(on.part.id);
        const piece = nearest(on.ready.box, pieces);
        // A line around a piece lies beside it as it is meant to.
        if (pieces.some((p) => leadsTo(on.part, p.part))) return [];
        const [from, to] = [boxCentre(on.ready.box), boxCentre(piece.ready.box)];
        const fits =
          boxWidth(on.ready.box) <= boxWidth(piece.ready.box) && boxHeight(on.ready.box) <= boxHeight(piece.ready.box);
        return [
          {
            sentence: `${on.operation.name} of ${partTitle(on.part)} lies beside the pieces: it stays on the rest of the sheet.`,
            partId: on.part.id,
            box: on.ready.box,
            detail: on.operation.id,
            ...(fits && { mend: { dx: to.x - from.x, dy: to.y - from.y } }),
          },
        ];
      });
    },
  }),
  jobRule<{ operation: string; before: string }>({
    code: 'outside-first',
    severity: 'fault',
    station: 'assign',
    many: (count) => `${count} insides are cut after their outside: the piece has come free by then.`,
    mend: {
      words: 'Cut the inside first',
      apply: (job, _partId, { operation, before }) => runBefore(job, operation, before),
    },
    find(subject) {
      const order = new Map(subject.job.operations.map((o, i) => [o.id, i]));
      const seen = new Set<string>();
      return pairsOf(subject).flatMap(({ first, second }) =>
        [[first, second] as const, [second, first] as const].flatMap(([inner, outer]) => {
          if (!inner.isCut || !outer.isCut || outer.part.keep === 'outside') return [];
          const [late, early] = [order.get(inner.operation.id) ?? 0, order.get(outer.operation.id) ?? 0];
          const key = `${inner.part.id}:${outer.part.id}`;
          if (late <= early || seen.has(key)) return [];
          if (subject.memory.get(LYING, { first: inner, second: outer }).how !== 'within') return [];
          seen.add(key);
          return [
            {
              sentence: `${partTitle(inner.part)} lies in ${partTitle(outer.part)} and is cut after it: the piece has come free by then.`,
              partId: inner.part.id,
              box: inner.ready.box,
              detail: outer.part.id,
              mend: { operation: inner.operation.id, before: outer.operation.id },
            },
          ];
        }),
      );
    },
  }),
  jobRule({
    code: 'more-collisions',
    severity: 'caution',
    station: 'compose',
    find: (subject) =>
      pairsOf(subject).length >= LIMITS.collisionPairs || cutAcross(subject).length >= LIMITS.collisionsNamed
        ? [
            {
              sentence: 'Very many parts lie over each other: not all of them were looked at.',
              partId: null,
              detail: 'more',
            },
          ]
        : [],
  }),
];

/** The piece whose middle is nearest. */
function nearest(box: Box, pieces: readonly Worked[]): Worked {
  const { x, y } = boxCentre(box);
  const far = (piece: Worked): number => {
    const at = boxCentre(piece.ready.box);
    return Math.hypot(at.x - x, at.y - y);
  };
  return pieces.reduce((best, piece) => (far(piece) < far(best) ? piece : best));
}
