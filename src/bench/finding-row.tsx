'use client';

/** A finding with its ways out: show the place, go to where it is mended, or leave it with a reason. */
import { useId, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { answerGap, leaveHandMade } from '@/core/commands/drawings';
import { cutOutOf, fillTheRest, punchMember } from '@/core/commands/fills';
import { spaceLetters } from '@/core/commands/letters';
import type { Finding, Severity } from '@/core/inspect/finding';
import styles from './bench.module.css';
import { bridgeOne } from './bridge-edits';

import { enterLines } from './nodes/hand';
import { memberView, ownMiddle } from './seen';
import { STATIONS } from './stations/list';
import { bringIntoSight, change, dispatch, goToStation, select, useBench } from './store';

/** Shape and colour both say how grave a finding is. */
function SeverityMark({ severity, left }: { severity: Severity; left: boolean }) {
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

/** How a finding is mended in one press. */
function mendOf({ mend, partId }: Finding): { words: string; run: () => void } | null {
  if (!mend || !partId) return null;
  const part = useBench.getState().job.parts.find((p) => p.id === partId);
  if (!part || part.locked) return null;
  if (mend.kind === 'bridge') return { words: 'Bridge it', run: () => bridgeOne(partId, mend) };
  if (mend.kind === 'close')
    return {
      words: 'Close it',
      run: () => dispatch((job) => answerGap(job, partId, mend.memberId, mend.gap, 'close')),
    };
  if (mend.kind === 'lines')
    return {
      words: 'Mend its lines',
      run: () => {
        goToStation('fill');
        select(partId);
        enterLines(partId, mend.letter);
      },
    };
  if (mend.kind === 'unhand')
    return { words: 'Back to the words and steps', run: () => dispatch((job) => leaveHandMade(job, partId)) };
  if (mend.kind === 'rest') return { words: 'Fill the rest', run: () => dispatch((job) => fillTheRest(job, partId)) };
  if (mend.kind === 'punch')
    return { words: 'Cut it out instead', run: () => dispatch((job) => punchMember(job, partId, mend.memberId)) };
  if (mend.kind === 'cut-out')
    return {
      words: 'Cut it out of the other',
      run: () => dispatch((job) => cutOutOf(job, partId, mend.otherId, ownMiddle)),
    };
  const capital = memberView(partId, mend.memberId)?.capHeightMm;
  return {
    words: 'Space the letters',
    run: () => dispatch((job) => spaceLetters(job, partId, mend.memberId, mend.byMm, capital)),
  };
}

export function FindingRow({ finding }: { finding: Finding }) {
  const station = useBench((s) => s.station);
  const [leaving, setLeaving] = useState(false);
  const [reason, setReason] = useState('');
  const id = useId();
  const isLeft = finding.left !== null;
  const mend = isLeft ? null : mendOf(finding);

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
      <SeverityMark severity={finding.severity} left={isLeft} />
      <div>
        <p>{finding.sentence}</p>
        {finding.left && <p className="nf-muted nf-small">Left: {finding.left}</p>}
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
              onChange={(e) => setReason(e.target.value)}
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
                To {STATIONS.find((s) => s.id === finding.station)?.word}
              </Button>
            )}
            <Button variant="word" onClick={isLeft ? takeUp : () => setLeaving(true)}>
              {isLeft ? 'Take up again' : 'Leave as it is'}
            </Button>
          </div>
        )}
      </div>
    </li>
  );
}
