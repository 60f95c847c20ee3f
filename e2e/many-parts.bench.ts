/**
 * A job of two hundred parts, plates with words in four typefaces: how long it takes to open against its bare evaluation, and
 * what choosing, editing and changing station take against the same in a job of five parts.
 */
import type { Page } from '@playwright/test';
import { checkJob } from '../src/core/document/read';
import type { Job } from '../src/core/document/schema';
import { Evaluator } from '../src/core/job/evaluate';
import { faces, wasmEngine } from '../tests/support/faces';
import { figure } from '../tests/support/figures';
import { computed, expect, newJob, saved, station, test } from './fixtures';
import { median, timesToRedraw } from './redrawn';

const FACES = ['Archivo Black', 'Pacifico', 'Poppins', 'Libre Baskerville'];
const WORDS = ['Basil', 'Thyme', 'Sorrel', 'Chives', 'Fennel', 'Rosemary', 'Marjoram', 'Lovage', 'Dill', 'Savory'];
const ACTS = 11;

/** Plates with words cut out of them, in rows of ten on one sheet. */
function plates(count: number): Job {
  const read = checkJob({
    format: 3,
    title: `Bed markers, ${count}`,
    sheet: { width: 1300, height: 1300, leastWidth: 1 },
    parts: Array.from({ length: count }, (_, i) => ({
      id: `plate-${i}`,
      placement: { x: 65 + (i % 10) * 125, y: 1270 - Math.floor(i / 10) * 62 },
      members: [
        { id: 'plate', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 115, height: 55, corner: 5 },
        {
          id: 'words',
          kind: 'lettering',
          role: 'punch',
          placement: { x: -42, y: -8 },
          text: `${WORDS[i % WORDS.length]} ${i + 1}`,
          face: FACES[i % FACES.length],
          size: { by: 'capital', mm: 14 },
        },
      ],
      steps: [{ kind: 'weld' }, { kind: 'bridge', width: 2 }],
      work: [{ what: 'outline', operation: 'cut' }],
    })),
  });
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
}

/** Put a document under a new job; the id it has. */
async function keep(page: Page, job: Job): Promise<string> {
  const id = await newJob(page, job.title);
  await saved(page);
  const { version } = (await (await page.request.get(`/api/jobs/${id}`)).json()) as { version: number };
  const answer = await page.request.put(`/api/jobs/${id}`, {
    data: { version, document: job, extras: null },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
  await page.goto('about:blank');
  return id;
}

/** Milliseconds from going to a job until all its parts are drawn. */
async function opened(page: Page, id: string, parts: number): Promise<number> {
  await page.goto('/');
  await page.getByRole('link', { name: 'New job' }).first().waitFor();
  const began = performance.now();
  await page.goto(`/jobs/${id}`);
  await page.waitForFunction(
    (wanted) =>
      document.querySelectorAll('[data-member]').length === 2 * wanted &&
      document.querySelector('[aria-label="Sheet"]')?.getAttribute('aria-busy') === 'false',
    parts,
    { polling: 'raf' },
  );
  return performance.now() - began;
}

/** Milliseconds in the page from an event to the frame that shows what came of it, for each time it is done. */
async function timed(page: Page, event: string, act: (i: number) => Promise<void>): Promise<number> {
  await page.evaluate((name) => {
    const times: number[] = [];
    window.addEventListener(
      name,
      () => {
        const from = performance.now();
        requestAnimationFrame(() => setTimeout(() => times.push(performance.now() - from)));
      },
      true,
    );
    (window as unknown as { times: number[] }).times = times;
  }, event);
  for (let i = 0; i < ACTS; i++) {
    await act(i);
    await expect
      .poll(() => page.evaluate(() => (window as unknown as { times: number[] }).times.length), {
        intervals: [10, 20, 50],
      })
      .toBeGreaterThan(i);
    await computed(page);
  }
  return median(await page.evaluate(() => (window as unknown as { times: number[] }).times.slice(1)));
}

/** Milliseconds from a key press in the words of a part to the frame in which it is redrawn. */
async function edited(page: Page): Promise<number> {
  const words = page.getByRole('textbox', { name: 'Words' });
  await words.press('Control+End');
  const times = await timesToRedraw(page, '[data-grab="plate-2"][data-member="words"]', ACTS, () => computed(page));
  return median(times.slice(1));
}

async function acts(page: Page): Promise<{ choosing: number; station: number; editing: number }> {
  const part = (i: number) => page.locator(`[data-grab="plate-${i % 3}"][data-member="plate"]`);
  const choosing = await timed(page, 'pointerdown', (i) => part(i).click({ position: { x: 2, y: 2 }, force: true }));
  const names = ['Close', 'Hold', 'Fill', 'Assign', 'Prove', 'Compose'];
  const at = await timed(page, 'click', (i) => station(page, names[i % names.length] as string).click());
  // The words of one part in hand: where one is in a job is kept in its address.
  const address = new URL(page.url());
  address.search = '?on=plate-2/words';
  await page.goto(address.href);
  await page.getByRole('textbox', { name: 'Words' }).waitFor();
  await computed(page);
  const editing = await edited(page);
  return { choosing, station: at, editing };
}

test('two hundred parts', async ({ page }) => {
  const [many, few] = [plates(200), plates(5)];
  const bare = median(
    Array.from({ length: 3 }, () => {
      const began = performance.now();
      new Evaluator(wasmEngine).evaluate(many, faces);
      return performance.now() - began;
    }),
  );
  const manyId = await keep(page, many);
  const times = [];
  for (let i = 0; i < 3; i++) times.push(await opened(page, manyId, 200));
  const open = median(times);
  figure({
    name: 'Opening a job of 200 parts, against its bare evaluation',
    value: open / bare,
    digits: 2,
    aim: { most: 1.5 },
    note: `${open.toFixed(0)} ms against ${bare.toFixed(0)} ms`,
  });
  const ofMany = await acts(page);
  await opened(page, await keep(page, few), 5);
  const ofFew = await acts(page);
  for (const [act, name] of [
    ['choosing', 'Choosing a part'],
    ['editing', 'A key press in the words of one part'],
    ['station', 'Changing the station'],
  ] as const)
    figure({
      name: `${name} in a job of 200 parts, against the same in one of 5`,
      value: ofMany[act] / ofFew[act],
      digits: 2,
      aim: { most: 3 },
      note: `${ofMany[act].toFixed(0)} ms against ${ofFew[act].toFixed(0)} ms`,
    });
});
