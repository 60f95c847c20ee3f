'use client';

/** Opens a job on the bench: fetches it, looks for a draft kept in this browser, and starts computing and saving. */
import Link from 'next/link';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Spinner from 'react-bootstrap/Spinner';
import { checkJob } from '@/core/document/read';
import type { Station } from '@/core/inspect/stations';
import { Bench } from './bench';
import { followDocument } from './computing';
import { placeFromAddress } from './place';
import { keepSaved, readDraft } from './saving';
import { openBench, useBench } from './store';

type Opening =
  | { readonly kind: 'opening' }
  | { readonly kind: 'open'; readonly unsaved: boolean }
  | { readonly kind: 'not'; readonly sentence: string };

async function open(id: string): Promise<Opening> {
  const place = placeFromAddress();
  const draft = readDraft(id);
  let sentence = 'The server is away.';
  try {
    const response = await fetch(`/api/jobs/${id}`);
    const body = await response.json();
    if (response.ok) {
      const read = checkJob(body.document);
      if (!read.ok) return { kind: 'not', sentence: read.sentences.join(' ') };
      const differs = draft !== null && JSON.stringify(draft.document) !== JSON.stringify(read.job);
      openBench(
        id,
        differs ? draft.document : read.job,
        differs ? draft.version : body.version,
        body.changedAt,
        place,
        place.station as Station,
      );
      return { kind: 'open', unsaved: differs };
    }
    sentence = body.sentence ?? sentence;
    if (response.status === 404) return { kind: 'not', sentence };
  } catch {
    // The draft below may still help.
  }
  if (draft) {
    openBench(id, draft.document, draft.version, '', place, place.station as Station);
    return { kind: 'open', unsaved: true };
  }
  return { kind: 'not', sentence };
}

export function BenchScreen({ id }: { id: string }) {
  const [opening, setOpening] = useState<Opening>({ kind: 'opening' });
  const [attempt, setAttempt] = useState(0);

  // biome-ignore lint/correctness/useExhaustiveDependencies: a new attempt opens again
  useEffect(() => {
    let current = true;
    setOpening({ kind: 'opening' });
    void open(id).then((result) => {
      if (current) setOpening(result);
    });
    return () => {
      current = false;
    };
  }, [id, attempt]);

  useEffect(() => {
    if (opening.kind !== 'open') return;
    const stopComputing = followDocument();
    const stopSaving = keepSaved(opening.unsaved);
    return () => {
      stopSaving();
      stopComputing();
    };
  }, [opening]);

  const title = useBench((s) => (opening.kind === 'open' ? s.job.title : null));
  useEffect(() => {
    if (title !== null) document.title = `${title || 'Untitled'} · Needlefile`;
  }, [title]);

  if (opening.kind === 'open') return <Bench />;
  return (
    <main className="d-grid vh-100 text-center" style={{ placeContent: 'center', gap: 12 }}>
      {opening.kind === 'opening' ? (
        <Spinner role="status" aria-label="Opening the job" />
      ) : (
        <>
          <p className="m-0" role="alert">
            {opening.sentence}
          </p>
          <div className="d-flex justify-content-center gap-2">
            <Button variant="primary" onClick={() => setAttempt((n) => n + 1)}>
              Try again
            </Button>
            <Link className="btn btn-plain" href="/">
              All jobs
            </Link>
          </div>
        </>
      )}
    </main>
  );
}
