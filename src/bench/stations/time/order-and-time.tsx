/** In which order operations are run, and how long that takes: chosen by operation, parts pinned to be first, times measured typed back. */
import { Pin, PinOff } from 'lucide-react';
import { Fragment, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { measureTime, movePinned, orderBy, pinPart } from '@/core/commands/order';
import { partWords } from '@/core/document/part-words';
import type { Job, Operation } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { formatSeconds } from '@/core/units/duration';
import { NumberField } from '@/ui/fields';
import { formatRun } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { OperationMark } from '@/ui/marks';
import { SortableList, useSortableRow } from '@/ui/sortable';
import { useKeepEntry } from '@/ui/use-keep-entry';
import { useShop } from '@/ui/use-shop';
import type { OperationRunView } from '@/worker/run-view';
import styles from '../../bench.module.css';
import { setShowsOrder } from '../../running';
import { dispatch, say, useBench } from '../../store';
import { AreaGoes } from './area-goes';
import { PriceOfJob } from './price';
import { SearchLonger } from './search-longer';
import { TimeBySetting } from './time-by-setting';
import { WhereTimeGoes } from './where-time-goes';

const BY = {
  way: 'least way',
  rows: 'row by row',
  spread: 'spread the heat',
} as const satisfies Record<Operation['order']['by'], string>;

/** So many parts are listed after those that are pinned. */
const LISTED = 12;

function Pinned({ operation, part }: { operation: Operation; part: Job['parts'][number] }) {
  const title = partWords(part);
  const row = useSortableRow(`${operation.id}/${part.id}`, `${title} in the order of ${operation.name}`);
  return (
    <li ref={row.ref} style={row.style} className="d-flex align-items-center gap-1">
      {row.grip}
      <span className="text-truncate flex-grow-1">{title}</span>
      <button
        type="button"
        className={styles.iconButton}
        aria-label={`${title} need not be first in ${operation.name}`}
        title="It need not be first"
        onClick={() => dispatch((doc) => pinPart(doc, operation.id, part.id, false))}
      >
        <PinOff size={14} />
      </button>
    </li>
  );
}

function PartsInOrder({ operation, run, job }: { operation: Operation; run: OperationRunView; job: Job }) {
  const byId = new Map(job.parts.map((p) => [p.id, p]));
  const pinned = operation.order.pinned.flatMap((id) => byId.get(id) ?? []);
  const rest = run.parts.filter((id) => !operation.order.pinned.includes(id));
  if (pinned.length + rest.length < 2) return null;
  return (
    <div className="nf-small mb-1 mt-1">
      {pinned.length > 0 && (
        <SortableList
          name={`order-${operation.id}`}
          ids={pinned.map((p) => `${operation.id}/${p.id}`)}
          onMove={(from, to) => dispatch((doc) => movePinned(doc, operation.id, from, to))}
        >
          <ol className="list-unstyled m-0" aria-label={`Run first in ${operation.name}`}>
            {pinned.map((part) => (
              <Pinned key={part.id} operation={operation} part={part} />
            ))}
          </ol>
        </SortableList>
      )}
      <ol className="list-unstyled m-0" aria-label={`Then run in ${operation.name}`}>
        {rest.slice(0, LISTED).map((id) => {
          const part = byId.get(id);
          if (!part) return null;
          const title = partWords(part);
          return (
            <li key={id} className="d-flex align-items-center gap-1">
              <span className="text-truncate flex-grow-1 nf-muted">{title}</span>
              <button
                type="button"
                className={styles.iconButton}
                aria-label={`Run ${title} first in ${operation.name}`}
                title="Run it first"
                onClick={() => dispatch((doc) => pinPart(doc, operation.id, id, true))}
              >
                <Pin size={14} />
              </button>
            </li>
          );
        })}
        {rest.length > LISTED && <li className="nf-muted">and {rest.length - LISTED} more parts</li>}
      </ol>
    </div>
  );
}

/** "works 58 s, moves 9 s, pierces 5 s", and by what it was measured. */
function timeWords({ times }: OperationRunView): string {
  if (!times) return '';
  const parts = [
    `works ${formatSeconds(times.working)}`,
    times.idle >= 0.05 && `moves ${formatSeconds(times.idle)}`,
    times.piercing > 0 && `pierces ${formatSeconds(times.piercing)}`,
    times.lifting > 0 && `lifts ${formatSeconds(times.lifting)}`,
    times.changing > 0 && `change of tool ${formatSeconds(times.changing)}`,
    times.factor !== 1 && `times ${times.factor.toFixed(2)}, as measured`,
  ];
  return parts.filter(Boolean).join(', ');
}

/** Gives what was measured to the machine in the Shop, so that other jobs are reckoned so too. */
function KeepMeasured({ kind }: { kind: Operation['kind'] }) {
  const machine = useBench((s) => s.job.machine);
  const known = useShop().machines.find((m) => m.id === machine?.id)?.entry;
  const { keep } = useKeepEntry(say);
  if (!machine || !known || Math.abs(known.factors[kind] - machine.factors[kind]) < 1e-6) return null;
  const give = async () => {
    const factors = { ...known.factors, [kind]: machine.factors[kind] };
    if (await keep('machines', machine.id, { ...known, factors }))
      say(`${known.name} is reckoned so in other jobs too, from now on.`);
  };
  return (
    <Button variant="word" title="Other jobs on this machine are reckoned so too" onClick={() => void give()}>
      Keep it in the Shop
    </Button>
  );
}

function Measured({ operation, run }: { operation: Operation; run: OperationRunView }) {
  const [isOpen, setOpen] = useState(false);
  const { times } = run;
  if (!times) return null;
  const reckoned = times.working + times.idle + times.piercing + times.lifting;
  if (!isOpen)
    return (
      <Button variant="word" onClick={() => setOpen(true)}>
        {times.factor === 1 ? 'Type a measured time' : 'Type it anew'}
      </Button>
    );
  return (
    <div className="w-100">
      <NumberField
        label="It took"
        suffix="s"
        value={Math.round(10 * reckoned * times.factor) / 10}
        step={1}
        digits={1}
        least={LIMITS.timeFactorLeast * reckoned}
        most={LIMITS.timeFactorMost * reckoned}
        onChange={(seconds) =>
          dispatch((doc) => measureTime(doc, operation.id, { seconds, reckoned }), `measured:${operation.id}`)
        }
      />
      {times.factor !== 1 && (
        <>
          <Button variant="word" onClick={() => dispatch((doc) => measureTime(doc, operation.id, null))}>
            As reckoned
          </Button>{' '}
          <KeepMeasured kind={operation.kind} />
        </>
      )}
    </div>
  );
}

/** Order and time of all operations that run. */
export function OrderAndTime({ job }: { job: Job }) {
  const run = useBench((s) => s.run);
  const showsOrder = useBench((s) => s.showsOrder);
  if (!run || run.operations.length === 0) return null;
  const isTimed = run.operations.some((o) => o.times);
  return (
    <>
      <Heading beside={isTimed ? formatSeconds(run.seconds) : undefined}>Order and time</Heading>
      <Form.Check
        type="switch"
        id="shows-order"
        className="nf-small mb-1"
        label="Show the order on the sheet"
        checked={showsOrder}
        onChange={(e) => setShowsOrder(e.target.checked)}
      />
      {run.operations.map((one) => {
        const operation = job.operations.find((o) => o.id === one.id);
        if (!operation) return null;
        return (
          <Fragment key={one.id}>
            <div className="d-flex align-items-center gap-2 mt-2">
              <OperationMark kind={operation.kind} />
              <span className="text-truncate flex-grow-1" title={operation.name}>
                {operation.name}
              </span>
              <span className="nf-figure nf-small text-nowrap">
                {one.times ? formatSeconds(one.times.seconds) : job.machine ? 'not known' : ''}
              </span>
            </div>
            <p className="nf-muted nf-small mb-1">
              {[timeWords(one), one.travelMm > 0 ? `${formatRun(one.travelMm, job.units)} between` : '']
                .filter(Boolean)
                .join(' · ')}
            </p>
            <Form.Select
              size="sm"
              aria-label={`Order of ${operation.name}`}
              value={operation.order.by}
              style={{ width: 160 }}
              onChange={(e) =>
                dispatch((doc) => orderBy(doc, operation.id, e.target.value as Operation['order']['by']))
              }
            >
              {Object.entries(BY).map(([by, word]) => (
                <option key={by} value={by}>
                  {word}
                </option>
              ))}
            </Form.Select>
            {operation.order.by === 'way' && <SearchLonger operation={operation} job={job} run={one} />}
            {one.times && <AreaGoes operation={operation} job={job} />}
            <PartsInOrder operation={operation} run={one} job={job} />
            <div className="d-flex flex-wrap column-gap-3 align-items-start">
              <Measured operation={operation} run={one} />
              {one.times && <TimeBySetting operation={operation} job={job} />}
            </div>
          </Fragment>
        );
      })}
      {run.unknown.length > 0 && (
        <p className="nf-muted nf-small mb-0">
          {job.machine
            ? `How long ${run.unknown.join(', ')} takes is not known: it has no speed.`
            : 'How long it takes is told once a machine is chosen at station Compose.'}
        </p>
      )}
      {isTimed && <WhereTimeGoes run={run} job={job} />}
      <PriceOfJob job={job} price={run.price} />
    </>
  );
}
