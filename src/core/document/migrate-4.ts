/** Format 4: three settings are called by what they hold. Their values stay as they were. */
import { isObject, type Json } from './json';

/** An object with one key called otherwise, in the same place; anything else, or one without that key, is passed on. */
const renamed = (value: unknown, from: string, to: string): unknown =>
  isObject(value) && from in value
    ? Object.fromEntries(Object.entries(value).map(([key, held]) => [key === from ? to : key, held]))
    : value;

const renamedStep = (step: unknown): unknown => {
  if (!isObject(step)) return step;
  if (step.kind === 'bridge') return renamed(step, 'placed', 'pinned');
  if (step.kind === 'hatch') return renamed(step, 'rest', 'fillMissed');
  return step;
};

const renamedMember = (member: unknown): unknown =>
  isObject(member) && 'close' in member ? { ...member, close: renamed(member.close, 'look', 'findUpTo') } : member;

const mapped = (list: unknown, map: (entry: unknown) => unknown): unknown =>
  Array.isArray(list) ? list.map(map) : list;

/** Bridges `placed` by hand are `pinned`, filling the `rest` is `fillMissed`, gaps are found up to `findUpTo` in place of `look`. */
export const renameSettings = (document: Json): Json =>
  Array.isArray(document.parts)
    ? {
        ...document,
        parts: document.parts.map((part: unknown) =>
          isObject(part)
            ? {
                ...part,
                ...('steps' in part && { steps: mapped(part.steps, renamedStep) }),
                ...('members' in part && { members: mapped(part.members, renamedMember) }),
              }
            : part,
        ),
      }
    : document;
