/** Words set along lines, and the handles of those. */
import { describe, expect, test } from 'vitest';
import { alongSeen } from '../../src/bench/run-along';
import { fitIntoPanel, unfit } from '../../src/core/commands/fit';
import { nudgeLetters } from '../../src/core/commands/letters';
import { duplicate, removeParts, split } from '../../src/core/commands/parts';
import {
  dragAlong,
  runAlong,
  runAlongDrawn,
  runAlongPart,
  runStraight,
  setAlong,
  type WordsSeen,
} from '../../src/core/commands/run-along';
import type { Job } from '../../src/core/document/schema';
import { ArcLength } from '../../src/core/geometry/arc-length';
import { applyMatrix, boxCentre, boxHeight, boxWidth, type Point } from '../../src/core/geometry/point';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { boxOf, partIn, rectangle, viewed, wordsIn } from '../support/commands';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const at = { partId: 'part', memberId: 'words' };
const job = (more: Draft = {}, others: Draft[] = []) =>
  jobWith([partOf([lettering('Alder Lane', 'Poppins', { align: 'left', ...more })]), ...others]);
const view = (of: Job) => {
  const member = viewed(of).parts.find((p) => p.id === 'part')?.members[0];
  if (!member) throw new Error('nothing seen');
  return member;
};
const seen = (of: Job): WordsSeen => {
  const member = view(of);
  return { ownBox: member.ownBox, capHeightMm: member.capHeightMm, start: alongSeen(member)?.start ?? null };
};
const line = (of: Job) => {
  const found = alongSeen(view(of));
  if (!found) throw new Error('words are straight');
  return found;
};
const near = (a: Point, b: Point, mm = 0.01) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(mm);

describe('what words run along', () => {
  test.each(['arc', 'circle', 'wave'] as const)(
    'is changed to %s and back, their middle staying where it is',
    (kind) => {
      const straight = job({ placement: { x: 120, y: 80, turn: 30 } });
      const box = boxOf(straight, 'part');
      const now = runAlong(straight, at, kind, seen(straight));
      const bent = view(now);
      // Where the words start on the line is where the middle of their baseline was.
      const before = view(straight);
      const middle = applyMatrix(before.matrix, { x: (before.ownBox.minX + before.ownBox.maxX) / 2, y: 0 });
      // The middle of a circle is where that was.
      const middleNow = ({ matrix: { e, f }, along }: typeof bent, of: string) =>
        of === 'circle' ? { x: e, y: f } : (along?.start ?? { x: 0, y: 0 });
      near(middleNow(bent, kind), middle);
      const back = runStraight(now, at, seen(now));
      expect(wordsIn(back).along).toBeNull();
      near(boxCentre(boxOf(back, 'part')), boxCentre(box), 0.02);
      for (const other of ['wave', 'circle', 'arc'] as const)
        near(middleNow(view(runAlong(now, at, other, seen(now))), other), middle);
    },
  );

  test('suits the words: a ring is not longer than the words can go around', () => {
    for (const text of ['O', 'Alder Lane Community Garden and Workshop']) {
      const now = runAlong(job({ text }), at, 'circle', seen(job({ text })));
      const { path, lengthMm } = line(now);
      expect(lengthMm).toBeLessThan(new ArcLength(path).length);
    }
  });

  test('is what was drawn for them, where it was drawn', () => {
    const straight = job({ placement: { x: 50, y: 60, turn: 90 } });
    const drawn = pathOf('M0 0C40 40 80 -40 120 0').paths[0];
    if (!drawn) throw new Error('no path');
    const now = runAlongDrawn(straight, at, drawn);
    near(line(now).path.segments[0] ? { x: 0, y: 0 } : { x: 1, y: 1 }, { x: 0, y: 0 });
    near({ x: line(now).path.segments[0]?.x0 ?? 9, y: line(now).path.segments[0]?.y0 ?? 9 }, { x: 0, y: 0 });
    expect(wordsIn(now).along?.line).toMatchObject({ kind: 'path', scale: 1 });
  });

  test('is another part, that they go along with; and left, they lie where they were and go by themselves', () => {
    const emblem = partOf([{ ...rectangle('r', 0), placement: { x: 0, y: 0 }, width: 80, height: 50 }], {
      id: 'emblem',
      placement: { x: 150, y: 100, turn: 20 },
    });
    const now = runAlongPart(job({}, [emblem]), at, 'emblem');
    expect(partIn(now)).toMatchObject({ along: 'emblem', placement: { x: 0, y: 0, turn: 0 } });
    expect(wordsIn(now)).toMatchObject({ align: 'centre', along: { line: { kind: 'outline', of: 'emblem' } } });
    expect(boxWidth(boxOf(now, 'part'))).toBeGreaterThan(60);
    const start = view(now).along?.start ?? { x: 0, y: 0 };
    const free = runAlong(now, at, 'arc', seen(now));
    expect(partIn(free).along).toBeNull();
    near(view(free).along?.start ?? { x: 0, y: 0 }, start, 0.02);
    // Never along itself, nor along what is not there.
    expect(runAlongPart(now, at, 'part')).toBe(now);
    expect(runAlongPart(now, at, 'gone')).toBe(now);
  });

  test('left, the words still go along with what they lie on otherwise', () => {
    const plate = partOf([{ ...rectangle('r', 0), placement: { x: 0, y: 0 }, width: 120, height: 80 }], {
      id: 'plate',
    });
    const along = runAlongPart(job({}, [plate]), at, 'plate');
    const both = fitIntoPanel(along, at, { of: 'plate', outline: 0, margin: 2 });
    const straight = runStraight(both, at, seen(both));
    expect(partIn(straight).along).toBe('plate');
    const free = unfit(straight, at, { capHeightMm: 9, place: { x: 0, y: 0 } });
    expect(partIn(free).along).toBeNull();
  });

  test('of a locked part stays as it is', () => {
    const locked = jobWith([partOf([lettering('Alder')], { locked: true }), partOf([rectangle('r', 9)], { id: 'e' })]);
    expect(runAlong(locked, at, 'arc', seen(locked))).toBe(locked);
    expect(runAlongPart(locked, at, 'e')).toBe(locked);
    expect(setAlong(locked, at, { distance: 3 })).toBe(locked);
  });

  test('goes with copies of both parts, and holds a part together that they run along', () => {
    const emblem = partOf([rectangle('r', 100), rectangle('q', 140)], { id: 'emblem' });
    const now = runAlongPart(job({}, [emblem]), at, 'emblem');
    const copied = duplicate(now, { partIds: ['part', 'emblem'], memberId: null });
    const words = copied.job.parts.flatMap((p) => p.members).filter((m) => m.kind === 'lettering');
    const lines = words.map((m) => (m.along?.line.kind === 'outline' ? m.along.line.of : ''));
    expect(new Set(lines).size).toBe(2);
    expect(lines.every((of) => copied.job.parts.some((p) => p.id === of))).toBe(true);
    expect(split(now, 'emblem').sentence).toContain('lie on it');
    expect(wordsIn(removeParts(now, ['emblem'])).text).toBe('Alder Lane');
  });
});

describe('handles', () => {
  const ring = (more: Draft = {}) => job({ align: 'centre', along: { line: { kind: 'circle', radius: 70 }, ...more } });

  test('drag the words along the line, the short way around', () => {
    let now = ring();
    for (const deg of [80, 20, 270, 180.5, 179.5]) {
      const to = { x: 70 * Math.cos((deg * Math.PI) / 180), y: 70 * Math.sin((deg * Math.PI) / 180) };
      now = dragAlong(now, at, 'start', { to, seen: line(now) });
      near(line(now).start, to);
      expect(Math.abs(wordsIn(now).along?.start ?? 0)).toBeLessThanOrEqual(Math.PI * 70 + 0.01);
    }
  });

  test('drag an arc through a place, by its radius or its rise', () => {
    for (const by of ['radius', 'rise'] as const)
      for (const y of [-14, 9]) {
        const now = job({ align: 'centre', along: { line: { kind: 'arc', by, mm: 20 } } });
        const { lengthMm } = line(now);
        const next = dragAlong(now, at, 'bend', { to: { x: 0.46 * lengthMm, y }, seen: line(now) });
        const { path } = line(next);
        const curve = new ArcLength(path);
        const p = curve.at(curve.nearest({ x: 0.46 * lengthMm, y }));
        near(p, { x: 0.46 * lengthMm, y }, 0.02);
        const level = dragAlong(now, at, 'bend', { to: { x: 50, y: 0 }, seen: line(now) });
        expect(level).toBe(now);
      }
  });

  test('drag a radius, a crest and a node', () => {
    expect(
      wordsIn(dragAlong(ring(), at, 'bend', { to: { x: 30, y: 40 }, seen: line(ring()) })).along?.line,
    ).toMatchObject({ radius: 50 });
    const wave = job({ along: { line: { kind: 'wave', length: 80, height: 10 } } });
    expect(wordsIn(dragAlong(wave, at, 'bend', { to: { x: 25, y: 8 }, seen: line(wave) })).along?.line).toMatchObject({
      length: 100,
      height: 16,
    });
    const drawn = job({ along: { line: { kind: 'path', d: 'M0 0C10 20 30 20 40 0L80 0', scale: 2 } } });
    const moved = dragAlong(drawn, at, { node: 1 }, { to: { x: 90, y: 5 }, seen: line(drawn) });
    const { path } = line(moved);
    near({ x: path.segments[1]?.x0 ?? 0, y: path.segments[1]?.y0 ?? 0 }, { x: 90, y: 5 });
    near({ x: path.segments[0]?.x1 ?? 0, y: path.segments[0]?.y1 ?? 0 }, { x: 90, y: 5 });
    const ended = dragAlong(drawn, at, { node: 2 }, { to: { x: 170, y: -5 }, seen: line(drawn) });
    near({ x: line(ended).path.segments[1]?.x1 ?? 0, y: line(ended).path.segments[1]?.y1 ?? 0 }, { x: 170, y: -5 });
    const closed = job({ along: { line: { kind: 'path', d: 'M0 0L80 0L40 60Z' } } });
    const corner = line(closed).path.segments[0];
    const first = dragAlong(
      closed,
      at,
      { node: 0 },
      { to: { x: (corner?.x0 ?? 0) - 5, y: corner?.y0 ?? 0 }, seen: line(closed) },
    );
    expect(line(first).path.segments.length).toBe(3);
  });

  test('words that are straight have none', () => {
    const straight = job();
    const drawn = pathOf('M0 0L10 0').paths[0];
    if (!drawn) throw new Error('no path');
    const of = { path: drawn, start: { x: 0, y: 0 }, lengthMm: 10 };
    expect(dragAlong(straight, at, 'start', { to: { x: 5, y: 0 }, seen: of })).toBe(straight);
  });
});

test('a letter that is dragged goes with the pointer, however it is turned', () => {
  const now = job({
    align: 'centre',
    along: { line: { kind: 'circle', radius: 40 } },
    placement: { x: 150, y: 100, turn: 10 },
  });
  const before = view(now).picks[0];
  const next = nudgeLetters(now, 'part', { memberId: 'words', picked: [0], dx: 3, dy: -7, seen: view(now) });
  const after = view(next).picks[0];
  near(after?.corners[0] ?? { x: 0, y: 0 }, {
    x: (before?.corners[0]?.x ?? 0) + 3,
    y: (before?.corners[0]?.y ?? 0) - 7,
  });
  expect(boxHeight(boxOf(next, 'part'))).toBeGreaterThan(0);
});
