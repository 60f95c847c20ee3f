/** Lines that fill: what draws them, how they lie, and what they come to. */
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { isTurning, takeTool } from '@/core/commands/interior';
import type { Common } from '@/core/commands/several';
import type { FillTool, StepOf } from '@/core/document/schema';
import { widthOf } from '@/core/toolpath/hatch/tool';
import { formatLength } from '@/core/units/quantity';
import { Choice, NumberField, QuantityField, Row, Switch } from '@/ui/fields';
import { formatRun, formatShare } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import type { HatchView } from '@/worker/hatch-view';
import { useBench } from '../../store';
import { editAll, type StepProps, useStep } from '../hold/use-step';
import { DoneBy } from '../lines/done-by';
import { readableWords } from '../readable';
import styles from './interior.module.css';
import { ReachPanel } from './reach-panel';
import { ToolShapes } from './tool-words';

type HatchStep = StepOf<'hatch'>;
type Set = (values: Partial<HatchStep>, merge?: string | null) => void;

type ValueAt = <F extends keyof HatchStep>(key: F) => Common<HatchStep[F]>;

/** The panel of hatch lines. */
export function HatchPanel(props: StepProps) {
  const { part, view } = props;
  const { step, at, set: setStep } = useStep(props, 'hatch');
  if (!step) return null;
  // A tool of the other kind goes to the operation that suits it.
  const set: Set = (values, merge) => {
    const { tool } = values;
    if (tool && isTurning(tool as FillTool) !== isTurning(step.tool))
      editAll(props, (job, id) => takeTool(job, id, { ...step.tool, ...(tool as FillTool) }));
    else setStep(values, merge);
  };
  // Figures, and what is out of reach, are those of one part.
  const hatch = props.also ? null : view.hatch;
  return (
    <>
      <DoneBy {...props} what="hatch" label="Done by" />
      <DoneBy {...props} what="outline" label="Outline as well" />
      <Tool id={part.id} step={step} mixed={at('tool').mixed} set={set} />
      <Lines step={step} at={at} set={set} />
      {hatch && view.readability && (
        <p className="nf-small nf-muted">Letters as this tool leaves them: {readableWords(view)}.</p>
      )}
      {hatch && <Figures hatch={hatch} step={step} set={set} />}
      {hatch && <ReachPanel {...props} step={step} hatch={hatch} />}
    </>
  );
}

function Tool({ id, step, mixed, set }: { id: string; step: HatchStep; mixed: boolean; set: Set }) {
  const unit = useBench((s) => s.job.units);
  const { tool } = step;
  const setTool = (values: Partial<FillTool>, merge: string | null = null) =>
    set({ tool: { ...tool, ...values } }, merge);
  const shapeId = `${id}-tool`;
  const hasDepth = tool.shape === 'round' || tool.shape === 'cone';
  return (
    <>
      <Row label="Filled with" htmlFor={shapeId}>
        <Form.Select
          id={shapeId}
          size="sm"
          value={tool.shape}
          onChange={(e) => setTool({ shape: e.target.value as FillTool['shape'] })}
        >
          <ToolShapes />
        </Form.Select>
      </Row>
      <QuantityField
        label={tool.shape === 'cone' ? 'Tip' : 'Width'}
        unit={unit}
        value={tool.tip}
        mixed={mixed}
        least={0.01}
        most={1000}
        stepMm={tool.tip < 1 ? 0.05 : 0.1}
        digits={unit === 'mm' ? 2 : 4}
        onChange={(tip) => setTool({ tip }, 'tip')}
      />
      {tool.shape === 'line' && (
        <p className="nf-small nf-muted mb-2">
          Of the line it leaves: how far a pen bleeds and a spot burns counts too.
        </p>
      )}
      {tool.shape === 'cone' && (
        <NumberField
          label="Cone angle"
          suffix="°"
          value={tool.angle}
          mixed={mixed}
          least={1}
          most={170}
          step={5}
          onChange={(angle) => setTool({ angle }, 'cone')}
        />
      )}
      {hasDepth && (
        <QuantityField
          label="Depth"
          unit={unit}
          value={tool.depth}
          mixed={mixed}
          least={0.001}
          most={1000}
          stepMm={0.05}
          digits={unit === 'mm' ? 2 : 4}
          onChange={(depth) => setTool({ depth }, 'depth')}
        />
      )}
      {hasDepth && (
        <p className="nf-small nf-muted mb-2">
          Works <span className="nf-figure">{formatLength(widthOf(tool), unit, unit === 'mm' ? 2 : 4)}</span> wide at
          that depth, so it stands {formatLength(widthOf(tool) / 2, unit, unit === 'mm' ? 2 : 4)} off the line.
        </p>
      )}
    </>
  );
}

function Lines({ step, at, set }: { step: HatchStep; at: ValueAt; set: Set }) {
  const unit = useBench((s) => s.job.units);
  const rings = step.style === 'rings';
  return (
    <>
      <Choice
        label="Lines"
        {...at('style')}
        options={[
          { value: 'parallel', word: 'parallel' },
          { value: 'crossed', word: 'crossed', title: 'A second set square to the first' },
          { value: 'rings', word: 'rings', title: 'They follow the outline inwards' },
        ]}
        onChange={(style) => set({ style })}
      />
      <NumberField
        label={step.overlap < 0 ? 'Room between' : 'Overlap'}
        suffix="%"
        {...at('overlap')}
        scale={100}
        digits={0}
        step={5}
        least={-20}
        most={0.95}
        onChange={(overlap) => set({ overlap }, 'overlap')}
      />
      <div className={styles.slide}>
        <Form.Range
          aria-label="Slide the overlap"
          min={-300}
          max={90}
          step={5}
          value={Math.round(100 * step.overlap)}
          aria-valuetext={`${Math.round(100 * step.overlap)} %`}
          onChange={(e) => set({ overlap: Number(e.target.value) / 100 }, 'overlap')}
        />
      </div>
      {!rings && (
        <>
          <NumberField
            label="Direction"
            suffix="°"
            {...at('angle')}
            least={-360}
            most={360}
            step={5}
            onChange={(angle) => set({ angle }, 'angle')}
          />
          <div className={styles.slide}>
            <Form.Range
              aria-label="Slide the direction"
              min={-90}
              max={90}
              step={1}
              value={step.angle}
              aria-valuetext={`${step.angle} degrees`}
              onChange={(e) => set({ angle: Number(e.target.value) }, 'angle')}
            />
          </div>
          <Choice
            label="Ends of lines"
            value={step.joined ? 'joined' : 'lifted'}
            mixed={at('joined').mixed}
            options={[
              { value: 'joined', word: 'joined', title: 'There and back along the edge: the tool stays down' },
              { value: 'lifted', word: 'lifted', title: 'Set down anew for every line' },
            ]}
            onChange={(value) => set({ joined: value === 'joined' })}
          />
          <Choice
            label="Along the edge"
            {...at('outline')}
            options={[
              { value: 'none', word: 'nothing' },
              { value: 'first', word: 'first' },
              { value: 'last', word: 'last', title: 'A clean edge after the lines' },
            ]}
            onChange={(outline) => set({ outline })}
          />
          <QuantityField
            label="Shortest line"
            unit={unit}
            {...at('least')}
            least={0}
            most={1000}
            stepMm={0.1}
            onChange={(least) => set({ least }, 'least')}
          />
        </>
      )}
    </>
  );
}

/** Shares smaller than this are not worth a word. */
const LITTLE = 0.0005;

function Figures({ hatch: fill, step, set }: { hatch: HatchView; step: HatchStep; set: Set }) {
  const unit = useBench((s) => s.job.units);
  if (fill.tooMany) return null;
  const n = (value: number) => <span className="nf-figure">{value.toLocaleString('en')}</span>;
  const words = step.style === 'rings' ? 'ring' : 'line';
  return (
    <>
      <Heading beside={formatShare(fill.covered)}>Covered</Heading>
      <div className={styles.bar} aria-hidden="true">
        <span style={{ flexGrow: fill.covered }} data-share="covered" />
        <span style={{ flexGrow: fill.missed }} data-share="missed" />
        <span style={{ flexGrow: Math.max(0, 1 - fill.covered - fill.missed) }} data-share="beyond" />
      </div>
      <p className="nf-small mb-2">
        {n(fill.lineCount)} {words}
        {fill.lineCount === 1 ? '' : 's'} in {n(fill.strips)} run{fill.strips === 1 ? '' : 's'} ·{' '}
        <span className="nf-figure">{formatRun(fill.drawnMm, unit)}</span> · set down {n(fill.lifts)}{' '}
        {fill.lifts === 1 ? 'time' : 'times'} · {formatLength(fill.spacingMm, unit, unit === 'mm' ? 2 : 4)} apart
      </p>
      {step.overlap < 0 ? (
        <p className="nf-small nf-muted mb-2">There is room between the lines, so nothing counts as missed.</p>
      ) : step.fillMissed ? (
        <Switch
          label="Fill the rest"
          on
          onChange={(fillMissed) => set({ fillMissed: fillMissed })}
          note={
            fill.restStrokes > 0
              ? `${fill.restStrokes.toLocaleString('en')} stroke${fill.restStrokes === 1 ? '' : 's'} over what the lines miss.`
              : 'The lines miss nothing that can be reached.'
          }
        />
      ) : fill.places > 0 ? (
        <div className={styles.actions}>
          <Button variant="plain" onClick={() => set({ fillMissed: true })}>
            Fill the rest
          </Button>
          <span className="nf-small nf-muted">
            {fill.places.toLocaleString('en')} place{fill.places === 1 ? '' : 's'} missed, {formatShare(fill.missed)}.
            {step.outline === 'none' && step.style !== 'rings' && ' Going along the edge fills them too.'}
          </span>
        </div>
      ) : (
        <p className="nf-small nf-muted mb-2">
          {fill.missed < LITTLE ? 'Nothing is missed.' : `Only specks are missed, ${formatShare(fill.missed)} in all.`}
        </p>
      )}
    </>
  );
}
