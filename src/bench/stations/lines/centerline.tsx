/** One line down the middle of each stroke. */
import Form from 'react-bootstrap/Form';
import { setCenterline } from '@/core/commands/lines';
import type { StepOf } from '@/core/document/schema';
import { formatLength } from '@/core/units/quantity';
import { Choice, QuantityField, Row, Switch } from '@/ui/fields';
import { formatRun } from '@/ui/figures';
import type { CenterlineView } from '@/worker/part-view';
import { useBench } from '../../store';
import { editAll, type StepProps, shownIn, useStep } from '../hold/use-step';
import { DoneBy } from './done-by';
import { LetterLinesPanel } from './letter-lines';

/** Detail from coarse to fine, as a person sets it. */
const DETAILS = [2, 1.4, 1, 0.7, 0.45, 0.3, 0.2];

/** Length of all that is drawn, in mm, as the operation that does it counts it. */
export const lineLength = (
  { lengthMm, aroundDotsMm }: CenterlineView,
  { dots }: Pick<StepOf<'centerline'>, 'dots'>,
): number => lengthMm + (dots === 'circle' ? aroundDotsMm : 0);

/** The panel of middle lines. */
export function CenterlinePanel(props: StepProps) {
  const { part, view } = props;
  const unit = useBench((s) => s.job.units);
  const { step, switched, at: valueAt, set } = useStep(props, 'centerline');
  const shown = shownIn(props);
  if (!shown.some((one) => one.view.areaMm2 > 0) && !step) return null;
  const turn = (on: boolean) => editAll(props, (job, id, measure) => setCenterline(job, id, on, measure));
  // Figures, and letters by hand, are those of one part.
  const lines = props.also ? null : view.centerline;
  const at = step
    ? DETAILS.reduce(
        (best, d, i) => (Math.abs(d - step.detail) < Math.abs((DETAILS[best] as number) - step.detail) ? i : best),
        0,
      )
    : 0;
  return (
    <section aria-label="Middle lines">
      <Switch
        label="A line down the middle of each stroke"
        {...switched}
        onChange={turn}
        note={step ? undefined : 'For a pen, a scribe or a point that follows a line.'}
      />
      {step && (
        <>
          <DoneBy {...props} what="centerline" label="Done by" />
          <DoneBy {...props} what="outline" label="Outline as well" />
          <Choice
            label="Ends"
            {...valueAt('ends')}
            options={[
              { value: 'tip', word: 'to the tip', title: 'Lines go to the end of the stroke' },
              { value: 'short', word: 'short of it', title: 'By half a stroke: a round pen fills the rest' },
            ]}
            onChange={(ends) => set({ ends })}
          />
          <Row label="Detail" htmlFor={`${part.id}-detail`}>
            <Form.Range
              id={`${part.id}-detail`}
              min={0}
              max={DETAILS.length - 1}
              step={1}
              value={at}
              aria-valuetext={`branches from ${step.detail} half strokes on`}
              onChange={(e) => set({ detail: DETAILS[Number(e.target.value)] as number }, 'detail')}
            />
          </Row>
          <QuantityField
            label="Smooth within"
            unit={unit}
            value={step.smooth ?? (view.centerline ? view.centerline.widthMm / 100 : 0.01)}
            mixed={valueAt('smooth').mixed}
            least={0.0001}
            most={100}
            digits={unit === 'mm' ? 3 : 4}
            stepMm={0.01}
            onChange={(smooth) => set({ smooth }, 'smooth')}
          />
          <Choice
            label="Narrow loops"
            {...valueAt('loops')}
            options={[
              { value: 'kept', word: 'stay loops' },
              { value: 'filled', word: 'filled in', title: 'Where the inside is narrower than half the stroke' },
            ]}
            onChange={(loops) => set({ loops })}
          />
          {shown.some(({ view: { centerline: c } }) => c?.hasSerifs) && (
            <Choice
              label="Serifs"
              {...valueAt('serifs')}
              options={[
                { value: 'drawn', word: 'strokes', title: 'Each serif is a stroke of its own' },
                { value: 'left', word: 'left out', title: 'Stems end where they would without' },
              ]}
              onChange={(serifs) => set({ serifs })}
            />
          )}
          {shown.some(({ view: { centerline: c } }) => c?.hasInlines) && (
            <Choice
              label="Inlines, outlines"
              {...valueAt('inlines')}
              options={[
                { value: 'drawn', word: 'traced', title: 'Lines run in what is drawn' },
                { value: 'left', word: 'left out', title: 'Lines run in the middle of what is drawn around' },
              ]}
              onChange={(inlines) => set({ inlines })}
            />
          )}
          <Choice
            label="Shared stems"
            {...valueAt('retraced')}
            options={[
              { value: 'once', word: 'once' },
              { value: 'twice', word: 'twice', title: 'There and back, so that the pen stays down' },
            ]}
            onChange={(retraced) => set({ retraced })}
          />
          <Switch
            label="Run on from letter to letter"
            on={step.joined}
            mixed={valueAt('joined').mixed}
            onChange={(joined) => set({ joined })}
            note="Where letters touch, as in scripts."
          />
          {(lines?.dots ?? 0) > 0 && (
            <Choice
              label="A dot becomes"
              {...valueAt('dots')}
              options={[
                { value: 'circle', word: 'a circle', title: 'Half as wide as the dot' },
                { value: 'point', word: 'a point' },
              ]}
              onChange={(dots) => set({ dots })}
            />
          )}
          {lines && <LetterLinesPanel part={part} step={step} lines={lines} />}
          {lines && (
            <p className="nf-small mb-2">
              <span className="nf-figure">{lines.lines}</span> line{lines.lines === 1 ? '' : 's'} ·{' '}
              <span className="nf-figure">{lines.segments}</span> segments ·{' '}
              <span className="nf-figure">{formatRun(lineLength(lines, step), unit)}</span>
              {lines.corrected > 0 && (
                <>
                  {' '}
                  · <span className="nf-figure">{lines.corrected}</span> letter{lines.corrected === 1 ? '' : 's'} by
                  hand
                </>
              )}
              {lines.widthMm > 0 && <> · strokes about {formatLength(lines.widthMm, unit, 2)} wide</>}
            </p>
          )}
        </>
      )}
    </section>
  );
}
