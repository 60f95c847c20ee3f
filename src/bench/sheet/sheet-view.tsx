/** The sheet: stock, work, selection, and the places findings speak of. */
import { type PointerEvent, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import ToggleButton from 'react-bootstrap/ToggleButton';
import ToggleButtonGroup from 'react-bootstrap/ToggleButtonGroup';
import { addPart } from '@/core/commands/parts';
import { partsOnSheet } from '@/core/document/on-sheet';
import { boxHeight, boxWidth, isEmptyBox, type Point } from '@/core/geometry/point';
import { formatLengthNumber } from '@/core/units/quantity';
import benchStyles from '../bench.module.css';
import { addBridgeAt } from '../bridge-edits';
import { chosenBox, chosenIn, frameNow, shapeInHand } from '../chosen';
import { addTabAt } from '../cut-edits';
import { focusWords } from '../focus-words';
import { hangAt } from '../hang-edits';
import { goInside } from '../inside';
import { letterAt } from '../nodes/letter-at';
import { NodeLayer } from '../nodes/node-layer';
import { PenLayer } from '../nodes/pen-layer';
import { notSavedWords } from '../not-saved-words';
import { toneAt } from '../picture-edits';
import { proofOf, useProof } from '../proof/proving';
import { RunCanvas } from '../proof/run-canvas';
import { RunStrip } from '../proof/run-strip';
import { cornersOf } from '../seen';
import type { Look } from '../state';
import { STATION_SCREENS } from '../stations/station-screens';
import { dispatch, select, selectAlso, selectedParts, setLook, showOnly, useBench } from '../store';
import { AlongLayer } from './along-layer';
import { AreaGoesLayer } from './area-goes-layer';
import { Band, drawBand } from './band';
import { attachCamera, type Camera, fitSheet, lookAtPlace, RULER, toSheet, useCamera } from './camera';
import { type DragSaying, followDrag, type Grab } from './drag';
import { Nodes } from './found-layer';
import { FrameHandles, frameOutline, HANDLE_PX, toScreen } from './frame-handles';
import { HatchCanvas } from './hatch-canvas';
import { OrderLayer } from './order-layer';
import { PickLayer } from './pick-layer';
import { PictureFrame, PictureHits, Pictures } from './picture-layer';
import { centreAt, fitAt } from './point-at';
import { usePointer } from './pointer';
import { Progress } from './progress';
import { Rulers } from './rulers';
import styles from './sheet.module.css';
import { SheetTabs } from './sheet-tabs';
import { useSnap } from './snapping';
import { EngravePattern, WorkLayer } from './work';

const LOOKS: readonly { value: Look; word: string }[] = [
  { value: 'drawing', word: 'Drawing' },
  { value: 'outlines', word: 'Outlines' },
  { value: 'worked', word: 'As filled' },
  { value: 'cut', word: 'As cut' },
];

/** The sheet with all that lies on it. */
export function SheetView() {
  const area = useRef<HTMLElement>(null);
  const surface = useRef<SVGSVGElement>(null);
  const [saying, setSaying] = useState<DragSaying>(null);
  const camera = useCamera();
  const sheet = useBench((s) => s.job.sheet);
  const unit = useBench((s) => s.job.units);
  const count = useBench((s) => partsOnSheet(s.job).length);
  const isEmpty = useBench((s) => partsOnSheet(s.job).length === 0 && !s.job.pictures.some((p) => p.shown) && !s.pen);
  // What is drawn is of the document it was computed from.
  const job = useBench((s) => s.viewOf);
  const onlyName = useBench((s) => s.job.operations.find((o) => o.id === s.only)?.name);
  const view = useBench((s) => s.view);
  const look = useBench((s) => s.look);
  const cutPieces = useBench((s) => s.cutPieces);
  const showsOrder = useBench((s) => s.showsOrder && s.station === 'assign' && s.look !== 'cut');
  const only = useBench((s) => s.only);
  const now = useBench((s) => s.job);
  const atProve = useBench((s) => s.station === 'prove');
  const isMirrored = useBench((s) => s.station === 'prove' && s.job.export.mirrored);
  const playedRun = useProof((s) => (s.isShown && atProve ? (proofOf(s.proved, now)?.run ?? null) : null));
  const picked = useBench((s) => s.picked);
  const pointing = useBench((s) => s.pointing);
  const working = useBench((s) => s.atNodes !== null && s.station === (s.atNodes.letter === null ? 'close' : 'fill'));
  const pen = useBench((s) => s.pen);
  const busy = useBench((s) => s.viewOf !== s.job);
  const { Layer, Over } = STATION_SCREENS[useBench((s) => s.station)];
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
    return attachCamera(surface.current);
  }, []);

  const sized = camera.width > 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: fitted once for every job, and when the sheet changes its size
  useEffect(() => {
    if (sized) fitSheet();
  }, [sized, id, sheet.width, sheet.height]);

  // A fitted sheet stays fitted when the window or a panel changes.
  // biome-ignore lint/correctness/useExhaustiveDependencies: for every size that the view comes to have
  useEffect(() => {
    if (useCamera.getState().fitted) fitSheet();
  }, [camera.width, camera.height]);

  useEffect(() => {
    if (goTo) lookAtPlace(goTo);
  }, [goTo]);

  const toMm = useCallback((clientX: number, clientY: number) => {
    const rect = surface.current?.getBoundingClientRect();
    return toSheet(useCamera.getState(), clientX - (rect?.left ?? 0), clientY - (rect?.top ?? 0));
  }, []);

  const press = (event: PointerEvent, grab: Grab, pressed?: () => void) => {
    if (event.button !== 0) return;
    followDrag(event, grab, { toMm, say: setSaying, pressed });
  };

  /** The first press takes the part, a second goes inside to the member, one more into its letters or nodes. */
  const pressMember = (e: PointerEvent, partId: string, memberId: string) => {
    if (e.button !== 0 || pointing || useCamera.getState().panning) return;
    if (e.shiftKey || e.ctrlKey || e.metaKey) return selectAlso(partId);
    const { selection } = useBench.getState();
    const all = selectedParts(selection);
    const isChosen = all.includes(partId);
    if (!isChosen || (all.length === 1 && selection.memberId !== null && selection.memberId !== memberId))
      select(partId, isChosen ? memberId : null);
    const locked = useBench.getState().job.parts.find((p) => p.id === partId)?.locked === true;
    const isSame = selection.memberId === null || selection.memberId === memberId;
    const again = () => (all.length > 1 ? select(partId) : isSame && goInside(memberId));
    if (!locked) press(e, { kind: 'move' }, isChosen ? again : undefined);
  };

  const { k, x, y } = camera;
  const said = useBench((s) => s.said);
  const isKept = useBench((s) => s.isKept);
  const notice = workerFault ?? notSavedWords(save, isKept) ?? said;

  return (
    <section className={benchStyles.sheetArea} ref={area} aria-label="Sheet" aria-busy={busy}>
      <svg className={styles.under} aria-hidden="true">
        <g transform={`matrix(${k} 0 0 ${-k} ${x} ${y})`}>
          <EngravePattern k={k} />
          {sheet.offCut ? (
            <polygon data-stock points={sheet.offCut.join(' ')} className={styles.sheet} />
          ) : (
            <rect data-stock width={sheet.width} height={sheet.height} className={styles.sheet} />
          )}
          {look !== 'cut' && <Pictures />}
          {view && job && !playedRun && (
            <WorkLayer job={job} view={view} cutPieces={cutPieces} look={look} only={only} />
          )}
        </g>
      </svg>
      {playedRun && <RunCanvas camera={camera} run={playedRun} />}
      {view && job && !playedRun && <HatchCanvas camera={camera} job={job} view={view} look={look} only={only} />}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: Esc does by key what a click on empty bench does */}
      <svg
        ref={surface}
        className={pointing ? `${styles.surface} ${styles.pointing}` : styles.surface}
        data-panning={camera.panning || undefined}
        data-sheet
        role="application"
        aria-label={`Sheet with ${count} parts. Tab goes to the next part, arrows nudge it.`}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: the sheet takes keys
        tabIndex={0}
        onPointerDown={(e) => {
          if (e.button !== 0 || pointing || pen || working || camera.panning) return;
          if (!(e.target as Element).closest('[data-grab]')) drawBand(e, toMm);
        }}
        onPointerMove={(e) => usePointer.setState(toMm(e.clientX, e.clientY))}
        onClick={(e) => {
          if (pointing === 'region') centreAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'panel') fitAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'bridge') void addBridgeAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'tab') void addTabAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'hang') hangAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'letter') letterAt(toMm(e.clientX, e.clientY));
          else if (pointing === 'tone belongs' || pointing === 'tone apart')
            toneAt(toMm(e.clientX, e.clientY), pointing === 'tone belongs');
          else if (!(e.target as Element).closest('[data-grab]') && !e.shiftKey && !camera.panning) select(null);
        }}
        onDoubleClick={(e) => {
          if ((e.target as Element).closest('[data-member]')) focusWords();
        }}
      >
        {look !== 'cut' && <PictureHits camera={camera} toMm={toMm} />}
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
                onPointerDown={(e) => pressMember(e, part.id, member.id)}
              />
            )),
          )}
        </g>
        {Layer && look !== 'cut' && <Layer camera={camera} toMm={toMm} look={look} isAtNodes={working} />}
        {look !== 'cut' && <AreaGoesLayer camera={camera} />}
        {showsOrder && <OrderLayer camera={camera} />}
        {working && <NodeLayer camera={camera} toMm={toMm} />}
        {pen && <PenLayer camera={camera} toMm={toMm} />}
        <PickLayer camera={camera} toMm={toMm} />
        {look === 'outlines' && !working && <Nodes camera={camera} />}
        {look !== 'cut' && look !== 'worked' && picked === null && !working && !pen && (
          <Frame camera={camera} onPress={press} />
        )}
        {Over && look !== 'cut' && <Over camera={camera} toMm={toMm} look={look} isAtNodes={working} />}
        {look !== 'cut' && !pen && <PictureFrame camera={camera} toMm={toMm} />}
        {look !== 'cut' && !working && !pen && <AlongLayer camera={camera} toMm={toMm} say={setSaying} />}
        <OthersFrames camera={camera} />
        <Guides camera={camera} />
        <Band camera={camera} />
      </svg>
      <Rulers camera={camera} unit={unit} />
      <div className={styles.corner} style={{ width: RULER.left, height: RULER.top }} />
      {notice && (
        <div className={benchStyles.notice} role="alert">
          {notice}
        </div>
      )}
      <Progress />
      <SheetTabs />
      {isEmpty && <Empty />}
      {saying && <Measure saying={saying} area={area.current} />}
      {isMirrored && <div className={styles.mirrored}>Files are written mirrored, to be worked from behind</div>}
      {playedRun && <RunStrip run={playedRun} />}
      <div className={styles.looks} hidden={playedRun !== null}>
        <ToggleButtonGroup type="radio" name="look" value={look} onChange={setLook} aria-label="Look">
          {LOOKS.map((l) => (
            <ToggleButton key={l.value} id={`look-${l.value}`} value={l.value} variant="plain">
              {l.word}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {only && (
          <Button variant="plain" onClick={() => showOnly(null)}>
            Only {onlyName} · show all
          </Button>
        )}
      </div>
    </section>
  );
}

function Empty() {
  const add = () => {
    const made = addPart(useBench.getState().job, 'lettering');
    dispatch(() => made.job);
    select(made.partId);
    focusWords();
  };
  return (
    <div className={styles.empty}>
      <p className="m-0">An empty sheet. What shall it say?</p>
      <Button variant="primary" onClick={add}>
        Add lettering
      </Button>
    </div>
  );
}

/** The frame of what is chosen with handles to size and turn it; for a shape whose proportions are free, to stretch it. */
function Frame({ camera, onPress }: { camera: Camera; onPress: (event: PointerEvent, grab: Grab) => void }) {
  const selection = useBench((s) => s.selection);
  const job = useBench((s) => s.job);
  const view = useBench((s) => s.view);
  const freed = useBench((s) => s.freed);
  const ids = selectedParts(selection);
  const locked = job.parts.some((p) => ids.includes(p.id) && p.locked);
  const inHand = freed ? shapeInHand(job, selection) : null;
  const frame = frameNow(
    inHand ? { selection: { ...selection, memberId: inHand.chosen.memberId }, view } : { selection, view },
  );
  if (!frame) return null;
  const corners = cornersOf(frame.box, frame.matrix);
  const points = corners.map((p) => toScreen(camera, p));
  const outline = frameOutline(camera, corners);
  const isMember = selection.memberId !== null && ids.length === 1;
  if (locked) return <path className={styles.frame} strokeDasharray="4 3" d={outline} />;
  const stretch = (about: Point, across: boolean, upright: boolean): Grab | null =>
    inHand && {
      kind: 'stretch',
      about,
      matrix: frame.matrix,
      width: inHand.shape.width,
      height: inHand.shape.height,
      ways: { across, upright },
      chosen: inHand.chosen,
    };
  return (
    <g data-frame={isMember ? 'member' : ids.length > 1 ? 'parts' : 'part'}>
      <path className={styles.frame} strokeDasharray={isMember ? '2 2' : undefined} d={outline} />
      <FrameHandles
        camera={camera}
        corners={corners}
        onSize={(e, about) => onPress(e, stretch(about, true, true) ?? { kind: 'size', about })}
        onTurn={(e, about) => onPress(e, { kind: 'turn', about })}
      />
      {inHand &&
        points.map((p, i) => {
          const next = points[(i + 1) % 4] as Point;
          const [a, b] = [corners[(i + 2) % 4] as Point, corners[(i + 3) % 4] as Point];
          const grab = stretch({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, i % 2 === 1, i % 2 === 0);
          return (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: sides are told apart by their place
              key={`side-${i}`}
              data-grab="stretch"
              className={styles.handle}
              style={{ cursor: i % 2 === 0 ? 'ns-resize' : 'ew-resize' }}
              x={(p.x + next.x) / 2 - HANDLE_PX / 2}
              y={(p.y + next.y) / 2 - HANDLE_PX / 2}
              width={HANDLE_PX}
              height={HANDLE_PX}
              onPointerDown={(e) => grab && onPress(e, grab)}
            />
          );
        })}
    </g>
  );
}

/** Frames of the parts that are chosen together, and of the part whose member is. */
function OthersFrames({ camera }: { camera: Camera }) {
  const selection = useBench((s) => s.selection);
  const view = useBench((s) => s.view);
  const { k, x, y } = camera;
  const ids = selectedParts(selection);
  if (ids.length < 2 && selection.memberId === null) return null;
  return (
    <>
      {view?.parts
        .filter((part) => ids.includes(part.id) && !isEmptyBox(part.size))
        .map(({ id, size: box }) => (
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

/** Beside the pointer while dragging: where what is chosen is, its size, or its turn. */
function Measure({ saying, area }: { saying: NonNullable<DragSaying>; area: HTMLElement | null }) {
  const snap = useSnap();
  const view = useBench((s) => s.view);
  const units = useBench((s) => s.job.units);
  const selection = useBench((s) => s.selection);
  const box = chosenBox(chosenIn(selection, view), view);
  if (!area || isEmptyBox(box)) return null;
  const rect = area.getBoundingClientRect();
  const n = (mm: number) => formatLengthNumber(mm, units, units === 'mm' ? 1 : 3);
  const snapped = [snap.across?.words, snap.upright?.words].filter((w) => w !== undefined);
  const words =
    saying.words === 'move'
      ? `x ${n(box.minX)}  y ${n(box.minY)} ${units}`
      : saying.words === 'size' || saying.words === 'stretch'
        ? `${n(boxWidth(box))} × ${n(boxHeight(box))} ${units}`
        : saying.words;
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
