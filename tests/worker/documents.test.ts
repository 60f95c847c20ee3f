/** Documents sent against the one before: what did not change stays the same at the other end. */
import { expect, test } from 'vitest';
import { moveChosen } from '../../src/core/commands/chosen';
import type { Job } from '../../src/core/document/schema';
import { DocumentSender, Documents, type DocumentUpdate } from '../../src/worker/documents';
import { jobWith, lettering, partOf } from '../support/jobs';

const three = jobWith(['a', 'b', 'c'].map((id) => partOf([lettering(id)], { id })));
/** Both ends with what comes between a page and its worker: nothing is the same object there. */
function ends() {
  const sender = new DocumentSender();
  const documents = new Documents();
  const sent: DocumentUpdate[] = [];
  const over = (job: Job): Job => {
    const { serial, update } = sender.send(job);
    if (update) {
      sent.push(update);
      documents.hold(structuredClone(update));
    }
    return documents.of(serial);
  };
  return { sender, documents, over, sent };
}

test('a document comes over as it is, the same one only once', () => {
  const { over, sent } = ends();
  expect(over(three)).toEqual(three);
  expect(over(three)).toBe(over(three));
  expect(sent).toHaveLength(1);
});

test('only parts that changed are sent, and the others stay the same objects', () => {
  const { over, sent } = ends();
  const first = over(three);
  const moved = moveChosen(three, { partIds: ['b'], memberId: null }, 5, 0);
  const second = over(moved);
  expect(second).toEqual(moved);
  expect(sent[1]?.parts.map((p) => (typeof p === 'number' ? p : 'sent'))).toEqual([0, 'sent', 2]);
  expect([second.parts[0] === first.parts[0], second.parts[1] === first.parts[1]]).toEqual([true, false]);
  expect(second.parts[2]).toBe(first.parts[2]);
});

test('parts taken out, put in and in another order come over as they are', () => {
  const { over } = ends();
  const first = over(three);
  const [a, b, c] = three.parts;
  if (!a || !b || !c) throw new Error('three parts');
  const other = { ...three, title: 'Other', parts: [c, { ...b, id: 'd' }, a] };
  const second = over(other);
  expect(second).toEqual(other);
  expect([second.parts[0], second.parts[2]]).toEqual([first.parts[2], first.parts[0]]);
  expect(over({ ...three, parts: [] })).toEqual({ ...three, parts: [] });
  expect(over(three)).toEqual(three);
});

test('older documents are let go, and asking about one is an error, not another document', () => {
  const { documents, over, sender } = ends();
  over(three);
  const first = sender.send(three).serial;
  for (let i = 0; i < 15; i++) over({ ...three, title: `${i}` });
  expect(documents.of(first)).toEqual(three);
  over({ ...three, title: 'one more' });
  expect(() => documents.of(first)).toThrow('no longer held');
  const { parts: _parts, ...rest } = three;
  expect(() => documents.hold({ serial: 99, base: first, withoutParts: rest, parts: [0] })).toThrow('not held');
});
