/** What can be told by a machine of how a screen is reached and read. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './fixtures';

const SCHEMES = ['light', 'dark'] as const;

/** No serious or moderate finding, in either scheme. */
export async function reached(page: Page, what: string): Promise<void> {
  for (const scheme of SCHEMES) {
    await page.evaluate((to) => {
      document.documentElement.dataset.bsTheme = to;
    }, scheme);
    await page.evaluate(() => Promise.all(document.getAnimations().map((a) => a.finished.catch(() => null))));
    // Only colours differ from one scheme to the other.
    // No page here has frames: all is looked at in place, without the page that frames are put together in.
    const axe = new AxeBuilder({ page }).setLegacyMode();
    const { violations } = await (scheme === 'light' ? axe : axe.withRules(['color-contrast'])).analyze();
    const grave = violations.filter((v) => v.impact !== 'minor');
    const said = grave.flatMap((v) =>
      v.nodes.map((n) => `${what}, ${scheme}: ${v.id} (${v.impact}) ${n.target.join(' ')} ${n.failureSummary ?? ''}`),
    );
    expect.soft(said).toEqual([]);
  }
}
