'use client';

/** Pages that stand in for another: while it comes, or because it can't. */
import Link from 'next/link';
import { type ReactNode, useEffect, useState } from 'react';
import Spinner from 'react-bootstrap/Spinner';
import styles from './waiting.module.css';

/** After so long it is told that the server does not answer, in ms. */
const LATE_MS = 3_000;

/** What is told then. */
export const LATE = 'The server does not answer yet. It is still waited for.';

/** Whether something has been under way for so long that it is to be told. */
export function useIsLate(isUnderWay: boolean): boolean {
  const [isLate, setIsLate] = useState(false);
  useEffect(() => {
    if (!isUnderWay) return;
    const timer = setTimeout(() => setIsLate(true), LATE_MS);
    return () => {
      clearTimeout(timer);
      setIsLate(false);
    };
  }, [isUnderWay]);
  return isUnderWay && isLate;
}

/** Something is on its way from the server; `words` are read out. */
export function Waiting({ words }: { words: string }) {
  const isLate = useIsLate(true);
  return (
    <main className={styles.page}>
      <Spinner role="status" aria-label={words} className="mx-auto" />
      {isLate && (
        <p className="m-0" role="alert">
          {LATE}
        </p>
      )}
    </main>
  );
}

/** A sentence in place of a page; `children` are ways on besides the list of jobs, `more` is what belongs to the sentence. */
export const Notice = ({ sentence, more, children }: { sentence: string; more?: ReactNode; children?: ReactNode }) => (
  <main className={styles.page}>
    <p className="m-0" role="alert">
      {sentence}
    </p>
    {more}
    <div className="d-flex justify-content-center gap-2">
      {children}
      <Link className={children ? 'btn btn-plain' : 'btn btn-primary'} href="/">
        All jobs
      </Link>
    </div>
  </main>
);
