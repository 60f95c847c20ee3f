/** Words of a text element as lines that each have one place and one style. */
import { compose, type Matrix, scaling, translation } from '../../geometry/point';
import type { ReadText } from '../read-drawing';
import type { Viewport } from './outlines';
import type { Style } from './style';
import type { SvgElement } from './tree';
import { lengthIn } from './values';

/** Height of a capital as a share of the font size, where the typeface itself is not at hand. */
const CAPITAL_SHARE = 0.7;
const USUAL_SIZE = 16;

type Line = Omit<ReadText, 'group' | 'matrix'> & {
  readonly style: Style;
  /** From the line's own axes, y up, to user units. */
  readonly matrix: Matrix;
};

/** Where a new line starts: an x or y of its own. Runs without one go on in the line before. */
export function svgTextLines(
  element: SvgElement,
  style: Style,
  view: Viewport,
  styleOf: (element: SvgElement, inherited: Style) => Style,
): { readonly lines: readonly Line[]; readonly unread: number } {
  const runs: { text: string; x: number; y: number; style: Style; starts: boolean }[] = [];
  let at = { x: 0, y: 0 };
  let unread = 0;
  const walk = (e: SvgElement, own: Style) => {
    const first = (name: string, reference: number) =>
      lengthIn(
        e.attributes
          .get(name)
          ?.trim()
          .split(/[\s,]+/)[0],
        reference,
      );
    const [x, y] = [first('x', view.width), first('y', view.height)];
    const [dx, dy] = [first('dx', view.width) ?? 0, first('dy', view.height) ?? 0];
    const starts = x !== null || y !== null || dy !== 0 || e === element;
    at = { x: (x ?? at.x) + dx, y: (y ?? at.y) + dy };
    let fresh = starts;
    for (const part of e.content) {
      if (typeof part === 'string') {
        const text = part.replace(/\s+/g, ' ');
        if (text.trim() === '' && (fresh || runs.length === 0)) continue;
        runs.push({ text, ...at, style: own, starts: fresh });
        fresh = false;
      } else if (part.name === 'textPath') unread++;
      else if (part.name === 'tspan' || part.name === 'a') walk(part, styleOf(part, own));
    }
  };
  walk(element, style);
  const lines: Line[] = [];
  let open: { text: string; run: (typeof runs)[number] } | null = null;
  const finish = () => {
    const text = open?.text.replace(/ +/g, ' ').trim();
    if (open && text) lines.push(lineOf(text, open.run));
    open = null;
  };
  for (const run of runs) {
    if (run.starts || !open) {
      finish();
      open = { text: run.text, run };
    } else open = { text: (open as { text: string }).text + run.text, run: (open as { run: typeof run }).run };
  }
  finish();
  return { lines, unread };
}

function lineOf(text: string, run: { x: number; y: number; style: Style }): Line {
  const { style } = run;
  const size = lengthIn(style['font-size'] ?? '', USUAL_SIZE) ?? USUAL_SIZE;
  const anchor = style['text-anchor'];
  return {
    text,
    style,
    matrix: compose(scaling(1, -1), translation(run.x, run.y)),
    capitalMm: size * CAPITAL_SHARE,
    align: anchor === 'middle' ? 'centre' : anchor === 'end' ? 'right' : 'left',
    face: (style['font-family'] ?? '').split(',')[0]?.replace(/["']/g, '').trim() ?? '',
    bold: /^(bold|bolder|[6-9]00)$/.test(style['font-weight'] ?? ''),
    italic: /^(italic|oblique)$/.test(style['font-style'] ?? ''),
  };
}
