/** Two snapshots compared: what differs, where, and by how much. */
import { apartAtMost, type Polyline } from '../support/polyline-distance';
import type { Line, ShapeNow, Snapshot } from './snapshot';

export type Difference = {
  readonly job: string;
  /** Such as "cut, 3: outline of a" or "report.parts.0.box.x". */
  readonly where: string;
  /** What differs: moved, kinds, closedness, order, missing, new, value. */
  readonly what: 'moved' | 'kinds' | 'closed' | 'order' | 'missing' | 'new' | 'value';
  /** How far apart the two lie, in mm, or how much a figure differs; null where that means nothing. */
  readonly by: number | null;
  readonly before: string;
  readonly now: string;
};

/** Places no farther apart than this are the same, in mm; so are figures, and areas by this share of themselves. */
const SAME_MM = 1e-5;
const SAME_SHARE = 1e-6;

const STEPS = 24;

/** Points along a line as it is written down. */
function pointsOf({ kinds, numbers }: Line): Polyline {
  const out: [number, number][] = [];
  let i = 0;
  let [x, y] = [0, 0];
  const take = () => numbers[i++] as number;
  if (kinds === '') return [[numbers[0] ?? 0, numbers[1] ?? 0]];
  for (const letter of kinds) {
    if (letter < 'a') {
      [x, y] = [take(), take()];
      out.push([x, y]);
    }
    const kind = letter.toLowerCase();
    const [x0, y0] = [x, y];
    if (kind === 'l') {
      [x, y] = [take(), take()];
      out.push([x, y]);
    } else if (kind === 'a') {
      [x, y] = [take(), take()];
      const [cx, cy, sweep] = [take(), take(), take()];
      for (let k = 1; k <= STEPS; k++) {
        const a = (sweep * k) / STEPS;
        const [rx, ry] = [x0 - cx, y0 - cy];
        out.push([cx + rx * Math.cos(a) - ry * Math.sin(a), cy + rx * Math.sin(a) + ry * Math.cos(a)]);
      }
    } else {
      const controls = kind === 'q' ? [take(), take()] : [take(), take(), take(), take()];
      [x, y] = [take(), take()];
      const [ax, ay] = [controls[0] as number, controls[1] as number];
      for (let k = 1; k <= STEPS; k++) {
        const t = k / STEPS;
        const u = 1 - t;
        if (kind === 'q') out.push([u * u * x0 + 2 * u * t * ax + t * t * x, u * u * y0 + 2 * u * t * ay + t * t * y]);
        else {
          const [bx, by] = [controls[2] as number, controls[3] as number];
          out.push([
            u ** 3 * x0 + 3 * u * u * t * ax + 3 * u * t * t * bx + t ** 3 * x,
            u ** 3 * y0 + 3 * u * u * t * ay + 3 * u * t * t * by + t ** 3 * y,
          ]);
        }
      }
    }
  }
  return out;
}

/** The largest difference of two lists of numbers, infinite where they are not as many. */
const mostApart = (a: readonly number[], b: readonly number[]): number =>
  a.length === b.length ? a.reduce((most, v, i) => Math.max(most, Math.abs(v - (b[i] as number))), 0) : Infinity;

const sameKinds = (a: ShapeNow, b: ShapeNow): boolean =>
  a.what === b.what &&
  a.of === b.of &&
  a.lines.length === b.lines.length &&
  a.lines.every((line, i) => line.kinds === b.lines[i]?.kinds && line.closed === b.lines[i]?.closed);

const apart = (a: ShapeNow, b: ShapeNow): number =>
  a.lines.reduce((most, line, i) => Math.max(most, mostApart(line.numbers, b.lines[i]?.numbers ?? [])), 0);

const isSame = (a: ShapeNow, b: ShapeNow): boolean => sameKinds(a, b) && apart(a, b) <= SAME_MM;

/** How far two shapes lie from each other, both ways, whatever they are made of. */
const distance = (a: ShapeNow, b: ShapeNow): number => apartAtMost(a.lines.map(pointsOf), b.lines.map(pointsOf));

const told = (shape: ShapeNow): string => {
  const kinds = shape.lines.map((line) => `${line.kinds}${line.closed ? ' closed' : ''}`).join(', ');
  return `${shape.what} of ${shape.of}: ${kinds.length > 80 ? `${kinds.slice(0, 77)}…` : kinds}`;
};

function compareShapes(
  job: string,
  where: string,
  before: readonly ShapeNow[],
  now: readonly ShapeNow[],
): Difference[] {
  const out: Difference[] = [];
  const tell = (at: number, what: Difference['what'], by: number | null, a?: ShapeNow, b?: ShapeNow) =>
    out.push({ job, where: `${where}, ${at}`, what, by, before: a ? told(a) : '', now: b ? told(b) : '' });
  const unmatched = now.map((_, i) => i).filter((i) => !before[i] || !isSame(before[i], now[i] as ShapeNow));
  const open = new Set(unmatched);
  const left: number[] = [];
  before.forEach((shape, i) => {
    const same = now[i];
    if (same && isSame(shape, same)) return;
    const elsewhere = unmatched.find((k) => open.has(k) && isSame(shape, now[k] as ShapeNow));
    if (elsewhere === undefined) left.push(i);
    else {
      open.delete(elsewhere);
      tell(i, 'order', elsewhere - i, shape, now[elsewhere]);
    }
  });
  for (const i of left) {
    const shape = before[i] as ShapeNow;
    // The one in the same place of the order if it is still to be had, else the nearest.
    const candidates = [...open].map((k) => ({ k, other: now[k] as ShapeNow }));
    const found =
      candidates.find(({ k }) => k === i) ??
      candidates
        .filter(({ other }) => other.what === shape.what && other.of === shape.of)
        .map((c) => ({ ...c, by: distance(shape, c.other) }))
        .sort((a, b) => a.by - b.by)[0];
    if (!found) {
      tell(i, 'missing', null, shape);
      continue;
    }
    open.delete(found.k);
    const { other } = found;
    const closedAs = (s: ShapeNow) => s.lines.map((line) => line.closed).join();
    const what = sameKinds(shape, other) ? 'moved' : closedAs(shape) === closedAs(other) ? 'kinds' : 'closed';
    tell(i, what, what === 'moved' ? apart(shape, other) : distance(shape, other), shape, other);
  }
  for (const k of open) tell(k, 'new', null, undefined, now[k]);
  return out;
}

function compareValues(job: string, where: string, before: unknown, now: unknown): Difference[] {
  const differs = (by: number | null): Difference[] => [
    {
      job,
      where,
      what: 'value',
      by,
      before: JSON.stringify(before) ?? 'nothing',
      now: JSON.stringify(now) ?? 'nothing',
    },
  ];
  if (typeof before === 'number' && typeof now === 'number') {
    const by = Math.abs(before - now);
    return by <= SAME_MM + SAME_SHARE * Math.abs(before) ? [] : differs(by);
  }
  if (Array.isArray(before) && Array.isArray(now) && before.length !== now.length)
    return [
      ...differs(now.length - before.length),
      ...before.flatMap((value, i) => (i < now.length ? compareValues(job, `${where}.${i}`, value, now[i]) : [])),
    ];
  if (before !== null && now !== null && typeof before === 'object' && typeof now === 'object') {
    const [a, b] = [before as Record<string, unknown>, now as Record<string, unknown>];
    return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) =>
      compareValues(job, `${where}.${key}`, a[key], b[key]),
    );
  }
  return before === now ? [] : differs(null);
}

/** All differences of a job, in the order in which it is made. */
export function compare(before: Snapshot, now: Snapshot): Difference[] {
  const job = before.name;
  const asShapes = (of: string, what: string, lines: readonly Line[]): ShapeNow[] =>
    lines.map((line) => ({ what, of, lines: [line] }));
  const ids = [...new Set([...before.parts, ...now.parts].map((p) => p.id))];
  const operations = [...new Set([...before.operations, ...now.operations].map((o) => o.id))];
  return [
    ...ids.flatMap((id) => {
      const [a, b] = [before, now].map((s) => s.parts.find((p) => p.id === id));
      return [
        ...compareShapes(
          job,
          `part ${id}`,
          asShapes(id, 'outline', a?.outlines ?? []),
          asShapes(id, 'outline', b?.outlines ?? []),
        ),
        ...compareShapes(
          job,
          `part ${id}, open`,
          asShapes(id, 'line', a?.open ?? []),
          asShapes(id, 'line', b?.open ?? []),
        ),
      ];
    }),
    ...operations.flatMap((id) => {
      const [a, b] = [before, now].map((s) => s.operations.find((o) => o.id === id)?.shapes ?? []);
      return compareShapes(job, id, a ?? [], b ?? []);
    }),
    ...compareValues(job, 'report', before.report, now.report),
    ...compareValues(job, 'findings', before.findings, now.findings),
  ];
}

/** Differences as text: for each job the first few, and how many there are; then the most of each kind. */
export function tellAll(differences: readonly Difference[], each = 6): string {
  const jobs = [...new Set(differences.map((d) => d.job))];
  const lines = jobs.flatMap((job) => {
    const own = differences.filter((d) => d.job === job);
    const shown = own.slice(0, each).map((d) => {
      const by = d.by === null ? '' : ` by ${d.by.toPrecision(3)}`;
      return `  ${d.where}: ${d.what}${by}\n    ${d.before}\n    ${d.now}`;
    });
    return [`${job}: ${own.length} difference${own.length === 1 ? '' : 's'}`, ...shown];
  });
  const most = [...new Set(differences.map((d) => d.what))].map((what) => {
    const of = differences.filter((d) => d.what === what);
    return `${what}: ${of.length}, by ${Math.max(...of.map((d) => Math.abs(d.by ?? 0))).toPrecision(3)} at most`;
  });
  return [...lines, ...most].join('\n');
}
