/** Taking parts apart and putting them together without changing what is cut. */
import type { Member, Part, Work } from '../document/schema';
import { carryPlaces } from './carry';

/**
 * One part for every member that is joined. What is cut out or kept within after it goes along with each, because
 * (A ∪ B) − C = (A − C) ∪ (B − C), and the same with ∩. The first keeps the id; `freeId` names the others, given those
 * already named.
 */
export function splitPart(part: Part, freeId: (taken: readonly string[]) => string): Part[] {
  const joined = part.members.flatMap((m, i) => (m.role === 'join' ? [i] : []));
  if (joined.length < 2) return [part];
  const ids: string[] = [];
  return joined.map((at, k): Part => {
    const id = k === 0 ? part.id : freeId(ids);
    ids.push(id);
    // What stands before the first joined member changes nothing; it stays where it was.
    const before = k === 0 ? part.members.slice(0, at) : [];
    const after = part.members.slice(at + 1).filter((m) => m.role !== 'join');
    const members: Member[] = structuredClone([...before, part.members[at] as Member, ...after]);
    return { ...structuredClone(part), id, name: k === 0 || !part.name ? part.name : `${part.name} ${k + 1}`, members };
  });
}

/** The same for parts whose outlines and insides are given to the same operations. */
const workKey = (part: Part): string =>
  part.work
    .map((w) => `${w.what} ${w.operation} ${w.only === null ? 'all' : `some ${w.only.dots}`}`)
    .sort()
    .join();

/** Work for letters by themselves that is for those of another part too, of which the same is done. */
function withLetters(work: Work, others: readonly Work[]): Work {
  const other = others.find((w) => w.what === work.what && w.operation === work.operation && w.only !== null);
  if (!work.only || !other?.only) return work;
  return { ...work, only: { ...work.only, letters: [...new Set([...work.only.letters, ...other.only.letters])] } };
}

/** How a part is prepared beyond welding; the same for parts that may be one. */
const stepsKey = (part: Part): string => JSON.stringify(part.steps.filter((step) => step.on && step.kind !== 'weld'));

/** Two parts put into one, or a sentence why they can't be. */
export type Together =
  | ({ readonly ok: true } & Pick<Part, 'members' | 'starts' | 'tabs' | 'sides' | 'work'>)
  | { readonly ok: false; readonly sentence: string };

/**
 * The members of two parts as one. Where only one of them cuts out or keeps within, its members come first, so that
 * they do not touch the other's.
 */
export function putTogether(first: Part, second: Part, freeId: (taken: readonly string[]) => string): Together {
  const combines = (part: Part) => part.members.some((m) => m.role !== 'join');
  if (combines(first) && combines(second))
    return {
      ok: false,
      sentence: 'Both parts have something cut out or kept within; as one part, each would cut the other.',
    };
  if (first.keep !== second.keep)
    return { ok: false, sentence: 'One part is the shape and the other what is cut away; they can’t be one part.' };
  if (workKey(first) !== workKey(second))
    return { ok: false, sentence: 'The two are given to different operations; give them to the same ones first.' };
  if (stepsKey(first) !== stepsKey(second))
    return {
      ok: false,
      sentence: 'The two are thickened, tied or bordered differently; make that the same, or switch it off, first.',
    };
  const [before, after] = combines(second) ? [second, first] : [first, second];
  const taken = new Set(before.members.map((m) => m.id));
  const renamed = new Map<string, string>();
  const moved = after.members.map((m): Member => {
    const id = taken.has(m.id) ? freeId([...taken]) : m.id;
    taken.add(id);
    renamed.set(m.id, id);
    return { ...structuredClone(m), id, role: 'join' };
  });
  const [one, other] = [structuredClone(before), structuredClone(after)];
  carryPlaces(other, (letter) => letter.replace(/^.+(?=:)/, (member) => renamed.get(member) ?? member));
  return {
    ok: true,
    members: [...one.members, ...moved],
    starts: [...one.starts, ...other.starts],
    tabs: [...one.tabs, ...other.tabs],
    sides: [...one.sides, ...other.sides],
    work: one.work.map((w) => withLetters(w, other.work)),
  };
}
