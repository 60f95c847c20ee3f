'use client';

/** The list of jobs as pictures. */
import { keepPreviousData, useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Spinner from 'react-bootstrap/Spinner';
import Toast from 'react-bootstrap/Toast';
import ToastContainer from 'react-bootstrap/ToastContainer';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { tagOf } from '@/core/commands/tags';
import { checkJob } from '@/core/document/read';
import type { JobSummary, JobsPage } from '@/core/job/summary';
import { TAKEN_ALONG } from '@/core/job/taken-along';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { DraftsAtHand } from '@/drafts/drafts-at-hand';
import { HelpButton } from '@/help/help-button';
import { takeJobAlong } from '@/taken/take-along';
import { useOpenTaken } from '@/taken/use-taken';
import { FileButton } from '@/ui/file-button';
import { Logo } from '@/ui/marks';
import { OpenLine } from '@/ui/open-line';
import { JOBS } from '@/ui/questions';
import { SchemeSwitch } from '@/ui/scheme-switch';
import { UNDO_MS, UndoToast } from '@/ui/undo-toast';
import { useDrop } from '@/ui/use-drop';
import { LATE, useIsLate } from '@/ui/waiting';
import { whenExactly } from '@/ui/when';
import { VersionsDialog } from '@/versions/versions-dialog';
import { ChosenJobs } from './chosen-jobs';
import { JobCard } from './job-card';
import styles from './jobs.module.css';
import { More } from './more';

/** How long a pause in typing is, after which it is looked for, in ms. */
const PAUSE_MS = 200;

/** A tag that was given to jobs, or taken from them: those it changed, of so many that were asked for. */
type Tagged = { readonly ids: readonly string[]; readonly tag: string; readonly on: boolean; readonly asked: number };

function taggedWords({ ids, tag, on, asked }: Tagged): string {
  const jobs = ids.length === 1 ? '1 job' : `${ids.length} jobs`;
  const rest =
    asked > ids.length ? (on ? '; others had it, or have no room for more' : '; others did not have it') : '';
  return on ? `“${tag}” was given to ${jobs}${rest}.` : `“${tag}” was taken from ${jobs}${rest}.`;
}

/** A value as it was before the last pause. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}

/**
 * The list of jobs as pictures. `found` are the jobs there were when the page was made; null when the database was
 * away. `isOpenLine`: others of the network can read along.
 */
export function JobsScreen({ found, isOpenLine }: { found: JobsPage | null; isOpenLine: boolean }) {
  const router = useRouter();
  const client = useQueryClient();
  const [words, setWords] = useState('');
  const [tag, setTag] = useState<string | null>(null);
  const looked = useSettled(words.trim());
  const isAll = looked === '' && tag === null;
  const jobs = useInfiniteQuery({
    queryKey: [...JOBS, looked, tag],
    queryFn: ({ pageParam, signal }) =>
      call(API.listJobs, { words: looked, tag: tag ?? '', after: pageParam }, null, signal),
    initialPageParam: '',
    getNextPageParam: ({ next }) => next,
    ...(found && isAll && { initialData: { pages: [found], pageParams: [''] } }),
    placeholderData: keepPreviousData,
    refetchOnMount: 'always',
  });
  const [deleted, setDeleted] = useState<{ id: string; title: string } | null>(null);
  const [sentence, setSentence] = useState<string | null>(null);
  /** The job whose earlier versions are looked at. */
  const [lookedAt, setLookedAt] = useState<JobSummary | null>(null);

  const again = () => {
    // Pages that the router keeps for going back are made anew too.
    router.refresh();
    return client.invalidateQueries({ queryKey: JOBS });
  };
  const failed = (reason: Error) => setSentence(reason.message);
  const rename = useMutation({
    mutationFn: ({ id, title }: { id: string; title: string }) => call(API.renameJob, { id }, { title }),
    onSuccess: again,
    onError: failed,
  });
  const duplicate = useMutation({
    mutationFn: (id: string) => call(API.duplicateJob, { id }, null),
    onSuccess: again,
    onError: failed,
  });
  const remove = useMutation({
    mutationFn: ({ id }: JobSummary) => call(API.deleteJob, { id }, null),
    onSuccess: (_result, job) => {
      setDeleted({ id: job.id, title: job.title });
      return again();
    },
    onError: failed,
  });
  const restore = useMutation({
    mutationFn: (id: string) => call(API.restoreJob, { id }, null),
    onSuccess: () => {
      setDeleted(null);
      return again();
    },
    onError: failed,
  });

  const take = useMutation({
    mutationFn: async (id: string) => {
      const { document } = await call(API.openJob, { id }, null);
      const read = checkJob(document);
      if (!read.ok) throw new Error(read.sentences.join(' '));
      return takeJobAlong(read.job);
    },
    onSuccess: setSentence,
    onError: failed,
  });
  const keep = useMutation({
    mutationFn: ({ id }: JobSummary) => call(API.keepAsStarter, { id }, null),
    onSuccess: (_kept, { title }) => setSentence(`“${title}” is one of your starters now. New jobs begin from it.`),
    onError: failed,
  });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  /** What was done to tags last, to take it back. */
  const [tagged, setTagged] = useState<Tagged | null>(null);
  const tagging = useMutation({
    mutationFn: async ({ ids, tag, on }: Omit<Tagged, 'asked'>) => {
      const { changed } = await call(API.tagJobs, {}, { ids: [...ids], tag: tagOf(tag), on });
      return { ids: changed, tag: tagOf(tag), on, asked: ids.length };
    },
    onSuccess: (done) => {
      setTagged(done);
      return again();
    },
    onError: failed,
  });
  const taken = useOpenTaken(setSentence);
  useDrop(taken.open);

  const asking = [rename, duplicate, remove, restore, keep, tagging].some(({ isPending }) => isPending);
  const isLate = useIsLate(asking || jobs.isFetching);
  const tags = jobs.data?.pages[0]?.tags ?? [];
  const shown = jobs.data?.pages.flatMap((page) => page.jobs) ?? [];
  const more = () => void jobs.fetchNextPage();
  const chosenJobs = shown.filter((job) => chosen.has(job.id));
  const choose = (id: string, on: boolean) =>
    setChosen((now) => {
      const next = new Set(now);
      if (on) next.add(id);
      else next.delete(id);
      return next;
    });

  return (
    <main className={styles.screen}>
      <header className={styles.head}>
        <h1 className={styles.brand}>
          <Logo />
          Needlefile
        </h1>
        <Form.Control
          type="search"
          size="sm"
          className={styles.search}
          placeholder="Find by name, tag or material"
          aria-label="Find jobs"
          value={words}
          maxLength={LIMITS.nameCharacters}
          onChange={(e) => setWords(keepable(e.target.value))}
        />
        <FileButton
          accept={[TAKEN_ALONG]}
          label="Jobs taken along"
          title="Opens a job that was taken along from another Needlefile. You can also drop it here"
          onFiles={taken.open}
        >
          Open a job taken along
        </FileButton>
        <Link className="btn btn-plain" href="/shop">
          Shop
        </Link>
        <Link className="btn btn-plain" href="/typefaces">
          Typefaces
        </Link>
        <HelpButton at="jobs" />
        <SchemeSwitch />
        <Link className="btn btn-primary" href="/new">
          New job
        </Link>
      </header>
      {isOpenLine && <OpenLine />}
      <DraftsAtHand jobId={null} />
      {tags.length > 0 && (
        <fieldset className={styles.tags} aria-label="Tags">
          {tags.map((t) => (
            <Button key={t} variant="plain" aria-pressed={tag === t} onClick={() => setTag(tag === t ? null : t)}>
              {t}
            </Button>
          ))}
        </fieldset>
      )}
      {jobs.isPending && <Spinner role="status" aria-label="Fetching the jobs" />}
      {jobs.isError && (
        <div className={styles.nothing} role="alert">
          {jobs.error.message}
          <Button variant="plain" onClick={() => void jobs.refetch()}>
            Try again
          </Button>
        </div>
      )}
      {jobs.data && shown.length === 0 && !jobs.isPlaceholderData && (
        <div className={styles.nothing}>
          {isAll ? (
            <>
              <p className="m-0">No jobs yet. The first one begins with what you want to make.</p>
              <Link className="btn btn-primary" href="/new">
                New job
              </Link>
            </>
          ) : (
            <>
              <p className="m-0">No job fits what you are looking for.</p>
              <Button
                variant="plain"
                onClick={() => {
                  setWords('');
                  setTag(null);
                }}
              >
                Show all jobs
              </Button>
            </>
          )}
        </div>
      )}
      {chosenJobs.length > 0 && (
        <ChosenJobs
          jobs={chosenJobs}
          known={tags}
          onTag={(words, on) => tagging.mutate({ ids: chosenJobs.map((job) => job.id), tag: words, on })}
          onNone={() => setChosen(new Set())}
        />
      )}
      <ul className={styles.grid} aria-label="Jobs">
        {shown.map((job) => (
          <JobCard
            key={job.id}
            job={job}
            isChosen={chosen.has(job.id)}
            onChoose={(on) => choose(job.id, on)}
            onRename={(title) => rename.mutate({ id: job.id, title })}
            onDuplicate={() => duplicate.mutate(job.id)}
            onVersions={() => setLookedAt(job)}
            onTakeAlong={() => take.mutate(job.id)}
            onKeepAsStarter={() => keep.mutate(job)}
            onDelete={() => remove.mutate(job)}
          />
        ))}
      </ul>
      {jobs.hasNextPage && <More isPending={jobs.isFetchingNextPage} isByItself={!jobs.isError} onMore={more} />}
      {lookedAt && (
        <VersionsDialog
          jobId={lookedAt.id}
          title={lookedAt.title}
          bringBack={async ({ version, savedAt }) => {
            await call(API.bringBackVersion, { id: lookedAt.id, version: String(version) }, null);
            setSentence(
              `“${lookedAt.title}” is as it was ${whenExactly(savedAt)}. What it was before is an earlier version.`,
            );
            await again();
          }}
          onClose={() => setLookedAt(null)}
        />
      )}
      <ToastContainer position="bottom-center" className="p-3 position-fixed">
        <UndoToast
          words={deleted && `“${deleted.title}” was deleted.`}
          onUndo={() => deleted && restore.mutate(deleted.id)}
          onClose={() => setDeleted(null)}
        />
        <UndoToast
          words={tagged && taggedWords(tagged)}
          onUndo={
            tagged && tagged.ids.length > 0
              ? () => tagging.mutate({ ids: tagged.ids, tag: tagged.tag, on: !tagged.on })
              : undefined
          }
          onClose={() => setTagged(null)}
        />
        <Toast show={taken.said !== null || take.isPending}>
          <Toast.Body role="status">{taken.said ?? 'Packing the job …'}</Toast.Body>
        </Toast>
        <Toast show={isLate}>
          <Toast.Body role="alert">{LATE}</Toast.Body>
        </Toast>
        <Toast show={sentence !== null} onClose={() => setSentence(null)} delay={UNDO_MS} autohide>
          <Toast.Body role="alert">{sentence}</Toast.Body>
        </Toast>
      </ToastContainer>
    </main>
  );
}
