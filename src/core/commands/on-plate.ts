/** Things that come on a plate: in its middle, going along with it, engraved where the plate itself is cut out. */
import type { Job, Member, Part, Work } from '../document/schema';
import { boxCentre, boxHeight, boxWidth, isEmptyBox } from '../geometry/point';
import { isCut, workBy } from '../kinds/works';
import { doneBy } from '../shop/can';
import { goAlong } from './along';
import { type Around, roughBounds, sizedAlike } from './beside';
import { changed, type Done, partOf } from './changed';
import { newPart } from './defaults';
import { freeId } from './ids';
import { makeMember, type NewThing } from './new-member';

/** Capitals of new words are so large on a plate, as shares of its height and width. */
const OF_HEIGHT = 1 / 3;
const OF_WIDTH = 1 / 6;
/** Other things are so high, as a share of the plate's height. */
const THING = 1 / 2;

/** Words and ornaments are engraved on a plate; what else comes on it is cut out of it, as a hole is. */
const ENGRAVED: ReadonlySet<Member['kind']> = new Set(['lettering', 'bar', 'heart', 'star', 'polygon']);
/** Shapes that stand between words, on which nothing comes by itself. */
const ORNAMENTS: ReadonlySet<Member['kind']> = new Set(['bar', 'heart', 'star', 'spike']);

/** Whether a part is a plate that things come on: a shape or drawing that stays, without words of its own. */
export const isPlate = (part: Pick<Part, 'keep' | 'members' | 'reference'>): boolean =>
  part.keep === 'inside' &&
  !part.reference &&
  part.members.some((m) => m.role === 'join' && !ORNAMENTS.has(m.kind)) &&
  part.members.every((m) => m.kind !== 'lettering');

/** A new part on a plate, in its middle; it goes along with the plate. Nothing happens where that is not there, or not drawn. */
export function addOnPlate(
  job: Job,
  kind: NewThing,
  plateId: string,
  around: Around,
): Done<{ readonly partId: string | null; readonly memberId: string | null }> {
  const plate = partOf(job, plateId);
  const box = around.boxes.get(plateId);
  if (!plate || !box || isEmptyBox(box)) return { job, partId: null, memberId: null };
  const made = sizedFor(makeMember(job, kind), boxWidth(box), boxHeight(box), box);
  const centre = boxCentre(roughBounds(made, 0));
  const middle = boxCentre(box);
  const at = { x: round(middle.x - centre.x), y: round(middle.y - centre.y) };
  const member = { ...made, placement: { ...made.placement, ...at } };
  const partId = freeId(job, 'part');
  const part: Part = { ...newPart(partId, '', [member], job), ...workOnPlate(job, plate, kind, member) };
  const put = changed(job, (draft) => void draft.parts.push(part));
  return { job: goAlong(put, partId, plateId), partId, memberId: member.id };
}

const round = (mm: number): number => Math.round(mm * 1e3) / 1e3;

function sizedFor(member: Member, width: number, height: number, box: Parameters<typeof sizedAlike>[1]): Member {
  if (member.kind === 'lettering') {
    const mm = Math.max(1, Math.round(Math.min(OF_HEIGHT * height, OF_WIDTH * width)));
    return { ...member, size: { by: 'capital', mm: Math.min(mm, member.size.by === 'capital' ? member.size.mm : mm) } };
  }
  if (!('width' in member) || member.kind === 'rectangle') return member;
  const middle = boxCentre(box);
  const half = (THING * height) / 2;
  return sizedAlike(member, { ...box, minY: middle.y - half, maxY: middle.y + half });
}

/** What is done to what comes on a plate, by the first operation that suits and that the machine can do; as new things are worked where the plate is not cut. */
function workOnPlate(job: Job, plate: Part, kind: NewThing, member: Member): { readonly work?: Work[] } {
  const { machine } = job;
  const first = (wanted: 'engrave' | 'mark' | 'score') =>
    machine && !doneBy(machine.kind).includes(wanted) ? undefined : job.operations.find((o) => o.kind === wanted);
  if (kind === 'one-line lettering') {
    const line = first('mark') ?? first('score');
    return line ? { work: [workBy('outline', line.id)] } : {};
  }
  if (!isCut(plate.work, job.operations) || !ENGRAVED.has(member.kind)) return {};
  const engrave = first('engrave');
  if (engrave) return { work: [workBy('fill', engrave.id)] };
  const line = first('mark') ?? first('score');
  return line ? { work: [workBy('outline', line.id)] } : {};
}
