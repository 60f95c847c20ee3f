/** A finding in the making, and how sentences name a part. */
import type { Part } from '../document/schema';
import { type Box, isEmptyBox } from '../geometry/point';
import type { Finding, FindingCode, Mend, Severity, Station } from './finding';

/** A finding before it has its key, and what tells it from others of its code in the part. */
export type Draft = { readonly finding: Omit<Finding, 'left' | 'key'>; readonly detail: string };

export const draft = (
  code: FindingCode,
  severity: Severity,
  station: Station,
  sentence: string,
  at: { partId?: string; memberId?: string; box?: Box | null; detail?: string; mend?: Mend | null } = {},
): Draft => ({
  finding: {
    code,
    severity,
    sentence,
    station,
    partId: at.partId ?? null,
    memberId: at.memberId ?? null,
    box: at.box && !isEmptyBox(at.box) ? at.box : null,
    mend: at.mend ?? null,
  },
  detail: at.detail ?? '',
});

/** How a part is called in a sentence. */
export const partTitle = (part: Part): string => {
  if (part.name.trim()) return `“${part.name.trim()}”`;
  const words = part.members.find((m) => m.kind === 'lettering' && m.text.trim());
  return words && words.kind === 'lettering'
    ? `“${words.text.trim().split('\n')[0]?.slice(0, 40)}”`
    : 'A part without a name';
};
