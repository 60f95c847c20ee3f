/** Parts of members by chance, for judges and properties. */
import { FAMILIES } from './faces';
import { type Draft, partOf } from './jobs';

export const SHEET = [200, 120] as const;

/** A part of one to six members; on a grid more often than not, so that edges coincide. */
export function anyPart(next: () => number): Draft {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)] as T;
  const onGrid = next() < 0.6;
  const length = (least: number, most: number) => {
    const mm = least + next() * (most - least);
    return onGrid ? Math.max(10, Math.round(mm / 10) * 10) : mm;
  };
  const members = Array.from({ length: 1 + Math.floor(next() * 6) }, (_, k): Draft => {
    const base = {
      id: `m${k}`,
      role: k === 0 ? 'join' : pick(['join', 'join', 'punch', 'punch', 'clip']),
      placement: {
        x: length(0, SHEET[0]),
        y: length(0, SHEET[1]),
        turn: pick([0, 0, 90, 180, 45, 30, next() * 360]),
        mirror: next() < 0.2,
      },
    };
    const kind = pick(['rectangle', 'rectangle', 'ellipse', 'ellipse', 'lettering']);
    if (kind === 'rectangle')
      return { ...base, kind, width: length(10, 160), height: length(10, 100), corner: pick([0, 0, 5, 10, 1000]) };
    if (kind === 'ellipse') {
      const width = length(10, 130);
      return { ...base, kind, width, height: pick([width, length(10, 100)]) };
    }
    return {
      ...base,
      kind,
      text: pick(['BOB', 'Äi%', 'O@8', 'lull', 'Qq&', 'HHH']),
      face: pick(FAMILIES),
      size: { by: 'capital', mm: pick([10, 20, 40, 5 + next() * 60]) },
      letterSpacing: pick([0, 0, -0.1, next() * 0.2 - 0.1]),
      align: pick(['left', 'centre', 'right']),
    };
  });
  return partOf(members, { keep: pick(['inside', 'outside']) });
}
