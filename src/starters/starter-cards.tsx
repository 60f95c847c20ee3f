/** Starters as pictures, to be chosen from. */
import { MoreHorizontal } from 'lucide-react';
import Link from 'next/link';
import type { ReactNode } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import type { Picture } from '@/core/job/picture';
import { STARTERS } from '@/core/starters/starters';
import { JobPicture } from '@/ui/job-picture';
import { KeptPicture } from '@/ui/kept-picture';
import type { OwnStarter } from './starters';
import styles from './starters.module.css';

type Pick = {
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
  /** Start without choosing anything else. */
  readonly onStart: (id: string) => void;
};

/** The starters that ship, as the core has drawn them. */
export function ShippedStarters({
  chosen,
  onChoose,
  onStart,
  pictures,
}: Pick & { readonly pictures: Readonly<Record<string, Picture>> }) {
  return (
    <ul className={styles.grid} aria-label="Starters">
      {STARTERS.map(({ id, job }) => (
        <Card key={id} {...{ id, title: job.title, chosen, onChoose, onStart }}>
          <JobPicture
            picture={pictures[id] ?? { width: job.sheet.width, height: job.sheet.height, shapes: [] }}
            title={job.title}
          />
        </Card>
      ))}
    </ul>
  );
}

/** The shop's own starters. */
export function OwnStarters({
  starters,
  onDelete,
  ...pick
}: Pick & { readonly starters: readonly OwnStarter[]; readonly onDelete: (starter: OwnStarter) => void }) {
  return (
    <ul className={styles.grid} aria-label="Your starters">
      {starters.map((starter) => {
        const { id, title, width, height, version } = starter;
        const sheet = <JobPicture picture={{ width, height, shapes: [] }} title={title} />;
        return (
          <Card key={id} {...{ id, title, ...pick }}>
            <KeptPicture jobId={id} version={version} title={title} waiting={sheet} none={sheet} />
            <Dropdown align="end" className={styles.menu}>
              <Dropdown.Toggle as="button" type="button" aria-label={`More for ${title}`}>
                <MoreHorizontal size={17} />
              </Dropdown.Toggle>
              <Dropdown.Menu>
                <Dropdown.Item as={Link} href={`/jobs/${id}`}>
                  Change it
                </Dropdown.Item>
                <Dropdown.Item as="button" onClick={() => onDelete(starter)}>
                  Delete
                </Dropdown.Item>
              </Dropdown.Menu>
            </Dropdown>
          </Card>
        );
      })}
    </ul>
  );
}

function Card({
  id,
  title,
  chosen,
  onChoose,
  onStart,
  children,
}: Pick & { readonly id: string; readonly title: string; readonly children: ReactNode }) {
  return (
    <li className={styles.card} data-on={chosen === id}>
      <div className={styles.picture}>{children}</div>
      <button
        type="button"
        className={styles.name}
        aria-pressed={chosen === id}
        onClick={() => onChoose(id)}
        onDoubleClick={() => onStart(id)}
      >
        {title}
      </button>
    </li>
  );
}
