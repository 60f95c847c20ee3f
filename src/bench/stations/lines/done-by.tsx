'use client';

/** Which operation does a kind of work on a part; turning the work on gives it to the first that suits. */
import Form from 'react-bootstrap/Form';
import type { Job, Part, Work } from '@/core/document/schema';
import { Row } from '@/ui/fields';
import { change, useBench } from '../../store';

/** Lines are marked where the job has a mark, else scored, else whatever there is. */
export const suits = (operations: Job['operations']): string | undefined =>
  (operations.find((o) => o.kind === 'mark') ?? operations.find((o) => o.kind === 'score') ?? operations[0])?.id;

/** Give a kind of work on a part to an operation, or to none. */
export function giveWork(job: Job, partId: string, what: Work['what'], operation: string | undefined): void {
  const part = job.parts.find((p) => p.id === partId);
  if (!part) return;
  part.work = part.work.filter((w) => w.what !== what);
  if (operation) part.work.push({ what, operation });
}

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
        onChange={(e) => change((job) => giveWork(job, part.id, what, e.target.value))}
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
