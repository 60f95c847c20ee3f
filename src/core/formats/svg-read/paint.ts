/** What shapes of an SVG are painted with: fills and lines by their styles. */
import { determinant, type Matrix } from '../../geometry/point';
import { LIMITS } from '../../limits';
import type { Finder, ReadFill, ReadStroke } from '../read-drawing';
import type { Viewport } from './outlines';
import type { Cascade, Style } from './style';
import type { SvgElement } from './tree';
import { lengthIn, numbersIn, parseColour, parseReference } from './values';

/** What stands in for the colour of a pattern, or of a gradient without colours. */
export const PLAIN = '#808080';

/** How shapes of a style are painted where they lie. */
type Paint = {
  readonly fill: ReadFill | null;
  readonly stroke: ReadStroke | null;
  readonly view: Viewport;
  readonly determinant: number;
};

/** Fills and lines of styles, by what a file has by its ids; what they are read as is counted. */
export class Paints {
  private readonly known = new WeakMap<Style, Paint>();

  constructor(
    private readonly ids: ReadonlyMap<string, SvgElement>,
    private readonly cascade: Cascade,
    private readonly finder: Finder,
  ) {}

  /** How a style fills and strokes: found once for all shapes that are drawn alike, but for what refers to others and is counted. */
  of(style: Style, matrix: Matrix, view: Viewport): Paint {
    const known = this.known.get(style);
    if (known && known.view === view && known.determinant === determinant(matrix)) return known;
    const paint = {
      fill: this.fillOf(style),
      stroke: this.strokeOf(style, matrix, view),
      view,
      determinant: determinant(matrix),
    };
    if (!parseReference(style.fill) && !parseReference(style.stroke)) this.known.set(style, paint);
    return paint;
  }

  /** How a style fills; null where it does not. */
  fillOf(style: Style): ReadFill | null {
    const colour = this.paint(style.fill ?? 'black', style, style['fill-opacity']);
    return colour === null ? null : { colour, rule: style['fill-rule'] === 'evenodd' ? 'evenodd' : 'nonzero' };
  }

  /** How a style draws lines; null where it draws none. */
  strokeOf(style: Style, matrix: Matrix, view: Viewport): ReadStroke | null {
    const colour = this.paint(style.stroke ?? 'none', style, style['stroke-opacity']);
    const scale = Math.sqrt(Math.abs(determinant(matrix)));
    const reference = Math.hypot(view.width, view.height) / Math.SQRT2;
    const width = (lengthIn(style['stroke-width'] ?? '1', reference) ?? 1) * scale;
    if (!colour || !(width > 0)) return null;
    const among = <T extends string>(value: string | undefined, known: readonly T[], usual: T): T =>
      known.find((k) => k === value) ?? usual;
    const dashes = /^none$/.test(style['stroke-dasharray'] ?? 'none')
      ? []
      : numbersIn(style['stroke-dasharray'] as string);
    const sane = dashes.every((d) => d >= 0) && dashes.some((d) => d > 0);
    return {
      colour,
      widthMm: width,
      cap: among(style['stroke-linecap'], ['butt', 'round', 'square'], 'butt'),
      join: among(style['stroke-linejoin'], ['miter', 'round', 'bevel'], 'miter'),
      miter: Number(style['stroke-miterlimit'] ?? 4) || 4,
      dashesMm: sane ? dashes.slice(0, LIMITS.dashes).map((d) => d * scale) : [],
      dashOffsetMm: (lengthIn(style['stroke-dashoffset'], reference) ?? 0) * scale,
    };
  }

  /** The colour something is painted with; null when it is not seen. */
  private paint(value: string, style: Style, opacity: string | undefined): string | null {
    if (value === 'none' || Number.parseFloat(opacity ?? '1') <= 0) return null;
    if (/^currentcolor$/i.test(value)) return parseColour(style.color ?? 'black') ?? '#000000';
    const reference = parseReference(value);
    if (!reference) {
      if (value === 'transparent') return null;
      return parseColour(value) ?? '#000000';
    }
    const server = this.ids.get(reference.id);
    // What stands instead is a colour, and no further reference.
    if (!server)
      return parseReference(reference.fallback) ? null : this.paint(reference.fallback || 'none', style, opacity);
    this.finder.unread(
      server.name === 'pattern' ? 'patterns, read as plain colour' : 'shades of colour, read as plain colour',
    );
    return this.firstStop(server) ?? PLAIN;
  }

  /** The first colour of a gradient, or of the one it takes its colours from. */
  private firstStop(gradient: SvgElement): string | null {
    const seen = new Set<SvgElement>();
    for (let at: SvgElement | undefined = gradient; at && !seen.has(at); ) {
      seen.add(at);
      const stop = at.children.find((child) => child.name === 'stop');
      if (stop) return parseColour(this.cascade.of(stop, {})['stop-color'] ?? 'black');
      at = this.ids.get((at.attributes.get('href') ?? '').slice(1));
    }
    return null;
  }
}
