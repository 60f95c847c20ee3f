/** Earlier versions of a job: looked at as pictures, kept for good under a name, and brought back. */
import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { Star } from 'lucide-react';
import { useId, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import Nav from 'react-bootstrap/Nav';
import Spinner from 'react-bootstrap/Spinner';
import Tab from 'react-bootstrap/Tab';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import type { VersionSummary } from '@/core/job/versions';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { KeptPicture } from '@/ui/kept-picture';
import { LATE, useIsLate } from '@/ui/waiting';
import { whenExactly } from '@/ui/when';
import styles from './versions.module.css';

/** Where the version that is chosen is shown, whichever it is. */
const SHOWN = 'version-shown';

type Props = {
  readonly jobId: string;
  readonly title: string;
  /** Makes a version the newest; a fault is told in the dialog. */
  readonly bringBack: (version: VersionSummary) => Promise<unknown>;
  readonly onClose: () => void;
};

const BRING_BACK = ['bring a version back'];

const lookWords = (count: number): string => (count === 0 ? 'nothing to look at' : `${count} to look at`);

/** The dialog with the earlier versions of a job. */
export function VersionsDialog({ jobId, title, bringBack, onClose }: Props) {
  const key = ['versions', jobId];
  const versions = useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam, signal }) => call(API.listVersions, { id: jobId, before: String(pageParam) }, null, signal),
    initialPageParam: 0,
    getNextPageParam: ({ versions: seen, hasMore }) => (hasMore ? seen.at(-1)?.version : undefined),
    // What it was when the dialog was open last is not shown meanwhile: another version would be chosen in it.
    gcTime: 0,
  });
  const [asked, setAsked] = useState<number | null>(null);
  const all = versions.data?.pages.flatMap((page) => page.versions) ?? [];
  const newest = all[0]?.version;
  // The one before the newest is what one has come for.
  const shown = all.find((v) => v.version === asked) ?? all[1] ?? all[0];
  const client = useQueryClient();
  const back = useMutation({ mutationKey: BRING_BACK, mutationFn: bringBack, onSuccess: onClose });
  const isLate = useIsLate(versions.isFetching || back.isPending);
  const bring = () => {
    // The second half of a double click comes before the button is drawn as disabled.
    if (shown && client.isMutating({ mutationKey: BRING_BACK }) === 0) back.mutate(shown);
  };
  return (
    <Modal show size="xl" scrollable onHide={onClose} aria-labelledby="versions-title">
      <Modal.Header closeButton>
        <Modal.Title id="versions-title" as="h2" className="fs-5 text-truncate">
          Earlier versions of {title}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body className={styles.body}>
        {isLate && (
          <p className="m-0" role="alert">
            {LATE}
          </p>
        )}
        {versions.isPending && <Spinner role="status" aria-label="Fetching the versions" />}
        {versions.isError && (
          <div role="alert">
            <p>{versions.error.message}</p>
            <Button variant="plain" onClick={() => void versions.refetch()}>
              Try again
            </Button>
          </div>
        )}
        {shown && (
          <Tab.Container
            activeKey={shown.version}
            onSelect={(version) => setAsked(Number(version))}
            generateChildId={(key, type) => (type === 'tab' ? `version-${key}` : SHOWN)}
          >
            <div className={styles.list}>
              <Nav variant="pills" className="flex-column" aria-label="Versions">
                {all.map((v) => (
                  <Nav.Link key={v.version} eventKey={v.version} className={styles.row}>
                    <span className="nf-figure">{whenExactly(v.savedAt)}</span>
                    {v.version === newest && <span className={styles.note}>as it is now</span>}
                    {v.name !== null && (
                      <span className={styles.name}>
                        <Star size={12} aria-label="Kept for good:" /> {v.name}
                      </span>
                    )}
                  </Nav.Link>
                ))}
              </Nav>
              {versions.hasNextPage && (
                <Button
                  variant="plain"
                  className="mt-2"
                  disabled={versions.isFetchingNextPage}
                  onClick={() => void versions.fetchNextPage()}
                >
                  {versions.isFetchingNextPage ? 'Fetching …' : 'Older ones'}
                </Button>
              )}
              {all.length === 1 && (
                <p className="nf-muted nf-small mt-2 mb-0">
                  Nothing earlier yet. As you work, a version is kept of each minute, later of each hour and each day.
                </p>
              )}
            </div>
            <div
              id={SHOWN}
              className={styles.shown}
              role="tabpanel"
              aria-label={`Version of ${whenExactly(shown.savedAt)}`}
            >
              <div className={styles.picture}>
                <KeptPicture
                  key={shown.version}
                  jobId={jobId}
                  version={shown.version}
                  title={`${shown.title}, ${whenExactly(shown.savedAt)}`}
                  waiting={<Spinner className="m-auto" role="status" aria-label="Fetching the picture" />}
                  none={<p className="nf-muted m-auto">No picture was kept of this version.</p>}
                />
              </div>
              <p className="nf-small m-0">
                {shown.title} · {lookWords(shown.openFindings)}
              </p>
              <Naming key={shown.version} jobId={jobId} version={shown} />
            </div>
          </Tab.Container>
        )}
      </Modal.Body>
      <Modal.Footer>
        {back.error && (
          <p role="alert" className="me-auto mb-0 text-danger">
            {back.error.message}
          </p>
        )}
        <Button variant="plain" onClick={onClose}>
          Close
        </Button>
        <Button variant="primary" disabled={!shown || shown.version === newest || back.isPending} onClick={bring}>
          {back.isPending ? 'Bringing back …' : 'Bring back'}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

function Naming({ jobId, version }: { jobId: string; version: VersionSummary }) {
  const id = useId();
  const client = useQueryClient();
  const [typed, setTyped] = useState(version.name ?? '');
  const name = useMutation({
    mutationFn: (to: string | null) =>
      call(API.nameVersion, { id: jobId, version: String(version.version) }, { name: to }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['versions', jobId] }),
  });
  const wanted = typed.trim();
  return (
    <Form
      className={styles.naming}
      onSubmit={(event) => {
        event.preventDefault();
        if (wanted !== '' && wanted !== version.name) name.mutate(wanted);
      }}
    >
      <Form.Label htmlFor={id} className="nf-small m-0">
        Name
      </Form.Label>
      <Form.Control
        id={id}
        size="sm"
        value={typed}
        maxLength={LIMITS.nameCharacters}
        placeholder="with a name it is kept for good"
        onChange={(e) => setTyped(keepable(e.target.value))}
      />
      <Button type="submit" variant="plain" disabled={name.isPending || wanted === '' || wanted === version.name}>
        Keep for good
      </Button>
      {version.name !== null && (
        <Button
          variant="plain"
          disabled={name.isPending}
          onClick={() => name.mutate(null, { onSuccess: () => setTyped('') })}
        >
          Keep no longer
        </Button>
      )}
      {name.error && (
        <p role="alert" className="nf-small text-danger m-0">
          {name.error.message}
        </p>
      )}
    </Form>
  );
}
