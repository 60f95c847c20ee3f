/** One sentence about a station, when somebody comes to it for the first time in this browser. */
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { remember, remembered } from '@/ui/remembered';
import styles from './help.module.css';
import { type HelpPage, helpPage } from './pages';

/** The screens that were met in this browser; their ids have no blanks. */
const metBefore = (): string[] => (remembered('met') ?? '').split(' ').filter(Boolean);
const keepMet = (id: string): void => remember('met', [...new Set([...metBefore(), id])].join(' '));

/** The sentence of a screen, until it is put away or another screen was gone to. */
export function FirstUse({ at, onMore }: { at: HelpPage['id']; onMore: () => void }) {
  const { first } = helpPage(at);
  const [isNew, setIsNew] = useState(false);
  useEffect(() => {
    setIsNew(!metBefore().includes(at));
    return () => keepMet(at);
  }, [at]);
  if (!isNew || first === null) return null;
  return (
    <div className={styles.first}>
      <p>{first}</p>
      <Button variant="word" onClick={onMore}>
        More
      </Button>
      <Button
        variant="word"
        onClick={() => {
          keepMet(at);
          setIsNew(false);
        }}
      >
        Understood
      </Button>
    </div>
  );
}
