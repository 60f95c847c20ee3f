/** Tags: those there are, each to be taken away, and a field for another. */
import { X } from 'lucide-react';
import { useId, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import styles from './ui.module.css';

/** Tags that are set; `known` are offered while one is typed. */
export function TagsField({
  label,
  tags,
  known,
  onAdd,
  onRemove,
}: {
  label: string;
  tags: readonly string[];
  known: readonly string[];
  onAdd: (tag: string) => void;
  onRemove: (tag: string) => void;
}) {
  const id = useId();
  const [typed, setTyped] = useState('');
  const add = () => {
    if (typed.trim() !== '') onAdd(typed);
    setTyped('');
  };
  return (
    <div className={styles.tagsField}>
      {tags.map((tag) => (
        <span key={tag} className={styles.tag}>
          {tag}
          <button type="button" aria-label={`Remove the tag ${tag}`} title="Remove" onClick={() => onRemove(tag)}>
            <X size={13} aria-hidden="true" />
          </button>
        </span>
      ))}
      <Form.Control
        size="sm"
        list={id}
        aria-label={label}
        placeholder="Add a tag"
        autoComplete="off"
        value={typed}
        maxLength={LIMITS.tagCharacters}
        onChange={(e) => {
          const words = keepable(e.target.value);
          // A comma ends a tag, as Enter does.
          if (words.endsWith(',')) {
            if (words.slice(0, -1).trim() !== '') onAdd(words.slice(0, -1));
            setTyped('');
          } else setTyped(words);
        }}
        onBlur={add}
        onKeyDown={(e) => {
          if (e.key !== 'Enter') return;
          e.preventDefault();
          add();
        }}
      />
      <datalist id={id}>
        {known
          .filter((tag) => !tags.includes(tag))
          .map((tag) => (
            <option key={tag} value={tag} />
          ))}
      </datalist>
    </div>
  );
}
