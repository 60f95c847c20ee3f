/** Boxes laid along a skyline (bottom-left; Burke, Kendall and Whitwell 2004), the best of a few orders: what nesting is measured against. */

export type LaidBoxes = { readonly sheets: number; readonly top: number };
type Boxes = readonly { readonly width: number; readonly height: number }[];

/** Lay boxes on sheets of a size; what is above the last box of the last sheet is free. */
function layBoxes(boxes: Boxes, width: number, height: number): LaidBoxes {
  const sheets: { x: number; y: number; w: number }[][] = [];
  const tops: number[] = [];
  for (const box of boxes) {
    for (let s = 0; ; s++) {
      sheets[s] ??= [{ x: 0, y: 0, w: width }];
      const line = sheets[s] as { x: number; y: number; w: number }[];
      let best: { x: number; y: number } | null = null;
      for (let i = 0; i < line.length; i++) {
        const x = line[i]?.x ?? 0;
        if (x + box.width > width + 1e-9) break;
        let y = 0;
        for (let k = i; k < line.length && (line[k]?.x ?? 0) < x + box.width - 1e-9; k++)
          y = Math.max(y, line[k]?.y ?? 0);
        if (y + box.height <= height + 1e-9 && (!best || y < best.y - 1e-9)) best = { x, y };
      }
      if (!best) {
        if (line.length === 1 && line[0]?.y === 0) break;
        continue;
      }
      const [x, end, y] = [best.x, best.x + box.width, best.y + box.height];
      sheets[s] = line
        .flatMap((part) => {
          const partEnd = part.x + part.w;
          const before = part.x < x ? [{ ...part, w: Math.min(partEnd, x) - part.x }] : [];
          const after =
            partEnd > end ? [{ x: Math.max(part.x, end), y: part.y, w: partEnd - Math.max(part.x, end) }] : [];
          return [...before, ...after].filter((p) => p.w > 1e-9);
        })
        .concat({ x, y, w: box.width })
        .sort((a, b) => a.x - b.x);
      tops[s] = Math.max(tops[s] ?? 0, y);
      break;
    }
  }
  return { sheets: tops.length, top: tops.at(-1) ?? 0 };
}

/** The best of orders by height, area and the longer side. */
export function skyline(boxes: Boxes, width: number, height: number): LaidBoxes {
  const orders = [
    (b: Boxes[number]) => b.height * 1e4 + b.width,
    (b: Boxes[number]) => b.width * b.height,
    (b: Boxes[number]) => Math.max(b.width, b.height),
  ];
  return orders
    .map((size) =>
      layBoxes(
        [...boxes].sort((a, b) => size(b) - size(a)),
        width,
        height,
      ),
    )
    .reduce((a, b) => (b.sheets < a.sheets || (b.sheets === a.sheets && b.top < a.top) ? b : a));
}
