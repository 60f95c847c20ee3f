/** Where the time goes: of each operation what it works, moves, pierces, lifts and changes tools, side by side. */
import dynamic from 'next/dynamic';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Job } from '@/core/document/schema';
import type { RunView } from '@/worker/run-view';

const TimeShares = dynamic(() => import('./time-shares').then((m) => m.TimeShares), {
  loading: () => <p className="nf-muted nf-small">Drawing …</p>,
});

/** A chart of where the time goes, when it is asked for. */
export function WhereTimeGoes({ run, job }: { run: RunView; job: Job }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <div className="mt-2">
      <Button variant="word" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        Where the time goes
      </Button>
      {isOpen && <TimeShares run={run} job={job} />}
    </div>
  );
}
