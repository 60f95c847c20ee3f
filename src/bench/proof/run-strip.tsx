/** The strip of time along the bottom of the sheet: the operations of the run in their colours and patterns, a handle to go anywhere, and playing. */
import { ChevronFirst, ChevronLast, Pause, Play, X } from 'lucide-react';
import { useEffect } from 'react';
import Form from 'react-bootstrap/Form';
import { formatSeconds } from '@/core/units/duration';
import type { PlayedOperation, PlayedRun } from '@/worker/proof-view';
import { CardButton } from '../card-button';
import styles from './proof.module.css';
import { hideRun, lookAt, passTime, playOrHold, RATES, setRate, stepOperation, useProof } from './proving';

/** Fractions of a run that the handle can stand at. */
const STEPS = 1000;

/** Lets time pass while the run is played. */
function usePlaying(): void {
  const isPlaying = useProof((s) => s.isPlaying);
  useEffect(() => {
    if (!isPlaying) return;
    let before = performance.now();
    let frame = 0;
    const pass = (time: number) => {
      // A page that was not looked at does not catch up.
      passTime(Math.min(0.25, Math.max(0, (time - before) / 1000)));
      before = time;
      frame = requestAnimationFrame(pass);
    };
    frame = requestAnimationFrame(pass);
    return () => cancelAnimationFrame(frame);
  }, [isPlaying]);
}

/** The operation that is run at a time, or was last. */
const operationAt = ({ operations }: PlayedRun, at: number): PlayedOperation | undefined =>
  operations.findLast((o) => o.begin <= at) ?? operations[0];

/** The strip of a run that is on the sheet. */
export function RunStrip({ run }: { run: PlayedRun }) {
  usePlaying();
  const at = useProof((s) => s.at);
  const isPlaying = useProof((s) => s.isPlaying);
  const rate = useProof((s) => s.rate);
  const whole = Math.max(run.seconds, 1e-9);
  const current = operationAt(run, at);
  const isKnown = run.operations.every((o) => o.isTimed);
  const percent = (seconds: number) => `${(100 * seconds) / whole}%`;
  const freed = run.pieces.filter((p) => p.isKept && p.free !== null && p.free <= at).length;
  const toCome = run.pieces.filter((p) => p.isKept && p.free !== null).length;
  const words = `${isKnown ? formatSeconds(at) : `${Math.round((100 * at) / whole)} %`}${current ? `, ${current.name}` : ''}`;
  return (
    <section className={styles.run} aria-label="Run">
      <div className={styles.controls}>
        <CardButton
          label="Operation before"
          title="To where the operation before begins ([)"
          icon={ChevronFirst}
          onClick={() => stepOperation(-1)}
        />
        <CardButton
          label={isPlaying ? 'Hold' : 'Play'}
          title={isPlaying ? 'Hold (R)' : 'Play (R)'}
          icon={isPlaying ? Pause : Play}
          onClick={playOrHold}
        />
        <CardButton
          label="Next operation"
          title="To where the next operation begins (])"
          icon={ChevronLast}
          onClick={() => stepOperation(1)}
        />
        <span
          className={styles.clock}
          title={
            isKnown ? undefined : 'No speed is known of some operations, so that times are left out; see station Assign'
          }
        >
          {isKnown ? (
            <>
              <span className="nf-figure">{formatSeconds(at)}</span>
              <span className="nf-muted"> of </span>
              <span className="nf-figure">{formatSeconds(run.seconds)}</span>
            </>
          ) : (
            <span className="nf-figure">{Math.round((100 * at) / whole)} %</span>
          )}
        </span>
        <span className={styles.current}>{current?.name}</span>
        {toCome > 0 && (
          <span className={`nf-muted nf-small ${styles.freed}`} title="Pieces that come free, and are kept">
            {freed} of {toCome} free
          </span>
        )}
        <Form.Select
          size="sm"
          className={styles.rate}
          aria-label="How fast it is played"
          value={rate}
          onChange={(e) => setRate(RATES.find((r) => r === Number(e.target.value)) ?? 1)}
        >
          {RATES.map((r) => (
            <option key={r} value={r}>
              {r === 1 ? 'as it runs' : `${r} times as fast`}
            </option>
          ))}
        </Form.Select>
        <CardButton label="Take the run off the sheet" icon={X} onClick={hideRun} />
      </div>
      <div className={styles.strip}>
        {run.operations.map((o, i) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: operations keep their places
            key={i}
            className={styles.stretch}
            data-kind={o.kind ?? 'none'}
            title={o.isTimed ? `${o.name}: ${formatSeconds(o.end - o.begin)}` : o.name}
            style={{ left: percent(o.begin), width: percent(Math.max(0, o.end - o.begin)) }}
          />
        ))}
        <span className={styles.past} style={{ width: percent(at) }} />
        <span className={styles.handle} style={{ left: percent(at) }} />
        <input
          type="range"
          className={styles.range}
          aria-label="Time of the run"
          aria-valuetext={words}
          min={0}
          max={STEPS}
          step={1}
          value={Math.round((STEPS * at) / whole)}
          onChange={(e) => lookAt((whole * Number(e.target.value)) / STEPS)}
        />
      </div>
    </section>
  );
}
