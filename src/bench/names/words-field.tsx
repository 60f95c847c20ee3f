/** Where words are typed: fields stand marked among them, and are put in from a list of the columns. */
import { Undo2 } from 'lucide-react';
import { useId, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { memberOf } from '@/core/commands/changed';
import type { Lettering } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { fieldMark, hasFields, stretchesOf } from '@/core/roster/fields';
import { ownWordsOf, placeOfRow } from '@/core/roster/in-row';
import { withoutOwnWords } from '@/core/roster/kept';
import { keepable } from '@/core/units/text';
import styles from '../bench.module.css';
import { dispatchDocument, rowInHand, useBench } from '../store';
import { typeWords } from '../type-words';
import { BeginNames } from './begin';
import own from './words-field.module.css';

/** Words as they are typed: with their fields, or those that the row in hand has of its own. */
function useTyped(partId: string, member: Lettering): { readonly text: string; readonly isOwn: boolean } {
  const kept = useBench((s) => memberOf(s.document, partId, member.id));
  const changeFor = useBench((s) => s.changeFor);
  const rowWords = useBench(({ document, rowId }) =>
    ownWordsOf(document, placeOfRow(document, rowId), partId, member.id),
  );
  if (rowWords !== null) return { text: rowWords, isOwn: true };
  const isForAll = changeFor === 'all' && kept?.kind === 'lettering';
  return { text: isForAll ? kept.text : member.text, isOwn: false };
}

/** The words of a lettering. */
export function WordsField({ partId, member }: { partId: string; member: Lettering }) {
  const id = useId();
  const field = useRef<HTMLTextAreaElement>(null);
  const behind = useRef<HTMLDivElement>(null);
  const { text, isOwn } = useTyped(partId, member);
  const columns = useBench((s) => s.document.roster?.columns);
  const rowId = useBench(rowInHand);
  const marked = columns !== undefined && hasFields(text);
  const type = (words: string) => typeWords(partId, member.id, keepable(words));
  const putIn = (name: string) => {
    const at = field.current;
    const [from, to] = at ? [at.selectionStart, at.selectionEnd] : [text.length, text.length];
    type(text.slice(0, from) + fieldMark(name) + text.slice(to));
    const end = from + fieldMark(name).length;
    requestAnimationFrame(() => {
      at?.focus();
      at?.setSelectionRange(end, end);
    });
  };
  return (
    <>
      {/* A form of its own: at every key the browser looks through all fields of the form that one is in. */}
      <Form className="mb-2" autoComplete="off" onSubmit={(e) => e.preventDefault()}>
        <Form.Label htmlFor={id} className="fw-semibold mb-1 nf-small">
          Words
        </Form.Label>
        <div className={own.stack}>
          {marked && (
            <div ref={behind} className={`form-control ${styles.words} ${own.behind}`} aria-hidden="true" dir="auto">
              {stretchesOf(text).map(({ start, end, field: name }) =>
                name === null ? text.slice(start, end) : <mark key={start}>{text.slice(start, end)}</mark>,
              )}{' '}
            </div>
          )}
          <Form.Control
            as="textarea"
            ref={field}
            id={id}
            data-words
            dir="auto"
            className={`${styles.words} ${marked ? own.over : ''}`}
            value={text}
            maxLength={LIMITS.letteringStoredCharacters}
            placeholder="Type the words; Enter starts a line"
            spellCheck={false}
            onScroll={(e) => behind.current?.scrollTo({ top: e.currentTarget.scrollTop })}
            onChange={(e) => type(e.target.value)}
          />
        </div>
      </Form>
      {columns && columns.length > 0 && (
        <fieldset className={own.fields} aria-label="Put in from the list of names">
          <span className="nf-muted nf-small">Put in</span>
          {columns.map(({ id: columnId, name }) => (
            <Button
              key={columnId}
              variant="plain"
              title={`What each row has in its column “${name}”`}
              onClick={() => putIn(name)}
            >
              {name}
            </Button>
          ))}
        </fieldset>
      )}
      {isOwn && rowId && (
        <Button
          variant="word"
          className="mb-2"
          title="These words are this row’s own"
          onClick={() => dispatchDocument((job) => withoutOwnWords(job, rowId, partId, member.id))}
        >
          <Undo2 size={13} className="me-1" aria-hidden="true" />
          As in the other rows
        </Button>
      )}
      <BeginNames partId={partId} memberId={member.id} />
    </>
  );
}
