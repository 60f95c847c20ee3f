import { giveWork } from '@/core/commands/lines';
import { common } from '@/core/commands/several';
import type { Work } from '@/core/document/schema';
import { workOn } from '@/core/kinds/works';
import { Row } from '@/ui/fields';
import { editAll, type StepProps, shownIn } from '../hold/use-step';
import { OperationSelect } from '../operation-select';

/** Which operation does some work on a part, or on several. */
export function DoneBy({ what, label, ...props }: StepProps & { what: Work['what']; label: string }) {
  const now = common(shownIn(props).map(({ part }) => workOn(part.work, what)?.operation ?? ''));
  const id = `${props.part.id}-${what}`;
  return (
    <Row label={label} htmlFor={id}>
      <OperationSelect
        {...now}
        id={id}
        none="nothing"
        onChange={(operation) => editAll(props, (job, partId) => giveWork(job, partId, what, operation))}
      />
    </Row>
  );
}
