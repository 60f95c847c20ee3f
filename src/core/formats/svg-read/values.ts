/** Values in SVG attributes: lengths, transforms, view boxes, colours. Matrices work on the file's own axes, y down. */
import colours from 'color-string';
import { compose, IDENTITY, type Matrix, scaling, translation } from '../../geometry/point';
import type { SvgElement } from './tree';

// No two parts of an expression here can take the same signs: else a long value that does not fit takes the square of its length.
const NUMBER = '[+-]?(?:\\d+(?:\\.\\d*)?|\\.\\d+)(?:[eE][+-]?\\d+)?';
const LENGTH = new RegExp(`^(${NUMBER})\\s*(px|mm|cm|in|pt|pc|q|em|rem|ex|%)?$`, 'i');
/** Signs of a colour, at most. */
const COLOUR_SIGNS = 200;

/** CSS pixels of one unit. */
const PIXELS: Readonly<Record<string, number>> = {
  px: 1,
  mm: 96 / 25.4,
  cm: 96 / 2.54,
  in: 96,
  pt: 96 / 72,
  pc: 16,
  q: 96 / 101.6,
};

/** All numbers in a text, in order. */
export const numbersIn = (text: string): number[] => (text.match(new RegExp(NUMBER, 'g')) ?? []).map(Number);

/** A length with the unit it is written in; '' for none. */
export type Length = { readonly value: number; readonly unit: string };

/** A length as CSS writes it; null where it is none. */
export function parseCssLength(text: string | undefined): Length | null {
  const found = text === undefined ? null : LENGTH.exec(text.trim());
  return found ? { value: Number(found[1]), unit: (found[2] ?? '').toLowerCase() } : null;
}

/** A length in user units; `reference` is what percentages count from. Null when it is none. */
export function lengthIn(text: string | undefined, reference: number, fontSize = 16): number | null {
  const length = parseCssLength(text);
  if (!length) return null;
  const { value, unit } = length;
  if (unit === '') return value;
  if (unit === '%') return (value / 100) * reference;
  if (unit === 'em' || unit === 'rem') return value * fontSize;
  if (unit === 'ex') return (value * fontSize) / 2;
  return value * (PIXELS[unit] as number);
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;
const matrix = (a: number, b: number, c: number, d: number, e: number, f: number): Matrix => ({ a, b, c, d, e, f });

/** A transform list; null when it is not one, and then nothing of it holds. */
export function parseTransform(text: string | undefined): Matrix | null {
  if (!text || text.trim() === 'none') return IDENTITY;
  const one = /\s*(?:,\s*)?(matrix|translate|scale|rotate|skewX|skewY)\s*\(([^)]*)\)/y;
  let all = IDENTITY;
  let end = 0;
  for (let found = one.exec(text); found; found = one.exec(text)) {
    end = one.lastIndex;
    const step = transformOf(found[1] as string, numbersIn(found[2] as string));
    if (!step) return null;
    all = compose(step, all);
  }
  return text.slice(end).trim() === '' ? all : null;
}

function transformOf(name: string, n: readonly number[]): Matrix | null {
  const [p = Number.NaN, q, r, s, t, u] = n;
  switch (name) {
    case 'matrix':
      return n.length === 6 ? matrix(p, q as number, r as number, s as number, t as number, u as number) : null;
    case 'translate':
      return n.length === 1 || n.length === 2 ? translation(p, q ?? 0) : null;
    case 'scale':
      return n.length === 1 || n.length === 2 ? scaling(p, q ?? p) : null;
    case 'rotate': {
      if (n.length !== 1 && n.length !== 3) return null;
      const [cos, sin] = [Math.cos(radians(p)), Math.sin(radians(p))];
      const turn = matrix(cos, sin, -sin, cos, 0, 0);
      const [cx, cy] = [q ?? 0, r ?? 0];
      return compose(compose(translation(-cx, -cy), turn), translation(cx, cy));
    }
    case 'skewX':
      return n.length === 1 ? matrix(1, 0, Math.tan(radians(p)), 1, 0, 0) : null;
    case 'skewY':
      return n.length === 1 ? matrix(1, Math.tan(radians(p)), 0, 1, 0, 0) : null;
    default:
      return null;
  }
}

/** The part of user space that a viewport shows. */
export type ViewBox = { readonly x: number; readonly y: number; readonly width: number; readonly height: number };

/** The value of a viewBox attribute; null where it is none. */
export function parseViewBox(text: string | undefined): ViewBox | null {
  const n = text
    ?.trim()
    .split(/[\s,]+/)
    .map(Number);
  if (n?.length !== 4 || !n.every(Number.isFinite)) return null;
  const [x, y, width, height] = n as [number, number, number, number];
  return { x, y, width, height };
}

/** From a view box to the area it fills. Null when it shows nothing. */
export function fitViewBox(box: ViewBox, width: number, height: number, aspect: string | undefined): Matrix | null {
  if (!(box.width > 0 && box.height > 0)) return null;
  const how = (aspect ?? 'xMidYMid meet').replace(/^\s*defer\s+/, '').trim();
  let sx = width / box.width;
  let sy = height / box.height;
  let dx = 0;
  let dy = 0;
  if (!how.startsWith('none')) {
    const s = how.includes('slice') ? Math.max(sx, sy) : Math.min(sx, sy);
    const share = (least: string, most: string) => (how.includes(least) ? 0 : how.includes(most) ? 1 : 0.5);
    dx = (width - box.width * s) * share('xMin', 'xMax');
    dy = (height - box.height * s) * share('YMin', 'YMax');
    sx = s;
    sy = s;
  }
  return matrix(sx, 0, 0, sy, dx - box.x * sx, dy - box.y * sy);
}

/** "#rrggbb", or null when a colour is none that is known or cannot be seen. */
export function parseColour(text: string): string | null {
  if (text.length > COLOUR_SIGNS) return null;
  const rgb = colours.get.rgb(text.trim().toLowerCase());
  if (!rgb || rgb[3] === 0) return null;
  return `#${rgb
    .slice(0, 3)
    .map((v) => Math.round(v).toString(16).padStart(2, '0'))
    .join('')}`;
}

/** The id in url(#id), and what follows it. */
export function parseReference(text: string | undefined): { readonly id: string; readonly fallback: string } | null {
  const found = /^\s*url\(\s*["']?#([^"')\s]+)["']?\s*\)(.*)$/s.exec(text ?? '');
  return found ? { id: found[1] as string, fallback: (found[2] as string).trim() } : null;
}

/** An attribute as a length in user units. */
export const lengthAttribute = (element: SvgElement, name: string, reference: number, fallback = 0): number =>
  lengthIn(element.attributes.get(name), reference) ?? fallback;
