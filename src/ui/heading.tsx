import type { ReactNode } from 'react';
import styles from './ui.module.css';

/** A small heading in a panel with a figure or a word beside it. */
export function Heading({ children, beside }: { children: ReactNode; beside?: ReactNode }) {
  return (
    <h2 className={styles.heading}>
      <b>{children}</b>
      {beside !== undefined && <span>{beside}</span>}
    </h2>
  );
}
