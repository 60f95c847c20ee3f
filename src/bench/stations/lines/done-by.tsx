/** Which operation does a kind of work on a part; turning the work on gives it to the first that suits. */
import Form from 'react-bootstrap/Form';
import { giveWork } from '@/core/commands/lines';
import type { Part, Work } from '@/core/document/schema';
import { Row } from '@/ui/fields';
import { dispatch, useBench } from '../../store';

/** Which operation does some work on a part. */
export function DoneBy({ part, what, label }: { part: Part; what: Work['what']; label: string }) {
  const operations = useBench((s) => s.job.operations);
  const now = part.work.find((w) => w.what === what)?.operation ?? '';
  const id = `${part.id}-${what}`;
  return (
    <Row label={label} htmlFor={id}>
      <Form.Select
        id={id}
        size="sm"
        value={now}
        onChange={(e) => dispatch((job) => giveWork(job, part.id, what, e.target.value))}
      >
        <option value="">nothing</option>
        {operations.map((o) => (
          <option key={o.id} value={o.id}>
            {o.name}
          </option>
        ))}
      </Form.Select>
    </Row>
  );
}
