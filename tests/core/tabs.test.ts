/** Tabs and moved starts: shapes by hand, and signs whose gaps are measured along outlines by the test itself. */
import { describe, expect, test } from 'vitest';
import { setTabs } from '../../src/core/commands/cut-places';
import { setKerfSide, setLead } from '../../src/core/commands/operations';
import { setWords } from '../../src/core/commands/words';
import type { Job } from '../../src/core/document/schema';
import { type Path, pathLength } from '../../src/core/geometry/path';
import type { Point } from '../../src/core/geometry/point';
import { pointAt, type Segment } from '../../src/core/geometry/segment';
import type { CutOfPart } from '../../src/core/job/drawn';
import { Evaluator } from '../../src/core/job/evaluate';
import { makeFiles } from '../../src/core/job/files';
import { finished } from '../../src/core/memo';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf, rectangle } from '../support/jobs';
import { chance } from '../support/random';

const CUT = { id: 'cut', name: 'Cut', kind: 'cut' };
const WORK = { work: [{ what: 'outline', operation: 'cut' }] };
type Tabs = Parameters<typeof setTabs>[2];
const job = (parts: Draft[], tabs: Tabs, { kerf = 0.4, beside = true, ...sheet }: Draft = {}): Job => {
  const plain = jobWith(parts, { operations: [CUT], sheet: { width: 800, height: 500, kerf, ...sheet } });
  return setTabs(setKerfSide(plain, 'cut', beside ? 'beside' : 'line'), 'cut', tabs);
};
const plate = (more: Draft = {}) =>
  partOf([rectangle('r', 100, 60), rectangle('h', 20, 20, { role: 'punch' })], {
    ...WORK,
    placement: { x: 200, y: 200 },
    ...more,
  });
const evaluate = (asked: Job) => new Evaluator(wasmEngine).evaluate(asked, faces);
const cutsOf = (asked: Job) => evaluate(asked).operations.flatMap((o) => o.cuts);
/** The cut of the plate's rim, which is the longest. */
const rimOf = (asked: Job): CutOfPart =>
  cutsOf(asked).reduce((a, b) => (pathLength(b.outline) > pathLength(a.outline) ? b : a));
const startOf = ({ segments: [s] }: Path): Point => pointAt(s as Segment, 0);
const endOf = ({ segments }: Path): Point => pointAt(segments[segments.length - 1] as Segment, 1);
const away = (a: Point, b: Point) => Math.hypot(a.x - b.x, a.y - b.y);

describe('a plate with a hole', () => {
  test('gets tabs as wide as asked once the cut has eaten into them, away from its corners', () => {
    const rim = rimOf(job([plate()], { width: 1.5 }));
    const paths = rim.paths as readonly Path[];
    expect(rim.tabs).toHaveLength(3);
    // Nothing begins between two tabs: as many paths as tabs, one that is begun in the middle of a tab among them.
    expect(paths).toHaveLength(3);
    const cut = paths.reduce((sum, p) => sum + pathLength(p), 0);
    expect(pathLength(rim.outline) - cut).toBeCloseTo(3 * (1.5 + 0.4), 6);
    for (const [i, path] of paths.entries())
      expect(away(endOf(path), startOf(paths[(i + 1) % 3] as Path))).toBeCloseTo(1.9, 6);
    for (const { at } of rim.tabs) {
      const corners = [-50, 50].flatMap((x) => [-30, 30].map((y) => ({ x: 200 + x, y: 200 + y })));
      for (const corner of corners) expect(away(at, corner)).toBeGreaterThan(15);
    }
  });

  test('what falls out of the hole is held where that is asked', () => {
    const held = (scrap: boolean) => cutsOf(job([plate()], { scrap })).map((c) => c.tabs.length);
    expect(held(false)).toEqual([3, 0]);
    expect(held(true)).toEqual([3, 2]);
  });

  test.each([1, 2, 7])('as many as asked: %i', (count) => {
    const { tabs } = rimOf(job([plate()], { count }));
    expect(tabs).toHaveLength(count);
    for (const [i, a] of tabs.entries())
      for (const b of tabs.slice(i + 1)) expect(away(a.at, b.at)).toBeGreaterThan(320 / count / 4);
  });

  test('a larger and a narrower tab: a heavy piece gets more', () => {
    const big = partOf([rectangle('r', 299, 199)], { ...WORK, placement: { x: 400, y: 250 } });
    expect(rimOf(job([big], { width: 1 })).tabs).toHaveLength(12);
    expect(rimOf(job([big], { width: 6 })).tabs).toHaveLength(7);
  });

  test('cut out of a sheet that stays there is no piece to hold', () => {
    const opening = plate({ keep: 'outside' });
    expect(cutsOf(job([opening], {})).map((c) => c.tabs.length)).toEqual([0, 2]);
    expect(cutsOf(job([opening], { scrap: true })).map((c) => c.tabs.length)).toEqual([3, 2]);
  });

  test('a piece too small for any is found', () => {
    const tiny = partOf([rectangle('r', 2, 1)], { ...WORK, placement: { x: 200, y: 200 } });
    const found = (tabs: Tabs) => evaluate(job([tiny], tabs)).findings.filter((f) => f.code === 'no-room-for-tabs');
    expect(found({ width: 3 }).map((f) => f.sentence)).toEqual([
      'Cut has no room for a tab on this piece: it comes free.',
    ]);
    expect(found({ width: 0.2 })).toEqual([]);
    expect(found(null)).toEqual([]);
  });

  test('with a lead-in the cut begins away from tabs, and goes on over its beginning but not over a tab', () => {
    const led = setLead(job([plate()], { width: 1, count: 4 }), 'cut', { shape: 'arc', in: 4, over: 3 });
    const rim = rimOf(led);
    const paths = rim.paths as readonly Path[];
    expect(paths).toHaveLength(5);
    for (const { at } of rim.tabs) expect(away(at, rim.start?.at as Point)).toBeGreaterThan(4 + 2);
    const cut = paths.reduce((sum, p) => sum + pathLength(p), 0);
    expect(cut).toBeCloseTo(pathLength(rim.outline) + 4 + 3 - 4 * 1.4, 5);
    expect(finished(makeFiles(led, evaluate(led), ['dxf', 'svg', 'pdf', 'hpgl'], { partIds: null })).refused).toEqual(
      [],
    );
  });

  test('a mark has none, nor what a machine keeps beside by itself', () => {
    for (const { tabs, paths } of cutsOf(setKerfSide(job([plate()], {}), 'cut', 'machine')))
      expect([tabs, paths]).toEqual([[], null]);
    const marked = {
      ...job([plate()], {}),
      operations: job([plate()], {}).operations.map((o) => ({ ...o, kind: 'mark' as const })),
    };
    expect(cutsOf(marked)).toEqual([]);
  });
});

describe('by hand', () => {
  const right = { letter: 'r:0', x: 50 / 60, y: 0 };
  const byHand = (more: Draft, tabs: Tabs = { width: 1 }) => job([plate(more)], tabs);

  test('a tab is where it was put, on the outline nearest to it, and there are no others', () => {
    const rim = rimOf(byHand({ tabs: [right] }));
    expect(rim.tabs.map((t) => [t.byHand, t.widthMm])).toEqual([[0, 1]]);
    expect(away(rim.tabs[0]?.at as Point, { x: 250.2, y: 200 })).toBeLessThan(1e-6);
    // The hole keeps its own.
    expect(
      cutsOf(byHand({ tabs: [right] }, { scrap: true }))
        .map((c) => c.tabs.length)
        .sort(),
    ).toEqual([1, 2]);
  });

  test('each has its width, and one of no width says that there is none', () => {
    expect(rimOf(byHand({ tabs: [{ ...right, width: 3 }] })).tabs[0]?.widthMm).toBe(3);
    const none = rimOf(byHand({ tabs: [{ ...right, width: 0 }] }));
    expect(none.tabs).toEqual([]);
    expect(none.lacks).toEqual([]);
  });

  test('a tab of a letter that is gone is none', () => {
    expect(rimOf(byHand({ tabs: [{ ...right, letter: 'gone:0' }] })).tabs).toHaveLength(3);
  });

  test('a cut begins where it was put, with a lead-in and without one', () => {
    for (const lead of [null, { shape: 'arc', in: 5 }] as const) {
      const { start, outline } = rimOf(setLead(byHand({ starts: [right] }, null), 'cut', lead));
      expect(start?.byHand).toBe(0);
      expect(away(start?.at as Point, { x: 250.2, y: 200 })).toBeLessThan(1e-6);
      expect(away(startOf(outline), { x: 250.2, y: 200 })).toBeLessThan(1e-6);
      expect(start?.pierced.x).toBeCloseTo(lead ? 250.2 + 10 / Math.PI : 250.2, 6);
    }
  });

  test('where there is no room it begins as near as there is', () => {
    // Another part stands close by on the right.
    const other = partOf([rectangle('o', 40, 20)], { ...WORK, id: 'other', placement: { x: 271.5, y: 200 } });
    const asked = setLead(job([plate({ starts: [right] }), other], null), 'cut', { shape: 'arc', in: 5 });
    const { start } = rimOf(asked);
    expect(away(start?.at as Point, { x: 250.2, y: 200 })).toBeLessThan(25);
    expect(Math.abs((start?.at.y as number) - 200)).toBeGreaterThan(9);
  });

  test('a start that was put on a tab gives way to it', () => {
    const asked = setLead(byHand({ starts: [right], tabs: [right] }), 'cut', { shape: 'arc', in: 5 });
    const { start, tabs } = rimOf(asked);
    expect(away(start?.at as Point, tabs[0]?.at as Point)).toBeGreaterThan(2.7);
  });

  test('starts and tabs stay with their letter through new words, and go with one that goes', () => {
    const words = partOf([lettering('Gate', FAMILIES[0] as string, { id: 'w', size: { by: 'capital', mm: 40 } })], {
      ...WORK,
      starts: [{ letter: 'w:2', x: 0.3, y: 0 }],
      tabs: [{ letter: 'w:0', x: 0.3, y: 0 }],
    });
    const asked = job([words], {});
    const places = (j: Job) => j.parts.flatMap((p) => [...p.starts, ...p.tabs].map((s) => s.letter));
    expect(places(setWords(asked, 'part', 'w', 'A Gate'))).toEqual(['w:4', 'w:2']);
    expect(places(setWords(asked, 'part', 'w', 'ate'))).toEqual(['w:1']);
  });

  test('turned and mirrored, places by hand go along', () => {
    const turned = rimOf(byHand({ tabs: [right], placement: { x: 300, y: 250, turn: 90, mirror: true } }));
    const own = turned.tabs[0]?.at as Point;
    expect(away(own, { x: 300, y: 250 })).toBeCloseTo(50.2, 6);
    expect(own.x).toBeCloseTo(300, 6);
  });
});

test('signs in every typeface: every piece is held by tabs as wide as asked, clear of the start', {
  tags: 'slow',
}, () => {
  const next = chance(8);
  const words = ['Quince', 'Oak & Elm', 'Bay 4', 'Åse'];
  FAMILIES.forEach((family, i) => {
    const width = [0.4, 1, 2][i % 3] as number;
    const kerf = [0.2, 1.2, 0.5][i % 3] as number;
    const part = partOf(
      [lettering(words[i % 4] as string, family, { size: { by: 'capital', mm: 30 + 30 * next() } })],
      { ...WORK, steps: [{ kind: 'weld' }], placement: { x: 260, y: 200, turn: 40 * next() } },
    );
    const plain = job([part], { width, scrap: i % 2 === 0 }, { kerf });
    const asked = i % 2 === 0 ? plain : setLead(plain, 'cut', { shape: 'arc', in: 2, over: 1 });
    const result = evaluate(asked);
    for (const cut of result.operations.flatMap((o) => o.cuts)) {
      const { tabs, paths, outline, start, lacks } = cut;
      if (tabs.length === 0) continue;
      expect(lacks, family).not.toContain('tabs');
      const whole = pathLength(outline);
      const ways = start && paths && asked.operations[0]?.lead && !lacks.includes('lead');
      const left = (paths ?? []).reduce((sum, p) => sum + pathLength(p), 0);
      // Ways in get shorter where there is less room; without them what is missing is known exactly.
      if (!ways) expect(whole - left, family).toBeCloseTo(tabs.length * (width + kerf), 4);
      for (const a of tabs) {
        if (ways) expect(away(a.at, start.at), family).toBeGreaterThan((width + kerf) / 2);
        // The middle of a tab is not cut: no path comes nearer than half of it, but for another turn of the outline.
        const nearest = Math.min(...(paths ?? []).flatMap((p) => [away(startOf(p), a.at), away(endOf(p), a.at)]));
        expect(nearest, family).toBeGreaterThan((width + kerf) / 2.6);
      }
    }
    const made = finished(makeFiles(asked, result, ['dxf', 'svg'], { partIds: null }));
    expect(made.refused, family).toEqual([]);
  });
});
