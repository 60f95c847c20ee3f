/** The form of a material. */
import { Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type Control, useController, useFieldArray, useWatch } from 'react-hook-form';
import { LIMITS } from '@/core/limits';
import { PROCESSES, type Process } from '@/core/schema/sheet';
import type { Material } from '@/core/schema/shop/material';
import { formatLength, type LengthUnit } from '@/core/units/quantity';
import { QuantityField, Switch } from '@/ui/fields';
import { areaScale, areaUnit } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import { Figure, Length, Listed, Words } from './bound-fields';
import styles from './shop.module.css';

const WAYS = PROCESSES.map((value) => ({ value, word: value }));

/** By what it is cut, and how wide. */
function Kerfs({ control, unit }: { control: Control<Material>; unit: LengthUnit }) {
  const { field } = useController({ control, name: 'kerfsMm' });
  const kerfs = field.value;
  const set = (process: Process, mm: number | undefined) => {
    const { [process]: _before, ...others } = kerfs;
    field.onChange(mm === undefined ? others : { ...others, [process]: mm });
  };
  return (
    <>
      <Heading beside="and how wide a cut is">Cut by</Heading>
      {PROCESSES.map((process) => (
        <div key={process} className={styles.kerf}>
          <Switch
            label={process}
            on={kerfs[process] !== undefined}
            onChange={(on) => set(process, on ? 0.2 : undefined)}
          />
          {kerfs[process] !== undefined && (
            <QuantityField
              bare
              label={`Kerf by ${process}`}
              unit={unit}
              value={kerfs[process]}
              least={0}
              most={100}
              stepMm={0.05}
              onChange={(mm) => set(process, mm)}
            />
          )}
        </div>
      ))}
    </>
  );
}

/** What must not be done to it. */
function Refusals({ control }: { control: Control<Material> }) {
  const { fields, append, remove } = useFieldArray({ control, name: 'refuses' });
  return (
    <>
      <Heading beside="a fault where it is done">Not by</Heading>
      {fields.map((row, i) => (
        <fieldset key={row.id} className={styles.group} aria-label={`What must not be done, ${i + 1}`}>
          <Listed control={control} name={`refuses.${i}.process`} label="Not by" options={WAYS} />
          <Words control={control} name={`refuses.${i}.why`} label="Because" most={LIMITS.nameCharacters} />
          <Button variant="word" onClick={() => remove(i)}>
            Take this out
          </Button>
        </fieldset>
      ))}
      {fields.length < LIMITS.refusals && (
        <Button variant="plain" onClick={() => append({ process: 'laser', why: 'It harms people or the machine' })}>
          + something that must not be done
        </Button>
      )}
    </>
  );
}

/** Thicknesses and sheets in stock. */
function Stock({ control, unit }: { control: Control<Material>; unit: LengthUnit }) {
  const thicknesses = useFieldArray({ control, name: 'thicknesses' });
  const sheets = useFieldArray({ control, name: 'sheets' });
  const size = { least: LIMITS.sheetLeastMm, most: LIMITS.sheetMostMm };
  return (
    <>
      <Heading beside="with what it goes by">Thicknesses</Heading>
      {thicknesses.fields.map((row, i) => (
        <div key={row.id} className={styles.listed}>
          <Length
            control={control}
            name={`thicknesses.${i}.mm`}
            label="Thickness"
            unit={unit}
            least={0.01}
            digits={unit === 'mm' ? 2 : 3}
          />
          <GoesBy control={control} i={i} />
          <Button variant="word" aria-label={`Take thickness ${i + 1} out`} onClick={() => thicknesses.remove(i)}>
            <Trash2 size={14} />
          </Button>
        </div>
      ))}
      {thicknesses.fields.length < LIMITS.thicknesses && (
        <Button variant="plain" onClick={() => thicknesses.append({ mm: 3, as: '', price: null })}>
          + thickness
        </Button>
      )}
      <Heading>Sheets</Heading>
      {sheets.fields.map((row, i) => (
        <fieldset key={row.id} className={styles.group} aria-label={`Sheet ${i + 1}`}>
          <Length control={control} name={`sheets.${i}.width`} label="Width" unit={unit} {...size} />
          <Length control={control} name={`sheets.${i}.height`} label="Height" unit={unit} {...size} />
          {row.offCut && <span className="nf-muted nf-small">an off-cut, with its own outline </span>}
          <Button variant="word" onClick={() => sheets.remove(i)}>
            Take this out
          </Button>
        </fieldset>
      ))}
      {sheets.fields.length < LIMITS.sheetSizes && (
        <Button variant="plain" onClick={() => sheets.append({ width: 600, height: 400, offCut: null })}>
          + sheet
        </Button>
      )}
    </>
  );
}

/** What a square metre costs, of each thickness in stock. */
function Prices({ control, unit }: { control: Control<Material>; unit: LengthUnit }) {
  const thicknesses = useWatch({ control, name: 'thicknesses' });
  if (thicknesses.length === 0) return null;
  return (
    <>
      <Heading beside="0: not reckoned">Price</Heading>
      {thicknesses.map(({ mm, as }, i) => (
        <Figure
          // biome-ignore lint/suspicious/noArrayIndexKey: thicknesses have nothing else that tells them apart.
          key={i}
          control={control}
          name={`thicknesses.${i}.price`}
          label={as || formatLength(mm, unit, unit === 'mm' ? 2 : 3)}
          suffix={`per ${areaUnit(unit)}`}
          none
          scale={areaScale(unit)}
          step={1}
          least={0}
          most={LIMITS.price}
        />
      ))}
    </>
  );
}

function GoesBy({ control, i }: { control: Control<Material>; i: number }) {
  const { field } = useController({ control, name: `thicknesses.${i}.as` });
  return (
    <Form.Control
      size="sm"
      aria-label={`What thickness ${i + 1} goes by`}
      placeholder="such as 16 gauge"
      value={field.value}
      maxLength={LIMITS.quantityCharacters}
      onChange={(e) => field.onChange(e.target.value)}
    />
  );
}

/** The fields of a material. */
export function MaterialForm({ control, unit }: { control: Control<Material>; unit: LengthUnit }) {
  return (
    <>
      <Words control={control} name="name" label="Name" most={LIMITS.nameCharacters} />
      <Heading>What is safe</Heading>
      <Length control={control} name="leastWidthMm" label="Least width" unit={unit} digits={2} />
      <Figure
        control={control}
        name="leastPerThickness"
        label="or of its thickness"
        suffix="%"
        scale={100}
        step={5}
        least={0}
        most={100}
      />
      <Length control={control} name="bridgeMm" label="Bridges" unit={unit} digits={2} />
      <Listed control={control} name="process" label="Usually by" options={WAYS} />
      <Kerfs control={control} unit={unit} />
      <Refusals control={control} />
      <Stock control={control} unit={unit} />
      <Prices control={control} unit={unit} />
    </>
  );
}
