/** A picture before it is brought in: how large it is to be, and what is made of it. */
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type PointerEvent, useId, useMemo, useState } from 'react';
import Alert from 'react-bootstrap/Alert';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import type { Point } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { type StartId, TRACE_STARTS } from '@/core/tracing/starts';
import { formatLength } from '@/core/units/quantity';
import { QuantityField } from '@/ui/fields';
import { useObjectUrl } from '@/ui/object-url';
import type { PictureFound, StartView } from '@/worker/picture-reading';
import { useBench } from '../store';
import { keepPicture, putPicture } from './bring-in';
import styles from './bring-in.module.css';
import { Footer } from './footer';

const KEEP = ['keep what is brought in'];
const INCH_MM = 25.4;
/** Programs that never asked write these: they say nothing of the size of what is in the picture. */
const UNASKED_DPI = [72, 96];
/** A picture of no known size takes up this share of the sheet. */
const SHARE = 0.6;

const count = (n: number): string => n.toLocaleString('en');

/** The picture with what a start would trace over it; two points can be pressed on it. */
function Shown({
  found,
  url,
  start,
  marks,
  onMark,
}: {
  found: PictureFound;
  url: string | null;
  start: StartView | undefined;
  marks: readonly Point[];
  onMark: (p: Point) => void;
}) {
  const { columns, rows, shown } = found;
  const size = Math.max(columns, rows);
  const press = (event: PointerEvent<SVGSVGElement>) => {
    const m = event.currentTarget.getScreenCTM()?.inverse();
    if (!m) return;
    const [x, y] = [m.a * event.clientX + m.e, m.d * event.clientY + m.f];
    if (x >= 0 && y >= 0 && x <= columns && y <= rows) onMark({ x, y });
  };
  return (
    <svg
      className={styles.preview}
      viewBox={`0 0 ${columns} ${rows}`}
      role="img"
      aria-label="The picture; press two points to measure between them"
      onPointerDown={press}
    >
      {url && <image href={url} width={columns} height={rows} />}
      {start && (
        <path
          className={styles.traced}
          d={start.d}
          transform={`matrix(${columns / shown.columns} 0 0 ${-rows / shown.rows} 0 ${rows})`}
        />
      )}
      {marks.map((p) => (
        <circle key={`${p.x} ${p.y}`} className={styles.mark} cx={p.x} cy={p.y} r={size / 90} />
      ))}
      {marks.length === 2 && <path className={styles.mark} d={`M${marks.map((p) => `${p.x} ${p.y}`).join('L')}`} />}
    </svg>
  );
}

/** How wide a picture is, in mm: as many dots an inch as it says, or a good part of the sheet. */
function firstWidth(found: PictureFound, sheet: { readonly width: number; readonly height: number }): number {
  const { columns, rows, dpi } = found;
  if (isSaid(dpi)) return (columns / dpi) * INCH_MM;
  const most = Math.min((SHARE * sheet.width) / columns, (SHARE * sheet.height) / rows);
  return Math.max(1, Math.round(most * columns));
}

const isSaid = (dpi: number | null): dpi is number => dpi !== null && !UNASKED_DPI.includes(Math.round(dpi));

function Size({
  found,
  width,
  onWidth,
  marks,
}: {
  found: PictureFound;
  width: number;
  onWidth: (mm: number) => void;
  marks: readonly Point[];
}) {
  const units = useBench((s) => s.job.units);
  const { columns, rows, dpi } = found;
  const [a, b] = marks;
  const between = a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
  const said = isSaid(dpi) ? (columns / dpi) * INCH_MM : null;
  return (
    <fieldset>
      <legend className={styles.legend}>How large is it?</legend>
      <QuantityField
        label="Width"
        unit={units}
        value={width}
        least={0.1}
        most={LIMITS.sheetMostMm}
        onChange={onWidth}
      />
      <p className="nf-muted nf-small mb-1">
        <span className="nf-figure">{formatLength((width * rows) / columns, units)}</span> high ·{' '}
        <span className="nf-figure">
          {count(columns)} × {count(rows)}
        </span>{' '}
        pixels ·{' '}
        {said === null ? (
          'it does not say how large it is'
        ) : (
          <>
            it says <span className="nf-figure">{Math.round(dpi ?? 0)}</span> dots an inch
            {Math.abs(said - width) > 0.01 && (
              <>
                :{' '}
                <Button variant="word" onClick={() => onWidth(said)}>
                  {formatLength(said, units)} wide
                </Button>
              </>
            )}
          </>
        )}
      </p>
      {between > 0 ? (
        <QuantityField
          label="Between the points"
          unit={units}
          value={(between * width) / columns}
          least={0.1}
          most={LIMITS.sheetMostMm}
          onChange={(mm) => onWidth((mm * columns) / between)}
        />
      ) : (
        <p className="nf-muted nf-small m-0">Or press two points in the picture and say how far apart they are.</p>
      )}
    </fieldset>
  );
}

/** One start: what it would trace, as a small picture, and its words. */
function Start({
  start,
  view,
  found,
  isShown,
  isLikely,
  onShow,
  onTake,
}: {
  start: (typeof TRACE_STARTS)[number];
  view: StartView | undefined;
  found: PictureFound;
  isShown: boolean;
  isLikely: boolean;
  onShow: () => void;
  onTake: () => void;
}) {
  const { columns, rows } = found.shown;
  const words = useId();
  const isEmpty = !view || view.shapes === 0;
  return (
    <button
      type="button"
      className={styles.start}
      data-on={isShown}
      aria-describedby={words}
      // biome-ignore lint/a11y/noAutofocus: what is most likely meant is a key away
      autoFocus={isLikely}
      disabled={isEmpty}
      onPointerEnter={onShow}
      onFocus={onShow}
      onClick={onTake}
    >
      <svg viewBox={`0 0 ${columns} ${rows}`} aria-hidden="true">
        <path
          className={start.isMiddle ? styles.startLine : styles.startShape}
          d={view?.d ?? ''}
          transform={`matrix(1 0 0 -1 0 ${rows})`}
        />
      </svg>
      <span>
        <strong>{start.word}</strong>
        <span id={words} className="nf-muted nf-small d-block">
          {isEmpty ? 'Nothing is found in it this way.' : start.about}
        </span>
      </span>
    </button>
  );
}

/** What is asked about a picture before it is on the sheet. */
export function FoundPicture({ found }: { found: PictureFound }) {
  const sheet = useBench((s) => s.job.sheet);
  const [width, setWidth] = useState(() => firstWidth(found, sheet));
  const [marks, setMarks] = useState<readonly Point[]>([]);
  const [shown, setShown] = useState<StartId>(found.likely);
  const client = useQueryClient();
  const keep = useMutation({
    mutationKey: KEEP,
    mutationFn: (_: StartId | null) => keepPicture(found),
    onSuccess: (kept, start) => kept && putPicture(kept, width / found.columns, start),
  });
  const take = (start: StartId | null) => client.isMutating({ mutationKey: KEEP }) === 0 && keep.mutate(start);
  const url = useObjectUrl(useMemo(() => new Blob([new Uint8Array(found.pixels)], { type: 'image/png' }), [found]));
  const viewOf = (id: StartId) => found.starts.find((s) => s.id === id);
  return (
    <>
      <Modal.Body className={styles.body}>
        <div>
          <Shown
            found={found}
            url={url}
            start={viewOf(shown)}
            marks={marks}
            onMark={(p) => setMarks((now) => (now.length === 2 ? [p] : [...now, p]))}
          />
          {found.came && (
            <Alert variant="warning" className="py-2 px-3 mt-2 mb-0">
              It came with {count(found.came.columns)} × {count(found.came.rows)} pixels and is made smaller, to{' '}
              {count(found.columns)} × {count(found.rows)}. The file itself is kept as it is.
            </Alert>
          )}
        </div>
        <div>
          <Size found={found} width={width} onWidth={setWidth} marks={marks} />
          <h3 className={styles.legend}>What is it? Press to trace it</h3>
          <div className={styles.starts}>
            {TRACE_STARTS.map((start) => (
              <Start
                key={start.id}
                start={start}
                view={viewOf(start.id)}
                found={found}
                isShown={shown === start.id}
                isLikely={found.likely === start.id}
                onShow={() => setShown(start.id)}
                onTake={() => take(start.id)}
              />
            ))}
          </div>
          <Form.Text as="p" className="mb-0">
            A picture itself is neither cut nor engraved, and greys are not turned into depth or dots: what is made of
            it are outlines and lines. All that is set can be changed later.
          </Form.Text>
        </div>
      </Modal.Body>
      <Footer keep={keep}>
        <Button variant="plain" disabled={keep.isPending} onClick={() => take(null)}>
          {keep.isPending ? 'Bringing in …' : 'Only lay it on the sheet'}
        </Button>
      </Footer>
    </>
  );
}
