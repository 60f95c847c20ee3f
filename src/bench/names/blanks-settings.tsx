/** What the blanks are, where they lie, and how names are fitted to them. */
import { useId } from 'react';
import Form from 'react-bootstrap/Form';
import { editBlanks } from '@/core/commands/layout';
import { LIMITS } from '@/core/limits';
import type { Blanks } from '@/core/schema/layout';
import type { LengthUnit } from '@/core/units/quantity';
import { NumberField, QuantityField, Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { dispatchDocument } from '../store';
import styles from './names.module.css';

type Length = 'width' | 'height' | 'inset' | 'x' | 'y' | 'across' | 'down';

const leastOf = (key: Length): number => {
  if (key === 'x' || key === 'y') return -LIMITS.lengthMm;
  return key === 'inset' ? 0 : LIMITS.leastLengthMm;
};

type Edit = (more: Partial<Blanks>, merge?: string) => void;

/** A length of the blanks. */
function LengthOf({
  of,
  label,
  blanks,
  unit,
  edit,
}: {
  of: Length;
  label: string;
  blanks: Blanks;
  unit: LengthUnit;
  edit: Edit;
}) {
  return (
    <QuantityField
      label={label}
      unit={unit}
      value={blanks[of]}
      least={leastOf(of)}
      most={of === 'inset' ? LIMITS.spacingMm : LIMITS.lengthMm}
      onChange={(mm) => edit({ [of]: mm }, `blanks-${of}`)}
    />
  );
}

/** One of a few ways. */
function OneOf<T extends string | number>({
  label,
  value,
  ways,
  onChange,
}: {
  label: string;
  value: T;
  ways: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}) {
  const id = useId();
  return (
    <Row label={label} htmlFor={id}>
      <Form.Select
        id={id}
        size="sm"
        value={value}
        onChange={(e) => {
          const way = ways.find(([of]) => String(of) === e.target.value);
          if (way) onChange(way[0]);
        }}
      >
        {ways.map(([of, words]) => (
          <option key={of} value={of}>
            {words}
          </option>
        ))}
      </Form.Select>
    </Row>
  );
}

/** How many lie in a row, or in a column. */
const Count = ({ of, label, blanks, edit }: { of: 'columns' | 'rows'; label: string; blanks: Blanks; edit: Edit }) => (
  <NumberField
    label={label}
    suffix=""
    digits={0}
    step={1}
    value={blanks[of]}
    least={1}
    most={LIMITS.blanksAlong}
    onChange={(n) => edit({ [of]: Math.round(n) }, `blanks-${of}`)}
  />
);

/** Settings of blanks. */
export function BlanksSettings({ blanks, unit }: { blanks: Blanks; unit: LengthUnit }) {
  const edit: Edit = (more, merge) => dispatchDocument((job) => editBlanks(job, more), merge ?? null);
  const shared = { blanks, unit, edit };
  return (
    <section className={styles.blanks} aria-label="Blanks">
      <Heading>A blank</Heading>
      <OneOf
        label="Shape"
        value={blanks.shape}
        ways={[
          ['rectangle', 'Square-cornered'],
          ['ellipse', 'Round'],
        ]}
        onChange={(shape) => edit({ shape })}
      />
      <LengthOf of="width" label="Width" {...shared} />
      <LengthOf of="height" label="Height" {...shared} />
      <LengthOf of="inset" label="Free edge" {...shared} />
      <Heading>How they lie</Heading>
      <Count of="columns" label="Columns" {...shared} />
      <LengthOf of="across" label="Column pitch" {...shared} />
      <Count of="rows" label="Rows" {...shared} />
      <LengthOf of="down" label="Row pitch" {...shared} />
      <LengthOf of="x" label="First, from left" {...shared} />
      <LengthOf of="y" label="First, from top" {...shared} />
      <p className="nf-muted nf-small">To the middle of the first. A blank pressed on the sheet is left out.</p>
      <Heading>Names on them</Heading>
      <OneOf
        label="Read from"
        value={blanks.turn}
        ways={[
          [0, 'below'],
          [90, 'the right'],
          [180, 'above'],
          [270, 'the left'],
        ]}
        onChange={(turn) => edit({ turn })}
      />
      <OneOf
        label="Size"
        value={blanks.size}
        ways={[
          ['smaller', 'Smaller if too large'],
          ['fill', 'As large as it goes'],
          ['as-set', 'As it is set'],
        ]}
        onChange={(size) => edit({ size })}
      />
    </section>
  );
}
