/** What a part is called on the screen. */
import type { Part } from '@/core/document/schema';

/** A part's name, or its words when it has none. */
export function partWords(part: Part): string {
  if (part.name.trim()) return part.name;
  const words = part.members.find((m) => m.kind === 'lettering' && m.text.trim());
  if (words?.kind === 'lettering') return words.text.trim().split('\n').join(' / ');
  return part.members[0]?.kind === 'lettering'
    ? 'Lettering'
    : (part.members[0]?.kind ?? 'Part').replace(/^./, (c) => c.toUpperCase());
}
