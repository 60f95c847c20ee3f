/**
 * Documents by chance over every step, work, member, typeface and placement: raw, in format 1, so that they go through reading and
 * migrating like any job that was kept.
 */
import { writeFound } from '../../src/core/formats/found-file';
import { readDrawing } from '../../src/core/formats/read';
import { FAMILIES, LINE_FAMILIES } from './faces';
import type { Draft } from './jobs';
import { type Chance, chance } from './random';

const WORDS = ['Rye', 'BO8', 'Äi%', 'lull', 'Qq&', 'HOE', 'g', 'fig', 'A4', 'ox', 'Beet', 'ij!', 'No. 7', 'Zoë', '@8'];
const EVERY = <T>(list: readonly T[], i: number): T => list[i % list.length] as T;

/** Small drawings, by ids that are made up: closed and loose lines, a gap, a double, arcs, two groups. */
export const DRAWINGS: ReadonlyMap<string, string> = new Map(
  [
    '<g id="Rim"><path d="M0 0h30v20h-30z"/><circle cx="15" cy="10" r="6"/></g><g id="Mark"><path d="M2 2l6 3M8.2 5l4 2"/></g>',
    '<path fill="none" stroke="#f00" d="M0 0h20v12h-19.7M0 12v-11.8"/><path fill="none" stroke="#00f" d="M5 5c3 4 6 4 9 0M5 5c3 4 6 4 9 0"/>',
    '<path d="M0 0c8-8 16 8 24 0v14c-8 8-16-8-24 0z"/><ellipse cx="12" cy="7" rx="5" ry="2.5"/>',
  ].map((body, i) => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="-5 -8 40 30">${body}</svg>`;
    const reading = readDrawing(new TextEncoder().encode(svg));
    if (!reading.ok) throw new Error(reading.sentence);
    return [String(i + 1).repeat(64), writeFound(reading.found)];
  }),
);

const SHAPES = ['rectangle', 'ellipse', 'polygon', 'star', 'heart', 'bar', 'spike'] as const;
const ORDER = ['weld', 'thicken', 'bar', 'tie', 'border', 'plate', 'nodes', 'bridge', 'centerline', 'dots', 'hatch'];

function helpers(next: Chance) {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)] as T;
  const mm = (least: number, most: number) => Math.round((least + next() * (most - least)) * 100) / 100;
  const maybe = (share: number) => next() < share;
  return { pick, mm, maybe };
}

function shapeOf(kind: (typeof SHAPES)[number], cap: number, { pick, mm }: ReturnType<typeof helpers>): Draft {
  const [width, height] = [mm(cap, 3 * cap), mm(cap / 2, 2 * cap)];
  switch (kind) {
    case 'rectangle':
      return { kind, width, height, corner: pick([0, 0, cap / 6, 1000]) };
    case 'ellipse':
    case 'heart':
      return { kind, width, height };
    case 'polygon':
      return { kind, width, sides: pick([3, 5, 6, 8]) };
    case 'star':
      return { kind, width, points: pick([4, 5, 7]), inner: pick([0.3, 0.45]) };
    case 'bar':
      return { kind, width, height: cap / 4, ends: pick(['square', 'round']) };
    case 'spike':
      return { kind, width: cap / 3, height, point: cap / 3 };
  }
}

/** A step with settings by chance, in keeping with the size of the capitals. */
function stepOf(kind: string, cap: number, letters: number, { pick, mm, maybe }: ReturnType<typeof helpers>): Draft {
  const on = !maybe(0.05);
  const letter = `m0:${Math.floor(mm(0, letters - 0.01))}`;
  switch (kind) {
    case 'thicken':
      return {
        kind,
        on,
        by: pick([1, -0.3, 0.5]) * (cap / 60),
        corners: pick(['round', 'mitre', 'square']),
        holesOpen: pick([null, cap / 20]),
      };
    case 'bar':
      return {
        kind,
        on,
        at: pick(['under', 'through']),
        height: cap / 8,
        overlap: cap / 30,
        beyond: pick([0, 2, -1]),
        ends: pick(['square', 'round']),
      };
    case 'tie':
      return {
        kind,
        on,
        width: cap / 12,
        overlap: cap / 25,
        ends: pick(['square', 'round']),
        direction: pick(['any', 'upright', 'level']),
        answers: maybe(0.5) ? [{ piece: letter, how: pick(['tie', 'move', 'grow', 'leave']) }] : [],
      };
    case 'border':
      return {
        kind,
        on,
        distance: cap / 5,
        corners: pick(['round', 'mitre', 'square']),
        envelope: maybe(0.3),
        bridge: pick([0, cap / 10]),
        smooth: pick([0, cap / 12]),
        holesFrom: pick([null, cap / 5]),
      };
    case 'plate':
      return {
        kind,
        on,
        shape: pick(['rectangle', 'ellipse']),
        across: cap / 2,
        upright: cap / 2,
        corner: pick([0, cap / 5]),
        holes: pick(['none', 'corners', 'top', 'sides']),
        holeWidth: cap / 6,
        inset: cap / 4,
      };
    case 'bridge':
      return {
        kind,
        on,
        width: cap / 14,
        direction: pick(['any', 'upright', 'level', 'stroke']),
        count: pick([0, 1, 2]),
        sides: pick(['straight', 'waisted']),
        joints: pick(['square', 'filleted']),
        slanted: maybe(0.5),
        alike: maybe(0.5),
        level: maybe(0.5),
        islands: maybe(0.3) ? [{ letter, island: 0, how: pick(['leave', 'auto']), count: pick([null, 1]) }] : [],
        placed: maybe(0.3)
          ? [{ letter, island: pick([null, 0]), x: mm(0.1, 0.6), y: mm(0, 0.9), turn: pick([null, 90, 30]) }]
          : [],
      };
    case 'nodes':
      return {
        kind,
        on,
        d: 'M0 0L1.5 0C2 0.5 1.8 1.2 1.2 1.2L0.2 1.4ZM0.5 0.4L0.8 0.8L1 0.4Z',
        unit: 1,
        over: { segments: 1, area: 1, length: 1 },
      };
    case 'centerline':
      return {
        kind,
        on,
        detail: pick([0.45, 0.8]),
        smooth: pick([null, 0.05]),
        ends: pick(['tip', 'short']),
        loops: pick(['kept', 'filled']),
        retraced: pick(['once', 'twice']),
        joined: maybe(0.6),
        dots: pick(['circle', 'point']),
        corrections: maybe(0.2) ? [{ letter, d: 'M0.1 0L0.4 0.5C0.5 0.7 0.3 0.9 0.2 0.6' }] : [],
      };
    case 'dots':
      return {
        kind,
        on,
        along: pick(['centerline', 'outline']),
        diameter: cap / 12,
        spacing: cap / 6,
        even: maybe(0.7),
        apart: maybe(0.7),
        as: pick(['circle', 'point']),
        changes: maybe(0.3) ? [{ x: 0, y: 0, dx: 0.1, dy: 0.1 }] : [],
      };
    case 'hatch': {
      const tip = Math.round(cap * pick([6, 9, 14])) / 100;
      return {
        kind,
        on,
        style: pick(['parallel', 'crossed', 'rings']),
        joined: maybe(0.7),
        tool: { shape: pick(['line', 'flat', 'round', 'cone']), tip, angle: 60, depth: tip / 2 },
        overlap: pick([0.3, 0, -1]),
        angle: pick([0, 45, 30, 90]),
        outline: pick(['none', 'first', 'last']),
        least: pick([0, tip]),
        rest: maybe(0.4),
      };
    }
    default:
      return { kind: 'weld', on: !maybe(0.08) };
  }
}

/** The document of a number, the same each time: what must come up comes up in turn, the rest by chance. `words` are its words. */
export function anyDocument(i: number, seed: number, words?: (next: Chance) => string): Draft {
  const next = chance(seed + i);
  const help = helpers(next);
  const { pick, mm, maybe } = help;
  const cap = [12, 20, 30, 45, 6, 200][i % 6] as number;
  const sheet = cap > 100 ? [1500, 900] : [300, 200];
  const [wide, high] = sheet as [number, number];
  const place = (): Draft =>
    pick([
      () => ({ x: wide / 2, y: high / 2 }),
      () => ({
        x: mm(0.2 * wide, 0.8 * wide),
        y: mm(0.2 * high, 0.8 * high),
        turn: pick([90, -30, 180, mm(-180, 180)]),
      }),
      () => ({ x: mm(0.3 * wide, 0.7 * wide), y: mm(0.3 * high, 0.7 * high), mirror: true, turn: pick([0, 45]) }),
      () => ({ x: 0, y: 0 }),
    ])();
  const face = i % 3 === 0 ? EVERY(LINE_FAMILIES, i / 3) : EVERY(FAMILIES, Math.floor(i / 2));
  const text = words ? words(chance(seed - i)) : EVERY(WORDS, i);
  const lettering = (id: string, more: Draft = {}): Draft => ({
    id,
    kind: 'lettering',
    placement: place(),
    text: maybe(0.15) ? `${text}\nio` : text,
    face,
    size: maybe(0.2) ? { by: 'width', mm: 3 * cap } : { by: 'capital', mm: cap },
    letterSpacing: pick([0, 0, 0.1, -0.1]),
    lineSpacing: pick([1, 0.8]),
    align: pick(['left', 'centre', 'right']),
    evenLines: pick(['no', 'no', 'spacing', 'size', 'both']),
    closeUp: maybe(0.15) ? { overlap: cap / 30, words: maybe(0.5), lines: maybe(0.5) } : null,
    letters: maybe(0.2) ? [{ at: 0, dx: 0.1, dy: 0.05, turn: pick([0, 15]), scale: pick([1, 1.3]) }] : [],
    ...more,
  });
  const member = (k: number): Draft => {
    const role = pick(['join', 'join', 'join', 'punch', 'punch', 'clip']);
    const base = { id: `m${k}`, role, placement: place() };
    if (maybe(0.2))
      return {
        ...base,
        kind: 'artwork',
        drawing: pick([...DRAWINGS.keys()]),
        scale: cap / 20,
        close: { gap: pick([0, 0.5]), refit: pick([null, 0.1]) },
      };
    if (maybe(0.2)) return { ...base, kind: 'path', d: 'M0 0L12 0L12 8C9 11 3 11 0 8ZM14 0L20 6', scale: cap / 20 };
    if (maybe(0.3)) return lettering(`m${k}`, { role });
    return { ...base, ...shapeOf(EVERY(SHAPES, i + k), cap, help) };
  };
  // Words first, but for every seventh document: that is a shape, a path or a drawing.
  const first = i % 7 === 3 ? { ...member(0), id: 'm0', role: 'join' } : lettering('m0');
  const more = Array.from({ length: pick([0, 0, 1, 2]) }, (_, k) => member(k + 1));
  const special = EVERY(ORDER, i);
  const kinds = new Set(['weld', special, ...(maybe(0.35) ? [pick(ORDER)] : [])]);
  if (special === 'bridge' && maybe(0.5)) kinds.add('plate');
  if (kinds.has('dots')) kinds.add('centerline');
  const steps = ORDER.filter((kind) => kinds.has(kind)).map((kind) => stepOf(kind, cap, text.length, help));
  const work = [
    ...(kinds.has('hatch') ? [{ what: 'hatch', operation: pick(['engrave', 'mark']) }] : []),
    ...(kinds.has('centerline') ? [{ what: 'centerline', operation: pick(['mark', 'score']) }] : []),
    ...(kinds.has('dots') ? [{ what: 'dots', operation: 'mark' }] : []),
    ...(maybe(0.2) ? [{ what: 'fill', operation: 'engrave' }] : []),
    ...(maybe(0.92) ? [{ what: 'outline', operation: pick(['cut', 'cut', 'score']) }] : []),
  ];
  const part = (id: string, over: Draft = {}): Draft => ({
    id,
    name: maybe(0.5) ? `Tag ${i}` : '',
    keep: special === 'plate' || special === 'bridge' || maybe(0.25) ? 'outside' : 'inside',
    selfAdhesive: maybe(0.05),
    members: [first, ...more],
    steps,
    work,
    ...over,
  });
  const parts: Draft[] = [part('a')];
  if (i % 5 === 1) {
    const follows = maybe(0.5);
    const copy = {
      id: 'c',
      kind: 'copy',
      of: 'a',
      follows,
      scale: pick([1, 0.8]),
      placement: follows ? { x: 5, y: -3 } : place(),
    };
    parts.push(
      part('b', {
        keep: 'inside',
        members: [copy],
        steps: [{ kind: 'weld' }, stepOf('border', cap, 1, help)],
        work: [{ what: 'outline', operation: 'cut' }],
      }),
    );
  }
  // The same part a second time, elsewhere or in the same place.
  if (i % 5 === 3) parts.push(part('twin', { hidden: maybe(0.1) }));
  return {
    format: 1,
    title: `Golden ${i}`,
    units: pick(['mm', 'in']),
    sheet: {
      width: wide,
      height: high,
      material: pick(['', 'Birch plywood']),
      thickness: pick([null, 3]),
      leastWidth: pick([null, cap / 20]),
      kerf: pick([null, 0.2]),
    },
    parts,
    export: { page: pick(['work', 'sheet']) },
  };
}
