/** Colours and type of the page, for charts. */
import { Chart } from 'chart.js';
import { useScheme } from './scheme';

const css = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--nf-${name}`).trim();

/** What charts are drawn with, in the scheme in use: they are drawn anew where `scheme` changes. Shares differ in how light they are too. */
export function useChartInks() {
  const scheme = useScheme();
  // Scales and legends go by this, not by what is set of one chart.
  Chart.defaults.font.family = getComputedStyle(document.body).fontFamily;
  return {
    scheme,
    ink: css('ink'),
    line: css('line'),
    accent: css('accent'),
    good: css('good'),
    fault: css('fault'),
    shares: ['accent', 'panel', 'fault', 'muted', 'good', 'caution'].map(css),
  };
}
