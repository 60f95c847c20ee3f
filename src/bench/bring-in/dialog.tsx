/** What is in a file before it is brought in: its picture, its size, which operation its groups are for, what was not read. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useId, useMemo, useState } from 'react';
import Alert from 'react-bootstrap/Alert';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import ProgressBar from 'react-bootstrap/ProgressBar';
import Table from 'react-bootstrap/Table';
import { boxHeight, boxWidth, isEmptyBox, type Point } from '@/core/geometry/point';
import { likelyOperation } from '@/core/job/bring-in';
import { LIMITS } from '@/core/limits';
import { formatLength } from '@/core/units/quantity';
import { QuantityField, Switch } from '@/ui/fields';
import type { Looked } from '@/worker/reading';
import { useBench } from '../store';
import { keepBroughtIn, leaveBringingIn, putOnSheet, stopBringingIn, useBringIn } from './bring-in';
import styles from './bring-in.module.css';
import { Footer } from './footer';
import { Pages } from './pages';
import { FoundPicture } from './picture';
import { Preview } from './preview';

const KEEP = ['keep what is brought in'];

const both = (mm: number): string => `${formatLength(mm, 'mm')} (${formatLength(mm, 'in')})`;
const times = (factor: number): string => `× ${Number(factor.toPrecision(6))}`;

function Sizes({
  preview,
  factor,
  onFactor,
  marks,
}: {
  preview: Looked;
  factor: number;
  onFactor: (f: number) => void;
  marks: readonly Point[];
}) {
  const units = useBench((s) => s.job.units);
  const name = useId();
  const [width, height] = [boxWidth(preview.box), boxHeight(preview.box)];
  if (isEmptyBox(preview.box)) return null;
  const listed = preview.sizes.some((size) => size.factor === factor);
  const [a, b] = marks;
  const between = a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
  return (
    <fieldset>
      <legend className={styles.legend}>How large is it?</legend>
      {preview.sizes.map((size) => (
        <Form.Check
          key={size.unit}
          type="radio"
          name={name}
          id={`${name}-${size.unit}`}
          checked={factor === size.factor}
          onChange={() => onFactor(size.factor)}
          label={
            <>
              <span className="nf-figure">
                {both(width * size.factor)} wide, {both(height * size.factor)} high
              </span>
              <span className="nf-muted nf-small d-block">
                {size.claimed
                  ? preview.claim.stated
                    ? `as the file says: ${size.unit}`
                    : `the file does not say; ${size.unit} are assumed`
                  : `if its numbers are ${size.unit}: ${times(size.factor)}`}
              </span>
            </>
          }
        />
      ))}
      <QuantityField
        label={`Width${listed ? '' : ' (chosen)'}`}
        unit={units}
        value={width * factor}
        least={0.001}
        most={LIMITS.sheetMostMm}
        onChange={(mm) => width > 0 && onFactor(mm / width)}
      />
      {between > 0 ? (
        <QuantityField
          label="Between the points"
          unit={units}
          value={between * factor}
          least={0.001}
          most={LIMITS.sheetMostMm}
          onChange={(mm) => onFactor(mm / between)}
        />
      ) : (
        <p className="nf-muted nf-small m-0">Or press two points in the drawing and say how far apart they are.</p>
      )}
    </fieldset>
  );
}

const LEAVE_OUT = '';

function Groups({
  preview,
  chosen,
  onChoose,
}: {
  preview: Looked;
  chosen: readonly (string | null)[];
  onChoose: (i: number, id: string | null) => void;
}) {
  const operations = useBench((s) => s.job.operations);
  return (
    <>
      <h3 className={styles.legend}>What is it for?</h3>
      <div className={styles.groups}>
        <Table size="sm" borderless className="m-0">
          <tbody>
            {preview.groups.map((group, i) => {
              const words = `${group.name || 'Without a name'}, ${group.shapes === 0 ? 'words' : group.filled ? 'filled' : 'lines'}`;
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: groups have no name of their own
                <tr key={i}>
                  <td>
                    <span className={styles.swatch} style={{ background: group.colour }} /> {words}
                    <span className="nf-muted nf-small d-block">
                      {[
                        group.shapes > 0
                          ? `${group.shapes.toLocaleString('en')} shape${group.shapes === 1 ? '' : 's'}`
                          : '',
                        group.words > 0 ? `${group.words} line${group.words === 1 ? '' : 's'} of words` : '',
                        group.pen === undefined ? group.colour : '',
                      ]
                        .filter(Boolean)
                        .join(' · ')}
                    </span>
                  </td>
                  <td>
                    <Form.Select
                      size="sm"
                      aria-label={`Operation for ${words}`}
                      value={chosen[i] ?? LEAVE_OUT}
                      onChange={(e) => onChoose(i, e.target.value === LEAVE_OUT ? null : e.target.value)}
                    >
                      {operations.map((o) => (
                        <option key={o.id} value={o.id}>
                          {o.name}
                        </option>
                      ))}
                      <option value={LEAVE_OUT}>Leave out</option>
                    </Form.Select>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      </div>
    </>
  );
}

/** Whether an operation works several groups, which may be one part or several. */
const mayBeApart = (chosen: readonly (string | null)[]): boolean => {
  const given = chosen.filter((id) => id !== null);
  return new Set(given).size < given.length;
};

function Found({ preview, share }: { preview: Looked; share: number }) {
  const page = useBringIn((s) => s.incoming?.page ?? 0);
  const isTurning = page !== preview.page;
  const job = useBench((s) => s.job);
  const keep = useMutation({
    mutationKey: KEEP,
    mutationFn: () => keepBroughtIn(preview),
    onSuccess: (kept) =>
      kept && putOnSheet(kept, preview, { factor, operations: chosen, apart: apart && mayBeApart(chosen) }),
  });
  const client = useQueryClient();
  const likely = useMemo(
    () => preview.groups.map((group) => likelyOperation(group, job, preview.groups)),
    [preview, job],
  );
  const [answered, setAnswered] = useState<ReadonlyMap<number, string | null>>(new Map());
  const [factor, setFactor] = useState(1);
  const [marks, setMarks] = useState<readonly Point[]>([]);
  const [apart, setApart] = useState(true);
  const chosen = likely.map((id, i) => (answered.has(i) ? (answered.get(i) ?? null) : id));
  return (
    <>
      <Modal.Body className={styles.body}>
        <div>
          {isTurning && <ProgressBar now={share * 100} className="mb-2" aria-label="How far the page is read" />}
          {preview.groups.length + preview.pictures.length === 0 && (
            <p>There is nothing on this page that can be read.</p>
          )}
          <Preview
            preview={preview}
            marks={marks}
            onMark={(p) => setMarks((now) => (now.length === 2 ? [p] : [...now, p]))}
          />
          {preview.notes.map((note) => (
            <Alert key={note} variant="warning" className="py-2 px-3 mt-2 mb-0">
              {note}
            </Alert>
          ))}
          {preview.undrawn > 0 && (
            <p className="nf-small mt-2 mb-0">
              {preview.undrawn.toLocaleString('en')} of its paths {preview.undrawn === 1 ? 'is' : 'are'} not shown here,
              for there are too many. They come along.
            </p>
          )}
          {preview.pictures.length > 0 && (
            <p className="nf-small mt-2 mb-0">
              {preview.pictures.length === 1 ? 'A picture comes' : `${preview.pictures.length} pictures come`} along and
              will lie on the sheet, under the drawing: to draw over, or to trace.
            </p>
          )}
          {preview.texts.length > 0 && (
            <p className="nf-small mt-2 mb-0">
              {preview.texts.length} line{preview.texts.length === 1 ? '' : 's'} of words will be set in a typeface from
              here and stay words.
            </p>
          )}
          {preview.unread.length > 0 && (
            <>
              <h3 className={styles.legend}>Not read</h3>
              <ul className="nf-small m-0">
                {preview.unread.map(({ kind, count }) => (
                  <li key={kind}>
                    {kind}: <span className="nf-figure">{count.toLocaleString('en')}</span>
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
        <div>
          <Sizes preview={preview} factor={factor} onFactor={setFactor} marks={marks} />
          <Groups
            preview={preview}
            chosen={chosen}
            onChoose={(i, id) => setAnswered((now) => new Map(now).set(i, id))}
          />
          {mayBeApart(chosen) && (
            <Switch
              label="Layers stay apart"
              on={apart}
              onChange={setApart}
              note={
                apart
                  ? 'Each is a part of its own, also where one operation works several.'
                  : 'What one operation works becomes one part.'
              }
            />
          )}
        </div>
      </Modal.Body>
      <Footer keep={keep}>
        <Button
          variant="primary"
          autoFocus
          disabled={keep.isPending || isTurning || (chosen.every((id) => id === null) && preview.pictures.length === 0)}
          onClick={() => client.isMutating({ mutationKey: KEEP }) === 0 && keep.mutate()}
        >
          {keep.isPending ? 'Bringing in …' : 'Bring in'}
        </Button>
      </Footer>
    </>
  );
}

/** The dialog in which a file is looked at before it is brought in. */
export function BringInDialog() {
  const incoming = useBringIn((s) => s.incoming);
  if (!incoming) return null;
  const { name, page, share, preview } = incoming;
  return (
    <Modal show {...(preview?.ok && { size: 'xl' })} onHide={leaveBringingIn} aria-labelledby="bring-in-title">
      <Modal.Header closeButton>
        <Modal.Title id="bring-in-title" as="h2" className="fs-5 text-truncate">
          Bring in {name}
          {preview?.ok && <span className="nf-muted nf-small ms-2">{preview.format}</span>}
        </Modal.Title>
      </Modal.Header>
      {!preview && (
        <Modal.Body>
          <p className="mb-2">Reading …</p>
          <ProgressBar now={share * 100} aria-label="How far the file is read" />
          <Button variant="plain" className="mt-3" onClick={stopBringingIn}>
            Stop
          </Button>
        </Modal.Body>
      )}
      {preview && !preview.ok && (
        <Modal.Body>
          <p role="alert">{preview.sentence}</p>
          <Button variant="primary" onClick={leaveBringingIn}>
            Close
          </Button>
        </Modal.Body>
      )}
      {preview?.ok && !preview.isPicture && preview.pages > 1 && (
        <div className="px-3 pt-3">
          <Pages count={preview.pages} page={page} />
        </div>
      )}
      {preview?.ok && !preview.isPicture && <Found key={preview.page} preview={preview} share={share} />}
      {preview?.ok && preview.isPicture && <FoundPicture found={preview} />}
    </Modal>
  );
}
