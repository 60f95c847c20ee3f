/** A job as its page has it against what this window saved since. */
import { QueryClient } from '@tanstack/react-query';
import { expect, test } from 'vitest';
import { newestOf, rememberSaved } from '../../src/bench/saved-job';
import type { StoredJob } from '../../src/core/job/summary';

const job = (id: string, version: number): StoredJob => ({ id, version, changedAt: `at ${version}`, document: {} });

test('the newer of the two is opened', () => {
  const client = new QueryClient();
  expect(newestOf(client, 'a', null)).toBeNull();
  expect(newestOf(client, 'a', job('a', 3))).toEqual(job('a', 3));
  rememberSaved(client, job('a', 5));
  expect(newestOf(client, 'a', job('a', 3))).toEqual(job('a', 5));
  // Another window has saved since.
  expect(newestOf(client, 'a', job('a', 6))).toEqual(job('a', 6));
  // The same version may have been given a name only: what the server says counts.
  expect(newestOf(client, 'a', { ...job('a', 5), changedAt: 'later' })?.changedAt).toBe('later');
  // The database is away: what was saved last is still known.
  expect(newestOf(client, 'a', null)).toEqual(job('a', 5));
  expect(newestOf(client, 'b', null)).toBeNull();
});
