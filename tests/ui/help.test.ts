/** The help: complete, found by words, and illustrated by jobs that are as they are said to be. */
import { expect, test } from 'vitest';
import { STATIONS } from '../../src/core/inspect/stations';
import { Evaluator } from '../../src/core/job/evaluate';
import { HELP_PAGES, helpPage, pagesFor } from '../../src/help/pages';
import { HELP_PICTURES } from '../../src/help/pictures';
import { faces, wasmEngine } from '../support/faces';

test('every station has a page with three pictures and a sentence for first use', () => {
  for (const { id } of STATIONS) {
    const page = helpPage(id);
    expect(page.id).toBe(id);
    expect(page.captions).toHaveLength(3);
    expect(page.first).toMatch(/^[A-Z].*\.$/);
    expect(page.points.length).toBeGreaterThan(1);
  }
  expect(new Set(HELP_PAGES.map((p) => p.id)).size).toBe(HELP_PAGES.length);
});

test('pages are found by all of the words, those called so first', () => {
  expect(pagesFor('  ').length).toBe(HELP_PAGES.length);
  expect(pagesFor('BRIDGE stencil').map((p) => p.id)).toEqual(['hold']);
  expect(pagesFor('list of names')[0]?.id).toBe('compose');
  expect(pagesFor('names of files')[0]?.id).toBe('prove');
  expect(pagesFor('typefaces').map((p) => p.id)[0]).toBe('typefaces');
  expect(pagesFor('nonesuch')).toEqual([]);
});

test.each(STATIONS.map(({ id }) => id))('the pictures of %s show work, and nothing found wanting in it', (id) => {
  for (const [i, job] of HELP_PICTURES[id].entries()) {
    const result = new Evaluator(wasmEngine).evaluate(job, faces);
    expect(
      result.operations.some((o) => o.drawn.length > 0),
      String(i),
    ).toBe(true);
    const box = result.workBox;
    expect(box.minX, String(i)).toBeGreaterThan(0);
    expect(box.minY, String(i)).toBeGreaterThan(0);
    expect(box.maxX, String(i)).toBeLessThan(120);
    expect(box.maxY, String(i)).toBeLessThan(70);
    // Islands that are bridged are held; what is not welded is shown as such on purpose.
    const islands = result.parts.reduce((sum, p) => sum + p.pieces.filter((x) => x.kind === 'island').length, 0);
    if (id === 'hold') expect(islands, String(i)).toBe(0);
  }
});
