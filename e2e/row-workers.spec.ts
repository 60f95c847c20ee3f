/** A long list of names, prepared by a row worker beside the app; and by the page, when that is gone. */
import { spawn } from 'node:child_process';
import type { Page } from '@playwright/test';
import { API } from '../src/api/endpoints';
import { LIMITS } from '../src/core/limits';
import { jobWith, lettering, partOf } from '../tests/support/jobs';
import { rosterOfNames } from '../tests/support/names';
import { expect, openJob, test } from './fixtures';

const names = (page: Page) => page.getByRole('region', { name: 'Names' });
const listOf = (stem: string, count: number) =>
  jobWith([partOf([lettering('‹Name›', 'Poppins')], { steps: [{ kind: 'weld' }] })], {
    title: stem,
    roster: rosterOfNames(Array.from({ length: count }, (_, i) => `${stem} ${i + 1}`)),
  });

test('a long list is shared with a row worker; once that is killed, the page goes on by itself', async ({
  page,
  request,
}) => {
  const worker = spawn(process.execPath, ['--import', 'tsx', 'src/row-workers/main.ts'], { stdio: 'ignore' });
  const ended = new Promise((resolve) => worker.once('exit', resolve));
  try {
    const document = listOf('Bed', 2);
    await expect
      .poll(
        async () =>
          (await (await request.post(API.askRows.path, { data: { document, today: '2026-05-04' } })).json()).asked,
      )
      .not.toBeNull();
    await openJob(page, 'Rows', listOf('Row', LIMITS.rowsForWorkers));
    await expect(names(page).getByRole('status')).toContainText('with a row worker');
    await expect(names(page).getByRole('status')).toHaveText(/of 300 come off as one piece|All 300/);
    // As many again: it is killed once it has begun.
    await openJob(page, 'Shelfs', listOf('Shelf', LIMITS.rowsForWorkers));
    await expect(names(page).getByRole('status')).toContainText('with a row worker');
    worker.kill('SIGKILL');
    await ended;
    await expect(names(page).getByRole('status')).toHaveText(/of 300 come off as one piece|All 300/);
  } finally {
    worker.kill('SIGKILL');
  }
});
