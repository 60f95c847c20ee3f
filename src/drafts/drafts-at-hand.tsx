'use client';

/** What this browser keeps of jobs that the server does not have, to be gone on with. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { CallFault, call } from '@/api/call';
import { API } from '@/api/endpoints';
import { whenExactly } from '@/ui/when';
import { type Draft, draftsAtHand, dropDraft, keepDraft } from './drafts';
import styles from './drafts.module.css';
import { windowName } from './window-name';

/** What the question for drafts is known by. */
export const DRAFTS = ['drafts'];
const AS_A_JOB = ['keep a draft as a job'];

type Props = {
  /** Of one job only; null for all. */
  readonly jobId: string | null;
};

/** Whether a job is known not to be there any more; while the server is away nobody knows. */
const isGone = (id: string): Promise<boolean> =>
  call(API.openSummary, { id }, null).then(
    () => false,
    (reason) => reason instanceof CallFault && reason.status === 404,
  );

/** Drafts of windows that are gone: to be opened, kept as jobs of their own, or dropped. Nothing where there are none. */
export function DraftsAtHand({ jobId }: Props) {
  const router = useRouter();
  const client = useQueryClient();
  const [sentence, setSentence] = useState<string | null>(null);
  const [dropped, setDropped] = useState<Draft | null>(null);
  const drafts = useQuery({
    queryKey: [...DRAFTS, jobId],
    queryFn: async () => draftsAtHand(jobId, await windowName()),
    refetchOnMount: 'always',
  });
  const ids = [...new Set(drafts.data?.map((draft) => draft.jobId))];
  const gone = useQuery({
    queryKey: [...DRAFTS, 'gone', ids],
    queryFn: async () => {
      const answers = await Promise.all(ids.map(isGone));
      return ids.filter((_id, i) => answers[i]);
    },
    enabled: ids.length > 0,
  });
  const again = () => client.invalidateQueries({ queryKey: DRAFTS });
  const asJob = useMutation({
    mutationKey: AS_A_JOB,
    mutationFn: async (draft: Draft) => {
      const { id } = await call(API.createJob, {}, { document: draft.document });
      await dropDraft(draft.jobId, draft.window);
      return id;
    },
    onSuccess: (id) => router.push(`/jobs/${id}`),
    onError: (reason) => setSentence(reason.message),
  });
  const keepAsJob = (draft: Draft) => {
    // The second half of a double click comes before the button is drawn as disabled.
    if (client.isMutating({ mutationKey: AS_A_JOB }) === 0) asJob.mutate(draft);
  };
  const drop = async (draft: Draft) => {
    const isDone = await dropDraft(draft.jobId, draft.window);
    setDropped(isDone ? draft : null);
    setSentence(isDone ? null : 'This browser does not answer; nothing was dropped. Try again in a moment.');
    await again();
  };
  const takeBack = async (draft: Draft) => {
    const isDone = await keepDraft(draft);
    setDropped(isDone ? null : draft);
    setSentence(isDone ? null : 'This browser has no room to keep them again. Leave this window open, and try again.');
    await again();
  };

  if (!drafts.data || (drafts.data.length === 0 && dropped === null && sentence === null)) return null;
  return (
    <section className={styles.drafts} aria-label="Not saved yet">
      {drafts.data.length > 0 && <h2 className={styles.head}>Not saved yet: kept in this browser only</h2>}
      {drafts.data.length > 0 && (
        <ul className={styles.list}>
          {drafts.data.map((draft) => {
            const isDeleted = gone.data?.includes(draft.jobId) ?? false;
            const title = draft.document.title || 'Untitled';
            return (
              <li key={draft.window + draft.jobId}>
                <span className={styles.title} title={title}>
                  {title}
                </span>
                <span className={styles.when}>
                  changed {whenExactly(new Date(draft.at).toISOString())}
                  {isDeleted && '; the job was deleted'}
                </span>
                {isDeleted ? (
                  <Button variant="primary" disabled={asJob.isPending} onClick={() => keepAsJob(draft)}>
                    Keep as a job of its own
                  </Button>
                ) : (
                  <Link className="btn btn-primary" href={`/jobs/${draft.jobId}`}>
                    Open and save
                  </Link>
                )}
                <Button variant="plain" aria-label={`Drop the changes to ${title}`} onClick={() => void drop(draft)}>
                  Drop
                </Button>
              </li>
            );
          })}
        </ul>
      )}
      {dropped && (
        <p className={styles.said} role="status">
          The changes to “{dropped.document.title}” were dropped.
          <Button variant="plain" onClick={() => void takeBack(dropped)}>
            Undo
          </Button>
        </p>
      )}
      {sentence && <p role="alert">{sentence}</p>}
    </section>
  );
}
