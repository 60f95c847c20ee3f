/** Which lines of words the fields below act on: all of them, or those that are pressed. */
import { type MouseEvent, useId } from 'react';
import { textLines } from '@/core/lettering/draft-lines';
import { Row } from '@/ui/fields';
import styles from '../bench.module.css';

/** Chooses lines; nothing is shown where there is only one. */
export function LineChooser({
  text,
  chosen,
  own,
  onChoose,
}: {
  text: string;
  /** Null for all. */
  chosen: readonly number[] | null;
  /** Lines that have something of their own. */
  own: readonly number[];
  onChoose: (lines: readonly number[] | null) => void;
}) {
  const id = useId();
  const lines = textLines(text);
  if (lines.length < 2) return null;
  const press = (line: number, event: MouseEvent) => {
    if (!(event.shiftKey || event.ctrlKey || event.metaKey))
      return onChoose(chosen?.length === 1 && chosen[0] === line ? null : [line]);
    const now = chosen ?? [];
    const next = now.includes(line) ? now.filter((l) => l !== line) : [...now, line];
    onChoose(next.length === 0 ? null : next);
  };
  return (
    <Row label={<span id={id}>Acts on</span>}>
      <fieldset className={styles.lines} aria-labelledby={id}>
        <button type="button" aria-pressed={chosen === null} onClick={() => onChoose(null)}>
          all lines
        </button>
        {lines.map((line, i) =>
          line.trim() === '' ? null : (
            <button
              // biome-ignore lint/suspicious/noArrayIndexKey: a line is told by where it stands.
              key={i}
              type="button"
              dir="auto"
              aria-pressed={chosen?.includes(i) ?? false}
              aria-label={`Line ${i + 1}: ${line.trim()}${own.includes(i) ? ', set by itself' : ''}`}
              title="The fields below act on this line; Shift adds more"
              data-own={own.includes(i)}
              onClick={(e) => press(i, e)}
            >
              {line.trim()}
            </button>
          ),
        )}
      </fieldset>
    </Row>
  );
}
