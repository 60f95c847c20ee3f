/**
 * Welding lettering. Letters whose bounds meet form a cluster; each cluster is united by itself and remembered by its
 * content, relative to its first letter; lines that touch no other line are remembered whole. So an edit recomputes only the
 * clusters it touches.
 */
import { meetingBoxes } from '../geometry/apart';
import type { ClipEngine } from '../geometry/boolean/engine';
import { FLATTEN_MM } from '../geometry/boolean/session';
import { uniteLabelled } from '../geometry/boolean/union';
import { numberAt } from '../geometry/elements';
import { type Region, regionArea, reversePath, transformRegion } from '../geometry/path';
import {
  type Box,
  boxContains,
  boxesMeet,
  compose,
  EMPTY_BOX,
  IDENTITY,
  type Matrix,
  scaling,
  translation,
  uniteBoxes,
} from '../geometry/point';
import type { Typeface } from '../lettering/face';
import { faceOfLetter, type Layout, type PlacedLetter, type PlacedLine } from '../lettering/layout';
import { type IdOf, type Memory, NO_MEMORY, type Stage } from '../memo';
import { measureOutlines, nestAgain, type Outline, relabel, transformOutlines, weighOutlines } from './outline';

/** Flattening for lettering of a given capital height: finer for small letters, so that their overlaps are not missed. */
export const weldTolerance = (capHeightMm: number): number => Math.min(FLATTEN_MM, Math.max(5e-4, capHeightMm / 4000));

/** Letters closer than this are looked at together. */
const TOUCH_MM = 0.001;

const round = (value: number): number => Math.round(value * 1e6) / 1e6;

/** A letter of a cluster: its glyphs about its own origin, its own turn and size, and its place from the first letter. */
type ClusterLetter = {
  readonly face: Typeface;
  readonly glyphs: PlacedLetter['glyphs'];
  readonly own: Matrix | null;
  readonly drawn: PlacedLetter['drawn'];
  readonly x: number;
  readonly y: number;
};

function clusterLettersOf(
  cluster: readonly number[],
  letters: readonly PlacedLetter[],
  layout: Pick<Layout, 'faces'>,
): ClusterLetter[] {
  const first = letters[numberAt(cluster, 0)] as PlacedLetter;
  return cluster.map((i) => {
    const letter = letters[i] as PlacedLetter;
    const { glyphs, own, drawn, x, y } = letter;
    return { face: faceOfLetter(layout, letter), glyphs, own, drawn, x: round(x - first.x), y: round(y - first.y) };
  });
}

/** The same content has the same key: faces, glyphs and their distances, letters parted by ";". */
function clusterKey(letters: readonly ClusterLetter[], idOf: IdOf): string {
  let key = '';
  let before: Typeface | null = null;
  for (const { face, glyphs, own, drawn, x, y } of letters) {
    if (face !== before) key += `${idOf(face)}|`;
    before = face;
    if (own) key += `*${Object.values(own).join()}`;
    if (drawn) key += `=${drawn.key}`;
    for (const g of glyphs) {
      const at = [x + g.x, y + g.y];
      key += at[0] === 0 && at[1] === 0 ? `+${g.glyph}` : `+${g.glyph}@${at.join()}`;
    }
    key += ';';
  }
  return key;
}

/** Letters united, in mm from the origin of the first. */
type ClusterInput = { readonly letters: readonly ClusterLetter[]; readonly setting: Setting };

function uniteCluster({ letters, setting: { engine, scale, toleranceMm } }: ClusterInput): readonly Outline[] {
  const paths = letters.map(({ face, glyphs, own, drawn, x, y }): Region => {
    const to = compose(translation(x, y), scaling(scale));
    if (drawn) return transformRegion(drawn.paths, to);
    return glyphs.flatMap((g) =>
      transformRegion(face.outline(g.glyph), compose(compose(translation(g.x, g.y), own ?? IDENTITY), to)),
    );
  });
  // Letters of one face may run either way round: where two that do not run alike overlap, the one would take from the other.
  const first = paths.find((letter) => letter.length > 0) ?? [];
  const isAlike = (letter: Region) => regionArea(letter) < 0 === regionArea(first) < 0;
  const alike = paths.map((letter) => (isAlike(letter) ? letter : letter.map(reversePath)));
  return measureOutlines(uniteLabelled(engine, alike, toleranceMm));
}

/** As they are, to the last digit: what is taken for the same and is not would leave its traces in files of others. */
const settingKey = ({ scale }: Setting): string => `${scale}|`;

const clusterInputKey = ({ letters, setting }: ClusterInput, idOf: IdOf): string =>
  settingKey(setting) + clusterKey(letters, idOf);

const CLUSTER: Stage<ClusterInput, readonly Outline[]> = {
  name: 'cluster',
  key: clusterInputKey,
  run: uniteCluster,
  weigh: weighOutlines,
};

/** Where a cluster stands, and the indices of its letters. */
type PlacedInput = ClusterInput & { readonly to: Matrix; readonly names: readonly number[] };

const PLACED_CLUSTER: Stage<PlacedInput, readonly Outline[]> = {
  name: 'placed cluster',
  key: ({ to, names, ...cluster }, idOf) =>
    `${clusterInputKey(cluster, idOf)}${placeKey(cluster.setting.matrix)}${to.e},${to.f}|${names.join()}`,
  run: ({ to, names, ...cluster }, memory) => placeCluster(memory.get(CLUSTER, cluster), to, names),
  weigh: weighOutlines,
};

const placeKey = (m: Matrix): string => `${[m.a, m.b, m.c, m.d].join()}|`;

/** Move a united cluster to its place and label it by the letters it is made of. */
const placeCluster = (united: readonly Outline[], to: Matrix, cluster: readonly number[]): readonly Outline[] =>
  transformOutlines(united, to).map((o) => ({
    ...o,
    labels: o.labels.map((label) => (label < 0 ? -1 : numberAt(cluster, label))),
  }));

type Block = { readonly lines: readonly PlacedLine[]; readonly box: Box };

/** Neighbouring lines gathered until no block's bounds meet another's. */
function blocksOf(lines: readonly PlacedLine[]): Block[] {
  const blocks: Block[] = [];
  for (const line of lines) {
    let block: Block = { lines: [line], box: line.box };
    for (;;) {
      const met = blocks.findIndex((other) => boxesMeet(other.box, block.box));
      if (met < 0) break;
      // All between are taken along, so that a block is a run of lines.
      const taken = blocks.splice(met);
      block = {
        lines: [...taken.flatMap((t) => t.lines), ...block.lines],
        box: taken.reduce((box, t) => uniteBoxes(box, t.box), block.box),
      };
    }
    blocks.push(block);
  }
  return blocks;
}

/** Everything a weld depends on but the letters themselves. */
type Setting = {
  readonly engine: ClipEngine;
  readonly layout: Layout;
  readonly weld: boolean;
  readonly matrix: Matrix;
  readonly scale: number;
  readonly toleranceMm: number;
};

/** The letters from index `from` on, united cluster by cluster; labels are indices in the whole lettering. */
function weldLetters(from: number, to: number, s: Setting, memory: Memory): Outline[] {
  const { scale, layout } = s;
  // Lines of one-line faces have no outlines.
  const names = Array.from({ length: to - from }, (_, i) => i + from).filter(
    (i) => !faceOfLetter(layout, layout.letters[i] as PlacedLetter).isSingleStroke,
  );
  const letters = names.map((i) => layout.letters[i] as PlacedLetter);
  const boxes = letters.map((letter) => letter.box);
  const clusters = s.weld ? meetingBoxes(boxes, TOUCH_MM / scale) : letters.map((_, i) => [i]);
  const out: Outline[] = [];
  let across = false;
  for (const cluster of clusters) {
    const first = letters[numberAt(cluster, 0)] as PlacedLetter;
    const placedCluster = memory.get(PLACED_CLUSTER, {
      letters: clusterLettersOf(cluster, letters, layout),
      setting: s,
      to: compose(translation(first.x * scale, first.y * scale), s.matrix),
      names: cluster.map((i) => numberAt(names, i)),
    });
    across ||= cluster.length > 1 && clusters.length > 1 && enclosesOthers(cluster, boxes);
    out.push(...relabel(placedCluster, out.length, 0));
  }
  return s.weld && across ? nestAgain(out) : out;
}

type BlockInput = {
  readonly lines: readonly PlacedLine[];
  readonly setting: Setting;
};

/** The outlines of a block of lines; labels are indices in the whole lettering. */
const BLOCK: Stage<BlockInput, readonly Outline[]> = {
  name: 'block',
  key({ lines, setting }, idOf) {
    const { matrix, weld } = setting;
    const places = lines.map((line) => `${idOf(line.face)} ${line.x},${line.y} ${line.setting} ${line.text}`);
    const from = (lines[0] as PlacedLine).from;
    return `${settingKey(setting)}${placeKey(matrix)}${weld}|${matrix.e},${matrix.f}|${from}\n${places.join('\n')}`;
  },
  run({ lines, setting }, memory) {
    const from = (lines[0] as PlacedLine).from;
    const to = (lines[lines.length - 1] as PlacedLine).to;
    return weldLetters(from, to, setting, memory);
  },
  weigh: weighOutlines,
};

/**
 * The outlines of set lettering in mm on the sheet, where `matrix` (a similarity) puts it: counter-clockwise outside,
 * labelled by letter index. With `weld` off every letter is cleaned by itself and overlaps stay.
 */
export function weldLettering(
  engine: ClipEngine,
  layout: Layout,
  {
    weld,
    matrix,
    memory = NO_MEMORY,
  }: { readonly weld: boolean; readonly matrix: Matrix; readonly memory?: Memory | undefined },
): readonly Outline[] {
  const { scale } = layout;
  const setting: Setting = { engine, layout, weld, matrix, scale, toleranceMm: weldTolerance(layout.capHeightMm) };
  const out: Outline[] = [];
  for (const { lines } of blocksOf(layout.lines.filter((line) => !line.face.isSingleStroke)))
    out.push(...relabel(memory.get(BLOCK, { lines, setting }), out.length, 0));
  return out;
}

/** Whether letters of other clusters lie within the bounds of all these together, so that nesting must be looked at over all. */
function enclosesOthers(cluster: readonly number[], boxes: readonly Box[]): boolean {
  const mine = new Set(cluster);
  const around = cluster.reduce<Box>((box, i) => uniteBoxes(box, boxes[i] as Box), EMPTY_BOX);
  return boxes.some((box, i) => !mine.has(i) && boxContains(around, box));
}
