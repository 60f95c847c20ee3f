/** A longer search for the order of an operation: its progress, stopped at any time, and what it found kept in the document. */
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { keepOrder } from '@/core/commands/order';
import type { Job, Operation } from '@/core/document/schema';
import { formatSeconds } from '@/core/units/duration';
import { formatRun } from '@/ui/figures';
import { computing } from '@/worker/client';
import type { OperationRunView } from '@/worker/run-view';
import { dispatch, say } from '../../store';

/** Fewer things than this are put in the best order at once. */
const FEW = 9;
/** Saving less than this is saving nothing, in seconds or in mm. */
const LEAST = 0.05;

/** Searches longer for an order, when that is asked for. */
export function SearchLonger({ operation, job, run }: { operation: Operation; job: Job; run: OperationRunView }) {
  const [share, setShare] = useState<number | null>(null);
  const [saved, setSaved] = useState(0);
  const latest = useRef(0);
  const isSearching = useRef(false);
  // Another document: what is searched for is of the one before.
  useEffect(() => {
    setShare(null);
    return () => {
      latest.current++;
      if (isSearching.current) void computing().stopSearch(job);
    };
  }, [job]);
  const words = (amount: number): string => (job.machine ? formatSeconds(amount) : formatRun(amount, job.units));
  const search = async () => {
    const mine = ++latest.current;
    setShare(0);
    setSaved(0);
    isSearching.current = true;
    try {
      const found = await computing().searchLonger(
        job,
        operation.id,
        proxy((done: number, better: number) => {
          if (mine !== latest.current) return;
          setShare(done);
          setSaved(better);
        }),
      );
      if (mine !== latest.current) return;
      setShare(null);
      if (!found) return;
      const isBetter = found.saved > LEAST;
      if (isBetter) dispatch((doc) => keepOrder(doc, operation.id, found.order));
      say(isBetter ? `${words(found.saved)} less between. The order is kept.` : 'No better order was found.');
    } catch {
      if (mine !== latest.current) return;
      setShare(null);
      say('The search broke off; the order is as it was.');
    } finally {
      if (mine === latest.current) isSearching.current = false;
    }
  };
  if (run.ends.length / 4 < FEW) return null;
  if (share !== null)
    return (
      <div className="nf-small mt-1 mb-1">
        <span role="status">
          Searching … {Math.round(100 * share)} %{saved > LEAST && <>, {words(saved)} less so far</>}
        </span>{' '}
        <Button variant="word" onClick={() => void computing().stopSearch(job)}>
          Stop{saved > LEAST && ' and keep it'}
        </Button>
      </div>
    );
  return (
    <div className="nf-small mt-1 mb-1">
      <Button
        variant="word"
        title="It may be stopped at any time; the best order is kept"
        onClick={() => void search()}
      >
        Search longer for a better order
      </Button>
      {operation.order.found && (
        <div className="nf-muted">
          {run.isKeptOrder ? 'The order found is kept.' : 'What it orders has changed since the order was found.'}{' '}
          <Button variant="word" onClick={() => dispatch((doc) => keepOrder(doc, operation.id, null))}>
            Let it go
          </Button>
        </div>
      )}
    </div>
  );
}
