import type { Page } from '@playwright/test';
import { addLettering, chooseFace, computed, expect, kept, newJob, saved, showEach, station, test } from './fixtures';

type Steps = {
  kind: string;
  on?: boolean;
  by?: number;
  answers?: { piece: string; how: string; x: number | null; turn: number | null }[];
}[];
type StoredPart = {
  id: string;
  steps: Steps;
  work: { what: string; operation: string }[];
  along: string | null;
  members: {
    kind: string;
    size: { mm: number };
    closeUp: { overlap: number; pairs: object[] } | null;
    follows?: boolean;
  }[];
};

const partsOf = async (page: Page, id: string) => (await kept(page, id)).document.parts as unknown as StoredPart[];
const stepOf = (part: StoredPart | undefined, kind: string) => part?.steps.find((s) => s.kind === kind);

test('a word becomes one piece: closed up, tied, and still words', async ({ page }) => {
  const id = await newJob(page, 'Name to hang');
  await addLettering(page, 'Fig jam');
  await chooseFace(page, 'Poppins');
  await station(page, 'Hold').click();
  const panel = page.getByRole('complementary', { name: 'Station Hold' });
  await expect(panel.getByText(/\d+ pieces/)).toBeVisible();

  await panel.getByLabel('Close letters up').check();
  await panel.getByText('overlap', { exact: true }).click();
  await expect(panel.getByText(/moved, by up to/)).toBeVisible();
  await panel.getByLabel('Tie what is loose').check();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
  await expect(page.getByText('Nothing to look at.', { exact: true })).toBeVisible();

  // The words change, and everything is prepared again.
  await station(page, 'Compose').click();
  await page.getByRole('textbox', { name: 'Words' }).fill('Zoë & Íris');
  await station(page, 'Hold').click();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();

  // Left as a piece of its own: kept, and no finding.
  const dots = panel.getByLabel(/What holds a dot of ë/i).first();
  await dots.selectOption('leave');
  await expect(panel.getByText('2 pieces')).toBeVisible();
  await expect(page.getByText('Nothing to look at.', { exact: true })).toBeVisible();
  await dots.selectOption('move');
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
  await dots.selectOption('grow');
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
  await dots.selectOption('tie');
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();

  // A bar instead: under the words, then through them.
  await panel.getByLabel('Tie what is loose').uncheck();
  await panel.getByLabel('Bar along the words').check();
  await panel.getByText('through', { exact: true }).click();
  await panel.getByLabel('Beyond the ends').fill('5');
  await saved(page);
  await expect
    .poll(async () => stepOf((await partsOf(page, id))[0], 'bar'))
    .toMatchObject({ at: 'through', beyond: 5 });
  expect((await partsOf(page, id))[0]?.members[0]?.closeUp?.overlap).toBeGreaterThan(0);
});

test('what a bar holds already is said, and only the rest is offered', async ({ page }) => {
  await newJob(page, 'On a bar');
  await addLettering(page, 'Jim Fig');
  await chooseFace(page, 'Poppins');
  await station(page, 'Hold').click();
  const panel = page.getByRole('complementary', { name: 'Station Hold' });
  await expect(panel.getByLabel('Close letters up')).toBeVisible();
  await panel.getByLabel('Bar along the words').check();
  await expect(
    panel.getByText('The bar holds all but the dot of the first i and the dot of the second i.'),
  ).toBeVisible();
  await expect(panel.getByLabel('Close letters up')).toBeHidden();
  await panel.getByLabel('Tie what is loose').check();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
  await panel.getByLabel('Tie what is loose').uncheck();
  await page.getByRole('button', { name: 'Join letters all the same' }).click();
  await panel.getByLabel('Close letters up').check();
  await expect(panel.getByText(/moved, by up to|overlap enough/)).toBeVisible();
  // Letters that hang together as they are need nothing.
  await newJob(page, 'A script');
  await addLettering(page, 'Greenhouse');
  await chooseFace(page, 'Pacifico');
  await station(page, 'Hold').click();
  await expect(panel.getByText('All 10 letters hang together as they are.')).toBeVisible();
  await expect(panel.getByLabel('Close letters up')).toBeHidden();
});

test('a name is one piece that reads at one press; a pair is joined otherwise, and as before', async ({ page }) => {
  const id = await newJob(page, 'Name that reads');
  await addLettering(page, 'lilli & Zoë');
  await chooseFace(page, 'Poppins');
  await station(page, 'Hold').click();
  const panel = page.getByRole('complementary', { name: 'Station Hold' });
  await panel.getByLabel('Close letters up').check();
  await panel.getByLabel('Over spaces too').check();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
  await expect(page.getByText('Nothing to look at.', { exact: true })).toBeVisible();

  // Pairs that are alike stand together; one of them can be joined by itself.
  const joints = panel.getByRole('list', { name: 'Joints' });
  await expect(joints.getByText('li', { exact: true })).toBeVisible();
  await panel.getByRole('button', { name: '2 times' }).click();
  await panel.getByLabel('Join l and i at 5').selectOption('tie');
  await computed(page);
  await saved(page);
  const pairs = async () => (await partsOf(page, id))[0]?.members[0]?.closeUp?.pairs;
  await expect.poll(pairs).toEqual([{ left: 'l', right: 'i', at: 4, how: 'tie' }]);
  await expect(joints.getByText(/^tie/).first()).toBeVisible();
  await panel.getByLabel('Join l and i', { exact: true }).selectOption('apart');
  await expect(panel.getByText(/\d pieces/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
  await expect.poll(pairs).toHaveLength(1);
  await saved(page);
  await page.reload();
  await station(page, 'Hold').click();
  await expect(panel.getByText('It comes off as one piece.')).toBeVisible();
});

test('a tie is dragged and turned by hand, and found anew', async ({ page }) => {
  const id = await newJob(page, 'Ties');
  await addLettering(page, 'i');
  await chooseFace(page, 'Poppins');
  await page.getByLabel('Capital height').fill('120');
  await station(page, 'Hold').click();
  await page.getByLabel('Tie what is loose').check();
  const tie = page.locator('[data-tie]');
  await expect(tie).toHaveCount(1);
  await expect(page.getByText('It comes off as one piece.')).toBeVisible();
  await computed(page);
  const box = await tie.boundingBox();
  if (!box) throw new Error('no tie');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 6, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  const answer = async () => stepOf((await partsOf(page, id))[0], 'tie')?.answers?.[0];
  await expect.poll(async () => (await answer())?.x).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Placed by hand; find the best place again' }).click();
  await expect.poll(answer).toBeUndefined();
});

test('strength: too thin is found, shown, and mended in one press', async ({ page }) => {
  const id = await newJob(page, 'Strength');
  await page.getByLabel('Material').fill('Birch plywood');
  await expect(page.getByLabel('Kerf')).toHaveValue('0.2');
  await page.getByLabel('Thickness').fill('4');
  await expect(page.getByLabel('Least safe width')).toHaveValue('2');
  await addLettering(page, 'lo');
  await chooseFace(page, 'Libre Baskerville');
  await page.getByLabel('Capital height').fill('20');
  await station(page, 'Hold').click();
  const panel = page.getByRole('complementary', { name: 'Station Hold' });
  await panel.getByLabel('Close letters up').check();
  await showEach(page);
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText(
    /Stroke of [lo] is [\d.]+ mm wide here, [\d.]+ mm of it stays when it is cut; 2 mm is the least for Birch plywood 4 mm/,
  );
  await expect(panel.getByText(/^Narrowest/)).toBeVisible();

  await panel.getByRole('button', { name: 'Thicken just enough' }).click();
  await expect(panel.getByText('Nothing is thinner than 2 mm.')).toBeVisible();
  await expect.poll(async () => stepOf((await partsOf(page, id))[0], 'thicken')?.by).toBeGreaterThan(0.1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(panel.getByText(/^Narrowest/)).toBeVisible();

  await panel.getByRole('button', { name: 'Least safe size' }).click();
  await expect(panel.getByText('Nothing is thinner than 2 mm.')).toBeVisible();
  await expect.poll(async () => (await partsOf(page, id))[0]?.members[0]?.size.mm).toBeGreaterThan(21);
});

test('thickening by the slider; holes are kept open and said so', async ({ page }) => {
  const id = await newJob(page, 'Thick');
  await addLettering(page, 'Boa');
  await page.getByLabel('Capital height').fill('20');
  await station(page, 'Hold').click();
  const panel = page.getByRole('complementary', { name: 'Station Hold' });
  await panel.getByLabel('Thicken or thin').check();
  await panel.getByRole('slider', { name: 'Thicken by' }).focus();
  await page.keyboard.press('End');
  await expect.poll(async () => stepOf((await partsOf(page, id))[0], 'thicken')?.by).toBe(4);
  await panel.getByText('pointed', { exact: true }).click();
  // Holes are kept open unless they may close; what closes is named by its letter.
  await expect(panel.getByLabel('Keep holes open')).toBeChecked();
  await panel.getByLabel('At least').fill('1.2');
  await showEach(page);
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText(/hole of [Boa] is kept 1\.2\d* mm open/);
  await panel.getByLabel('Keep holes open').uncheck();
  await showEach(page);
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText(/The hole of [Boa] closes/);
});

test('a border goes along with the words; engraved on it or glued on is one choice', async ({ page }) => {
  const id = await newJob(page, 'Backing');
  await addLettering(page, 'Oak');
  await page.getByRole('button', { name: 'A backing' }).click();
  await expect(page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /^Border of Oak/ })).toBeVisible();
  await expect
    .poll(async () => (await partsOf(page, id))[0]?.work)
    .toEqual([{ what: 'fill', operation: 'engrave', only: null }]);
  await page.getByLabel('Distance', { exact: true }).fill('8');
  await page.getByText('an envelope', { exact: true }).click();
  await expect
    .poll(async () => stepOf((await partsOf(page, id))[1], 'border'))
    .toMatchObject({ distance: 8, envelope: true });
  await page.getByText('glued on', { exact: true }).click();
  await expect
    .poll(async () => (await partsOf(page, id))[0]?.work)
    .toEqual([{ what: 'outline', operation: 'cut', only: null }]);
  expect((await partsOf(page, id))[1]?.along).toBeNull();
  // Other words, another border.
  const size = page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /^Border of Oak/ });
  const before = await size.textContent();
  await page.getByRole('list', { name: 'Parts' }).getByRole('button', { name: /^Oak/ }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('Oakleaves');
  await expect.poll(() => size.textContent()).not.toBe(before);
});

test('as cut: what stays, what falls, and back while a key is held', async ({ page }) => {
  await newJob(page, 'Cut');
  await addLettering(page, 'BO');
  await station(page, 'Hold').click();
  await page.getByText('the stock', { exact: true }).click();
  await page.getByText('As cut', { exact: true }).click();
  await expect(page.locator('[data-piece="main"]')).toHaveCount(1);
  await expect(page.locator('[data-piece="island"]')).toHaveCount(3);
  await page.locator('[data-sheet]').focus();
  await page.keyboard.down('v');
  await expect(page.locator('[data-piece]')).toHaveCount(0);
  await page.keyboard.up('v');
  await expect(page.locator('[data-piece="main"]')).toHaveCount(1);
});
