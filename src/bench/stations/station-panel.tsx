import { useEffect, useRef } from 'react';
import { stationOf } from '@/core/inspect/stations';
import { FirstUse } from '@/help/first-use';
import styles from '../bench.module.css';
import { useBench } from '../store';
import { STATION_SCREENS } from './station-screens';

/** The left side: what the chosen station needs for what is selected. */
export function StationPanel({ onHelp }: { onHelp: () => void }) {
  const station = useBench((s) => s.station);
  const { word, lead } = stationOf(station);
  const { Panel } = STATION_SCREENS[station];
  const heading = useRef<HTMLHeadingElement>(null);
  const shown = useRef(station);
  // Whoever goes to another station is in its panel; from the sheet one goes on working on the sheet.
  useEffect(() => {
    if (shown.current === station) return;
    shown.current = station;
    if (!document.activeElement?.closest('[data-sheet], [aria-modal="true"]'))
      heading.current?.focus({ preventScroll: true });
  }, [station]);
  return (
    // A new station starts at its top.
    <aside key={station} data-scrolls className={styles.station} aria-label={`Station ${word}`}>
      <h1 ref={heading} tabIndex={-1}>
        {word}
      </h1>
      <p className={styles.lead}>{lead}</p>
      <FirstUse at={station} onMore={onHelp} />
      <Panel />
    </aside>
  );
}
