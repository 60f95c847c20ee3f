/** Rows of dots along outlines or down the middle of strokes: set stones, pecked lines, punched holes. */
import Button from 'react-bootstrap/Button';
import { setDots, setDotsAlong } from '@/core/commands/lines';
import { formatLength } from '@/core/units/quantity';
import { Choice, QuantityField, Switch } from '@/ui/fields';
import { resetDots } from '../../dot-edits';
import { useBench } from '../../store';
import { editAll, type StepProps, shownIn, useStep } from '../hold/use-step';
import { DoneBy } from './done-by';

/** The panel of dots. */
export function DotsPanel(props: StepProps) {
  const { part, view } = props;
  const unit = useBench((s) => s.job.units);
  const { step, switched, at, set } = useStep(props, 'dots');
  if (!shownIn(props).some((shown) => shown.view.areaMm2 > 0 || shown.view.open > 0) && !step) return null;
  const turn = (on: boolean) => editAll(props, (job, id, measure) => setDots(job, id, on, measure));
  const isAlone = !props.also;
  const dots = isAlone ? view.dots : null;
  const along = (value: 'centerline' | 'outline') =>
    editAll(props, (job, id, measure) => setDotsAlong(job, id, value, measure));
  return (
    <section aria-label="Dots">
      <Switch
        label="Rows of dots"
        {...switched}
        onChange={turn}
        note={step ? undefined : 'Evenly spaced marks, holes or stones.'}
      />
      {step && (
        <>
          <DoneBy {...props} what="dots" label="Done by" />
          {!part.steps.some((s) => s.kind === 'centerline' && s.on) && (
            <DoneBy {...props} what="outline" label="Outline as well" />
          )}
          <Choice
            label="Along"
            {...at('along')}
            options={[
              { value: 'outline', word: 'outlines', title: 'Along outlines and lines' },
              { value: 'centerline', word: 'the middle', title: 'Down the middle of the strokes' },
            ]}
            onChange={along}
          />
          <QuantityField
            label="Diameter"
            unit={unit}
            {...at('diameter')}
            least={0.01}
            most={1000}
            stepMm={0.1}
            onChange={(diameter) => set({ diameter }, 'diameter')}
          />
          <QuantityField
            label="Spacing"
            unit={unit}
            {...at('spacing')}
            least={0.01}
            most={1000}
            stepMm={0.1}
            onChange={(spacing) => set({ spacing }, 'spacing')}
          />
          <Choice
            label="Between corners"
            value={step.even ? 'even' : 'exact'}
            mixed={at('even').mixed}
            options={[
              { value: 'even', word: 'even', title: 'Stretched or squeezed a little, to come out even' },
              { value: 'exact', word: 'exact', title: 'As typed; the last gap is what is left' },
            ]}
            onChange={(value) => set({ even: value === 'even' })}
          />
          <Switch
            label="Leave out what would touch"
            on={step.apart}
            mixed={at('apart').mixed}
            onChange={(apart) => set({ apart })}
            note={step.apart ? undefined : 'Off: dots that touch stay, and are findings.'}
          />
          <Choice
            label="In files"
            {...at('as')}
            options={[
              { value: 'circle', word: 'circles' },
              { value: 'point', word: 'points' },
            ]}
            onChange={(as) => set({ as })}
          />
          {dots && (
            <p className="nf-small mb-2">
              <span className="nf-figure">{dots.count.toLocaleString('en')}</span> of{' '}
              {formatLength(dots.diameter, unit, 2)}
              {dots.leftOut > 0 && <> · {dots.leftOut.toLocaleString('en')} left out</>}
              {step.changes.length > 0 && <> · {step.changes.length.toLocaleString('en')} changed by hand</>}
            </p>
          )}
          {!isAlone ? null : step.changes.length > 0 ? (
            <Button variant="word" onClick={() => resetDots(part.id)}>
              All back in their places
            </Button>
          ) : (
            <p className="nf-small nf-muted mb-2">Drag a dot of the selected part to move it; Delete leaves it out.</p>
          )}
        </>
      )}
    </section>
  );
}
