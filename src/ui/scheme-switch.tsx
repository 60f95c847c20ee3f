import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';

/** Light or dark; remembered in this browser. */
export function SchemeSwitch() {
  const [dark, setDark] = useState(false);
  useEffect(() => setDark(document.documentElement.dataset.bsTheme === 'dark'), []);
  const change = () => {
    const next = dark ? 'light' : 'dark';
    document.documentElement.dataset.bsTheme = next;
    localStorage.setItem('needlefile:scheme', next);
    setDark(!dark);
  };
  const words = dark ? 'Light scheme' : 'Dark scheme';
  return (
    <Button variant="plain" onClick={change} aria-label={words} title={words}>
      {dark ? <Sun size={16} /> : <Moon size={16} />}
    </Button>
  );
}
