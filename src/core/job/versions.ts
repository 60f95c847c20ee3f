/** Earlier versions of a job: which are kept, and what is shown of them. */
import { z } from 'zod';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const YEAR = 365 * DAY;

/** Up to an age, one version is kept in each span of so long; older ones are kept only when they have a name. In ms. */
export const KEPT_BY_AGE: readonly { readonly upTo: number; readonly each: number }[] = [
  { upTo: HOUR, each: MINUTE },
  { upTo: DAY, each: HOUR },
  { upTo: YEAR, each: DAY },
];

/** A version by its number, when it was saved in ms since 1970, and whether it is kept for good. */
export type VersionAge = { readonly version: number; readonly savedAt: number; readonly isNamed: boolean };

/**
 * The versions that are not kept any longer at a time (ms since 1970): of those in one minute (hour, day) the last one stays. Spans
 * are those of the clock, so that a version that was let stay is not dropped because another has come since, only when it has grown
 * old enough for longer spans.
 */
export function versionsToDrop(versions: readonly VersionAge[], now: number): number[] {
  const last = new Map<string, number>();
  const spanOf = ({ savedAt }: VersionAge): string | null => {
    const kept = KEPT_BY_AGE.find(({ upTo }) => now - savedAt < upTo);
    return kept ? `${kept.each}:${Math.floor(savedAt / kept.each)}` : null;
  };
  const unnamed = versions.filter((v) => !v.isNamed);
  for (const one of unnamed) {
    const span = spanOf(one);
    if (span !== null) last.set(span, Math.max(last.get(span) ?? 0, one.version));
  }
  return unnamed.flatMap((one) => {
    const span = spanOf(one);
    return span !== null && last.get(span) === one.version ? [] : [one.version];
  });
}

/** An earlier version without its document. */
export const versionSummarySchema = z.object({
  version: z.int(),
  savedAt: z.string(),
  /** What the user called it, to keep it for good. */
  name: z.string().nullable(),
  title: z.string(),
  openFindings: z.int(),
});
/** What a list of versions shows of one. */
export type VersionSummary = z.infer<typeof versionSummarySchema>;

/** Some of the versions, and whether there are older ones. */
export const versionsPageSchema = z.object({ versions: z.array(versionSummarySchema), hasMore: z.boolean() });

/** Some of the versions of a job, the newest first. */
export type VersionsPage = z.infer<typeof versionsPageSchema>;

/** A version with its document. */
export const versionSchema = versionSummarySchema.extend({ document: z.unknown() });

/** An earlier version with its document, which is checked where it is opened. */
export type Version = z.infer<typeof versionSchema>;
