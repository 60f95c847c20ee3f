/** Snapping while dragging: to edges and middles of the sheet and of other things, to baselines and to nodes, in words. */
import { create } from 'zustand';
import { partWords } from '@/core/document/part-words';
import { type Box, boxCentre, EMPTY_BOX, isEmptyBox, uniteBoxes } from '@/core/geometry/point';
import { type Guide, type Move, type Snap, snapTo } from '@/core/job/arrange';
import type { MemberView } from '@/worker/view';
import { chosenIn } from '../chosen';
import type { BenchState } from '../state';
import { selectedParts } from '../store';

type Held = { readonly across: Snap | null; readonly upright: Snap | null };

/** What is snapped to just now. */
export const useSnap = create<Held>(() => ({ across: null, upright: null }));

/** Take the guides away. */
export const clearSnap = (): void => useSnap.setState({ across: null, upright: null });

/** Nodes are guides only while there are no more than this. */
const MOST_NODES = 4_000;

type Lines = { readonly across: Guide[]; readonly upright: Guide[] };

function boxLines(box: Box, of: string): Lines {
  const c = boxCentre(box);
  return {
    across: [
      { at: box.minX, words: `the left edge of ${of}` },
      { at: c.x, words: `the middle of ${of}` },
      { at: box.maxX, words: `the right edge of ${of}` },
    ],
    upright: [
      { at: box.minY, words: `the bottom edge of ${of}` },
      { at: c.y, words: `the middle of ${of}` },
      { at: box.maxY, words: `the top edge of ${of}` },
    ],
  };
}

const ownLines = (box: Box, baselines: readonly number[]): Lines => {
  const c = boxCentre(box);
  return {
    across: [
      { at: c.x, words: 'Middle' },
      { at: box.minX, words: 'Left edge' },
      { at: box.maxX, words: 'Right edge' },
    ],
    upright: [
      ...baselines.map((at) => ({ at, words: 'Baseline' })),
      { at: c.y, words: 'Middle' },
      { at: box.minY, words: 'Bottom edge' },
      { at: box.maxY, words: 'Top edge' },
    ],
  };
};

const sameBox = (a: Box, b: Box): boolean =>
  Math.max(Math.abs(a.minX - b.minX), Math.abs(a.minY - b.minY), Math.abs(a.maxX - b.maxX), Math.abs(a.maxY - b.maxY)) <
  1e-6;

/** For what is selected: changes a move so that it snaps, and remembers to what; null when nothing is drawn of it. */
export function snapperFor(state: BenchState): ((move: Move, reach: number) => Move) | null {
  const { job, view, selection } = state;
  const parts = selectedParts(selection);
  const chosen = chosenIn(selection, view);
  const isWhole = chosen.memberId === null;
  const isOwn = (partId: string, member: MemberView) =>
    parts.includes(partId) && (isWhole || member.id === chosen.memberId);
  let box = EMPTY_BOX;
  let baselines: readonly number[] = [];
  const guides: Lines = boxLines({ minX: 0, minY: 0, maxX: job.sheet.width, maxY: job.sheet.height }, 'the sheet');
  // Nodes count only where nothing more telling is near: there are many of them.
  const corners: Lines = { across: [], upright: [] };
  let nodes = 0;
  for (const part of view?.parts ?? []) {
    const document = job.parts.find((p) => p.id === part.id);
    const words = document ? partWords(document) : 'a part';
    const isChosen = parts.includes(part.id);
    // A part that is more than one of its members, by what is made of them or by its border, is a thing of its own.
    if (!isChosen && !isEmptyBox(part.size) && !part.members.some((m) => sameBox(m.box, part.size))) {
      const { across, upright } = boxLines(part.size, words);
      guides.across.push(...across);
      guides.upright.push(...upright);
    }
    for (const member of part.members) {
      if (isEmptyBox(member.box)) continue;
      if (isOwn(part.id, member)) {
        if (!isWhole) box = member.box;
        if (baselines.length === 0) baselines = member.baselines;
        continue;
      }
      const { across, upright } = boxLines(member.box, words);
      guides.across.push(...across);
      guides.upright.push(...upright, ...member.baselines.map((at) => ({ at, words: `the baseline of ${words}` })));
    }
    if (isChosen) {
      if (isWhole) box = uniteBoxes(box, part.size);
      continue;
    }
    nodes += part.nodes.length / 2;
    if (nodes > MOST_NODES) continue;
    for (let i = 0; i < part.nodes.length; i += 2) {
      corners.across.push({ at: part.nodes[i] as number, words: `a node of ${words}` });
      corners.upright.push({ at: part.nodes[i + 1] as number, words: `a node of ${words}` });
    }
  }
  if (isEmptyBox(box)) return null;
  const own = ownLines(box, baselines);
  const moved = (lines: readonly Guide[], by: number): Guide[] => lines.map((l) => ({ ...l, at: l.at + by }));
  return ({ dx, dy }, reach) => {
    const [x, y] = [moved(own.across, dx), moved(own.upright, dy)];
    const across = snapTo(x, guides.across, reach) ?? snapTo(x, corners.across, reach);
    const upright = snapTo(y, guides.upright, reach) ?? snapTo(y, corners.upright, reach);
    useSnap.setState({ across, upright });
    return { dx: dx + (across?.by ?? 0), dy: dy + (upright?.by ?? 0) };
  };
}
