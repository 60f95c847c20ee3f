/** How far behind the redrawn sheet the new total of an edit is: a sign of 200 letters on a machine, one of its words changed. */
import { jobSchema } from '../src/core/document/schema';
import { machineSchema } from '../src/core/schema/shop/machine';
import { figure } from '../tests/support/figures';
import { jobWith, lettering, partOf } from '../tests/support/jobs';
import { computed, expect, openJob, station, test } from './fixtures';

const LINE = 'Gate sign Alder Lane no 7';
const EDITS = 9;

test('an edit of a sign of 200 letters', async ({ page }) => {
  const sign = jobWith(
    Array.from({ length: 10 }, (_, i) =>
      partOf([lettering(LINE, 'Archivo Black', { size: { by: 'capital', mm: 20 } })], {
        id: `line-${i}`,
        placement: { x: 600, y: 60 + 90 * i },
        steps: [{ kind: 'weld' }],
        work: [{ what: 'outline', operation: 'cut' }],
      }),
    ),
    {
      operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 20 } } }],
      machine: { ...machineSchema.parse({ name: 'Laser', kind: 'laser' }), id: 'laser' },
      sheet: { width: 2000, height: 1000, thickness: 3, kerf: 0.2, leastWidth: 1 },
    },
  );
  await openJob(page, 'Two hundred', jobSchema.parse(sign));
  await station(page, 'Compose').click();
  await computed(page);
  await page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /^Gate/ }).first().click();
  await expect(page.getByRole('contentinfo')).toContainText(/Takes/);
  const words = page.getByRole('textbox', { name: 'Words' });
  const behind: number[] = [];
  for (let k = 0; k < EDITS; k++) {
    await page.waitForTimeout(1500);
    // In the page itself, so that nothing of the test's own way to it counts.
    const waiting = page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          const sheet = document.querySelector('section[aria-label="Sheet"]');
          const foot = document.querySelector('footer');
          if (!sheet || !foot) throw new Error('no sheet');
          const total = () => /Takes\s*[^(−+]*/.exec(foot.textContent ?? '')?.[0];
          const before = total();
          let drawn = 0;
          let isBusy = false;
          const look = () => {
            const now = sheet.getAttribute('aria-busy') === 'true';
            if (isBusy && !now) drawn = performance.now();
            isBusy = now;
            if (drawn > 0 && total() !== before) {
              watch.disconnect();
              resolve(performance.now() - drawn);
            }
          };
          const watch = new MutationObserver(look);
          watch.observe(document.body, { subtree: true, attributes: true, childList: true, characterData: true });
        }),
    );
    // A letter more, so that the total is another one to the second.
    await words.fill(`${LINE}${'o'.repeat(k + 1)}`);
    behind.push(await waiting);
  }
  const sorted = behind.sort((a, b) => a - b);
  figure({
    name: 'new total of an edit in a sign of 200 letters, behind the redrawn sheet, median',
    value: sorted[EDITS >> 1] ?? 0,
    digits: 0,
    unit: 'ms',
    aim: { most: 100 },
    note: `from ${sorted[0]?.toFixed(0)} to ${sorted[EDITS - 1]?.toFixed(0)} ms`,
  });
});
