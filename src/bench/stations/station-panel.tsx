import { stationOf } from '@/core/inspect/stations';
import styles from '../bench.module.css';
import { useBench } from '../store';
import { STATION_SCREENS } from './station-screens';

/** The left side: what the chosen station needs for what is selected. */
export function StationPanel() {
  const station = useBench((s) => s.station);
  const { word, lead } = stationOf(station);
  const { Panel } = STATION_SCREENS[station];
  return (
    // A new station starts at its top.
    <aside key={station} className={styles.station} aria-label={`Station ${word}`}>
      <h1>{word}</h1>
      <p className={styles.lead}>{lead}</p>
      <Panel />
    </aside>
  );
}
