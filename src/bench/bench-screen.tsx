'use client';

/** Opens a job on the bench, as the server has it or as a draft of it is kept in this browser, and starts computing and saving. */
import { useQueryClient } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { checkJob } from '@/core/document/read';
import type { Station } from '@/core/inspect/stations';
import type { StoredJob } from '@/core/job/summary';
import { Notice, Waiting } from '@/ui/waiting';
import { followDocument } from './computing';
import { placeFromAddress } from './place';
import { newestOf, rememberSaved } from './saved-job';
import { keepSaved, readDraft } from './saving';
import { openBench, useBench } from './store';

const Opening = () => <Waiting words="Opening the job" />;

/** The bench is made in the browser only: what it works on is one document of one window. */
const Bench = dynamic(() => import('./bench').then(({ Bench }) => Bench), { ssr: false, loading: Opening });

type Opened =
  | { readonly kind: 'open'; readonly unsaved: boolean }
  | { readonly kind: 'not'; readonly sentence: string };

function open(id: string, stored: StoredJob | null): Opened {
  const place = placeFromAddress();
  const draft = readDraft(id);
  const read = stored && checkJob(stored.document);
  if (stored && read && !read.ok) return { kind: 'not', sentence: read.sentences.join(' ') };
  if (!draft && !(stored && read?.ok)) return { kind: 'not', sentence: 'The database is away.' };
  const isDraft = draft !== null && !(read?.ok && JSON.stringify(draft.document) === JSON.stringify(read.job));
  if (isDraft)
    openBench(id, draft.document, {
      version: draft.version,
      savedAt: stored?.changedAt ?? '',
      selection: place,
      station: place.station as Station,
    });
  else if (stored && read?.ok)
    openBench(id, read.job, {
      version: stored.version,
      savedAt: stored.changedAt,
      selection: place,
      station: place.station as Station,
    });
  return { kind: 'open', unsaved: isDraft };
}

/**
 * The screen of a job: the bench, or a sentence why it can't be opened. `stored` is the job as it was when the page
 * was made; null when the database was away.
 */
export function BenchScreen({ id, stored }: { id: string; stored: StoredJob | null }) {
  const router = useRouter();
  const client = useQueryClient();
  const [opened, setOpened] = useState<Opened | null>(null);

  useEffect(() => {
    const result = open(id, newestOf(client, id, stored));
    setOpened(result);
    if (result.kind !== 'open') return;
    const stopComputing = followDocument();
    const stopSaving = keepSaved(result.unsaved, (job) => rememberSaved(client, job));
    return () => {
      stopSaving();
      stopComputing();
    };
  }, [id, stored, client]);

  const title = useBench((s) => (opened?.kind === 'open' ? s.job.title : null));
  useEffect(() => {
    // The title of the page is that of the job when it was opened; here it follows its new name.
    if (title !== null) document.title = `${title || 'Untitled'} · Needlefile`;
  }, [title]);

  if (opened === null) return <Opening />;
  if (opened.kind === 'open') return <Bench />;
  return (
    <Notice sentence={opened.sentence}>
      <Button variant="primary" onClick={() => router.refresh()}>
        Try again
      </Button>
    </Notice>
  );
}
