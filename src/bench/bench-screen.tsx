'use client';

/** Opens a job on the bench, as the server has it or as a draft of it is kept in this browser, and starts computing and saving. */
import { useQueryClient } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { checkJob } from '@/core/document/read';
import type { Job } from '@/core/document/schema';
import type { Station } from '@/core/inspect/stations';
import type { StoredJob } from '@/core/job/summary';
import { type Draft, draftsAtHand, dropDraft, keepDraft, takeDraft } from '@/drafts/drafts';
import { DRAFTS } from '@/drafts/drafts-at-hand';
import { windowName } from '@/drafts/window-name';
import { JOBS } from '@/ui/questions';
import { Notice, Waiting } from '@/ui/waiting';
import { followDocument } from './computing';
import { LeaveDialog } from './leave-dialog';
import { placeFromAddress } from './place';
import { forgetProof } from './proof/proving';
import { newestOf, rememberSaved } from './saved-job';
import { keepSaved, type Saving } from './saving';
import { openBench, useBench } from './store';

const Opening = () => <Waiting words="Opening the job" />;

/** The bench is made in the browser only: what it works on is one document of one window. */
const Bench = dynamic(() => import('./bench').then(({ Bench }) => Bench), { ssr: false, loading: Opening });

type Opened =
  | { readonly kind: 'open'; readonly job: Job; readonly version: number; readonly unsaved: boolean }
  | { readonly kind: 'not'; readonly sentence: string };

/** The newest draft of a job that no other window works on, made this window's own; null where there is none. */
async function draftOf(id: string, window: string): Promise<Draft | null> {
  for (const draft of await draftsAtHand(id, window)) if (await takeDraft(draft, window)) return draft;
  return null;
}

/** What is to be opened of a job: its draft, or what the server has. */
async function find(id: string, stored: StoredJob | null, window: string): Promise<Opened> {
  const draft = await draftOf(id, window);
  const read = stored && checkJob(stored.document);
  if (stored && read && !read.ok) return { kind: 'not', sentence: read.sentences.join(' ') };
  const isKept = draft !== null && read?.ok && JSON.stringify(draft.document) === JSON.stringify(read.job);
  if (isKept) await dropDraft(id, window);
  else if (draft) return { kind: 'open', job: draft.document, version: draft.version, unsaved: true };
  if (stored && read?.ok) return { kind: 'open', job: read.job, version: stored.version, unsaved: false };
  return { kind: 'not', sentence: 'The database is away.' };
}

/**
 * The screen of a job: the bench, or a sentence why it can't be opened. `stored` is the job as it was when the page
 * was made; null when the database was away.
 */
export function BenchScreen({ id, stored }: { id: string; stored: StoredJob | null }) {
  const router = useRouter();
  const client = useQueryClient();
  const [opened, setOpened] = useState<Opened | null>(null);
  const [asksToLeave, setAsksToLeave] = useState(false);
  const saving = useRef<Saving | null>(null);

  useEffect(() => {
    let isHere = true;
    let close = () => {};
    void (async () => {
      const window = await windowName();
      if (!isHere) return;
      const newest = newestOf(client, id, stored);
      const result = await find(id, newest, window);
      // There is one bench in a window: a screen that was left meanwhile puts nothing on it.
      if (!isHere) return;
      setOpened(result);
      if (result.kind !== 'open') return;
      const place = placeFromAddress();
      const { job, version } = result;
      const at = { savedAt: newest?.changedAt ?? '', selection: place, station: place.station as Station };
      forgetProof();
      openBench(id, job, { ...at, version });
      const stopComputing = followDocument();
      const started = keepSaved({
        window,
        drafts: { keepDraft, dropDraft },
        unsaved: result.unsaved,
        onSaved: (job) => rememberSaved(client, job),
        onDone: () => {
          void client.invalidateQueries({ queryKey: DRAFTS });
          void client.invalidateQueries({ queryKey: JOBS });
        },
      });
      saving.current = started;
      close = () => {
        saving.current = null;
        started.stop();
        stopComputing();
      };
    })();
    return () => {
      isHere = false;
      close();
    };
  }, [id, stored, client]);

  const leave = async () => {
    const where = (await saving.current?.leave()) ?? 'saved';
    if (where === 'nowhere') setAsksToLeave(true);
    else router.push('/');
  };

  const title = useBench((s) => (opened?.kind === 'open' ? s.job.title : null));
  useEffect(() => {
    // The title of the page is that of the job when it was opened; here it follows its new name.
    if (title !== null) document.title = `${title || 'Untitled'} · Needlefile`;
  }, [title]);

  if (opened === null) return <Opening />;
  if (opened.kind === 'open')
    return (
      <>
        <Bench onLeave={() => void leave()} forget={async () => saving.current?.forget()} />
        {asksToLeave && <LeaveDialog onStay={() => setAsksToLeave(false)} onLeave={() => router.push('/')} />}
      </>
    );
  return (
    <Notice sentence={opened.sentence}>
      <Button variant="primary" onClick={() => router.refresh()}>
        Try again
      </Button>
    </Notice>
  );
}
