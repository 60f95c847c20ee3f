/** Findings that are alike: one row with a count and one cure for all; each by itself underneath. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { setHangs } from '@/core/commands/hangs';
import { type FindingGroup, mendingOfAll } from '@/core/rules/groups';
import { useListed } from '@/ui/listed';
import styles from './bench.module.css';
import { FindingRow, SeverityMark, seenNow } from './finding-row';
import { change, dispatch, useBench } from './store';

/** Single ones shown at first. */
const LISTED = 12;

/** A group of more than one. */
export function FindingsAlike({ group }: { group: FindingGroup }) {
  const [isOpen, setIsOpen] = useState(false);
  const job = useBench((s) => s.job);
  const { findings } = group;
  const listed = useListed(findings, LISTED);
  const isLeft = findings.every((f) => f.leftReason !== null);
  const asksToHang = findings[0]?.code === 'in-pieces';
  const mend = isLeft ? null : mendingOfAll(job, group);
  const keys = new Set(findings.map((f) => f.key));
  const leaveAll = () =>
    change((draft) => {
      if (isLeft) draft.leftAsIs = draft.leftAsIs.filter((l) => !keys.has(l.finding));
      else for (const finding of keys) draft.leftAsIs.push({ finding, reason: '' });
    });
  const separateAll = () =>
    dispatch((now) => findings.reduce((next, { partId }) => (partId ? setHangs(next, partId, 'no') : next), now));
  return (
    <li className={styles.finding} data-left={isLeft}>
      <SeverityMark severity={group.severity} isLeft={isLeft} />
      <div>
        <p>{group.sentence}</p>
        <div className={styles.actions}>
          {mend && (
            <Button variant="word" onClick={() => dispatch((now) => mend.run(now, seenNow))}>
              {mend.words}
            </Button>
          )}
          <Button variant="word" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
            {isOpen ? 'Not each' : 'Each'}
          </Button>
          <Button variant="word" onClick={asksToHang && !isLeft ? separateAll : leaveAll}>
            {isLeft ? 'Take up again' : asksToHang ? 'No, they are separate' : 'Leave all'}
          </Button>
        </div>
        {isOpen && (
          <ul className={styles.findings} aria-label={group.sentence}>
            {listed.shown.map((finding) => (
              <FindingRow key={finding.key} finding={finding} />
            ))}
            {listed.more}
          </ul>
        )}
      </div>
    </li>
  );
}
