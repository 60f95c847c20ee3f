/** The kinds of typed fields: lengths, angles, shares, plain text; and a choice of a few words. */
import { type ReactNode, useId } from 'react';
import Form from 'react-bootstrap/Form';
import ToggleButton from 'react-bootstrap/ToggleButton';
import ToggleButtonGroup from 'react-bootstrap/ToggleButtonGroup';
import { formatLength, formatLengthNumber, type LengthUnit, parseLength, parseNumber } from '@/core/units/quantity';
import { keepable } from '@/core/units/text';
import { TypedField, type TypedFieldProps } from './typed-field';
import styles from './ui.module.css';

type Shared = Pick<TypedFieldProps, 'label' | 'value' | 'mixed' | 'onChange' | 'disabled' | 'bare' | 'prefix'> & {
  readonly least?: number;
  readonly most?: number;
};

/** A length; `value` in mm, shown and typed in `unit`. */
export function QuantityField({
  unit,
  digits,
  stepMm,
  ...shared
}: Shared & { unit: LengthUnit; digits?: number; stepMm?: number }) {
  const { least, most } = shared;
  const limits =
    least !== undefined && most !== undefined
      ? `Between ${formatLength(least, unit)} and ${formatLength(most, unit)}.`
      : least !== undefined
        ? `At least ${formatLength(least, unit)}.`
        : null;
  return (
    <TypedField
      {...shared}
      parse={(text) => parseLength(text, unit)}
      format={(mm) => formatLengthNumber(mm, unit, digits)}
      suffix={unit}
      step={stepMm ?? (unit === 'mm' ? 1 : 25.4 / 16)}
      limits={limits}
    />
  );
}

/** A plain number with a sign behind it, such as ° or %. `scale` is what is shown per unit of `value`. */
export function NumberField({
  suffix,
  scale = 1,
  digits = 2,
  step,
  ...shared
}: Shared & { suffix: string; scale?: number; digits?: number; step: number }) {
  return (
    <TypedField
      {...shared}
      parse={(text) => {
        const parsed = parseNumber(text, suffix);
        return parsed.ok ? { ok: true, value: parsed.value / scale } : parsed;
      }}
      format={(value) => String(Number((value * scale).toFixed(digits)))}
      suffix={suffix}
      step={step / scale}
      limits={
        shared.least !== undefined && shared.most !== undefined
          ? `Between ${shared.least * scale} and ${shared.most * scale} ${suffix}.`
          : null
      }
    />
  );
}

/** A row of a panel: a label, and what it is for. */
export function Row({ label, htmlFor, children }: { label: ReactNode; htmlFor?: string; children: ReactNode }) {
  return (
    <div className={styles.row}>
      {htmlFor ? (
        <Form.Label htmlFor={htmlFor} className={styles.label}>
          {label}
        </Form.Label>
      ) : (
        <span className={styles.label}>{label}</span>
      )}
      <div>{children}</div>
    </div>
  );
}

/** A line of words. */
export function TextField(props: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  most: number;
  placeholder?: string;
}) {
  const id = useId();
  return (
    <Row label={props.label} htmlFor={id}>
      <Form.Control
        id={id}
        size="sm"
        value={props.value}
        maxLength={props.most}
        placeholder={props.placeholder}
        autoComplete="off"
        onChange={(e) => props.onChange(keepable(e.target.value))}
      />
    </Row>
  );
}

/** One of a few words, all in sight. */
export function Choice<T extends string>(props: {
  label: string;
  value: T;
  /** Whether what is acted on differs: then none is chosen until one is. */
  mixed?: boolean;
  options: readonly { readonly value: T; readonly word: ReactNode; readonly title?: string }[];
  onChange: (value: T) => void;
  disabled?: boolean;
}) {
  const id = useId();
  return (
    <Row label={<span id={id}>{props.label}</span>}>
      <ToggleButtonGroup
        type="radio"
        name={id}
        size="sm"
        className={styles.choice}
        aria-labelledby={id}
        value={props.mixed ? '' : props.value}
        onChange={(value: T) => props.onChange(value)}
      >
        {props.options.map((option) => (
          <ToggleButton
            key={option.value}
            id={`${id}-${option.value}`}
            value={option.value}
            variant="plain"
            {...(option.title ? { title: option.title } : {})}
            disabled={props.disabled ?? false}
          >
            {option.word}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {props.mixed && <div className="nf-muted nf-small">mixed</div>}
    </Row>
  );
}

/** On or off. */
export function Switch(props: {
  label: string;
  on: boolean;
  /** Whether it is on for some of what is acted on, and off for others. */
  mixed?: boolean;
  onChange: (on: boolean) => void;
  note?: string | undefined;
  disabled?: boolean;
}) {
  const id = useId();
  const { mixed = false } = props;
  return (
    <div className={styles.switch}>
      <Form.Check
        type="switch"
        id={id}
        ref={(box: HTMLInputElement | null) => {
          if (box) box.indeterminate = mixed;
        }}
        label={props.label}
        checked={props.on}
        disabled={props.disabled ?? false}
        onChange={(e) => props.onChange(e.target.checked)}
      />
      {(mixed || props.note) && <div className="nf-muted nf-small">{mixed ? 'on for some of them' : props.note}</div>}
    </div>
  );
}
