/** What is in a file before it is brought in: its picture, its size, which operation its groups are for, what was not read. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type PointerEvent, useId, useMemo, useState } from 'react';
import Alert from 'react-bootstrap/Alert';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import ProgressBar from 'react-bootstrap/ProgressBar';
import Table from 'react-bootstrap/Table';
import { pictureMatrix } from '@/core/commands/pictures';
import { boxHeight, boxWidth, isEmptyBox, type Point } from '@/core/geometry/point';
import { likelyOperation } from '@/core/job/bring-in';
import { LIMITS } from '@/core/limits';
import { formatLength } from '@/core/units/quantity';
import { QuantityField, Switch } from '@/ui/fields';
import { useObjectUrl } from '@/ui/object-url';
import type { FoundInDrawing, Looked } from '@/worker/reading';
import { useBench } from '../store';
import { keepBroughtIn, leaveBringingIn, putOnSheet, stopBringingIn, useBringIn } from './bring-in';
import styles from './bring-in.module.css';
import { Footer } from './footer';
import { Pages } from './pages';
import { FoundPicture } from './picture';

const KEEP = ['keep what is brought in'];

const both = (mm: number): string => `${formatLength(mm, 'mm')} (${formatLength(mm, 'in')})`;
const times = (factor: number): string => `× ${Number(factor.toPrecision(6))}`;

/** The drawing, on which two points can be pressed to measure between them. */
function Preview({ preview, marks, onMark }: { preview: Looked; marks: readonly Point[]; onMark: (p: Point) => void }) {
  const { box } = preview;
  const size = Math.max(boxWidth(box), boxHeight(box), 1e-6);
  const pad = size * 0.04;
  const press = (event: PointerEvent<SVGSVGElement>) => {
    const m = event.currentTarget.getScreenCTM()?.inverse();
    if (!m) return;
    onMark({ x: m.a * event.clientX + m.e, y: -(m.d * event.clientY + m.f) });
  };
  if (isEmptyBox(box) && preview.texts.length + preview.pictures.length === 0) return null;
  if (isEmptyBox(box))
    return (
      <p className="nf-muted">
        Only words:{' '}
        {preview.texts
          .map((t) => t.text)
          .join(' / ')
          .slice(0, 200)}
      </p>
    );
  const r = size / 90;
  return (
    <svg
      className={styles.preview}
      viewBox={`${box.minX - pad} ${-box.maxY - pad} ${boxWidth(box) + 2 * pad} ${boxHeight(box) + 2 * pad}`}
      role="img"
      aria-label="The drawing; press two points to measure between them"
      onPointerDown={press}
    >
      <g transform="scale(1 -1)">
        {preview.pictures.map((picture, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pictures have no name of their own
          <PictureIn key={i} picture={picture} />
        ))}
        {preview.groups.map((group, i) => (
          <path
            // biome-ignore lint/suspicious/noArrayIndexKey: groups have no name of their own
            key={i}
            d={group.d}
            className={styles.line}
            stroke={group.colour}
            fill={group.filled ? group.colour : 'none'}
            fillOpacity={0.25}
          />
        ))}
        {marks.map((p) => (
          <circle key={`${p.x} ${p.y}`} className={styles.mark} cx={p.x} cy={p.y} r={r} />
        ))}
        {marks.length === 2 && <path className={styles.mark} d={`M${marks.map((p) => `${p.x} ${p.y}`).join('L')}`} />}
      </g>
    </svg>
  );
}

/** A picture of the drawing where it lies in it. */
function PictureIn({ picture }: { picture: FoundInDrawing }) {
  const { pixels, columns, rows, scale, placement } = picture;
  const url = useObjectUrl(useMemo(() => new Blob([new Uint8Array(pixels)], { type: 'image/png' }), [pixels]));
  const { a, b, c, d, e, f } = pictureMatrix({ scale, placement });
  return url ? (
    <image
      href={url}
      width={columns}
      height={rows}
      opacity={0.7}
      transform={`matrix(${a} ${b} ${c} ${d} ${e} ${f}) matrix(1 0 0 -1 ${-columns / 2} ${rows / 2})`}
    />
  ) : null;
}

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
  const likely = useMemo(() => preview.groups.map((group) => likelyOperation(group, job)), [preview, job]);
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
