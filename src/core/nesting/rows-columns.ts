/** Things laid in rows and columns, in their order, from the upper left: each column as wide as the widest, each row as high as its highest. */

type Bounds = { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };

/** How they are laid, in mm. */
type InRows = { readonly width: number; readonly height: number; readonly spacing: number; readonly margin: number };

/** Where each is moved to, null where it fits on no sheet; and which of them those are. */
export type InRowsLaid = {
  readonly laid: readonly ({ readonly sheet: number; readonly x: number; readonly y: number } | null)[];
  readonly tooLarge: readonly number[];
};

const ROUNDING = 1e-9;

/** Lay boxes so; each stands in the middle of its column and row. */
export function rowsAndColumns(boxes: readonly Bounds[], { width, height, spacing, margin }: InRows): InRowsLaid {
  const [wide, high] = [width - 2 * margin, height - 2 * margin];
  const fits = ({ minX, minY, maxX, maxY }: Bounds) => maxX - minX <= wide + ROUNDING && maxY - minY <= high + ROUNDING;
  const fitting = boxes.filter(fits);
  const column = Math.max(0, ...fitting.map((b) => b.maxX - b.minX));
  const columns = Math.max(1, Math.floor((wide + spacing + ROUNDING) / (column + spacing)));
  const laid: { sheet: number; x: number; y: number }[] = [];
  let [sheet, top] = [0, 0];
  for (let i = 0; i < fitting.length; i += columns) {
    const row = fitting.slice(i, i + columns);
    const rowHeight = Math.max(...row.map((b) => b.maxY - b.minY));
    if (top + rowHeight > high + ROUNDING) [sheet, top] = [sheet + 1, 0];
    const middleY = height - margin - top - rowHeight / 2;
    row.forEach((box, k) => {
      const middleX = margin + k * (column + spacing) + column / 2;
      laid.push({ sheet, x: middleX - (box.minX + box.maxX) / 2, y: middleY - (box.minY + box.maxY) / 2 });
    });
    top += rowHeight + spacing;
  }
  let next = 0;
  return {
    laid: boxes.map((box) => (fits(box) ? (laid[next++] ?? null) : null)),
    tooLarge: boxes.flatMap((box, i) => (fits(box) ? [] : [i])),
  };
}
