/** The form of a row of a cut chart. */
import { type Control, useController, useWatch } from 'react-hook-form';
import { LIMITS } from '@/core/limits';
import type { OperationKind } from '@/core/schema/operations';
import { GASES } from '@/core/schema/shop/settings';
import type { ChartRow, KeptShop } from '@/core/schema/shop/shop';
import { doneBy } from '@/core/shop/can';
import { SETTING_WORDS, settingsUsed } from '@/core/shop/words';
import type { LengthUnit } from '@/core/units/quantity';
import { Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { Figure, Length, Listed, Speed } from './bound-fields';

/** The field of a setting. */
function Setting({
  which,
  control,
  shop,
  unit,
}: {
  which: keyof ChartRow['settings'];
  control: Control<ChartRow>;
  shop: KeptShop;
  unit: LengthUnit;
}) {
  const label = SETTING_WORDS[which];
  const digits = unit === 'mm' ? 2 : 3;
  switch (which) {
    case 'speed':
      return (
        <Speed
          control={control}
          name="settings.speed"
          label={label}
          unit={unit}
          none
          least={0}
          most={LIMITS.speedMostMmS}
        />
      );
    case 'power':
      return <Figure control={control} name="settings.power" label={label} suffix="%" none least={0} most={100} />;
    case 'current':
      return <Figure control={control} name="settings.current" label={label} suffix="A" none least={0} most={2000} />;
    case 'passes':
      return (
        <Figure
          control={control}
          name="settings.passes"
          label={label}
          suffix=""
          digits={0}
          least={1}
          most={LIMITS.passes}
        />
      );
    case 'gas':
      return (
        <Listed
          control={control}
          name="settings.gas"
          label={label}
          none="not given"
          options={GASES.map((value) => ({ value, word: value }))}
        />
      );
    case 'tool':
      return <ToolOf control={control} shop={shop} />;
    default:
      return <Length control={control} name={`settings.${which}`} label={label} unit={unit} none digits={digits} />;
  }
}

function ToolOf({ control, shop }: { control: Control<ChartRow>; shop: KeptShop }) {
  const { field } = useController({ control, name: 'settings.tool' });
  const names = [...new Set([...shop.tools.map((t) => t.entry.name), ...(field.value ? [field.value] : [])])];
  return (
    <Listed
      control={control}
      name="settings.tool"
      label={SETTING_WORDS.tool}
      none="none"
      noneIs=""
      options={names.map((value) => ({ value, word: value }))}
    />
  );
}

/** The fields of a row. */
export function ChartForm({ control, shop, unit }: { control: Control<ChartRow>; shop: KeptShop; unit: LengthUnit }) {
  const [machineId, kind] = useWatch({ control, name: ['machine', 'kind'] });
  const machine = shop.machines.find((m) => m.id === machineId)?.entry.kind ?? null;
  const kinds: readonly OperationKind[] = machine ? doneBy(machine) : ['engrave', 'mark', 'score', 'cut'];
  const { field: tried } = useController({ control, name: 'tried' });
  const named = (list: readonly { id: string; entry: { name: string } }[]) =>
    list.map(({ id, entry }) => ({ value: id, word: entry.name }));
  return (
    <>
      <Listed control={control} name="machine" label="Machine" options={named(shop.machines)} />
      <Listed control={control} name="material" label="Material" options={named(shop.materials)} />
      <Length control={control} name="thickness" label="Thickness" unit={unit} none digits={unit === 'mm' ? 2 : 3} />
      <p className="nf-muted nf-small">0: whatever the thickness.</p>
      <Listed
        control={control}
        name="kind"
        label="Operation"
        options={[...new Set([...kinds, kind])].map((value) => ({ value, word: value }))}
      />
      <Heading>Settings</Heading>
      {settingsUsed(machine, kind).map((which) => (
        <Setting key={which} which={which} control={control} shop={shop} unit={unit} />
      ))}
      <Switch
        label="Tried"
        note={tried.value ? undefined : 'Not tried: a job that uses it says so.'}
        on={tried.value}
        onChange={tried.onChange}
      />
    </>
  );
}
