/** The bench: route, station panel, sheet, job sheet, foot. */
import { useEffect, useState } from 'react';
import { BroughtFaces } from '@/faces/bring-in-faces';
import { HelpDialog } from '@/help/help-dialog';
import { Announce } from './announce';
import styles from './bench.module.css';
import { useArrivals } from './bring-in/arrivals';
import { BringInDialog } from './bring-in/dialog';
import { Foot } from './foot';
import { JobSheet } from './job-sheet';
import { useBenchKeys } from './keys';
import { NamesStrip } from './names/names-strip';
import { placeToAddress } from './place';
import { SheetView } from './sheet/sheet-view';
import { StaleDialog } from './stale-dialog';
import { StationPanel } from './stations/station-panel';
import { useBench } from './store';
import { Top } from './top';
import { BenchVersions } from './versions';

/** The screen of a job that is open. */
export function Bench({
  onLeave,
  forget,
}: {
  /** Go to the list of jobs, once this one is kept. */
  onLeave: () => void;
  /** What is on the bench is not to be saved as this job any more. */
  forget: () => Promise<unknown>;
}) {
  const [helpShown, setHelpShown] = useState(false);
  const [versionsShown, setVersionsShown] = useState(false);
  useBenchKeys(() => setHelpShown(true));
  useArrivals();
  const station = useBench((s) => s.station);
  const { partId, memberId } = useBench((s) => s.selection);
  useEffect(() => placeToAddress({ station, partId, memberId }), [station, partId, memberId]);

  return (
    <div className={styles.bench}>
      <Top onLeave={onLeave} onHelp={() => setHelpShown(true)} onVersions={() => setVersionsShown(true)} />
      <StationPanel onHelp={() => setHelpShown(true)} />
      <main className={styles.main}>
        <SheetView />
      </main>
      <NamesStrip />
      <JobSheet />
      <Foot />
      <Announce />
      <HelpDialog at={station} shown={helpShown} onClose={() => setHelpShown(false)} />
      {versionsShown && <BenchVersions onClose={() => setVersionsShown(false)} />}
      <StaleDialog forget={forget} />
      <BringInDialog />
      <div className={styles.brought}>
        <BroughtFaces />
      </div>
    </div>
  );
}
