/** The form of a tool. */
import { type Control, useController } from 'react-hook-form';
import { LIMITS } from '@/core/limits';
import type { ShopTool } from '@/core/schema/shop/shop';
import type { LengthUnit } from '@/core/units/quantity';
import { Switch } from '@/ui/fields';
import { Figure, Length, OneOf, Words } from './bound-fields';

function Colour({ control }: { control: Control<ShopTool> }) {
  const { field } = useController({ control, name: 'colour' });
  return (
    <>
      <Switch label="It is a pen" on={field.value !== null} onChange={(on) => field.onChange(on ? '#1F2A30' : null)} />
      {field.value !== null && (
        <input
          type="color"
          aria-label="Colour of the pen"
          value={field.value}
          onChange={(e) => field.onChange(e.target.value.toUpperCase())}
        />
      )}
    </>
  );
}

/** The fields of a tool. */
export function ToolForm({ control, unit }: { control: Control<ShopTool>; unit: LengthUnit }) {
  const { field: shape } = useController({ control, name: 'shape' });
  const digits = unit === 'mm' ? 2 : 3;
  return (
    <>
      <Words control={control} name="name" label="Name" most={LIMITS.nameCharacters} />
      <OneOf
        control={control}
        name="shape"
        label="End"
        options={[
          { value: 'line', word: 'line', title: 'A pen, a blade or a beam, as wide as its tip' },
          { value: 'flat', word: 'flat' },
          { value: 'round', word: 'round' },
          { value: 'cone', word: 'cone' },
        ]}
      />
      <Length
        control={control}
        name="tip"
        label={shape.value === 'cone' ? 'Tip' : 'Width'}
        unit={unit}
        least={0.01}
        digits={digits}
      />
      {shape.value === 'cone' && (
        <Figure control={control} name="angle" label="Angle" suffix="°" least={1} most={170} />
      )}
      {shape.value !== 'line' && (
        <Length control={control} name="depth" label="Depth" unit={unit} least={0.001} digits={digits} />
      )}
      <Length control={control} name="diameter" label="Shank" unit={unit} none digits={digits} />
      <Figure
        control={control}
        name="feed"
        label="Feed"
        suffix={unit === 'mm' ? 'mm/min' : 'in/min'}
        scale={unit === 'mm' ? 1 : 1 / 25.4}
        step={50}
        digits={0}
        least={1}
        most={1_000_000}
      />
      <Colour control={control} />
    </>
  );
}
