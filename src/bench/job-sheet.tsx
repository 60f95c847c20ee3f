/** The right side: the parts in order, and the findings. */
import { Eye, EyeOff } from 'lucide-react';
import { editPicture } from '@/core/commands/pictures';
import type { Finding } from '@/core/inspect/finding';
import { groupsOf, openGroups } from '@/core/rules/groups';
import { Heading } from '@/ui/heading';
import { useListed } from '@/ui/listed';
import styles from './bench.module.css';
import { useBeside } from './beside';
import { CardButton } from './card-button';
import { FindingRow } from './finding-row';
import { FindingsAlike } from './findings-alike';
import { Parts } from './parts/parts-list';
import { StarterNote } from './starter-note';
import { choosePicture, dispatch, useBench } from './store';

/** Findings listed at first, and more at each press. */
const LISTED = 50;

/** Pictures that lie under the parts; one that is locked or covered is chosen here. */
function PlacedPictures() {
  const pictures = useBench((s) => s.job.pictures);
  const at = useBench((s) => s.atPicture);
  if (pictures.length === 0) return null;
  return (
    <>
      <Heading beside={pictures.length}>Pictures under them</Heading>
      <ul className="list-unstyled m-0" aria-label="Pictures">
        {pictures.map((picture) => (
          <li key={picture.id} className={styles.card} data-on={picture.id === at}>
            <div className="d-flex align-items-center">
              <button
                type="button"
                className={`${styles.plainButton} flex-fill`}
                style={{ minWidth: 0 }}
                aria-pressed={picture.id === at}
                title={picture.name}
                onClick={() => choosePicture(picture.id)}
              >
                <span className="d-block text-truncate">{picture.name || 'Without a name'}</span>
              </button>
              <CardButton
                label={picture.shown ? `Hide ${picture.name}` : `Show ${picture.name}`}
                icon={picture.shown ? Eye : EyeOff}
                onClick={() =>
                  dispatch((job) =>
                    editPicture(job, picture.id, (p) => {
                      p.shown = !p.shown;
                    }),
                  )
                }
              />
            </div>
          </li>
        ))}
      </ul>
    </>
  );
}

function Findings() {
  const findings = useBeside((view) => view?.findings) ?? NO_FINDINGS;
  const isEmpty = useBench((s) => s.view === null || s.job.parts.length === 0);
  const open = openGroups(findings);
  const left = findings.filter((f) => f.leftReason !== null);
  const listed = useListed([...open, ...groupsOf(left)], LISTED);
  const beside =
    findings.length === 0
      ? ''
      : [`${open.length} to look at`, left.length > 0 ? `${left.length} left as is` : ''].filter(Boolean).join(' · ');
  return (
    <>
      <Heading beside={beside}>Findings</Heading>
      {!isEmpty && findings.length === 0 && <p className="nf-muted nf-small">Nothing to look at.</p>}
      <ul className={styles.findings} aria-label="Findings">
        {listed.shown.map((group) => {
          const [first] = group.findings;
          if (group.findings.length > 1) return <FindingsAlike key={group.key} group={group} />;
          return first && <FindingRow key={group.key} finding={first} />;
        })}
      </ul>
      {listed.more}
    </>
  );
}

const NO_FINDINGS: readonly Finding[] = [];

/** The right side of the bench: parts and findings. */
export const JobSheet = () => (
  <aside data-scrolls className={styles.jobSheet} aria-label="Job sheet">
    <StarterNote />
    <Parts />
    <PlacedPictures />
    <Findings />
  </aside>
);
