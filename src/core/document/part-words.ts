/** What parts and members are called in words. */

import { cutTo } from '../units/text';
import type { Member, Part, ShapeKind } from './schema';

/** What a shape is called where its kind begins a line: "Rectangle". */
export const shapeWord = (kind: ShapeKind): string => kind.charAt(0).toUpperCase() + kind.slice(1);

/** A member's words, or what it is. */
export const memberWords = (member: Member): string =>
  member.kind === 'lettering'
    ? member.text.trim().split('\n').join(' / ') || 'Lettering without words'
    : member.kind === 'copy'
      ? 'Copy'
      : member.kind === 'artwork'
        ? member.name || 'Drawing'
        : member.kind === 'trace'
          ? member.name || 'Traced picture'
          : member.kind === 'path'
            ? 'Path'
            : shapeWord(member.kind);

/** A part's name, or its words when it has none. */
export function partWords(part: Part): string {
  if (part.name.trim()) return part.name;
  const words = part.members.find((m) => m.kind === 'lettering' && m.text.trim());
  if (words?.kind === 'lettering') return words.text.trim().split('\n').join(' / ');
  return part.members[0]?.kind === 'lettering'
    ? 'Lettering'
    : (part.members[0]?.kind ?? 'Part').replace(/^./, (c) => c.toUpperCase());
}

/** How a part is called in a sentence. */
export const partTitle = (part: Part): string => {
  if (part.name.trim()) return `“${part.name.trim()}”`;
  const words = part.members.find((m) => m.kind === 'lettering' && m.text.trim());
  return words && words.kind === 'lettering'
    ? `“${cutTo(words.text.trim().split('\n')[0] ?? '', 40)}”`
    : 'A part without a name';
};

/** What a part is made of: "rectangle, 4 × ellipse cut out, ALDER LANE cut out". */
export function aboutPart(part: Part): string {
  const counts = new Map<string, number>();
  for (const m of part.members) {
    const what =
      m.kind === 'lettering'
        ? m.text.trim().split('\n').join(' / ') || 'no words yet'
        : m.kind === 'artwork'
          ? m.name || 'drawing'
          : m.kind === 'trace'
            ? `traced from ${m.name || 'a picture'}`
            : m.kind;
    const words = m.role === 'join' ? what : m.role === 'punch' ? `${what} cut out` : `within ${what}`;
    counts.set(words, (counts.get(words) ?? 0) + 1);
  }
  return [...counts].map(([words, n]) => (n > 1 ? `${n} × ${words}` : words)).join(', ');
}
