/** What is done to several jobs at once: tags given and taken. */
import Button from 'react-bootstrap/Button';
import type { JobSummary } from '@/core/job/summary';
import { TagsField } from '@/ui/tags-field';
import styles from './jobs.module.css';

/** The jobs that are chosen, with the tags that all of them have. */
export function ChosenJobs({
  jobs,
  known,
  onTag,
  onNone,
}: {
  jobs: readonly JobSummary[];
  known: readonly string[];
  onTag: (tag: string, on: boolean) => void;
  onNone: () => void;
}) {
  const [first, ...others] = jobs;
  const common = (first?.tags ?? []).filter((tag) => others.every((job) => job.tags.includes(tag)));
  return (
    <section className={styles.chosen} aria-label="Chosen jobs">
      <span>{jobs.length === 1 ? '1 job chosen' : `${jobs.length} jobs chosen`}</span>
      <TagsField
        label="Add a tag to the chosen jobs"
        tags={common}
        known={known}
        onAdd={(tag) => onTag(tag, true)}
        onRemove={(tag) => onTag(tag, false)}
      />
      <Button variant="word" className="ms-auto" onClick={onNone}>
        Choose none
      </Button>
    </section>
  );
}
