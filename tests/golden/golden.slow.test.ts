/**
 * What all demo jobs and two hundred documents come to, against what they came to when the golden set was written. It stands
 * until the rebuilding is over. `npm run golden` tells what differs; `npm run golden:write` writes it anew, and with
 * NEEDLEFILE_GOLDEN="name,name" those alone: that is for differences that are named and meant, in docs/decisions.
 *
 * @module-tag slow
 */
import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { readJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { SHIPPED_FACES } from '../../src/core/lettering/catalogue';
import { DRAWINGS } from '../support/any-document';
import { wasmEngine } from '../support/faces';
import { compare, type Difference, tellAll } from './compare';
import { documentsNow, GENERATED, type Kept } from './documents';
import { pack, unpack } from './pack';
import { type Snapshot, snapshotNow } from './snapshot';

const FILE = 'tests/golden/golden.br';
/** `write`, or the names of those that are written anew, parted by commas; the others stay as they were. */
const wanted = process.env.NEEDLEFILE_GOLDEN;

if (wanted) {
  const kept = wanted === 'write' ? null : unpack(readFileSync(FILE));
  const documents = kept?.documents ?? documentsNow();
  const evaluator = new Evaluator(wasmEngine);
  writeFileSync(
    FILE,
    pack(
      documents,
      documents.map((document, i) =>
        kept && !wanted.split(',').includes(document.name)
          ? (kept.snapshots[i] as Snapshot)
          : snapshotNow(document, evaluator),
      ),
    ),
  );
}
const { documents, snapshots } = unpack(readFileSync(FILE));
const jobs = documents.map(({ name, document }): [string, Job] => {
  const read = readJob(JSON.stringify(document));
  if (!read.ok) throw new Error(`${name}: ${read.sentences.join(' ')}`);
  return [name, read.job];
});
const parts = jobs.flatMap(([, job]) => job.parts);
const members = parts.flatMap((p) => p.members);

test('the set is small, and has every step, work, member, typeface and placement', () => {
  expect(statSync(FILE).size).toBeLessThan(3 * 1024 * 1024);
  expect(documents.filter((d) => d.name.startsWith('generated'))).toHaveLength(GENERATED);
  expect(documents.length).toBeGreaterThan(GENERATED + 5);
  const count = <T>(values: readonly T[]) => {
    const counts = new Map<T, number>();
    for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
    return counts;
  };
  const atLeast = (counts: ReadonlyMap<unknown, number>, all: readonly unknown[], least: number) => {
    for (const one of all) expect(counts.get(one) ?? 0, String(one)).toBeGreaterThanOrEqual(least);
  };
  const steps = parts.flatMap((p) => p.steps.filter((s) => s.on).map((s) => s.kind));
  atLeast(
    count(steps),
    ['weld', 'thicken', 'bar', 'tie', 'border', 'plate', 'nodes', 'bridge', 'centerline', 'dots', 'hatch'],
    15,
  );
  atLeast(
    count(parts.flatMap((p) => p.work.map((w) => w.what))),
    ['outline', 'fill', 'hatch', 'centerline', 'dots'],
    15,
  );
  const shapes = ['rectangle', 'ellipse', 'polygon', 'star', 'heart', 'bar', 'spike'];
  atLeast(count(members.map((m) => m.kind)), ['lettering', 'copy', 'artwork', 'path', ...shapes], 5);
  atLeast(count(members.map((m) => m.role)), ['join', 'punch', 'clip'], 15);
  atLeast(count(parts.map((p) => p.keep)), ['inside', 'outside'], 40);
  const faces = members.flatMap((m) => (m.kind === 'lettering' ? [m.face] : []));
  atLeast(
    count(faces),
    SHIPPED_FACES.map((f) => f.family),
    2,
  );
  const places = members.map(({ placement: { x, y, turn, mirror } }) =>
    mirror ? 'mirrored' : turn % 90 !== 0 ? 'askew' : turn !== 0 ? 'turned' : x === 0 && y === 0 ? 'corner' : 'level',
  );
  atLeast(count(places), ['mirrored', 'askew', 'turned', 'corner', 'level'], 20);
  const used = members.flatMap((m) => (m.kind === 'artwork' ? [m.drawing] : []));
  atLeast(count(used), [...DRAWINGS.keys()], 2);
});

test('most of it is drawn: no document is empty by mistake', () => {
  const drawn = snapshots.filter((s) => s.operations.some((o) => o.shapes.some((x) => x.lines.length > 0)));
  expect(drawn.length).toBeGreaterThan(0.9 * snapshots.length);
  for (const kind of ['l', 'q', 'c', 'a'])
    expect(snapshots.some((s) => s.parts.some((p) => p.outlines.some((o) => o.kinds.includes(kind))))).toBe(true);
});

const evaluator = new Evaluator(wasmEngine);
describe('what it comes to now', () => {
  test.each(snapshots.map((s, i): [string, Snapshot, Kept] => [s.name, s, documents[i] as Kept]))(
    '%s',
    (_, before, kept) => {
      const differences = compare(before, snapshotNow(kept, evaluator));
      expect(differences.length === 0 ? '' : tellAll(differences)).toBe('');
    },
  );
});

describe('the comparer', () => {
  const kept = documents.find((d) => d.name === 'gate-sign') as Kept;
  const before = snapshots[documents.indexOf(kept)] as Snapshot;
  const changed = (recipe: (copy: { -readonly [K in keyof Snapshot]: Snapshot[K] }) => void): Difference[] => {
    // Lines that are the same are one and the same object; here each is its own.
    const copy = JSON.parse(JSON.stringify(before)) as { -readonly [K in keyof Snapshot]: Snapshot[K] };
    recipe(copy);
    return compare(before, copy);
  };
  type Loose = {
    id: string;
    shapes: { what: string; of: string; lines: { kinds: string; closed: boolean; numbers: number[] }[] }[];
  }[];
  const shapesOf = (s: Snapshot) => {
    const found = (s.operations as unknown as Loose).find((o) => o.shapes.length > 2);
    if (!found) throw new Error('nothing drawn');
    return found.shapes;
  };
  const first = (s: Snapshot) =>
    shapesOf(s)
      .flatMap((x) => x.lines)
      .find((l) => /ll/.test(l.kinds)) as { kinds: string; closed: boolean; numbers: number[] };

  test('finds nothing where nothing differs, nor within its tolerance', () => {
    expect(changed(() => {})).toEqual([]);
    expect(
      changed((s) => {
        first(s).numbers[0] = (first(s).numbers[0] as number) + 0.9e-5;
      }),
    ).toEqual([]);
  });

  test('says what moved, and by how much', () => {
    const [only, ...more] = changed((s) => {
      first(s).numbers[2] = (first(s).numbers[2] as number) + 0.25;
    });
    expect(more).toEqual([]);
    expect(only).toMatchObject({ job: 'gate-sign', what: 'moved', by: expect.closeTo(0.25, 9) });
  });

  test('says what is made of other segments, and how far apart the two lie', () => {
    // A node put into a straight line: another make, the same place.
    const [added, ...more] = changed((s) => {
      const line = first(s);
      const at = line.kinds.indexOf('ll') + 1;
      const sizes = { l: 2, q: 4, c: 6, a: 5 } as const;
      const end = [...line.kinds.slice(0, at + 1)].reduce(
        (n, kind) => n + sizes[kind.toLowerCase() as keyof typeof sizes] + (kind < 'a' ? 2 : 0),
        0,
      );
      const [x0, y0, x1, y1] = line.numbers.slice(end - 4, end) as [number, number, number, number];
      line.kinds = `${line.kinds.slice(0, at + 1)}l${line.kinds.slice(at + 1)}`;
      line.numbers.splice(end - 2, 0, (x0 + x1) / 2, (y0 + y1) / 2);
    });
    expect(more).toEqual([]);
    expect(added?.what).toBe('kinds');
    expect(added?.by).toBeLessThan(1e-9);
    const opened = changed((s) => {
      first(s).closed = !first(s).closed;
    });
    expect(opened).toMatchObject([{ what: 'closed' }]);
  });

  test('says what comes in another order, is missing, or new', () => {
    const swapped = changed((s) => {
      shapesOf(s).push(...shapesOf(s).splice(0, 1));
    });
    expect(swapped.length).toBe(shapesOf(before).length);
    expect(new Set(swapped.map((d) => d.what))).toEqual(new Set(['order']));
    const less = changed((s) => {
      shapesOf(s).pop();
    });
    expect(less).toMatchObject([{ what: 'missing', now: '' }]);
    const more = changed((s) => {
      shapesOf(s).push(structuredClone(shapesOf(s)[0] as Loose[number]['shapes'][number]));
    });
    expect(more).toMatchObject([{ what: 'new', before: '' }]);
  });

  test('says which figure, finding or word differs', () => {
    const found = changed((s) => {
      s.report = { ...(s.report as object), title: 'other', unit: undefined };
      s.findings = [...(s.findings as unknown[]), { code: 'new' }];
    });
    expect(found.map((d) => [d.where, d.what])).toEqual([
      ['report.title', 'value'],
      ['report.unit', 'value'],
      ['findings', 'value'],
    ]);
    expect(tellAll(found)).toContain('gate-sign: 3 differences');
    expect(tellAll(found)).toContain('report.title: value');
  });
});

test('packing keeps every number to a nanometre', () => {
  const sample = snapshots.slice(0, 12);
  const again = unpack(pack(documents.slice(0, 12), sample));
  expect(again.documents).toEqual(documents.slice(0, 12));
  expect(again.snapshots).toEqual(sample);
});
