'use client';

/** The sheet: stock, work, selection, and the places findings speak of. */
import { type PointerEvent, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import ToggleButton from 'react-bootstrap/ToggleButton';
import ToggleButtonGroup from 'react-bootstrap/ToggleButtonGroup';
import { boxCentre, isEmptyBox } from '@/core/geometry/point';
import { formatLengthNumber } from '@/core/units/quantity';
import benchStyles from '../bench.module.css';
import { addBridgeAt } from '../bridge-edits';
import { addPart, cornersOf } from '../edits';
import { focusWords } from '../focus-words';
import { letterAt } from '../nodes/letter-at';
import { NodeLayer } from '../nodes/node-layer';
import { PenLayer } from '../nodes/pen-layer';
import { change, type Look, select, selectAlso, selectedParts, setLook, showOnly, useBench } from '../store';
import { BridgeLayer } from './bridge-layer';
import { attachCamera, type Camera, fitSheet, lookAtPlace, RULER, toSheet, useCamera } from './camera';
import { DotLayer } from './dot-layer';
import { followDrag, type Grab } from './drag';
import { FillCanvas } from './fill-canvas';
import { GapLayer } from './gap-layer';
import { HoldLayer } from './hold-layer';
import { PickLayer } from './pick-layer';
import { centreAt } from './point-at';
import { usePointer } from './pointer';
import { Rulers } from './rulers';
import styles from './sheet.module.css';
import { useSnap } from './snapping';
import { EngravePattern, Work } from './work';

const LOOKS: readonly { value: Look; word: string }[] = [
  { value: 'drawing', word: 'Drawing' },
  { value: 'outlines', word: 'Outlines' },
  { value: 'worked', word: 'As filled' },
  { value: 'cut', word: 'As cut' },
];

/** More nodes than this in sight are not drawn one by one. */
const MOST_NODES = 4_000;
const HANDLE_PX = 9;
const TURN_HANDLE_PX = 26;

type Saying = Parameters<Parameters<typeof followDrag>[3]>[0];

export function SheetView() {
  const area = useRef<HTMLElement>(null);
  const surface = useRef<SVGSVGElement>(null);
  const [saying, setSaying] = useState<Saying>(null);
  const camera = useCamera();
  const job = useBench((s) => s.job);
  const view = useBench((s) => s.view);
  const look = useBench((s) => s.look);
  const cutPieces = useBench((s) => s.cutPieces);
  const only = useBench((s) => s.only);
  const picked = useBench((s) => s.picked);
  const pointing = useBench((s) => s.pointing);
  const working = useBench((s) => s.atNodes !== null && s.station === (s.atNodes.letter === null ? 'close' : 'fill'));
  const pen = useBench((s) => s.pen);
  const busy = useBench((s) => s.viewOf !== s.job);
  const station = useBench((s) => s.station);
  const goTo = useBench((s) => s.goTo);
  const workerFault = useBench((s) => s.workerFault);
  const save = useBench((s) => s.save);
  const id = useBench((s) => s.id);

  useLayoutEffect(() => {
    const element = area.current;
    if (!element) return;
    const measure = () => useCamera.setState({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  useLayoutEffect(() => {
    if (!surface.current) return;
    return attachCamera(surface.current, (event) => !(event.target as Element).closest('[data-grab]'));
  }, []);

  const sized = camera.width > 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: fitted once for every job, and when the sheet changes its size
  useEffect(() => {
    if (sized) fitSheet();
  }, [sized, id, job.sheet.width, job.sheet.height]);

  useEffect(() => {
    if (goTo) lookAtPlace(goTo);
  }, [goTo]);

  const toMm = useCallback((clientX: number, clientY: number) => {
    const rect = surface.current?.getBoundingClientRect();
    return toSheet(useCamera.getState(), clientX - (rect?.left ?? 0), clientY - (rect?.top ?? 0));
  }, []);

  const press = (event: PointerEvent, grab: Grab) => {
    if (event.button !== 0) return;
    followDrag(event, grab, toMm, setSaying);
  };

  const { k, x, y } = camera;
  const notice = workerFault ?? (save.kind === 'away' || save.kind === 'refused' ? save.sentence : null);

  return (
    <section className={benchStyles.sheetArea} ref={area} aria-label="Sheet" aria-busy={busy}>
      <svg className={styles.under} aria-hidden="true">
        <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
          <EngravePattern k={k} />
          <rect data-stock width={job.sheet.width} height={job.sheet.height} className={styles.sheet} />
          {view && <Work job={job} view={view} cutPieces={cutPieces} look={look} only={only} />}
        </g>
      </svg>
      {view && <FillCanvas camera={camera} job={job} view={view} look={look} only={only} />}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: Esc does by key what a click on empty bench does */}
      <svg
        ref={surface}
        className={pointing ? `${styles.surface} ${styles.pointing}` : styles.surface}
        data-sheet
        role="application"
        aria-label={`Sheet with ${job.parts.length} parts. Tab goes to the next part, arrows nudge it.`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the sheet takes keys
        tabIndex={0}
        onPointerMove={(e) => usePointer.setState(toMm(e.clientX, e.clientY))}
        onClick={(e) => {
          if (pointing === 'region') centreAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'bridge') void addBridgeAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'letter') letterAt(toMm(e.clientX, e.clientY));
          else if (!(e.target as Element).closest('[data-grab]')) select(null);
        }}
        onDoubleClick={(e) => {
          if ((e.target as Element).closest('[data-member]')) focusWords();
        }}
      >
        <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
          {view?.parts.flatMap((part) =>
            part.members.map((member) => (
              <path
                key={`${part.id}-${member.id}`}
                data-grab={part.id}
                data-member={member.id}
                d={member.d}
                className={styles.hit}
                fill="transparent"
                stroke="transparent"
                strokeWidth={12 / k}
                onPointerDown={(e) => {
                  if (e.button !== 0 || pointing) return;
                  const all = selectedParts(useBench.getState().selection);
                  if (e.shiftKey || e.ctrlKey || e.metaKey) {
                    return selectAlso(part.id);
                  }
                  if (all.length < 2 || !all.includes(part.id)) select(part.id, member.id);
                  if (!job.parts.find((p) => p.id === part.id)?.locked) press(e, { kind: 'move' });
                }}
              />
            )),
          )}
        </g>
        {station === 'close' && look !== 'cut' && <GapLayer camera={camera} />}
        {station === 'fill' && look === 'drawing' && !working && <DotLayer camera={camera} toMm={toMm} />}
        {working && <NodeLayer camera={camera} toMm={toMm} />}
        {pen && <PenLayer camera={camera} toMm={toMm} />}
        {station === 'hold' && look !== 'cut' && (
          <>
            <HoldLayer camera={camera} toMm={toMm} />
            <BridgeLayer camera={camera} toMm={toMm} />
            <LoosePlaces camera={camera} />
          </>
        )}
        {station === 'fill' && look !== 'cut' && <MissedPlaces camera={camera} />}
        <PickLayer camera={camera} toMm={toMm} />
        {look === 'outlines' && !working && <Nodes camera={camera} />}
        {look !== 'cut' && look !== 'worked' && picked === null && !working && !pen && (
          <Frame camera={camera} onPress={press} />
        )}
        <OthersFrames camera={camera} />
        <Guides camera={camera} />
      </svg>
      <Rulers camera={camera} unit={job.units} />
      <div className={styles.corner} style={{ width: RULER.left, height: RULER.top }} />
      {notice && (
        <div className={benchStyles.notice} role="alert">
          {notice}
        </div>
      )}
      {job.parts.length === 0 && <Empty />}
      {saying && <Measure saying={saying} area={area.current} />}
      <div className={styles.looks}>
        <ToggleButtonGroup type="radio" name="look" value={look} onChange={setLook} aria-label="Look">
          {LOOKS.map((l) => (
            <ToggleButton key={l.value} id={`look-${l.value}`} value={l.value} variant="plain">
              {l.word}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {only && (
          <Button variant="plain" onClick={() => showOnly(null)}>
            Only {job.operations.find((o) => o.id === only)?.name} · show all
          </Button>
        )}
      </div>
    </section>
  );
}

function Empty() {
  const add = (kind: 'lettering' | 'rectangle') => {
    let made = { partId: '', memberId: '' };
    change((job) => {
      made = addPart(job, kind);
    });
    select(made.partId, made.memberId);
    focusWords();
  };
  return (
    <div className={styles.empty}>
      <p className="m-0">An empty sheet. What shall it say?</p>
      <Button variant="primary" onClick={() => add('lettering')}>
        Add lettering
      </Button>
    </div>
  );
}

/** Rings around what would drop out or hangs on nothing. */
function LoosePlaces({ camera }: { camera: Camera }) {
  const view = useBench((s) => s.view);
  const { k, x, y } = camera;
  const places = (view?.findings ?? []).filter(
    (f) => (f.code === 'island' || f.code === 'unbridged' || f.code === 'loose') && f.left === null && f.box,
  );
  return (
    <>
      <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
        {view?.parts
          .filter((part) => part.awayD !== '' && places.some((f) => f.partId === part.id))
          .map((part) => (
            <path key={part.id} d={part.awayD} className={styles.pieceArea} />
          ))}
      </g>
      {places.map((f) => {
        const box = f.box;
        if (!box) return null;
        const c = boxCentre(box);
        const rx = Math.max(9, ((box.maxX - box.minX) / 2) * k + 6);
        const ry = Math.max(9, ((box.maxY - box.minY) / 2) * k + 6);
        return <ellipse key={f.key} cx={x + c.x * k} cy={y - c.y * k} rx={rx} ry={ry} className={styles.ring} />;
      })}
    </>
  );
}

/** Rings around the largest places that lines miss. */
function MissedPlaces({ camera }: { camera: Camera }) {
  const findings = useBench((s) => s.view?.findings);
  const { k, x, y } = camera;
  return (
    <>
      {(findings ?? []).map((f) => {
        if (f.code !== 'missed' || f.left !== null || !f.box) return null;
        const c = boxCentre(f.box);
        const r = Math.max(8, ((f.box.maxX - f.box.minX + f.box.maxY - f.box.minY) / 5) * k);
        return <circle key={f.key} cx={x + c.x * k} cy={y - c.y * k} r={r} className={styles.missed} />;
      })}
    </>
  );
}

/** The nodes in sight of the selected part, or of all, when they are few enough to be told apart. */
function Nodes({ camera }: { camera: Camera }) {
  const view = useBench((s) => s.view);
  const selected = useBench((s) => s.selection.partId);
  const { k, x, y, width, height } = camera;
  const inSight: [number, number][] = [];
  for (const part of view?.parts ?? []) {
    if (selected !== null && part.id !== selected) continue;
    for (let i = 0; i < part.nodes.length; i += 2) {
      const px = x + (part.nodes[i] as number) * k;
      const py = y - (part.nodes[i + 1] as number) * k;
      if (px >= 0 && py >= 0 && px <= width && py <= height) inSight.push([px, py]);
      if (inSight.length > MOST_NODES) return null;
    }
  }
  return (
    <path
      className={styles.node}
      d={inSight.map(([px, py]) => `M${(px - 2).toFixed(1)} ${(py - 2).toFixed(1)}h4v4h-4Z`).join('')}
    />
  );
}

/** The frame of the selected member with handles to size and turn it. */
function Frame({ camera, onPress }: { camera: Camera; onPress: (event: PointerEvent, grab: Grab) => void }) {
  const { partId, memberId } = useBench((s) => s.selection);
  const view = useBench((s) => s.view);
  const locked = useBench((s) => s.job.parts.find((p) => p.id === partId)?.locked === true);
  const part = view?.parts.find((p) => p.id === partId);
  if (!part) return null;
  const { k, x, y } = camera;
  const toScreen = (p: { x: number; y: number }) => ({ x: x + p.x * k, y: y - p.y * k });
  const member = part.members.find((m) => m.id === memberId);
  if (locked || !member || isEmptyBox(member.ownBox)) {
    if (isEmptyBox(part.box) || (memberId && !locked)) return null;
    const a = toScreen({ x: part.box.minX, y: part.box.maxY });
    return (
      <rect
        className={styles.frame}
        strokeDasharray="4 3"
        x={a.x}
        y={a.y}
        width={(part.box.maxX - part.box.minX) * k}
        height={(part.box.maxY - part.box.minY) * k}
      />
    );
  }
  const corners = cornersOf(member.ownBox, member.matrix);
  const [lowLeft, , highRight] = corners;
  const points = corners.map(toScreen);
  const centre = { x: (lowLeft.x + highRight.x) / 2, y: (lowLeft.y + highRight.y) / 2 };
  const [topRight, topLeft] = [toScreen(highRight), toScreen(corners[3])];
  const top = { x: (topRight.x + topLeft.x) / 2, y: (topRight.y + topLeft.y) / 2 };
  const middle = toScreen(centre);
  const reach = Math.hypot(top.x - middle.x, top.y - middle.y) || 1;
  const turnAt = {
    x: top.x + ((top.x - middle.x) / reach) * TURN_HANDLE_PX,
    y: top.y + ((top.y - middle.y) / reach) * TURN_HANDLE_PX,
  };
  return (
    <g>
      <path className={styles.frame} d={`M${points.map((p) => `${p.x} ${p.y}`).join('L')}Z`} />
      <path className={styles.frame} d={`M${top.x} ${top.y}L${turnAt.x} ${turnAt.y}`} />
      {points.map((p, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: corners are told apart by their place
          key={i}
          data-grab="size"
          className={styles.handle}
          style={{ cursor: i % 2 === 0 ? 'nesw-resize' : 'nwse-resize' }}
          x={p.x - HANDLE_PX / 2}
          y={p.y - HANDLE_PX / 2}
          width={HANDLE_PX}
          height={HANDLE_PX}
          onPointerDown={(e) => onPress(e, { kind: 'size', about: corners[(i + 2) % 4] as { x: number; y: number } })}
        />
      ))}
      <circle
        data-grab="turn"
        className={styles.handle}
        style={{ cursor: 'crosshair' }}
        cx={turnAt.x}
        cy={turnAt.y}
        r={6}
        onPointerDown={(e) => onPress(e, { kind: 'turn', about: centre })}
      />
    </g>
  );
}

/** Frames of the parts selected along with the first. */
function OthersFrames({ camera }: { camera: Camera }) {
  const others = useBench((s) => s.selection.others);
  const view = useBench((s) => s.view);
  const { k, x, y } = camera;
  return (
    <>
      {view?.parts
        .filter((part) => others.includes(part.id) && !isEmptyBox(part.box))
        .map(({ id, box }) => (
          <rect
            key={id}
            className={styles.frame}
            strokeDasharray="4 3"
            x={x + box.minX * k}
            y={y - box.maxY * k}
            width={(box.maxX - box.minX) * k}
            height={(box.maxY - box.minY) * k}
          />
        ))}
    </>
  );
}

/** Lines that what is dragged has snapped to. */
function Guides({ camera }: { camera: Camera }) {
  const { across, upright } = useSnap();
  const { k, x, y, width, height } = camera;
  return (
    <>
      {across && <line className={styles.guide} x1={x + across.at * k} x2={x + across.at * k} y1={0} y2={height} />}
      {upright && <line className={styles.guide} y1={y - upright.at * k} y2={y - upright.at * k} x1={0} x2={width} />}
    </>
  );
}

/** Beside the pointer while dragging: where the member is, its size, or its turn. */
function Measure({ saying, area }: { saying: NonNullable<Saying>; area: HTMLElement | null }) {
  const snap = useSnap();
  const view = useBench((s) => s.view);
  const job = useBench((s) => s.job);
  const { partId, memberId } = useBench((s) => s.selection);
  const part = view?.parts.find((p) => p.id === partId);
  const box = part?.members.find((m) => m.id === memberId)?.box;
  const member = job.parts.find((p) => p.id === partId)?.members.find((m) => m.id === memberId);
  if (!area || !box || !member || isEmptyBox(box)) return null;
  const rect = area.getBoundingClientRect();
  const n = (mm: number) => formatLengthNumber(mm, job.units, job.units === 'mm' ? 1 : 3);
  const snapped = [snap.across?.words, snap.upright?.words].filter((w) => w !== undefined);
  const kind = saying.words(member);
  const words =
    kind === 'move'
      ? `x ${n(box.minX)}  y ${n(box.minY)} ${job.units}`
      : kind === 'size'
        ? `${n(box.maxX - box.minX)} × ${n(box.maxY - box.minY)} ${job.units}`
        : kind;
  return (
    <div
      className={`${styles.measure} nf-figure`}
      style={{ left: saying.x - rect.left + 14, top: saying.y - rect.top + 14 }}
    >
      {words}
      {snapped.map((s) => (
        <div key={s} className="nf-small">
          {s}
        </div>
      ))}
    </div>
  );
}
