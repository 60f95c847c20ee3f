/** Fields of a form, bound to what they hold by its name. */
import { useId } from 'react';
import Form from 'react-bootstrap/Form';
import { type Control, type FieldPathByValue, type FieldValues, useController } from 'react-hook-form';
import { speedScale, speedUnit } from '@/core/shop/words';
import type { LengthUnit } from '@/core/units/quantity';
import { Choice, NumberField, QuantityField, Row, TextField } from '@/ui/fields';

type Bound<T extends FieldValues, V> = {
  readonly control: Control<T>;
  readonly name: FieldPathByValue<T, V>;
  readonly label: string;
};
type Limits = { readonly least?: number; readonly most?: number };
/** Whether 0 stands for none. */
type MayBeNone = { readonly none?: boolean };

/** A line of words. */
export function Words<T extends FieldValues>({
  control,
  name,
  label,
  most,
}: Bound<T, string> & { readonly most: number }) {
  const { field } = useController({ control, name });
  return <TextField label={label} value={field.value} most={most} onChange={field.onChange} />;
}

const kept = (value: number, none: boolean): number | null => (none && value === 0 ? null : value);

/** A length in mm. */
export function Length<T extends FieldValues>({
  control,
  name,
  label,
  none = false,
  least = 0,
  most = 1000,
  ...more
}: Bound<T, number | null> & Limits & MayBeNone & { readonly unit: LengthUnit; readonly digits?: number }) {
  const { field } = useController({ control, name });
  const value = (field.value as number | null) ?? 0;
  return (
    <QuantityField
      label={label}
      value={value}
      least={none ? 0 : least}
      most={most}
      {...more}
      onChange={(mm) => field.onChange(kept(mm, none))}
    />
  );
}

/** A plain number. */
export function Figure<T extends FieldValues>({
  control,
  name,
  label,
  none = false,
  step = 1,
  ...more
}: Bound<T, number | null> &
  Limits &
  MayBeNone & { readonly suffix: string; readonly step?: number; readonly digits?: number; readonly scale?: number }) {
  const { field } = useController({ control, name });
  return (
    <NumberField
      label={label}
      value={(field.value as number | null) ?? 0}
      step={step}
      {...more}
      onChange={(value) => field.onChange(kept(value, none))}
    />
  );
}

/** A speed in mm a second. */
export const Speed = <T extends FieldValues>({
  unit,
  ...more
}: Bound<T, number | null> & Limits & MayBeNone & { readonly unit: LengthUnit }) => (
  <Figure {...more} suffix={speedUnit(unit)} scale={speedScale(unit)} step={unit === 'mm' ? 1 : 5} />
);

/** One of some words, in a list that opens. */
export function Listed<T extends FieldValues>({
  control,
  name,
  label,
  options,
  none,
  noneIs = null,
}: Bound<T, string | null> & {
  readonly options: readonly { readonly value: string; readonly word: string }[];
  /** What none is called; left out where there is always one. */
  readonly none?: string;
  readonly noneIs?: '' | null;
}) {
  const id = useId();
  const { field } = useController({ control, name });
  return (
    <Row label={label} htmlFor={id}>
      <Form.Select
        id={id}
        size="sm"
        value={(field.value as string | null) ?? ''}
        onChange={(e) => field.onChange(e.target.value || noneIs)}
      >
        {none !== undefined && <option value="">{none}</option>}
        {options.map(({ value, word }) => (
          <option key={value} value={value}>
            {word}
          </option>
        ))}
      </Form.Select>
    </Row>
  );
}

/** One of a few words. */
export function OneOf<T extends FieldValues, V extends string>({
  control,
  name,
  label,
  options,
}: Bound<T, V> & {
  readonly options: readonly { readonly value: V; readonly word: string; readonly title?: string }[];
}) {
  const { field } = useController({ control, name });
  return <Choice label={label} value={field.value as V} options={options} onChange={field.onChange} />;
}
