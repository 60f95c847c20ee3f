import {
  addLettering,
  chooseFace,
  computed,
  expect,
  intoPart,
  kept,
  moveUp,
  newJob,
  onScreen,
  saved,
  station,
  stored,
  test,
} from './fixtures';
import { reached } from './reached';

const figures = (page: import('@playwright/test').Page) => page.getByRole('contentinfo');

test('undo and redo reach back to the start', async ({ page }) => {
  await newJob(page, 'Back and forth');
  await addLettering(page, 'One');
  await page.getByLabel('Capital height').fill('30');
  await page.getByLabel('Capital height').blur();
  await page.getByText('left', { exact: true }).click();
  const undo = page.getByRole('button', { name: 'Undo' });
  while (await undo.isEnabled()) await undo.click();
  await expect(page.getByText('An empty sheet. What shall it say?')).toBeVisible();
  const redo = page.getByRole('button', { name: 'Redo' });
  while (await redo.isEnabled()) await redo.click();
  await expect(page.getByRole('button', { name: /^One [0-9]/ })).toBeVisible();
});

test('keys: stations, nudge, duplicate, remove, undo, list of keys', async ({ page }) => {
  await newJob(page, 'Keys');
  await addLettering(page, 'Key');
  await expect(figures(page)).toContainText('segments');
  const sheet = page.locator('[data-sheet]');
  await page.keyboard.press('Escape');
  await sheet.focus();
  const x = page.getByLabel('From the left');
  await expect(x).toBeVisible();
  const before = Number(await x.inputValue());
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Alt+ArrowLeft');
  await expect.poll(async () => Number(await x.inputValue()) - before).toBeCloseTo(10.9, 5);
  await page.keyboard.press('d');
  await expect(
    page.getByRole('complementary', { name: 'Job sheet' }).getByRole('button', { name: /^Key/ }),
  ).toHaveCount(2);
  await page.keyboard.press('Delete');
  await expect(
    page.getByRole('complementary', { name: 'Job sheet' }).getByRole('button', { name: /^Key/ }),
  ).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(
    page.getByRole('complementary', { name: 'Job sheet' }).getByRole('button', { name: /^Key/ }),
  ).toHaveCount(2);
  await page.keyboard.press('3');
  await expect(page.getByRole('heading', { name: 'Hold', level: 1 })).toBeVisible();
  await page.keyboard.press('e');
  await expect(page.getByRole('heading', { name: 'Prove', level: 1 })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Help' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Help' })).toBeHidden();
});

test('drag, size and turn on the sheet; exact numbers beside it', async ({ page }) => {
  await newJob(page, 'By hand');
  await addLettering(page, 'HHH');
  const letters = page.locator('[data-member]');
  await expect(letters).toHaveAttribute('d', /^M/);
  const w = page.getByLabel('Width as cut or drawn');
  const x = page.getByLabel('From the left');
  const size = async () => Number(await w.inputValue());
  const from = { x: Number(await x.inputValue()), w: await size() };

  // The stem of the first H.
  const stem = await onScreen(page, from.x + 6, Number(await page.getByLabel('From the bottom').inputValue()) + 20);
  await page.mouse.move(stem.x, stem.y);
  await page.mouse.down();
  await page.mouse.move(stem.x + 50, stem.y - 20, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => Number(await x.inputValue())).toBeGreaterThan(from.x + 5);
  await computed(page);
  expect(await size()).toBeCloseTo(from.w, 1);

  const corner = page.locator('[data-grab=size]').nth(2);
  const at = await corner.boundingBox();
  if (!at) throw new Error('no handle');
  await page.mouse.move(at.x + 4, at.y + 4);
  await page.mouse.down();
  await page.mouse.move(at.x + 50, at.y - 10, { steps: 5 });
  await page.mouse.up();
  await expect.poll(size).toBeGreaterThan(from.w * 1.05);
  await computed(page);

  const handle = await page.locator('[data-grab=turn]').boundingBox();
  if (!handle) throw new Error('no handle');
  await page.mouse.move(handle.x + 6, handle.y + 6);
  await page.mouse.down();
  await page.keyboard.down('Shift');
  await page.mouse.move(handle.x + 120, handle.y + 60, { steps: 6 });
  await page.mouse.up();
  await page.keyboard.up('Shift');
  const turn = Number(await page.getByLabel('Turn', { exact: true }).inputValue());
  expect(turn).not.toBe(0);
  expect(Math.abs(turn % 15)).toBeLessThan(1e-6);

  // Every drag is one step of undo.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Turn', { exact: true })).toHaveValue('0');

  // A value stepped to, or come while the field is in hand, is typed over and not behind.
  await computed(page);
  await w.focus();
  const undone = await size();
  await page.keyboard.press('ArrowUp');
  await expect.poll(size).toBeGreaterThan(undone + 0.9);
  await page.keyboard.type('120');
  await w.blur();
  await expect(figures(page)).toContainText('Selected 120 ×');
  await x.fill('1 in');
  await expect(x).toHaveValue('1 in');
  await x.blur();
  await expect(x).toHaveValue('25.4');
});

test('zoom, fit, and a double click on the letters', async ({ page }) => {
  await newJob(page, 'Looking');
  await addLettering(page, 'HHH');
  const letters = page.locator('[data-member]');
  await expect(letters).toHaveAttribute('d', /^M/);
  const at = () => onScreen(page, 0, 0);
  const fitted = await at();
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await expect.poll(async () => (await at()).x).not.toBeCloseTo(fitted.x, 0);
  await page.getByRole('button', { name: 'Fit' }).click();
  await expect.poll(async () => (await at()).x).toBeCloseTo(fitted.x, 3);
  // Fitted, it stays so in a window of another size.
  await page.setViewportSize({ width: 1500, height: 800 });
  await expect.poll(async () => (await at()).x).toBeGreaterThan(fitted.x + 5);
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect.poll(async () => (await at()).x).toBeCloseTo(fitted.x, 3);

  // A drag with the space bar held pans; the wheel zooms at the pointer.
  const empty = await onScreen(page, 20, 20);
  await page.locator('[data-sheet]').focus();
  await page.mouse.move(empty.x, empty.y);
  await page.keyboard.down('Space');
  await page.mouse.down();
  await page.mouse.move(empty.x + 40, empty.y - 30, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.up('Space');
  await expect.poll(async () => (await at()).x - fitted.x).toBeCloseTo(40, 3);
  const under = await onScreen(page, 100, 100);
  await page.mouse.move(under.x, under.y);
  await page.mouse.wheel(0, -300);
  await expect.poll(async () => (await onScreen(page, 0, 0)).x).toBeLessThan(fitted.x);
  // The mouse stands on whole pixels.
  expect(Math.abs((await onScreen(page, 100, 100)).x - under.x)).toBeLessThan(1);
  await page.keyboard.press('f');

  await station(page, 'Hold').click();
  const x = 300;
  const stem = await onScreen(page, x, 230);
  await page.mouse.dblclick(stem.x, stem.y);
  await expect(page.getByRole('textbox', { name: 'Words' })).toBeFocused();
});

test('a number that can’t be read is said so, and the old value stays', async ({ page }) => {
  const id = await newJob(page, 'Numbers');
  const width = page.getByLabel('Width', { exact: true });
  await width.fill('twelve');
  await expect(page.getByRole('alert').filter({ hasText: 'is not a number' })).toBeVisible();
  await width.fill('0');
  await expect(page.getByRole('alert').filter({ hasText: 'Between 1 mm and 20000 mm.' })).toBeVisible();
  expect((await kept(page, id)).document.sheet).toMatchObject({ width: 600 });
  await width.press('Escape');
  await expect(width).toHaveValue('600');
});

test('operations: order, alone, off, colour', async ({ page }) => {
  const id = await newJob(page, 'Operations');
  await addLettering(page, 'Ops');
  await station(page, 'Assign').click();
  await moveUp(page, page.getByRole('button', { name: 'Move Cut', exact: true }));
  await saved(page);
  await expect
    .poll(async () => ((await stored(page, id)).document.operations as { id: string }[]).map((o) => o.id).join())
    .toBe('engrave,mark,cut,score');
  await page.getByLabel('Inside of Ops').selectOption('score');
  await expect(page.getByText(/Cut runs before Score/)).toBeVisible();
  await page.getByRole('button', { name: 'Look at Score alone' }).click();
  await expect(page.getByRole('button', { name: /Only Score/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /Only Score/ })).toBeHidden();
  await page.getByLabel('Score is on').uncheck();
  await page.getByLabel('Colour of Cut in files').fill('#ff0000');
  await page.getByRole('button', { name: 'Follow the colour key' }).click();
  await page.getByRole('button', { name: '+ cut', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Move Cut 2', exact: true })).toBeVisible();
  await saved(page);
  await expect
    .poll(async () => {
      const operations = (await stored(page, id)).document.operations as { id: string; colour: string | null }[];
      const own = operations.find((o) => o.id === 'operation-1')?.colour;
      return [operations.map((o) => o.id).join(), /^#[0-9A-F]{6}$/.test(own ?? '')];
    })
    .toEqual(['engrave,mark,cut,operation-1,score', true]);
  await page.getByRole('button', { name: 'Remove Cut 2', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Move Cut 2', exact: true })).toBeHidden();
});

test('a finding can be shown, left with a reason, and taken up again', async ({ page }) => {
  const id = await newJob(page, 'Findings');
  await addLettering(page, 'i');
  const findings = page.getByRole('list', { name: 'Findings' });
  // Asked once whether it is to hang together; then what does not is found.
  await expect(findings).toContainText('“i” comes off in 2 pieces. Is it to hang together?');
  await findings.getByRole('button', { name: 'Yes', exact: true }).click();
  await expect(findings).toContainText('The dot of i is not attached.');
  await findings.getByRole('button', { name: 'Show' }).click();
  await findings.getByRole('button', { name: 'Leave as it is' }).click();
  await page.getByLabel(/Why it may stay/).fill('glued to a board');
  await findings.getByRole('button', { name: 'Leave as it is' }).click();
  await expect(findings).toContainText('Left: glued to a board');
  expect((await kept(page, id)).document.leftAsIs).toHaveLength(1);
  await findings.getByRole('button', { name: 'Take up again' }).click();
  await expect(findings.getByRole('button', { name: 'Leave as it is' })).toBeVisible();
});

test('characters a face lacks, and far too many of them', async ({ page }) => {
  const id = await newJob(page, 'Characters');
  await addLettering(page, 'Grüße 漢字');
  await expect(page.getByText('Archivo Black has no 漢 字; they are left out.')).toBeVisible();
  const long = 'many words '.repeat(910);
  await page.getByRole('textbox', { name: 'Words' }).fill(long);
  await expect(page.getByText(/This lettering has 10,010 characters; up to 5,000/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue(long);
  expect((await kept(page, id)).document.parts[0]?.members[0]?.text).toBe(long);
  await page.getByRole('textbox', { name: 'Words' }).fill('');
  await expect(page.getByText('has lettering without words')).toBeVisible();
});

test.describe('with requests that must fail', () => {
  test.use({ expectedErrors: /40[49]|Failed to load resource/ });

  test('two windows: the later is told, and both versions live on', async ({ page, context }) => {
    const id = await newJob(page, 'Twice open');
    await addLettering(page, 'Mine');
    await saved(page);
    const other = await context.newPage();
    await other.goto(`/jobs/${id}`);
    await other.getByRole('textbox', { name: 'Name of the job' }).fill('Theirs');
    await saved(other);
    await expect.poll(async () => (await stored(page, id)).document.title).toBe('Theirs');
    await page.getByRole('textbox', { name: 'Words' }).fill('Mine too');
    const dialog = page.getByRole('dialog', { name: /changed in another window/ });
    await expect(dialog).toBeVisible();
    await reached(page, 'changed elsewhere');
    await dialog.getByRole('button', { name: 'Keep mine as a copy' }).click();
    await page.waitForURL((url) => !url.pathname.includes(id));
    await expect(page.getByRole('textbox', { name: 'Name of the job' })).toHaveValue('Twice open (my version)');
    expect((await stored(page, id)).document.title).toBe('Theirs');
    const mine = page.url().replace(/.*\/jobs\/([0-9a-f-]+).*/, '$1');
    expect((await stored(page, mine)).document.parts[0]?.members[0]?.text).toBe('Mine too');
  });

  test('going on with mine keeps theirs as an earlier version', async ({ page, context }) => {
    const id = await newJob(page, 'Mine wins');
    await addLettering(page, 'A');
    await saved(page);
    const other = await context.newPage();
    await other.goto(`/jobs/${id}`);
    await other.getByRole('textbox', { name: 'Name of the job' }).fill('Theirs');
    await saved(other);
    await expect.poll(async () => (await stored(page, id)).document.title).toBe('Theirs');
    await page.getByRole('textbox', { name: 'Words' }).fill('AB');
    await page.getByRole('button', { name: 'Go on with mine' }).click();
    expect((await kept(page, id)).document.title).toBe('Mine wins');
  });

  test('a job that is not there', async ({ page }) => {
    await page.goto('/jobs/00000000-0000-4000-8000-000000000000');
    await expect(page.getByText('There is no such job.')).toBeVisible();
  });

  test('a typeface that will not load: the words are kept and a sentence says so', async ({ page }) => {
    await page.route('**/typefaces/pacifico.ttf', (route) => route.abort());
    await newJob(page, 'Face');
    await addLettering(page, 'Lane');
    await chooseFace(page, 'Pacifico');
    await expect(page.getByText(/The typeface Pacifico can’t be used/)).toBeVisible();
    await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('Lane');
  });
});

test('every shape can be added, measured and changed', async ({ page }) => {
  const id = await newJob(page, 'Shapes');
  const kinds = ['Rectangle', 'Ellipse', 'Bar', 'Spike', 'Polygon', 'Star', 'Heart'];
  for (const kind of kinds) {
    await page.getByRole('button', { name: 'Shape', exact: true }).click();
    await page.getByRole('button', { name: kind, exact: true }).click();
    await expect(page.getByRole('heading', { name: kind })).toBeVisible();
    await page.keyboard.press('Escape');
  }
  const sheet = page.getByRole('complementary', { name: 'Job sheet' });
  await sheet.getByRole('button', { name: /^Polygon/ }).click();
  await page.getByLabel('Sides').fill('8');
  await page.getByLabel('Across corners').fill('4in');
  await sheet.getByRole('button', { name: /^Bar/ }).click();
  await page.getByText('square', { exact: true }).click();
  const document = (await kept(page, id)).document as unknown as { parts: { members: object[] }[] };
  expect(document.parts.map((p) => p.members[0])).toEqual(
    expect.arrayContaining([
      expect.objectContaining({ kind: 'polygon', sides: 8, width: 101.6 }),
      expect.objectContaining({ kind: 'bar', ends: 'square' }),
    ]),
  );
  await expect(figures(page)).toContainText('Outlines 7 closed, 0 open');
});

test('parts: in order, locked, split and put together', async ({ page }) => {
  const id = await newJob(page, 'Parts');
  await addLettering(page, 'One');
  await intoPart(page);
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('button', { name: 'Bar', exact: true }).click();
  await expect(figures(page)).toContainText(/Outlines [1-9]/);
  const list = page.getByRole('complementary', { name: 'Job sheet' });
  const parts = async () =>
    ((await kept(page, id)).document.parts as unknown as { members: { kind: string }[] }[]).map((p) =>
      p.members.map((m) => m.kind).join('+'),
    );

  // Members in order, with the keyboard.
  const members = page.getByRole('list', { name: 'Members' });
  await moveUp(page, members.getByRole('button', { name: 'Move Bar', exact: true }));
  await expect.poll(parts).toEqual(['bar+lettering']);

  await list.getByRole('button', { name: 'Split', exact: true }).click();
  await expect.poll(parts).toEqual(['bar', 'lettering']);
  await moveUp(page, list.getByRole('button', { name: 'Move One', exact: true }));
  await expect.poll(parts).toEqual(['lettering', 'bar']);
  await list.getByRole('button', { name: /^One/ }).click();
  await list.getByRole('button', { name: /^Make one part of One and Bar/ }).click();
  await expect.poll(parts).toEqual(['lettering+bar']);

  // Locked: neither keys nor the pointer move it, and it is not removed.
  await list.getByRole('button', { name: 'Lock', exact: true }).click();
  await expect(page.getByText('is locked: it is not moved')).toBeVisible();
  const before = (await kept(page, id)).document;
  await page.locator('[data-sheet]').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Delete');
  const at = await onScreen(page, 300, 200);
  await page.mouse.move(at.x, at.y);
  await page.mouse.down();
  await page.mouse.move(at.x + 30, at.y, { steps: 4 });
  await page.mouse.up();
  // What is changed next is all that has changed.
  await page.getByRole('textbox', { name: 'Name of the job' }).fill('Locked');
  await expect.poll(async () => (await stored(page, id)).document.title).toBe('Locked');
  expect((await kept(page, id)).document).toEqual({ ...before, title: 'Locked' });
  await page.getByRole('complementary', { name: 'Station Compose' }).getByRole('button', { name: 'Unlock' }).click();
  await members.getByRole('button', { name: /^One/ }).click();
  await expect(page.getByRole('textbox', { name: 'Words' })).toBeEditable();
});

test('a live copy follows the words it copies', async ({ page }) => {
  await newJob(page, 'Copies');
  await addLettering(page, 'OO');
  await expect(figures(page)).toContainText('Outlines 4 closed');
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('button', { name: 'OO', exact: true }).click();
  await expect(figures(page)).toContainText('Outlines 8 closed');
  await page.getByLabel('Scale', { exact: true }).fill('50');
  const list = page.getByRole('complementary', { name: 'Job sheet' });
  await list.getByRole('button', { name: /^OO/ }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('OOO');
  await expect(figures(page)).toContainText('Outlines 12 closed');
  await list.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByText('is no longer there.')).toBeVisible();
});
