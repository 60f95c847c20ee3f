/** Pictures on the bench: chosen, moved, sized by two places, straightened, pressed on for their tones, and let go of. */
import { beforeEach, describe, expect, test } from 'vitest';
import {
  nudgePicture,
  placeAt,
  pressPlaces,
  removeChosenPicture,
  SHEET_IS_FULL,
  setDistance,
  showPictureOf,
  toneAt,
  traceNow,
  usePressed,
} from '../../src/bench/picture-edits';
import {
  chooseDot,
  chooseIsland,
  choosePicture,
  dispatch,
  goToStation,
  select,
  selectAlso,
  selectParts,
  setPointing,
  undo,
  useBench,
  workOnNodes,
} from '../../src/bench/store';
import { editPicture, layPicture } from '../../src/core/commands/pictures';
import type { Trace } from '../../src/core/document/schema';
import { writePixels } from '../../src/core/formats/pixels';
import { closedPath } from '../../src/core/geometry/path';
import { line } from '../../src/core/geometry/segment';
import { LIMITS } from '../../src/core/limits';
import { compute, now, openJob, partNow, withPixels } from '../support/bench';
import { pictureOf } from '../support/degraded';
import { jobWith, lettering, partOf } from '../support/jobs';

const PIXELS = 'a'.repeat(64);
const square = (x: number, y: number, side: number) =>
  closedPath([
    line(x, y, x + side, y),
    line(x + side, y, x + side, y + side),
    line(x + side, y + side, x, y + side),
    line(x, y + side, x, y),
  ]);
withPixels(PIXELS, writePixels(pictureOf([square(20, 20, 20), square(60, 20, 20)], 100, 60, { name: 'clean' })));

const kept = { name: 'sketch.png', original: null, pixels: PIXELS, columns: 100, rows: 60 };
const state = useBench.getState;
const picture = () => now().pictures[0];
const id = 'picture-1';

beforeEach(() => {
  // A pixel is 2 mm wide, the middle at 150, 100.
  openJob(layPicture(jobWith([partOf([lettering('A')])]), kept, 2, { x: 150, y: 100 }).job);
  usePressed.setState({ points: [] });
  choosePicture(id);
});

describe('chosen', () => {
  test('a picture takes the place of what was chosen before', () => {
    expect(state()).toMatchObject({ atPicture: id, selection: { partId: null, others: [] } });
  });

  test.each<[string, () => void]>([
    ['a part', () => select('part')],
    ['a further part', () => selectAlso('part')],
    ['parts', () => selectParts(['part'])],
    ['an island', () => chooseIsland({ letter: 'words:0', island: 0, nth: null })],
    ['a dot', () => chooseDot({ partId: 'part', x: 0, y: 0 })],
    ['nodes', () => workOnNodes({ partId: 'part', memberId: null, letter: null, chosen: new Set() })],
    ['another station', () => goToStation('hold')],
  ])('it is let go of for %s, so that no key meant for that takes the picture away', (_, choose) => {
    choose();
    expect(state().atPicture).toBeNull();
    expect([removeChosenPicture(), nudgePicture(1, 0), now().pictures.length]).toEqual([false, false, 1]);
  });

  test('moved by keys and taken off; locked, neither, and the keys do nothing else', () => {
    expect(nudgePicture(3, -1)).toBe(true);
    expect(picture()?.placement).toMatchObject({ x: 153, y: 99 });
    dispatch((job) => editPicture(job, id, (p) => Object.assign(p, { locked: true })));
    expect([nudgePicture(3, 0), removeChosenPicture()]).toEqual([true, true]);
    expect(picture()?.placement.x).toBe(153);
    dispatch((job) => editPicture(job, id, (p) => Object.assign(p, { locked: false })));
    removeChosenPicture();
    expect([now().pictures, state().atPicture]).toEqual([[], null]);
  });

  test('one whose laying is undone is chosen no more', () => {
    dispatch((job) => layPicture(job, kept, 1, { x: 0, y: 0 }).job);
    choosePicture('picture-2');
    undo();
    expect(state().atPicture).toBeNull();
  });
});

describe('two places', () => {
  test('give it the size their distance says, about the first; they go along', () => {
    pressPlaces('distance');
    placeAt({ x: 100, y: 100 });
    placeAt({ x: 100, y: 100.001 });
    expect(usePressed.getState().points).toHaveLength(1);
    placeAt({ x: 140, y: 100 });
    expect(state().pointing).toBeNull();
    setDistance(20);
    expect(picture()).toMatchObject({ scale: 1, placement: { x: 125, y: 100 } });
    expect(usePressed.getState().points[1]).toEqual({ x: 120, y: 100 });
    setDistance(80);
    expect(picture()?.scale).toBe(4);
    // What is typed on is one step.
    undo();
    expect(picture()?.scale).toBe(2);
  });

  test('straighten it at once', () => {
    pressPlaces('level');
    placeAt({ x: 100, y: 100 });
    placeAt({ x: 200, y: 110 });
    expect(picture()?.placement.turn).toBeCloseTo(-5.7106, 3);
    expect([state().pointing, usePressed.getState().points]).toEqual([null, []]);
  });

  test('say nothing when the picture is gone meanwhile', () => {
    pressPlaces('level');
    choosePicture(null);
    placeAt({ x: 1, y: 1 });
    setDistance(5);
    expect([state().pointing, usePressed.getState().points, picture()?.scale]).toEqual([null, [], 2]);
  });
});

describe('traced', () => {
  const traced = () => {
    traceNow(id, 'clear');
    compute();
    const partId = state().selection.partId ?? '';
    return { partId, trace: () => partNow(partId).members[0] as Trace };
  };

  test('what comes of it is chosen', () => {
    const { partId } = traced();
    expect([partNow(partId).name, state().atPicture]).toEqual(['sketch', null]);
    traceNow('none', 'clear');
    expect(state().selection.partId).toBe(partId);
  });

  test('a press is told in the picture’s own pixels, from its top left', () => {
    const { trace } = traced();
    toneAt({ x: 150 + 2 * 20, y: 100 + 2 * 5 }, true);
    expect(trace().tones).toMatchObject({ by: 'picked', picks: [{ x: 70, y: 25, belongs: true }] });
    toneAt({ x: 900, y: 900 }, true);
    expect([trace().tones.picks.length, state().said]).toEqual([1, 'Press on the picture that was traced.']);
  });

  test('also where the part is made larger for an overall width', () => {
    const { partId, trace } = traced();
    dispatch((job) => ({
      ...job,
      parts: job.parts.map((p) => (p.id === partId ? { ...p, overallWidth: 60 } : p)),
    }));
    compute();
    const view = state().view?.parts.find((p) => p.id === partId);
    expect(view?.scale).toBeCloseTo(0.5, 2);
    // The middle of the right square, as it lies now.
    const box = view?.box ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };
    toneAt({ x: box.maxX - 10, y: (box.minY + box.maxY) / 2 }, true);
    const [pick] = trace().tones.picks;
    expect(pick?.x).toBeCloseTo(70, 0);
    expect(pick?.y).toBeCloseTo(30, 0);
    showPictureOf(partId, trace());
    expect(now().pictures[1]?.scale).toBeCloseTo(2 * (view?.scale ?? 0), 6);
  });

  test('nothing is pressed on where no trace is chosen', () => {
    select('part');
    setPointing('tone belongs');
    toneAt({ x: 150, y: 100 }, true);
    expect(state().pointing).toBeNull();
  });

  test('its picture is laid under it again, unless the sheet has as many as it may', () => {
    const { partId, trace } = traced();
    showPictureOf(partId, trace());
    expect(now().pictures).toHaveLength(2);
    dispatch((job) => ({
      ...job,
      pictures: Array.from(
        { length: LIMITS.placedPictures },
        (_, i) => ({ ...(picture() as object), id: `p${i}` }) as never,
      ),
    }));
    showPictureOf(partId, trace());
    expect([now().pictures.length, state().said]).toEqual([LIMITS.placedPictures, SHEET_IS_FULL]);
  });
});
