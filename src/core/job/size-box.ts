/** How large a part is: what is cut or drawn of it, border, bar and thickening included. */
import type { Part } from '../document/schema';
import { regionBox } from '../geometry/path';
import { type Box, EMPTY_BOX, growBox, isEmptyBox, type Point, uniteBoxes } from '../geometry/point';
import type { PreparedPart } from '../prepare/prepared';
import type { Linework } from '../toolpath/linework';

const boxAround = ({ x, y }: Point): Box => ({ minX: x, minY: y, maxX: x, maxY: y });

/**
 * Bounds of what is cut or drawn of a prepared part, where it lies; empty when nothing is. Its outlines count unless nothing but
 * middle lines and dots is made of it.
 */
export function sizeBox(part: Pick<Part, 'work'>, prepared: PreparedPart, { lines, dots }: Linework): Box {
  const isDrawn = (what: string) => part.work.some((w) => w.what === what);
  let box = EMPTY_BOX;
  if (isDrawn('centerline') && lines)
    box = lines.dots.reduce((all, d) => uniteBoxes(all, growBox(boxAround(d), d.r / 2)), regionBox(lines.lines));
  if (isDrawn('dots') && dots)
    for (const d of dots.dots) box = uniteBoxes(box, growBox(boxAround(d), dots.diameter / 2));
  const isOutlined = isDrawn('outline') || isDrawn('fill') || isDrawn('hatch');
  return isOutlined || isEmptyBox(box) ? uniteBoxes(box, prepared.box) : box;
}
