/** The pages of a file in small pictures, of which one is chosen. */
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { picturingPages } from '@/worker/client';
import type { PagePicture } from '@/worker/reading';
import { turnTo, useBringIn } from './bring-in';
import styles from './bring-in.module.css';

/** Pages pictured at first, and more at each press. */
const AT_ONCE = 24;

/** The pages of the file that is brought in; the one that is looked at is marked. */
export function Pages({ count, page }: { count: number; page: number }) {
  const bytes = useBringIn((s) => s.incoming?.bytes);
  const [to, setTo] = useState(Math.max(AT_ONCE, page + 1));
  const [pictures, setPictures] = useState<ReadonlyMap<number, PagePicture>>(new Map());
  const next = useRef(0);
  useEffect(() => {
    if (!bytes) return;
    return picturingPages(bytes, { from: next.current, to }, (picture) => {
      next.current = picture.page + 1;
      setPictures((now) => new Map(now).set(picture.page, picture));
    });
  }, [bytes, to]);
  return (
    <fieldset className={styles.pages}>
      <legend className="visually-hidden">Pages</legend>
      {[...Array(Math.min(to, count)).keys()].map((i) => {
        const picture = pictures.get(i);
        return (
          <button
            key={i}
            type="button"
            className={styles.page}
            aria-pressed={i === page}
            aria-label={`Page ${i + 1}`}
            onClick={() => void turnTo(i)}
          >
            {picture && <Stamp {...picture} />}
            <span className="nf-figure">{i + 1}</span>
          </button>
        );
      })}
      {to < count && (
        <Button variant="plain" onClick={() => setTo(to + AT_ONCE)}>
          {(count - to).toLocaleString('en')} more
        </Button>
      )}
    </fieldset>
  );
}

const Stamp = ({ width, height, filled, lines }: PagePicture) => (
  <svg viewBox={`0 ${-height} ${width} ${height}`} aria-hidden="true">
    <g transform="scale(1 -1)">
      <path d={filled} fillOpacity={0.6} />
      <path d={lines} className={styles.line} fill="none" />
    </g>
  </svg>
);
