/** The page of a PDF of ours as far as tests look at it: its size, and circles of a layer. */

import { readBackPdf } from '../../src/core/formats/read-back/pdf';
import type { Point } from '../../src/core/geometry/point';

/** Width and height of the page in mm, and the middles of circles drawn in a layer: closed paths of curves only. */
export function readPdfPage(bytes: Uint8Array): {
  readonly width: number;
  readonly height: number;
  readonly circles: (layer: string) => Point[];
} {
  const { head, items } = readBackPdf(bytes);
  const all = [...items];
  return {
    width: head.page?.width ?? 0,
    height: head.page?.height ?? 0,
    circles: (layer) =>
      all.flatMap((item) => {
        if (item.kind !== 'path' || head.layers[item.layer]?.name !== layer) return [];
        return item.paths.flatMap((path) => {
          if (!path.closed || path.pieces.some((piece) => piece.kind !== 'cubic')) return [];
          const [xs, ys] = [path.pieces.map((p) => p.x), path.pieces.map((p) => p.y)];
          const middle = (list: number[]) => (Math.min(...list) + Math.max(...list)) / 2;
          return [{ x: middle(xs), y: middle(ys) }];
        });
      }),
  };
}
