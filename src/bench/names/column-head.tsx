/** The head of a column: its name, and what it is. */
import { ChevronDown } from 'lucide-react';
import { useEffect, useState } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import Form from 'react-bootstrap/Form';
import { editColumn, removeColumn, renameColumn, sortRows } from '@/core/commands/roster';
import type { Column } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { renamedField, writtenDate } from '@/core/roster/fields';
import { DATE_FORMS, type DateForm } from '@/core/schema/roster';
import { isDay } from '@/core/units/day';
import { keepable } from '@/core/units/text';
import { NumberField, Row } from '@/ui/fields';
import { today } from '@/ui/when';
import { dispatchDocument } from '../store';
import styles from './names.module.css';

const edit = <K extends Column['kind']>(
  column: Extract<Column, { kind: K }>,
  recipe: (draft: Extract<Column, { kind: K }>) => void,
): void =>
  dispatchDocument(
    (job) => editColumn(job, column.id, (draft) => recipe(draft as Extract<Column, { kind: K }>)),
    `column:${column.id}`,
  );

function NumberSettings({ column }: { column: Extract<Column, { kind: 'number' }> }) {
  return (
    <>
      <NumberField
        label="First"
        value={column.start}
        suffix=""
        digits={0}
        step={1}
        least={-LIMITS.runningNumber}
        most={LIMITS.runningNumber}
        onChange={(start) => edit(column, (c) => void Object.assign(c, { start: Math.round(start) }))}
      />
      <NumberField
        label="Step"
        value={column.step}
        suffix=""
        digits={0}
        step={1}
        least={-LIMITS.runningNumber}
        most={LIMITS.runningNumber}
        onChange={(step) => edit(column, (c) => void Object.assign(c, { step: Math.round(step) || 1 }))}
      />
      <NumberField
        label="Digits"
        value={column.digits}
        suffix=""
        digits={0}
        step={1}
        least={1}
        most={12}
        onChange={(digits) => edit(column, (c) => void Object.assign(c, { digits: Math.round(digits) }))}
      />
    </>
  );
}

function DateSettings({ column }: { column: Extract<Column, { kind: 'date' }> }) {
  const day = column.on ?? today();
  return (
    <>
      <Row label="Written as" htmlFor={`form-${column.id}`}>
        <Form.Select
          id={`form-${column.id}`}
          size="sm"
          value={column.form}
          onChange={(e) => edit(column, (c) => void Object.assign(c, { form: e.target.value as DateForm }))}
        >
          {DATE_FORMS.map((form) => (
            <option key={form} value={form}>
              {writtenDate(day, form)}
            </option>
          ))}
        </Form.Select>
      </Row>
      <Form.Check
        id={`today-${column.id}`}
        label="The day files are written"
        checked={column.on === null}
        onChange={(e) => edit(column, (c) => void Object.assign(c, { on: e.target.checked ? null : today() }))}
      />
      {column.on !== null && (
        <Form.Control
          type="date"
          size="sm"
          aria-label="Day"
          value={column.on}
          onChange={(e) => isDay(e.target.value) && edit(column, (c) => void Object.assign(c, { on: e.target.value }))}
        />
      )}
    </>
  );
}

/** A head with a name that is typed, and a menu. */
export function ColumnHead({ column, index }: { column: Column; index: number }) {
  const [typed, setTyped] = useState<string | null>(null);
  useEffect(() => setTyped((now) => (now === column.name ? null : now)), [column.name]);
  const rename = () => {
    if (typed !== null) dispatchDocument((job) => renameColumn(job, column.id, typed, renamedField));
    setTyped(null);
  };
  return (
    <th scope="col" className={styles.head}>
      <div className="d-flex align-items-center">
        <input
          aria-label={`Name of column ${index + 1}`}
          value={typed ?? column.name}
          maxLength={LIMITS.columnCharacters}
          autoComplete="off"
          onChange={(e) => setTyped(keepable(e.target.value))}
          onBlur={rename}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
            if (e.key === 'Escape') setTyped(null);
          }}
        />
        <Dropdown>
          <Dropdown.Toggle
            as="button"
            type="button"
            bsPrefix={styles.small as string}
            aria-label={`Column ${column.name}`}
          >
            <ChevronDown size={13} aria-hidden="true" />
          </Dropdown.Toggle>
          <Dropdown.Menu className={styles.menu} popperConfig={{ strategy: 'fixed' }} renderOnMount={false}>
            {column.kind !== 'typed' && (
              <fieldset
                className={styles.settings}
                aria-label={column.kind === 'number' ? 'Running number' : 'Date'}
                onKeyDown={(e) => e.stopPropagation()}
              >
                {column.kind === 'number' ? <NumberSettings column={column} /> : <DateSettings column={column} />}
              </fieldset>
            )}
            {column.kind === 'typed' && (
              <Dropdown.Item as="button" onClick={() => dispatchDocument((job) => sortRows(job, index))}>
                Put the rows in its order
              </Dropdown.Item>
            )}
            <Dropdown.Item as="button" onClick={() => dispatchDocument((job) => removeColumn(job, column.id))}>
              Take the column out
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      </div>
    </th>
  );
}
