/** What stands beside a job that others are started from. */
import Link from 'next/link';
import { LIMITS } from '@/core/limits';
import { TextField } from '@/ui/fields';
import styles from './bench.module.css';
import { change, useBench } from './store';

/** That this is a starter, what comes of it, and a way to begin from it; nothing for other jobs. */
export function StarterNote() {
  const about = useBench((s) => s.job.starter?.about ?? null);
  const id = useBench((s) => s.id);
  const isSaved = useBench((s) => s.save.kind === 'saved');
  if (about === null) return null;
  return (
    <section className={styles.starter} aria-label="Starter">
      <p>This is a starter.</p>
      <TextField
        label="What comes of it"
        value={about}
        most={LIMITS.starterAbout}
        placeholder="in a sentence"
        onChange={(words) =>
          change((job) => {
            if (job.starter) job.starter.about = words;
          }, 'starter')
        }
      />
      {/* A job is started from what is kept. */}
      {isSaved ? <Link href={`/new?from=${id}`}>Start a job from it</Link> : <span className="nf-muted">Saving …</span>}
    </section>
  );
}
