/** Characters of Latin-1 that a one-line font lacks, put together from what it has, or drawn in plain strokes to its heights. */
import type { LineFaceFile, LineStroke } from '../../src/core/lettering/line-face';

type Glyphs = LineFaceFile['glyphs'];
type Numbers = LineStroke[number];

const boundsOf = (strokes: readonly LineStroke[]) => {
  const points = strokes.flatMap((s) => s.map((n) => n.slice(-2) as [number, number]));
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  return { left: Math.min(...xs), right: Math.max(...xs), low: Math.min(...ys), high: Math.max(...ys) };
};

const mapped = (strokes: readonly LineStroke[], at: (x: number, y: number) => [number, number]): LineStroke[] =>
  strokes.map(
    (s) =>
      s.map((n) => {
        const out: number[] = [];
        for (let i = 0; i < n.length; i += 2)
          out.push(...at(n[i] as number, n[i + 1] as number).map((v) => Math.round(v * 100) / 100));
        return out as unknown as Numbers;
      }) as unknown as LineStroke,
  );

const moved = (strokes: readonly LineStroke[], dx: number, dy = 0) => mapped(strokes, (x, y) => [x + dx, y + dy]);

export function composedGlyphs(glyphs: Glyphs, slantDeg: number): Glyphs {
  const of = (c: string) => glyphs[c] ?? [0, []];
  const [cap, small] = [boundsOf(of('H')[1]).high, boundsOf(of('x')[1]).high];
  const [up, down] = [boundsOf(of('l')[1]).high, boundsOf(of('p')[1]).low];
  const lean = Math.tan((slantDeg * Math.PI) / 180);
  const drawn = (advance: number, strokes: LineStroke[]): Glyphs[string] => [
    Math.round(advance),
    mapped(strokes, (x, y) => [x + lean * y, y]),
  ];
  /** Two letters so close that they touch. */
  const pair = (a: string, b: string): Glyphs[string] => {
    const [left, right] = [of(a), of(b)];
    const shift = boundsOf(left[1]).right - boundsOf(right[1]).left;
    return [Math.round(shift + right[0]), [...left[1], ...moved(right[1], shift)]];
  };
  /** Half a circle's worth of bowl from (x, y0) to (x, y1), bulging right by w. */
  const bowl = (x: number, y0: number, y1: number, w: number): LineStroke => {
    const [mid, k] = [(y0 + y1) / 2, 0.55 * ((y1 - y0) / 2)];
    return [
      [x, y0],
      [x + w * 0.55, y0, x + w, mid - k, x + w, mid],
      [x + w, mid + k, x + w * 0.55, y1, x, y1],
    ];
  };
  const [m, w] = [0.12 * cap, 0.45 * cap];
  const ring = (cx: number, cy: number, r: number): LineStroke => [
    [cx, cy - r],
    [cx + 0.55 * r, cy - r, cx + r, cy - 0.55 * r, cx + r, cy],
    [cx + r, cy + 0.55 * r, cx + 0.55 * r, cy + r, cx, cy + r],
    [cx - 0.55 * r, cy + r, cx - r, cy + 0.55 * r, cx - r, cy],
    [cx - r, cy - 0.55 * r, cx - 0.55 * r, cy - r, cx, cy - r],
  ];
  const [mid, r] = [cap / 2, 0.22 * cap];
  const tick = (sx: number, sy: number): LineStroke => [
    [m + 1.5 * r + sx * 0.71 * r, mid + sy * 0.71 * r],
    [m + 1.5 * r + sx * 1.2 * r, mid + sy * 1.2 * r],
  ];
  const s = of('s');
  const lower = moved(s[1], 0, -0.45 * small);
  const made: Glyphs = {
    '¤': drawn(2 * m + 3 * r, [ring(m + 1.5 * r, mid, r), tick(1, 1), tick(-1, 1), tick(-1, -1), tick(1, -1)]),
    '§': [s[0], [...moved(s[1], 0, 0.45 * small), ...lower]],
    '¬': drawn(2 * m + w, [
      [
        [m, mid],
        [m + w, mid],
        [m + w, mid - 0.2 * cap],
      ],
    ]),
    '¯': drawn(2 * m + w, [
      [
        [m, cap],
        [m + w, cap],
      ],
    ]),
    µ: drawn(2 * m + w, [
      [
        [m, small],
        [m, down],
      ],
      [
        [m, 0.3 * small],
        [m, 0.1 * small, m + 0.2 * w, 0, m + 0.45 * w, 0],
        [m + 0.8 * w, 0, m + w, 0.2 * small, m + w, 0.4 * small],
      ],
      [
        [m + w, small],
        [m + w, 0],
      ],
    ]),
    '¶': drawn(2 * m + w, [
      [
        [m + w, cap],
        [m + 0.5 * w, cap],
        [m, cap, m, mid, m + 0.5 * w, mid],
      ],
      [
        [m + 0.5 * w, cap],
        [m + 0.5 * w, 0],
      ],
      [
        [m + w, cap],
        [m + w, 0],
      ],
    ]),
    Æ: pair('A', 'E'),
    æ: pair('a', 'e'),
    Þ: drawn(2 * m + w, [
      [
        [m, 0],
        [m, cap],
      ],
      [[m, 0.22 * cap], ...bowlTail(m, 0.22 * cap, 0.78 * cap, w)],
    ]),
    þ: drawn(2 * m + w, [
      [
        [m, down],
        [m, up],
      ],
      bowl(m, 0, small, w),
    ]),
    ð: drawn(2 * m + w, [
      ring(m + w / 2, small / 2, small / 2),
      [
        [m + w / 2 + small / 2, small / 2],
        [m + w / 2 + small / 2, small, m + 0.55 * w, 0.92 * up, m + 0.15 * w, up],
      ],
      [
        [m + 0.2 * w, 0.8 * up],
        [m + 0.75 * w, 0.95 * up],
      ],
    ]),
  };
  function bowlTail(x: number, y0: number, y1: number, width: number): LineStroke {
    const [, ...rest] = bowl(x + 0.4 * width, y0, y1, 0.6 * width);
    return [[x + 0.4 * width, y0], ...rest, [x, y1]] as unknown as LineStroke;
  }
  return Object.fromEntries(Object.entries(made).filter(([c]) => !glyphs[c]));
}
