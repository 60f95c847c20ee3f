/** The end of a list that goes on: what comes next is fetched once it is near, or when it is asked for. */
import { useEffect, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import styles from './jobs.module.css';

/** How far from the window the end of the list is when more of it is fetched. */
const NEAR = '600px';

type Props = {
  readonly isPending: boolean;
  /** Whether more is fetched without being asked for: not after that has gone wrong. */
  readonly isByItself: boolean;
  readonly onMore: () => void;
};

/** Fetches more when it comes near the window. */
export function More({ isPending, isByItself, onMore }: Props) {
  const ref = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!ref.current || isPending || !isByItself) return;
    const observer = new IntersectionObserver(
      (entries) => {
        if (entries.some((entry) => entry.isIntersecting)) onMore();
      },
      { rootMargin: NEAR },
    );
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, [isPending, isByItself, onMore]);
  return (
    <div ref={ref} className={styles.more}>
      <Button variant="plain" disabled={isPending} onClick={onMore}>
        {isPending ? 'Fetching more jobs …' : 'More jobs'}
      </Button>
    </div>
  );
}
