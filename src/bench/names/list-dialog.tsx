/** A list of names from a file, as it was read: what parts its cells and whether its first row is a head can be said otherwise. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { rosterOf, setRoster } from '@/core/commands/roster';
import { DELIMITER_WORDS, type ListDelimiter, type ReadList } from '@/core/roster/read-list';
import { Row } from '@/ui/fields';
import { readingList } from '@/worker/client';
import { dispatchDocument, say, takeRow, useBench } from '../store';
import styles from './names.module.css';

type Shown = { readonly name: string; readonly bytes: Uint8Array; readonly read: ReadList };

const SHOWN_ROWS = 8;

/** What the columns will be called. */
const headsOf = ({ columns }: Extract<ReadList, { ok: true }>): string[] =>
  columns.map((name, i) => name || (i === 0 ? 'Name' : `Column ${i + 1}`));

/** How lists are brought in: what is asked of a file, and the dialog. */
export function useListDialog(): { readonly open: (file: File) => Promise<void>; readonly dialog: React.ReactNode } {
  const [shown, setShown] = useState<Shown | null>(null);
  const had = useBench((s) => (s.document.roster?.rows ?? []).some((row) => row.cells.some((cell) => cell !== '')));
  const open = async (file: File) => {
    const bytes = new Uint8Array(await file.arrayBuffer());
    setShown({ name: file.name, bytes, read: await readingList(bytes, {}) });
  };
  const again = async (as: { delimiter?: ListDelimiter; header?: boolean }) => {
    if (!shown?.read.ok) return;
    const { delimiter, header } = shown.read;
    const read = await readingList(shown.bytes, { ...(delimiter && { delimiter }), header, ...as });
    setShown({ ...shown, read });
  };
  const take = () => {
    if (!shown?.read.ok) return;
    const { read } = shown;
    dispatchDocument((job) => setRoster(job, rosterOf(headsOf(read), read.rows)));
    takeRow(null);
    say(`${read.rows.length.toLocaleString('en')} names were brought in. Undo takes them out again.`);
    setShown(null);
  };
  const read = shown?.read;
  const dialog = (
    <Modal show={shown !== null} onHide={() => setShown(null)} size="lg" centered aria-labelledby="list-title">
      <Modal.Header closeButton>
        <Modal.Title id="list-title" as="h2" className="fs-5 text-truncate">
          Names from {shown?.name}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        {read && !read.ok && (
          <p role="alert" className="m-0">
            {read.sentence}
          </p>
        )}
        {read?.ok && (
          <>
            <p className="nf-small">
              {read.rows.length.toLocaleString('en')} rows, {read.columns.length}{' '}
              {read.columns.length === 1 ? 'column' : 'columns'}, written as {read.encoding}.
            </p>
            <Row label="Cells are parted by" htmlFor="list-delimiter">
              <Form.Select
                id="list-delimiter"
                size="sm"
                value={read.delimiter ?? ''}
                onChange={(e) => void again({ delimiter: e.target.value as ListDelimiter })}
              >
                {read.delimiter === null && <option value="">nothing: one cell a row</option>}
                {Object.entries(DELIMITER_WORDS).map(([sign, words]) => (
                  <option key={sign} value={sign}>
                    {words}
                  </option>
                ))}
              </Form.Select>
            </Row>
            <Form.Check
              id="list-header"
              label="The first row names the columns"
              className="mb-2"
              checked={read.header}
              onChange={(e) => void again({ header: e.target.checked })}
            />
            <div className={styles.preview}>
              <table>
                <thead>
                  <tr>
                    {headsOf(read).map((name, i) => (
                      // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name yet
                      <th key={i} scope="col">
                        {name}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {read.rows.slice(0, SHOWN_ROWS).map((cells, i) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name yet
                    <tr key={i}>
                      {read.columns.map((_, k) => (
                        // biome-ignore lint/suspicious/noArrayIndexKey: cells have no other name yet
                        <td key={k}>{cells[k] ?? ''}</td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
            {read.notes.map((note) => (
              <p key={note} className="nf-small mt-2 mb-0">
                {note}
              </p>
            ))}
            {had && (
              <p className="nf-small nf-muted mt-2 mb-0">
                They come in the place of the names there are; undo brings those back.
              </p>
            )}
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={() => setShown(null)}>
          {read?.ok ? 'Cancel' : 'Close'}
        </Button>
        {read?.ok && (
          <Button variant="primary" onClick={take}>
            Take these names
          </Button>
        )}
      </Modal.Footer>
    </Modal>
  );
  return { open, dialog };
}
