import { describe, expect, test } from 'vitest';
import { BooleanSession } from '../../src/core/geometry/boolean/session';
import { countSegments, isContinuous, type Path, regionArea, reversePath } from '../../src/core/geometry/path';
import { IDENTITY } from '../../src/core/geometry/point';
import { letterOutlines } from '../../src/core/lettering/set-letter';
import { Memo } from '../../src/core/memo';
import { measureOutlines, type Outline } from '../../src/core/prepare/outline';
import { weldLettering, weldTolerance } from '../../src/core/prepare/weld';
import { countCrossings, nonZeroArea } from '../support/area';
import { FAMILIES, rawOutlines, scriptEngine, set, typeface, wasmEngine } from '../support/faces';
import { figure } from '../support/figures';
import { countingMemory } from '../support/memory';
import { chance, randomWord } from '../support/random';
import { sample } from '../support/scale';

/** Words per typeface. */
const WORDS = sample(8, 400);

/** Welded area may differ from the independent fill by this share. */
const AREA_SHARE = 2e-4;

const weldRaw = (paths: readonly Path[], capHeightMm: number) => {
  const session = new BooleanSession(wasmEngine, weldTolerance(capHeightMm));
  const out = session.rebuild(session.clip('union', session.add(paths, 0))).map((l) => l.path);
  return { out, figures: session.figures };
};

describe.each(FAMILIES)('%s', (family) => {
  test(`${WORDS} words, random spacing, size and turn: area of the fill, closed, nothing lost, few nodes`, {
    tags: 'slow',
  }, () => {
    const next = chance(FAMILIES.indexOf(family) + 1);
    const face = typeface(family);
    let worst = 0;
    for (let i = 0; i < WORDS; i++) {
      const word = randomWord(next);
      const layout = set(family, word, {
        size: { by: 'capital', mm: 8 + next() * 60 },
        letterSpacing: next() < 0.35 ? 0 : (next() - 0.6) * 0.5,
      });
      const raw = rawOutlines(layout, face, next() < 0.3 ? 0 : next() * 360);
      const { out, figures } = weldRaw(raw, layout.capHeightMm);
      const label = `${word} ${i}`;
      expect(figures.lostEdges, label).toBe(0);
      expect(
        out.every((p) => p.closed && isContinuous(p)),
        label,
      ).toBe(true);
      const expected = nonZeroArea(raw);
      const off = Math.abs(regionArea(out) - expected) / expected;
      worst = Math.max(worst, off);
      expect(off, label).toBeLessThan(AREA_SHARE);
      // A spike thinner than the chords are close crosses itself only when looked at more closely.
      const most = (chordMm: number) => countSegments(raw) + 2 * countCrossings(raw, chordMm);
      const tolerance = weldTolerance(layout.capHeightMm);
      if (countSegments(out) > most(tolerance))
        expect(countSegments(out), label).toBeLessThanOrEqual(most(tolerance / 25));
    }
    figure({
      name: `Welded area against an independent fill, worst of ${WORDS} words, ${family}`,
      value: worst * 100,
      digits: 5,
      unit: '%',
      aim: { most: AREA_SHARE * 100 },
      note: 'no open outline, no lost edge, no more segments than the source and two a crossing',
    });
  });

  test('the welded member equals one union of everything, whatever it is split into', { tags: 'slow' }, () => {
    const next = chance(900 + FAMILIES.indexOf(family));
    const face = typeface(family);
    for (let i = 0; i < 6; i++) {
      const text = `${randomWord(next)} ${randomWord(next)}\n${randomWord(next)}`;
      const layout = set(family, text, { letterSpacing: (next() - 0.7) * 0.3, lineSpacing: 0.4 + next() * 0.6 });
      const caches = new Memo();
      const member = weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY, memory: caches });
      const { out } = weldRaw(rawOutlines(layout, face), layout.capHeightMm);
      const whole = measureOutlines(out.map((path) => ({ path, labels: [] })));
      expect(member.length, text).toBe(whole.length);
      expect(member.reduce((s, o) => s + o.area, 0)).toBeCloseTo(
        whole.reduce((s, o) => s + o.area, 0),
        2,
      );
      expect(member.map((o) => o.depth).sort(), text).toEqual(whole.map((o) => o.depth).sort());
      const again = weldLettering(wasmEngine, layout, { weld: true, matrix: IDENTITY, memory: caches });
      expect(again).toEqual(member);
    }
  });
});

test('both engines weld alike', () => {
  for (const family of ['Pacifico', 'Fredoka', 'JetBrains Mono']) {
    const layout = set(family, 'Alder Lane gäy');
    const a = weldLettering(wasmEngine, layout, {
      weld: true,
      matrix: IDENTITY,
      memory: new Memo(),
    });
    const b = weldLettering(scriptEngine, layout, {
      weld: true,
      matrix: IDENTITY,
      memory: new Memo(),
    });
    expect(a.length).toBe(b.length);
    expect(a.reduce((s, o) => s + o.area, 0)).toBeCloseTo(
      b.reduce((s, o) => s + o.area, 0),
      4,
    );
  }
});

test('with welding off every letter keeps its own clean outline', () => {
  const layout = set('Pacifico', 'weld');
  const caches = new Memo();
  const off = weldLettering(wasmEngine, layout, {
    weld: false,
    matrix: IDENTITY,
    memory: caches,
  });
  for (const outline of off) expect(new Set(outline.labels).size).toBe(1);
  const on = weldLettering(wasmEngine, layout, {
    weld: true,
    matrix: IDENTITY,
    memory: caches,
  });
  const area = (list: readonly Outline[]) => list.reduce((s, o) => s + o.area, 0);
  expect(area(off)).toBeGreaterThan(area(on) * 1.001);
});

test('a letter that overlaps itself inside its glyph comes out clean', () => {
  // Fredoka builds letters such as X of overlapping strokes.
  const layout = set('Fredoka', 'X');
  const raw = rawOutlines(layout, typeface('Fredoka'));
  expect(countCrossings(raw)).toBeGreaterThan(0);
  const clean = weldLettering(wasmEngine, layout, {
    weld: false,
    matrix: IDENTITY,
    memory: new Memo(),
  });
  expect(clean).toHaveLength(1);
  expect(countCrossings(clean.map((o) => o.path))).toBe(0);
});

test('letters that run the other way round are united with their neighbours, not taken from them', () => {
  const layout = set('Poppins', 'on', { letterSpacing: -0.25 });
  const face = typeface('Poppins');
  const turned = layout.letters.map((letter, i) => ({
    ...letter,
    drawn: i === 0 ? null : { paths: letterOutlines(letter, face).map(reversePath), key: 'turned', lowered: null },
  }));
  const areaOf = (l: typeof layout) => {
    const out = weldLettering(wasmEngine, l, { weld: true, matrix: IDENTITY });
    return out.reduce((sum, o) => sum + o.area, 0);
  };
  expect(areaOf(layout)).toBeLessThan(regionArea(rawOutlines(layout, face)) * -0.98);
  expect(areaOf({ ...layout, letters: turned })).toBeCloseTo(areaOf(layout), 6);
});

test('changing one letter welds only what it touches', () => {
  const { memory, made } = countingMemory();
  const text = 'the quick brown fox jumps over the lazy dog '.repeat(4);
  weldLettering(wasmEngine, set('Archivo Black', text), { weld: true, matrix: IDENTITY, memory });
  const before = made('cluster');
  expect(before).toBeGreaterThan(20);
  weldLettering(wasmEngine, set('Archivo Black', text.replace('quick', 'quÉck')), {
    weld: true,
    matrix: IDENTITY,
    memory,
  });
  expect(made('cluster') - before).toBeGreaterThan(0);
  expect(made('cluster') - before).toBeLessThan(8);
});
