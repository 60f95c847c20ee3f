/**
 * Every limit by its name: what is just within it goes, what is just beyond it does not, and where a user can meet it a sentence
 * says so. Limits of a document are tried as they are; the others are lowered for the test, so that each is seen to be the one
 * that is obeyed.
 */

import { sql } from 'drizzle-orm';
import { gzipSync } from 'fflate';
import { afterEach, expect, test, vi } from 'vitest';
import { call } from '../../src/api/call';
import { API } from '../../src/api/endpoints';
import { POST } from '../../src/app/api/assets/route';
import { pinIsland, pinnedBridge } from '../../src/core/commands/bridges';
import { layPicture, pickTone } from '../../src/core/commands/pictures';
import { checkJob, readJob } from '../../src/core/document/read';
import { writeFound } from '../../src/core/formats/found-file';
import { readPixels, writePixels } from '../../src/core/formats/pixels';
import { openDrawing, readDrawing } from '../../src/core/formats/read';
import type { ReadDrawing } from '../../src/core/formats/read-drawing';
import { closedPath } from '../../src/core/geometry/path';
import { pathData } from '../../src/core/geometry/path-data';
import { arcBetween, line } from '../../src/core/geometry/segment';
import { foundBy, type Rule } from '../../src/core/inspect/rule';
import { Evaluator } from '../../src/core/job/evaluate';
import { fileName } from '../../src/core/job/file-names';
import { pictureOf } from '../../src/core/job/picture';
import { thickenedEnough } from '../../src/core/job/safe';
import { savedExtrasSchema } from '../../src/core/job/summary';
import { newStep } from '../../src/core/kinds/steps';
import { centerlineStep } from '../../src/core/kinds/steps/centerline';
import { dotsStep } from '../../src/core/kinds/steps/dots';
import { hatchStep as hatchKind } from '../../src/core/kinds/steps/hatch';
import { textPathOf } from '../../src/core/lettering/text-path';
import { LIMITS } from '../../src/core/limits';
import { finished, Memo, type Stage } from '../../src/core/memo';
import { measureOutlines } from '../../src/core/prepare/outline';
import type { PartLines } from '../../src/core/toolpath/centerline/part-lines';
import type { PartDots } from '../../src/core/toolpath/dots/part-dots';
import type { PartHatch } from '../../src/core/toolpath/hatch/part-hatch';
import { rowStep } from '../../src/core/toolpath/hatch/tip-room';
import type { Raster } from '../../src/core/tracing/raster';
import { traceCoverage } from '../../src/core/tracing/trace';
import { parseLength } from '../../src/core/units/quantity';
import { clearUnusedAssets, keepAsset } from '../../src/server/assets';
import { assets } from '../../src/server/schema';
import { bridgesView } from '../../src/worker/bridge-view';
import { readingFile } from '../../src/worker/client';
import { lookAtPicture } from '../../src/worker/picture-reading';
import { type PagePicture, picturePages, previewFile } from '../../src/worker/reading';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';
import { tiesOf } from '../support/notes';
import { ownDatabase } from '../support/own-database';
import { pdfOf } from '../support/pdf';
import { workersAnswer } from '../support/workers';
import { PROOF_LIMITS } from './proof-limits';
import { ROSTER_LIMITS } from './roster-limits';
import { ROW_WORKER_LIMITS } from './row-worker-limits';
import { RUN_LIMITS } from './run-limits';
import { SHOP_LIMITS } from './shop-limits';
import { STARTER_LIMITS } from './starter-limits';
import { TAKEN_LIMITS } from './taken-limits';
import { TYPEFACE_LIMITS } from './typeface-limits';

type Name = keyof typeof LIMITS;
const limits = LIMITS as { -readonly [K in Name]: number };
const before = { ...LIMITS };
afterEach(() => {
  Object.assign(limits, before);
  vi.unstubAllGlobals();
  vi.useRealTimers();
  vi.restoreAllMocks();
});

/** Whether a document is taken; if not, its first sentence. */
const said = (document: Draft): string | null => {
  const read = checkJob({ format: 1, sheet: { width: 300, height: 200 }, ...document });
  return read.ok ? null : (read.sentences[0] ?? '');
};
const ofPart = (part: Draft) => said({ parts: [partOf([], part)] });
const ofStep = (step: Draft) => ofPart({ steps: [step] });
const ofWords = (more: Draft) => said({ parts: [partOf([lettering('o', 'Poppins', more)])] });
const ofMember = (member: Draft) => said({ parts: [partOf([{ id: 'm', placement: { x: 0, y: 0 }, ...member }])] });
const listOf = <T>(count: number, entry: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => entry(i));

/** A field of a document: its greatest value is taken, one beyond is refused with a sentence that names the limit. */
function most(value: number, beyond: number, ask: (value: number) => string | null, shown = String(value)): void {
  expect(ask(value)).toBeNull();
  expect(ask(beyond)).toContain(shown);
}
/** The same for how many, or how long. */
const mostOf = (name: Name, ask: (count: number) => string | null) => most(LIMITS[name], LIMITS[name] + 1, ask);

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const svgBytes = (body: string, doctype = ''): Uint8Array =>
  bytesOf(
    `${doctype}<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="90mm" height="90mm" viewBox="0 0 90 90">${body}</svg>`,
  );
const found = (bytes: Uint8Array): ReadDrawing => {
  const reading = readDrawing(bytes);
  if (!reading.ok) throw new Error(reading.sentence);
  return reading.found;
};
const svg = (body: string, doctype = '') => found(svgBytes(body, doctype));
const dxf = (entities: string, blocks = ''): ReadDrawing =>
  found(
    bytesOf(
      [
        blocks && `0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n`,
        `0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`,
      ].join(''),
    ),
  );
const dxfLine = '0\nLINE\n8\n0\n10\n0\n20\n0\n11\n5\n21\n5\n';
const bar = (x: number, width = 2): Draft => ({
  id: `r${x}`,
  kind: 'rectangle',
  placement: { x, y: 50 },
  width,
  height: 20,
});
const evaluate = (parts: Draft[], more: Draft = {}) => new Evaluator(wasmEngine).evaluate(jobWith(parts, more), faces);
const findingsOf = (parts: Draft[], more: Draft = {}) =>
  evaluate(parts, more).findings.map((f) => [f.code, f.sentence]);
const codesOf = (parts: Draft[], more: Draft = {}) => findingsOf(parts, more).map(([code]) => code);
const kindsAt = (list: readonly (string | undefined)[], code: string) => list.filter((c) => c === code).length;
const drawnOn = (drawing: string) => {
  const evaluator = new Evaluator(wasmEngine);
  evaluator.addDrawing('a'.repeat(64), drawing);
  const member = { id: 'art', kind: 'artwork', placement: { x: 100, y: 100 }, drawing: 'a'.repeat(64) };
  return evaluator.evaluate(jobWith([partOf([member])]), faces).findings.map((f) => f.code);
};
const noPart = {
  matrix: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
  ownBox: { minX: 0, minY: 0, maxX: 1, maxY: 1 },
  sources: [],
  members: [],
  outlines: [],
  openPaths: [],
  box: { minX: 0, minY: 0, maxX: 1, maxY: 1 },
};
/** What a step's rules find in what it drew. */
const foundOf = (rules: readonly unknown[], drawn: unknown) => {
  const subject = { partId: 'part', title: 'A part', step: undefined, part: noPart, note: null, drawn, length: String };
  return foundBy(rules as readonly Rule<typeof subject, unknown>[], subject).map(({ rule, found }) => ({
    code: rule.code,
    sentence: found.sentence,
  }));
};
const filledPart = (step: Draft): Draft =>
  partOf([bar(100, 20)], {
    steps: [
      { kind: 'weld' },
      { kind: 'hatch', tool: { shape: 'line', tip: 2 }, overlap: 0, angle: 0, outline: 'none', ...step },
    ],
    work: [{ what: 'hatch', operation: 'engrave' }],
  });
const fillOf = (step: Draft) => evaluate([filledPart(step)]).parts[0]?.linework.hatch;
const square = measureOutlines([
  {
    path: closedPath([line(0, 0, 30, 0), line(30, 0, 30, 40), line(30, 40, 0, 40), line(0, 40, 0, 0)]),
    labels: [0, 0, 0, 0],
  },
]);

const ofPicture = (more: Draft) =>
  said({
    pictures: [{ id: 'p', pixels: 'a'.repeat(64), columns: 9, rows: 9, scale: 1, placement: { x: 0, y: 0 }, ...more }],
  });
const ofTrace = (more: Draft) =>
  ofMember({ kind: 'trace', pixels: 'a'.repeat(64), columns: 9, rows: 9, scale: 1, ...more });
/** Two dark squares on white. */
const twoSquares: Raster = {
  width: 40,
  height: 20,
  channels: 1,
  data: Uint8Array.from({ length: 800 }, (_, i) => (i % 20 > 4 && i % 20 < 15 && i / 40 > 5 && i / 40 < 15 ? 0 : 255)),
};
/** What is said of a picture that says it is so large, and whether it was unpacked. */
const lookedAt = async (width: number, height: number) => {
  const decode = vi.fn(async () => ({ raster: twoSquares, png: writePixels(twoSquares) }));
  const head = { format: 'PNG' as const, width, height, dpi: null, orientation: 1 };
  const found = await lookAtPicture(new Uint8Array(), head, decode, () => {});
  return { found, calls: decode.mock.calls as unknown as [unknown, { columns: number; rows: number }][] };
};

/** What is found of bars in a row, each cut over the next. */
function collisionsOf(count: number): string[] {
  const bar = (i: number) => ({
    id: 'r',
    kind: 'rectangle',
    placement: { x: 60 + 20 * i, y: 60 },
    width: 30,
    height: 20,
  });
  const job = jobWith(listOf(count, (i) => partOf([bar(i)], { id: `p${i}` })));
  const { findings } = new Evaluator(wasmEngine).evaluate(job, faces);
  return findings.flatMap(({ code }) => (code === 'drawn-twice' ? [] : [code]));
}

const TRIED: Readonly<Record<Name, () => void | Promise<void>>> = {
  rasterPixels: async () => {
    limits.rasterPixels = 800;
    expect(readPixels(writePixels(twoSquares))).toMatchObject({ width: 40, height: 20 });
    limits.rasterPixels = 799;
    expect(readPixels(writePixels(twoSquares))).toBeNull();
    limits.rasterPixels = 200;
    const { found, calls } = await lookedAt(40, 20);
    expect(calls[0]?.[1]).toEqual({ columns: 20, rows: 10 });
    expect(found).toMatchObject({ ok: true, came: { columns: 40, rows: 20 } });
  },
  decodedPixels: async () => {
    limits.decodedPixels = 1_000_000;
    expect((await lookedAt(1000, 1000)).calls).toHaveLength(1);
    const { found, calls } = await lookedAt(1001, 1000);
    expect(calls).toEqual([]);
    expect(found).toMatchObject({ ok: false, sentence: expect.stringContaining('1,001 × 1,000') });
  },
  rasterSide: async () => {
    const most = LIMITS.rasterSide;
    expect((await lookedAt(most, 1)).calls).toHaveLength(1);
    expect((await lookedAt(1, most + 1)).calls).toEqual([]);
    expect([ofPicture({ columns: most }), ofPicture({ columns: most + 1 })]).toEqual([
      null,
      expect.stringContaining(`${most}`),
    ]);
  },
  pixelLeastMm: () => {
    expect(ofPicture({ scale: LIMITS.pixelLeastMm })).toBeNull();
    expect(ofTrace({ scale: LIMITS.pixelLeastMm / 2 })).toContain('scale');
  },
  pixelMostMm: () => {
    expect(ofTrace({ scale: LIMITS.pixelMostMm })).toBeNull();
    expect(ofPicture({ scale: LIMITS.pixelMostMm * 2 })).toContain('scale');
  },
  placedPictures: () => {
    const picture = (i: number) => ({
      id: `p${i}`,
      pixels: 'a'.repeat(64),
      columns: 9,
      rows: 9,
      scale: 1,
      placement: { x: 0, y: 0 },
    });
    mostOf('placedPictures', (count) => said({ pictures: listOf(count, picture) }));
    const job = jobWith([], { pictures: listOf(LIMITS.placedPictures, picture) });
    const kept = { name: '', original: null, pixels: 'a'.repeat(64), columns: 9, rows: 9 };
    expect(layPicture(job, kept, 1, { x: 0, y: 0 })).toEqual({ job, pictureId: null });
  },
  tonePicks: () => {
    const pick = { x: 1, y: 1, belongs: true };
    mostOf('tonePicks', (count) => ofTrace({ tones: { by: 'picked', picks: listOf(count, () => pick) } }));
    const member = {
      id: 'm',
      kind: 'trace',
      pixels: 'a'.repeat(64),
      columns: 9,
      rows: 9,
      scale: 1,
      placement: { x: 0, y: 0 },
    };
    const job = jobWith([partOf([member])]);
    const picked = listOf(LIMITS.tonePicks + 1, (i) => ({ x: i, y: 0 })).reduce(
      (now, at) => pickTone(now, job.parts[0]?.id ?? '', 'm', at, true),
      job,
    );
    expect(picked.parts[0]?.members[0]).toMatchObject({ tones: { picks: { length: LIMITS.tonePicks, 0: { x: 1 } } } });
  },
  tracedOutlines: () => {
    const coverage = { ...twoSquares, data: twoSquares.data.map((value) => 255 - value) };
    const traced = () => finished(traceCoverage(coverage, { least: 0, tolerance: null, dropRim: true }));
    expect(traced()).toMatchObject({ paths: { length: 2 }, beyond: 0 });
    limits.tracedOutlines = 1;
    expect(traced()).toMatchObject({ paths: { length: 1 }, beyond: 1 });
  },
  numbersRemembered: () => {
    const stage: Stage<string, number> = { name: 'heavy', key: (k) => k, run: () => 0, weigh: () => 900 };
    limits.numbersRemembered = 2_000;
    const memo = new Memo();
    for (const key of 'abc') memo.get(stage, key);
    expect(memo.size.results).toBe(2);
    limits.numbersRemembered = 3_000;
    const larger = new Memo();
    for (const key of 'abc') larger.get(stage, key);
    expect(larger.size.results).toBe(3);
  },
  documentBytes: () => {
    const text = JSON.stringify({ format: 1, title: 'ä', sheet: { width: 300, height: 200 } });
    const room = LIMITS.documentBytes - bytesOf(text).length;
    expect(readJob(text + ' '.repeat(room)).ok).toBe(true);
    expect(readJob(text + ' '.repeat(room + 1))).toEqual({
      ok: false,
      sentences: ['This job document has 8.0 MB; up to 8 MB can be read.'],
    });
  },
  fileNameBytes: () => {
    const long = (most: number) => {
      limits.fileNameBytes = most;
      const job = jobWith([]);
      return fileName(
        { ...job, title: 'linden', export: { ...job.export, nameFields: ['job', 'number'], number: '204' } },
        'svg',
      );
    };
    expect(long(10)).toBe('linden_204.svg');
    expect(long(9)).toBe('linde_204.svg');
    expect(long(6)).toBe('li_20.svg');
  },
  fileNamePartBytes: () => {
    const named = (title: string) => fileName({ ...jobWith([]), title }, 'svg');
    limits.fileNamePartBytes = 4;
    expect([named('abcd'), named('abcde'), named('äbж')]).toEqual(['abcd.svg', 'abcd.svg', 'abж.svg']);
    limits.fileNamePartBytes = 3;
    expect(named('abж')).toBe('ab.svg');
  },
  leastLengthMm: () => {
    const least = LIMITS.leastLengthMm;
    for (const ask of [
      (width: number) => ofStep({ kind: 'tie', width }),
      (mm: number) => ofWords({ size: { by: 'capital', mm } }),
      (unit: number) => ofStep({ kind: 'nodes', d: '', unit, over: { segments: 0, area: 0, length: 0 } }),
    ]) {
      expect(ask(least)).toBeNull();
      for (const less of [least / 2, 1e-300, 0, -1]) expect(ask(less)).toContain(`at least ${least}`);
    }
  },
  memberMostMm: () => {
    const copied = (scale: number) => [
      partOf([bar(50, 20)], { id: 'a' }),
      partOf([{ id: 'c', kind: 'copy', of: 'a', scale, placement: { x: 100, y: 100 } }], { id: 'b' }),
    ];
    limits.memberMostMm = 100;
    expect(codesOf(copied(5))).not.toContain('too-large');
    expect(findingsOf(copied(5.01))[0]).toEqual([
      'too-large',
      'Something in A part without a name would be 0.1 m large; up to 0.1 m is drawn. Its place is kept.',
    ]);
    expect(codesOf([partOf([bar(50, 101)])])).toContain('too-large');
    expect(codesOf([partOf([lettering('wide', 'Archivo Black', { size: { by: 'width', mm: 101 } })])])).toContain(
      'too-large',
    );
  },
  memberLeastMm: () => {
    const drawn = (scale: number) => [
      partOf([{ id: 'p', kind: 'path', d: 'M0 0L4 0L4 3Z', scale, placement: { x: 50, y: 50 } }]),
    ];
    limits.memberLeastMm = 1;
    expect(codesOf(drawn(0.25))).not.toContain('too-small');
    expect(findingsOf(drawn(0.2499))[0]?.[1]).toContain('would be smaller than 1 mm');
  },
  pathShares: () => {
    const most = LIMITS.pathShares;
    const over = { segments: 0, area: 0, length: 0 };
    for (const ask of [
      (d: string) => ofStep({ kind: 'nodes', d, unit: 1, over }),
      (d: string) => ofStep({ kind: 'centerline', corrections: [{ letter: 'words:0', d }] }),
    ]) {
      expect(ask(`M0 0L${most} -${most}`)).toBeNull();
      expect(ask(`M0 0L1e30 1`)).toContain('1e30 is too far out; coordinates are at most 10,000');
      expect(ask(`M0 0L0 -${most + 1}`)).toContain('too far out');
    }
  },
  arcRadiusMm: () => {
    const path = (d: string) => ofMember({ kind: 'path', d });
    expect(path(`M0 0A${LIMITS.arcRadiusMm} ${LIMITS.arcRadiusMm} 0 0 1 5 5`)).toBeNull();
    expect(path('M0 0A1e300 1e300 0 0 1 5 5')).toContain('a radius is at most 10,000,000');
    expect(path('M0 0A5 5 0 0 1 5 100001')).toContain('coordinates are at most 100,000');
    // What is flatter than that is written as a curve, which is taken.
    const flat = pathData([{ closed: false, segments: [arcBetween({ x: 0, y: 0 }, { x: 90, y: 0 }, 1e-6)] }], null);
    expect(flat).toMatch(/^M0 0C/);
  },
  tieShares: () => {
    const answer = (x: number, y = 0) => ofStep({ kind: 'tie', answers: [{ piece: 'a', x, y }] });
    mostOf('tieShares', (x) => answer(x));
    mostOf('tieShares', (y) => answer(0, -y)?.replace('-', '') ?? null);
  },
  twiceNamed: () => {
    const parts = listOf(3, (i) => partOf([bar(50)], { id: `p${i}` }));
    limits.twiceNamed = 3;
    expect(kindsAt(codesOf(parts), 'drawn-twice')).toBe(3);
    limits.twiceNamed = 2;
    const sentences = findingsOf(parts).filter(([code]) => code === 'drawn-twice');
    expect(sentences.at(-1)?.[1]).toBe('There are more places where lines are gone along twice.');
    expect(sentences).toHaveLength(3);
  },
  twicePairs: () => {
    const parts = listOf(3, (i) => partOf([bar(50)], { id: `p${i}` }));
    const told = () => findingsOf(parts).filter(([code]) => code === 'drawn-twice');
    limits.twicePairs = 3;
    expect(told()).toHaveLength(3);
    limits.twicePairs = 2;
    expect(told().map(([, sentence]) => sentence?.slice(0, 9))).toEqual(['A part wi', 'A part wi', 'There are']);
  },
  letteringCharacters: () => {
    limits.letteringCharacters = 5;
    expect(codesOf([partOf([lettering('ooooo')])])).not.toContain('too-many-characters');
    expect(findingsOf([partOf([lettering('oooooo')])])[0]?.[1]).toContain('has 6 characters; up to 5 are');
  },
  letteringStoredCharacters: () => {
    mostOf('letteringStoredCharacters', (n) => ofWords({ text: 'o'.repeat(n) }));
    mostOf('letteringStoredCharacters', (at) => ofWords({ letters: [{ at }] }));
  },
  lettersRead() {
    const text = 'oo'.repeat(LIMITS.lettersRead / 2 + 5);
    const job = jobWith([partOf([lettering(text, 'Poppins')], { steps: [{ kind: 'thicken', by: 0.3 }] })]);
    const [part] = new Evaluator(wasmEngine).evaluate(job, faces).parts;
    expect(part?.readability).toHaveLength(LIMITS.lettersRead);
  },
  pairAnswers: () =>
    mostOf('pairAnswers', (n) =>
      ofWords({
        closeUp: { overlap: 1, joints: 'best', pairs: listOf(n, (at) => ({ left: 'a', right: 'b', at, how: 'foot' })) },
      }),
    ),
  pairCharacters: () =>
    mostOf('pairCharacters', (n) =>
      ofWords({ closeUp: { overlap: 1, pairs: [{ left: 'a'.repeat(n), right: 'b', at: null, how: 'foot' }] } }),
    ),
  letterChanges: () => mostOf('letterChanges', (n) => ofWords({ letters: listOf(n, (at) => ({ at })) })),
  ownLines: () => {
    mostOf('ownLines', (n) => ofWords({ lines: listOf(n, (line) => ({ line })) }));
    most(LIMITS.ownLines - 1, LIMITS.ownLines, (line) => ofWords({ lines: [{ line }] }));
  },
  collisionPairs: () => {
    expect(collisionsOf(4)).toEqual(Array(3).fill('cut-over'));
    limits.collisionPairs = 2;
    expect(collisionsOf(4)).toEqual(['cut-over', 'cut-over', 'more-collisions']);
  },
  collisionsNamed: () => {
    limits.collisionsNamed = 2;
    expect(collisionsOf(4)).toEqual(['cut-over', 'cut-over', 'more-collisions']);
  },
  ...PROOF_LIMITS,
  ...RUN_LIMITS,
  ...ROSTER_LIMITS,
  ...ROW_WORKER_LIMITS,
  ...SHOP_LIMITS,
  ...STARTER_LIMITS,
  ...TAKEN_LIMITS,
  crests() {
    const along = { line: { kind: 'wave', length: 0.01, height: 1 }, side: 'on', distance: 0, start: 0 } as const;
    const more = { letters: 'following', reversed: false, bottom: false } as const;
    const guide = textPathOf({ along: { ...along, ...more }, align: 'centre', lengthMm: 1000, drawn: null });
    expect(guide?.path.segments.length).toBe(2 * LIMITS.crests * 16);
  },
  quantityCharacters: () => {
    expect(parseLength('1'.padStart(LIMITS.quantityCharacters, '0'), 'mm')).toMatchObject({ ok: true });
    expect(parseLength('1'.padStart(LIMITS.quantityCharacters + 1, '0'), 'mm')).toMatchObject({ ok: false });
  },
  parts: () => mostOf('parts', (n) => said({ parts: listOf(n, (i) => ({ id: `p${i}`, members: [] })) })),
  shapeCorners: () => {
    mostOf('shapeCorners', (sides) => ofMember({ kind: 'polygon', width: 9, sides }));
    mostOf('shapeCorners', (points) => ofMember({ kind: 'star', width: 9, points }));
  },
  copiedSegments: () => {
    const parts = [
      partOf([bar(50)], { id: 'a' }),
      partOf([{ id: 'c', kind: 'copy', of: 'a', placement: { x: 100, y: 100 } }], { id: 'b' }),
    ];
    limits.copiedSegments = 4;
    expect(codesOf(parts)).not.toContain('too-many-segments');
    limits.copiedSegments = 3;
    expect(findingsOf(parts)[0]?.[1]).toContain('have 4 segments; up to 3 are copied');
  },
  steps: () => mostOf('steps', (n) => ofPart({ steps: listOf(n, () => ({ kind: 'thicken' })) })),
  members: () => mostOf('members', (n) => ofPart({ members: listOf(n, (i) => ({ ...bar(i), id: `m${i}` })) })),
  piecesNamed: () => {
    const parts = [partOf(listOf(5, (i) => bar(20 + 10 * i)))];
    limits.piecesNamed = 4;
    expect(codesOf(parts)).toEqual(Array(4).fill('loose'));
    limits.piecesNamed = 3;
    expect(codesOf(parts)).toEqual([...Array(3).fill('loose'), 'more-pieces']);
    expect(findingsOf(parts).at(-1)?.[1]).toBe('1 more piece of A part without a name would come away.');
    const [part] = evaluate([partOf([lettering('BO')], { keep: 'outside' })]).parts;
    if (!part) throw new Error('no part');
    limits.piecesNamed = 2;
    const view = bridgesView(part, () => '');
    expect([view.islands.length, view.keys.length]).toEqual([2, 3]);
  },
  thinNamed: () => {
    const sheet = { sheet: { width: 300, height: 200, leastWidth: 3, kerf: 30 } };
    const parts = [partOf([bar(50), bar(70), bar(90)])];
    limits.thinNamed = 3;
    expect(kindsAt(codesOf(parts, sheet), 'thin')).toBe(3);
    expect(kindsAt(codesOf(parts, sheet), 'more-thin')).toBe(0);
    limits.thinNamed = 2;
    expect(kindsAt(codesOf(parts, sheet), 'thin')).toBe(2);
    expect(findingsOf(parts, sheet).find(([code]) => code === 'more-thin')?.[1]).toMatch(/^1 more places/);
  },
  piecesStudded: () => {
    const parts = [
      partOf([bar(50), bar(70), bar(90)], { steps: [{ kind: 'weld' }, { kind: 'studs', width: 1, edge: 0.5 }] }),
    ];
    limits.piecesStudded = 3;
    expect(codesOf(parts)).not.toContain('too-many-to-stud');
    limits.piecesStudded = 2;
    expect(codesOf(parts)).toContain('too-many-to-stud');
  },
  studsEach: () => mostOf('studsEach', (each) => ofStep({ kind: 'studs', each })),
  piecesTied: () => {
    const parts = [partOf([bar(50), bar(70), bar(90)], { steps: [{ kind: 'weld' }, { kind: 'tie', width: 1 }] })];
    limits.piecesTied = 3;
    expect(codesOf(parts)).not.toContain('too-many-to-tie');
    expect(tiesOf(evaluate(parts).parts[0])).toHaveLength(2);
    limits.piecesTied = 2;
    expect(findingsOf(parts).find(([code]) => code === 'too-many-to-tie')?.[1]).toContain('in 3 pieces; up to 2 are');
    Object.assign(limits, before);
    mostOf('piecesTied', (n) => ofStep({ kind: 'tie', answers: listOf(n, (i) => ({ piece: `p${i}` })) }));
  },
  islands: () => {
    const parts = [
      partOf([lettering('BO')], { keep: 'outside', steps: [{ kind: 'weld' }, { kind: 'bridge', width: 2 }] }),
    ];
    limits.islands = 3;
    expect(codesOf(parts)).not.toContain('too-many-to-bridge');
    limits.islands = 2;
    expect(findingsOf(parts).find(([code]) => code === 'too-many-to-bridge')?.[1]).toContain('3 islands; up to 2');
    Object.assign(limits, before);
    const setting = (i: number) => ({ letter: `words:${i}`, island: 0 });
    mostOf('islands', (n) => ofStep({ kind: 'bridge', islands: listOf(n, setting) }));
    mostOf('islands', (island) => ofStep({ kind: 'bridge', islands: [{ letter: 'words:0', island }] }));
    mostOf('islands', (island) => ofStep({ kind: 'bridge', pinned: [{ letter: 'words:0', island, x: 0, y: 0 }] }));
  },
  bridgesOfIsland: () => {
    mostOf('bridgesOfIsland', (count) => ofStep({ kind: 'bridge', count }));
    mostOf('bridgesOfIsland', (count) => ofStep({ kind: 'bridge', islands: [{ letter: 'a:0', island: 0, count }] }));
  },
  bridgesPlaced: () => {
    const placed = (i: number) => ({ letter: `words:${i}`, island: null, x: 0, y: 0 });
    mostOf('bridgesPlaced', (n) => ofStep({ kind: 'bridge', pinned: listOf(n, placed) }));
    limits.bridgesPlaced = 1;
    const step = newStep('bridge', { capHeightMm: 30, leastWidthMm: null, kerfMm: null });
    const bridge = {
      letter: 'words:0',
      island: 0,
      pinnedIndex: null,
      own: { x: 0, y: 0, turn: 0 },
      width: 3,
      isNarrowed: false,
    };
    pinIsland(step, { letter: 'words:0', island: 0 }, [bridge, bridge]);
    expect(step.pinned).toHaveLength(1);
    expect(pinnedBridge(step, { ...bridge, letter: 'words:1' }, [{ ...bridge, letter: 'words:1' }])).toBeNull();
    expect(step.pinned).toHaveLength(1);
  },
  bridgeCapitals: () => {
    for (const axis of ['x', 'y'] as const)
      for (const sign of [1, -1]) {
        const at = (value: number) =>
          ofStep({ kind: 'bridge', pinned: [{ letter: 'a:0', x: 0, y: 0, [axis]: sign * value }] });
        most(LIMITS.bridgeCapitals, LIMITS.bridgeCapitals + 0.001, at);
      }
  },
  offsetMostMm: () => {
    const { offsetMostMm: mm } = LIMITS;
    most(mm, mm + 0.01, (by) => ofStep({ kind: 'thicken', by }));
    most(mm, mm + 0.01, (by) => ofStep({ kind: 'thicken', by: -by }));
    most(mm, mm + 0.01, (holesOpen) => ofStep({ kind: 'thicken', holesOpen }));
    for (const field of ['distance', 'bridge', 'smooth', 'holesFrom'])
      most(mm, mm + 0.01, (value) => ofStep({ kind: 'border', [field]: value }));
    // Nothing is thickened by more, however thin it is.
    limits.offsetMostMm = 0.1;
    const job = jobWith([partOf([bar(50, 1)])], { sheet: { width: 300, height: 200, leastWidth: 3 } });
    expect(
      finished(thickenedEnough(job, 'part', { evaluator: new Evaluator(wasmEngine), faces, capHeightMm: 30 })),
    ).toMatchObject({ ok: false });
  },
  operations: () => {
    const operation = (i: number) => ({ id: `o${i}`, name: `O${i}`, kind: 'mark' });
    mostOf('operations', (n) => said({ operations: listOf(n, operation) }));
    const work = { what: 'outline', operation: 'cut' };
    mostOf('operations', (n) => ofPart({ work: listOf(n, () => work) }));
  },
  pens: () => mostOf('pens', (n) => said({ operations: [{ id: 'o', name: 'O', kind: 'cut', pens: [n] }] })),
  pensOfOperation: () =>
    mostOf('pensOfOperation', (n) =>
      said({ operations: [{ id: 'o', name: 'O', kind: 'cut', pens: listOf(n, (i) => i + 1) }] }),
    ),
  tags: () => mostOf('tags', (n) => said({ tags: listOf(n, (i) => `tag ${i}`) })),
  tagCharacters: () => mostOf('tagCharacters', (n) => said({ tags: ['x'.repeat(n)] })),
  nameCharacters: () => {
    mostOf('nameCharacters', (n) => said({ title: 'x'.repeat(n) }));
    mostOf('nameCharacters', (n) => ofPart({ name: 'x'.repeat(n) }));
    limits.nameCharacters = 3;
    expect(svg('<g id="abcdef"><path d="M0 0h1v1z"/></g>').groups[0]?.name).toBe('abc');
  },
  lengthMm: () => {
    const { lengthMm: mm } = LIMITS;
    most(mm, mm + 1, (width) => ofMember({ kind: 'ellipse', width, height: 1 }));
    most(mm, mm + 1, (x) => ofMember({ kind: 'ellipse', width: 1, height: 1, placement: { x, y: 0 } }));
    most(mm, mm + 1, (x) => ofMember({ kind: 'ellipse', width: 1, height: 1, placement: { x: -x, y: 0 } }));
    most(mm, mm + 1, (corner) => ofMember({ kind: 'rectangle', width: 1, height: 1, corner }));
    most(mm, mm + 1, (corner) => ofStep({ kind: 'plate', corner }));
    most(mm, mm + 1, (across) => ofStep({ kind: 'plate', across }));
  },
  sheetLeastMm: () => {
    const least = LIMITS.sheetLeastMm;
    for (const side of ['width', 'height'])
      most(least, least - 0.01, (mm) => said({ sheet: { width: 10, height: 10, [side]: mm } }));
  },
  sheetMostMm: () => {
    const mm = LIMITS.sheetMostMm;
    for (const side of ['width', 'height'])
      most(mm, mm + 1, (value) => said({ sheet: { width: 10, height: 10, [side]: value } }));
  },
  ...TYPEFACE_LIMITS,
  arcToleranceLeastMm: () => {
    const least = LIMITS.arcToleranceLeastMm;
    for (const field of ['arcTolerance', 'markTolerance'])
      most(least, least / 2, (value) => said({ export: { [field]: value } }));
  },
  arcToleranceMostMm: () => {
    for (const field of ['arcTolerance', 'markTolerance'])
      most(LIMITS.arcToleranceMostMm, LIMITS.arcToleranceMostMm + 0.001, (value) =>
        said({ export: { [field]: value } }),
      );
  },
  drawingBytes: () => {
    const bytes = svgBytes('<path d="M0 0h1v1z"/>');
    limits.drawingBytes = bytes.length;
    expect(readDrawing(bytes).ok).toBe(true);
    expect(readDrawing(gzipSync(bytes)).ok).toBe(true);
    limits.drawingBytes = bytes.length - 1;
    expect(readDrawing(bytes)).toMatchObject({ ok: false, sentence: expect.stringMatching(/MB can be brought in/) });
    expect(readDrawing(gzipSync(bytes))).toMatchObject({ ok: false, sentence: expect.stringMatching(/^Unpacked/) });
  },
  assetBytes: async () => {
    const chunk = new Uint8Array(1 << 20);
    let left = LIMITS.assetBytes / chunk.length + 1;
    const body = new ReadableStream({
      pull: (to) => {
        if (left-- > 0) to.enqueue(chunk);
        else to.close();
      },
    });
    const request = new Request('http://127.0.0.1/', { method: 'POST', body, duplex: 'half' } as RequestInit);
    const response = await POST(request);
    expect(response.status).toBe(413);
    expect(((await response.json()) as { sentence: string }).sentence).toContain('larger than the 128 MB');
  },
  assetsBytes: async () => {
    const { db, close } = await ownDatabase('limits');
    try {
      limits.assetsBytes = 6;
      expect(await keepAsset(db, Buffer.from('oak'), '')).toMatch(/^[0-9a-f]{64}$/);
      expect(await keepAsset(db, Buffer.from('elm'), '')).toMatch(/^[0-9a-f]{64}$/);
      expect(await keepAsset(db, Buffer.from('x'), '')).toBeNull();
      // What is kept already needs no more room.
      expect(await keepAsset(db, Buffer.from('oak'), '')).toMatch(/^[0-9a-f]{64}$/);
    } finally {
      await close();
    }
  },
  unusedAssetDays: async () => {
    const { db, close } = await ownDatabase('limits');
    try {
      await keepAsset(db, Buffer.from('oak'), '');
      await db.update(assets).set({ unusedSince: sql`now() - interval '50 hours'` });
      limits.unusedAssetDays = 3;
      expect(await clearUnusedAssets(db)).toBe(0);
      limits.unusedAssetDays = 2;
      expect(await clearUnusedAssets(db)).toBe(1);
    } finally {
      await close();
    }
  },
  answerSeconds: async () => {
    limits.answerSeconds = 7;
    const limited: number[] = [];
    vi.spyOn(AbortSignal, 'timeout').mockImplementation((ms) => {
      limited.push(ms);
      return AbortSignal.abort(new DOMException('too long', 'TimeoutError'));
    });
    vi.stubGlobal('fetch', async (_address: string, { signal }: RequestInit) => signal?.throwIfAborted());
    await expect(call(API.openShop, {}, null)).rejects.toThrow('The server is away.');
    expect(limited).toEqual([7_000]);
  },
  pages: async () => {
    limits.pages = 2;
    const [three, two] = [3, 2].map((n) => pdfOf(listOf(n, () => ({ content: '0 0 m 9 9 l S' }))));
    const notesOf = async (bytes: Uint8Array) => {
      const opened = await openDrawing(bytes);
      expect(opened).toMatchObject({ ok: true, pages: 2 });
      const read = opened.ok ? await opened.read(0, () => {}) : opened;
      return read.ok && read.found.notes;
    };
    expect(await notesOf(three as Uint8Array)).toEqual(['This file has 3 pages; the first 2 can be chosen.']);
    expect(await notesOf(two as Uint8Array)).toEqual([]);
  },
  pageOperators: async () => {
    const notes = async () => {
      const opened = await openDrawing(pdfOf([{ content: '0 0 m 9 9 l S '.repeat(10) }]));
      const read = opened.ok ? await opened.read(0, () => {}) : opened;
      return read.ok && read.found.notes.length;
    };
    expect(await notes()).toBe(0);
    limits.pageOperators = 9;
    expect(await notes()).toBe(1);
  },
  pagePictureSegments: async () => {
    const lines = async () => {
      const pictures: PagePicture[] = [];
      const bytes = pdfOf([{ content: '0 0 m 9 9 l S 0 0 m 9 0 l S' }]);
      await picturePages(bytes, { from: 0, to: 1 }, (picture) => pictures.push(picture));
      return pictures[0]?.lines.match(/M/g)?.length;
    };
    limits.pagePictureSegments = 2;
    expect(await lines()).toBe(2);
    limits.pagePictureSegments = 1;
    expect(await lines()).toBe(1);
  },
  previewSegments: async () => {
    const undrawn = async () => {
      const bytes = pdfOf([{ content: '0 0 m 9 9 l S 0 0 m 9 0 l S' }]);
      const seen = await previewFile(bytes, { page: 0, progress: () => {} }, async () => wasmEngine);
      return seen.ok && seen.undrawn;
    };
    limits.previewSegments = 2;
    expect(await undrawn()).toBe(0);
    limits.previewSegments = 1;
    expect(await undrawn()).toBe(1);
  },
  readSeconds: async () => {
    limits.readSeconds = 7;
    vi.useFakeTimers();
    const [worker] = [workersAnswer({ preview: () => new Promise(() => {}) })];
    const { done } = readingFile(new Uint8Array(1), 0, () => {});
    await vi.advanceTimersByTimeAsync(6_999);
    expect(worker[0]?.ended).toBe(false);
    await vi.advanceTimersByTimeAsync(1);
    expect(worker[0]?.ended).toBe(true);
    expect(await done).toMatchObject({ ok: false, sentence: expect.stringContaining('longer than 7 seconds') });
  },
  drawnElements: () => {
    const body = '<path d="M0 0h1v1z"/>'.repeat(3);
    limits.drawnElements = 4;
    expect(svg(body)).toMatchObject({ notes: [], shapes: { length: 3 } });
    limits.drawnElements = 3;
    expect(svg(body)).toMatchObject({
      notes: [expect.stringContaining('more than 3 elements')],
      shapes: { length: 2 },
    });
    expect(dxf(dxfLine.repeat(3)).notes).toEqual([]);
    expect(dxf(dxfLine.repeat(4)).notes).toEqual([expect.stringContaining('more than 3 entities')]);
    // What a drawing repeats counts as well.
    const twice = '<g id="a"><path d="M0 0h1v1z"/></g><use href="#a"/>';
    limits.drawnElements = 7;
    expect(svg(twice).notes).toEqual([]);
    limits.drawnElements = 4;
    expect(svg(twice).notes[0]).toContain('repeats itself more than 4 times');
  },
  drawnDepth: () => {
    const nested = '<g><g><path d="M0 0h1v1z"/></g></g>';
    limits.drawnDepth = 4;
    expect(svg(nested)).toMatchObject({ unread: [], shapes: { length: 1 } });
    limits.drawnDepth = 3;
    expect(svg(`${nested}<path d="M0 0h1v1z"/>`)).toMatchObject({
      unread: [{ kind: 'elements more than 3 levels deep', count: 1 }],
      shapes: { length: 1 },
    });
    const block = (name: string, inside: string) => `0\nBLOCK\n2\n${name}\n10\n0\n20\n0\n${inside}0\nENDBLK\n`;
    const insert = (name: string) => `0\nINSERT\n8\n0\n2\n${name}\n10\n0\n20\n0\n`;
    const blocks = block('A', dxfLine) + block('B', insert('A')) + block('C', insert('B'));
    expect(dxf(insert('C'), blocks)).toMatchObject({ unread: [], shapes: { length: 1 } });
    limits.drawnDepth = 2;
    expect(dxf(insert('C'), blocks).unread).toEqual([{ kind: 'blocks more than 2 levels deep', count: 1 }]);
  },
  markupDepth: () => {
    const nested = '<path d="M0 0h1v1z"/><g><g><g/></g></g>';
    limits.markupDepth = 4;
    expect(svg(nested).notes).toEqual([]);
    limits.markupDepth = 3;
    expect(svg(nested)).toMatchObject({
      notes: [expect.stringContaining('more than 3 levels deep')],
      shapes: { length: 1 },
    });
  },
  usedShapes: () => {
    limits.usedShapes = 2;
    const uses = (n: number) => `<path id="a" d="M0 0h1v1z"/>${'<use href="#a"/>'.repeat(n)}`;
    expect(svg(uses(2))).toMatchObject({ notes: [], shapes: { length: 3 } });
    expect(svg(uses(3))).toMatchObject({
      notes: [expect.stringContaining('more than 2 times')],
      shapes: { length: 3 },
    });
    const block = `0\nBLOCK\n2\nA\n10\n0\n20\n0\n${dxfLine}0\nENDBLK\n`;
    const insert = (n: number) => '0\nINSERT\n8\n0\n2\nA\n10\n0\n20\n0\n'.repeat(n);
    expect(dxf(insert(2), block)).toMatchObject({ notes: [], shapes: { length: 2 } });
    expect(dxf(insert(3), block).notes).toEqual([expect.stringContaining('more than 2 times')]);
  },
  drawnSegments: () => {
    limits.drawnSegments = 4;
    expect(svg('<path d="M0 0h1v1h-1z"/>').notes).toEqual([]);
    expect(svg('<path d="M0 0h1"/><path d="M0 0h1v1h-1z"/>')).toMatchObject({
      notes: [expect.stringContaining('more than 4 lines and curves')],
      shapes: { length: 1 },
    });
  },
  drawnTexts: () => {
    limits.drawnTexts = 2;
    const words = (n: number) => listOf(n, (i) => `<text y="${i}">w${i}</text>`).join('');
    expect(svg(words(2))).toMatchObject({ unread: [], texts: { length: 2 } });
    expect(svg(words(4))).toMatchObject({
      unread: [{ kind: 'lines of words beyond the first 2', count: 2 }],
      texts: { length: 2 },
    });
  },
  drawnWords: () => {
    limits.drawnWords = 6;
    expect(svg('<text>abc</text><text>def</text>').texts.map((t) => t.text)).toEqual(['abc', 'def']);
    expect(svg('<text>abc</text><text>defg</text>').texts.map((t) => t.text)).toEqual(['abc']);
  },
  drawnGroups: () => {
    limits.drawnGroups = 2;
    const lines = (n: number) => listOf(n, (i) => `<path fill="none" stroke="#00000${i}" d="M0 0h1"/>`).join('');
    expect(svg(lines(2))).toMatchObject({ notes: [], groups: { length: 2 } });
    const more = svg(lines(3));
    expect(more).toMatchObject({ notes: [expect.stringContaining('more than 2 layers')], groups: { length: 2 } });
    expect(more.shapes.map((s) => s.group)).toEqual([0, 1, 1]);
    Object.assign(limits, before);
    const groups = (n: number) =>
      ofMember({ kind: 'artwork', drawing: 'a'.repeat(64), groups: listOf(n, (i) => i % 9) });
    mostOf('drawnGroups', groups);
    mostOf('drawnGroups', (group) => ofMember({ kind: 'artwork', drawing: 'a'.repeat(64), groups: [group] }));
  },
  drawnNotes: () => {
    limits.drawnGroups = 1;
    limits.drawnSegments = 2;
    const body = '<path fill="none" stroke="#f00" d="M0 0h1"/><path fill="none" stroke="#0f0" d="M0 0h1v1"/>';
    limits.drawnNotes = 2;
    expect(svg(body).notes).toHaveLength(2);
    limits.drawnNotes = 1;
    expect(svg(body).notes).toHaveLength(1);
  },
  drawnLengthMm: () => {
    limits.drawnLengthMm = 80;
    const reach = (x: number) => svg(`<path d="M0 90h5v-5zM0 90h${x}v-5z"/>`);
    expect(reach(79.99)).toMatchObject({ unread: [], shapes: [{ paths: { length: 2 } }] });
    expect(reach(80.01)).toMatchObject({ unread: [{ count: 1 }], shapes: [{ paths: { length: 1 } }] });
  },
  markupFaults: () => {
    const body = '<path d="M0 0h1v1z"/>&a;&b;&c;<path d="M0 0h1v1z"/>';
    const count = found(svgBytes(body)).shapes.length;
    expect(count).toBe(2);
    limits.markupFaults = 2;
    expect(svg(body).shapes).toHaveLength(1);
    expect(svg(body).notes[0]).toMatch(/damaged .* in 2 more places/);
    limits.markupFaults = 3;
    expect(svg(body).shapes).toHaveLength(2);
  },
  entities: () => {
    const doctype = '<!DOCTYPE svg [<!ENTITY a "one"><!ENTITY b "two">]>';
    limits.entities = 2;
    expect(svg('<text>&a; &b;</text>', doctype).texts[0]?.text).toBe('one two');
    limits.entities = 1;
    expect(svg('<text>&a; &b;</text>', doctype).texts[0]?.text).not.toContain('two');
  },
  entityCharacters: () => {
    const doctype = '<!DOCTYPE svg [<!ENTITY a "one"><!ENTITY b "two">]>';
    limits.entityCharacters = 6;
    expect(svg('<text>&a; &b;</text>', doctype).texts[0]?.text).toBe('one two');
    limits.entityCharacters = 5;
    expect(svg('<text>&a; &b;</text>', doctype).texts[0]?.text).not.toContain('two');
  },
  selectorCharacters: () => {
    const colourOf = (selector: string) =>
      svg(`<style>${selector}{fill:red}</style><path class="a" d="M0 0h1v1z"/>`).groups[0]?.colour;
    limits.selectorCharacters = 6;
    expect(colourOf('.a.a.a')).toBe('#ff0000');
    expect(colourOf('.a.a.a.a')).toBe('#000000');
    const faceOf = (font: string) => svg(`<text style="font:${font}">oak</text>`).texts[0]?.face;
    expect(faceOf('9px Ab')).toBe('Ab');
    expect(faceOf('9px Abc')).toBe('');
  },
  styleRules: () => {
    const body = '<style>.a{fill:red}.b,.c{fill:blue}</style><path class="c" d="M0 0h1v1z"/>';
    limits.styleRules = 3;
    expect(svg(body).groups[0]?.colour).toBe('#0000ff');
    limits.styleRules = 2;
    expect(svg(body).groups[0]?.colour).toBe('#000000');
  },
  styleTests: () => {
    const body = '<style>.a{fill:red}</style><path class="a" d="M0 0h1v1z"/>';
    limits.styleTests = 3;
    expect(svg(body).groups[0]?.colour).toBe('#ff0000');
    limits.styleTests = 2;
    const refused = svg(body);
    expect(refused.groups[0]?.colour).toBe('#000000');
    expect(refused.unread).toHaveLength(1);
  },
  dashes: () => {
    limits.dashes = 2;
    const dashed = svg('<path fill="none" stroke="red" stroke-dasharray="1 2 3 4" d="M0 0h9"/>');
    expect(dashed.shapes[0]?.stroke?.dashesMm).toEqual([expect.closeTo(1, 9), expect.closeTo(2, 9)]);
  },
  pathCharacters: () => {
    mostOf('pathCharacters', (n) => ofMember({ kind: 'path', d: 'M'.padEnd(n) }));
    mostOf('pathCharacters', (n) =>
      ofStep({ kind: 'nodes', d: 'M'.padEnd(n), unit: 1, over: { segments: 1, area: 1, length: 1 } }),
    );
  },
  gapMostMm: () => {
    const { gapMostMm: mm } = LIMITS;
    for (const field of ['gap', 'look', 'specks', 'refit'])
      most(mm, mm + 0.01, (value) => ofMember({ kind: 'artwork', drawing: 'a'.repeat(64), close: { [field]: value } }));
  },
  gapAnswers: () => {
    const answers = (n: number) => ({ answers: listOf(n, (i) => ({ gap: `g${i}`, how: 'close' })) });
    mostOf('gapAnswers', (n) => ofMember({ kind: 'artwork', drawing: 'a'.repeat(64), close: answers(n) }));
  },
  lettersTraced: () => {
    const part = (more: Draft[] = []) =>
      partOf([lettering('lo', 'Poppins'), ...more], {
        steps: [{ kind: 'weld' }, { kind: 'centerline' }],
        work: [{ what: 'centerline', operation: 'mark' }],
      });
    const traced = (parts: Draft[]) => evaluate(parts).parts[0]?.linework.centerline;
    limits.lettersTraced = 2;
    expect(traced([part()])).toMatchObject({ untraced: 0, letters: { length: 2 } });
    limits.lettersTraced = 1;
    expect(traced([part()])).toMatchObject({ untraced: 1, letters: { length: 1 } });
    expect(findingsOf([part()]).find(([code]) => code === 'too-many-traced')?.[1]).toContain('at most 1 are traced');
    // Of a shape its pieces.
    limits.lettersTraced = 2;
    expect(traced([part([bar(20, 9)])])).toMatchObject({ untraced: 1 });
    limits.lettersTraced = 3;
    expect(traced([part([bar(20, 9)])])).toMatchObject({ untraced: 0 });
  },
  lineCorrections: () => {
    const corrections = (n: number) => listOf(n, (i) => ({ letter: `words:${i}`, d: 'M0 0L1 1' }));
    mostOf('lineCorrections', (n) => ofStep({ kind: 'centerline', corrections: corrections(n) }));
  },
  unevenNamed: () => {
    const uneven = listOf(3, (i) => ({ what: 'kink', x: i, y: 0, r: 1, turnDeg: 20 }));
    const letters = [{ key: 'words:0', text: 'o', alike: null, uneven }];
    const lines = { letters, untraced: 0, paths: [], dots: [] } as unknown as PartLines;
    const told = () => foundOf(centerlineStep.rules, lines);
    limits.unevenNamed = 3;
    expect(told().map((f) => f.code)).toEqual(Array(3).fill('uneven-line'));
    limits.unevenNamed = 2;
    expect(told().map((f) => f.code)).toEqual(['uneven-line', 'uneven-line', 'more-uneven']);
    expect(told().at(-1)?.sentence).toMatch(/^1 more place of/);
  },
  clashesNamed: () => {
    const clashes = listOf(3, (x) => ({ x, y: 0 }));
    const drawn = { clashes, diameter: 1, tooMany: false, idle: 0, dots: [], leftOut: 0 } as unknown as PartDots;
    const told = () => foundOf(dotsStep.rules, drawn);
    limits.clashesNamed = 3;
    expect(told().map((f) => f.code)).toEqual(Array(3).fill('dots-touch'));
    limits.clashesNamed = 1;
    expect(told().map((f) => f.code)).toEqual(['dots-touch', 'more-dots-touch']);
    expect(told().at(-1)?.sentence).toMatch(/^2 more dots/);
  },
  dots: () => {
    const parts = (even: boolean) => [
      partOf([{ id: 'p', kind: 'path', placement: { x: 10, y: 10 }, d: 'M0 0L40 0' }], {
        steps: [{ kind: 'dots', diameter: 1, spacing: 10, even }],
        work: [{ what: 'dots', operation: 'mark' }],
      }),
    ];
    for (const even of [true, false]) {
      limits.dots = 5;
      expect(evaluate(parts(even)).parts[0]?.linework.dots).toMatchObject({ tooMany: false, dots: { length: 5 } });
      limits.dots = 4;
      expect(evaluate(parts(even)).parts[0]?.linework.dots).toMatchObject({ tooMany: true, dots: { length: 0 } });
      expect(findingsOf(parts(even))[0]?.[1]).toContain('more than 4 dots');
    }
  },
  dotChanges: () => mostOf('dotChanges', (n) => ofStep({ kind: 'dots', changes: listOf(n, (x) => ({ x, y: 0 })) })),
  hatchLines: () => {
    const lines = fillOf({})?.lineCount ?? 0;
    expect(lines).toBeGreaterThan(5);
    // A line more may be met before the ends of rows are known.
    limits.hatchLines = lines + 1;
    expect(fillOf({})).toMatchObject({ tooMany: null, lineCount: lines });
    limits.hatchLines = lines - 1;
    expect(fillOf({})).toMatchObject({ lineCount: 0 });
    expect(fillOf({})?.tooMany).toBeGreaterThan(lines - 1);
    expect(findingsOf([filledPart({})])[0]?.[1]).toContain(`more than ${lines - 1} lines`);
  },
  hatchRings: () => {
    const rings = fillOf({ style: 'rings' })?.lineCount ?? 0;
    expect(rings).toBeGreaterThan(2);
    limits.hatchRings = rings;
    expect(fillOf({ style: 'rings' })).toMatchObject({ tooMany: null, lineCount: rings });
    limits.hatchRings = rings - 1;
    expect(fillOf({ style: 'rings' })).toMatchObject({ lineCount: 0, tooMany: rings - 1 });
    expect(findingsOf([filledPart({ style: 'rings' })])[0]?.[1]).toContain(`more than ${rings - 1} rings`);
  },
  coverRows: () => {
    const fine = rowStep(0.5, square);
    limits.coverRows = 10;
    // A square of 30 by 40 mm is 50 mm from corner to corner.
    expect(rowStep(0.5, square)).toBe(5);
    expect(fine).toBeLessThan(0.5);
  },
  missedNamed: () => {
    const places = listOf(3, (i) => ({
      areaMm2: 1,
      at: { x: i, y: 0 },
      box: { minX: i, minY: 0, maxX: i + 1, maxY: 1 },
      sizeMm: [1, 1],
    }));
    const fill = {
      widthMm: 1,
      tooMany: null,
      reached: square,
      reach: { areaMm2: 100, missedMm2: 0, letters: [] },
      cover: { area: 100, covered: 97, missed: 3, spilled: 0, places },
    } as unknown as PartHatch;
    const told = () => foundOf(hatchKind.rules, fill);
    limits.missedNamed = 3;
    expect(told().map((f) => f.code)).toEqual(Array(3).fill('missed'));
    limits.missedNamed = 1;
    expect(told().map((f) => f.code)).toEqual(['missed', 'more-missed']);
  },
  tools: () => mostOf('tools', (n) => said({ tools: listOf(n, (i) => ({ id: `t${i}` })) })),
  gapsNamed: () => {
    const open = (y: number) => `<path fill="none" stroke="red" d="M0 ${y}h20v9h-20v-8.7"/>`;
    const drawing = writeFound(svg(open(5) + open(25) + open(45)));
    limits.gapsNamed = 3;
    expect(kindsAt(drawnOn(drawing), 'gap')).toBe(3);
    expect(kindsAt(drawnOn(drawing), 'more-gaps')).toBe(0);
    limits.gapsNamed = 2;
    expect(kindsAt(drawnOn(drawing), 'gap')).toBe(2);
    expect(kindsAt(drawnOn(drawing), 'more-gaps')).toBe(1);
  },
  pictureBytes: () => {
    const job = jobWith([partOf([bar(20)], { id: 'a' }), partOf([bar(50)], { id: 'b' })]);
    const shapes = () => finished(pictureOf(job, new Evaluator(wasmEngine).evaluate(job, faces))).shapes;
    const all = shapes().reduce((sum, s) => sum + s.d.length, 0);
    limits.pictureBytes = 2 * all + 2;
    expect(shapes().length).toBeGreaterThan(0);
    limits.pictureBytes = 2 * all;
    expect(shapes().reduce((sum, s) => sum + s.d.length, 0)).toBeLessThan(all);
    const sent = (d: string) =>
      savedExtrasSchema.safeParse({
        picture: { width: 1, height: 1, shapes: [{ kind: 'cut', fill: false, d }] },
        openFindings: 0,
      }).success;
    expect([sent('M'.repeat(2 * all)), sent('M'.repeat(2 * all + 1))]).toEqual([true, false]);
  },
};

test.each(Object.keys(LIMITS) as Name[])('%s', async (name) => {
  expect(LIMITS[name]).toBeGreaterThan(0);
  await TRIED[name]();
});
