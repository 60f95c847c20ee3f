/** What a browser that knows nothing yet loads before the first sheet is drawn, page and worker alike: each file once, compressed. */
import { gzipSync } from 'node:zlib';
import { figure } from '../tests/support/figures';
import { demoJobs } from '../tests/support/jobs';
import { expect, openJob, test } from './fixtures';

test('what is loaded before the first sheet is drawn', async ({ page, browser }) => {
  const job = demoJobs().get('gate-sign');
  if (!job) throw new Error('no gate sign');
  await openJob(page, 'Loaded', job);
  const url = page.url();
  const fresh = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const other = await fresh.newPage();
  const loaded = new Map<string, number>();
  const waiting: Promise<void>[] = [];
  // Sizes as the browser tells them leave out what a worker loads that its page has.
  fresh.on('response', (response) => {
    waiting.push(
      response
        .body()
        .then((body) => {
          loaded.set(response.url(), gzipSync(body).length);
        })
        .catch(() => {}),
    );
  });
  await other.goto(url);
  await expect(other.locator('[data-member]').first()).toHaveAttribute('d', /^M/);
  const before = waiting.length;
  await Promise.all(waiting.slice(0, before));
  const kinds = new Map<string, number>();
  for (const [address, bytes] of loaded) {
    const { pathname } = new URL(address);
    const kind = /\.(js|css|wasm|woff2|ttf)$/.exec(pathname)?.[1] ?? 'other';
    kinds.set(kind, (kinds.get(kind) ?? 0) + bytes);
  }
  const all = [...loaded.values()].reduce((sum, bytes) => sum + bytes, 0);
  figure({
    name: 'Loaded before the first sheet is drawn, compressed',
    value: all / 1024,
    digits: 0,
    unit: 'KB',
    note: [...kinds].map(([kind, bytes]) => `${kind} ${(bytes / 1024).toFixed(0)}`).join(', '),
  });
  if (process.env.NEEDLEFILE_EACH)
    for (const [address, bytes] of [...loaded].sort((a, b) => b[1] - a[1]))
      console.log((bytes / 1024).toFixed(1), new URL(address).pathname);
  await fresh.close();
});
