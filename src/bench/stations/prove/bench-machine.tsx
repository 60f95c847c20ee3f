/** The bench machine: files are sent to it, and run one after the other; paused, stopped, looked at in its log. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import ProgressBar from 'react-bootstrap/ProgressBar';
import type { MachineRun, RunOrder } from '@/api/bench-machine';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { ExportScope } from '@/core/job/export';
import { formatSeconds } from '@/core/units/duration';
import { Heading } from '@/ui/heading';
import { whenExactly } from '@/ui/when';
import { keepFile } from '../../given-out';
import { proofOf, proveNow, useProof } from '../../proof/proving';
import { useBench } from '../../store';

const BENCH_MACHINE = ['bench machine'];
/** How often it is asked how it stands, while something is on it and while nothing is, in ms. */
const BUSY_MS = 700;
const IDLE_MS = 8_000;

const isOver = ({ state }: MachineRun): boolean => state === 'stopped' || state === 'finished';

/** What can be done to a run, in the order in which it is offered. */
const ORDERS: readonly {
  readonly order: RunOrder;
  readonly word: string;
  readonly may: (run: MachineRun) => boolean;
}[] = [
  { order: 'pause', word: 'Pause', may: ({ state }) => state === 'running' },
  { order: 'go on', word: 'Go on', may: ({ state }) => state === 'paused' },
  { order: 'stop', word: 'Stop', may: (run) => !isOver(run) && run.state !== 'in line' },
  { order: 'take out', word: 'Take out', may: (run) => isOver(run) || run.state === 'in line' },
];

/** The bench machine with its line. */
export function BenchMachine({ scope, isOff }: { scope: ExportScope; isOff: boolean }) {
  const client = useQueryClient();
  const job = useBench((s) => s.job);
  const [busy, setBusy] = useState(false);
  const [words, setWords] = useState<{ readonly said: string; readonly bad: boolean } | null>(null);
  const { data, error } = useQuery({
    queryKey: BENCH_MACHINE,
    queryFn: ({ signal }) => call(API.benchMachine, {}, null, signal),
    refetchInterval: ({ state }) => (state.data?.runs.some((run) => !isOver(run)) ? BUSY_MS : IDLE_MS),
    retry: false,
  });
  const look = () => client.invalidateQueries({ queryKey: BENCH_MACHINE });

  const send = async () => {
    setBusy(true);
    setWords(null);
    try {
      const { proved } = useProof.getState();
      const isSame = JSON.stringify(proved?.partIds ?? null) === JSON.stringify(scope.partIds);
      const view = (isSame && proofOf(proved, job)) || (await proveNow(scope));
      if (!view) return;
      if (view.files.length === 0) return setWords({ said: view.refused.join(' '), bad: true });
      for (const file of view.files) {
        const { machine, set } = view.profile;
        await call(API.sendToMachine, {}, { name: file.name, file: await keepFile(file), machine, set: [...set] });
      }
      setWords({ said: `Sent: ${view.files.map((f) => f.name).join(', ')}`, bad: false });
    } catch (reason) {
      setWords({ said: reason instanceof Error ? reason.message : 'It could not be sent.', bad: true });
    } finally {
      setBusy(false);
      void look();
    }
  };
  const order = async (run: MachineRun, what: RunOrder) => {
    try {
      await call(API.orderRun, { run: run.id, order: what.replace(' ', '-') }, null);
      setWords(null);
    } catch (reason) {
      setWords({ said: reason instanceof Error ? reason.message : 'It could not be done.', bad: true });
    }
    void look();
  };

  const runs = [...(data?.runs ?? [])].reverse();
  return (
    <>
      <Heading beside={data ? `${data.pace} times as fast` : undefined}>Bench machine</Heading>
      <Button
        variant="plain"
        className="w-100 mb-1"
        title="A simulated machine: nothing is cut"
        disabled={isOff || busy}
        onClick={() => void send()}
      >
        {busy ? 'Sending …' : 'Send to the bench machine'}
      </Button>
      {error && <p className="nf-small text-danger mb-1">{error.message}</p>}
      {words && (
        <p className={`nf-small mb-1${words.bad ? ' text-danger' : ''}`} role="status">
          {words.said}
        </p>
      )}
      {data && runs.length === 0 && <p className="nf-muted nf-small mb-0">Nothing is in its line.</p>}
      <ul className="list-unstyled mb-0" aria-label="Runs of the bench machine">
        {runs.map((run) => (
          <li key={run.id} className="mb-2">
            <div className="text-truncate" title={run.name}>
              {run.name}
            </div>
            <div className="nf-small nf-muted">
              {run.state}, as {run.machine}
              {run.seconds > 0 && (
                <>
                  {' · '}
                  {isOver(run) || run.state === 'in line' ? '' : `${formatSeconds(run.done)} of `}
                  {formatSeconds(run.seconds)}
                </>
              )}
            </div>
            {run.troubles.length > 0 && <div className="nf-small text-danger">{run.troubles.join(' ')}</div>}
            {run.state !== 'in line' && (
              <ProgressBar
                now={run.seconds > 0 ? (100 * run.done) / run.seconds : 100}
                aria-label={`${run.name}, how far`}
                style={{ height: 5 }}
              />
            )}
            {ORDERS.filter(({ may }) => may(run)).map(({ order: what, word }) => (
              <Button
                key={what}
                variant="word"
                className="me-2"
                aria-label={`${word} ${run.name}`}
                onClick={() => void order(run, what)}
              >
                {word}
              </Button>
            ))}
          </li>
        ))}
      </ul>
      {data && data.log.length > 0 && (
        <details className="nf-small">
          <summary>Its log</summary>
          <ol className="list-unstyled mb-0">
            {data.log.map(({ at, words: said }, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name of their own
              <li key={i}>
                <span className="nf-muted">{whenExactly(at)}</span> {said}
              </li>
            ))}
          </ol>
        </details>
      )}
    </>
  );
}
