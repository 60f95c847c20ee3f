/** How large an SVG file says its page is. */
import { determinant, IDENTITY } from '../../geometry/point';
import type { SizeClaim } from '../read-drawing';
import type { SvgElement } from './tree';
import { fitViewBox, lengthIn, parseCssLength, parseViewBox } from './values';

/** A CSS pixel in mm: 96 of them are an inch. */
export const MM_PER_PIXEL = 25.4 / 96;

const UNIT_NAMES: Readonly<Record<string, string>> = {
  mm: 'millimetres',
  cm: 'centimetres',
  in: 'inches',
  pt: 'points of 1/72 inch',
  pc: 'picas',
  q: 'quarter millimetres',
  px: 'pixels of 1/96 inch',
};

/** The page of a file, and from its user units to pixels; what the file says about its size. */
export function sizeOf(root: SvgElement) {
  const box = parseViewBox(root.attributes.get('viewBox'));
  const usable = box && box.width > 0 && box.height > 0 ? box : null;
  const sided = (name: string) => {
    const length = parseCssLength(root.attributes.get(name));
    if (!length || length.unit === '%' || !(length.value > 0)) return null;
    return { px: lengthIn(root.attributes.get(name), 0) as number, unit: length.unit };
  };
  const [w, h] = [sided('width'), sided('height')];
  const width = w?.px ?? (usable ? (h ? (h.px * usable.width) / usable.height : usable.width) : (h?.px ?? 300));
  const height = h?.px ?? (usable ? (width * usable.height) / usable.width : 150);
  const matrix = usable
    ? (fitViewBox(usable, width, height, root.attributes.get('preserveAspectRatio')) ?? IDENTITY)
    : IDENTITY;
  const unit = (w ?? h)?.unit ?? '';
  const claim: SizeClaim = {
    unit: UNIT_NAMES[unit || 'px'] ?? (UNIT_NAMES.px as string),
    mmPerUnit: MM_PER_PIXEL * Math.sqrt(Math.abs(determinant(matrix))),
    stated: unit !== '' && unit !== 'px',
    measure: 'pixels',
  };
  return {
    claim,
    matrix,
    page: { width: width * MM_PER_PIXEL, height: height * MM_PER_PIXEL },
    view: usable ?? { width, height },
  };
}
