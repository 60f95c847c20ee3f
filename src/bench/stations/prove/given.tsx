/** Files of the job that were given out: had again as they were, or compared with what would be written now. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { GivenFile } from '@/core/job/given-files';
import { download } from '@/ui/download';
import { Heading } from '@/ui/heading';
import { GIVEN_FILES } from '@/ui/questions';
import { whenExactly } from '@/ui/when';
import { computing } from '@/worker/client';
import { useBench } from '../../store';
import { FoundList } from './found-list';

/** As many are shown until all are asked for. */
const FEW = 4;

/** The files that were given out. */
export function Given() {
  const id = useBench((s) => s.id);
  const [isAll, setAll] = useState(false);
  const { data = [], isError } = useQuery({
    queryKey: [...GIVEN_FILES, id],
    queryFn: ({ signal }) => call(API.listGivenFiles, { id }, null, signal),
  });
  if (isError)
    return <p className="nf-muted nf-small mb-0">What was given out can’t be seen just now: the server is away.</p>;
  if (data.length === 0) return null;
  const shown = isAll ? data : data.slice(0, FEW);
  return (
    <>
      <Heading beside={`${data.length}`}>Given out</Heading>
      <ul className="list-unstyled mb-0">
        {shown.map((file) => (
          <Row key={file.id} file={file} />
        ))}
      </ul>
      {data.length > FEW && !isAll && (
        <Button variant="word" onClick={() => setAll(true)}>
          Show all {data.length}
        </Button>
      )}
    </>
  );
}

const proofWords = ({ proof }: GivenFile): string => {
  if (!proof) return 'not proved';
  if (proof.differences > 0) return `${proof.differences} differed`;
  return proof.faults > 0 ? 'with faults open' : 'proved';
};

type Compared = Parameters<typeof FoundList>[0]['found'];

function Row({ file }: { file: GivenFile }) {
  const job = useBench((s) => s.job);
  const [compared, setCompared] = useState<{ readonly of: typeof job; readonly list: Compared } | null>(null);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const bytesOf = async (): Promise<Uint8Array | null> => {
    const response = await fetch(`/api/assets/${file.file}`).catch(() => null);
    if (!response?.ok) {
      setFault('The file could not be had: the server is away.');
      return null;
    }
    setFault(null);
    return new Uint8Array(await response.arrayBuffer());
  };
  const again = async () => {
    const bytes = await bytesOf();
    if (bytes) download(file.name, bytes, 'application/octet-stream');
  };
  const compare = async () => {
    setBusy(true);
    try {
      const bytes = await bytesOf();
      const found = bytes && (await computing().compared(job, { partIds: file.partIds }, { name: file.name, bytes }));
      if (!found) return;
      const list = 'sentence' in found ? [{ sentence: found.sentence, box: null }] : found;
      setCompared({ of: job, list });
    } catch {
      setFault('It could not be compared; the file is as it was.');
    } finally {
      setBusy(false);
    }
  };
  const now = compared?.of === job ? compared.list : null;
  return (
    <li className="mb-2">
      <div className="text-truncate" title={`${file.name}, SHA-256 ${file.file}`}>
        {file.name}
      </div>
      <div className="nf-muted nf-small">
        {whenExactly(file.givenAt)} · version {file.version} · {proofWords(file)}
        {file.partIds && ` · ${file.partIds.length === 1 ? 'one part' : `${file.partIds.length} parts`}`}
      </div>
      <Button variant="word" className="me-3" aria-label={`Have ${file.name} again`} onClick={() => void again()}>
        Have it again
      </Button>{' '}
      <Button
        variant="word"
        aria-label={`Compare ${file.name} with now`}
        disabled={busy}
        onClick={() => void compare()}
      >
        Compare with now
      </Button>
      {fault && <p className="nf-small text-danger mb-0">{fault}</p>}
      {now && (
        <div role="status">
          {now.length === 0 ? (
            <p className="nf-small mb-0">What would be written now draws the same.</p>
          ) : (
            <FoundList found={now} />
          )}
        </div>
      )}
    </li>
  );
}
