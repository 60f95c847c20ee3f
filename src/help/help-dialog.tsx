/** The help, opened at the page of where one stands: found by words, with pictures and keys. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import Table from 'react-bootstrap/Table';
import { call } from '@/api/call';
import { API } from '@/api/endpoints';
import { LIMITS } from '@/core/limits';
import { JobPicture } from '@/ui/job-picture';
import styles from './help.module.css';
import { type HelpPage, helpPage, KEYS_EVERYWHERE, type Key, pagesFor } from './pages';

const Keys = ({ keys, label }: { keys: readonly Key[]; label: string }) => (
  <Table size="sm" borderless className="m-0" aria-label={label}>
    <tbody>
      {keys.map(([key, does]) => (
        <tr key={key}>
          <th scope="row" className="nf-figure text-nowrap pe-3">
            {key}
          </th>
          <td>{does}</td>
        </tr>
      ))}
    </tbody>
  </Table>
);

/** Three pictures with what they show, drawn by the core as work is. */
function Pictures({ page }: { page: HelpPage }) {
  const { data } = useQuery({
    queryKey: ['help'],
    queryFn: ({ signal }) => call(API.helpPictures, {}, null, signal),
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (page.captions.length === 0) return null;
  return (
    <div className={styles.pictures}>
      {page.captions.map((caption, i) => {
        const picture = data?.[`${page.id}-${i}`];
        return (
          <figure key={caption}>
            <div>{picture && <JobPicture picture={picture} title={caption.toLowerCase()} />}</div>
            <figcaption>{caption}</figcaption>
          </figure>
        );
      })}
    </div>
  );
}

/** The help of a screen, and from there of all others. */
export function HelpDialog({ at, shown, onClose }: { at: HelpPage['id']; shown: boolean; onClose: () => void }) {
  return (
    <Modal show={shown} animation={false} size="xl" scrollable onHide={onClose} aria-labelledby="help-title">
      <Modal.Header closeButton>
        <Modal.Title id="help-title" as="h2" className="fs-5">
          Help
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>{shown && <Help at={at} />}</Modal.Body>
    </Modal>
  );
}

function Help({ at }: { at: HelpPage['id'] }) {
  const [turned, setTurned] = useState<HelpPage['id']>(at);
  const [sought, setSought] = useState('');
  const found = pagesFor(sought);
  // While words are looked for, the best page for them is shown at once.
  const page = found.some(({ id }) => id === turned) ? helpPage(turned) : (found[0] ?? null);
  return (
    <div className={styles.help}>
      <nav aria-label="Pages of the help">
        <Form.Control
          type="search"
          size="sm"
          placeholder="Find in the help"
          aria-label="Find in the help"
          maxLength={LIMITS.nameCharacters}
          value={sought}
          onChange={(e) => {
            setSought(e.target.value);
            const [best] = pagesFor(e.target.value);
            if (e.target.value.trim() && best) setTurned(best.id);
          }}
        />
        <ul className={styles.pages}>
          {found.map(({ id, word }) => (
            <li key={id}>
              <button type="button" aria-current={page?.id === id ? 'page' : undefined} onClick={() => setTurned(id)}>
                {word}
              </button>
            </li>
          ))}
        </ul>
      </nav>
      {page ? (
        <article aria-label={page.word}>
          <h3>{page.word}</h3>
          <p>{page.about}</p>
          <Pictures page={page} />
          <dl>
            {page.points.map(({ head, words }) => (
              <div key={head}>
                <dt>{head}</dt>
                <dd>{words}</dd>
              </div>
            ))}
          </dl>
          {page.keys.length > 0 && (
            <>
              <h4>Keys here</h4>
              <Keys keys={page.keys} label="Keys here" />
            </>
          )}
          {page.captions.length > 0 && (
            <>
              <h4>Keys at every station</h4>
              <Keys keys={KEYS_EVERYWHERE} label="Keys at every station" />
            </>
          )}
        </article>
      ) : (
        <p className="nf-muted">Nothing here has these words. Try fewer, or others.</p>
      )}
    </div>
  );
}
