/** What lies apart from each other by its bounds, so that each can be worked on by itself. */
import { DisjointSets } from './disjoint-sets';
import { type Box, boxesMeet, growBox } from './point';

/**
 * Numbers of boxes, gathered where they meet with `margin` mm between them (directly or through others): lists by their first, each
 * ascending.
 */
export function meetingBoxes(boxes: readonly Box[], margin: number): number[][] {
  const sets = new DisjointSets(boxes.length);
  const byLeft = boxes.map((_, i) => i).sort((a, b) => (boxes[a] as Box).minX - (boxes[b] as Box).minX);
  let active: number[] = [];
  for (const i of byLeft) {
    const box = growBox(boxes[i] as Box, margin);
    active = active.filter((k) => (boxes[k] as Box).maxX >= box.minX);
    for (const k of active) if (boxesMeet(box, boxes[k] as Box)) sets.join(i, k);
    active.push(i);
  }
  return sets.gather(boxes.map((_, i) => i));
}
