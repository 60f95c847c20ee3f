/** Whether a part is to come off as one piece. */
import { stepIn } from '../kinds/steps';
import type { Part } from './schema';

/** Whether it is to hang together: as was said, or yes where something joins its letters; null where it is to be asked. */
export function hangsTogether(part: Pick<Part, 'hangsTogether' | 'members' | 'steps'>): 'yes' | 'no' | null {
  if (part.hangsTogether !== null) return part.hangsTogether;
  const joins =
    stepIn(part, 'bar')?.on ||
    stepIn(part, 'tie')?.on ||
    part.members.some((m) => m.kind === 'lettering' && m.closeUp !== null);
  return joins ? 'yes' : null;
}
