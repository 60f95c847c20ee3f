/** The work at true size on paper: pages that are pasted together by marks, to lay on the stock or hold against a wall. */
import type { Drawing } from '../formats/drawing';
import { pathBox, transformPath } from '../geometry/path';
import { type Box, boxesMeet, boxHeight, boxWidth, compose, scaling, translation } from '../geometry/point';
import { LIMITS } from '../limits';
import { type JobShapes, OPERATION_INK } from './job-picture';
import { INK, MUTED, Page, type PaperSize } from './paper';
import type { PaperFaces } from './words';

/** What no printer may reach of a page, and how far pages lie over each other, in mm. */
const EDGE = 10;
const OVERLAP = 10;
const CROSS = 4;

/** How many pages across and up the work takes. */
function pagesFor(box: Box, size: PaperSize): { readonly across: number; readonly up: number } {
  const [width, height] = [size.width - 2 * EDGE - OVERLAP, size.height - 2 * EDGE - OVERLAP];
  const count = (whole: number, step: number) => Math.max(1, Math.ceil((whole - OVERLAP) / step));
  return { across: count(boxWidth(box), width), up: count(boxHeight(box), height) };
}

/** Of a paper upright and lying the one of which it takes fewer pages; upright where it takes as many. */
function fewerPages(box: Box, upright: PaperSize, lying: PaperSize): PaperSize {
  const count = (size: PaperSize) => pagesFor(box, size).across * pagesFor(box, size).up;
  return count(lying) < count(upright) ? lying : upright;
}

/** Pages in rows from below, or a sentence where there would be too many; mirrored where the work is seen from behind. */
export function trueSizePages(
  title: string,
  shapes: JobShapes,
  { faces, paper, mirrored }: { readonly faces: PaperFaces; readonly paper: PaperSize; readonly mirrored: boolean },
): readonly Drawing[] | { readonly sentence: string } {
  const { box } = shapes;
  const size = fewerPages(box, paper, { width: paper.height, height: paper.width });
  const { across, up } = pagesFor(box, size);
  if (across * up > LIMITS.paperPages)
    return { sentence: `At true size it takes ${across * up} pages; up to ${LIMITS.paperPages} are made.` };
  const [stepX, stepY] = [size.width - 2 * EDGE - OVERLAP, size.height - 2 * EDGE - OVERLAP];
  const toCorner = translation(-box.minX, -box.minY);
  const laid = mirrored ? compose(toCorner, { ...scaling(-1, 1), e: boxWidth(box) }) : toCorner;
  const out: Drawing[] = [];
  for (let row = 0; row < up; row++)
    for (let column = 0; column < across; column++) {
      const page = new Page(size, faces);
      const m = compose(laid, translation(EDGE - column * stepX, EDGE - row * stepY));
      const whole: Box = { minX: 0, minY: 0, maxX: size.width, maxY: size.height };
      for (const { kind, paths } of shapes.areas)
        for (const path of paths) {
          const moved = transformPath(path, m);
          if (boxesMeet(pathBox(moved), whole)) page.stroke(moved, OPERATION_INK[kind]);
        }
      for (const { kind, path } of shapes.lines) {
        const moved = transformPath(path, m);
        if (boxesMeet(pathBox(moved), whole)) page.stroke(moved, OPERATION_INK[kind]);
      }
      marks(page, size, { row, column, across, up });
      const name = `${String.fromCharCode(65 + (row % 26))}${column + 1}`;
      const where = across * up > 1 ? `${name} of ${across} × ${up}` : '';
      page.words([title, where, 'true size'].filter(Boolean).join(' · '), EDGE, 4, { size: 2.8, colour: MUTED });
      page.rule(size.width - EDGE - 50, 6, size.width - EDGE, 6, INK);
      for (const x of [size.width - EDGE - 50, size.width - EDGE]) page.rule(x, 4.8, x, 7.2, INK);
      page.words('50 mm', size.width - EDGE - 25, 2.6, { size: 2.6, colour: MUTED, align: 'middle' });
      out.push(page.drawing(`${title}: true size`));
    }
  return out;
}

/** Crosses where pages lie over each other: the same two places on both, so that one is laid on the other. */
function marks(
  page: Page,
  size: PaperSize,
  at: { readonly row: number; readonly column: number; readonly across: number; readonly up: number },
): void {
  const xs = [EDGE + OVERLAP / 2, size.width - EDGE - OVERLAP / 2];
  const ys = [EDGE + OVERLAP / 2, size.height - EDGE - OVERLAP / 2];
  const has = [at.column > 0, at.column + 1 < at.across];
  const hasUp = [at.row > 0, at.row + 1 < at.up];
  const cross = (x: number, y: number) => {
    page.rule(x - CROSS, y, x + CROSS, y, MUTED);
    page.rule(x, y - CROSS, x, y + CROSS, MUTED);
  };
  xs.forEach((x, i) => {
    ys.forEach((y, k) => {
      if (has[i] || hasUp[k]) cross(x, y);
    });
  });
}
