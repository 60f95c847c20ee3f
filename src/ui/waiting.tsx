/** Pages that stand in for another: while it comes, or because it can't. */
import Link from 'next/link';
import type { ReactNode } from 'react';
import Spinner from 'react-bootstrap/Spinner';
import styles from './waiting.module.css';

/** Something is on its way; `words` are read out. */
export const Waiting = ({ words }: { words: string }) => (
  <main className={styles.page}>
    <Spinner role="status" aria-label={words} />
  </main>
);

/** A sentence in place of a page; `children` are ways on besides the list of jobs. */
export const Notice = ({ sentence, children }: { sentence: string; children?: ReactNode }) => (
  <main className={styles.page}>
    <p className="m-0" role="alert">
      {sentence}
    </p>
    <div className="d-flex justify-content-center gap-2">
      {children}
      <Link className={children ? 'btn btn-plain' : 'btn btn-primary'} href="/">
        All jobs
      </Link>
    </div>
  </main>
);
