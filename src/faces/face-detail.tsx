/** One family: its styles in the user's words, what is in the face, what it may be used for, and who uses it. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Star } from 'lucide-react';
import Link from 'next/link';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { type FaceAbout, LOOKS, type Look } from '@/core/schema/face-about';
import { Heading } from '@/ui/heading';
import { aboutQuery } from './about';
import { FaceWords } from './face-words';
import { FACES, type Family, type ListedFace, useMarkFace } from './faces';
import styles from './faces.module.css';

const EMBEDDING: Readonly<Record<FaceAbout['embedding'], string>> = {
  any: 'may go along with a job',
  editable: 'may go along with a job that is worked on elsewhere',
  preview: 'may go along to be looked at',
  restricted: 'may not go along with a job',
};

function Fact({ name, children }: { name: string; children: string }) {
  if (children === '') return null;
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

const axisWords = ({ name, least, most }: FaceAbout['axes'][number]): string => `${name} ${least} to ${most}`;

function Facts({ about, file }: { about: FaceAbout; file: string }) {
  return (
    <dl>
      <Fact name="File">{file}</Fact>
      <Fact name="Scripts">{about.scripts.join(', ')}</Fact>
      <Fact name="Characters">{about.characters.toLocaleString('en')}</Fact>
      <Fact name="Axes">{about.axes.map(axisWords).join('; ')}</Fact>
      <Fact name="In it">{about.features.map(({ name }) => name).join(', ')}</Fact>
      <Fact name="Broken">{about.broken > 0 ? `${about.broken.toLocaleString('en')} glyphs can’t be drawn` : ''}</Fact>
      <Fact name="Maker">{about.foundry}</Fact>
      <Fact name="Copyright">{about.copyright}</Fact>
      <Fact name="Licence">{about.licence}</Fact>
      <Fact name="Its own word">{EMBEDDING[about.embedding]}</Fact>
    </dl>
  );
}

/** The jobs that use a file, and taking it out of the list. */
function UsedBy({
  face: { kept },
  onRemoved,
}: {
  face: ListedFace;
  onRemoved: (content: string, file: string) => void;
}) {
  const client = useQueryClient();
  const content = kept?.content ?? '';
  const users = useQuery({
    queryKey: [...FACES, 'jobs', content],
    queryFn: ({ signal }) => call(API.usersOfTypeface, { content }, null, signal),
    enabled: kept !== null,
  });
  const remove = useMutation({
    mutationFn: () => call(API.removeTypeface, { content }, null),
    onSuccess: () => {
      onRemoved(content, kept?.file ?? '');
      return client.invalidateQueries({ queryKey: FACES });
    },
  });
  if (!kept) return null;
  const jobs = users.data ?? [];
  return (
    <>
      <Heading beside={users.data ? String(jobs.length) : ''}>Jobs that use it</Heading>
      {users.isError && <p role="alert">{users.error.message}</p>}
      {users.data && jobs.length === 0 && <p className="nf-muted nf-small">None.</p>}
      <ul className="nf-small ps-3">
        {jobs.map(({ id, title }) => (
          <li key={id}>
            <Link href={`/jobs/${id}`}>{title}</Link>
          </li>
        ))}
      </ul>
      {remove.isError && <p role="alert">{remove.error.message}</p>}
      <Button
        variant="plain"
        disabled={remove.isPending || users.isPending}
        title={jobs.length > 0 ? 'It leaves the list; these jobs keep it and go on as they are' : 'It leaves the list'}
        onClick={() => remove.mutate()}
      >
        Take out of the list
      </Button>
      {jobs.length > 0 && <p className="nf-muted nf-small mt-1 mb-0">These jobs keep it and go on as they are.</p>}
    </>
  );
}

/** The family that is looked at. */
export function FaceDetail({
  family,
  text,
  onRemoved,
}: {
  family: Family;
  text: string;
  onRemoved: (content: string, file: string) => void;
}) {
  const mark = useMarkFace();
  const [seen, setSeen] = useState<string | null>(null);
  const face = family.faces.find(({ key }) => key === seen) ?? family.faces[0];
  const about = useQuery(aboutQuery(face.named));
  return (
    <section className={styles.detail} aria-label={family.family}>
      <div className="d-flex align-items-start gap-2">
        <h2 className="me-auto text-break">{family.family}</h2>
        <Button
          variant="plain"
          aria-pressed={face.favourite}
          aria-label="Favourite"
          title={face.favourite ? 'Among your favourites' : 'Put among your favourites'}
          onClick={() => mark({ face: face.key, favourite: !face.favourite })}
        >
          <Star size={14} fill={face.favourite ? 'currentColor' : 'none'} />
        </Button>
      </div>
      <ul className={styles.styles} aria-label="Styles">
        {family.faces.map((f) => (
          <li key={f.key}>
            <button type="button" aria-pressed={f === face} onClick={() => setSeen(f.key)}>
              <FaceWords face={f} text={text} />
              <small className="nf-muted">{f.style}</small>
            </button>
          </li>
        ))}
      </ul>
      <Form.Group className="d-flex align-items-center gap-2" controlId="look">
        <Form.Label className="m-0 nf-small text-nowrap">Built as</Form.Label>
        <Form.Select
          size="sm"
          value={face.look}
          title="As the face says of itself, or as measured; put it right where that is wrong"
          onChange={(e) => mark({ face: face.key, look: e.target.value as Look })}
        >
          {LOOKS.map((l) => (
            <option key={l}>{l}</option>
          ))}
        </Form.Select>
      </Form.Group>
      {about.data && <Facts about={about.data} file={face.kept?.file ?? ''} />}
      {!face.kept && <p className="nf-muted nf-small mt-3">It ships with Needlefile, with its licence beside it.</p>}
      <UsedBy face={face} onRemoved={onRemoved} />
    </section>
  );
}
