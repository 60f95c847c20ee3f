/** What tools and times are called. */
import type { FillTool } from '@/core/document/schema';
import { formatLength, type LengthUnit } from '@/core/units/quantity';

const SHAPES: readonly (readonly [FillTool['shape'], string])[] = [
  ['line', 'a pen or beam'],
  ['flat', 'a flat tool'],
  ['round', 'a round-ended tool'],
  ['cone', 'a cone'],
];

/** The kinds of tools, to choose from. */
export const ToolShapes = () =>
  SHAPES.map(([value, word]) => (
    <option key={value} value={value}>
      {word}
    </option>
  ));

/** A tool in a few words, by what tells it from others. */
export const toolWords = (
  { shape, tip, angle }: Pick<FillTool, 'shape' | 'tip' | 'angle'>,
  unit: LengthUnit,
): string => {
  const wide = formatLength(tip, unit, unit === 'mm' ? 2 : 3);
  if (shape === 'cone') return `cone ${angle}°, tip ${wide}`;
  return shape === 'round' ? `round ${wide}` : shape === 'flat' ? `flat ${wide}` : `pen ${wide}`;
};

/** A time in minutes, in words. */
export const minutesWords = (minutes: number): string =>
  minutes < 1
    ? `${Math.max(1, Math.round(60 * minutes))} s`
    : minutes < 90
      ? `${minutes.toFixed(1)} min`
      : `${(minutes / 60).toFixed(1)} h`;
