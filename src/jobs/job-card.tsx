import { MoreHorizontal } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import Form from 'react-bootstrap/Form';
import type { JobSummary } from '@/core/job/summary';
import { LIMITS } from '@/core/limits';
import { formatLength, formatLengthNumber } from '@/core/units/quantity';
import { keepable } from '@/core/units/text';
import { JobPicture } from '@/ui/job-picture';
import { KeptPicture } from '@/ui/kept-picture';
import { when } from '@/ui/when';
import styles from './jobs.module.css';

type Props = {
  readonly job: JobSummary;
  readonly isChosen: boolean;
  readonly onChoose: (on: boolean) => void;
  readonly onRename: (title: string) => void;
  readonly onDuplicate: () => void;
  readonly onVersions: () => void;
  readonly onTakeAlong: () => void;
  readonly onKeepAsStarter: () => void;
  readonly onDelete: () => void;
};

/** A job in the list: its picture, its name, and what can be done with it. */
export function JobCard({
  job,
  isChosen,
  onChoose,
  onRename,
  onDuplicate,
  onVersions,
  onTakeAlong,
  onKeepAsStarter,
  onDelete,
}: Props) {
  const [naming, setNaming] = useState<string | null>(null);
  const n = (mm: number) => formatLengthNumber(mm, job.units);
  const stock = [job.material, job.thickness ? formatLength(job.thickness, job.units) : ''].filter(Boolean).join(' ');
  const sheet = <JobPicture picture={{ width: job.width, height: job.height, shapes: [] }} title={job.title} />;
  const finish = () => {
    const title = naming?.trim();
    if (title && title !== job.title) onRename(title);
    setNaming(null);
  };
  return (
    <li className={styles.job} data-on={isChosen}>
      <Form.Check
        type="checkbox"
        className={styles.choose}
        aria-label={`Choose ${job.title}`}
        title="Choose, to give tags to several"
        checked={isChosen}
        onChange={(e) => onChoose(e.target.checked)}
      />
      <Link href={`/jobs/${job.id}`} className={styles.picture} tabIndex={-1} aria-hidden="true">
        <KeptPicture jobId={job.id} version={job.version} title={job.title} waiting={sheet} none={sheet} />
        {job.openFindings > 0 && <span className={styles.open}>{job.openFindings} to look at</span>}
      </Link>
      <div className={styles.body}>
        {naming === null ? (
          <Link href={`/jobs/${job.id}`} className={styles.name} title={job.title}>
            {job.title}
          </Link>
        ) : (
          <Form.Control
            size="sm"
            autoFocus
            aria-label="Name of the job"
            value={naming}
            maxLength={LIMITS.nameCharacters}
            onChange={(e) => setNaming(keepable(e.target.value))}
            onBlur={finish}
            onKeyDown={(e) => {
              if (e.key === 'Enter') finish();
              if (e.key === 'Escape') setNaming(null);
            }}
          />
        )}
        <Dropdown align="end">
          <Dropdown.Toggle as="button" type="button" className={styles.menu} aria-label={`More for ${job.title}`}>
            <MoreHorizontal size={17} />
          </Dropdown.Toggle>
          <Dropdown.Menu>
            <Dropdown.Item as="button" onClick={() => setTimeout(() => setNaming(job.title))}>
              Rename
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={onDuplicate}>
              Duplicate
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={onVersions}>
              Earlier versions
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={onTakeAlong}>
              Take along
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={onKeepAsStarter}>
              Keep as a starter
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={onDelete}>
              Delete
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
        <span className={`${styles.line} ${styles.wide}`}>
          <span className="nf-figure">
            {n(job.width)} × {n(job.height)} {job.units}
          </span>
          {stock && ` · ${stock}`}
        </span>
        <span className={styles.line}>{job.tags.join(', ') || '\u00a0'}</span>
        <span className={styles.line}>{when(job.changedAt)}</span>
        {job.openFindings > 0 && (
          <span className="visually-hidden">
            {job.openFindings === 1 ? '1 finding' : `${job.openFindings} findings`} to look at
          </span>
        )}
      </div>
    </li>
  );
}
