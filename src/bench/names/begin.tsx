/** Where a list of names begins: words of the job become a field, and a row is theirs. */
import { ListPlus } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { beginRoster } from '@/core/roster/begin';
import { dispatchDocument, useBench } from '../store';
import { focusCell } from './focus-cell';

/** The same where no words are chosen: with those of the job, where it has one lettering. */
export function BeginNamesOfJob() {
  const parts = useBench((s) => s.document.parts);
  const words = parts.flatMap((part) =>
    part.members.flatMap((member) => (member.kind === 'lettering' ? [{ partId: part.id, memberId: member.id }] : [])),
  );
  const only = words.length === 1 ? words[0] : undefined;
  return <BeginNames partId={only?.partId ?? null} memberId={only?.memberId ?? null} />;
}

/** The button that begins a list with the words of a lettering; nothing where there is a list already. */
export function BeginNames({ partId, memberId }: { partId: string | null; memberId: string | null }) {
  const has = useBench((s) => s.document.roster !== null);
  if (has) return null;
  return (
    <Button
      variant="plain"
      className="w-100 mb-2"
      title="The same for a list of names: typed, pasted or from a file"
      onClick={() => {
        dispatchDocument((job) => beginRoster(job, partId, memberId));
        focusCell(1, 0);
      }}
    >
      <ListPlus size={14} className="me-1" aria-hidden="true" />
      For a list of names
    </Button>
  );
}
