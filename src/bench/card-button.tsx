/** A small button of a card: a picture of what it does, in words for screen readers. */
import type { LucideIcon } from 'lucide-react';
import styles from './bench.module.css';

type IconProps = {
  readonly label: string;
  readonly title?: string;
  readonly icon: LucideIcon;
  readonly pressed?: boolean;
  readonly onClick: () => void;
};

/** A button of a card. */
export const CardButton = ({ label, title = label, icon: Icon, pressed, onClick }: IconProps) => (
  <button
    type="button"
    className={styles.iconButton}
    aria-label={label}
    aria-pressed={pressed}
    title={title}
    onClick={onClick}
  >
    <Icon size={15} />
  </button>
);
