import { readFileSync } from 'node:fs';
import { addLettering, computed, expect, kept, newJob, saved, test } from './fixtures';

const SERIF = '/usr/share/fonts/truetype/dejavu/DejaVuSerif.ttf';
const SERIF_BOLD = '/usr/share/fonts/truetype/dejavu/DejaVuSerif-Bold.ttf';
const VARIABLE = 'node_modules/@fontsource-variable/caveat/files/caveat-latin-wght-normal.woff2';
const BROKEN = { name: 'broken.ttf', mimeType: 'font/ttf', buffer: readFileSync(SERIF).subarray(0, 4_000) };

/** The list of typefaces. */
const faces = (page: import('@playwright/test').Page) => page.getByRole('listbox', { name: 'Typefaces' });

const memberOf = async (page: import('@playwright/test').Page, id: string) => {
  const job = (await kept(page, id)).document as unknown as {
    parts: { members: Record<string, unknown>[] }[];
  };
  return job.parts[0]?.members[0];
};

test('typefaces are brought in, one of them broken; chosen by words; one in use is taken out and the job goes on', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Typefaces' }).click();
  await expect(faces(page).getByRole('option', { name: /Alfa Slab One/ })).toBeVisible();
  const input = page.getByLabel('Typefaces to bring in');
  await input.setInputFiles([SERIF, SERIF_BOLD]);
  await expect(page.getByText('2 typeface files brought in.')).toBeVisible();
  await input.setInputFiles([BROKEN]);
  await expect(page.getByText('1 could not be brought in.')).toBeVisible();
  await expect(page.getByText(/^broken\.ttf: The typeface file/)).toBeVisible();
  await input.setInputFiles([SERIF]);
  await expect(page.getByText('1 was here already.')).toBeVisible();

  // The two are one family; its words are the user's.
  await page.getByLabel('Your words').fill('Rhubarb');
  await page.getByLabel('Find typefaces').fill('dejavu');
  await expect(faces(page).getByRole('option')).toHaveCount(1);
  await faces(page)
    .getByRole('option', { name: /DejaVu Serif/ })
    .click();
  const detail = page.getByRole('region', { name: 'DejaVu Serif' });
  await expect(detail.getByRole('list', { name: 'Styles' }).getByRole('button')).toHaveCount(2);
  await expect(detail.getByText('Latin, Greek, Cyrillic, Armenian, Georgian')).toBeVisible();
  await detail.getByRole('button', { name: 'Favourite' }).click();
  await detail.getByLabel('Built as').selectOption('serif');
  await page.getByLabel('Find typefaces').fill('');
  await page.getByRole('button', { name: 'favourites' }).click();
  await expect(faces(page).getByRole('option')).toHaveCount(1);
  await expect(faces(page).getByRole('option', { name: 'DejaVu Serif, serif' })).toBeVisible();

  await page.getByRole('button', { name: 'favourites' }).click();

  // What is asked of the words is looked for in every family, and told how far that is.
  const families = page.getByText(/^\d+ famil(y|ies)$/);
  await page.getByLabel('Your words').fill('minimum');
  await page.getByRole('button', { name: 'one piece' }).click();
  await expect(families).toBeVisible();
  await expect(faces(page).getByRole('option', { name: /^Pacifico/ })).toBeHidden();
  await page.getByLabel('Your words').fill('leaf');
  await expect(families).toBeVisible();
  await expect(faces(page).getByRole('option', { name: /^Pacifico/ })).toBeVisible();
  await expect(faces(page).getByRole('option', { name: /^Poppins/ })).toBeHidden();
  await page.getByRole('button', { name: 'no islands' }).click();
  await expect(page.getByText('0 families')).toBeVisible();
  await expect(page.getByText('No typeface fits.')).toBeVisible();

  // On the bench the sheet follows the arrow keys, and what is chosen is named by its content.
  const id = await newJob(page, 'House face');
  await addLettering(page, 'Sow in March');
  await page.getByRole('button', { name: 'Archivo Black', exact: true }).click();
  await expect(page.getByLabel('Find typefaces')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(faces(page).getByRole('option', { selected: true })).not.toHaveAccessibleName(/Archivo/);
  await page.getByLabel('Find typefaces').fill('dejavu serif');
  await faces(page)
    .getByRole('option', { name: /DejaVu Serif/ })
    .click();
  await page.keyboard.press('Enter');
  await expect(faces(page)).toBeHidden();
  await computed(page);
  await page.getByLabel('Style').selectOption('Bold');
  await computed(page);
  await saved(page);
  await expect.poll(async () => (await memberOf(page, id))?.style).toBe('Bold');
  expect(await memberOf(page, id)).toMatchObject({ face: 'DejaVu Serif', weight: 700, number: 0 });
  expect((await memberOf(page, id))?.content).toMatch(/^[0-9a-f]{64}$/);
  await page.getByRole('button', { name: 'CAPITALS' }).click();
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('SOW IN MARCH');

  // It is taken out of the list; the job says so nowhere, since it goes on as it is.
  await page.goto('/typefaces');
  await page.getByLabel('Find typefaces').fill('dejavu');
  await faces(page)
    .getByRole('option', { name: /DejaVu Serif/ })
    .click();
  await detail.getByRole('button', { name: /Bold/ }).click();
  await expect(detail.getByRole('link', { name: 'House face' })).toBeVisible();
  await detail.getByRole('button', { name: 'Take out of the list' }).click();
  await expect(page.getByText('“DejaVuSerif-Bold.ttf” was taken out of the list.')).toBeVisible();
  await expect(detail.getByRole('list', { name: 'Styles' }).getByRole('button')).toHaveCount(1);
  await page.goto(`/jobs/${id}`);
  await computed(page);
  await expect(page.locator('[data-member]').first()).toHaveAttribute('d', /^M/);
});

test('what is in a typeface: features both ways, and another form for one letter', async ({ page }) => {
  const id = await newJob(page, 'Forms');
  await addLettering(page, 'Dahlia bed');
  await page.getByRole('button', { name: 'Archivo Black', exact: true }).click();
  await page.getByLabel('Find typefaces').fill('poppins');
  await faces(page)
    .getByRole('option', { name: /Poppins/ })
    .click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^What is in this typeface/ }).click();
  const set = page.getByRole('region', { name: 'What is in this typeface' });
  await set.getByLabel('Double-storey a').check();
  await expect.poll(async () => (await memberOf(page, id))?.features).toEqual({ ss02: 1 });
  await set.getByRole('button', { name: 'Done' }).click();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await memberOf(page, id))?.features).toEqual({});
  await page.getByRole('button', { name: 'Letters one by one' }).click();
  await page.getByRole('button', { name: 'Letter after' }).click();
  await page.getByRole('button', { name: 'Letter after' }).click();
  const forms = page.getByRole('radiogroup', { name: 'Forms in this typeface' });
  await forms.getByRole('radio').nth(1).click();
  await expect(forms.getByRole('radio').nth(1)).toBeChecked();
  await expect.poll(async () => ((await memberOf(page, id))?.letters as unknown[] | undefined)?.length).toBe(1);
  // It stays with its letter while words change before it.
  await page.getByRole('textbox', { name: 'Words' }).fill('My Dahlia bed');
  await expect
    .poll(async () => ((await memberOf(page, id))?.letters as { at: number; form: unknown }[] | undefined)?.[0])
    .toMatchObject({ at: 4, form: { value: 1 } });
});

test('a typeface that is not there: the nearest are offered in the words, and nothing is replaced until one is pressed', async ({
  page,
  request,
}) => {
  const document = {
    format: 7,
    title: 'From elsewhere',
    sheet: { width: 300, height: 200 },
    parts: [
      {
        id: 'part',
        placement: { x: 0, y: 0 },
        members: [
          {
            id: 'words',
            kind: 'lettering',
            placement: { x: 150, y: 100 },
            text: 'Marrow',
            face: 'House Script',
            content: 'e'.repeat(64),
            size: { by: 'capital', mm: 30 },
          },
        ],
        work: [{ what: 'outline', operation: 'cut', only: null }],
      },
    ],
  };
  const made = await request.post('/api/jobs', { data: { document } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/jobs/${id}`);
  await expect(page.getByText(/The typeface House Script can’t be used/)).toBeVisible();
  const near = page.getByRole('list', { name: 'Nearest to House Script' });
  await expect(near.getByRole('button')).toHaveCount(3);
  await expect(near.locator('path').first()).toHaveAttribute('d', /^M/);
  expect((await memberOf(page, id))?.face).toBe('House Script');
  await near.getByRole('button').first().click();
  await expect(near).toBeHidden();
  await saved(page);
  // Another face is named now: one that ships, or one that other tests brought in.
  await expect.poll(async () => (await memberOf(page, id))?.content).not.toBe('e'.repeat(64));
  await page.keyboard.press('Control+z');
  await expect(near).toBeVisible();
});

test('a variable face: named places first, then anywhere along its axis', async ({ page }) => {
  await page.goto('/typefaces');
  await page.getByLabel('Typefaces to bring in').setInputFiles(VARIABLE);
  await expect(page.getByText(/brought in|here already/)).toBeVisible();
  const id = await newJob(page, 'Axis');
  await addLettering(page, 'Rhubarb');
  await page.getByRole('button', { name: 'Archivo Black', exact: true }).click();
  await page.getByLabel('Find typefaces').fill('caveat');
  await faces(page)
    .getByRole('option', { name: /Caveat/ })
    .click();
  // A press elsewhere leaves the list.
  await page.getByLabel('Style').click();
  await expect(faces(page)).toBeHidden();
  await page.getByLabel('Style').selectOption({ label: 'Bold' });
  await expect.poll(async () => (await memberOf(page, id))?.axes).toEqual({ wght: 700 });
  const d = page.locator('[data-member]').first();
  await computed(page);
  const before = await d.getAttribute('d');
  await page.getByRole('slider', { name: 'Weight' }).focus();
  await page.keyboard.press('Home');
  await expect(d).not.toHaveAttribute('d', before ?? '');
  await expect.poll(async () => (await memberOf(page, id))?.axes).toEqual({ wght: 400 });
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await memberOf(page, id))?.axes).toEqual({ wght: 700 });
});

test('a field that one is in has the colours of the scheme, light or dark', async ({ page }) => {
  await page.goto('/typefaces');
  const field = page.getByLabel('Find typefaces');
  const ground = () => field.evaluate((f) => getComputedStyle(f).backgroundColor);
  const light = await ground();
  await page.getByRole('button', { name: /dark/i }).click();
  await expect.poll(ground).not.toBe(light);
  const dark = await ground();
  await field.focus();
  await expect.poll(ground).toBe(dark);
});
