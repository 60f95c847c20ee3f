/** Letters filled with lines: a script word for a marker, a label engraved around its words, a tool from the chart. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { Job } from '../src/core/document/schema';
import { readDrawing } from '../src/core/formats/read';
import { regionBox } from '../src/core/geometry/path';
import { pointAt } from '../src/core/geometry/segment';
import { windingAt } from '../src/core/geometry/winding';
import { Evaluator } from '../src/core/job/evaluate';
import { faces, wasmEngine } from '../tests/support/faces';
import { SIGN } from '../tests/support/sign';
import { addLettering, chooseFace, computed, expect, intoPart, kept, newJob, station, test } from './fixtures';

const panel = (page: Page) => page.getByRole('complementary', { name: 'Station Fill' });
const sheet = (page: Page) => page.getByRole('complementary', { name: 'Job sheet' });
const press = (page: Page, words: string) =>
  panel(page)
    .locator('label', { hasText: new RegExp(`^${words}$`) })
    .click();
const type = async (page: Page, label: string, value: string) => {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(value);
  await field.press('Enter');
  await computed(page);
};
const document = async (page: Page, id: string) => (await kept(page, id)).document as unknown as Job;

/** The DXF of the job, read back. */
async function exported(page: Page) {
  await station(page, 'Prove').click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('complementary', { name: 'Station Prove' }).getByRole('button', { name: /DXF/ }).first().click(),
  ]);
  const read = readDrawing(new Uint8Array(readFileSync(await file.path())));
  if (!read.ok) throw new Error(read.sentence);
  return read.found.shapes.flatMap((s) => s.paths);
}

test('a script word for a marker of 1 mm: a missed place is found and filled', async ({ page }) => {
  const id = await newJob(page, 'Marker');
  await addLettering(page, 'Sage');
  await chooseFace(page, 'Pacifico');
  await computed(page);
  await type(page, 'Capital height', '20');

  await station(page, 'Fill').click();
  await press(page, 'lines');
  await type(page, 'Width', '1');
  await press(page, 'rings');
  await computed(page);
  const missed = sheet(page).getByText(/missed\.$/);
  await expect(missed.first()).toBeVisible();
  expect((await document(page, id)).parts[0]?.work).toEqual([{ what: 'hatch', operation: 'mark', only: null }]);

  // The finding mends it, and undo takes that back.
  await sheet(page).getByRole('button', { name: 'Fill the rest' }).first().click();
  await computed(page);
  await expect(missed).toHaveCount(0);
  await expect(panel(page).getByText(/strokes? over what the lines miss/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await computed(page);
  await expect(missed.first()).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await computed(page);
  await expect(missed).toHaveCount(0);

  // The finished look while V is held.
  await page.keyboard.down('v');
  await expect(page.getByRole('radio', { name: 'As filled' })).toBeChecked();
  await page.keyboard.up('v');
  await expect(page.getByRole('radio', { name: 'Drawing' })).toBeChecked();

  // Sliding the direction is live, and one step of undo.
  await press(page, 'parallel');
  await panel(page).getByLabel('Slide the direction').fill('10');
  await panel(page).getByLabel('Slide the direction').fill('20');
  await computed(page);
  const step = async () => (await document(page, id)).parts[0]?.steps.find((s) => s.kind === 'hatch');
  expect(await step()).toMatchObject({ style: 'parallel', angle: 20, fillMissed: true });
  await page.keyboard.press('Control+z');
  expect(await step()).toMatchObject({ angle: 45 });

  const paths = await exported(page);
  expect(paths.length).toBeGreaterThan(5);
  expect(paths.every((p) => !p.closed)).toBe(true);
});

test('a label engraved around its words, whether made as one part or as two', async ({ page }) => {
  const id = await newJob(page, 'Label');
  await addLettering(page, 'HOE');
  await computed(page);
  const addRectangle = async () => {
    await page.getByRole('button', { name: 'Shape', exact: true }).click();
    await page
      .getByRole('menuitem', { name: 'Rectangle' })
      .or(page.getByRole('button', { name: 'Rectangle' }))
      .first()
      .click();
    await computed(page);
  };
  // Added to the same part, the rectangle swallows the words; they are cut out of it instead.
  await intoPart(page);
  await addRectangle();
  const swallowed = sheet(page).getByText(/“HOE” lies in the rest of its part/);
  await expect(swallowed).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Cut it out instead' }).click();
  await computed(page);
  await expect(swallowed).toHaveCount(0);
  expect((await document(page, id)).parts[0]?.members.map((m) => [m.kind, m.role])).toEqual([
    ['rectangle', 'join'],
    ['lettering', 'punch'],
  ]);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await computed(page);
  expect((await document(page, id)).parts[0]?.members).toHaveLength(1);

  // As a part of its own it comes beside them; laid over them it is filled over them.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await addRectangle();
  await page.getByLabel('Arrange on').selectOption({ label: 'HOE' });
  await page.getByRole('button', { name: 'Centre', exact: true }).click();
  await computed(page);
  await station(page, 'Fill').click();
  await press(page, 'lines');
  await computed(page);
  await sheet(page).getByRole('button', { name: /^HOE/ }).click();
  await press(page, 'lines');
  await computed(page);

  const finding = sheet(page).getByText(/lies in .* and both are filled: it would not be seen/);
  await expect(finding).toBeVisible();
  await sheet(page).getByRole('button', { name: 'Cut it out of the other' }).click();
  await computed(page);
  await expect(finding).toHaveCount(0);
  const job = await document(page, id);
  expect(job.parts).toHaveLength(1);
  expect(job.parts[0]?.members.map((m) => [m.kind, m.role])).toEqual([
    ['rectangle', 'join'],
    ['lettering', 'punch'],
  ]);

  // Nothing that is drawn comes nearer to a letter than half the tip; the page fits what is drawn.
  const paths = await exported(page);
  expect(paths.length).toBeGreaterThan(1);
  const part = new Evaluator(wasmEngine).evaluate(job, faces).parts[0];
  const letters = part?.members[1]?.outlines ?? [];
  expect(letters.length).toBeGreaterThan(3);
  const half = (job.parts[0]?.steps.find((s) => s.kind === 'hatch')?.tool.tip ?? 0) / 2;
  const [drawn, plate] = [regionBox(paths), part?.box];
  if (!plate) throw new Error('there is no plate');
  const [dx, dy] = [plate.minX + half - drawn.minX, plate.minY + half - drawn.minY];
  for (const { segments } of paths)
    for (const s of segments)
      for (const t of [0, 0.5]) {
        // On the line itself: the chord of an arc may cut a letter that the arc goes round.
        const { x, y } = pointAt(s, t);
        expect(letters.reduce((sum, o) => sum + windingAt(o.path, x + dx, y + dy), 0)).toBe(0);
      }
});

test('a tool is proposed, and taken from the chart', async ({ page }) => {
  const id = await newJob(page, 'Tools');
  await addLettering(page, 'Rye & Oats');
  await computed(page);
  await type(page, 'Capital height', '12');
  await station(page, 'Fill').click();
  await press(page, 'lines');
  await panel(page).getByLabel('Filled with').selectOption({ label: 'a flat tool' });
  await type(page, 'Width', '2.5');
  await expect(sheet(page).getByText(/A tool that works 2\.5 mm wide leaves .* it does not fit there/)).toBeVisible();
  const letters = panel(page).getByRole('list', { name: 'Letters by what is out of reach' });
  await expect(letters.getByRole('button')).toHaveCount(5);

  await panel(page).getByRole('button', { name: 'Choose a tool' }).click();
  await expect(panel(page).getByText(/^Proposed: flat/)).toBeVisible();
  const tools = panel(page).getByRole('list', { name: 'Tools' }).getByRole('button');
  await expect(tools).toHaveCount(7);
  const proposed = tools.filter({ hasText: 'proposed' });
  await expect(proposed).toHaveCount(1);

  // The proposed tool is the green point.
  const chart = panel(page).getByRole('img', { name: /Time of each tool/ });
  const at = await chart.evaluate((canvas: HTMLCanvasElement) => {
    const { data, width, height } = (canvas.getContext('2d') as CanvasRenderingContext2D).getImageData(
      0,
      0,
      canvas.width,
      canvas.height,
    );
    let [x, y, n] = [0, 0, 0];
    for (let i = 0; i < width * height; i++) {
      const [r, g, b, a] = [
        data[4 * i] as number,
        data[4 * i + 1] as number,
        data[4 * i + 2] as number,
        data[4 * i + 3] as number,
      ];
      if (Math.abs(r - 0x2f) + Math.abs(g - 0x7d) + Math.abs(b - 0x4f) > 12 || a < 200) continue;
      x += i % width;
      y += Math.floor(i / width);
      n++;
    }
    const scale = canvas.width / canvas.clientWidth;
    return { x: x / n / scale, y: y / n / scale };
  });
  await chart.click({ position: at });
  await computed(page);
  await expect(proposed).toHaveAttribute('aria-pressed', 'true');
  const tool = (await document(page, id)).parts[0]?.steps.find((s) => s.kind === 'hatch')?.tool;
  expect(tool?.tip).toBeLessThan(2.5);
  await expect(sheet(page).getByText(/does not fit there/)).toHaveCount(0);

  // A list of their own: one more tool is tried along with the others.
  await panel(page).getByRole('button', { name: 'Change the list of tools' }).click();
  await panel(page).getByRole('button', { name: 'Add a tool' }).click();
  await expect(tools).toHaveCount(8);
  expect((await document(page, id)).tools).toHaveLength(8);
});

test('a long filling shows how far it is, and is stopped', async ({ page }) => {
  const made = await page.request.post('/api/jobs', { data: { document: SIGN, extras: null } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/jobs/${id}`);
  await station(page, 'Fill').click();
  await computed(page);
  await expect(panel(page).getByText(/lines in .* runs/)).toBeVisible();
  await panel(page).getByLabel('Slide the direction').fill('40');
  const foot = page.getByRole('contentinfo');
  await expect(foot.getByText(/^Computing … \d+ %/)).toBeVisible();
  // Where the work is, not in a corner.
  const stop = page.getByRole('region', { name: 'Sheet' }).getByRole('button', { name: 'Stop' });
  await stop.click();
  await computed(page);
  await expect(panel(page).getByRole('textbox', { name: 'Direction' })).toHaveValue('30');
  await expect(stop).toHaveCount(0);
  const step = (await document(page, id)).parts[0]?.steps.find((s) => s.kind === 'hatch');
  expect(step).toMatchObject({ angle: 30 });

  // Not stopped, it comes to its end, and nothing is said to be computing then.
  await panel(page).getByLabel('Slide the direction').fill('45');
  await expect(foot.getByText(/^Computing … \d+ %/)).toBeVisible();
  await computed(page);
  await expect(foot.getByText(/^Outlines \d+ closed/)).toBeVisible();
});
