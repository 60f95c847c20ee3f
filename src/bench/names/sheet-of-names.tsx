/** A sheet with the names that lie on it, moved by hand or by keys; its blanks are left out and taken in. */
import { type KeyboardEvent, type PointerEvent, useId, useRef, useState } from 'react';
import { leaveOutBlank, movePlace } from '@/core/commands/layout';
import type { Job } from '@/core/document/schema';
import { EMPTY_BOX, isEmptyBox, uniteBoxes } from '@/core/geometry/point';
import type { RowSeen } from '@/core/job/rows';
import { allBlanks, type Blanks, type LayPlace } from '@/core/schema/layout';
import { PictureShapes } from '@/ui/job-picture';
import { dispatchDocument, takeRow } from '../store';
import styles from './names.module.css';

/** From a row's picture, y downwards, to where it lies on its sheet. */
function matrixOf({ scale, turn, x, y }: LayPlace, height: number): string {
  const [cos, sin] = [scale * Math.cos((turn * Math.PI) / 180), scale * Math.sin((turn * Math.PI) / 180)];
  return `matrix(${cos} ${-sin} ${sin} ${cos} ${x - sin * height} ${height - cos * height - y})`;
}

/** Lines are drawn so far beyond the bounds of what they are drawn of, in mm. */
const AROUND_MM = 0.5;

/** What of a row's picture lies at a place, y downwards; null where nothing does. */
function gripOf(seen: RowSeen | undefined, { parts }: LayPlace, height: number) {
  if (!seen) return null;
  if (parts.length === 0) return seen.picture.work ?? null;
  const box = seen.bounds.reduce((all, one) => (parts.includes(one.part) ? uniteBoxes(all, one.box) : all), EMPTY_BOX);
  if (isEmptyBox(box)) return null;
  return {
    x: box.minX - AROUND_MM,
    y: height - box.maxY - AROUND_MM,
    width: box.maxX - box.minX + 2 * AROUND_MM,
    height: box.maxY - box.minY + 2 * AROUND_MM,
  };
}

type Dragged = { readonly place: LayPlace; readonly dx: number; readonly dy: number };

/** A name as what is read aloud and by keys is told of it. */
const asHeld = (isInHand: boolean, title: string) => ({
  'aria-label': `${title}: arrows move it`,
  tabIndex: isInHand ? 0 : -1,
});

/** By how much an arrow moves a name, in mm; with Shift, ten times that. */
const STEP_MM = 1;

/** The motion that a key asks for; null for none. */
function stepOf({ key, shiftKey }: KeyboardEvent): readonly [number, number] | null {
  const by = STEP_MM * (shiftKey ? 10 : 1);
  const steps: Readonly<Record<string, readonly [number, number]>> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, by],
    ArrowDown: [0, -by],
  };
  return steps[key] ?? null;
}

/** The blanks of a sheet: one that is pressed is left out, or taken in. */
function BlanksOf({ blanks, height }: { blanks: Blanks; height: number }) {
  const out = new Set(blanks.leftOut);
  return allBlanks(blanks, height).map(({ nth, x, y }) => {
    const isOut = out.has(nth);
    const turn = () => dispatchDocument((job) => leaveOutBlank(job, nth, !isOut));
    const shared = {
      className: styles.blank,
      'data-out': isOut,
      role: 'checkbox',
      'aria-checked': !isOut,
      'aria-label': `Blank ${nth + 1}`,
      tabIndex: 0,
      onClick: turn,
      onKeyDown: (e: KeyboardEvent) => {
        if (e.key !== ' ' && e.key !== 'Enter') return;
        e.preventDefault();
        turn();
      },
    };
    const [a, b] = [blanks.width / 2, blanks.height / 2];
    return blanks.shape === 'ellipse' ? (
      <ellipse key={nth} {...shared} cx={x} cy={height - y} rx={a} ry={b} />
    ) : (
      <rect key={nth} {...shared} x={x - a} y={height - y - b} width={2 * a} height={2 * b} />
    );
  });
}

/** One sheet with what lies on it. */
export function SheetOf({
  nth,
  places,
  sheet,
  seen,
  inHand,
  blanks,
  titles,
}: {
  nth: number;
  places: readonly LayPlace[];
  sheet: Job['sheet'];
  /** What rows came to, by their ids. */
  seen: ReadonlyMap<string, RowSeen>;
  inHand: string | null;
  /** What they lie on; null where they do not lie on blanks. */
  blanks: Blanks | null;
  /** What rows are called, by their ids. */
  titles: ReadonlyMap<string, string>;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const clips = useId();
  const [dragged, setDragged] = useState<Dragged | null>(null);
  const drag = (down: PointerEvent<SVGGElement>, place: LayPlace) => {
    takeRow(place.row);
    if (place.locked) return;
    const scale = svg.current?.getScreenCTM()?.a;
    if (!scale) return;
    const held = down.currentTarget;
    held.setPointerCapture(down.pointerId);
    let by = { dx: 0, dy: 0 };
    const move = (e: globalThis.PointerEvent) => {
      by = { dx: (e.clientX - down.clientX) / scale, dy: (down.clientY - e.clientY) / scale };
      setDragged({ place, ...by });
    };
    const up = () => {
      held.removeEventListener('pointermove', move);
      setDragged(null);
      if (by.dx !== 0 || by.dy !== 0) dispatchDocument((job) => movePlace(job, place, by.dx, by.dy));
    };
    held.addEventListener('pointermove', move);
    held.addEventListener('lostpointercapture', up, { once: true });
  };
  return (
    <figure className={styles.sheet} style={{ aspectRatio: `${sheet.width + 4} / ${sheet.height + 4}` }}>
      {/* biome-ignore lint/a11y/useSemanticElements: a group of what lies on the sheet; there is no element for that in a drawing */}
      <svg
        role="group"
        aria-label={`Sheet ${nth + 1} with ${places.length} names`}
        ref={svg}
        viewBox={`-2 -2 ${sheet.width + 4} ${sheet.height + 4}`}
      >
        {sheet.offCut ? (
          <polygon
            points={sheet.offCut.map(([x, y]) => `${x},${sheet.height - y}`).join(' ')}
            fill="var(--nf-sheet)"
            stroke="var(--nf-line)"
            vectorEffect="non-scaling-stroke"
          />
        ) : (
          <rect
            width={sheet.width}
            height={sheet.height}
            fill="var(--nf-sheet)"
            stroke="var(--nf-line)"
            vectorEffect="non-scaling-stroke"
          />
        )}
        {blanks && <BlanksOf blanks={blanks} height={sheet.height} />}
        {places.map((place) => {
          const picture = seen.get(place.row)?.picture;
          const grip = gripOf(seen.get(place.row), place, sheet.height);
          const clip = `${clips}-${place.row}-${place.copy}-${place.parts[0]}`;
          const isDragged = dragged?.place === place;
          const at = isDragged ? { ...place, x: place.x + dragged.dx, y: place.y + dragged.dy } : place;
          return (
            picture && (
              // biome-ignore lint/a11y/useSemanticElements: a button can’t be drawn on a sheet
              <g
                role="button"
                key={`${place.row} ${place.copy} ${place.parts[0]}`}
                transform={matrixOf(at, sheet.height)}
                className={styles.laid}
                data-hand={place.row === inHand}
                data-locked={place.locked}
                {...asHeld(place.row === inHand, titles.get(place.row) ?? '')}
                onPointerDown={(e) => drag(e, place)}
                onKeyDown={(e) => {
                  const by = stepOf(e);
                  if (!by || place.locked) return;
                  e.preventDefault();
                  e.stopPropagation();
                  dispatchDocument(
                    (job) => movePlace(job, place, ...by),
                    `laid:${place.row}:${place.copy}:${place.parts[0]}`,
                  );
                }}
              >
                {grip && <rect {...grip} className={styles.grip} />}
                {place.parts.length > 0 && grip && (
                  <clipPath id={clip}>
                    <rect {...grip} />
                  </clipPath>
                )}
                <g clipPath={place.parts.length > 0 ? `url(#${clip})` : undefined}>
                  <PictureShapes picture={picture} />
                </g>
              </g>
            )
          );
        })}
      </svg>
      <figcaption className="nf-muted">Sheet {nth + 1}</figcaption>
    </figure>
  );
}
