/** The six stations in the order the work is done. */
import type { Station } from '@/core/inspect/finding';

export const STATIONS: readonly { readonly id: Station; readonly word: string; readonly lead: string }[] = [
  { id: 'compose', word: 'Compose', lead: 'The sheet, and what goes on it.' },
  { id: 'close', word: 'Close', lead: 'Clean closed outlines, welded where they overlap.' },
  { id: 'hold', word: 'Hold', lead: 'What stays must hang together.' },
  { id: 'fill', word: 'Fill', lead: 'What happens inside the letters.' },
  { id: 'assign', word: 'Assign', lead: 'Which operation does what, and in which order.' },
  { id: 'prove', word: 'Prove', lead: 'Look it over, then write the files.' },
];
