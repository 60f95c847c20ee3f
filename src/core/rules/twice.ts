/** What is found about lines that an operation goes along twice: a beam burns them twice as deep, a cutter tears at them. */
import { partTitle } from '../document/part-words';
import { type DoubledStretch, doubledStretches, doubledWithin } from '../geometry/doubles';
import { type Drawable, drawnPaths, isHatch } from '../geometry/drawable';
import type { Path } from '../geometry/path';
import { type Box, boxesMeet, EMPTY_BOX, growBox, transformedBox, uniteBoxes } from '../geometry/point';
import type { Segment } from '../geometry/segment';
import { segmentBox } from '../geometry/segment-measures';
import { LIMITS } from '../limits';
import type { Memory, Stage } from '../memo';
import type { PreparedPart } from '../prepare/prepared';
import { formatLength } from '../units/quantity';
import { type Inspected, type JobRule, type JobSubject, jobRule } from './rule';

/** Lines nearer to each other than this are one line, in mm: no machine tells them apart. */
const TWICE_MM = 0.002;
/** Shorter stretches are where two lines touch or cross, in mm. */
export const LEAST_TWICE_MM = 0.5;

/** Lines that are gone along twice: how long together, and where. */
type Twice = { readonly mm: number; readonly box: Box };

const NOT_TWICE: Twice = { mm: 0, box: EMPTY_BOX };

/** How long stretches are together, and where they lie. */
function together(stretches: readonly DoubledStretch[], segments: readonly Segment[]): Twice {
  let { mm, box } = NOT_TWICE;
  for (const { of, lengthMm } of stretches) {
    mm += lengthMm;
    box = uniteBoxes(box, segmentBox(segments[of] as Segment));
  }
  return { mm, box };
}

/** What of segments is gone along twice among themselves. */
const twiceAmong = (segments: readonly Segment[]): Twice => together(doubledWithin(segments, TWICE_MM), segments);

const segmentsOf = (paths: readonly Path[]): Segment[] => paths.flatMap((path) => path.segments);

/** The lines and outlines of drawables; areas, dots and packed lines have none that could be gone along twice. */
const linesOf = (drawn: readonly Drawable[]): readonly Path[] =>
  drawn.flatMap((d) => (d.kind === 'area' || d.kind === 'dot' || isHatch(d) ? [] : drawnPaths(d)));

/** How long is gone along twice within lines and outlines that belong together, in mm. */
export const twiceWithin = (drawn: readonly Drawable[]): number => twiceAmong(segmentsOf(linesOf(drawn))).mm;

/** Whether a part's own outlines and lines may run along each other: lines of drawings do, and what is not welded or made by hand. */
export const mayRunTwice = ({ overlaps, handMade, openPaths }: PreparedPart): boolean =>
  overlaps || handMade !== null || openPaths.length > 0;

/** What a part's outline goes along twice by itself, in its own coordinates. */
const twiceOf = (own: PreparedPart, memory: Memory): Twice =>
  mayRunTwice(own)
    ? memory.of(own, 'twice', () => twiceAmong(segmentsOf([...own.outlines.map((o) => o.path), ...own.openPaths])))
    : NOT_TWICE;

/** What an operation draws of one part. */
type DrawnOfPart = { readonly ready: Inspected; readonly whats: string; readonly drawn: Drawable[]; box: Box };

/** Bounds that a segment does not leave, though they may be larger than its own: these are found at once. */
function hullOf(s: Segment): Box {
  if (s.kind === 'arc') return segmentBox(s);
  const xs = s.kind === 'cubic' ? [s.x0, s.ax, s.bx, s.x1] : s.kind === 'quadratic' ? [s.x0, s.ax, s.x1] : [s.x0, s.x1];
  const ys = s.kind === 'cubic' ? [s.y0, s.ay, s.by, s.y1] : s.kind === 'quadratic' ? [s.y0, s.ay, s.y1] : [s.y0, s.y1];
  return { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) };
}

type PairInput = { readonly operation: string; readonly first: DrawnOfPart; readonly second: DrawnOfPart };

/** What two parts have in common of their lines. */
const PAIR: Stage<PairInput, Twice> = {
  name: 'twice',
  key: ({ first, second }, idOf) => `${idOf(first.ready)}|${first.whats}|${idOf(second.ready)}|${second.whats}`,
  slot: ({ operation, first, second }) => `${operation}|${first.ready.id}|${second.ready.id}`,
  run({ first, second }) {
    const near = (lines: readonly Drawable[], other: Box) => {
      const reach = growBox(other, TWICE_MM);
      const paths = linesOf(lines.filter((d) => boxesMeet(d.box, reach)));
      return segmentsOf(paths).filter((s) => boxesMeet(hullOf(s), reach));
    };
    const segments = near(second.drawn, first.box);
    return together(doubledStretches(segments, near(first.drawn, second.box), TWICE_MM), segments);
  },
  weigh: () => 8,
};

/** What an operation draws, part by part. */
function byPart(drawn: JobSubject['drawn'][number]['drawn'], inspected: JobSubject['inspected']): DrawnOfPart[] {
  const parts = new Map<string, DrawnOfPart & { readonly kinds: Set<string> }>();
  for (const { partId, what, drawable } of drawn) {
    const ready = inspected.get(partId);
    if (!ready || drawable.kind === 'area' || drawable.kind === 'dot' || isHatch(drawable)) continue;
    const known = parts.get(partId);
    if (known) {
      known.drawn.push(drawable);
      known.kinds.add(what);
      known.box = uniteBoxes(known.box, drawable.box);
    } else parts.set(partId, { ready, whats: '', kinds: new Set([what]), drawn: [drawable], box: drawable.box });
  }
  return [...parts.values()].map(({ kinds, ...of }) => ({ ...of, whats: [...kinds].join() }));
}

/** Pairs whose bounds meet, each once, in the order of the list. */
function* pairsThatMeet(parts: readonly DrawnOfPart[]): Generator<readonly [DrawnOfPart, DrawnOfPart]> {
  const order = [...parts.keys()].sort((a, b) => (parts[a]?.box.minX ?? 0) - (parts[b]?.box.minX ?? 0));
  for (const [n, i] of order.entries()) {
    const one = parts[i] as DrawnOfPart;
    const reach = growBox(one.box, TWICE_MM);
    for (let m = n + 1; m < order.length; m++) {
      const j = order[m] as number;
      const other = parts[j] as DrawnOfPart;
      if (other.box.minX > reach.maxX) break;
      if (boxesMeet(reach, other.box)) yield i < j ? [one, other] : [other, one];
    }
  }
}

type Found = { readonly mm: number; readonly observed: ReturnType<JobRule['find']>[number] };

/** What is found about lines gone along twice. */
export const drawnTwice: JobRule = jobRule({
  code: 'drawn-twice',
  severity: 'caution',
  station: 'assign',
  many: (count) => `${count} times lines are gone along twice.`,
  find({ job, inspected, drawn, memory }) {
    const titles = new Map(job.parts.map((part) => [part.id, partTitle(part)]));
    const title = (id: string) => titles.get(id) ?? '';
    const length = (mm: number) => formatLength(mm, job.units);
    const found: Found[] = [];
    let [pairs, isCutShort] = [0, false];
    for (const { operation, drawn: all } of drawn) {
      if (!operation.on) continue;
      const parts = byPart(all, inspected);
      for (const { ready, whats } of parts) {
        const { mm, box } = whats.includes('outline') ? twiceOf(ready.own, memory) : NOT_TWICE;
        if (mm < LEAST_TWICE_MM) continue;
        const sentence = `${title(ready.id)} has ${length(mm)} of line drawn twice: ${operation.name} goes along it twice.`;
        const where = transformedBox(box, ready.matrix);
        found.push({ mm, observed: { sentence, partId: ready.id, box: where, detail: operation.id } });
      }
      for (const [first, second] of pairsThatMeet(parts)) {
        // Parts that lie on each other by the dozen are told by the first of them.
        if (found.length > LIMITS.twiceNamed || pairs++ >= LIMITS.twicePairs) {
          isCutShort = true;
          break;
        }
        const { mm, box } = memory.get(PAIR, { operation: operation.id, first, second });
        if (mm < LEAST_TWICE_MM) continue;
        const sentence = `${title(first.ready.id)} and ${title(second.ready.id)} lie on each other along ${length(mm)}: ${operation.name} goes along it twice.`;
        const detail = `${second.ready.id}:${operation.id}`;
        found.push({ mm, observed: { sentence, partId: first.ready.id, box, detail } });
      }
    }
    const named = found.sort((a, b) => b.mm - a.mm).slice(0, LIMITS.twiceNamed);
    const rest = found.length - named.length;
    return [
      ...named.map(({ observed }) => observed),
      ...(rest > 0 || isCutShort
        ? [{ sentence: 'There are more places where lines are gone along twice.', partId: null, detail: 'more' }]
        : []),
    ];
  },
});
