/** Steps of a part: first values that suit its size, and their order. */
import type { CloseUp, Part, Step, StepOf } from './schema';

/**
 * Thickening comes before ties, so that ties have the width asked for; the border goes around everything, the plate around
 * what is cut out of it, and bridges hold what is loose then.
 */
const ORDER: readonly Step['kind'][] = [
  'weld',
  'thicken',
  'bar',
  'tie',
  'border',
  'plate',
  'nodes',
  'bridge',
  'centerline',
  'dots',
  'hatch',
];

export const stepIn = <K extends Step['kind']>(part: Pick<Part, 'steps'>, kind: K): StepOf<K> | undefined =>
  part.steps.find((s): s is StepOf<K> => s.kind === kind);

/** The steps with one put in or replaced, in order. */
export const withStep = (steps: readonly Step[], step: Step): Step[] =>
  [...steps.filter((s) => s.kind !== step.kind), step].sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind));

const tenths = (mm: number): number => Math.max(0.1, Math.round(mm * 10) / 10);

/**
 * What first values are made from, in mm: the height of a capital, or what stands for it, the least safe width and the
 * kerf.
 */
export type Measure = {
  readonly capHeightMm: number;
  readonly leastWidthMm: number | null;
  readonly kerfMm: number | null;
};

/** Bridges as they are usual: wider where a flame cuts, which is told by its kerf. */
const BRIDGE_MM = 3;
const BRIDGE_BY_FLAME_MM = 5;
const FLAME_KERF_MM = 0.9;

const usualBridge = (kerfMm: number | null): number =>
  (kerfMm ?? 0) >= FLAME_KERF_MM ? BRIDGE_BY_FLAME_MM : BRIDGE_MM;

export const newCloseUp = ({ capHeightMm, leastWidthMm }: Measure): CloseUp => ({
  overlap: tenths(Math.max(1.2 * (leastWidthMm ?? 0), capHeightMm / 40)),
  words: false,
  lines: false,
});

/** A step of a kind, switched on, with values that suit the size. */
export function newStep<K extends Step['kind']>(kind: K, measure: Measure): StepOf<K>;
export function newStep(kind: Step['kind'], { capHeightMm, leastWidthMm, kerfMm }: Measure): Step {
  const thin = tenths(capHeightMm / 25);
  switch (kind) {
    case 'weld':
      return { kind, on: true };
    case 'thicken':
      return {
        kind,
        on: true,
        by: Math.round(Math.max(0.05, capHeightMm / 100) * 20) / 20,
        corners: 'round',
        holesOpen: null,
      };
    case 'bar':
      return {
        kind,
        on: true,
        at: 'under',
        height: tenths(Math.max(leastWidthMm ?? 0, capHeightMm / 6)),
        overlap: thin,
        beyond: 0,
        ends: 'square',
      };
    case 'tie':
      return {
        kind,
        on: true,
        width: tenths(Math.max(leastWidthMm ?? 0, capHeightMm / 12)),
        overlap: thin,
        ends: 'square',
        direction: 'any',
        answers: [],
      };
    case 'border':
      return {
        kind,
        on: true,
        distance: tenths(capHeightMm / 4),
        corners: 'round',
        envelope: false,
        bridge: 0,
        smooth: 0,
        holesFrom: null,
      };
    case 'plate': {
      const margin = Math.max(1, Math.round(capHeightMm / 3));
      return {
        kind,
        on: true,
        shape: 'rectangle',
        across: margin,
        upright: margin,
        corner: 0,
        holes: 'none',
        holeWidth: 5,
        inset: tenths(Math.max(5, margin / 2)),
      };
    }
    case 'nodes':
      return { kind, on: true, d: '', unit: Math.max(0.01, capHeightMm), over: { segments: 0, area: 0, length: 0 } };
    case 'bridge':
      return {
        kind,
        on: true,
        width: Math.max(usualBridge(kerfMm), leastWidthMm ?? 0),
        direction: 'any',
        count: 0,
        sides: 'straight',
        joints: 'square',
        slanted: true,
        alike: true,
        level: false,
        islands: [],
        placed: [],
      };
    case 'centerline':
      return {
        kind,
        on: true,
        detail: 0.45,
        smooth: null,
        ends: 'tip',
        loops: 'kept',
        retraced: 'once',
        joined: true,
        dots: 'circle',
        corrections: [],
      };
    case 'hatch': {
      // A pen, as wide as goes several times into a stroke.
      const tip = Math.max(0.05, Math.round(capHeightMm * 2) / 40);
      return {
        kind,
        on: true,
        style: 'parallel',
        joined: true,
        tool: { shape: 'line', tip, angle: 60, depth: 0.5 },
        overlap: 0.3,
        angle: 45,
        outline: 'last',
        least: 0,
        rest: false,
        mostMissed: 0.03,
      };
    }
    case 'dots': {
      const diameter = tenths(Math.max(0.3, capHeightMm / 20));
      return {
        kind,
        on: true,
        along: 'outline',
        diameter,
        spacing: tenths(1.5 * diameter),
        even: true,
        apart: true,
        as: 'circle',
        changes: [],
      };
    }
  }
}
