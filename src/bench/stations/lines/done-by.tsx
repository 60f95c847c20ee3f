import Form from 'react-bootstrap/Form';
import { giveWork } from '@/core/commands/lines';
import { common } from '@/core/commands/several';
import type { Work } from '@/core/document/schema';
import { Row } from '@/ui/fields';
import { useBench } from '../../store';
import { editAll, type StepProps, shownIn } from '../hold/use-step';

/** Which operation does some work on a part, or on several. */
export function DoneBy({ what, label, ...props }: StepProps & { what: Work['what']; label: string }) {
  const operations = useBench((s) => s.job.operations);
  const { value, mixed } = common(
    shownIn(props).map(({ part }) => part.work.find((w) => w.what === what)?.operation ?? ''),
  );
  const id = `${props.part.id}-${what}`;
  return (
    <Row label={label} htmlFor={id}>
      <Form.Select
        id={id}
        size="sm"
        value={mixed ? MIXED : value}
        onChange={(e) => editAll(props, (job, partId) => giveWork(job, partId, what, e.target.value))}
      >
        {mixed && (
          <option value={MIXED} disabled>
            mixed
          </option>
        )}
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

/** No operation is called that: ids have no blanks. */
const MIXED = 'several of them';
