/** The browser test with our rules: any console error or uncaught exception fails it. */
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { newJob as emptyJob } from '../src/core/commands/defaults';
import type { Job } from '../src/core/document/schema';
import { STATIONS } from '../src/core/inspect/stations';

type Options = {
  /** Console errors that belong to what is tested (such as a request that must fail). */
  expectedErrors: RegExp;
};

export const test = base.extend<Options>({
  expectedErrors: [/^$/, { option: true }],
  page: async ({ page, expectedErrors }, use) => {
    const errors: string[] = [];
    watch(page, errors);
    // What is said on first use would stand in every panel; it has a test of its own.
    await page.addInitScript(
      (met) => {
        if (!localStorage.getItem('needlefile:met')) localStorage.setItem('needlefile:met', met);
      },
      STATIONS.map(({ id }) => id).join(' '),
    );
    await use(page);
    expect(errors.filter((e) => !expectedErrors.test(e))).toEqual([]);
  },
});

function watch(page: Page, errors: string[]): void {
  page.on('console', (message) => {
    if (message.type() === 'error') errors.push(`${message.text()} (${message.location().url})`);
  });
  page.on('pageerror', (error) => errors.push(error.message));
}

export { expect };

/** A job with an empty sheet and the name given, open on its bench. */
export const newJob = (page: Page, title: string): Promise<string> => openJob(page, title, emptyJob(title));

/** A job of a document, by the name given, open on its bench. */
export async function openJob(page: Page, title: string, document: Job): Promise<string> {
  const made = await page.request.post('/api/jobs', { data: { document: { ...document, title } } });
  expect(made.ok(), await made.text()).toBe(true);
  const { id } = (await made.json()) as { id: string };
  await page.goto(`/jobs/${id}`);
  // The bench is there once it says the name.
  await expect(page.getByRole('textbox', { name: 'Name of the job' })).toHaveValue(title);
  return id;
}

/** The starters: pictures to choose from, and what is asked by the one that is chosen. */
export const startOf = (page: Page, title: string) => ({
  card: page.getByRole('list', { name: 'Starters' }).getByRole('button', { name: title, exact: true }),
  form: page.getByRole('form', { name: title }),
});

/** A new job begun from an empty sheet, as a user begins it; ends on its bench. */
export async function startEmpty(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'New job' }).first().click();
  const { card, form } = startOf(page, 'Empty sheet');
  await card.click();
  await form.getByRole('button', { name: 'Start the job' }).click();
  await page.waitForURL(/\/jobs\/[0-9a-f-]{36}/);
}

/** Findings that are alike stand in one row: each is shown underneath. */
export async function showEach(page: Page): Promise<void> {
  const each = page.getByRole('list', { name: 'Findings' }).getByRole('button', { name: 'Each', exact: true });
  await expect(each.first()).toBeVisible();
  while ((await each.count()) > 0) await each.first().click();
}

/** What is added comes into the part that is chosen, not beside it. */
export const intoPart = (page: Page) => page.getByText('into it', { exact: true }).click();

export async function addLettering(page: Page, words: string): Promise<void> {
  await page.getByRole('button', { name: 'Lettering', exact: true }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill(words);
}

/** Choose a typeface for the lettering that is chosen, set in one that ships until then, and leave the list. */
export async function chooseFace(page: Page, family: string, from = 'Archivo Black'): Promise<void> {
  const find = page.getByLabel('Find typefaces');
  // A panel that is drawn anew just then closes the list again: it is opened again.
  await expect(async () => {
    if (!(await find.isVisible())) await page.getByRole('button', { name: from, exact: true }).click({ timeout: 3000 });
    await find.fill(family, { timeout: 3000 });
  }).toPass();
  const faces = page.getByRole('listbox', { name: 'Typefaces' });
  // What was typed has been looked for: the list does not move any more.
  await expect(faces.getByRole('option').first()).toHaveAccessibleName(new RegExp(family));
  // Rows move while more faces are looked at: a press that hit none is made again.
  await expect(async () => {
    const option = faces.getByRole('option', { name: family }).first();
    await option.click();
    await expect(option).toHaveAttribute('aria-selected', 'true', { timeout: 3000 });
  }).toPass();
  await page.keyboard.press('Escape');
  await expect(faces).toBeHidden();
}

/** The sheet is in step with the document, and what stands beside it with the sheet. */
export async function computed(page: Page): Promise<void> {
  await expect(page.getByRole('region', { name: 'Sheet' })).toHaveAttribute('aria-busy', 'false');
  await expect(page.getByRole('contentinfo')).toHaveAttribute('aria-busy', 'false');
}

export const station = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Route' }).getByRole('button', { name: new RegExp(`^\\d ?${name}`) });

/** Moves an entry of a list one place up with the keyboard; each step is waited for as it is announced. */
export async function moveUp(page: Page, handle: Locator): Promise<void> {
  const told = page.locator('[id^="DndLiveRegion"]').filter({ hasText: /was moved over/ });
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(told).toHaveCount(1);
  const before = (await told.textContent()) ?? '';
  // A press before the list has been measured moves nothing: then it is pressed again.
  await expect(async () => {
    await page.keyboard.press('ArrowUp');
    await expect(told).not.toHaveText(before, { timeout: 3000 });
  }).toPass();
  await page.keyboard.press('Space');
}

export const saved = (page: Page) => expect(page.getByText(/^Saved/)).toBeVisible();

/** Where a point of the sheet, in mm from its lower left corner, is in the window. */
export const onScreen = (page: Page, x: number, y: number): Promise<{ x: number; y: number }> =>
  page.locator('[data-stock]').evaluate(
    (stock, at) => {
      const m = (stock as SVGGraphicsElement).getScreenCTM() as DOMMatrix;
      return { x: m.a * at.x + m.c * at.y + m.e, y: m.b * at.x + m.d * at.y + m.f };
    },
    { x, y },
  );

/** The job as the server has it. */
export async function stored(page: Page, id: string) {
  // A line that was kept open may be closed by the server just then: it is asked again.
  const response = await page.request.get(`/api/jobs/${id}`, { maxRetries: 3 });
  return (await response.json()) as {
    version: number;
    document: { parts: { members: { text: string; face: string }[] }[] } & Record<string, unknown>;
  };
}

/** The job as the server has it once the bench has sent everything: what is asked for early is not an older state. */
export async function kept(page: Page, id: string) {
  await saved(page);
  return stored(page, id);
}

/** All drafts of this browser, as JSON. */
export const draftsOf = (page: Page): Promise<string> =>
  page.evaluate(
    () =>
      new Promise<string>((resolve) => {
        const opening = indexedDB.open('needlefile');
        opening.onsuccess = () => {
          const all = opening.result.transaction('drafts').objectStore('drafts').getAll();
          all.onsuccess = () => resolve(JSON.stringify(all.result));
        };
        opening.onerror = () => resolve('');
      }),
  );
