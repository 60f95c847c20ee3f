/** Tags of a job. */
import { LIMITS } from '../limits';
import { cutTo } from '../units/text';

/** A tag as it is kept: its words with single spaces between; '' where there are none. */
export const tagOf = (typed: string): string => cutTo(typed.trim().replace(/\s+/g, ' '), LIMITS.tagCharacters);

/**
 * Tags with one more, or without one; the list itself where nothing changes. A tag that is there in other capitals is there; beyond as many
 * as a job has, none is added.
 */
export function withTag(tags: readonly string[], typed: string, on: boolean): readonly string[] {
  const tag = tagOf(typed);
  const isSame = (other: string) => other.toLowerCase() === tag.toLowerCase();
  if (tag === '' || tags.some(isSame) === on) return tags;
  if (!on) return tags.filter((other) => !isSame(other));
  return tags.length >= LIMITS.tags ? tags : [...tags, tag];
}
