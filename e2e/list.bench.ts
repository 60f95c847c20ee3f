/** The list of a thousand jobs against one of twenty: how long it takes until the first cards are there with their pictures. */
import type { Page } from '@playwright/test';
import { ask } from '../tests/support/ask';
import { figure } from '../tests/support/figures';
import { expect, test } from './fixtures';
import { median } from './redrawn';

const TIMES = 9;
const FEW = 20;
const MANY = 1_000;

const url = process.env.DATABASE_URL ?? '';

/** Have so many jobs, each a copy of one of the samples. */
async function have(count: number): Promise<void> {
  await ask(url, 'delete from jobs where sample is null');
  const [samples] = await ask<{ count: string }>(url, 'select count(*) from jobs');
  await ask(
    url,
    `insert into jobs (document, picture, title, tags, units, material, thickness, width, height, changed_at)
     select s.document, s.picture, s.title || ' ' || n, s.tags, s.units, s.material, s.thickness, s.width, s.height,
            now() - n * interval '1 minute'
     from generate_series(1, $1) n
     join (select *, row_number() over (order by title) - 1 as at from jobs where sample is not null) s on s.at = n % $2`,
    [count - Number(samples?.count), Number(samples?.count)],
  );
}

/** Milliseconds from going to the list until the first card has its picture. */
async function opened(page: Page): Promise<number> {
  await page.goto('about:blank');
  const from = performance.now();
  await page.goto('/', { waitUntil: 'commit' });
  await page.locator('li svg[role=img] path').first().waitFor();
  return performance.now() - from;
}

test('a list of a thousand jobs', async ({ page }) => {
  const times = new Map<number, number[]>();
  for (const count of [FEW, MANY]) {
    await have(count);
    await opened(page);
    const taken: number[] = [];
    for (let i = 0; i < TIMES; i++) taken.push(await opened(page));
    times.set(count, taken);
  }
  const [few, many] = [FEW, MANY].map((count) => median(times.get(count) ?? [])) as [number, number];
  figure({
    name: 'A list of 1,000 jobs, to its first card with its picture, against one of 20',
    value: many / few,
    digits: 2,
    aim: { most: 1.5 },
    note: `${many.toFixed(0)} ms to ${few.toFixed(0)} ms`,
  });
  const page1 = await page.request.get('/api/jobs', { headers: { 'accept-encoding': 'gzip' } });
  expect(page1.headers()['content-encoding']).toBe('gzip');
});
