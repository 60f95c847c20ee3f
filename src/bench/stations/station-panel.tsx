'use client';

import type { ComponentType } from 'react';
import type { Station } from '@/core/inspect/finding';
import styles from '../bench.module.css';
import { useBench } from '../store';
import { Assign } from './assign';
import { Close } from './close';
import { Compose } from './compose';
import { Fill } from './fill';
import { Hold } from './hold/hold';
import { STATIONS } from './list';
import { Prove } from './prove';

const PANELS: Readonly<Record<Station, ComponentType>> = {
  compose: Compose,
  close: Close,
  hold: Hold,
  fill: Fill,
  assign: Assign,
  prove: Prove,
};

/** The left side: what the chosen station needs for what is selected. */
export function StationPanel() {
  const station = useBench((s) => s.station);
  const stop = STATIONS.find((s) => s.id === station);
  const Panel = PANELS[station];
  return (
    // A new station starts at its top.
    <aside key={station} className={styles.station} aria-label={`Station ${stop?.word}`}>
      <h1>{stop?.word}</h1>
      <p className={styles.lead}>{stop?.lead}</p>
      <Panel />
    </aside>
  );
}
