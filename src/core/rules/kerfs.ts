/** What is found where the cut of a part takes stock of another that lies near. */
import { partTitle } from '../document/part-words';
import type { Job, Operation, Part } from '../document/schema';
import { type Laid, roomWithin } from '../geometry/lying';
import { type Box, boxesMeet, growBox, type Point } from '../geometry/point';
import { LIMITS } from '../limits';
import type { Memory } from '../memo';
import { outlinesLaid } from '../prepare/laid-outlines';
import { settingsOn } from '../shop/in-force';
import { formatLength } from '../units/quantity';
import { cutAcross, leadsTo } from './collide';
import { type Inspected, type JobRule, type JobSubject, jobRule } from './rule';

/** A part that is cut: how far from its outlines the cut takes stock outside and of what is kept, in mm. */
type CutPart = { readonly part: Part; readonly ready: Inspected; readonly takes: number; readonly loses: number };

/** Less than this is taken of another part without a word, in mm. */
const HARDLY_MM = 0.01;

/** How far the beam reaches from an outline to either side, by where it runs. */
function reachOf(operation: Operation, sheet: Job['sheet']): Pick<CutPart, 'takes' | 'loses'> {
  const kerf = settingsOn(operation, sheet).kerf ?? 0;
  return operation.kerfSide === 'line' ? { takes: kerf / 2, loses: kerf / 2 } : { takes: kerf, loses: 0 };
}

function cutPartsIn({ job, inspected }: JobSubject): CutPart[] {
  const cuts = new Map(job.operations.filter((o) => o.on && o.kind === 'cut').map((o) => [o.id, o]));
  return job.parts.flatMap((part) => {
    const ready = inspected.get(part.id);
    const by = part.work.flatMap((w) => (w.what === 'outline' ? (cuts.get(w.operation) ?? []) : []));
    const reaches = by.map((operation) => reachOf(operation, job.sheet));
    const takes = Math.max(0, ...reaches.map((r) => r.takes));
    // What is cut out of a sheet that stays takes within its outlines, where nothing else is kept.
    if (!ready || takes === 0 || part.keep === 'outside') return [];
    return [{ part, ready, takes, loses: Math.min(...reaches.map((r) => r.loses)) }];
  });
}

/** How near two parts come, and where, as far as that is under so many mm; null where they do not. */
function nearest(a: Laid, b: Laid, under: number): { readonly mm: number; readonly at: Point } | null {
  let found: { readonly mm: number; readonly at: Point } | null = null;
  for (const [from, to] of [
    [a, b],
    [b, a],
  ] as const) {
    const near = growBox(to.box, under);
    for (const line of from.lines)
      for (const at of line) {
        if (at.x < near.minX || at.x > near.maxX || at.y < near.minY || at.y > near.maxY) continue;
        const mm = roomWithin(at, to, found?.mm ?? under);
        if (mm < (found?.mm ?? under)) found = { mm, at };
      }
  }
  return found;
}

type Near = { readonly cut: CutPart; readonly of: CutPart; readonly mm: number; readonly at: Point };

/** Parts near enough for the cut of one to take stock of the other that its own cut leaves. */
function nearOf(subject: JobSubject, memory: Memory): Near[] {
  const cuts = cutPartsIn(subject).sort((a, b) => a.ready.box.minX - b.ready.box.minX);
  const widest = Math.max(0, ...cuts.map((c) => c.takes));
  const isAcross = new Set(cutAcross(subject).map(({ first, second }) => pairKey(first.part, second.part)));
  const found: Near[] = [];
  let pairs = 0;
  for (const [i, a] of cuts.entries())
    for (const b of cuts.slice(i + 1)) {
      if (b.ready.box.minX > a.ready.box.maxX + widest) break;
      const [cut, of] = a.takes - b.loses >= b.takes - a.loses ? [a, b] : [b, a];
      const under = cut.takes - of.loses - HARDLY_MM;
      if (under <= 0 || !boxesMeet(growBox(a.ready.box, under), b.ready.box)) continue;
      if (leadsTo(a.part, b.part) || isAcross.has(pairKey(a.part, b.part))) continue;
      if (++pairs > LIMITS.collisionPairs || found.length >= LIMITS.collisionsNamed) return found;
      const near = nearest(outlinesLaid(a.ready, memory), outlinesLaid(b.ready, memory), under);
      if (near) found.push({ cut, of, ...near });
    }
  return found;
}

const pairKey = (a: Part, b: Part): string => [a.id, b.id].sort().join('|');

const around = ({ x, y }: Point, mm: number): Box => growBox({ minX: x, minY: y, maxX: x, maxY: y }, mm);

/** What is found where the cut of a part takes stock of another. */
export const KERF_RULES: readonly JobRule[] = [
  jobRule({
    code: 'cuts-near',
    severity: 'caution',
    station: 'compose',
    many: (count) => `${count} times the cut of a part takes stock of another that lies too near.`,
    find(subject) {
      const length = (mm: number) => formatLength(mm, subject.job.units);
      return nearOf(subject, subject.memory).map(({ cut, of, mm, at }) => ({
        sentence: `${partTitle(cut.part)} is ${length(mm)} from ${partTitle(of.part)}, of which its cut takes stock: the kerf reaches ${length(cut.takes)} from the outline.`,
        partId: cut.part.id,
        box: around(at, cut.takes),
        detail: of.part.id,
      }));
    },
  }),
];
