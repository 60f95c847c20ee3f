/** Colours of the page, for charts. */
import { useScheme } from '@/ui/scheme';

const NAMES = [
  '--nf-ink',
  '--nf-line',
  '--nf-accent',
  '--nf-panel',
  '--nf-muted',
  '--nf-good',
  '--nf-caution',
  '--nf-fault',
];

/** What charts are drawn with, in the scheme in use; those of shares differ in how light they are too. */
export function useChartInks() {
  const scheme = useScheme();
  const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  const [ink, line, accent, panel, muted, good, caution, fault] = NAMES.map(css) as [
    string,
    string,
    string,
    string,
    string,
    string,
    string,
    string,
  ];
  const font = getComputedStyle(document.body).fontFamily;
  return { scheme, ink, line, accent, panel, font, shares: [accent, panel, fault, muted, good, caution] };
}
