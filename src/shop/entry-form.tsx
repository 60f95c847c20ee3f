/** The form beside the row in hand: what is typed is kept at once, as far as it is right. */
import { zodResolver } from '@hookform/resolvers/zod';
import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { type Control, type DefaultValues, useForm } from 'react-hook-form';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { EntryOf, KeptShop, Shelf } from '@/core/schema/shop/shop';
import { SHELVES } from '@/core/schema/shop/shop';
import type { LengthUnit } from '@/core/units/quantity';
import { Heading } from '@/ui/heading';
import { ChartForm } from './chart-form';
import { MachineForm } from './machine-form';
import { MaterialForm } from './material-form';
import { ToolForm } from './tool-form';

/** How long a pause in typing is, after which it is kept, in ms. */
const PAUSE_MS = 350;

type FormProps<S extends Shelf> = {
  readonly shelf: S;
  readonly id: string;
  readonly entry: EntryOf<S>;
  readonly shop: KeptShop;
  readonly unit: LengthUnit;
  /** Keeps it; whether that went well. */
  readonly onKeep: (entry: EntryOf<S>) => Promise<boolean>;
  readonly onRemove: () => void;
};

/** The fields of a shelf. */
function fieldsOf(shelf: Shelf, control: unknown, shop: KeptShop, unit: LengthUnit): ReactNode {
  switch (shelf) {
    case 'machines':
      return <MachineForm control={control as Control<EntryOf<'machines'>>} unit={unit} />;
    case 'materials':
      return <MaterialForm control={control as Control<EntryOf<'materials'>>} unit={unit} />;
    case 'tools':
      return <ToolForm control={control as Control<EntryOf<'tools'>>} unit={unit} />;
    case 'chart':
      return <ChartForm control={control as Control<EntryOf<'chart'>>} shop={shop} unit={unit} />;
  }
}

/** The form of something the shop has. */
export function EntryForm<S extends Shelf>({ shelf, id, entry, shop, unit, onKeep, onRemove }: FormProps<S>) {
  const schema = SHELVES[shelf];
  const form = useForm({
    defaultValues: entry as DefaultValues<EntryOf<S>>,
    resolver: zodResolver(schema as never) as never,
    mode: 'onChange',
  });
  const { control, subscribe, getValues, formState } = form;
  const [isKept, setIsKept] = useState(true);
  const keep = useRef(onKeep);
  keep.current = onKeep;
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null;
    const save = () => {
      timer = null;
      const read = schema.safeParse(getValues());
      if (read.success) void keep.current(read.data as EntryOf<S>).then(setIsKept);
    };
    const stop = subscribe({
      formState: { values: true },
      callback: () => {
        if (timer) clearTimeout(timer);
        timer = setTimeout(save, PAUSE_MS);
      },
    });
    return () => {
      stop();
      if (timer) {
        clearTimeout(timer);
        save();
      }
    };
  }, [schema, subscribe, getValues]);
  const wrong = Object.keys(formState.errors).length > 0;
  return (
    <form onSubmit={(e) => e.preventDefault()}>
      {fieldsOf(shelf, control, shop, unit)}
      {wrong && (
        <p role="alert" className="nf-small">
          Something here is missing or too large: it is kept when that is put right.
        </p>
      )}
      {!isKept && (
        <p role="alert" className="nf-small">
          This is not kept yet.{' '}
          <Button variant="word" onClick={() => void onKeep(schema.parse(getValues()) as EntryOf<S>).then(setIsKept)}>
            Keep it now
          </Button>
        </p>
      )}
      <Users shelf={shelf} id={id} shop={shop} />
      <Button variant="plain" className="mt-3" onClick={onRemove}>
        Take it out of the shop
      </Button>
    </form>
  );
}

/** What uses it: jobs, and rows of charts. */
function Users({ shelf, id, shop }: { shelf: Shelf; id: string; shop: KeptShop }) {
  const isAsked = shelf !== 'chart';
  const { data = [] } = useQuery({
    queryKey: ['shop', 'users', shelf, id],
    queryFn: ({ signal }) => call(API.usersOfEntry, { shelf, entry: id }, null, signal),
    enabled: isAsked,
  });
  if (!isAsked) return null;
  const rows = shop.chart.filter(({ entry }) => entry.machine === id || entry.material === id).length;
  return (
    <>
      <Heading>Used by</Heading>
      {rows > 0 && <p className="nf-small mb-1">{rows === 1 ? '1 row' : `${rows} rows`} of the cut charts</p>}
      {data.length === 0 ? (
        <p className="nf-muted nf-small">No job uses it yet.</p>
      ) : (
        <ul className="list-unstyled nf-small">
          {data.map((job) => (
            <li key={job.id}>
              <Link href={`/jobs/${job.id}`}>{job.title}</Link>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
