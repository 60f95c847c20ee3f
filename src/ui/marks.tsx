/** Small drawn marks: the needlefile itself, and how each kind of operation is drawn. */
import type { OperationKind } from '@/core/document/schema';
import styles from './ui.module.css';

/** The mark of the app: a needle. */
export function Logo() {
  return (
    <svg className={styles.logo} width="30" height="16" viewBox="0 0 30 16" aria-hidden="true">
      <path d="M0 8 9 5.6 29 7.2Q30 8 29 8.8L9 10.4Z" fill="var(--nf-accent)" />
      <path d="M9 5.6V10.4M12 5.9V10.1M15 6.1V9.9M18 6.3V9.7M21 6.6V9.4" stroke="var(--nf-panel)" strokeWidth=".9" />
    </svg>
  );
}

/** Dashes of each kind, in screen pixels; colour is never the only sign. */
export const DASHES: Readonly<Record<OperationKind, string | undefined>> = {
  cut: undefined,
  score: '7 4',
  engrave: undefined,
  mark: '0.1 4.5',
};

/** Dashes of each kind for small pictures, where letters are only some pixels high. */
export const SMALL_DASHES: typeof DASHES = { cut: undefined, score: '4 2.5', engrave: undefined, mark: '1.2 1.2' };

/** The colour of a kind of operation on the screen, as CSS. */
export const kindColour = (kind: OperationKind): string => `var(--nf-${kind})`;

/** A short sample of how an operation is drawn. */
export function OperationMark({ kind }: { kind: OperationKind }) {
  if (kind === 'engrave')
    return (
      <svg width="22" height="10" viewBox="0 0 22 10" aria-hidden="true">
        <path d="M1 9 5 1M6 9 10 1M11 9 15 1M16 9 20 1" stroke={kindColour(kind)} strokeWidth="1.8" />
      </svg>
    );
  return (
    <svg width="22" height="10" viewBox="0 0 22 10" aria-hidden="true">
      <path
        d="M1 5H21"
        stroke={kindColour(kind)}
        strokeWidth={kind === 'mark' ? 2.8 : 2.2}
        strokeDasharray={kind === 'score' ? '6 3' : DASHES[kind]}
        strokeLinecap={kind === 'mark' ? 'round' : 'butt'}
      />
    </svg>
  );
}
