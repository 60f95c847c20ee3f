/** A part's own shape: members set, placed and combined, then its outline steps, in the part's own coordinates. */
import type { Member, Part } from '../document/schema';
import { regionBox } from '../geometry/path';
import { IDENTITY, uniteBoxes } from '../geometry/point';
import type { OutlineContext, Stepped } from '../kinds/step';
import { outlineStepOf, stepIn } from '../kinds/steps';
import { combineMembers, type DrawnMember, sideBySide } from '../prepare/combine';
import { framesOf } from '../prepare/frames';
import { amountOf, handMade, labelledLike, moveHandMade, nodesFrame, sameAmount, unitOf } from '../prepare/hand-made';
import { keptOf } from '../prepare/kept';
import { type PrepareContext, prepareMember, sourcesOf } from '../prepare/member';
import { boundsOf, nestAgain, type Outline, relabel } from '../prepare/outline';
import type { PreparedMember, PreparedPart, StepNote } from '../prepare/prepared';
import type { Source } from '../prepare/source';

const weldIsOn = (part: Part): boolean => stepIn(part, 'weld')?.on ?? true;

const totalArea = (outlines: readonly Outline[]): number => outlines.reduce((sum, o) => sum + o.area, 0);
/** Letters overlap when uniting them loses more than this share of their area. */
const OVERLAP_SHARE = 1e-6;

/**
 * Prepare one part in its own coordinates, all but its bridges. Pure: the same part, drawings and typefaces give the same
 * result, wherever the part lies. What is kept of a negative without a plate is not known before its sheet is: see `onSheet`.
 */
export function preparePart(part: Part, context: PrepareContext): PreparedPart {
  const copies = part.members.filter((member) => member.kind === 'copy').length;
  const solid = part.members.map((member) => prepareMember(member, true, copies, context));
  const sources = part.members.map((member, i) => sourcesOf(member, solid[i] as PreparedMember, part.keep));
  const drawnFrom = (prepared: readonly PreparedMember[]): DrawnMember[] => {
    let firstLabel = 0;
    return part.members.flatMap((member, i) => {
      const outlines = relabel((prepared[i] as PreparedMember).outlines, 0, firstLabel);
      firstLabel += (sources[i] as Source[]).length;
      return outlines.length > 0 ? [{ member, outlines }] : [];
    });
  };
  const bare = combineMembers(drawnFrom(solid), context.engine);
  const members = solid.map(({ layout, matrix }, i) => ({ role: (part.members[i] as Member).role, layout, matrix }));
  const stepped = outlineSteps(bare, part, {
    engine: context.engine,
    members,
    sources: sources.flat(),
    memory: context.memory,
  });
  const { keep, notes } = stepped;
  let shape = stepped.shape;
  const nodes = stepIn(part, 'nodes');
  const byHand = nodes?.on ? nodes : null;
  const first = solid[0];
  let openPaths = solid.flatMap((member) => member.openPaths);
  let handMadeNote: PreparedPart['handMade'] = null;
  if (byHand && first) {
    handMadeNote = {
      stale: !sameAmount(byHand.over, amountOf(shape, unitOf(first.layout?.capHeightMm ?? null, first.ownBox))),
      under: shape,
      underLines: openPaths,
    };
    const made = moveHandMade(handMade(context.engine, byHand.d, context.memory), nodesFrame(byHand, first));
    shape = labelledLike(made.outlines, stepped.shape);
    openPaths = [...made.openPaths];
  }
  let outlines = shape;
  let overlaps = false;
  if (!weldIsOn(part) && shape === bare && part.members.every((m) => m.role === 'join')) {
    const separate = sideBySide(drawnFrom(part.members.map((member) => prepareMember(member, false, copies, context))));
    overlaps = totalArea(separate) - totalArea(shape) > OVERLAP_SHARE * totalArea(shape);
    if (overlaps) outlines = nestAgain(separate);
  }
  const box = uniteBoxes(boundsOf(shape), regionBox(openPaths));
  return {
    id: part.id,
    matrix: IDENTITY,
    keep,
    solid: shape,
    sources: sources.flat(),
    frames: framesOf(part.members, solid, sources),
    members: solid,
    bare,
    outlines,
    openPaths,
    overlaps,
    handMade: handMadeNote,
    box,
    ownBox: box,
    notes,
    bridged: null,
    overall: null,
    ...(keep === 'inside' ? keptOf(shape, null, context.engine, context.memory) : { kept: [], pieces: [] }),
  };
}

/** What the outline steps of a part make of its bare shape, in the order of its list. */
function outlineSteps(
  bare: readonly Outline[],
  part: Part,
  context: Omit<OutlineContext, 'keep'>,
): Stepped & Pick<PreparedPart, 'notes'> {
  const notes = new Map<string, StepNote>();
  let stepped: Stepped = { shape: bare, keep: part.keep };
  for (const step of part.steps) {
    const run = outlineStepOf(step);
    if (!run || !step.on || stepped.shape.length === 0) continue;
    const { note, ...done } = run(stepped, { ...context, keep: part.keep });
    stepped = { ...stepped, ...done };
    if (note) notes.set(step.kind, note);
  }
  return { ...stepped, notes };
}
