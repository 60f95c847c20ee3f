/** The form of a machine. */
import type { Control } from 'react-hook-form';
import { useController } from 'react-hook-form';
import { RUNNING_ORDER } from '@/core/commands/operations';
import { LIMITS } from '@/core/limits';
import { colourKeySchema } from '@/core/schema/operations';
import { MACHINE_KINDS, type Machine, machineSchema } from '@/core/schema/shop/machine';
import { MACHINE_WORDS } from '@/core/shop/words';
import type { LengthUnit } from '@/core/units/quantity';
import { Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { KindColours } from '@/ui/kind-colours';
import { Figure, Length, Listed, OneOf, Speed, Words } from './bound-fields';

const ORIGINS = ['lower left', 'lower right', 'upper left', 'upper right', 'middle'] as const;
const same = <T extends string>(values: readonly T[]) => values.map((value) => ({ value, word: value }));
const KINDS = MACHINE_KINDS.map((value) => ({ value, word: MACHINE_WORDS[value] }));
const AREAS = machineSchema.shape.areas.unwrap().unwrap().parse({});

/** Whether, and how, the machine goes over areas. */
function Areas({ control, unit }: { control: Control<Machine>; unit: LengthUnit }) {
  const { field } = useController({ control, name: 'areas' });
  return (
    <>
      <Heading>Areas, row by row</Heading>
      <Switch
        label="It goes over areas"
        on={field.value !== null}
        onChange={(on) => field.onChange(on ? AREAS : null)}
      />
      {field.value && (
        <>
          <OneOf
            control={control}
            name="areas.rows"
            label="Rows"
            options={[
              { value: 'own', word: 'to their ends' },
              { value: 'full', word: 'full width' },
            ]}
          />
          <OneOf
            control={control}
            name="areas.way"
            label="Direction"
            options={[
              { value: 'both', word: 'back and forth' },
              { value: 'one', word: 'one way' },
            ]}
          />
          <Length control={control} name="areas.runUp" label="Run-up" unit={unit} />
          <Figure
            control={control}
            name="areas.turnSeconds"
            label="Turning"
            suffix="s"
            step={0.05}
            least={0}
            most={3600}
          />
        </>
      )}
    </>
  );
}

/** The fields of a machine. */
export function MachineForm({ control, unit }: { control: Control<Machine>; unit: LengthUnit }) {
  const size = { least: LIMITS.sheetLeastMm, most: LIMITS.sheetMostMm };
  const speed = { least: LIMITS.speedLeastMmS, most: LIMITS.speedMostMmS };
  const { field: format } = useController({ control, name: 'file.format' });
  return (
    <>
      <Words control={control} name="name" label="Name" most={LIMITS.nameCharacters} />
      <Listed control={control} name="kind" label="Kind" options={KINDS} />
      <Heading>Bed</Heading>
      <Length control={control} name="bed.width" label="Width" unit={unit} {...size} />
      <Length control={control} name="bed.height" label="Height" unit={unit} {...size} />
      <Listed control={control} name="origin" label="0, 0 is" options={same(ORIGINS)} />
      <OneOf control={control} name="axes.x" label="X grows" options={same(['right', 'left'])} />
      <OneOf control={control} name="axes.y" label="Y grows" options={same(['up', 'down'])} />
      <Heading>How it moves</Heading>
      <Speed control={control} name="speed.x" label="Fastest, x" unit={unit} {...speed} />
      <Speed control={control} name="speed.y" label="Fastest, y" unit={unit} {...speed} />
      <Speed control={control} name="slowest" label="Slowest" unit={unit} {...speed} />
      <Speed control={control} name="idleSpeed" label="Idle" unit={unit} {...speed} />
      <Figure
        control={control}
        name="acceleration.x"
        label="Acceleration, x"
        suffix="mm/s²"
        step={100}
        least={1}
        most={1e6}
      />
      <Figure
        control={control}
        name="acceleration.y"
        label="Acceleration, y"
        suffix="mm/s²"
        step={100}
        least={1}
        most={1e6}
      />
      <Figure control={control} name="pierceSeconds" label="Piercing" suffix="s" step={0.1} least={0} most={3600} />
      <Figure control={control} name="liftSeconds" label="Lift" suffix="s" step={0.1} least={0} most={3600} />
      <Figure control={control} name="changeSeconds" label="Change of tool" suffix="s" step={1} least={0} most={3600} />
      <Length control={control} name="cornerMm" label="Corners cut by" unit={unit} least={0.001} most={10} />
      <Areas control={control} unit={unit} />
      <Heading beside="0: not reckoned">Price</Heading>
      <Figure
        control={control}
        name="hourPrice"
        label="An hour of it"
        suffix=""
        none
        step={1}
        least={0}
        most={LIMITS.price}
      />
      <Figure
        control={control}
        name="piercePrice"
        label="A pierce"
        suffix=""
        none
        step={0.1}
        least={0}
        most={LIMITS.price}
      />
      <Heading beside="what it wants">Files</Heading>
      <OneOf
        control={control}
        name="file.format"
        label="Format"
        options={[
          { value: 'svg', word: 'SVG' },
          { value: 'dxf', word: 'DXF' },
          { value: 'pdf', word: 'PDF' },
          { value: 'hpgl', word: 'plotter' },
        ]}
      />
      {format.value === 'dxf' && (
        <>
          <OneOf control={control} name="file.dxf" label="Version" options={same(['R12', '2000', '2007'])} />
          <OneOf control={control} name="file.unit" label="Unit" options={same(['mm', 'in'])} />
        </>
      )}
      <OneOf control={control} name="file.curves" label="It reads" options={same(['curves', 'arcs', 'lines'])} />
      {format.value !== 'hpgl' && (
        <>
          <Colours control={control} />
          <Layers control={control} />
        </>
      )}
      <OneFile control={control} />
      <Figure
        control={control}
        name="file.mostSegments"
        label="Segments"
        suffix="at most"
        none
        step={1000}
        digits={0}
        least={0}
        most={LIMITS.machineSegments}
      />
    </>
  );
}

const OWN_LAYERS = { engrave: 'ENGRAVE', mark: 'MARK', score: 'SCORE', cut: 'CUT' };

/** The colours it reads, by kind of operation. */
function Colours({ control }: { control: Control<Machine> }) {
  const { field } = useController({ control, name: 'file.colours' });
  const { value, onChange } = field;
  return (
    <>
      <Switch
        label="Colours of its own"
        on={value !== null}
        onChange={(on) => onChange(on ? colourKeySchema.parse({}) : null)}
      />
      {value && <KindColours colours={value} onChange={(kind, colour) => onChange({ ...value, [kind]: colour })} />}
    </>
  );
}

/** The names of layers it reads, by kind of operation. */
function Layers({ control }: { control: Control<Machine> }) {
  const { field } = useController({ control, name: 'file.layers' });
  return (
    <>
      <Switch
        label="Layers of its own"
        on={field.value !== null}
        onChange={(on) => field.onChange(on ? OWN_LAYERS : null)}
      />
      {field.value &&
        RUNNING_ORDER.map((kind) => (
          <Words
            key={kind}
            control={control}
            name={`file.layers.${kind}`}
            label={`For ${kind}`}
            most={LIMITS.nameCharacters}
          />
        ))}
    </>
  );
}

function OneFile({ control }: { control: Control<Machine> }) {
  const { field } = useController({ control, name: 'file.perOperation' });
  return <Switch label="One file for each operation" on={field.value} onChange={field.onChange} />;
}
