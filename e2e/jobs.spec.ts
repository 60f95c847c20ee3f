import { addLettering, expect, kept, newJob, saved, stored, test } from './fixtures';

test('the sample jobs are there as true drawings', async ({ page }) => {
  await page.goto('/');
  for (const title of [
    'Gate sign',
    'Bed markers',
    'Seed bin stencils',
    'Bench plaque',
    'Tool rack tags',
    'Apron lettering',
    'Greenhouse nameplate',
  ]) {
    // Other tests make jobs meanwhile: the list shows the newest first.
    await page.getByLabel('Find jobs').fill(title);
    const picture = page.getByRole('img', { name: `Drawing of ${title}`, includeHidden: true }).first();
    await expect(picture.locator('path').first()).toHaveAttribute('d', /^M/);
  }
  await page.getByLabel('Find jobs').fill('steel gate');
  await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('listitem')).toHaveCount(1);
  await page.getByLabel('Find jobs').fill('nothing like this');
  await page.getByRole('button', { name: 'Show all jobs' }).click();
  await page.getByRole('button', { name: 'stencil', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Seed bin stencils' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Gate sign' })).toBeHidden();
});

test('many jobs come as one goes down the list, and are looked for among all of them', async ({ page, request }) => {
  const stamp = `Peg ${Date.now()}`;
  const document = (await stored(page, await newJob(page, stamp))).document;
  for (let i = 0; i < 60; i++)
    await request.post('/api/jobs', { data: { document: { ...document, title: `${stamp} n${i}x`, tags: [stamp] } } });
  await page.goto('/');
  const list = page.getByRole('list', { name: 'Jobs' });
  await page.getByRole('button', { name: stamp, exact: true }).click();
  await expect(list.getByRole('link', { name: `${stamp} n59x` })).toBeVisible();
  await expect(list.getByRole('link', { name: `${stamp} n0x` })).toBeHidden();
  // The end comes near twice; by itself, and to whoever presses.
  await page.mouse.move(600, 500);
  await expect(async () => {
    await page.mouse.wheel(0, 4_000);
    await expect(list.getByRole('listitem')).toHaveCount(60, { timeout: 500 });
  }).toPass();
  await expect(list.getByRole('link', { name: `${stamp} n0x`, exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'More jobs' })).toBeHidden();
  await page.getByRole('button', { name: stamp, exact: true }).click();
  await page.getByLabel('Find jobs').fill(`${stamp} n37x`);
  await expect(list.getByRole('listitem')).toHaveCount(1);
  await expect(list.getByRole('link', { name: `${stamp} n37x` })).toBeVisible();
});

test('rename, duplicate, delete and undo', async ({ page }) => {
  const name = `Shelf ${Date.now()}`;
  await newJob(page, name);
  await addLettering(page, 'Shelf');
  await saved(page);
  await page.getByRole('link', { name: 'All jobs' }).click();
  const list = page.getByRole('list', { name: 'Jobs' });
  // Looked for: other tests make jobs by the dozen meanwhile, which come before it.
  await page.getByLabel('Find jobs').fill(name);
  await expect(list.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: `More for ${name}` }).click();
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Name of the job' }).fill(`${name} B`);
  await page.keyboard.press('Enter');
  await expect(list.getByRole('link', { name: `${name} B`, exact: true })).toBeVisible();
  await page.getByRole('button', { name: `More for ${name} B` }).click();
  await page.getByRole('button', { name: 'Duplicate' }).click();
  await expect(list.getByRole('link', { name: `${name} B copy` })).toBeVisible();
  await page.getByRole('button', { name: `More for ${name} B copy` }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(list.getByRole('link', { name: `${name} B copy` })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(list.getByRole('link', { name: `${name} B copy` })).toBeVisible();
});

test('tags are given on the bench, and to several jobs at once in the list, and taken back', async ({ page }) => {
  const name = `Tagged ${Date.now()}`;
  const tag = `shed ${Date.now() % 100000}`;
  const id = await newJob(page, `${name} A`);
  await page.getByLabel('Add a tag to this job').fill(tag);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: `Remove the tag ${tag}` })).toBeVisible();
  expect((await kept(page, id)).document.tags).toEqual([tag]);
  await newJob(page, `${name} B`);
  await page.goto('/');
  await page.getByLabel('Find jobs').fill(name);
  const list = page.getByRole('list', { name: 'Jobs' });
  await expect(list.getByRole('listitem')).toHaveCount(2);
  for (const which of ['A', 'B']) await list.getByLabel(`Choose ${name} ${which}`).check();
  const chosen = page.getByRole('region', { name: 'Chosen jobs' });
  await expect(chosen).toContainText('2 jobs chosen');
  await chosen.getByLabel('Add a tag to the chosen jobs').fill(`${tag},`);
  await expect(page.getByText(`“${tag}” was given to 1 job; others had it, or have no room for more.`)).toBeVisible();
  await expect(list.getByText(tag, { exact: true })).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(list.getByText(tag, { exact: true })).toHaveCount(1);
  await chosen.getByRole('button', { name: 'Choose none' }).click();
  await expect(chosen).toHaveCount(0);
});

test('documents that can’t be kept are refused with a sentence, and nothing is changed', async ({ page }) => {
  const id = await newJob(page, 'Kept');
  await addLettering(page, 'Kept');
  await saved(page);
  const before = await stored(page, id);
  const put = async (document: unknown) => {
    const response = await page.request.put(`/api/jobs/${id}`, {
      data: { version: before.version, document, extras: null },
    });
    return [response.status(), ((await response.json()) as { sentence: string }).sentence] as const;
  };
  const large = { ...before.document, title: 'x'.repeat(20 * 1024 * 1024) };
  expect(await put(large)).toEqual([413, expect.stringMatching(/larger than the 8 MB that can be saved/)]);
  expect(await put({ ...before.document, format: 99 })).toEqual([422, expect.stringMatching(/newer Needlefile/)]);
  expect(await put({ ...before.document, sheet: { width: 0, height: 10 } })).toEqual([
    422,
    'sheet.width must be at least 1.',
  ]);
  expect(await put('no job at all')).toEqual([422, 'This is not a job document.']);
  expect(await stored(page, id)).toEqual(before);
});
