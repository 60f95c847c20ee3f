/** Which operation does some work: one of the job's, or none. */
import Form from 'react-bootstrap/Form';
import type { Common } from '@/core/commands/several';
import { useBench } from '../store';

/** No operation is called that: ids have no blanks. */
const MIXED = 'several of them';

/** A choice of an operation's id, "" for none; what differs among several is shown as mixed until one is chosen. */
export function OperationSelect({
  value,
  mixed,
  none,
  id,
  label,
  onChange,
}: Common<string> & {
  /** What none is called. */
  none: string;
  id?: string;
  /** For screen readers, where no label stands beside it. */
  label?: string;
  onChange: (operation: string) => void;
}) {
  const operations = useBench((s) => s.job.operations);
  return (
    <Form.Select
      size="sm"
      id={id}
      aria-label={label}
      value={mixed ? MIXED : value}
      onChange={(e) => onChange(e.target.value)}
    >
      {mixed && (
        <option value={MIXED} disabled>
          mixed
        </option>
      )}
      <option value="">{none}</option>
      {operations.map((o) => (
        <option key={o.id} value={o.id}>
          {o.name}
        </option>
      ))}
    </Form.Select>
  );
}
