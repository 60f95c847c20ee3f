/** The paths whose nodes are worked on: read from the document, written back to it. */
import { useMemo } from 'react';
import { memberOf } from '@/core/commands/changed';
import type { Job } from '@/core/document/schema';
import { type Path, transformPath } from '@/core/geometry/path';
import { KEPT_DIGITS, pathData } from '@/core/geometry/path-data';
import { compose, invert, type Matrix, scaling } from '@/core/geometry/point';
import { pathOf } from '@/core/geometry/read-path-data';
import { stepIn, withStep } from '@/core/kinds/steps';
import { unitOf } from '@/core/prepare/hand-made';
import { correctionOf } from '@/core/toolpath/centerline/part-lines';
import { computing } from '@/worker/client';
import type { JobView, LetterLinesView } from '@/worker/view';
import type { AtNodes } from '../state';
import { change, useBench, workOnNodes } from '../store';

/** Path data whose nodes are worked on, and how it lies on the sheet. */
export type InHand = { readonly d: string; readonly matrix: Matrix };

/** The path data in hand and how it lies on the sheet; null while that is not known. */
export function pathsInHand(job: Job, view: JobView | null, at: AtNodes | null): InHand | null {
  const part = job.parts.find((p) => p.id === at?.partId);
  const views = view?.parts.find((p) => p.id === at?.partId)?.members;
  if (!at || !part || !views) return null;
  if (at.letter !== null) {
    const letter = view?.parts.find((p) => p.id === at.partId)?.centerline?.letters.find((l) => l.key === at.letter);
    const correction = letter && correctionOf(stepIn(part, 'centerline'), letter);
    return letter && correction ? { d: correction.d, matrix: letter.matrix } : null;
  }
  if (at.memberId !== null) {
    const member = memberOf(job, at.partId, at.memberId);
    const seen = views.find((m) => m.id === at.memberId);
    return member?.kind === 'path' && seen
      ? { d: member.d, matrix: compose(scaling(member.scale), seen.matrix) }
      : null;
  }
  const step = stepIn(part, 'nodes');
  const [first] = views;
  if (!step || !first) return null;
  const unit = unitOf(first.capHeightMm, first.ownBox);
  return { d: step.d, matrix: compose(scaling(unit / step.unit), first.matrix) };
}

/** The paths in hand, on the sheet. */
export const editedPaths = ({ d, matrix }: InHand): Path[] =>
  pathOf(d).paths.map((path) => transformPath(path, matrix));

/** Put paths of the sheet back into the document. */
export function putPaths(paths: readonly Path[], merge: string | null = null): void {
  const { job, view, atNodes } = useBench.getState();
  const hand = pathsInHand(job, view, atNodes);
  if (!hand || !atNodes) return;
  const back = invert(hand.matrix);
  const d = pathData(
    paths.map((path) => transformPath(path, back)),
    null,
    KEPT_DIGITS,
  );
  change((draft) => {
    const part = draft.parts.find((p) => p.id === atNodes.partId);
    const member = memberOf(draft, atNodes.partId, atNodes.memberId);
    if (member?.kind === 'path') member.d = d;
    else if (part && atNodes.letter !== null) {
      const letter = lettersIn(view, atNodes.partId).find((l) => l.key === atNodes.letter);
      const correction = letter && correctionOf(stepIn(part, 'centerline'), letter);
      if (correction) correction.d = d;
    } else if (part && atNodes.memberId === null) {
      const step = stepIn(part, 'nodes');
      if (step) step.d = d;
    }
  }, merge);
}

/** Start working on nodes: of a path as it is drawn, of anything else as the steps leave it, which is then hand-made. */
export async function enterNodes(partId: string, memberId: string | null): Promise<void> {
  const { job } = useBench.getState();
  const part = job.parts.find((p) => p.id === partId);
  if (!part || part.locked) return;
  // A path that is all its part is made of, whether it was gone into or not.
  const member = memberOf(job, partId, memberId) ?? part.members[0];
  const alone = part.members.length === 1 && !part.steps.some((s) => s.kind !== 'weld' && s.on);
  if (member?.kind === 'path' && alone) {
    workOnNodes({ partId, memberId: member.id, letter: null, chosen: new Set() });
    return;
  }
  if (!stepIn(part, 'nodes')) {
    const step = await computing()
      .inHand(job, partId)
      .catch(() => null);
    if (!step) return;
    change((draft) => {
      const draftPart = draft.parts.find((p) => p.id === partId);
      if (draftPart) draftPart.steps = withStep(draftPart.steps, step);
    });
  }
  workOnNodes({ partId, memberId: null, letter: null, chosen: new Set() });
}

/** The paths in hand as they lie on the sheet; the same ones until the document or the place changes. */
export function usePathsInHand(at: AtNodes | null): readonly Path[] | null {
  const d = useBench((s) => pathsInHand(s.job, s.view, at)?.d ?? null);
  const place = useBench((s) => {
    const m = pathsInHand(s.job, s.view, at)?.matrix;
    return m ? [m.a, m.b, m.c, m.d, m.e, m.f].join() : null;
  });
  return useMemo(() => {
    if (d === null || place === null) return null;
    const [a, b, c, dd, e, f] = place.split(',').map(Number) as [number, number, number, number, number, number];
    return editedPaths({ d, matrix: { a, b, c, d: dd, e, f } });
  }, [d, place]);
}

const lettersIn = (view: JobView | null, partId: string): readonly LetterLinesView[] =>
  view?.parts.find((p) => p.id === partId)?.centerline?.letters ?? [];

/** Start working on the middle lines of a letter; they are kept as they are drawn from then on, for all that look like it. */
export function enterLines(partId: string, letter: string): void {
  const { job, view } = useBench.getState();
  const part = job.parts.find((p) => p.id === partId);
  const seen = lettersIn(view, partId).find((l) => l.key === letter);
  if (!part || part.locked || !seen) return;
  if (!correctionOf(stepIn(part, 'centerline'), seen)) {
    const back = invert(seen.matrix);
    const d = pathData(
      pathOf(seen.d).paths.map((path) => transformPath(path, back)),
      null,
      KEPT_DIGITS,
    );
    change((draft) => {
      const step = draft.parts.find((p) => p.id === partId)?.steps.find((s) => s.kind === 'centerline');
      if (step?.kind === 'centerline') step.corrections.push({ letter, alike: seen.alike, d });
    });
  }
  workOnNodes({ partId, memberId: null, letter, chosen: new Set() });
}
