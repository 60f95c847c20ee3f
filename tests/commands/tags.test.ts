import { expect, test } from 'vitest';
import { tagOf, withTag } from '../../src/core/commands/tags';
import { LIMITS } from '../../src/core/limits';

test('a tag has single spaces and so many characters', () => {
  expect(tagOf('  oak \n and   elm ')).toBe('oak and elm');
  expect(tagOf('x'.repeat(LIMITS.tagCharacters + 9))).toHaveLength(LIMITS.tagCharacters);
  expect(tagOf('   ')).toBe('');
});

test('it is added once, however it is written, and taken away; nothing else changes', () => {
  const tags = ['Oak', 'gift'];
  expect(withTag(tags, 'steel', true)).toEqual(['Oak', 'gift', 'steel']);
  expect(withTag(tags, ' oak', true)).toBe(tags);
  expect(withTag(tags, 'OAK', false)).toEqual(['gift']);
  expect(withTag(tags, 'steel', false)).toBe(tags);
  expect(withTag(tags, ' ', true)).toBe(tags);
  const full = Array.from({ length: LIMITS.tags }, (_, i) => `tag ${i}`);
  expect(withTag(full, 'more', true)).toBe(full);
});
