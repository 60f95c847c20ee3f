/** The bench's state: what is undone together, what stays selected, what another job starts with. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import {
  baseOf,
  bringIntoSight,
  change,
  chooseCut,
  chooseDot,
  chooseIsland,
  goToStation,
  openBench,
  pick,
  redo,
  select,
  selectAll,
  selectAlso,
  selectedParts,
  selectParts,
  setChangeFor,
  setLook,
  setPen,
  setPointing,
  settle,
  showOnly,
  takeRow,
  undo,
  useBench,
  workOnNodes,
} from '../../src/bench/store';
import { whenComputed } from '../../src/bench/when-computed';
import type { Job, Part } from '../../src/core/document/schema';
import { jobWith, lettering, partOf } from '../support/jobs';

const three = jobWith(
  ['a', 'b', 'c'].map((id) =>
    partOf([lettering('Lane'), { ...lettering('two'), id: 'second' }], {
      id,
      work: [{ what: 'outline', operation: 'cut' }],
    }),
  ),
);
const state = useBench.getState;
const open = (job: Job = three) =>
  openBench('trial', job, {
    version: 4,
    savedAt: 'today',
    selection: { partId: 'a', memberId: 'words' },
    station: 'hold',
  });
const retitle = (title: string, merge: string | null = null) =>
  change((job) => {
    job.title = title;
  }, merge);
const titles = () => {
  const out = [state().job.title];
  while (state().past.length > 0) {
    undo();
    out.push(state().job.title);
  }
  return out;
};

beforeEach(() => {
  vi.useFakeTimers();
  open();
});
afterEach(() => {
  vi.useRealTimers();
});

describe('opening', () => {
  test('shows the document where its address says', () => {
    expect(state()).toMatchObject({
      id: 'trial',
      version: 4,
      station: 'hold',
      selection: { partId: 'a', memberId: 'words', others: [] },
      save: { kind: 'saved', at: 'today' },
    });
    expect(state().job).toBe(three);
  });

  test('another job starts with nothing of the one before: its history, what was chosen, shown and computed', () => {
    const fresh = state();
    takeRow('r1');
    retitle('one');
    retitle('two');
    undo();
    chooseIsland({ letter: 'words:0', island: 0, nth: 0 });
    setPointing('bridge');
    chooseDot({ partId: 'a', x: 1, y: 2 });
    chooseCut({ operationId: 'cut', partId: 'a', nth: 0, place: 'start' });
    workOnNodes({ partId: 'a', memberId: null, letter: 'words:0', chosen: new Set(['0:1']) });
    pick([1]);
    setLook('cut');
    setChangeFor('row');
    showOnly('cut');
    bringIntoSight({ minX: 0, minY: 0, maxX: 1, maxY: 1 });
    const view = { parts: [], operations: [], findings: [], workBox: { minX: 0, minY: 0, maxX: 1, maxY: 1 } };
    useBench.setState({
      pen: true,
      penFor: { partId: 'a', memberId: 'words' },
      atPicture: 'p',
      keepsToEdges: false,
      view,
      viewBeside: view,
      viewOf: three,
      cutPieces: [],
      run: { operations: [], seconds: 1, unknown: [], price: null },
      runDiffers: 1,
      showsOrder: true,
      areaGoes: { operation: 'engrave', goes: [] },
      progress: { done: 1, of: 2 },
      workerFault: 'stopped',
      said: 'Nothing was copied yet.',
      everything: true,
      freed: true,
      save: { kind: 'gone' },
      isKept: true,
    });
    for (const [key, value] of Object.entries(fresh))
      if (!['id', 'version', 'station', 'selection'].includes(key))
        expect(state()[key as keyof typeof fresh], key).not.toEqual(value);
    open();
    expect(state()).toEqual(fresh);
  });

  test('a selection that is not there is none', () => {
    openBench('trial', three, {
      version: 1,
      savedAt: '',
      selection: { partId: 'gone', memberId: 'words' },
      station: 'compose',
    });
    expect(state().selection).toEqual({ partId: null, memberId: null, others: [] });
    openBench('trial', three, {
      version: 1,
      savedAt: '',
      selection: { partId: 'b', memberId: 'gone' },
      station: 'compose',
    });
    expect(state().selection).toEqual({ partId: 'b', memberId: null, others: [] });
  });
});

describe('undo', () => {
  test('goes back and forth a change at a time', () => {
    retitle('one');
    retitle('two');
    undo();
    expect(state().job.title).toBe('one');
    redo();
    expect(state().job.title).toBe('two');
    redo();
    expect(state().job.title).toBe('two');
    undo();
    undo();
    undo();
    expect(state().job).toEqual(three);
    redo();
    redo();
    expect(state().job.title).toBe('two');
  });

  test('takes quick changes of one kind together, and only those', () => {
    retitle('a', 'typing');
    vi.advanceTimersByTime(1_100);
    retitle('ab', 'typing');
    vi.advanceTimersByTime(1_100);
    retitle('abc', 'typing');
    vi.advanceTimersByTime(1_300);
    retitle('abcd', 'typing');
    retitle('abcde', 'other');
    retitle('abcdef', 'other');
    retitle('x');
    retitle('y');
    expect(titles()).toEqual(['y', 'x', 'abcdef', 'abcd', 'abc', three.title]);
  });

  test('of changes taken together goes through all of them, in order, both ways', () => {
    const add = (tag: string) =>
      change((job) => {
        job.tags.push(tag);
      }, 'tags');
    add('one');
    add('two');
    add('three');
    undo();
    expect(state().job.tags).toEqual([]);
    redo();
    expect(state().job.tags).toEqual(['one', 'two', 'three']);
  });

  test('changes just the time apart that ends merging are two', () => {
    retitle('a', 'typing');
    vi.advanceTimersByTime(1_199);
    retitle('ab', 'typing');
    vi.advanceTimersByTime(1_200);
    retitle('abc', 'typing');
    const { past } = state();
    expect(past).toHaveLength(2);
    settle();
    expect(state().past).not.toBe(past);
    // Settled once, there is nothing more to settle.
    const settled = state().past;
    settle();
    expect(state().past).toBe(settled);
    expect(titles()).toEqual(['abc', 'ab', three.title]);
    settle();
    expect(state().past).toEqual([]);
  });

  test('what has settled is not gone on with; nor is what was done again', () => {
    retitle('a', 'typing');
    settle();
    retitle('ab', 'typing');
    undo();
    redo();
    retitle('abc', 'typing');
    settle();
    settle();
    expect(titles()).toEqual(['abc', 'ab', 'a', three.title]);
  });

  test('a new change ends what could be done again', () => {
    retitle('one');
    undo();
    retitle('two');
    redo();
    expect(state().job.title).toBe('two');
    expect(state().future).toEqual([]);
  });

  test('a change that changes nothing is none', () => {
    const { past } = state();
    change(() => {});
    change((job) => {
      job.title = three.title;
    });
    expect(state().past).toBe(past);
    expect(state().job).toBe(three);
  });

  test('reaches back a thousand changes', () => {
    for (let i = 0; i < 1_003; i++) retitle(`t${i}`);
    expect(state().past).toHaveLength(1_000);
    expect(titles().at(-1)).toBe('t2');
  });
});

describe('what is selected', () => {
  test('goes when it is removed; undo chooses again what was, redo lets it go', () => {
    change((job) => {
      job.parts = job.parts.filter((p) => p.id !== 'a');
    });
    expect(state().selection.partId).toBeNull();
    undo();
    expect(state().selection).toEqual({ partId: 'a', memberId: 'words', others: [] });
    redo();
    expect(state().selection.partId).toBeNull();
  });

  test('is what the change acted on, after undo and redo of it', () => {
    const move = (...ids: string[]) =>
      change((job) => {
        for (const p of job.parts) if (ids.includes(p.id)) p.placement.x += 1;
      });
    selectParts(['a', 'b']);
    move('a', 'b');
    select('c', 'second');
    move('c');
    select('b');
    // By somebody else than what is chosen: what was changed.
    move('a');
    select('c');
    undo();
    expect(state().selection).toEqual({ partId: 'a', memberId: null, others: [] });
    undo();
    expect(state().selection).toEqual({ partId: 'c', memberId: 'second', others: [] });
    select(null);
    undo();
    expect(selectedParts(state().selection)).toEqual(['a', 'b']);
    select('c');
    redo();
    expect(selectedParts(state().selection)).toEqual(['a', 'b']);
    redo();
    expect(state().selection).toEqual({ partId: 'c', memberId: 'second', others: [] });
    redo();
    expect(state().selection).toEqual({ partId: 'a', memberId: null, others: [] });
    // What changes no part leaves what is chosen.
    retitle('one');
    select('b');
    undo();
    expect(state().selection.partId).toBe('b');
    // What was added is gone, and chosen when it is there again.
    change((job) => {
      job.parts.push({ ...structuredClone(three.parts[0] as Part), id: 'new' });
    });
    select('new');
    undo();
    expect(state().selection).toEqual({ partId: null, memberId: null, others: [] });
    redo();
    expect(state().selection).toEqual({ partId: 'new', memberId: null, others: [] });
  });

  test('while a number is typed, the document before the first digit is at hand', () => {
    const before = state().job;
    expect(baseOf('w')).toBe(before);
    retitle('2', 'w');
    retitle('20', 'w');
    expect(baseOf('w')).toBe(before);
    expect(baseOf('h')).toBe(state().job);
    settle();
    expect(baseOf('w')).toBe(state().job);
  });

  test('an operation shown alone is shown with the others again when it is removed', () => {
    showOnly('score');
    retitle('one');
    expect(state().only).toBe('score');
    change((job) => {
      job.operations = job.operations.filter((o) => o.id !== 'score');
    });
    expect(state().only).toBeNull();
    undo();
    showOnly('score');
    redo();
    expect(state().only).toBeNull();
    change((job) => {
      job.operations.push({
        id: 'new',
        name: 'New',
        kind: 'mark',
        on: true,
        tip: null,
        scan: null,
        colour: null,
        pens: [],
        order: { by: 'way', pinned: [], found: null },
        kerfSide: 'line',
        lead: null,
        tabs: null,
        settings: { charted: null, from: null, tried: false, toolWidth: null, typed: {} },
      });
    });
    showOnly('new');
    undo();
    expect(state().only).toBeNull();
  });

  test('another choice ends what was under way on the sheet, the same one keeps the letters picked', () => {
    chooseIsland({ letter: 'words:0', island: 0, nth: 0 });
    setPointing('bridge');
    chooseDot({ partId: 'a', x: 1, y: 2 });
    chooseCut({ operationId: 'cut', partId: 'a', nth: 0, place: 'start' });
    pick([1]);
    select('a', 'words');
    expect(state()).toMatchObject({ picked: [1], pointing: null, atDot: null, atIsland: { letter: 'words:0' } });
    select('a', 'second');
    expect(state()).toMatchObject({ picked: null, atIsland: { letter: 'words:0' } });
    pick([1]);
    select('b', 'words');
    expect(state()).toMatchObject({ picked: null, atIsland: null });
    select(null);
    expect(state().selection).toEqual({ partId: null, memberId: null, others: [] });
  });

  test('further parts are chosen and let go; without the first, the next is first', () => {
    selectAlso('c');
    selectAlso('b');
    expect(selectedParts(state().selection)).toEqual(['a', 'c', 'b']);
    // Several are chosen as wholes.
    expect(state().selection.memberId).toBeNull();
    pick([0]);
    selectAlso('a');
    expect(state().selection).toEqual({ partId: 'c', memberId: null, others: ['b'] });
    expect(state().picked).toBeNull();
    selectAlso('c');
    selectAlso('b');
    expect(state().selection.partId).toBeNull();
    expect(selectedParts(state().selection)).toEqual([]);
    selectAlso('b');
    expect(state().selection).toEqual({ partId: 'b', memberId: null, others: [] });
    selectAlso('gone');
    expect(state().selection).toEqual({ partId: 'b', memberId: null, others: [] });
  });

  test('parts are chosen as wholes, all of them that can be moved, or none', () => {
    change((job) => {
      (job.parts[1] as Part).locked = true;
    });
    pick([0]);
    setPointing('region');
    selectAll();
    expect(selectedParts(state().selection)).toEqual(['a', 'c']);
    expect(state()).toMatchObject({ picked: null, pointing: null });
    selectParts(['c', 'gone', 'c', 'b']);
    expect(state().selection).toEqual({ partId: 'c', memberId: null, others: ['b'] });
    selectParts([]);
    expect(state().selection).toEqual({ partId: null, memberId: null, others: [] });
  });

  test('another station ends what was chosen at the one before', () => {
    workOnNodes({ partId: 'a', memberId: null, letter: null, chosen: new Set() });
    chooseIsland({ letter: 'words:0', island: 0, nth: 0 });
    chooseDot({ partId: 'a', x: 1, y: 2 });
    chooseCut({ operationId: 'cut', partId: 'a', nth: 0, place: 'start' });
    setPointing('bridge');
    useBench.setState({ pen: true });
    goToStation('fill');
    expect(state()).toMatchObject({
      station: 'fill',
      atNodes: null,
      atIsland: null,
      atDot: null,
      pointing: null,
      pen: false,
    });
  });

  test('the pen and the nodes of a part exclude each other', () => {
    const nodes = { partId: 'a', memberId: null, letter: null, chosen: new Set<string>() };
    workOnNodes(nodes);
    setPen(true);
    expect(state()).toMatchObject({ pen: true, atNodes: null });
    workOnNodes(nodes);
    expect(state()).toMatchObject({ pen: false, atNodes: nodes });
  });

  test('the same place is brought into sight each time it is asked for', () => {
    const box = { minX: 0, minY: 0, maxX: 1, maxY: 1 };
    bringIntoSight(box);
    const first = state().goTo;
    bringIntoSight(box);
    expect(state().goTo).toEqual(box);
    expect(state().goTo).not.toBe(first);
    bringIntoSight(null);
    expect(state().goTo).toBeNull();
  });
});

describe('once the view is in step', () => {
  test('runs at once when it is, else when it has become so, and only once', () => {
    let runs = 0;
    whenComputed(() => runs++);
    expect(runs).toBe(0);
    useBench.setState({ viewOf: null, progress: { done: 1, of: 2 } });
    expect(runs).toBe(0);
    useBench.setState({ viewOf: three });
    expect(runs).toBe(1);
    retitle('later');
    useBench.setState({ viewOf: state().job });
    expect(runs).toBe(1);
    whenComputed(() => runs++);
    expect(runs).toBe(2);
  });
});
