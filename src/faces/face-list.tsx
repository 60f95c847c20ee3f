/** The families of typefaces in the user's words: searched, narrowed down, and stepped through by the keyboard. */
import { useVirtualizer } from '@tanstack/react-virtual';
import { Star } from 'lucide-react';
import { type KeyboardEvent, type ReactNode, type RefObject, useEffect, useId, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { LIMITS } from '@/core/limits';
import { LOOKS, type Look } from '@/core/schema/face-about';
import { keepable } from '@/core/units/text';
import { FaceMarks } from './face-marks';
import { FaceWords } from './face-words';
import type { Family, ListedFace } from './faces';
import styles from './faces.module.css';
import { ASKED, type Asked, type TriedWords, useMeeting } from './trials';

/** Height of a row, in pixels. */
const ROW = 76;
/** Rows beyond the edges that are made ready. */
const BEYOND = 4;

type Order = 'name' | 'used';

const ASKED_TITLES: Readonly<Record<Asked, string>> = {
  'one piece': 'Comes off as one piece, as it is',
  'no islands': 'Nothing drops out when the words are cut out of a plate',
  'thick enough': 'No stroke thinner than is safe in this material',
  'every character': 'Has every character of the words',
};

/** Families that fit the words looked for, the look, and what was noted of them. */
function fitting(
  families: readonly Family[],
  { search, look, isFavourite, order }: { search: string; look: Look | ''; isFavourite: boolean; order: Order },
): Family[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = families.filter(({ family, faces }) => {
    const about = `${family} ${faces.map((f) => `${f.style} ${f.look} ${f.kept?.about.foundry ?? ''}`).join(' ')}`;
    const name = about.toLowerCase();
    return (
      words.every((word) => name.includes(word)) &&
      (look === '' || faces.some((f) => f.look === look)) &&
      (!isFavourite || faces.some((f) => f.favourite))
    );
  });
  const lastUsed = ({ faces }: Family) =>
    faces.reduce((last, { usedAt }) => (usedAt && usedAt > last ? usedAt : last), '');
  return order === 'used' ? found.sort((a, b) => (lastUsed(a) < lastUsed(b) ? 1 : -1)) : found;
}

/** Rows that pass by faster than this are not made ready, in ms. */
const PASSING_MS = 350;

/** What is in a row once that stays: one that comes while the list is scrolled fast may be gone in a moment. */
function AtRest({ isPassing, children }: { isPassing: boolean; children: ReactNode }) {
  const [stays, setStays] = useState(!isPassing);
  useEffect(() => {
    if (stays) return;
    const timer = setTimeout(() => setStays(true), PASSING_MS);
    return () => clearTimeout(timer);
  }, [stays]);
  return stays ? children : <span />;
}

/**
 * The list. `chosen` is the family that is chosen; choosing another by pointer or arrow keys is told at once, `onDone` when the list is
 * left by Enter.
 */
export function FaceList({
  families,
  words,
  units,
  chosen,
  onChoose,
  onDone,
  search,
}: {
  families: readonly Family[];
  words: TriedWords;
  units: 'mm' | 'in';
  chosen: string;
  onChoose: (face: ListedFace) => void;
  onDone?: () => void;
  /** The field that is looked for in; arrow keys in it step through the list. */
  search?: RefObject<HTMLInputElement | null>;
}) {
  // The virtual list changes in place, which the compiler can't see.
  'use no memo';
  const id = useId();
  const [sought, setSought] = useState('');
  const [look, setLook] = useState<Look | ''>('');
  const [isFavourite, setIsFavourite] = useState(false);
  const [order, setOrder] = useState<Order>('name');
  const [asked, setAsked] = useState<readonly Asked[]>([]);
  const fits = useMemo(
    () => fitting(families, { search: sought, look, isFavourite, order }),
    [families, sought, look, isFavourite, order],
  );
  const { shown, done } = useMeeting(fits, words, asked);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: BEYOND,
    getItemKey: (i) => shown[i]?.family ?? i,
  });
  const at = shown.findIndex(({ family }) => family === chosen);
  // What is chosen is in sight when the list opens.
  const isSought = useRef(true);
  useEffect(() => {
    if (!isSought.current || at < 0) return;
    isSought.current = false;
    virtual.scrollToIndex(at, { align: 'center' });
  }, [at, virtual]);
  const step = (to: number) => {
    const next = shown[Math.max(0, Math.min(shown.length - 1, to))];
    if (!next) return;
    virtual.scrollToIndex(shown.indexOf(next));
    onChoose(next.faces[0]);
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? ROW) / ROW) - 1);
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: page, PageUp: -page }[e.key];
    if (by !== undefined) step(at < 0 ? 0 : at + by);
    else if (e.key === 'Home' && e.target === scroller.current) step(0);
    else if (e.key === 'End' && e.target === scroller.current) step(shown.length - 1);
    else if (e.key === 'Enter' && onDone) onDone();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const option = (i: number) => `${id}-${i}`;
  const asks = ASKED.filter((ask) => ask !== 'thick enough' || words.leastMm > 0);
  return (
    <div className={styles.list}>
      <div className="d-flex gap-2">
        <Form.Control
          type="search"
          size="sm"
          ref={search}
          placeholder="Find by name, style or maker"
          aria-label="Find typefaces"
          aria-controls={`${id}-rows`}
          value={sought}
          maxLength={LIMITS.nameCharacters}
          onChange={(e) => setSought(keepable(e.target.value))}
          onKeyDown={onKeyDown}
        />
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="How the letters are built"
          value={look}
          onChange={(e) => setLook(e.target.value as Look | '')}
        >
          <option value="">any build</option>
          {LOOKS.map((l) => (
            <option key={l}>{l}</option>
          ))}
        </Form.Select>
      </div>
      <fieldset className={styles.asked} aria-label="What is asked of the words in it">
        {asks.map((ask) => (
          <Button
            key={ask}
            variant="plain"
            aria-pressed={asked.includes(ask)}
            title={ASKED_TITLES[ask]}
            onClick={() => setAsked(asked.includes(ask) ? asked.filter((a) => a !== ask) : [...asked, ask])}
          >
            {ask}
          </Button>
        ))}
        <Button variant="plain" aria-pressed={isFavourite} onClick={() => setIsFavourite(!isFavourite)}>
          <Star size={12} aria-hidden="true" /> favourites
        </Button>
        <Button
          variant="plain"
          aria-pressed={order === 'used'}
          onClick={() => setOrder(order === 'used' ? 'name' : 'used')}
        >
          last used first
        </Button>
      </fieldset>
      <p className="m-0 nf-small nf-muted" role="status">
        {shown.length === 1 ? '1 family' : `${shown.length.toLocaleString('en')} families`}
        {done < fits.length && ` · ${done.toLocaleString('en')} of ${fits.length.toLocaleString('en')} looked at`}
      </p>
      <div
        ref={scroller}
        id={`${id}-rows`}
        className={styles.rows}
        role="listbox"
        aria-label="Typefaces"
        tabIndex={0}
        aria-activedescendant={at >= 0 ? option(at) : undefined}
        onKeyDown={onKeyDown}
      >
        {shown.length === 0 && done >= fits.length && (
          <p className="m-3 nf-muted">No typeface fits. Take back some of what is asked, or bring in another one.</p>
        )}
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map(({ index, start, key }) => {
            const { family, faces } = shown[index] as Family;
            const [face] = faces;
            return (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the list answers to the keyboard.
              <div
                key={key}
                id={option(index)}
                role="option"
                tabIndex={-1}
                aria-selected={family === chosen}
                aria-label={`${family}, ${face.look}`}
                aria-setsize={shown.length}
                aria-posinset={index + 1}
                className={styles.row}
                style={{ height: ROW, transform: `translateY(${start}px)` }}
                onClick={() => onChoose(face)}
                onDoubleClick={onDone}
              >
                <AtRest isPassing={virtual.isScrolling}>
                  <FaceWords face={face} text={words.text} />
                </AtRest>
                <span className={styles.about}>
                  {faces.some((f) => f.favourite) && <Star size={11} aria-label="favourite" />}
                  <b>{family}</b>
                  <span>
                    {face.look}
                    {faces.length > 1 && ` · ${faces.length} styles`}
                  </span>
                  <AtRest isPassing={virtual.isScrolling}>
                    <FaceMarks face={face} words={words} units={units} />
                  </AtRest>
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
