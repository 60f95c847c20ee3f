/** Long lists: the first entries, and more at each press. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';

/** The entries that are shown, `step` at first; and the button for more, null when all are. */
export function useListed<T>(all: readonly T[], step: number) {
  const [count, setCount] = useState(step);
  const more =
    all.length > count ? (
      <Button variant="plain" className="mt-2 w-100" onClick={() => setCount(count + step)}>
        {(all.length - count).toLocaleString('en')} more
      </Button>
    ) : null;
  return { shown: all.slice(0, count), more };
}
