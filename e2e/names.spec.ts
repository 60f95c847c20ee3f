/** Lists of names on the bench: pasted and typed, looked over, mended, followed by the face, and written. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import type { Job } from '../src/core/document/schema';
import { jobWith, lettering, partOf, rectangle } from '../tests/support/jobs';
import { rosterOfNames } from '../tests/support/names';
import { addLettering, chooseFace, computed, expect, newJob, openJob, station, test } from './fixtures';

/** Joined letters, but for the dots of ij and the ring of å. */
const TWELVE = 'rowan hazel fern clover heather yarrow meadow orchard ij åse sorrel lavender'.split(' ');

const names = (page: Page) => page.getByRole('region', { name: 'Names' });
const found = (page: Page) => names(page).getByRole('group', { name: 'What is found in them' });
const onSheet = (page: Page, row: number) => names(page).getByRole('button', { name: `Row ${row} on the sheet` });
const further = (page: Page) => names(page).getByRole('textbox', { name: 'Name, a further row' });

/** Put a text where the typing mark is, as pasting does. */
async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((words) => {
    const data = new DataTransfer();
    data.setData('text/plain', words);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);
}

/** A job with words, and a list that begins with them. */
async function beginList(page: Page, title: string, words: string, face = 'Pacifico'): Promise<void> {
  await newJob(page, title);
  await addLettering(page, words);
  await chooseFace(page, face);
  await page.getByRole('button', { name: 'For a list of names' }).click();
  await expect(names(page)).toBeVisible();
}

test('twelve names are pasted, two are flagged and mended, and all follow the face', async ({ page }) => {
  await beginList(page, 'Plot markers', 'sage');
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('‹Name›');
  await further(page).focus();
  await paste(page, TWELVE.join('\n'));
  await expect(names(page).getByRole('heading', { name: '13 names' })).toBeVisible();
  // Two come off in pieces: they are to hang together.
  await names(page).getByText('Pictures', { exact: true }).click();
  const asked = found(page).getByRole('button', { name: /hang together/ });
  await expect(asked).toBeVisible();
  await asked.click();
  await names(page)
    .getByRole('button', { name: /in all rows$/ })
    .click();
  const loose = found(page).getByRole('button', { name: /not attached/ });
  await expect(loose).toBeVisible();
  await expect(names(page).getByRole('status')).toHaveText('11 of 13 come off as one piece');
  await loose.click();
  await names(page)
    .getByRole('button', { name: /^Join it: in these 2$/ })
    .click();
  await expect(page.getByText('Mended in 2 rows. Undo takes it back.')).toBeVisible();
  await expect(names(page).getByRole('status')).toHaveText('All 13 come off as one piece');

  // The two have joints of their own, the others have not.
  await names(page).getByText('Table', { exact: true }).click();
  await expect(names(page).getByRole('button', { name: /like the others$/ })).toHaveCount(2);

  // The face is changed for all of them.
  await onSheet(page, 3).click();
  await computed(page);
  const card = page
    .getByRole('complementary', { name: 'Job sheet' })
    .getByRole('button', { name: /Hazel|Sage|part|‹/i })
    .first();
  await card.click();
  await chooseFace(page, 'Poppins', 'Pacifico');
  await expect(names(page).getByRole('status')).toHaveText(/of 13 come off as one piece|All 13/);
  for (const row of [1, 2, 9]) {
    await onSheet(page, row).click();
    await expect(page.getByRole('button', { name: 'Poppins', exact: true })).toBeVisible();
  }
});

test('cells are typed and gone through by keys; a row of its own is marked, and goes back', async ({ page }) => {
  await beginList(page, 'Bed tags', 'Sage', 'Poppins');
  await further(page).pressSequentially('Thyme');
  await expect(names(page).getByRole('textbox', { name: 'Name, row 2' })).toHaveValue('Thyme');
  await page.keyboard.press('Enter');
  await expect(further(page)).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(names(page).getByRole('textbox', { name: 'Name, row 2' })).toBeFocused();
  // The row in hand is on the sheet: its words, made wider for it alone.
  await names(page).getByText('Thyme alone').click();
  await page.getByRole('textbox', { name: 'Capital height' }).fill('20');
  await page.keyboard.press('Enter');
  await expect(names(page).getByRole('button', { name: 'Row 2 like the others' })).toBeVisible();
  await onSheet(page, 1).click();
  await expect(page.getByRole('textbox', { name: 'Capital height' })).not.toHaveValue('20');
  await names(page).getByRole('button', { name: 'Row 2 like the others' }).click();
  await expect(names(page).getByRole('button', { name: 'Row 2 like the others' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(names(page).getByRole('button', { name: 'Row 2 like the others' })).toBeVisible();
  // A running number is a column too, and a field in the words.
  await names(page).getByRole('button', { name: 'Column', exact: true }).click();
  await page.getByRole('button', { name: 'Running number' }).click();
  await names(page).getByText('Changes: all rows').click();
  await page.getByRole('textbox', { name: 'Words' }).press('End');
  await page.getByRole('group', { name: 'Put in from the list of names' }).getByRole('button', { name: 'No' }).click();
  await expect(page.getByRole('textbox', { name: 'Words' })).toHaveValue('‹Name›‹No›');
  // A reload brings all of it back.
  await expect(page.getByText(/^Saved/)).toBeVisible();
  await page.reload();
  await expect(names(page).getByRole('textbox', { name: 'Name, row 2' })).toHaveValue('Thyme');
  await expect(names(page).getByRole('button', { name: 'Row 2 like the others' })).toBeVisible();
});

test('a list comes from a file, as it was read or otherwise, and files are written for each name', async ({ page }) => {
  await beginList(page, 'Tool tags', 'Sage', 'Poppins');
  await page.getByLabel('A file with a list of names').setInputFiles({
    name: 'names.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Name;Bed\nRowan;3\nIvy;4\n'),
  });
  const dialog = page.getByRole('dialog', { name: /^Names from names.csv/ });
  await expect(dialog.getByText('2 rows, 2 columns, written as UTF-8.')).toBeVisible();
  await expect(dialog.getByLabel('Cells are parted by')).toHaveValue(';');
  await expect(dialog.getByLabel('The first row names the columns')).toBeChecked();
  await dialog.getByRole('button', { name: 'Take these names' }).click();
  await expect(names(page).getByRole('heading', { name: '2 names' })).toBeVisible();
  await expect(names(page).getByRole('textbox', { name: 'Bed, row 2' })).toHaveValue('4');
  await station(page, 'Prove').click();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write all four' }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toBe('tool-tags_names.zip');
  const files = unzipSync(new Uint8Array(readFileSync(await download.path())));
  expect(Object.keys(files).sort()).toEqual(
    [
      ...['dxf', 'pdf', 'plt', 'svg'].flatMap((ending) => [`tool-tags_rowan.${ending}`, `tool-tags_ivy.${ending}`]),
      'tool-tags_list.csv',
    ].sort(),
  );
  expect(new TextDecoder().decode(files['tool-tags_list.csv'])).toContain('1,Rowan,3,1,');

  // A file that is none says so, and the list stays.
  await page.getByLabel('A file with a list of names').setInputFiles({
    name: 'names.xlsx',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from('PK\u0003\u0004rest'),
  });
  await expect(page.getByRole('alert').filter({ hasText: 'This is a spreadsheet in its own format' })).toBeVisible();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).last().click();
  await expect(names(page).getByRole('heading', { name: '2 names' })).toBeVisible();
});

test('names are laid on two sheets, one is moved, and a file is written for each sheet', async ({ page }) => {
  const job = jobWith(
    [partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 14 } })], { hangsTogether: 'no' })],
    {
      roster: rosterOfNames(TWELVE),
      sheet: { width: 210, height: 70 },
    },
  );
  await openJob(page, 'Shelf tags', job);
  await names(page).getByText('On sheets', { exact: true }).click();
  await names(page).getByRole('button', { name: 'Lay them on sheets' }).click();
  const said = names(page).getByRole('status').filter({ hasText: 'needed' });
  await expect(said).toContainText('2 sheets');
  const stop = names(page).getByRole('button', { name: 'Stop', exact: true });
  await stop.click();
  await expect(names(page).getByRole('button', { name: 'Lay them anew' })).toBeVisible();
  const sheet = names(page).getByRole('group', { name: /^Sheet 1 with/ });
  await expect(sheet.locator('g').first()).toBeVisible();
  // Moved off the sheet it is told; undo brings it back.
  const piece = await sheet.locator('g').first().boundingBox();
  if (!piece) throw new Error('nothing lies on the sheet');
  await page.mouse.move(piece.x + piece.width / 2, piece.y + piece.height / 2);
  await page.mouse.down();
  await page.mouse.move(piece.x + piece.width / 2, piece.y + 400, { steps: 4 });
  await page.mouse.up();
  const found = names(page).getByRole('list', { name: 'Findings of the sheets' });
  await expect(found).toContainText('Sheet 1:');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(found).toHaveCount(0);
  await station(page, 'Prove').click();
  await expect(page.getByLabel('files for each of the 2 sheets')).toBeChecked();
  await page.getByRole('button', { name: 'Prove the 2 sheets' }).click();
  await expect(page.getByText(/^Proved\. All of the 2 sheets: 2 files do what is drawn\./)).toBeVisible();
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Write all four' }).click();
  const files = unzipSync(new Uint8Array(readFileSync(await (await waiting).path())));
  expect(Object.keys(files)).toEqual(
    expect.arrayContaining(['shelf-tags_sheet-1.svg', 'shelf-tags_sheet-2.dxf', 'shelf-tags_list.csv']),
  );
  expect(new TextDecoder().decode(files['shelf-tags_list.csv']).trim().split('\r\n')).toHaveLength(13);
});

test('names lie on blanks in a jig: one is left out, one is moved by keys, and what is off its blank is told', async ({
  page,
}) => {
  const job = jobWith([partOf([lettering('‹Name›', 'Poppins', { size: { by: 'capital', mm: 14 } })])], {
    roster: rosterOfNames(TWELVE.slice(0, 7)),
    sheet: { width: 300, height: 200 },
  });
  const id = await openJob(page, 'Bed tags', job);
  await names(page).getByText('On sheets', { exact: true }).click();
  await names(page).getByRole('button', { name: 'Lay them on sheets' }).click();
  await expect(names(page).getByRole('status').filter({ hasText: 'needed' })).toBeVisible();
  await names(page)
    .getByRole('button', { name: 'Stop', exact: true })
    .click({ timeout: 2_000 })
    .catch(() => {});
  await names(page).getByLabel('How they are laid').selectOption('blanks');
  await names(page).getByRole('textbox', { name: 'Rows', exact: true }).fill('2');
  await page.keyboard.press('Enter');
  await names(page)
    .getByRole('button', { name: /^Lay them (out|anew)$/ })
    .click();
  const said = names(page).getByRole('status').filter({ hasText: 'blanks used' });
  await expect(said).toContainText('One sheet, 88 % of the blanks used.');
  const found = names(page).getByRole('list', { name: 'Findings of the sheets' });
  await expect(found).toHaveCount(0);
  // The second blank is broken: what lies there is told, and goes elsewhere when they are laid anew.
  await names(page).getByRole('checkbox', { name: 'Blank 2' }).press('Enter');
  await expect(found).toContainText('“hazel” lies on no blank.');
  await names(page).getByRole('button', { name: 'Lay them anew' }).click();
  await expect(said).toContainText('One sheet, 100 % of the blanks used.');
  await expect(found).toHaveCount(0);
  // By keys, a tenth of a hand at a time; undo takes the whole way back.
  const name = names(page).getByRole('button', { name: 'rowan: arrows move it' });
  await name.focus();
  await name.press('Shift+ArrowRight');
  await name.press('Shift+ArrowRight');
  await name.press('ArrowUp');
  await expect(found).toContainText('“rowan” reaches over its blank.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(found).toHaveCount(0);
  await expect(page.getByText(/^Saved/)).toBeVisible();
  const kept = await page.request.get(`/api/jobs/${id}`);
  expect(((await kept.json()) as { document: Job }).document.layout).toMatchObject({
    way: 'blanks',
    blanks: { rows: 2, leftOut: [1] },
    places: expect.arrayContaining([expect.objectContaining({ row: 'r0', sheet: 0 })]),
  });
});

test('what is left of a sheet is kept in stock, and names of another job are laid on it', async ({ page }) => {
  const material = `Lime board ${Date.now()}`;
  const entry = {
    name: material,
    leastWidthMm: 0.5,
    leastPerThickness: 0,
    process: 'laser',
    kerfsMm: { laser: 0.1 },
  };
  const shelf = '/api/shop/materials/lime-board';
  expect((await page.request.put(shelf, { data: { version: null, entry } })).ok()).toBe(true);
  try {
    const plate = (title: string, count: number) =>
      openJob(
        page,
        title,
        jobWith([partOf([rectangle('tag', 70, 50)], { name: '‹Name›' })], {
          roster: rosterOfNames(TWELVE.slice(0, count)),
          sheet: { width: 300, height: 200, material },
          layout: {},
        }),
      );
    await plate('First tags', 5);
    await names(page).getByText('On sheets', { exact: true }).click();
    await names(page).getByRole('button', { name: 'Lay them out' }).click();
    await expect(names(page).getByText(/Left of the last: /)).toBeVisible();
    await names(page).getByRole('button', { name: 'Keep it in stock' }).click();
    await expect(page.getByText(`It is in stock now, with the sheets of ${material}.`)).toBeVisible();
    await plate('Later tags', 7);
    const sheets = page.getByRole('button', { name: /^[\d.]+ × [\d.]+( off-cut)?$/ });
    await sheets.click();
    await expect(page.getByRole('textbox', { name: 'Width', exact: true }).first()).toHaveValue('300');
    await expect(page.getByRole('textbox', { name: 'Height', exact: true }).first()).not.toHaveValue('200');
    await names(page).getByText('On sheets', { exact: true }).click();
    await names(page).getByRole('button', { name: 'Lay them out' }).click();
    await expect(
      names(page)
        .getByRole('status')
        .filter({ hasText: /no room on the off-cut|2 sheets/ }),
    ).toBeVisible();
  } finally {
    await page.request.delete(shelf);
  }
});
