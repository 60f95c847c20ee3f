/**
 * A rule that yields findings: what it is called, how grave what it finds is, where that is dealt with, what it finds and what
 * mends it. A rule says all about its findings; a registry lists the rules.
 */
import type { Box } from '../geometry/point';
import type { MendArgs, Severity } from './finding';
import type { Station } from './stations';

/** Something found, before it is a finding of its rule. */
export type Observation<A extends MendArgs = MendArgs> = {
  readonly sentence: string;
  /** What tells it from others of the same rule and part; it stays the same from one evaluation to the next. */
  readonly detail: string;
  /** Where it lies on the sheet; null, or empty: nowhere. */
  readonly box?: Box | null;
  readonly memberId?: string;
  /** Where it is graver, or lighter, than its rule says. */
  readonly severity?: Severity;
  /** Said where it can be mended in one press; null or left out where it can't. */
  readonly mend?: A | null;
};

/** A rule about something, the subject; `M` is how what it finds is mended. */
export type Rule<Subject, M, A extends MendArgs = MendArgs> = {
  readonly code: string;
  readonly severity: Severity;
  readonly station: Station;
  readonly find: (subject: Subject) => readonly Observation<A>[];
  /** What is said of several that are alike, in one sentence. */
  readonly many?: (count: number) => string;
  readonly mend?: M;
};

/** What rules find about something, rule by rule. */
export function foundBy<Subject, M>(
  rules: readonly Rule<Subject, M>[],
  subject: Subject,
): { readonly rule: Rule<Subject, M>; readonly found: Observation }[] {
  // Most rules find nothing, and all are asked at every edit: no list is made for those.
  const out: { readonly rule: Rule<Subject, M>; readonly found: Observation }[] = [];
  for (const rule of rules) for (const found of rule.find(subject)) out.push({ rule, found });
  return out;
}

/** "1,200 more places", "1 more place". */
export const more = (count: number, thing: string): string =>
  `${count.toLocaleString('en')} more ${thing}${count === 1 ? '' : 's'}`;
