/** Colours that are chosen: one, or one for each kind of operation. */
import { type ComponentProps, useId } from 'react';
import { RUNNING_ORDER } from '@/core/commands/operations';
import type { OperationKind } from '@/core/document/schema';
import styles from './ui.module.css';

type ColourProps = Omit<ComponentProps<'input'>, 'type' | 'className' | 'onChange'> & {
  /** "#RRGGBB". */
  onChange: (colour: string) => void;
};

/** A colour to be chosen. */
export const ColourField = ({ onChange, ...field }: ColourProps) => (
  <input type="color" className={styles.colour} {...field} onChange={(e) => onChange(e.target.value.toUpperCase())} />
);

/** Four colours, each to be chosen. */
export function KindColours({
  colours,
  onChange,
}: {
  colours: Readonly<Record<OperationKind, string>>;
  onChange: (kind: OperationKind, colour: string) => void;
}) {
  const id = useId();
  return (
    <div className="d-flex flex-wrap column-gap-2 row-gap-1 mb-2">
      {RUNNING_ORDER.map((kind) => (
        <div key={kind} className="d-flex align-items-center gap-1 nf-small">
          <ColourField id={`${id}-${kind}`} value={colours[kind]} onChange={(colour) => onChange(kind, colour)} />
          <label htmlFor={`${id}-${kind}`}>{kind}</label>
        </div>
      ))}
    </div>
  );
}
