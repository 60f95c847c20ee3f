/** A field for a typed value: text is read as it is typed, steps with the arrow keys, and says in a sentence when it can't be read. */
import { type KeyboardEvent, type ReactNode, useEffect, useId, useLayoutEffect, useRef, useState } from 'react';
import Form from 'react-bootstrap/Form';
import InputGroup from 'react-bootstrap/InputGroup';
import type { Parsed } from '@/core/units/quantity';
import { isFromElsewhere } from './typing';
import styles from './ui.module.css';

/** What a field for a typed value is given. */
export type TypedFieldProps = {
  readonly label: string;
  readonly value: number;
  /** Whether what is acted on differs: then no value is shown until one is set. */
  readonly mixed?: boolean;
  readonly parse: (text: string) => Parsed;
  readonly format: (value: number) => string;
  readonly suffix?: string;
  readonly step: number;
  readonly least?: number;
  readonly most?: number;
  /** Says the limits in the user's unit when a value lies outside. */
  readonly limits?: string | null;
  /** `typed` is the text the value was read from; left out where it was stepped to or taken back. */
  readonly onChange: (value: number, typed?: string) => void;
  readonly disabled?: boolean;
  /** Only the field, with the label for screen readers. */
  readonly bare?: boolean;
  readonly prefix?: ReactNode;
};

/** A field for a value that is typed: taken over when it can be read, with a sentence when not. */
export function TypedField(props: TypedFieldProps) {
  const { label, value, parse, format, suffix, step, least = -Infinity, most = Infinity, onChange } = props;
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [sentence, setSentence] = useState<string | null>(null);
  const sent = useRef(value);
  /** Values sent while typing: what comes of each may be shown only when the next is typed already. */
  const onTheirWay = useRef<number[]>([]);
  const field = useRef<HTMLInputElement>(null);
  /** What there was when the field was gone into. */
  const before = useRef(value);

  // A change from elsewhere (undo, the sheet) replaces what is being typed; what comes of an earlier digit does not.
  useEffect(() => {
    if (isFromElsewhere(value, sent.current, onTheirWay.current)) {
      sent.current = value;
      setText(null);
      setSentence(null);
    }
  }, [value]);

  // A value that comes while the field is in hand and nothing is typed yet is chosen whole, as the one before it was: what is typed
  // next stands in its place and not behind it.
  const shown = text ?? (props.mixed ? '' : format(value));
  useLayoutEffect(() => {
    if (text === null && shown !== '' && document.activeElement === field.current) field.current?.select();
  }, [text, shown]);

  const send = (next: number, typed?: string) => {
    if (next === sent.current && !props.mixed) return;
    sent.current = next;
    onTheirWay.current.push(next);
    onChange(next, typed);
  };

  const read = (typed: string) => {
    setText(typed);
    const parsed = parse(typed);
    if (!parsed.ok) return setSentence(parsed.sentence);
    if (parsed.value < least || parsed.value > most)
      return setSentence(props.limits ?? 'That is outside of what is possible.');
    setSentence(null);
    // What is shown is rounded; the value is only changed by typing something else.
    if (typed !== format(sent.current)) send(parsed.value, typed);
  };

  const settle = () => {
    onTheirWay.current = [];
    if (!sentence) setText(null);
  };

  const keyDown = (event: KeyboardEvent) => {
    const way = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
    if (way !== 0) {
      event.preventDefault();
      const by = step * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
      const next = Math.min(most, Math.max(least, Math.round((value + way * by) * 1e6) / 1e6));
      setText(null);
      setSentence(null);
      send(next);
    } else if (event.key === 'Enter') settle();
    else if (event.key === 'Escape') {
      // What was typed is taken back, and nothing else; where nothing was, the field is left.
      if (text === null && sent.current === before.current) return;
      setText(null);
      setSentence(null);
      send(before.current);
      event.nativeEvent.stopImmediatePropagation();
    }
  };

  const control = (
    <>
      <InputGroup size="sm" className={styles.typed}>
        {props.prefix && <InputGroup.Text className={styles.prefix}>{props.prefix}</InputGroup.Text>}
        <Form.Control
          ref={field}
          id={id}
          aria-label={props.bare ? label : undefined}
          aria-invalid={sentence !== null}
          aria-describedby={sentence ? `${id}-why` : undefined}
          className="nf-figure"
          autoComplete="off"
          spellCheck={false}
          disabled={props.disabled ?? false}
          isInvalid={sentence !== null}
          value={shown}
          placeholder={props.mixed ? 'mixed' : undefined}
          onFocus={(e) => {
            before.current = value;
            e.target.select();
          }}
          onChange={(e) => read(e.target.value)}
          onBlur={settle}
          onKeyDown={keyDown}
        />
        {suffix && <InputGroup.Text>{suffix}</InputGroup.Text>}
      </InputGroup>
      {sentence && (
        <div id={`${id}-why`} role="alert" className={styles.sentence}>
          {sentence}
        </div>
      )}
    </>
  );
  if (props.bare) return <div>{control}</div>;
  return (
    <div className={styles.row}>
      <Form.Label htmlFor={id} className={styles.label}>
        {label}
      </Form.Label>
      <div>{control}</div>
    </div>
  );
}
