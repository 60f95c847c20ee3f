/** How long a run takes: by hand where that can be said, and against the same rules integrated step by step. */
import { describe, expect, test } from 'vitest';
import { arcAbout, line, type Segment } from '../../src/core/geometry/segment';
import { type Motion, straightSeconds } from '../../src/core/motion/machine-motion';
import { runSeconds } from '../../src/core/motion/run-seconds';
import { FAMILIES, rawOutlines, set, typeface } from '../support/faces';
import { figure } from '../support/figures';
import { chance } from '../support/random';
import { sample } from '../support/scale';
import { integrated } from './integrate';

const motion = (more: Partial<Motion> = {}): Motion => ({
  speed: 100,
  axisSpeed: { x: 1000, y: 1000 },
  acceleration: { x: 1000, y: 1000 },
  cornerMm: 0.01,
  ...more,
});
const seconds = (segments: Segment[], more: Partial<Motion> = {}) => runSeconds(segments, motion(more));

describe('by hand', () => {
  test('a line: its length at speed, and the way up and down; a short one never gets to speed', () => {
    expect(seconds([line(0, 0, 100, 0)])).toBeCloseTo(100 / 100 + 100 / 1000, 9);
    expect(seconds([line(0, 0, 4, 0)])).toBeCloseTo(2 * Math.sqrt(4 / 1000), 9);
    expect(seconds([])).toBe(0);
    expect(straightSeconds(100, 0, motion())).toBeCloseTo(1.1, 9);
    expect(straightSeconds(0, 4, motion())).toBeCloseTo(2 * Math.sqrt(4 / 1000), 9);
    expect(straightSeconds(0, 0, motion())).toBe(0);
  });

  test('a line in a thousand pieces is that line', () => {
    const pieces = Array.from({ length: 1000 }, (_, i) => line(i / 10, 0, (i + 1) / 10, 0));
    expect(seconds(pieces)).toBeCloseTo(1.1, 6);
  });

  test('turning back stops', () => {
    expect(seconds([line(0, 0, 100, 0), line(100, 0, 0, 0)])).toBeCloseTo(2.2, 6);
  });

  test('a right angle is gone round as fast as the deviation allows', () => {
    const half = Math.SQRT1_2;
    // From one axis to the other both of them push.
    const through = Math.sqrt((1000 * Math.SQRT2 * 0.01 * half) / (1 - half));
    const leg = 50 / 100 + 100 / 2000 + (100 - through) ** 2 / (2 * 1000 * 100);
    expect(seconds([line(0, 0, 50, 0), line(50, 0, 50, 50)])).toBeCloseTo(2 * leg, 9);
  });

  test('round circles, and into a curve and out of it, as integrated step by step', () => {
    const halves = [arcAbout(0, 0, 1, 0, Math.PI), arcAbout(0, 0, 1, Math.PI, Math.PI)];
    const bend = [line(0, 0, 50, 0), arcAbout(50, 1, 1, -Math.PI / 2, Math.PI), line(50, 2, 0, 2)];
    for (const segments of [halves, bend]) {
      const apart = seconds(segments) / integrated(segments, motion()) - 1;
      expect(Math.abs(apart)).toBeLessThan(0.001);
    }
    // Never slower than the acceleration of one axis allows, nor faster than that of both.
    const [slow, fast] = [Math.sqrt(1000), Math.sqrt(1000 * Math.SQRT2)];
    expect(seconds(halves)).toBeGreaterThan((2 * Math.PI) / fast);
    expect(seconds(halves)).toBeLessThan((2 * Math.PI) / slow + slow / 1000);
  });

  test('each axis has its own limits', () => {
    const acceleration = { x: 1000, y: 250 };
    expect(seconds([line(0, 0, 0, 100)], { acceleration })).toBeCloseTo(1 + 0.4, 9);
    expect(seconds([line(0, 0, 100, 100)], { acceleration })).toBeCloseTo(Math.SQRT2 + 100 / (250 * Math.SQRT2), 9);
    expect(seconds([line(0, 0, 100, 0)], { axisSpeed: { x: 50, y: 500 } })).toBeCloseTo(2 + 0.05, 9);
    expect(straightSeconds(100, 100, motion({ acceleration }))).toBeCloseTo(Math.SQRT2 + 100 / (250 * Math.SQRT2), 9);
  });

  test('faster machines are never slower, and the way back takes as long', () => {
    const [o] = rawOutlines(set('Pacifico', 'g'), typeface('Pacifico'));
    const segments = [...(o?.segments ?? [])];
    const times = [500, 1000, 2000, 4000].map((a) => seconds(segments, { acceleration: { x: a, y: a } }));
    expect([...times].sort((a, b) => b - a)).toEqual(times);
  });
});

test('outlines of letters take as long as integrated step by step', { tags: 'slow' }, () => {
  const next = chance(26);
  const between = (low: number, high: number) => low * (high / low) ** next();
  const off: Record<'alike' | 'by axis', number[]> = { alike: [], 'by axis': [] };
  for (let i = 0; i < sample(12, 120); i++) {
    const family = FAMILIES[Math.floor(next() * FAMILIES.length)] as string;
    const letter = 'agSeR8&kmÅ'[Math.floor(next() * 10)] as string;
    const outlines = rawOutlines(
      set(family, letter, { size: { by: 'capital', mm: between(4, 80) } }),
      typeface(family),
    );
    const outline = outlines[Math.floor(next() * outlines.length)];
    if (!outline) continue;
    const a = between(500, 12000);
    const limits = motion({ speed: between(10, 600), acceleration: { x: a, y: a }, cornerMm: between(0.005, 0.05) });
    const byAxis = { ...limits, acceleration: { x: a, y: a * (0.2 + 0.8 * next()) } };
    const differs = (m: Motion) => Math.abs(runSeconds(outline.segments, m) / integrated(outline.segments, m) - 1);
    off.alike.push(differs(limits));
    off['by axis'].push(differs(byAxis));
  }
  for (const [how, aim] of [
    ['alike', 0.003],
    ['by axis', 0.01],
  ] as const) {
    const most = Math.max(...off[how]);
    figure({
      name: `time along outlines, axes ${how}: most that it differs from a step-by-step integration`,
      value: 100 * most,
      digits: 3,
      unit: '%',
      aim: { most: 100 * aim },
      note: `${off[how].length} outlines of letters, steps of 0.05 ms`,
    });
    expect(most).toBeLessThan(aim);
  }
});
