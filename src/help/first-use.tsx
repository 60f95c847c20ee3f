/** One sentence about a station, when somebody comes to it for the first time in this browser. */
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import styles from './help.module.css';
import { type HelpPage, helpPage } from './pages';

const KEY = 'needlefile:met';

/** The screens that were met in this browser. */
function metBefore(): readonly string[] {
  try {
    const met: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(met) ? met.map(String) : [];
  } catch {
    return [];
  }
}

function keepMet(id: string): void {
  try {
    localStorage.setItem(KEY, JSON.stringify([...new Set([...metBefore(), id])]));
  } catch {
    // A browser that keeps nothing says it again.
  }
}

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
