/**
 * What was changed while a row is on the sheet, kept where it belongs: in the document, for all rows, or in the row alone. A command
 * is run on the job of the row, and what it made otherwise is found by comparing the two.
 */
import { current, isDraft, produce } from 'immer';
import { carryPlaces } from '../commands/carry';
import { changed } from '../commands/changed';
import type { Job, Member, Part, RosterRow, RowOwn, Step } from '../document/schema';
import { numbered, type PartOwn, takesFields } from './in-row';

/** Who a change is for: all rows, or the one that is on the sheet. */
export type ChangeFor = 'all' | 'row';

type Settings = Record<string, unknown>;

const isSame = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Settings that differ, by their names; one that is gone counts as null. */
function differing(before: object, after: object): string[] {
  const [one, other] = [before as Settings, after as Settings];
  return [...new Set([...Object.keys(one), ...Object.keys(other)])].filter((key) => !isSame(one[key], other[key]));
}

/** A part without what stands on letters of the words that differ from row to row. */
function withoutLetters(part: Part, filled: ReadonlySet<string>): Part {
  return produce(part, (draft) => {
    for (const member of draft.members) {
      if (member.kind !== 'lettering' || !filled.has(member.id)) continue;
      member.letters = [];
      if (member.closeUp) member.closeUp.pairs = member.closeUp.pairs.filter((pair) => pair.at === null);
    }
    carryPlaces(draft as Part, (key) => {
      const found = /^(.+):\d+(\/\d+)?$/.exec(key);
      return found && filled.has(found[1] as string) ? null : key;
    });
  });
}

/** A change of settings: taken over into `template`, what stands on letters of the row into `own`. Both are told by name. */
type Split = { readonly template: Settings; readonly own: Settings; readonly settled: readonly string[] };

function split(
  { before, after }: { readonly before: object; readonly after: object },
  bare: { readonly before: object; readonly after: object },
  changeFor: ChangeFor,
): Split {
  const [template, own]: [Settings, Settings] = [{}, {}];
  const settled: string[] = [];
  for (const key of differing(before, after)) {
    const now = (after as Settings)[key];
    if (changeFor === 'row') {
      own[key] = now;
      continue;
    }
    const [was, is] = [(bare.before as Settings)[key], (bare.after as Settings)[key]];
    if (!isSame(was, is)) {
      template[key] = is;
      settled.push(key);
    }
    if (!isSame(now, is) || isSame(was, is)) own[key] = now;
  }
  return { template, own, settled };
}

/** What is not own to a row as such, but the words that it fills. */
const NEVER_OWN = new Set(['text', 'id', 'kind']);

const withoutNever = (settings: Settings): Settings =>
  Object.fromEntries(Object.entries(settings).filter(([key]) => !NEVER_OWN.has(key)));

/**
 * The document after a change of what is on the sheet. `before` and `after` are the job of the row before and after it; what is
 * added or taken away is so for all rows, but steps in a row alone.
 */
export function keptInDocument(
  document: Job,
  {
    nth,
    before,
    after,
    changeFor,
  }: { readonly nth: number; readonly before: Job; readonly after: Job; readonly changeFor: ChangeFor },
): Job {
  if (before === after || !document.roster?.rows[nth]) return document;
  return changed(document, (draft) => {
    const row = draft.roster?.rows[nth] as RosterRow;
    const own: RowOwn = row.own ?? { parts: [], leftAsIs: [] };
    keepTop(draft, before, after);
    keepLeftAsIs(draft, own, after);
    keepParts(draft, own, { before, after, changeFor });
    own.parts = own.parts.filter((part) => !isNothing(part) && draft.parts.some((p) => p.id === part.id));
    row.own = own.parts.length + own.leftAsIs.length > 0 ? own : null;
  });
}

const isNothing = ({ set, members, steps }: PartOwn): boolean =>
  Object.keys(set).length + members.length + steps.length === 0;

/** Of the job itself; a title that is filled stays as it is kept. */
function keepTop(draft: Job, before: Job, after: Job): void {
  for (const key of Object.keys(after) as (keyof Job)[]) {
    if (key === 'parts' || key === 'roster' || key === 'layout' || key === 'leftAsIs' || before[key] === after[key])
      continue;
    (draft as unknown as Settings)[key] = after[key];
  }
}

/** Findings that are left as they are: those of the document as far as they still are, and all others the row's own. */
function keepLeftAsIs(draft: Job, own: RowOwn, after: Job): void {
  const left = new Map(after.leftAsIs.map((one) => [one.finding, one]));
  draft.leftAsIs = draft.leftAsIs.filter((one) => left.delete(one.finding));
  own.leftAsIs = [...left.values()];
}

function keepParts(
  draft: Job,
  own: RowOwn,
  { before, after, changeFor }: { readonly before: Job; readonly after: Job; readonly changeFor: ChangeFor },
): void {
  const were = new Map(before.parts.map((part) => [part.id, part]));
  const kept = new Map(draft.parts.map((part) => [part.id, part]));
  draft.parts = after.parts.map((part) => {
    const [was, template] = [were.get(part.id), kept.get(part.id)];
    if (!was || !template) return part;
    if (was !== part) keepPart(template, ownOf(own, part.id), { was, part, changeFor });
    return template;
  });
}

function ownOf(own: RowOwn, id: string): PartOwn {
  const known = own.parts.find((part) => part.id === id);
  if (known) return known;
  const made: PartOwn = { id, set: {}, members: [], steps: [] };
  own.parts.push(made);
  // Within a draft what was put in is reached by way of it.
  return own.parts[own.parts.length - 1] as PartOwn;
}

type PartChange = { readonly was: Part; readonly part: Part; readonly changeFor: ChangeFor };

function keepPart(template: Part, own: PartOwn, { was, part, changeFor }: PartChange): void {
  const plain = isDraft(template) ? current(template) : template;
  const filled = new Set(plain.members.filter(takesFields).map((m) => m.id));
  const bare = { was: withoutLetters(was, filled), part: withoutLetters(part, filled) };
  const { members: _m, steps: _s, ...rest } = part;
  const { members: _wm, steps: _ws, ...wasRest } = was;
  const { members: _bm, steps: _bs, ...bareRest } = bare.part;
  const { members: _bwm, steps: _bws, ...bareWasRest } = bare.was;
  const top = split({ before: wasRest, after: rest }, { before: bareWasRest, after: bareRest }, changeFor);
  Object.assign(template, top.template);
  own.set = merged(own.set, top);
  keepMembers(template, own, { was, part, changeFor }, bare, filled);
  keepSteps(template, own, { was, part, changeFor }, bare);
}

/** A row's own with a change: what was set for all is its own no longer. */
const merged = (own: Settings, { own: more, settled }: Split): PartOwn['set'] =>
  withoutNever({
    ...Object.fromEntries(Object.entries(own).filter(([key]) => !settled.includes(key))),
    ...more,
  }) as PartOwn['set'];

function keepMembers(
  template: Part,
  own: PartOwn,
  { was, part, changeFor }: PartChange,
  bare: { readonly was: Part; readonly part: Part },
  filled: ReadonlySet<string>,
): void {
  const of = (p: Part, id: string): Member | undefined => p.members.find((m) => m.id === id);
  template.members = part.members.map((member) => {
    const [before, kept] = [of(was, member.id), of(template, member.id)];
    if (!before || !kept) return member;
    if (before === member) return kept;
    const bareOf = { before: of(bare.was, member.id) ?? before, after: of(bare.part, member.id) ?? member };
    const { template: forAll, own: alone, settled } = split({ before, after: member }, bareOf, changeFor);
    // Words that take fields are changed as they are kept, not as they are filled.
    if (filled.has(member.id)) delete forAll.text;
    Object.assign(kept, forAll);
    const ownWords = changeFor === 'row' && typeof alone.text === 'string' ? { text: alone.text } : {};
    const known = own.members.find((m) => m.id === member.id)?.set ?? {};
    const { text: keptText } = known;
    const set = {
      ...(keptText === undefined ? {} : { text: keptText }),
      ...merged(known, { template: forAll, own: alone, settled }),
      ...ownWords,
    } as PartOwn['set'];
    own.members = own.members.filter((m) => m.id !== member.id);
    if (Object.keys(set).length > 0) own.members.push({ id: member.id, set });
    return kept;
  });
  own.members = own.members.filter((m) => part.members.some(({ id }) => id === m.id));
}

/** A step's name within its part: its kind, and which of that kind. */
const stepKey = ({ step, nth }: { readonly step: Step; readonly nth: number }): string => `${step.kind} ${nth}`;

const byKey = (steps: readonly Step[]): Map<string, Step> =>
  new Map(numbered(steps).map((at) => [stepKey(at), at.step]));

function keepSteps(
  template: Part,
  own: PartOwn,
  { was, part, changeFor }: PartChange,
  bare: { readonly was: Part; readonly part: Part },
): void {
  const [before, after, kept] = [byKey(was.steps), byKey(part.steps), byKey(template.steps)];
  const [bareBefore, bareAfter] = [byKey(bare.was.steps), byKey(bare.part.steps)];
  const ownOf = new Map(own.steps.map((s) => [`${s.kind} ${s.nth}`, s]));
  const put = (key: string, set: Settings | null, at: number | null = null) => {
    const [kind, nth] = key.split(' ') as [string, string];
    if (set !== null && at === null && Object.keys(set).length === 0) ownOf.delete(key);
    else ownOf.set(key, { kind, nth: Number(nth), at, set } as PartOwn['steps'][number]);
  };
  for (const [key, step] of after) {
    const [stepBefore, keptStep] = [before.get(key), kept.get(key)];
    if (stepBefore === step) continue;
    if (!keptStep) {
      // One that this row alone has; one put in for all rows is in the document from now on.
      if (stepBefore || changeFor === 'row') put(key, plainSettings(step), part.steps.indexOf(step));
      else kept.set(key, step);
      continue;
    }
    const about = stepBefore ?? keptStep;
    const bareOf = { before: bareBefore.get(key) ?? about, after: bareAfter.get(key) ?? step };
    const change = split({ before: about, after: step }, bareOf, changeFor);
    Object.assign(keptStep, change.template);
    put(key, merged((ownOf.get(key)?.set ?? {}) as PartOwn['set'], change));
  }
  for (const key of before.keys()) {
    if (after.has(key)) continue;
    const isOfAll = kept.has(key);
    if (isOfAll && changeFor === 'row') put(key, null);
    else {
      ownOf.delete(key);
      kept.delete(key);
    }
  }
  // In the order on the sheet; what this row is without stays before what it stood before.
  const order = [...after.keys()].filter((key) => kept.has(key));
  const hidden = [...kept.keys()].filter((key) => !after.has(key));
  const asKept = [...byKey(template.steps).keys()];
  for (const key of hidden) {
    const next = asKept.slice(asKept.indexOf(key) + 1).find((other) => order.includes(other));
    order.splice(next === undefined ? order.length : order.indexOf(next), 0, key);
  }
  template.steps = order.map((key) => kept.get(key) as Step);
  own.steps = [...ownOf.values()];
}

const plainSettings = ({ kind: _, ...settings }: Step): Settings => settings;

/** The document with a row whose words are those of the others again. */
export const withoutOwnWords = (job: Job, rowId: string, partId: string, memberId: string): Job =>
  changed(job, (draft) => {
    const row = draft.roster?.rows.find((r) => r.id === rowId);
    const part = row?.own?.parts.find((p) => p.id === partId);
    if (!row?.own || !part) return;
    for (const { id, set } of part.members) if (id === memberId) delete set.text;
    part.members = part.members.filter(({ set }) => Object.keys(set).length > 0);
    row.own.parts = row.own.parts.filter((p) => !isNothing(p));
    if (row.own.parts.length + row.own.leftAsIs.length === 0) row.own = null;
  });

/** The document with a row that has nothing of its own any more. */
export const likeTheOthers = (job: Job, rowId: string): Job =>
  changed(job, (draft) => {
    const row = draft.roster?.rows.find((r) => r.id === rowId);
    if (row) row.own = null;
  });
