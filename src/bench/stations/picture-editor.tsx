/** The picture on the sheet that is chosen: its place and size, what of it is shown, and what is made of it. */
import { Download, FlipHorizontal2, PenTool, Trash2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { croppedBox, editPicture, pictureBox, putPicture, sizedPicture, turnedPicture } from '@/core/commands/pictures';
import type { Crop, PlacedPicture } from '@/core/document/schema';
import { boxCentre, boxHeight, boxWidth, distance } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { TRACE_STARTS } from '@/core/tracing/starts';
import { NumberField, QuantityField, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import styles from '../bench.module.css';
import { pressPlaces, removeChosenPicture, setDistance, traceNow, usePressed } from '../picture-edits';
import { usePictureUrl } from '../pictures';
import { choosePicture, dispatch, setPen, useBench } from '../store';

const SIDES: readonly { readonly side: keyof Crop; readonly word: string }[] = [
  { side: 'left', word: 'left' },
  { side: 'right', word: 'right' },
  { side: 'top', word: 'top' },
  { side: 'bottom', word: 'bottom' },
];

/** How much is left out along the sides, in lengths on the sheet. */
function Cropped({ picture }: { picture: PlacedPicture }) {
  const units = useBench((s) => s.job.units);
  const { crop, scale, columns, rows } = picture;
  const crop1 = (side: keyof Crop, mm: number) => {
    const all = side === 'left' || side === 'right' ? columns : rows;
    const across = { left: crop.right, right: crop.left, top: crop.bottom, bottom: crop.top }[side];
    const pixels = Math.max(0, Math.min(all - across - 1, Math.round(mm / scale)));
    dispatch(
      (job) =>
        editPicture(job, picture.id, (p) => {
          p.crop[side] = pixels;
        }),
      `crop:${picture.id}:${side}`,
    );
  };
  return (
    <fieldset className="mt-2">
      <legend className="nf-small nf-muted mb-1">Left out along its sides</legend>
      <div className={styles.pair}>
        {SIDES.map(({ side, word }) => (
          <QuantityField
            key={side}
            bare
            label={`Left out at the ${word}`}
            prefix={word}
            unit={units}
            value={Math.round(crop[side] * scale * 1e3) / 1e3}
            least={0}
            most={LIMITS.sheetMostMm}
            onChange={(mm) => crop1(side, mm)}
          />
        ))}
      </div>
    </fieldset>
  );
}

/** Its size by two places whose distance is known. */
function Distance() {
  const units = useBench((s) => s.job.units);
  const pointing = useBench((s) => s.pointing);
  const points = usePressed((s) => s.points);
  const [from, to] = points;
  return (
    <>
      <div className="d-flex gap-2 mt-2">
        <Button
          variant="plain"
          className="flex-fill"
          active={pointing === 'distance'}
          aria-pressed={pointing === 'distance'}
          onClick={() => pressPlaces(pointing === 'distance' ? null : 'distance')}
        >
          Size by two places
        </Button>
        <Button
          variant="plain"
          className="flex-fill"
          active={pointing === 'level'}
          aria-pressed={pointing === 'level'}
          onClick={() => pressPlaces(pointing === 'level' ? null : 'level')}
        >
          Straighten
        </Button>
      </div>
      {pointing === 'distance' && (
        <p className="nf-small nf-muted mt-1 mb-0">
          Press {from ? 'the other place' : 'two places in the picture whose distance you know'}.
        </p>
      )}
      {pointing === 'level' && (
        <p className="nf-small nf-muted mt-1 mb-0">
          Press {from ? 'the other end' : 'both ends of something that is to be level, or upright'}.
        </p>
      )}
      {!pointing && from && to && (
        <QuantityField
          label="Between the places"
          unit={units}
          value={Math.round(distance(from, to) * 1e3) / 1e3}
          least={0.1}
          most={LIMITS.sheetMostMm}
          onChange={setDistance}
        />
      )}
    </>
  );
}

/** The panel of a picture on the sheet. */
export function PictureEditor({ picture }: { picture: PlacedPicture }) {
  const units = useBench((s) => s.job.units);
  const { isAway } = usePictureUrl(picture.pixels);
  const box = pictureBox(picture);
  const own = croppedBox(picture);
  const middle = boxCentre(box);
  const put = (next: PlacedPicture, merge: string) =>
    dispatch((job) => putPicture(job, next), `${merge}:${picture.id}`);
  const edit = (recipe: (p: PlacedPicture) => void, merge: string | null = null) =>
    dispatch((job) => editPicture(job, picture.id, recipe), merge && `${merge}:${picture.id}`);
  const place = (to: { readonly x?: number; readonly y?: number }) =>
    edit((p) => {
      p.placement.x += to.x === undefined ? 0 : to.x - box.minX;
      p.placement.y += to.y === undefined ? 0 : to.y - box.minY;
    }, 'place');
  const sized = (mm: number, now: number) => put(sizedPicture(picture, mm / now, middle), 'size');
  const clean = (mm: number) => Math.round(mm * 1e3) / 1e3;
  const { sheetMostMm: most } = LIMITS;
  return (
    <>
      <Heading>Picture on the sheet</Heading>
      <p className="mb-2 text-break">{picture.name || 'Without a name'}</p>
      {isAway && (
        <p role="alert" className="nf-small text-danger">
          It can’t be fetched now, so only its frame is shown. Its place is kept.
        </p>
      )}
      <h3 className="nf-small nf-muted mb-1">Trace it as</h3>
      <div className="d-grid gap-1 mb-2">
        {TRACE_STARTS.map((start) => (
          <Button key={start.id} variant="plain" title={start.about} onClick={() => traceNow(picture.id, start.id)}>
            {start.word}
          </Button>
        ))}
      </div>
      <Button
        variant="plain"
        className="w-100"
        title="With the pen, over the picture; the pen keeps to its edges where it is near one"
        onClick={() => setPen(true)}
      >
        <PenTool size={14} className="me-1" aria-hidden="true" />
        Draw over it
      </Button>
      <p className="nf-small nf-muted mt-2">
        It lies under the parts and is neither cut nor engraved; greys are not turned into depth or dots.
      </p>
      <Heading beside="from the lower left">Place and size</Heading>
      <fieldset disabled={picture.locked} className={styles.pair}>
        <QuantityField
          bare
          label="From the left"
          prefix="x"
          unit={units}
          value={clean(box.minX)}
          least={-most}
          most={most}
          onChange={(x) => place({ x })}
        />
        <QuantityField
          bare
          label="From the bottom"
          prefix="y"
          unit={units}
          value={clean(box.minY)}
          least={-most}
          most={most}
          onChange={(y) => place({ y })}
        />
        <QuantityField
          bare
          label="Width of the picture"
          prefix="w"
          unit={units}
          value={clean(boxWidth(own) * picture.scale)}
          least={0.1}
          most={most}
          onChange={(mm) => sized(mm, boxWidth(own) * picture.scale)}
        />
        <QuantityField
          bare
          label="Height of the picture"
          prefix="h"
          unit={units}
          value={clean(boxHeight(own) * picture.scale)}
          least={0.1}
          most={most}
          onChange={(mm) => sized(mm, boxHeight(own) * picture.scale)}
        />
        <NumberField
          bare
          label="Turn"
          prefix="↺"
          suffix="°"
          step={1}
          value={picture.placement.turn}
          least={-360}
          most={360}
          onChange={(deg) => put(turnedPicture(picture, deg - picture.placement.turn, middle), 'turn')}
        />
        <Button
          variant="plain"
          aria-pressed={picture.placement.mirror}
          active={picture.placement.mirror}
          onClick={() =>
            edit((p) => {
              p.placement.mirror = !p.placement.mirror;
            })
          }
        >
          <FlipHorizontal2 size={15} className="me-1" aria-hidden="true" />
          Mirror
        </Button>
      </fieldset>
      {!picture.locked && <Distance />}
      <Cropped picture={picture} />
      <Form.Group className="mt-2" controlId={`strength-${picture.id}`}>
        <Form.Label className="nf-small mb-0">How strongly it is shown</Form.Label>
        <Form.Range
          min={0.05}
          max={1}
          step={0.05}
          value={picture.strength}
          onChange={(e) =>
            edit((p) => {
              p.strength = Number(e.target.value);
            }, 'strength')
          }
        />
      </Form.Group>
      <Switch
        label="Shown"
        on={picture.shown}
        onChange={(on) =>
          edit((p) => {
            p.shown = on;
          })
        }
      />
      <Switch
        label="Locked in its place"
        on={picture.locked}
        onChange={(on) =>
          edit((p) => {
            p.locked = on;
          })
        }
      />
      {picture.original && (
        <a className="nf-small d-block mt-2" href={`/api/assets/${picture.original}`} download={picture.name || true}>
          <Download size={13} className="me-1" aria-hidden="true" />
          The file as it came
        </a>
      )}
      <div className="d-flex justify-content-between mt-3">
        <Button variant="word" onClick={() => choosePicture(null)}>
          Back to the sheet
        </Button>
        {!picture.locked && (
          <Button variant="word" onClick={removeChosenPicture}>
            <Trash2 size={14} className="me-1" aria-hidden="true" />
            Take it off the sheet
          </Button>
        )}
      </div>
    </>
  );
}
