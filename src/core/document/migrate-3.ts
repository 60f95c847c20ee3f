/**
 * Format 3: the list of a part's steps says in which order they are run. Before, some kinds had a fixed place whatever the list
 * said, and of kinds of which there is one, another in the list was passed over.
 */
import { isObject, type Json } from './json';

/** Places as they are in format 3; a kind that is not named stays among the outline steps. */
const PLACES = ['weld', 'outline', 'nodes', 'bridge', 'drawn'] as const;
const PLACE_OF: Readonly<Record<string, (typeof PLACES)[number]>> = {
  weld: 'weld',
  nodes: 'nodes',
  bridge: 'bridge',
  centerline: 'drawn',
  dots: 'drawn',
  hatch: 'drawn',
};
const SINGLE = ['weld', 'tie', 'plate', 'nodes', 'bridge', 'centerline', 'dots', 'hatch'];
/** Of these the first in the list was meant, whether it was on or not; of others the first that was on. */
const FIRST_IS_MEANT = ['centerline', 'dots', 'hatch'];

const placeOf = (step: unknown): number => PLACES.indexOf((isObject(step) && PLACE_OF[String(step.kind)]) || 'outline');
const isOn = (step: Json): boolean => step.on !== false;

/** The one step of a kind that was run. */
function meant(all: readonly Json[], kind: string): Json | undefined {
  const [first] = all;
  // Letters were welded unless any step said not to.
  if (kind === 'weld') return all.find((s) => !isOn(s)) ?? first;
  return FIRST_IS_MEANT.includes(kind) ? first : (all.find(isOn) ?? first);
}

function inOrder(steps: readonly unknown[]): unknown[] {
  const kept = steps.filter((step) => {
    if (!isObject(step) || !SINGLE.includes(String(step.kind))) return true;
    const same = steps.filter((s): s is Json => isObject(s) && s.kind === step.kind);
    return step === meant(same, String(step.kind));
  });
  return kept.sort((a, b) => placeOf(a) - placeOf(b));
}

/**
 * A document of format 2 in format 3: the steps of each part in the order they are run in, one of a kind of which
 * there is one.
 */
export const orderSteps = (document: Json): Json =>
  Array.isArray(document.parts)
    ? {
        ...document,
        parts: document.parts.map((part: unknown) =>
          isObject(part) && Array.isArray(part.steps) ? { ...part, steps: inOrder(part.steps) } : part,
        ),
      }
    : document;
