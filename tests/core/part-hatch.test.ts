/** Filling in a job: given to operations, written open, going along with its part, found wanting, tools proposed. */

import { describe, expect, test } from 'vitest';
import type { Job } from '../../src/core/document/schema';
import { scanWords } from '../../src/core/formats/drawing';
import { drawnLength, drawnPaths, isHatch } from '../../src/core/geometry/drawable';
import { countStrokes, lengthsOf } from '../../src/core/geometry/strokes';
import { windingAt } from '../../src/core/geometry/winding';
import { proposedTool, type ToolTrial, toolTrials } from '../../src/core/job/compare-tools';
import { Evaluator, type JobResult } from '../../src/core/job/evaluate';
import { drawingOf, writeFile } from '../../src/core/job/export';
import { pictureOf } from '../../src/core/job/picture';
import { reportOf } from '../../src/core/job/report';
import { LIMITS } from '../../src/core/limits';
import { FAMILIES, faces, wasmEngine } from '../support/faces';
import { finished } from '../support/generators';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const hatch = (more: Draft = {}): Draft => ({ kind: 'hatch', tool: { shape: 'line', tip: 1 }, ...more });
const filled = (members: Draft[], step: Draft = {}, more: Draft = {}): Draft =>
  partOf(members, {
    steps: [{ kind: 'weld', on: true }, hatch(step)],
    work: [{ what: 'hatch', operation: 'engrave' }],
    ...more,
  });
const plate = (more: Draft = {}): Draft => ({
  id: 'plate',
  kind: 'rectangle',
  placement: { x: 150, y: 100 },
  width: 200,
  height: 100,
  ...more,
});
const evaluated = (job: Job, evaluator = new Evaluator(wasmEngine)): JobResult => evaluator.evaluate(job, faces);
const codes = (result: JobResult) => result.findings.map((f) => f.code);
const fillOf = (result: JobResult, i = 0) => {
  const fill = result.parts[i]?.linework.hatch;
  if (!fill) throw new Error('nothing is filled');
  return fill;
};

describe('as work', () => {
  const job = jobWith([filled([lettering('Sage', 'Pacifico')])]);
  const result = evaluated(job);
  const engraved = result.operations.find((o) => o.operation.id === 'engrave');

  test('lines are drawn by their operation, the pass along the edge last or first', { tags: 'slow' }, () => {
    const whats = (r: JobResult) =>
      r.operations
        .find((o) => o.operation.id === 'engrave')
        ?.drawn.map((d) => (isHatch(d.drawable) ? 'strokes' : d.drawable.kind)) ?? [];
    expect(whats(result)[0]).toBe('strokes');
    expect(whats(result).at(-1)).toBe('polyline');
    const first = whats(evaluated(jobWith([filled([lettering('Sage', 'Pacifico')], { outline: 'first' })])));
    expect([first[0], first.at(-1)]).toEqual(['polyline', 'strokes']);
    expect(result.operations.filter((o) => o.drawn.length > 0)).toHaveLength(1);
    expect(engraved?.lengthMm).toBeCloseTo(fillOf(result).drawnMm, 6);
  });

  test('every format gets open lines only, inside the letters', { tags: 'slow' }, () => {
    const drawing = drawingOf(job, result);
    if (!drawing) throw new Error('there is nothing to write');
    const strokes = drawing.layers.flatMap((l) => l.drawn.flatMap(drawnPaths));
    expect(strokes.length).toBe(countStrokes(fillOf(result).strokes) + fillOf(result).edge.length);
    expect(strokes.every((path) => !path.closed)).toBe(true);
    const outlines = result.parts[0]?.outlines ?? [];
    const box = result.workBox;
    for (const path of strokes)
      for (const { x0, y0 } of path.segments)
        expect(outlines.reduce((sum, o) => sum + windingAt(o.path, x0 + box.minX, y0 + box.minY), 0)).not.toBe(0);
    for (const format of ['svg', 'dxf', 'pdf'] as const)
      expect(writeFile(drawing, format, job.export).length).toBeGreaterThan(1000);
    expect(new TextDecoder().decode(writeFile(drawing, 'svg', job.export))).not.toMatch(/d="[^"]*Z/);
  });

  test('the report and the picture tell of it', () => {
    const report = reportOf(job, result).parts[0]?.hatch;
    expect(report?.lines).toBe(fillOf(result).lineCount);
    expect(report?.coveredMm2).toBeGreaterThan(0);
    expect(finished(pictureOf(job, result)).shapes.some((s) => s.kind === 'engrave' && s.fill)).toBe(true);
  });

  test('switched off, or without work, nothing is computed', () => {
    expect(evaluated(jobWith([filled([lettering('Sage')], { on: false })])).parts[0]?.linework.hatch).toBeNull();
    expect(evaluated(jobWith([filled([lettering('Sage')], {}, { work: [] })])).parts[0]?.linework.hatch).toBeNull();
  });
});

describe('goes along with its part', () => {
  const at = (x: number, y: number, more: Draft = {}) =>
    jobWith([
      filled([lettering('Sage', 'Pacifico', { placement: { x: 0, y: 0 } })], {}, { placement: { x, y, ...more } }),
    ]);

  test('moved, it is the same elsewhere, and not filled anew', { tags: 'slow' }, () => {
    const evaluator = new Evaluator(wasmEngine);
    const [here, there] = [evaluated(at(150, 100), evaluator), evaluated(at(163.7, 88.2), evaluator)];
    const [a, b] = [fillOf(here), fillOf(there)];
    expect(b.cover.covered).toBe(a.cover.covered);
    for (let i = 0; i < a.strokes.xy.length; i += 97) {
      const d = i % 2 === 0 ? 13.7 : -11.8;
      expect(b.strokes.xy[i]).toBeCloseTo((a.strokes.xy[i] as number) + d, 6);
    }
    // Held by content: a fresh evaluation gives the same numbers.
    expect(fillOf(evaluated(at(163.7, 88.2))).strokes.xy.length).toBe(b.strokes.xy.length);
  });

  test('turned with the sheet’s lines staying as they are; mirrored too', { tags: 'slow' }, () => {
    for (const more of [{ turn: 90 }, { turn: 33 }, { mirror: true }]) {
      const fill = fillOf(evaluated(at(150, 100, more)));
      expect(fill.cover.covered / fill.cover.area).toBeGreaterThan(0.995);
      expect(fill.cover.spilled).toBeLessThan(0.5);
    }
  });

  test('small and large alike, with a tip to match', { tags: 'slow' }, () => {
    const shares = [0.05, 1, 15].map((k) => {
      const words = lettering('Sage', 'Pacifico', {
        size: { by: 'capital', mm: 30 * k },
        placement: { x: 150, y: 100 },
      });
      const { cover } = fillOf(
        evaluated(jobWith([filled([words], { tool: { shape: 'line', tip: k }, outline: 'none' })])),
      );
      return cover.covered / cover.area;
    });
    for (const share of shares) expect(share).toBeCloseTo(shares[1] as number, 2);
  });

  test('every typeface, with accents', { tags: 'slow' }, () => {
    for (const face of FAMILIES) {
      const result = evaluated(
        jobWith([filled([lettering('Äpfel Öl & Ç', face)], { tool: { shape: 'line', tip: 0.4 } })]),
      );
      const { cover, reach } = fillOf(result);
      expect((cover.covered + reach.missedMm2) / cover.area, face).toBeGreaterThan(0.998);
    }
  });
});

describe('right by construction', () => {
  const words = lettering('HOE', 'Archivo Black', { role: 'punch' });
  test('a plate is filled around words that are cut out of it, and in their counters', () => {
    const result = evaluated(jobWith([filled([plate(), words])]));
    const { strokes } = fillOf(result);
    const letters = result.parts[0]?.members[1]?.outlines ?? [];
    for (let i = 0; i < strokes.xy.length; i += 2)
      expect(
        letters.reduce((sum, o) => sum + windingAt(o.path, strokes.xy[i] as number, strokes.xy[i + 1] as number), 0),
      ).toBe(0);
    const counter = letters.find((o) => o.depth % 2 === 1);
    if (!counter) throw new Error('O has no counter');
    const inCounter = Array.from({ length: strokes.xy.length / 2 }, (_, i) =>
      windingAt(counter.path, strokes.xy[2 * i] as number, strokes.xy[2 * i + 1] as number),
    ).filter((w) => w !== 0);
    expect(inCounter.length).toBeGreaterThan(4);
    expect(codes(result)).not.toContain('swallowed');
  });

  test('overlaps that are not welded are filled as one', () => {
    const [welded, loose] = [true, false].map((on) =>
      evaluated(
        jobWith([
          partOf([plate({ id: 'a', width: 60 }), plate({ id: 'b', width: 60, placement: { x: 170, y: 100 } })], {
            steps: [{ kind: 'weld', on }, hatch({ angle: 0 })],
            work: [{ what: 'hatch', operation: 'engrave' }],
          }),
        ]),
      ),
    ) as [JobResult, JobResult];
    expect(loose.parts[0]?.overlaps).toBe(true);
    expect(fillOf(loose).cover.covered).toBeCloseTo(fillOf(welded).cover.covered, 3);
    expect(fillOf(loose).lineCount).toBe(fillOf(welded).lineCount);
  });

  test('one-line faces have no inside', () => {
    const result = evaluated(jobWith([filled([lettering('AL-07', 'Hershey Sans')])]));
    expect(result.parts[0]?.linework.hatch).toBeNull();
  });
});

describe('findings', () => {
  const inner = filled([lettering('HOE')], {}, { id: 'words' });
  const outer = filled([plate()], {}, { id: 'around' });

  test('parts filled over each other are told once, with the mend', { tags: 'slow' }, () => {
    const found = evaluated(jobWith([outer, inner])).findings.filter((f) => f.code === 'filled-over');
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({
      partId: 'around',
      mend: { otherId: 'words' },
      severity: 'fault',
    });
    const apart = { ...inner, members: [lettering('HOE', 'Archivo Black', { placement: { x: 150, y: 175 } })] };
    expect(codes(evaluated(jobWith([outer, apart])))).not.toContain('filled-over');
    // An area and lines alike; another kind of operation is meant to be there.
    expect(
      codes(evaluated(jobWith([{ ...outer, steps: [], work: [{ what: 'fill', operation: 'engrave' }] }, inner]))),
    ).toContain('filled-over');
    expect(
      codes(evaluated(jobWith([outer, { ...inner, work: [{ what: 'hatch', operation: 'mark' }] }]))),
    ).not.toContain('filled-over');
    // However many are filled.
    const many = Array.from({ length: 80 }, (_, i) =>
      filled(
        [plate({ width: 4, height: 4, placement: { x: 55 + (i % 20) * 9, y: 60 + Math.floor(i / 20) * 20 } })],
        { outline: 'none' },
        { id: `dot-${i}` },
      ),
    );
    expect(codes(evaluated(jobWith([outer, ...many]))).filter((c) => c === 'filled-over')).toHaveLength(80);
  });

  test('words that vanish in what they are joined to', () => {
    const result = evaluated(jobWith([partOf([plate(), lettering('HOE')])]));
    expect(result.findings.find((f) => f.code === 'swallowed')).toMatchObject({
      memberId: 'words',
      mend: { memberId: 'words' },
    });
    const bar = plate({ width: 300, height: 5, placement: { x: 150, y: 100 } });
    expect(codes(evaluated(jobWith([partOf([bar, lettering('HOE')])])))).not.toContain('swallowed');
    expect(
      codes(evaluated(jobWith([partOf([plate(), lettering('HOE', 'Archivo Black', { role: 'punch' })])]))),
    ).not.toContain('swallowed');
  });

  test('places that are missed, the largest first, a few by name; filled, they are gone', { tags: 'slow' }, () => {
    const step = { outline: 'none', overlap: 0 };
    const result = evaluated(jobWith([filled([lettering('Sage', 'Pacifico')], step)]));
    const missed = result.findings.filter((f) => f.code === 'missed');
    expect(missed).toHaveLength(LIMITS.missedNamed);
    expect(missed.every((f) => f.mend !== null && f.box !== null)).toBe(true);
    // Left as it is, it stays so when the part is moved.
    const place = { x: 13, y: -9, turn: 25, mirror: true };
    const moved = evaluated(jobWith([filled([lettering('Sage', 'Pacifico')], step, { placement: place })]));
    expect(moved.findings.filter((f) => f.code === 'missed').map((f) => f.key)).toEqual(missed.map((f) => f.key));
    const areas = fillOf(result).cover.places.map((p) => p.areaMm2);
    expect(areas).toEqual([...areas].sort((a, b) => b - a));
    const more = result.findings.find((f) => f.code === 'more-missed');
    expect(more?.sentence).toContain(String(areas.length - LIMITS.missedNamed));
    const whole = evaluated(jobWith([filled([lettering('Sage', 'Pacifico')], { ...step, fillMissed: true })]));
    expect(codes(whole)).not.toContain('missed');
    expect(countStrokes(fillOf(whole).overMissed)).toBeGreaterThan(0);
    // Less than going along the whole edge, which would fill them too.
    const edged = evaluated(jobWith([filled([lettering('Sage', 'Pacifico')], { ...step, outline: 'last' })]));
    expect(codes(edged)).not.toContain('missed');
    expect(lengthsOf(fillOf(whole).overMissed).drawn).toBeLessThan(
      fillOf(edged).drawnMm - lengthsOf(fillOf(edged).strokes).drawn,
    );
  });

  test('a tool that is too large for the letters, one that fits nowhere, more lines than are made', {
    tags: 'slow',
  }, () => {
    const large = evaluated(jobWith([filled([lettering('Rye')], { tool: { shape: 'flat', tip: 8 } })]));
    const found = large.findings.find((f) => f.code === 'beyond-reach');
    expect(found?.sentence).toMatch(
      /^A tool that works 8 mm wide leaves \d+(\.\d)? % of “Rye”, most of “[Rye]” \(\d+(\.\d)? %\)/,
    );
    expect(
      codes(evaluated(jobWith([filled([lettering('Rye')], { tool: { shape: 'flat', tip: 8 }, mostMissed: 1 })]))),
    ).not.toContain('beyond-reach');
    expect(codes(evaluated(jobWith([filled([lettering('Rye')], { tool: { shape: 'flat', tip: 60 } })])))).toContain(
      'fits-nowhere',
    );
    const many = evaluated(
      jobWith(
        [
          filled([plate({ width: 3000, height: 3000 })], {
            tool: { shape: 'line', tip: 0.01 },
            overlap: 0.95,
            outline: 'none',
          }),
        ],
        {
          sheet: { width: 4000, height: 4000 },
        },
      ),
    );
    expect(codes(many)).toContain('too-many-lines');
    const rings = evaluated(
      jobWith([filled([plate()], { style: 'rings', tool: { shape: 'line', tip: 0.05 }, overlap: 0.5 })]),
    );
    expect(codes(rings)).toContain('too-many-lines');
    expect(many.operations.every((o) => o.drawn.every((d) => !isHatch(d.drawable)))).toBe(true);
  });

  test('filled and cut on the same letters', () => {
    const both = filled(
      [lettering('Rye')],
      {},
      {
        work: [
          { what: 'hatch', operation: 'engrave' },
          { what: 'outline', operation: 'cut' },
        ],
      },
    );
    expect(codes(evaluated(jobWith([both])))).toContain('fill-and-cut');
  });
});

describe('tools', () => {
  const trial = (tip: number, beyond: number, minutes: number, unfit = false): ToolTrial => ({
    tool: { id: `t${tip}-${minutes}`, shape: 'flat', tip, angle: 60, depth: 1, feed: 500 },
    widthMm: tip,
    beyond,
    drawnMm: 0,
    lifts: 0,
    minutes,
    unfit,
  });

  test('the widest that leaves no more than it may, the quicker of two alike', () => {
    const all = [trial(3, 0.2, 1), trial(2, 0.02, 3), trial(2, 0.02, 2), trial(1, 0.001, 9), trial(5, 0, 1, true)];
    expect(proposedTool(all, 0.03)).toBe(all[2]);
    expect(proposedTool(all, 0.3)).toBe(all[0]);
    expect(proposedTool(all, 0.01)).toBe(all[3]);
    expect(proposedTool(all, 0.0001)).toBeNull();
    expect(proposedTool([], 1)).toBeNull();
  });

  test('for three words: what is proposed leaves less, the next wider one more', { tags: 'slow' }, () => {
    for (const [word, face, capital] of [
      ['Rye', 'Libre Baskerville', 14],
      ['WORKSHOP', 'Archivo Black', 9],
      ['Sage', 'Pacifico', 12],
    ] as const) {
      const job = jobWith([
        filled([lettering(word, face, { size: { by: 'capital', mm: capital } })], { mostMissed: 0.04 }),
      ]);
      const trials = finished(toolTrials(job, 'part', new Evaluator(wasmEngine), faces));
      expect(trials.map((t) => t.tool.id)).toEqual(job.tools.map((t) => t.id));
      const proposed = proposedTool(trials, 0.04);
      if (!proposed) throw new Error(`no tool for ${word}`);
      expect(proposed.beyond, word).toBeLessThanOrEqual(0.04);
      for (const t of trials)
        if (t.widthMm > proposed.widthMm + 1e-9) expect(t.unfit || t.beyond > 0.04, word).toBe(true);
      // Finer tools leave less and take longer.
      const flat = trials.filter((t) => t.tool.shape === 'flat' && !t.unfit);
      for (let i = 1; i < flat.length; i++) {
        expect(flat[i]?.beyond).toBeLessThanOrEqual((flat[i - 1]?.beyond ?? 0) + 1e-4);
        expect(flat[i]?.minutes).toBeGreaterThan(flat[i - 1]?.minutes ?? 0);
      }
      // The same as filling with it.
      const taken = evaluated(
        jobWith([
          filled([lettering(word, face, { size: { by: 'capital', mm: capital } })], {
            tool: {
              shape: proposed.tool.shape,
              tip: proposed.tool.tip,
              angle: proposed.tool.angle,
              depth: proposed.tool.depth,
            },
            mostMissed: 0.04,
          }),
        ]),
      );
      expect(fillOf(taken).reach.missedMm2 / fillOf(taken).reach.areaMm2).toBeCloseTo(proposed.beyond, 9);
      expect(fillOf(taken).drawnMm).toBeCloseTo(proposed.drawnMm, 6);
    }
  });

  test('at most so many in a job, none with a name twice', () => {
    const tool = (i: number) => ({ id: `t${i}`, shape: 'flat', tip: 1 });
    const list = (n: number) => Array.from({ length: n }, (_, i) => tool(i));
    expect(jobWith([], { tools: list(LIMITS.tools) }).tools).toHaveLength(LIMITS.tools);
    expect(() => jobWith([], { tools: list(LIMITS.tools + 1) })).toThrow();
    expect(() => jobWith([], { tools: [tool(1), tool(1)] })).toThrow(/used twice/);
  });
});

test('an area says in each file how it is scanned', () => {
  const operations = [{ id: 'engrave', name: 'Engrave', kind: 'engrave', scan: { interval: 0.08, direction: 90 } }];
  const job = jobWith([partOf([lettering('Rye')], { work: [{ what: 'fill', operation: 'engrave' }] })], { operations });
  const drawing = drawingOf(job, evaluated(job));
  if (!drawing) throw new Error('there is nothing to write');
  const words = 'Engrave: areas are scanned in lines 0.08 mm apart, 90 degrees from level.';
  expect(drawing.layers.map(scanWords)).toEqual([words]);
  const text = (format: 'svg' | 'dxf') => new TextDecoder().decode(writeFile(drawing, format, job.export));
  expect(text('svg')).toContain(`<desc>${words}</desc>`);
  expect(text('svg')).toContain('data-scan-interval-mm="0.08" data-scan-direction-deg="90"');
  expect(text('dxf')).toMatch(/999\r\nEngrave: areas are scanned in lines 0\.08 mm apart[^\n]*\n {2}0\r\nEOF/);
  const silent = jobWith([partOf([lettering('Rye')], { work: [{ what: 'outline', operation: 'engrave' }] })], {
    operations,
  });
  expect(drawingOf(silent, evaluated(silent))?.layers.map(scanWords)).toEqual([null]);
});

test('two like parts in the same place share a filling, and each has its own lines', () => {
  const at = { placement: { x: 0, y: 0 } };
  const parts = ['a', 'b'].map((id) => filled([lettering('Rye', 'Poppins', { align: 'left', ...at })], {}, { id }));
  const job = jobWith(parts);
  const evaluator = new Evaluator(wasmEngine);
  for (const result of [evaluated(job, evaluator), evaluated(job, evaluator)]) {
    expect(fillOf(result, 0)).toBe(fillOf(result, 1));
    const shapes = result.operations.find((o) => o.operation.id === 'engrave')?.drawn ?? [];
    const lengths = ['a', 'b'].map((id) =>
      shapes.filter((d) => d.partId === id).reduce((sum, d) => sum + drawnLength(d.drawable), 0),
    );
    expect(lengths[0]).toBeGreaterThan(10);
    expect(lengths[1]).toBeCloseTo(lengths[0] as number, 6);
    const written = ['a', 'b'].map(
      (id) => drawingOf(job, result, { partIds: [id] })?.layers[0]?.drawn.flatMap(drawnPaths).length,
    );
    expect(written[0]).toBeGreaterThan(10);
    expect(written[1]).toBe(written[0]);
  }
});
