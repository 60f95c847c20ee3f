/** The plate that letters are cut out of: its own outline, or the sheet. */
import { LIMITS } from '@/core/limits';
import { Choice, QuantityField, Switch } from '@/ui/fields';
import { useBench } from '../../store';
import { type StepProps, useStep } from './use-step';

/** The panel of a plate. */
export function Plate(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const { step, set, turn } = useStep(props, 'plate');
  const length = (
    label: string,
    {
      value,
      least,
      most,
      key,
    }: {
      readonly value: number;
      readonly least: number;
      readonly most: number;
      readonly key: 'across' | 'upright' | 'corner' | 'holeWidth' | 'inset';
    },
  ) => (
    <QuantityField
      label={label}
      unit={unit}
      value={value}
      least={least}
      most={most}
      onChange={(mm) => set({ [key]: mm }, key)}
    />
  );
  return (
    <section aria-label="Plate">
      <Switch
        label="A plate of its own"
        on={step !== null}
        onChange={turn}
        note={step ? undefined : 'Off: the letters are cut out of the sheet itself.'}
      />
      {step && (
        <>
          <Choice
            label="Shape"
            value={step.shape}
            options={[
              { value: 'rectangle', word: 'rectangle' },
              { value: 'ellipse', word: 'ellipse' },
            ]}
            onChange={(shape) => set({ shape })}
          />
          {length('Left and right', { value: step.across, least: -1000, most: LIMITS.sheetMostMm, key: 'across' })}
          {length('Above and below', { value: step.upright, least: -1000, most: LIMITS.sheetMostMm, key: 'upright' })}
          {step.shape === 'rectangle' &&
            length('Corner radius', { value: step.corner, least: 0, most: LIMITS.sheetMostMm, key: 'corner' })}
          <Choice
            label="Holes"
            value={step.holes}
            options={[
              { value: 'none', word: 'none' },
              { value: 'corners', word: 'corners' },
              { value: 'top', word: 'top', title: 'To hang it by' },
              { value: 'sides', word: 'sides' },
            ]}
            onChange={(holes) => set({ holes })}
          />
          {step.holes !== 'none' &&
            length('Hole width', { value: step.holeWidth, least: 0.1, most: 1000, key: 'holeWidth' })}
          {step.holes !== 'none' &&
            length('From the edges', { value: step.inset, least: 0, most: LIMITS.sheetMostMm, key: 'inset' })}
        </>
      )}
    </section>
  );
}
