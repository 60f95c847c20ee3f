'use client';

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
    value: number,
    least: number,
    most: number,
    key: 'across' | 'upright' | 'corner' | 'holeWidth' | 'inset',
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
          {length('Left and right', step.across, -1000, LIMITS.sheetMostMm, 'across')}
          {length('Above and below', step.upright, -1000, LIMITS.sheetMostMm, 'upright')}
          {step.shape === 'rectangle' && length('Corner radius', step.corner, 0, LIMITS.sheetMostMm, 'corner')}
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
          {step.holes !== 'none' && length('Hole width', step.holeWidth, 0.1, 1000, 'holeWidth')}
          {step.holes !== 'none' && length('From the edges', step.inset, 0, LIMITS.sheetMostMm, 'inset')}
        </>
      )}
    </section>
  );
}
