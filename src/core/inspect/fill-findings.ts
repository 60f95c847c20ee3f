/** What is found about lines that fill: missed places, what the tool cannot reach, parts that would be filled over. */
import type { Job, Operation, Part, StepOf } from '../document/schema';
import { applyMatrix, growBox, invert, type Point } from '../geometry/point';
import { windingAt } from '../geometry/winding';
import { LIMITS } from '../limits';
import type { PreparedPart } from '../prepare/prepared';
import type { PartFill } from '../toolpath/fill/part-fill';
import { formatLength, type LengthUnit } from '../units/quantity';
import { type Draft, draft, partTitle } from './draft';

const percent = (share: number): string => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`;

export function fillFindings(
  part: Part,
  prepared: PreparedPart,
  fill: PartFill,
  step: StepOf<'hatch'>,
  unit: LengthUnit,
): Draft[] {
  const at = { partId: part.id, box: prepared.box };
  if (fill.tooMany !== null)
    return [
      draft(
        'too-many-lines',
        'fault',
        'fill',
        step.style === 'rings'
          ? `${partTitle(part)} would take more than ${LIMITS.fillRings.toLocaleString('en')} rings: none is made. Take a wider tool, or lines.`
          : `${partTitle(part)} would take more than ${LIMITS.fillLines.toLocaleString('en')} lines: none is made. Take a wider tool or less overlap.`,
        { ...at, detail: 'many' },
      ),
    ];
  const width = formatLength(fill.widthMm, unit);
  if (fill.reached.length === 0)
    return [
      draft(
        'fits-nowhere',
        'fault',
        'fill',
        `A tool that works ${width} wide fits nowhere in ${partTitle(part)}: nothing is filled.`,
        { ...at, detail: 'fits' },
      ),
    ];
  return [...reachFindings(part, prepared, fill, step, width), ...missedFindings(part, prepared, fill, unit)];
}

function reachFindings(
  part: Part,
  prepared: PreparedPart,
  { reach }: PartFill,
  step: StepOf<'hatch'>,
  width: string,
): Draft[] {
  const share = reach.missedMm2 / Math.max(reach.areaMm2, 1e-9);
  if (share <= step.mostMissed) return [];
  const letters = reach.letters.filter((l) => prepared.sources[l.source]?.text.trim());
  const worst = letters.reduce<(typeof letters)[number] | null>(
    (a, b) => (a && a.missedMm2 / a.areaMm2 >= b.missedMm2 / b.areaMm2 ? a : b),
    null,
  );
  const most =
    worst && letters.length > 1
      ? `, most of “${prepared.sources[worst.source]?.text.trim()}” (${percent(Math.min(1, worst.missedMm2 / worst.areaMm2))})`
      : '';
  return [
    draft(
      'beyond-reach',
      'caution',
      'fill',
      `A tool that works ${width} wide leaves ${percent(share)} of ${partTitle(part)}${most}: it does not fit there.`,
      { partId: part.id, box: prepared.box, detail: 'reach' },
    ),
  ];
}

function missedFindings(part: Part, prepared: PreparedPart, { cover, widthMm }: PartFill, unit: LengthUnit): Draft[] {
  const { ownBox } = prepared;
  const toOwn = invert(prepared.matrix);
  /** By where it is in the part, so that it keeps its key when the part is moved, turned or mirrored. */
  const keyOf = (at: Point): string => {
    const own = applyMatrix(toOwn, at);
    return `${(own.x - ownBox.minX).toFixed(1)},${(own.y - ownBox.minY).toFixed(1)}`;
  };
  const out = cover.places.slice(0, LIMITS.missedNamed).map((place) =>
    draft(
      'missed',
      'caution',
      'fill',
      `A place of ${formatLength(place.sizeMm[0], unit)} by ${formatLength(place.sizeMm[1], unit)} in ${partTitle(part)} is missed.`,
      {
        partId: part.id,
        box: growBox(place.box, 2 * widthMm),
        detail: keyOf(place.at),
        mend: { kind: 'rest' },
      },
    ),
  );
  const more = cover.places.length - out.length;
  if (more > 0)
    out.push(
      draft(
        'more-missed',
        'caution',
        'fill',
        `${more.toLocaleString('en')} more place${more === 1 ? '' : 's'} in ${partTitle(part)} ${more === 1 ? 'is' : 'are'} missed.`,
        { partId: part.id, detail: 'missed', mend: { kind: 'rest' } },
      ),
    );
  return out;
}

/** How a part is filled, and by which operation that is on; null when it is not. */
function fillOf(part: Part, operations: ReadonlyMap<string, Operation>): Operation | null {
  const hatched = part.steps.some((s) => s.kind === 'hatch' && s.on);
  for (const w of part.work) {
    const operation = operations.get(w.operation);
    if (operation?.on && (w.what === 'fill' || (w.what === 'hatch' && hatched))) return operation;
  }
  return null;
}

/**
 * Filled parts that lie wholly in the filled inside of another would vanish in it: both are filled, and what was to be seen
 * is not there. They belong together, the inner cut out of the outer.
 */
export function filledOver(job: Job, prepared: ReadonlyMap<string, PreparedPart>): Draft[] {
  const operations = new Map(job.operations.map((o) => [o.id, o]));
  const filled = job.parts.flatMap((part) => {
    const ready = prepared.get(part.id);
    const by = fillOf(part, operations);
    return ready && by && ready.outlines.length > 0 ? [{ part, ready, by }] : [];
  });
  return filled.flatMap((inner) =>
    filled.flatMap((outer) => {
      if (inner === outer || inner.by.kind !== outer.by.kind || !liesInside(inner.ready, outer.ready)) return [];
      return [
        draft(
          'filled-over',
          'fault',
          'fill',
          `${partTitle(inner.part)} lies in ${partTitle(outer.part)} and both are filled: it would not be seen.`,
          {
            partId: outer.part.id,
            box: inner.ready.box,
            detail: inner.part.id,
            mend: { kind: 'cut-out', otherId: inner.part.id },
          },
        ),
      ];
    }),
  );
}

/** Whether all of a shape lies in the filled inside of another, by a point of each of its outlines. */
function liesInside(inner: PreparedPart, outer: PreparedPart): boolean {
  const { box } = inner;
  const around = outer.box;
  if (box.minX < around.minX || box.maxX > around.maxX || box.minY < around.minY || box.maxY > around.maxY)
    return false;
  return inner.outlines.every(({ path }) => {
    const s = path.segments[0];
    if (!s) return true;
    const winding = outer.outlines.reduce((sum, o) => sum + windingAt(o.path, s.x0, s.y0), 0);
    return winding !== 0;
  });
}
