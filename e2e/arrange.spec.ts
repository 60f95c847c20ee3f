import type { Page } from '@playwright/test';
import { addLettering, computed, expect, intoPart, kept, newJob, onScreen, saved, test } from './fixtures';

type Member = {
  kind: string;
  text?: string;
  placement: { x: number; y: number };
  letters?: { at: number; dx: number; dy: number; turn: number; scale: number }[];
  evenLines?: string;
};
/** The members of every part, placed on the sheet; for parts that are neither turned nor mirrored. */
const membersOf = async (page: Page, id: string) =>
  (await kept(page, id)).document.parts.map((p) => {
    const { x, y } = (p as unknown as Member).placement;
    return (p.members as unknown as Member[]).map((m) => ({
      ...m,
      placement: { x: x + m.placement.x, y: y + m.placement.y },
    }));
  });

const addShape = async (page: Page, name: string) => {
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('button', { name, exact: true }).click();
};
const back = (page: Page) => page.getByRole('button', { name: 'Back to the sheet' }).click();

test('on the sheet, on another part, and in the region pointed at', async ({ page }) => {
  const id = await newJob(page, 'Arrange');
  await addShape(page, 'Rectangle');
  await intoPart(page);
  await addShape(page, 'Ellipse');
  await page.getByText('cut out', { exact: true }).click();
  await page.getByLabel('From the left').fill('180');
  await back(page);
  await addShape(page, 'Star');
  await page.getByLabel('Width as cut or drawn').fill('30');
  await page.getByRole('button', { name: 'Left edges' }).click();
  await expect(page.getByLabel('From the left')).toHaveValue('0');
  await page.getByRole('button', { name: 'Top edges' }).click();
  await page.getByLabel('Arrange on').selectOption({ label: 'Rectangle' });
  await page.getByRole('button', { name: 'Centre', exact: true }).click();
  await expect.poll(async () => (await membersOf(page, id))[1]?.[0]?.placement.x).toBeCloseTo(300, 0);

  // Into the hole, wherever in it is pointed at.
  await computed(page);
  await page.getByRole('button', { name: 'Centre where I point' }).click();
  const inHole = await onScreen(page, 200, 215);
  await page.mouse.click(inHole.x, inHole.y);
  const hole = async () => (await membersOf(page, id))[0]?.[1]?.placement.x ?? 0;
  await expect
    .poll(async () => Math.abs(((await membersOf(page, id))[1]?.[0]?.placement.x ?? 0) - (await hole())))
    .toBeLessThan(1);

  await page.getByLabel('Factor').fill('2');
  await page.getByRole('button', { name: 'Size now' }).click();
  await expect(page.getByLabel('Width as cut or drawn')).toHaveValue('60');
});

test('several parts: chosen with Shift, levelled, spaced, moved and made one', async ({ page }) => {
  const id = await newJob(page, 'Several');
  const words = ['One', 'Two', 'Six'];
  for (const [i, word] of words.entries()) {
    if (i > 0) await back(page);
    await addLettering(page, word);
    await page.getByLabel('Capital height').fill('20');
    await page.getByLabel('From the left').fill(String([20, 60 + 40 * i, 400][i]));
    await page.getByLabel('From the bottom').fill(String(100 + 13 * i));
  }
  const list = page.getByRole('list', { name: 'Parts' });
  await list.getByRole('button', { name: /^One/ }).click();
  for (const word of ['Two', 'Six'])
    await list.getByRole('button', { name: new RegExp(`^${word}`) }).click({ modifiers: ['Shift'] });
  await expect(page.getByText('3 parts', { exact: true })).toBeVisible();
  const ys = async () => (await membersOf(page, id)).map((m) => m[0]?.placement.y ?? 0);
  await page.getByRole('button', { name: 'Level baselines' }).click();
  await expect.poll(async () => new Set((await ys()).map((y) => y.toFixed(2))).size).toBe(1);
  await page.getByRole('button', { name: 'Equal gaps', exact: true }).click();
  await page.locator('[data-sheet]').focus();
  const before = (await ys())[0] as number;
  await page.keyboard.press('ArrowUp');
  await expect.poll(async () => (await ys()).every((y) => Math.abs(y - before - 1) < 0.01)).toBe(true);
  await page.getByRole('button', { name: 'Make one part of them' }).click();
  await expect.poll(async () => (await membersOf(page, id)).map((m) => m.length)).toEqual([3]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await membersOf(page, id)).length).toBe(3);
});

test('snapping says what to', async ({ page }) => {
  await newJob(page, 'Snap');
  await addShape(page, 'Heart');
  await page.getByLabel('From the left').fill('60');
  await computed(page);
  const heart = await page.locator('[data-member^="heart"]').boundingBox();
  if (!heart) throw new Error('no heart');
  const [x, y] = [heart.x + heart.width / 2, heart.y + heart.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  const centre = await onScreen(page, 300, 0);
  await page.mouse.move(x + 20, y, { steps: 3 });
  await page.mouse.move(centre.x + 3, y, { steps: 6 });
  await expect(page.getByText('Middle on the middle of the sheet').first()).toBeVisible();
  await page.mouse.up();
  await expect(page.getByText('Middle on the middle of the sheet')).toBeHidden();
});

test('letters one by one keep their changes through other words, sizes and undo', async ({ page }) => {
  const id = await newJob(page, 'Letters');
  await addLettering(page, 'Oak');
  await page.getByRole('button', { name: /^Letters one by one/ }).click();
  await computed(page);
  await page.locator('[data-letter="1"]').click();
  await page.getByLabel('Turn').first().fill('15');
  await page.getByLabel('Size', { exact: true }).fill('130');
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('ArrowUp');
  const letters = async () => (await membersOf(page, id))[0]?.[0]?.letters ?? [];
  await expect.poll(async () => (await letters())[0]).toMatchObject({ at: 1, turn: 15, scale: 1.3 });
  expect((await letters())[0]?.dy).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('The Oak');
  await expect.poll(async () => (await letters())[0]?.at).toBe(5);
  await page.getByLabel('Capital height').fill('33');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await saved(page);
  await expect.poll(async () => (await letters())[0]?.at).toBe(1);
});

test('two lines of one width, by spacing, size or both', async ({ page }) => {
  const id = await newJob(page, 'Even');
  await addLettering(page, 'Oak\nWillow');
  for (const way of ['spacing', 'size', 'both']) {
    await page.getByRole('group', { name: 'Equal widths' }).getByText(way, { exact: true }).click();
    await expect.poll(async () => (await membersOf(page, id))[0]?.[0]?.evenLines).toBe(way);
  }
});

test('a part for reference: pale, placed by, and not in the file', async ({ page }) => {
  await newJob(page, 'Reference');
  await addShape(page, 'Rectangle');
  await page.getByLabel('For reference only').check();
  await expect(page.locator('[data-reference=true]')).toHaveCount(1);
  await expect(page.getByRole('list', { name: 'Parts' })).toContainText('for reference');
  await back(page);
  await addLettering(page, 'I');
  await page.getByLabel('Arrange on').selectOption({ label: 'Rectangle' });
  await page.getByRole('button', { name: 'Centre', exact: true }).click();
  await expect(page.getByText('Nothing to look at.', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Export' }).click();
  const figures = page.getByRole('complementary', { name: 'Station Prove' });
  await expect(figures.getByRole('row', { name: /Size of the work/ })).toContainText(/work\d\d(\.\d+)? mm × 60 mm$/);
});
