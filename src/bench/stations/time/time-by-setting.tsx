/** How the time of an operation changes with one of its settings: asked for, drawn, and taken by a press. */
import { proxy } from 'comlink';
import dynamic from 'next/dynamic';
import { useEffect, useId, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { TIMED_SETTINGS, type TimedSetting, timedSetting, withTimedSetting } from '@/core/commands/timed-settings';
import type { Job, Operation } from '@/core/document/schema';
import type { TimeBySetting as Times } from '@/core/job/time-by-setting';
import { formatSpeed } from '@/core/shop/words';
import { formatSeconds } from '@/core/units/duration';
import { formatLength, type LengthUnit } from '@/core/units/quantity';
import { computing } from '@/worker/client';
import { dispatch } from '../../store';
import { toolWords } from '../interior/tool-words';
import styles from './time.module.css';

const TimeCurve = dynamic(() => import('./time-curve').then((m) => m.TimeCurve), {
  loading: () => <p className="nf-muted nf-small">Drawing …</p>,
});

const WORDS = {
  speed: 'speed',
  passes: 'passes',
  rowDistance: 'row distance',
  overlap: 'overlap of lines',
  tool: 'tool that fills',
} as const satisfies Record<TimedSetting, string>;

/** A value of a setting in words. */
function valueWords(which: TimedSetting, value: number, { units, tools }: Pick<Job, 'units' | 'tools'>): string {
  switch (which) {
    case 'speed':
      return formatSpeed(value, units);
    case 'passes':
      return String(value);
    case 'rowDistance':
      return formatLength(value, units, digitsOf(units));
    case 'overlap':
      return `${Math.round(100 * value)} %`;
    case 'tool': {
      const tool = tools[value];
      return tool ? toolWords(tool, units) : 'another';
    }
  }
}

const digitsOf = (units: LengthUnit): number => (units === 'mm' ? 3 : 4);

/** The times by a setting, anew with every change. */
function useTimes(job: Job, operationId: string, which: TimedSetting) {
  const [times, setTimes] = useState<Times | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [isFault, setFault] = useState(false);
  useEffect(() => {
    let isOld = false;
    setShare(0);
    setFault(false);
    const told = proxy((done: number, of: number) => {
      if (!isOld) setShare(done / of);
    });
    computing()
      .timeBySetting(job, operationId, which, told)
      .then(
        (found) => {
          if (isOld || found === null) return;
          setTimes(found.times);
          setShare(null);
        },
        () => {
          if (isOld) return;
          setFault(true);
          setShare(null);
        },
      );
    return () => {
      isOld = true;
    };
  }, [job, operationId, which]);
  return { times, share, isFault };
}

function Curve({ operation, job, which }: { operation: Operation; job: Job; which: TimedSetting }) {
  const { times, share, isFault } = useTimes(job, operation.id, which);
  const known = (times?.times ?? []).flatMap((t) => (t.seconds === null ? [] : [{ ...t, seconds: t.seconds }]));
  const isNow = (value: number) => value === times?.now;
  const take = (value: number) => {
    if (!isNow(value)) dispatch((doc) => withTimedSetting(doc, operation.id, which, value));
  };
  return (
    <>
      {share !== null && (
        <p className="nf-small nf-muted m-0" role="status">
          Reckoning … {Math.round(100 * share)} %
        </p>
      )}
      {isFault && <p className="nf-small text-danger m-0">This could not be computed.</p>}
      {known.length > 0 && (
        <>
          <TimeCurve
            points={known.map(({ value, seconds }) => ({ value, seconds, words: valueWords(which, value, job) }))}
            now={times?.now ?? 0}
            axis={WORDS[which]}
            isListed={which === 'tool'}
            onTake={take}
          />
          <ul className={styles.values} aria-label={`Time of ${operation.name} by ${WORDS[which]}`}>
            {known.map(({ value, seconds }) => (
              <li key={value}>
                <button
                  type="button"
                  aria-pressed={isNow(value)}
                  title={isNow(value) ? 'As it is now' : 'Take it'}
                  onClick={() => take(value)}
                >
                  <span>{valueWords(which, value, job)}</span>
                  <span className="nf-figure">{formatSeconds(seconds)}</span>
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {times && known.length === 0 && <p className="nf-small nf-muted m-0">How long it takes is not known.</p>}
    </>
  );
}

/** Time against a setting of an operation. */
export function TimeBySetting({ operation, job }: { operation: Operation; job: Job }) {
  const id = useId();
  const [isOpen, setOpen] = useState(false);
  const [chosen, setChosen] = useState<TimedSetting>('speed');
  const there = TIMED_SETTINGS.filter((which) => timedSetting(job, operation, which) !== null);
  const which = there.includes(chosen) ? chosen : there[0];
  if (!which) return null;
  return (
    <div className={isOpen ? 'nf-small w-100' : 'nf-small'}>
      <Button variant="word" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        Time by setting
      </Button>
      {isOpen && (
        <>
          <Form.Select
            id={id}
            size="sm"
            className="mt-1 mb-1"
            aria-label={`Setting of ${operation.name} that time is shown by`}
            value={which}
            style={{ width: 180 }}
            onChange={(e) => setChosen(e.target.value as TimedSetting)}
          >
            {there.map((one) => (
              <option key={one} value={one}>
                by {WORDS[one]}
              </option>
            ))}
          </Form.Select>
          <Curve key={which} operation={operation} job={job} which={which} />
        </>
      )}
    </div>
  );
}
