/** The help of a screen by its button and by the key ?. */
import { CircleHelp } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useHotkeys } from 'react-hotkeys-hook';
import { HelpDialog } from './help-dialog';
import type { HelpPage } from './pages';

/** A button that opens the help of a screen; so does the key ?, but while something is typed or a dialog is open. */
export function HelpButton({ at }: { at: HelpPage['id'] }) {
  const [shown, setShown] = useState(false);
  useHotkeys('shift+slash,?', () => setShown(true), {
    useKey: true,
    ignoreEventWhen: () => document.querySelector('[aria-modal="true"]') !== null,
  });
  return (
    <>
      <Button variant="plain" aria-label="Help" title="Help (?)" onClick={() => setShown(true)}>
        <CircleHelp size={16} />
      </Button>
      <HelpDialog at={at} shown={shown} onClose={() => setShown(false)} />
    </>
  );
}
