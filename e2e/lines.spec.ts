/** A pen's work from end to end: a script word down its middle, a joint mended, dots, a number in a one-line face, the file. */
import { readFileSync } from 'node:fs';
import { readDrawing } from '../src/core/formats/read';
import { addLettering, chooseFace, computed, expect, kept, newJob, onScreen, station, test } from './fixtures';

type Kept = {
  parts: {
    id: string;
    name: string;
    steps: { kind: string; corrections?: unknown[]; changes?: { dx: number | null }[] }[];
    work: { what: string; operation: string }[];
  }[];
};

test('a word down its middle, a joint mended, dots, a part number, and the file', async ({ page }) => {
  const id = await newJob(page, 'Pen work');
  await addLettering(page, 'Aller');
  await chooseFace(page, 'Pacifico');
  await computed(page);
  const part = async (nth: number) => ((await kept(page, id)).document as unknown as Kept).parts[nth];

  await station(page, 'Fill').click();
  await page.getByLabel('A line down the middle of each stroke').click();
  await computed(page);
  expect((await part(0))?.work).toEqual([{ what: 'centerline', operation: 'mark', only: null }]);
  await expect(page.getByText(/\d+ lines · \d+ segments/)).toBeVisible();

  // One joint mended: the letter comes with its nodes, a line is dropped, and every such letter takes it.
  const drawn = page.locator('[data-lines] path');
  const before = await drawn.getAttribute('d');
  await page.getByRole('button', { name: 'Mend a letter' }).click();
  const word = await page.locator('[data-member]').first().boundingBox();
  if (!word) throw new Error('the word is not in sight');
  await page.mouse.click(word.x + word.width * 0.46, word.y + word.height * 0.35);
  await expect(page.getByText('Lines of “l”')).toBeVisible();
  await expect(page.getByText('2 of them')).toBeVisible();
  await expect(page.locator('[data-guide]')).toBeAttached();
  await page.getByRole('button', { name: 'Choose every node' }).click();
  await page.getByRole('button', { name: 'Drop', exact: true }).click();
  await computed(page);
  const dropped = await drawn.getAttribute('d');
  expect((dropped ?? '').length).toBeLessThan((before ?? '').length);
  await page.keyboard.press('Control+z');
  await computed(page);
  await page.getByRole('button', { name: 'Trace it anew' }).click();
  await computed(page);
  expect(await drawn.getAttribute('d')).toBe(before);
  expect((await part(0))?.steps.find((s) => s.kind === 'centerline')?.corrections).toEqual([]);

  // A ring of dots about it, one of them left out, one moved.
  await station(page, 'Compose').click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page
    .getByRole('menuitem', { name: 'Ellipse' })
    .or(page.getByRole('button', { name: 'Ellipse' }))
    .first()
    .click();
  await computed(page);
  await station(page, 'Fill').click();
  await page.getByLabel('Rows of dots').click();
  await page.getByLabel('Outline as well').selectOption({ label: 'nothing' });
  await computed(page);
  const count = async () =>
    Number(
      (
        await page.getByRole('region', { name: 'Dots', exact: true }).locator('p .nf-figure').first().innerText()
      ).replace(/,/g, ''),
    );
  await expect.poll(count).toBeGreaterThan(10);
  const many = await count();
  const shape = (await kept(page, id)).document as unknown as {
    parts: { placement: { x: number; y: number }; members: { width: number }[] }[];
  };
  // A part lies where its only member does.
  const [at, ellipse] = [shape.parts[1]?.placement, shape.parts[1]?.members[0]];
  if (!at || !ellipse) throw new Error('the ellipse is not there');
  // Its dots begin at its right end.
  const right = await onScreen(page, at.x + ellipse.width / 2, at.y);
  await page.mouse.click(right.x, right.y);
  await page.keyboard.press('Delete');
  await computed(page);
  await expect.poll(count).toBe(many - 1);
  const left = await onScreen(page, at.x - ellipse.width / 2, at.y);
  await page.mouse.move(left.x, left.y);
  await page.mouse.down();
  await page.mouse.move(left.x - 20, left.y, { steps: 4 });
  await page.mouse.up();
  await computed(page);
  const changes = (await part(1))?.steps.find((s) => s.kind === 'dots')?.changes ?? [];
  expect(changes.map((c) => c.dx === null)).toEqual([true, false]);

  // A number in a one-line face.
  await station(page, 'Compose').click();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await addLettering(page, 'AL-07');
  // It comes set as the words beside it.
  await chooseFace(page, 'Hershey Sans', 'Pacifico');
  await computed(page);
  await station(page, 'Assign').click();
  await page
    .getByLabel(/^Outline of/)
    .last()
    .selectOption({ label: 'Mark' });
  await computed(page);

  await station(page, 'Prove').click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('complementary', { name: 'Station Prove' }).getByRole('button', { name: /DXF/ }).first().click(),
  ]);
  const read = readDrawing(new Uint8Array(readFileSync(await file.path())));
  if (!read.ok) throw new Error(read.sentence);
  const shapes = read.found.shapes;
  const paths = shapes.flatMap((s) => s.paths);
  // Words are open lines; the only closed ones are the circles of the dots; nothing is filled.
  expect(shapes.every((s) => s.fill === null)).toBe(true);
  expect(paths.filter((p) => p.closed).length).toBe(many - 1);
  expect(paths.filter((p) => !p.closed).length).toBeGreaterThan(8);
});

test('a serif face is read as a sans where its serifs are left out; a face without is not asked', async ({ page }) => {
  const id = await newJob(page, 'Plain pen');
  await addLettering(page, 'Hill');
  await chooseFace(page, 'Libre Baskerville');
  await computed(page);
  await station(page, 'Fill').click();
  await page.getByLabel('A line down the middle of each stroke').click();
  await computed(page);
  const figures = page.getByText(/\d+ lines · \d+ segments/);
  const count = async () => Number((await figures.innerText()).match(/\d+/)?.[0]);
  const drawn = await count();
  const serifs = page.getByRole('group', { name: 'Serifs' }).or(page.getByRole('radiogroup', { name: 'Serifs' }));
  await serifs.getByText('left out', { exact: true }).click();
  await computed(page);
  await expect.poll(count).toBeLessThan(drawn);
  const step = async () =>
    ((await kept(page, id)).document as unknown as Kept).parts[0]?.steps.find((s) => s.kind === 'centerline');
  expect(await step()).toMatchObject({ serifs: 'left' });
  await page.keyboard.press('Control+z');
  await computed(page);
  await expect.poll(count).toBe(drawn);

  await station(page, 'Compose').click();
  await chooseFace(page, 'Poppins', 'Libre Baskerville');
  await computed(page);
  await station(page, 'Fill').click();
  await expect(figures).toBeVisible();
  await expect(serifs).toHaveCount(0);
});
