/** The plate that letters are cut out of: its own outline, or the sheet. */
import { LIMITS } from '@/core/limits';
import { Choice, QuantityField, Switch } from '@/ui/fields';
import { useBench } from '../../store';
import { type StepProps, useStep } from './use-step';

/** The panel of a plate. */
export function Plate(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const { step, switched, at, set, turn } = useStep(props, 'plate');
  const length = (
    label: string,
    {
      least,
      most,
      key,
    }: {
      readonly least: number;
      readonly most: number;
      readonly key: 'across' | 'upright' | 'corner' | 'holeWidth' | 'inset';
    },
  ) => (
    <QuantityField
      label={label}
      unit={unit}
      {...at(key)}
      least={least}
      most={most}
      onChange={(mm) => set({ [key]: mm }, key)}
    />
  );
  return (
    <section aria-label="Plate">
      <Switch
        label="A plate of its own"
        {...switched}
        onChange={turn}
        note={step ? undefined : 'Off: the letters are cut out of the sheet itself.'}
      />
      {step && (
        <>
          <Choice
            label="Shape"
            {...at('shape')}
            options={[
              { value: 'rectangle', word: 'rectangle' },
              { value: 'ellipse', word: 'ellipse' },
            ]}
            onChange={(shape) => set({ shape })}
          />
          {length('Left and right', { least: -1000, most: LIMITS.sheetMostMm, key: 'across' })}
          {length('Above and below', { least: -1000, most: LIMITS.sheetMostMm, key: 'upright' })}
          {step.shape === 'rectangle' && length('Corner radius', { least: 0, most: LIMITS.sheetMostMm, key: 'corner' })}
          <Choice
            label="Holes"
            {...at('holes')}
            options={[
              { value: 'none', word: 'none' },
              { value: 'corners', word: 'corners' },
              { value: 'top', word: 'top', title: 'To hang it by' },
              { value: 'sides', word: 'sides' },
            ]}
            onChange={(holes) => set({ holes })}
          />
          {step.holes !== 'none' && length('Hole width', { least: 0.1, most: 1000, key: 'holeWidth' })}
          {step.holes !== 'none' && length('From the edges', { least: 0, most: LIMITS.sheetMostMm, key: 'inset' })}
        </>
      )}
    </section>
  );
}
