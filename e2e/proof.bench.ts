/** Frames of a page that plays a run, against those of the same page at rest: a sign of 200 letters. */
import { jobSchema } from '../src/core/document/schema';
import { machineSchema } from '../src/core/schema/shop/machine';
import { figure } from '../tests/support/figures';
import { jobWith, lettering, partOf } from '../tests/support/jobs';
import { expect, openJob, station, test } from './fixtures';

const LINE = 'Gate sign Alder Lane no 7';
const WATCHED_MS = 4000;

test('a run of a sign of 200 letters is played', async ({ page }) => {
  const sign = jobWith(
    Array.from({ length: 10 }, (_, i) =>
      partOf([lettering(LINE, 'Archivo Black', { size: { by: 'capital', mm: 20 } })], {
        id: `line-${i}`,
        hangsTogether: 'no',
        placement: { x: 600, y: 60 + 90 * i },
        steps: [{ kind: 'weld' }],
        work: [{ what: 'outline', operation: 'cut' }],
      }),
    ),
    {
      operations: [{ id: 'cut', name: 'Cut', kind: 'cut', settings: { typed: { speed: 20 } } }],
      machine: {
        ...machineSchema.parse({ name: 'Laser', kind: 'laser', bed: { width: 2000, height: 1000 } }),
        id: 'laser',
      },
      sheet: { width: 2000, height: 1000, thickness: 3, kerf: 0.2, leastWidth: 1 },
    },
  );
  await openJob(page, 'Two hundred', jobSchema.parse(sign));
  await station(page, 'Prove').click();
  const panel = page.getByRole('complementary', { name: 'Station Prove' });
  await panel.getByRole('button', { name: 'Prove', exact: true }).click();
  await expect(panel.getByText(/what is drawn/)).toBeVisible();
  const frames = () =>
    page.evaluate(
      (ms) =>
        new Promise<number>((resolve) => {
          const began = performance.now();
          let count = 0;
          const next = () => {
            count++;
            if (performance.now() - began < ms) requestAnimationFrame(next);
            else resolve(count);
          };
          requestAnimationFrame(next);
        }),
      WATCHED_MS,
    );
  await page.waitForTimeout(2000);
  const atRest = await frames();
  await panel.getByRole('button', { name: /^Play the run/ }).click();
  const played = await frames();
  await expect(page.getByRole('button', { name: 'Hold', exact: true })).toBeVisible();
  figure({
    name: 'frames of the page at rest against those while the run of a sign of 200 letters is played',
    value: atRest / played,
    digits: 2,
    unit: '×',
    aim: { most: 2 },
    note: `${atRest} against ${played} in ${WATCHED_MS / 1000} s`,
  });
});
