/** The machine a job is made on, and what followed from choosing another, or other stock. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type Difference, differences, setMachine } from '@/core/commands/shop';
import type { Job } from '@/core/document/schema';
import type { SettingName } from '@/core/schema/shop/settings';
import { formatSetting, MACHINE_WORDS, SETTING_WORDS } from '@/core/shop/words';
import { formatLength, type LengthUnit } from '@/core/units/quantity';
import { Row } from '@/ui/fields';
import { rememberMachine } from '@/ui/last-machine';
import { useShop } from '@/ui/use-shop';
import { dispatch, useBench } from '../store';

/** A choice of one of the shop's machines; one that the shop does not have is there as the job has it. */
export function MachineSelect({ id, onChange }: { id: string; onChange: (change: () => void) => void }) {
  const machine = useBench((s) => s.job.machine);
  const shop = useShop();
  const known = shop.machines.find((m) => m.id === machine?.id);
  return (
    <Row label="Machine" htmlFor={id}>
      <Form.Select
        id={id}
        size="sm"
        value={machine?.id ?? ''}
        onChange={(e) => {
          const chosen = shop.machines.find((m) => m.id === e.target.value);
          rememberMachine(chosen?.id ?? '');
          onChange(() =>
            dispatch((job) => setMachine(job, chosen ? { ...chosen.entry, id: chosen.id } : null, shop), null),
          );
        }}
      >
        <option value="">not given</option>
        {machine && !known && <option value={machine.id}>{machine.name} (not in this shop)</option>}
        {shop.machines.map(({ id: own, entry }) => (
          <option key={own} value={own}>
            {entry.name}
          </option>
        ))}
      </Form.Select>
      {machine && !machine.name.toLowerCase().includes(MACHINE_WORDS[machine.kind]) && (
        <div className="nf-muted nf-small">{MACHINE_WORDS[machine.kind]}</div>
      )}
    </Row>
  );
}

const STOCK_WORDS = { kerf: 'kerf', leastWidth: 'least safe width' } as const;

const written = ({ which }: Difference, value: Difference['before'], unit: LengthUnit): string =>
  which === 'kerf' || which === 'leastWidth'
    ? typeof value === 'number'
      ? formatLength(value, unit, 2)
      : '–'
    : formatSetting(which, value as never, unit);

/** What changed of one operation, or of the stock, in a line. */
function lineOf(found: readonly Difference[], unit: LengthUnit): string {
  const [first] = found;
  if (found.length > 1 && first?.operation && found.every((d) => isNothing(d.before)))
    return 'settings from the cut chart';
  if (found.length > 1 && first?.operation && found.every((d) => isNothing(d.after))) return 'no settings any more';
  return found
    .map((d) => {
      const word =
        d.operation === null ? STOCK_WORDS[d.which as keyof typeof STOCK_WORDS] : SETTING_WORDS[d.which as SettingName];
      return `${word.toLowerCase()} ${written(d, d.before, unit)} → ${written(d, d.after, unit)}`;
    })
    .join(', ');
}
const isNothing = (value: Difference['before']): boolean => value === null || value === '' || value === 1;

/** Remembers the job as it was before a change of machine or stock, until what changed has been looked at. */
export function useFollowed() {
  const [before, setBefore] = useState<Job | null>(null);
  const following = (change: () => void) => {
    const now = useBench.getState().job;
    setBefore((kept) => kept ?? now);
    change();
  };
  return { before, following, seen: () => setBefore(null) };
}

/** What is other than it was before: nothing where nothing is. */
export function Followed({ before, onSeen }: { before: Job | null; onSeen: () => void }) {
  const job = useBench((s) => s.job);
  const found = before ? differences(before, job) : [];
  if (found.length === 0) return null;
  const groups = new Map<string, Difference[]>();
  for (const d of found) {
    const name = d.operation?.name ?? 'Stock';
    groups.set(name, [...(groups.get(name) ?? []), d]);
  }
  return (
    <div role="status" className="nf-small mb-2 p-2 border rounded">
      <b>What changed with it</b>
      <ul className="list-unstyled m-0">
        {[...groups].map(([name, own]) => (
          <li key={name}>
            {name}: <span className="nf-muted">{lineOf(own, job.units)}</span>
          </li>
        ))}
      </ul>
      <Button variant="word" onClick={onSeen}>
        Seen
      </Button>
    </div>
  );
}
