/** What a part hangs by, and how it hangs. */
import Button from 'react-bootstrap/Button';
import { setHanging } from '@/core/commands/hangs';
import { boxHeight, boxWidth } from '@/core/geometry/point';
import { LEVEL_DEG, turnedWords } from '@/core/kinds/steps/hang';
import { LIMITS } from '@/core/limits';
import { Choice, QuantityField, Switch } from '@/ui/fields';
import type { PartView } from '@/worker/view';
import styles from '../../bench.module.css';
import { setPointing, useBench } from '../../store';
import { editAll, type StepProps, useStep } from './use-step';

/** How it hangs, in a sentence. */
function hangsWords({ hanger }: PartView): string {
  // The line is there before it is known, so that what stands below stays where it is.
  if (!hanger) return 'Looking for its place …';
  if (hanger.isOff) return 'The place lies off the part: nothing hangs by it.';
  if (!hanger.at) return 'There is no place for it above the middle of weight.';
  const { turnDeg } = hanger;
  if (Math.abs(turnDeg) > 90) return 'It turns over: what it hangs by is below the middle of its weight.';
  return Math.abs(turnDeg) <= LEVEL_DEG ? '✓ It hangs level.' : `It hangs turned by ${turnedWords(turnDeg)}.`;
}

/** The panel of what a part hangs by. */
export function Hang(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const pointing = useBench((s) => s.pointing === 'hang');
  const { step, switched, at, set } = useStep(props, 'hang');
  const turn = (on: boolean) => editAll(props, (job, id, measure) => setHanging(job, id, on, measure));
  const small = unit === 'mm' ? 0.5 : 25.4 / 64;
  const isAlone = !props.also;
  const { hanger } = props.view;
  const words = isAlone ? hangsWords(props.view) : null;
  const byHand = step !== null && step.x !== null && step.y !== null;
  return (
    <section aria-label="To hang by">
      <Switch
        label="To hang by"
        {...switched}
        onChange={turn}
        note={step ? undefined : 'A hole or a ring over the middle of its weight, so that it hangs level.'}
      />
      {step && (
        <>
          <Choice
            label="By"
            {...at('by')}
            options={[
              { value: 'hole', word: 'a hole in it' },
              { value: 'ring', word: 'a ring on it', title: 'It stands on the edge and is one with the part' },
            ]}
            onChange={(by) => set({ by })}
          />
          <QuantityField
            label="Hole"
            unit={unit}
            {...at('width')}
            least={LIMITS.leastLengthMm}
            most={1000}
            stepMm={small}
            onChange={(width) => set({ width }, 'width')}
          />
          <QuantityField
            label={step.by === 'hole' ? 'To the edge' : 'Ring around it'}
            unit={unit}
            {...at('edge')}
            least={LIMITS.leastLengthMm}
            most={1000}
            stepMm={small}
            onChange={(edge) => set({ edge }, 'edge')}
          />
          {isAlone && byHand && hanger && (
            <>
              <QuantityField
                label="From the left"
                unit={unit}
                value={(step.x ?? 0) * boxWidth(hanger.ownBox)}
                onChange={(mm) => set({ x: mm / Math.max(1e-6, boxWidth(hanger.ownBox)) }, 'x')}
                least={-boxWidth(hanger.ownBox)}
                most={2 * boxWidth(hanger.ownBox)}
              />
              <QuantityField
                label="From below"
                unit={unit}
                value={(step.y ?? 0) * boxHeight(hanger.ownBox)}
                onChange={(mm) => set({ y: mm / Math.max(1e-6, boxHeight(hanger.ownBox)) }, 'y')}
                least={-boxHeight(hanger.ownBox)}
                most={2 * boxHeight(hanger.ownBox)}
              />
            </>
          )}
          {words && (
            <p className="nf-small mb-2" style={words.startsWith('✓') ? { color: 'var(--nf-good)' } : undefined}>
              {words}
            </p>
          )}
          {isAlone && (
            <div className={styles.buttons}>
              <Button
                variant="plain"
                active={pointing}
                aria-pressed={pointing}
                onClick={() => setPointing(pointing ? null : 'hang')}
              >
                {pointing ? 'Press a place …' : 'Press a place'}
              </Button>
              {byHand && (
                <Button variant="plain" onClick={() => set({ x: null, y: null })}>
                  Hang it level
                </Button>
              )}
            </div>
          )}
        </>
      )}
    </section>
  );
}
