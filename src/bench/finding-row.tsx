/** A finding with its ways out: show the place, go to where it is mended, or leave it with a reason. */
import { memo, useId, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { setHangs } from '@/core/commands/hangs';
import type { Finding, Severity } from '@/core/inspect/finding';
import { stationOf } from '@/core/inspect/stations';
import { mendingOf } from '@/core/rules/mend';
import type { Seen } from '@/core/rules/rule';
import { keepable } from '@/core/units/text';
import styles from './bench.module.css';
import { bridgesSeen } from './bridge-edits';
import { NearFaces } from './near-faces';
import { enterLines } from './nodes/hand';
import { memberView, ownMiddle } from './seen';
import { bringIntoSight, change, dispatch, goToStation, select, useBench } from './store';

/** Shape and colour both say how grave a finding is. */
export function SeverityMark({ severity, isLeft: left }: { severity: Severity; isLeft: boolean }) {
  const words = left ? 'left as it is' : { fault: 'fault', caution: 'caution', note: 'note' }[severity];
  return (
    <svg width="14" height="14" viewBox="0 0 14 14" role="img" aria-label={words}>
      {left ? (
        <path d="M2 7.5 5.5 11 12 3.5" fill="none" stroke="var(--nf-muted)" strokeWidth="2" />
      ) : severity === 'fault' ? (
        <path d="M7 1 13 12H1Z" fill="var(--nf-fault)" />
      ) : severity === 'caution' ? (
        <circle cx="7" cy="7" r="5.5" fill="none" stroke="var(--nf-caution)" strokeWidth="2.2" />
      ) : (
        <rect x="2" y="2" width="10" height="10" fill="none" stroke="var(--nf-muted)" strokeWidth="1.8" />
      )}
    </svg>
  );
}

/** What was computed of the job on the bench, as far as mending asks for it. */
export const seenNow: Seen = {
  middleOf: ownMiddle,
  capHeightOf: (partId, memberId) => memberView(partId, memberId)?.capHeightMm ?? undefined,
  bridgesOf: (partId) => bridgesSeen(useBench.getState().job, partId),
};

/** How a finding is mended in one press; null where there is no such way. */
function mendOf(finding: Finding): { words: string; run: () => void } | null {
  const mending = mendingOf(useBench.getState().job, finding);
  if (!mending) return null;
  if ('run' in mending) return { words: mending.words, run: () => dispatch((job) => mending.run(job, seenNow)) };
  const { words, partId, letter } = mending;
  return {
    words,
    run: () => {
      goToStation('fill');
      select(partId);
      enterLines(partId, letter);
    },
  };
}

/** Drawn anew only when its own finding changes: a sign of loose letters has one for each. */
export const FindingRow = memo(function FindingRow({ finding }: { finding: Finding }) {
  const station = useBench((s) => s.station);
  const [leaving, setLeaving] = useState(false);
  const [reason, setReason] = useState('');
  const id = useId();
  const isLeft = finding.leftReason !== null;
  const isLocked = useBench((s) => s.job.parts.find((p) => p.id === finding.partId)?.locked === true);
  const mend = isLeft || isLocked ? null : mendOf(finding);

  const show = () => {
    if (finding.partId) select(finding.partId, finding.memberId);
    if (finding.box) bringIntoSight(finding.box);
    if (station !== finding.station && !finding.box) goToStation(finding.station);
  };
  const leave = () => {
    change((job) => {
      job.leftAsIs.push({ finding: finding.key, reason: reason.trim() });
    });
    setLeaving(false);
  };
  const takeUp = () =>
    change((job) => {
      job.leftAsIs = job.leftAsIs.filter((l) => l.finding !== finding.key);
    });

  return (
    <li className={styles.finding} data-left={isLeft}>
      <SeverityMark severity={finding.severity} isLeft={isLeft} />
      <div>
        <p>{finding.sentence}</p>
        {finding.leftReason && <p className="nf-muted nf-small">Left: {finding.leftReason}</p>}
        {(finding.code === 'no-typeface' || finding.code === 'words-as-they-came') &&
          !isLeft &&
          !isLocked &&
          finding.partId &&
          finding.memberId && <NearFaces partId={finding.partId} memberId={finding.memberId} />}
        {leaving ? (
          <Form
            className="mt-1"
            onSubmit={(e) => {
              e.preventDefault();
              leave();
            }}
          >
            <Form.Label htmlFor={id} className="nf-small nf-muted m-0">
              Why it may stay (you can leave this empty)
            </Form.Label>
            <Form.Control
              id={id}
              size="sm"
              autoFocus
              maxLength={1000}
              value={reason}
              onChange={(e) => setReason(keepable(e.target.value))}
            />
            <div className={styles.actions}>
              <Button type="submit" variant="word">
                Leave as it is
              </Button>
              <Button variant="word" onClick={() => setLeaving(false)}>
                Cancel
              </Button>
            </div>
          </Form>
        ) : (
          <div className={styles.actions}>
            {mend && (
              <Button variant="word" onClick={mend.run}>
                {mend.words}
              </Button>
            )}
            {(finding.box || station !== finding.station) && (
              <Button variant="word" onClick={show} title={finding.box ? 'Bring it into sight' : undefined}>
                Show
              </Button>
            )}
            {station !== finding.station && (
              <Button variant="word" onClick={() => goToStation(finding.station)}>
                To {stationOf(finding.station).word}
              </Button>
            )}
            {finding.code === 'in-pieces' && !isLeft ? (
              <Button
                variant="word"
                onClick={() => finding.partId && dispatch((job) => setHangs(job, finding.partId as string, 'no'))}
              >
                No, they are separate
              </Button>
            ) : (
              <Button variant="word" onClick={isLeft ? takeUp : () => setLeaving(true)}>
                {isLeft ? 'Take up again' : 'Leave as it is'}
              </Button>
            )}
          </div>
        )}
      </div>
    </li>
  );
});
