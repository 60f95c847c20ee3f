import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { decode } from 'fast-png';
import { JOB_FORMAT, jobSchema } from '../src/core/document/schema';
import { addLettering, computed, expect, newJob, openJob, saved, station, test } from './fixtures';

/** A name cut out on the laser, with its machine and stock. */
async function onLaser(page: Page, title: string, material = 'Birch plywood'): Promise<void> {
  await newJob(page, title);
  await addLettering(page, 'Elm');
  await station(page, 'Compose').click();
  await page.locator('[data-sheet]').click({ position: { x: 5, y: 300 } });
  await page.getByLabel('Machine').selectOption({ label: 'Laser' });
  await page.getByLabel('Material').fill(material);
  await page.getByLabel('Thickness').fill('3');
  await page.getByLabel('Thickness').press('Enter');
  await computed(page);
}

const panel = (page: Page) => page.getByRole('complementary', { name: 'Station Prove' });

async function prove(page: Page): Promise<void> {
  await station(page, 'Prove').click();
  await panel(page)
    .getByRole('button', { name: /^Prove( again)?$/ })
    .click();
  await expect(panel(page).getByText(/what is drawn|differ/)).toBeVisible();
}

test('proved, played by mouse and keys, gone with a change and back with undo; the very bytes are written', async ({
  page,
}) => {
  await onLaser(page, 'Proof');
  await station(page, 'Prove').click();
  await expect(station(page, 'Prove')).not.toHaveAccessibleName(/, proved/);
  await prove(page);
  const said = panel(page).getByText(/Run as Laser does, the file does what is drawn/);
  await expect(said).toBeVisible();

  // The run: from the start, held, by operation, and to the end.
  await panel(page)
    .getByRole('button', { name: /^Play the run/ })
    .click();
  const strip = page.getByRole('region', { name: 'Run' });
  await expect(strip).toBeVisible();
  await page.keyboard.press('r');
  await expect(strip.getByRole('button', { name: 'Play' })).toBeVisible();
  // Also where there is little room.
  await page.setViewportSize({ width: 1024, height: 700 });
  const [last, whole] = [
    await strip.getByRole('button', { name: 'Take the run off the sheet' }).boundingBox(),
    await strip.boundingBox(),
  ];
  if (!last || !whole) throw new Error('the strip is not in sight');
  expect(last.x + last.width).toBeLessThanOrEqual(whole.x + whole.width);
  await page.setViewportSize({ width: 1280, height: 800 });
  const time = strip.getByRole('slider', { name: 'Time of the run' });
  await time.fill('0');
  await expect(strip).toContainText(/0 of 3 free/);
  await time.press('End');
  await expect(strip).toContainText(/3 of 3 free/);
  await time.press('Home');
  await time.press('ArrowRight');
  await expect(time).toHaveAttribute('aria-valuetext', /, Cut$/);
  await strip.getByRole('button', { name: 'Next operation' }).click();
  await strip.getByLabel('How fast it is played').selectOption('100');
  await strip.getByRole('button', { name: 'Take the run off the sheet' }).click();
  await expect(strip).toBeHidden();

  // What was proved is what is written.
  const hash = await panel(page).locator('[title^="SHA-256"]').getAttribute('title');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write for Laser', exact: true }).click(),
  ]);
  expect(hash).toBe(
    `SHA-256 ${createHash('sha256')
      .update(readFileSync(await file.path()))
      .digest('hex')}`,
  );

  // Any change takes it away; undo brings it back.
  await page.getByLabel('Name of the job').fill('Proof of another');
  await page.getByLabel('Name of the job').press('Enter');
  await expect(panel(page).getByText('The job has changed since it was proved.')).toBeVisible();
  await expect(said).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(said).toBeVisible();
  await saved(page);
});

test('files that were given out are kept: had again byte for byte, and compared with now', async ({ page }) => {
  await onLaser(page, 'Given out');
  await prove(page);
  const given = panel(page);
  const bytesOf = async (press: () => Promise<void>) => {
    const [file] = await Promise.all([page.waitForEvent('download'), press()]);
    return createHash('sha256')
      .update(readFileSync(await file.path()))
      .digest('hex');
  };
  const first = await bytesOf(() => page.getByRole('button', { name: 'Write for Laser', exact: true }).click());
  const again = given.getByRole('button', { name: /^Have given-out.*svg again$/ });
  await expect(again).toBeVisible();
  await expect(given.getByText(/version \d+ · (proved|with faults open)/)).toBeVisible();
  expect(await bytesOf(() => again.click())).toBe(first);
  await given.getByRole('button', { name: /^Compare given-out.*svg/ }).click();
  await expect(given.getByText('What would be written now draws the same.')).toBeVisible();

  // Another format of the same job was not run.
  await bytesOf(() => page.getByRole('button', { name: 'Write PDF', exact: true }).click());
  const pdf = given.getByRole('listitem').filter({ hasText: /^given-out.*\.pdf/ });
  await expect(pdf.getByText(/version \d+ · not proved/)).toBeVisible();

  // After a reload it is there still; after a change it says what is another.
  await saved(page);
  await page.reload();
  await station(page, 'Compose').click();
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('Tab');
  await page.getByRole('textbox', { name: 'Words' }).fill('Elms');
  await computed(page);
  await station(page, 'Prove').click();
  await given.getByRole('button', { name: /^Compare given-out.*svg/ }).click();
  await expect(given.getByText(/is missing|in place of|lies elsewhere|is not meant/).first()).toBeVisible();
  expect(await bytesOf(() => again.click())).toBe(first);
});

test('sent to the bench machine it is run there: watched, paused, stopped, taken out', async ({ page }) => {
  await onLaser(page, `Sent ${Date.now()}`);
  await station(page, 'Prove').click();
  await panel(page).getByRole('button', { name: 'Send to the bench machine' }).click();
  const runs = panel(page).getByRole('list', { name: 'Runs of the bench machine' });
  const own = runs.getByRole('listitem').filter({ hasText: /sent-\d+/ });
  await expect(own).toHaveCount(1);
  await expect(own).toContainText(/(in line|running), as Laser/);
  await own.getByRole('button', { name: /^Pause/ }).click();
  await expect(own).toContainText('paused, as Laser');
  await expect(own.getByRole('progressbar')).toBeVisible();
  await own.getByRole('button', { name: /^Go on/ }).click();
  await expect(own).toContainText('running, as Laser');
  await own.getByRole('button', { name: /^Stop/ }).click();
  await expect(own).toContainText('stopped, as Laser');
  await panel(page).getByText('Its log').click();
  await expect(
    panel(page)
      .getByText(/was paused at \d+ %/)
      .first(),
  ).toBeVisible();
  await own.getByRole('button', { name: /^Take out/ }).click();
  await expect(own).toHaveCount(0);
});

test('a proof sheet and true size are printed as they say; a picture for the customer', async ({ page }) => {
  await openJob(
    page,
    'Plaque',
    jobSchema.parse({
      format: JOB_FORMAT,
      sheet: { width: 300, height: 200, material: 'Oak', thickness: 6 },
      parts: [
        {
          id: 'plate',
          placement: { x: 150, y: 100 },
          members: [{ id: 'r', kind: 'rectangle', placement: { x: 0, y: 0 }, width: 200, height: 100 }],
          work: [{ what: 'outline', operation: 'cut' }],
        },
      ],
    }),
  );
  await station(page, 'Prove').click();
  const made = async (name: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      panel(page).getByRole('button', { name, exact: true }).click(),
    ]);
    return { name: file.suggestedFilename(), at: await file.path() };
  };
  /** How many of the pixels along a row are dark, at so many a mm. */
  const PX = 4;
  const widest = (pdf: string, width: number, height: number): number => {
    const out = `${pdf}-painted`;
    const to = ['-scale-to-x', `${width * PX}`, '-scale-to-y', `${height * PX}`];
    execFileSync('pdftocairo', ['-png', '-gray', '-antialias', 'none', '-singlefile', ...to, pdf, out]);
    const { data, width: w, height: h, channels } = decode(readFileSync(`${out}.png`));
    let longest = 0;
    for (let y = 0; y < h; y++) {
      let run = 0;
      for (let x = 0; x < w; x++) {
        run = (data[(y * w + x) * channels] as number) < 128 ? run + 1 : 0;
        longest = Math.max(longest, run);
      }
    }
    return longest / PX;
  };
  const sheet = await made('Proof sheet, to sign');
  expect(sheet.name).toBe('plaque_oak-6mm_proof-sheet.pdf');
  // At 1 : 2 the plaque is 100 mm wide on paper; the lines to sign on are shorter.
  expect(Math.abs(widest(sheet.at, 210, 297) - 100)).toBeLessThan(0.6);
  const paper = await made('At true size');
  expect(Math.abs(widest(paper.at, 297, 210) - 200)).toBeLessThan(0.6);
  const picture = await made('Picture as PNG');
  expect(picture.name).toBe('plaque_oak-6mm_picture.png');
  const { width, height } = decode(readFileSync(picture.at));
  expect(Math.max(width, height)).toBe(2400);
  expect((await made('Picture as SVG')).name).toBe('plaque_oak-6mm_picture.svg');
});

test('a test piece is made; what came out well is pressed and is the cut chart’s', async ({ page }) => {
  // Of a material that no other test cuts: its row is another one afterwards.
  await onLaser(page, 'Trial', 'Poplar plywood');
  await station(page, 'Prove').click();
  await panel(page).getByRole('button', { name: 'Make a test piece' }).click();
  await panel(page).getByRole('link', { name: 'Open it' }).click();
  await expect(page.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('Trial: test piece');
  await station(page, 'Prove').click();
  await expect(panel(page).getByText(/Press the square that came out best/)).toBeVisible();
  await computed(page);
  // A square is pressed where it lies on the sheet.
  await page.locator('[data-grab="try-4-2"]').first().click({ force: true });
  const keep = panel(page).getByRole('button', { name: /^Keep in the cut chart: / });
  const words = ((await keep.textContent()) ?? '').replace('Keep in the cut chart: ', '');
  expect(words).toMatch(/mm\/s/);
  await keep.click();
  await expect(page.getByText(`The cut chart has it now, as tried: ${words}.`)).toBeVisible();
  const shop = (await (await page.request.get('/api/shop')).json()) as {
    chart: { entry: { tried: boolean; kind: string; settings: { speed: number } } }[];
  };
  const speed = Number(/([\d.]+) mm\/s/.exec(words)?.[1]);
  expect(shop.chart.some(({ entry }) => entry.tried && entry.kind === 'cut' && entry.settings.speed === speed)).toBe(
    true,
  );
});

test('what a machine can’t do is told before the metal is: too many chords, areas, the bed', async ({ page }) => {
  const made = (machine: object) =>
    jobSchema.parse({
      format: JOB_FORMAT,
      sheet: { width: 300, height: 200 },
      machine: { id: 'm', name: 'Old table', kind: 'plasma', ...machine },
      parts: [
        {
          id: 'plate',
          placement: { x: 150, y: 100 },
          members: [{ id: 'e', kind: 'ellipse', placement: { x: 0, y: 0 }, width: 200, height: 120 }],
          work: [
            { what: 'outline', operation: 'cut' },
            { what: 'fill', operation: 'engrave' },
          ],
        },
      ],
    });
  await openJob(page, 'Chords', made({ file: { curves: 'lines', mostSegments: 40 } }));
  await station(page, 'Prove').click();
  await panel(page).getByRole('button', { name: 'Prove', exact: true }).click();
  await expect(panel(page).getByText(/Old table takes 40 segments in a file/)).toBeVisible();
  await expect(panel(page).getByRole('button', { name: /^Play the run/ })).toBeHidden();

  await openJob(page, 'Areas', made({ bed: { width: 150, height: 150 } }));
  await station(page, 'Prove').click();
  await panel(page).getByRole('button', { name: 'Prove', exact: true }).click();
  await expect(panel(page).getByText(/is filled, and Old table does not go over areas/)).toBeVisible();
  await expect(panel(page).getByText(/the bed of Old table is 150 mm × 150 mm/)).toBeVisible();
  await expect(panel(page).getByText('2 things differ')).toBeVisible();
});
