/** Bridges placed by hand: pinned to their letters, carried along when the words change; and how many there may be. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  addBridge,
  type BridgeNow,
  copyToSame,
  letGo,
  pinIsland,
  pinnedBridge,
  removeBridge,
} from '../../src/core/commands/bridges';
import { setWords } from '../../src/core/commands/words';
import type { Job, Part } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { LIMITS } from '../../src/core/limits';
import { bridgeThrough } from '../../src/core/prepare/bridges/through';
import { faces, wasmEngine } from '../support/faces';
import { bridgesOf, edited, evaluator, notesOf, O, partIn, stencilJob, stepOf } from '../support/stencils';

describe('by hand', () => {
  const job = stencilJob('BOARD', { width: 3, count: 1 });

  test('pinned bridges lie as they lay, on the same outlines', () => {
    const pinned = edited(job, (step) => pinIsland(step, O, bridgesOf(job)));
    expect(stepOf(pinned).pinned).toHaveLength(1);
    const [before, after] = [bridgesOf(job), bridgesOf(pinned)].map((list) => list.find((b) => b.letter === O.letter));
    expect(after?.own.x).toBeCloseTo(before?.own.x ?? 0, 4);
    expect(after?.own.y).toBeCloseTo(before?.own.y ?? 0, 4);
    expect(after?.own.turn).toBeCloseTo(before?.own.turn ?? 0, 1);
    expect(after?.pinnedIndex).toBe(0);
    const free = edited(pinned, (step) => letGo(step, O));
    expect(stepOf(free)).toEqual(stepOf(job));
  });

  test('moved, turned, widened, taken out, added, copied', () => {
    const bridges = bridgesOf(job);
    const own = bridges.find((b) => b.letter === O.letter) as BridgeNow;
    const moved = edited(job, (step) => {
      const placed = pinnedBridge(step, own, bridges);
      if (placed) Object.assign(placed, { x: placed.x + 0.1, turn: null, width: 4 });
    });
    const after = bridgesOf(moved).find((b) => b.letter === O.letter) as BridgeNow;
    expect(after.own.x).toBeCloseTo(own.own.x + 0.1, 1);
    expect(after.width).toBe(4);
    expect(partIn(moved).pieces).toHaveLength(1);

    const gone = edited(job, (step) => removeBridge(step, own, bridges));
    expect(bridgesOf(gone)).toHaveLength(bridges.length - 1);
    expect(partIn(gone).pieces).toHaveLength(2);

    const part = partIn(job);
    const island = notesOf(part).islands.find((i) => i.letter === O.letter);
    if (!island) throw new Error('no island');
    const { maxX, minY, maxY } = island.outline.box;
    const ground = { stockInside: false, frames: part.frames, leastMm: null, thicknessMm: null, rims: [] };
    const there = bridgeThrough(notesOf(part).before, ground, { x: maxX + 2, y: (minY + maxY) / 2 });
    expect(there).toMatchObject(O);
    // In the stock there is no gap.
    expect(bridgeThrough(notesOf(part).before, ground, { x: maxX - 1, y: (minY + maxY) / 2 })).toBeNull();
    const added = edited(job, (step) => {
      if (there) addBridge(step, there, bridges);
    });
    expect(bridgesOf(added).filter((b) => b.letter === O.letter)).toHaveLength(2);
    expect(partIn(added).pieces).toHaveLength(1);

    const twice = stencilJob('OBOE', { width: 3, count: 1 });
    const first = { letter: 'words:0', island: 0 };
    const second = { letter: 'words:2', island: 0 };
    const copied = edited(twice, (step) => {
      const placed = pinnedBridge(step, bridgesOf(twice)[0] as BridgeNow, bridgesOf(twice));
      if (placed) Object.assign(placed, { x: placed.x + 0.1, turn: null });
      copyToSame(step, first, [first, second], bridgesOf(twice));
    });
    const [a, b] = ['words:0', 'words:2'].map((letter) => bridgesOf(copied).find((x) => x.letter === letter));
    expect(a?.own.x).toBeCloseTo(b?.own.x ?? 0, 6);
    expect(b?.pinnedIndex).not.toBeNull();
  });

  test('a bridge across a gap that no island is behind', () => {
    const c = stencilJob('C', { width: 3 });
    const part = partIn(c);
    const { minX, minY, maxY } = part.box;
    const there = bridgeThrough(
      part.solid,
      { stockInside: false, frames: part.frames, leastMm: null, thicknessMm: null, rims: [] },
      { x: minX + 3, y: (minY + maxY) / 2 },
    );
    expect(there).toMatchObject({ letter: 'words:0', island: null });
    const bridged = edited(c, (step) => {
      if (there) addBridge(step, there, []);
    });
    expect(partIn(bridged).outlines).toHaveLength(2);
    expect(notesOf(partIn(bridged)).bridges[0]).toMatchObject({ island: null, pinnedIndex: 0 });
  });

  test('two that overlap: the later is left out, and told', () => {
    const bridges = bridgesOf(job);
    const doubled = edited(job, (step) => {
      pinIsland(step, O, bridges);
      step.pinned.push({ ...(step.pinned[0] as (typeof step.pinned)[number]) });
    });
    const result = evaluator.evaluate(doubled, faces);
    expect(result.findings.map((f) => f.code)).toContain('bridge-unplaced');
    expect(result.parts[0]?.pieces).toHaveLength(1);
  });

  test('pinned bridges stay on their letter through edits of words, size, spacing and face', () => {
    const pinned = edited(job, (step) => {
      pinIsland(step, O, bridgesOf(job));
      Object.assign(step.pinned[0] as object, { x: 0.2, turn: null });
    });
    const wordsOf = (j: Job) => j.parts[0]?.members[0] as Extract<Part['members'][number], { kind: 'lettering' }>;
    const onO = (j: Job) => {
      const text = wordsOf(j).text;
      const by = notesOf(partIn(j)).bridges.filter((b) => b.pinnedIndex !== null);
      expect(by.map((b) => text[Number(b.letter.split(':')[1])])).toEqual(['O']);
      expect(partIn(j).pieces).toHaveLength(1);
      return by[0]?.own;
    };
    const start = onO(pinned);
    const typed = (j: Job, text: string) => setWords(j, 'part', wordsOf(j).id, text);
    let now = pinned;
    for (const text of ['ABOARD', 'ABOARDS', 'BOARD', 'THE BOARD\n8 DAYS', 'BOARD']) now = typed(now, text);
    expect(onO(now)?.x).toBeCloseTo(start?.x ?? 0, 6);
    expect(JSON.stringify(now)).toBe(JSON.stringify(pinned));
    for (const change of [
      { size: { by: 'capital', mm: 55 } },
      { letterSpacing: 0.3 },
      { size: { by: 'width', mm: 80 } },
    ]) {
      const changed = edited(pinned, (_, copy) => Object.assign(wordsOf(copy), change));
      expect(onO(changed)?.x).toBeCloseTo(start?.x ?? 0, 1);
    }
    for (const face of ['Bebas Neue', 'Pacifico', 'Libre Baskerville', 'Fredoka'])
      onO(edited(pinned, (_, copy) => Object.assign(wordsOf(copy), { face })));
    expect(onO(edited(pinned, (_, copy) => Object.assign(wordsOf(copy), { face: 'Archivo Black' })))).toEqual(start);
  });

  test('strength after a bridge was moved is what it is when everything is looked at anew', { tags: 'slow' }, () => {
    const strong = (evaluating: Evaluator, of: Job) => {
      const found = evaluating.evaluate(of, faces).parts[0]?.strength;
      const told = (list: readonly { width: number; at: { x: number; y: number } }[]) =>
        list.map((s) => [s.width.toFixed(6), s.at.x.toFixed(6), s.at.y.toFixed(6)].join(' ')).sort();
      return { thin: told(found?.thin ?? []), tight: told(found?.tight ?? []) };
    };
    const place = { placement: { x: 150, y: 100 } };
    const big = { width: 300, height: 200, leastWidth: 4.2, kerf: 1.6 };
    const start = stencilJob('BOARD & ODD\nREPAIRS', { width: 4.5, count: 1 }, 'Archivo Black', place, big);
    const held = new Evaluator(wasmEngine);
    const before = strong(held, start);
    expect(before.thin.length + before.tight.length).toBeGreaterThan(3);
    const bridges = bridgesOf(start);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: bridges.length - 1 }),
        fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        fc.double({ min: 1, max: 7, noNaN: true }),
        (which, by, width) => {
          const moved = edited(start, (step) => {
            const placed = pinnedBridge(step, bridges[which] as BridgeNow, bridges);
            if (placed) Object.assign(placed, { x: placed.x + by, turn: null, width });
          });
          expect(strong(held, moved)).toEqual(strong(new Evaluator(wasmEngine), moved));
        },
      ),
      { numRuns: 15 },
    );
  });

  test('whatever is placed by hand, every island that has a bridge hangs on the rest', { tags: 'slow' }, () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            letter: fc.integer({ min: 0, max: 4 }).map((i) => `words:${i}`),
            island: fc.option(fc.integer({ min: 0, max: 1 })),
            x: fc.double({ min: -1, max: 2, noNaN: true }),
            y: fc.double({ min: -1, max: 2, noNaN: true }),
            turn: fc.option(fc.double({ min: -360, max: 360, noNaN: true })),
            width: fc.option(fc.double({ min: 0.5, max: 12, noNaN: true })),
          }),
          { maxLength: 4 },
        ),
        (placed) => {
          const some = edited(job, (step) => {
            step.pinned = placed;
            step.islands = placed.flatMap((p) =>
              p.island === null ? [] : [{ letter: p.letter, island: p.island, how: 'hand' as const, count: null }],
            );
          });
          const part = partIn(some);
          const notes = notesOf(part);
          const loose = notes.islands.filter((i) => !i.hangs).length;
          // A bridge across a stroke may cut it in two: that only joins stock.
          expect(part.pieces.length).toBeLessThanOrEqual(1 + loose);
          const total = part.outlines.reduce((sum, o) => sum + o.area, 0);
          const taken = notes.bridges.reduce((sum, b) => sum + b.areaMm2, 0);
          const bare = notes.before.reduce((sum, o) => sum + o.area, 0);
          expect(Math.abs(bare - taken - total)).toBeLessThan(0.01 * taken + 0.3);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('limits', () => {
  test('more islands than are bridged: none is, and it is told', { tags: 'slow' }, () => {
    const text = `${'8'.repeat(50)}\n`.repeat(Math.ceil(LIMITS.islands / 100) + 1).trim();
    const job = stencilJob(text, {}, 'Poppins', { size: { by: 'capital', mm: 5 } }, { width: 2000, height: 2000 });
    const { findings, parts } = evaluator.evaluate(job, faces);
    expect(parts[0]?.bridged?.tooMany).toBeGreaterThan(LIMITS.islands);
    expect(parts[0]?.bridged?.bridges).toEqual([]);
    expect(findings.find((f) => f.code === 'too-many-to-bridge')?.sentence).toMatch(/up to 2,000 are bridged/);
  });

  test('a document with more bridges than may be placed, or on one island, is refused', () => {
    const placed = Array.from({ length: LIMITS.bridgesPlaced + 1 }, () => ({
      letter: 'words:0',
      island: 0,
      x: 0,
      y: 0,
    }));
    expect(() => stencilJob('O', { placed })).toThrow();
    expect(() => stencilJob('O', { count: LIMITS.bridgesOfIsland + 1 })).toThrow();
    const far = { letter: 'words:0', island: 0, x: LIMITS.bridgeCapitals + 1, y: 0 };
    expect(() => stencilJob('O', { pinned: [far] })).toThrow();
    expect(() => stencilJob('O', { pinned: [{ ...far, x: LIMITS.bridgeCapitals }] })).not.toThrow();
  });

  test('no more bridges are placed by hand than a document may hold', () => {
    const job = stencilJob('O', { width: 1 });
    const full = edited(job, (step) => {
      const one = { letter: 'words:0', island: null, x: 0, y: 0, turn: null, width: null };
      for (let i = 0; i < LIMITS.bridgesPlaced + 5; i++) addBridge(step, one, []);
    });
    expect(stepOf(full).pinned).toHaveLength(LIMITS.bridgesPlaced);
  });
});
