/** What station Hold shows over the work: where letters were before closing up, ties to drag, thin places and tight gaps. */
import { type PointerEvent, useState } from 'react';
import { editStep } from '@/core/commands/steps';
import type { TieAnswer } from '@/core/document/schema';
import { applyMatrix, boxCentre, invert, type Point } from '@/core/geometry/point';
import { stepIn } from '@/core/kinds/steps';
import type { Hanger } from '@/core/prepare/hanger';
import { pieceSize } from '@/core/prepare/ties';
import type { PartView, TieView } from '@/worker/view';
import { measureOf } from '../seen';
import { dispatch, select, settle, useBench } from '../store';
import type { Camera } from './camera';
import { followPointer } from './drag';
import styles from './sheet.module.css';

type ToMm = (clientX: number, clientY: number) => Point;

/** Places of ties are kept to a ten thousandth of the piece's size, turns to a tenth of a degree. */
const round = (value: number, per: number): number => Math.round(value * per) / per;

function placeTie(part: PartView, tie: TieView, recipe: (answer: TieAnswer) => void): void {
  dispatch((job) => {
    const documentPart = job.parts.find((p) => p.id === part.id);
    if (!documentPart || documentPart.locked || !stepIn(documentPart, 'tie')) return job;
    return editStep(job, part.id, 'tie', measureOf(job, part), (step) => {
      let answer = step.answers.find((a) => a.piece === tie.piece);
      if (!answer) {
        answer = { piece: tie.piece, how: 'tie', x: null, y: null, turn: null };
        step.answers.push(answer);
      }
      recipe(answer);
    });
  }, `tie:${tie.piece}`);
}

function Tie({ part, tie, camera, toMm }: { part: PartView; tie: TieView; camera: Camera; toMm: ToMm }) {
  const [over, setOver] = useState(false);
  const { k, x, y } = camera;
  const size = pieceSize(tie.pieceBox);
  const middle = boxCentre(tie.pieceBox);
  const angle = (tie.angleDeg * Math.PI) / 180;
  const end = applyMatrix(part.matrix, {
    x: tie.x + (Math.cos(angle) * tie.length) / 2,
    y: tie.y + (Math.sin(angle) * tie.length) / 2,
  });
  // Ties are placed in the part, whichever way it is turned.
  const toOwn = invert(part.matrix);
  const at = (e: { readonly clientX: number; readonly clientY: number }): Point =>
    applyMatrix(toOwn, toMm(e.clientX, e.clientY));
  const drag = (event: PointerEvent) => {
    if (event.button !== 0) return;
    select(part.id);
    const start = at(event);
    followPointer(
      event,
      (e) => {
        const now = at(e);
        placeTie(part, tie, (answer) => {
          answer.x = round((tie.x + now.x - start.x - middle.x) / size, 1e4);
          answer.y = round((tie.y + now.y - start.y - middle.y) / size, 1e4);
        });
      },
      () => settle(),
    );
  };
  const turn = (event: PointerEvent) => {
    if (event.button !== 0) return;
    select(part.id);
    followPointer(
      event,
      (e) => {
        const now = at(e);
        placeTie(part, tie, (answer) => {
          answer.turn = round((Math.atan2(now.y - tie.y, now.x - tie.x) * 180) / Math.PI, 10);
          answer.x ??= round((tie.x - middle.x) / size, 1e4);
          answer.y ??= round((tie.y - middle.y) / size, 1e4);
        });
      },
      () => settle(),
    );
  };
  return (
    <g onPointerEnter={() => setOver(true)} onPointerLeave={() => setOver(false)}>
      <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
        <path
          data-grab="tie"
          data-tie={tie.piece}
          d={tie.d}
          className={styles.tie}
          data-by-hand={tie.byHand}
          stroke="transparent"
          strokeWidth={10 / k}
          onPointerDown={drag}
        >
          <title>Drag to place this tie; drag its end to turn it</title>
        </path>
      </g>
      {over && (
        <circle
          data-grab="tie"
          className={styles.handle}
          cx={x + end.x * k}
          cy={y - end.y * k}
          r={5}
          style={{ cursor: 'crosshair' }}
          onPointerDown={turn}
        />
      )}
    </g>
  );
}

/** A cross where the middle of weight is, and a line from there to what the part hangs by; `px` is a pixel in mm. */
function Plumb({ hanger: { weight }, at, px }: { hanger: Hanger; at: Point; px: number }) {
  const arm = 6 * px;
  return (
    <path
      className={styles.plumb}
      d={`M${at.x} ${at.y}L${weight.x} ${weight.y}M${weight.x - arm} ${weight.y}h${2 * arm}M${weight.x} ${weight.y - arm}v${2 * arm}`}
    >
      <title>The middle of its weight, and where it hangs</title>
    </path>
  );
}

/** Pieces that come away, ties, and where stock is thin. */
export function HoldLayer({ camera, toMm }: { camera: Camera; toMm: ToMm }) {
  const view = useBench((s) => s.view);
  const selected = useBench((s) => s.selection.partId);
  const sheet = useBench((s) => s.job.sheet);
  const { k, x, y } = camera;
  // Lines across a stretch lie side by side: as wide as they are apart, they make a band.
  const band = (of: number | null) => Math.max((of ?? 1) / 2, 1.5 / k);
  return (
    <>
      <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
        {view?.parts.map((part) => (
          <g key={part.id}>
            {part.id === selected &&
              part.members.map((m) => m.unclosedD && <path key={m.id} d={m.unclosedD} className={styles.before} />)}
            {part.thinD && <path d={part.thinD} className={styles.thin} strokeWidth={band(sheet.leastWidth)} />}
            {part.hanger?.at && <Plumb hanger={part.hanger} at={part.hanger.at} px={1 / k} />}
            {part.studs?.at.map(({ x: cx, y: cy }) => (
              <circle key={`${cx} ${cy}`} className={styles.stud} cx={cx} cy={cy} r={(part.studs?.width ?? 0) / 2} />
            ))}
            {part.tightD && <path d={part.tightD} className={styles.tight} strokeWidth={band(sheet.kerf)} />}
          </g>
        ))}
      </g>
      {view?.parts.flatMap((part) =>
        part.ties.map((tie) => (
          <Tie key={`${part.id}-${tie.piece}`} part={part} tie={tie} camera={camera} toMm={toMm} />
        )),
      )}
    </>
  );
}
