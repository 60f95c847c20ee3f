/** The line that words run along, as commands ask for it: seen in the words' own coordinates. */
import type { WordsAt } from '@/core/commands/own-lines';
import type { AlongSeen, WordsSeen } from '@/core/commands/run-along';
import { transformPath } from '@/core/geometry/path';
import { applyMatrix, EMPTY_BOX, invert } from '@/core/geometry/point';
import { pathOf } from '@/core/geometry/read-path-data';
import type { MemberView } from '@/worker/view';
import { memberView } from './seen';

/** The line of words, in their own coordinates; null where they are straight or not seen yet. */
export function alongSeen({ along, matrix }: MemberView): AlongSeen | null {
  const path = along && pathOf(along.d).paths[0];
  if (!along || !path) return null;
  const back = invert(matrix);
  return { path: transformPath(path, back), start: applyMatrix(back, along.start), lengthMm: along.lengthMm };
}

/** What words were computed to. */
export function wordsSeen({ partId, memberId }: WordsAt): WordsSeen {
  const view = memberView(partId, memberId);
  const start = view ? (alongSeen(view)?.start ?? null) : null;
  return { ownBox: view?.ownBox ?? EMPTY_BOX, capHeightMm: view?.capHeightMm ?? null, start };
}
