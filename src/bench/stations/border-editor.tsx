/** A border around another part's shape: how far, how it runs, and what becomes of the words in it. */
import Form from 'react-bootstrap/Form';
import { type BackingUse, backingUse, setBackingUse } from '@/core/commands/along';
import { editStep } from '@/core/commands/steps';
import type { Part, StepOf } from '@/core/document/schema';
import { stepIn } from '@/core/kinds/steps';
import { isCut } from '@/core/kinds/works';
import { LIMITS } from '@/core/limits';
import { Choice, QuantityField, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { measureOf, partView } from '../seen';
import { dispatch, useBench } from '../store';

/** The panel of a border. */
export function BorderEditor({ part }: { part: Part }) {
  const unit = useBench((s) => s.job.units);
  // A line around words is no backing: nothing is asked of the words then.
  const use = useBench((s) => (isCut(part.work, s.job.operations) ? backingUse(s.job, part) : null));
  const step = stepIn(part, 'border');
  if (!step) return null;
  const set = (values: Partial<StepOf<'border'>>, merge: string | null = null) =>
    dispatch(
      (job) =>
        editStep(job, part.id, 'border', measureOf(job, partView(part.id)), (s) => void Object.assign(s, values)),
      merge && `border:${merge}:${part.id}`,
    );
  const backed = (how: BackingUse) => {
    const words = partView(part.along ?? '')?.box;
    const border = partView(part.id)?.box;
    dispatch((job) => setBackingUse(job, part.id, how, words && border ? { words, border } : null));
  };
  const small = unit === 'mm' ? 0.5 : 25.4 / 64;
  const length = (label: string, key: 'distance' | 'bridge' | 'smooth', note?: string) => (
    <QuantityField
      label={label}
      unit={unit}
      value={step[key]}
      least={0}
      most={LIMITS.offsetMostMm}
      stepMm={small}
      onChange={(mm) => set({ [key]: mm }, note ?? key)}
    />
  );
  return (
    <>
      <Heading>Border</Heading>
      <Form.Range
        aria-label="Distance of the border"
        min={0}
        max={Math.max(20, Math.ceil(step.distance * 1.5))}
        step={small}
        value={step.distance}
        onChange={(e) => set({ distance: Number(e.target.value) }, 'distance')}
      />
      {length('Distance', 'distance')}
      <Choice
        label="Follows"
        value={step.envelope ? 'envelope' : 'letters'}
        options={[
          { value: 'letters', word: 'the letters' },
          { value: 'envelope', word: 'an envelope', title: 'Spans the hollows, like a skin pulled over the words' },
        ]}
        onChange={(way) => set({ envelope: way === 'envelope' })}
      />
      <Choice
        label="Corners"
        value={step.corners}
        options={[
          { value: 'round', word: 'round' },
          { value: 'mitre', word: 'pointed' },
          { value: 'square', word: 'cut off' },
        ]}
        onChange={(corners) => set({ corners })}
      />
      {!step.envelope && length('Bridge gaps to', 'bridge')}
      {length('Smooth to', 'smooth')}
      <Switch
        label="Keep large holes"
        on={step.holesFrom !== null}
        onChange={(on) => set({ holesFrom: on ? Math.max(2, step.distance) : null })}
      />
      {step.holesFrom !== null && (
        <QuantityField
          label="From"
          unit={unit}
          value={step.holesFrom}
          least={0}
          most={LIMITS.offsetMostMm}
          stepMm={small}
          onChange={(mm) => set({ holesFrom: mm }, 'holes')}
        />
      )}
      {use !== null && (
        <Choice
          label="The words"
          value={use}
          options={[
            { value: 'glued', word: 'glued on', title: 'Two pieces to cut, side by side' },
            { value: 'engraved', word: 'engraved', title: 'One piece to cut, with the words engraved' },
          ]}
          onChange={backed}
        />
      )}
    </>
  );
}
