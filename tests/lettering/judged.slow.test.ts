/**
 * Shaping against HarfBuzz's own command line, and outlines and advances against fontTools, at places along axes and with features.
 *
 * @module-tag slow
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from 'vitest';
import type { Path } from '../../src/core/geometry/path';
import { pathOf } from '../../src/core/geometry/read-path-data';
import { aboutOf } from '../../src/core/lettering/about';
import { unpackTypeface } from '../../src/core/lettering/containers';
import type { Typeface } from '../../src/core/lettering/face';
import { visualRuns } from '../../src/core/lettering/runs';
import { scriptOf } from '../../src/core/lettering/scripts';
import { openTypeface } from '../../src/core/lettering/typeface';
import { folder } from '../support/checkers';
import { figure } from '../support/figures';
import { alongPaths, distanceFrom } from '../support/outlined';
import { chance } from '../support/random';
import { inFull } from '../support/scale';
import { type Labelled, OTHER_SCRIPTS, STATIC_FACES, VARIABLE_FACES } from '../support/typefaces';

const DEJAVU = '/usr/share/fonts/truetype/dejavu';
const AT_HAND: readonly Labelled[] = [
  ...['DejaVuSans', 'DejaVuSerif-BoldItalic'].map((name) => ({
    name,
    file: `${DEJAVU}/${name}.ttf`,
    look: 'plain' as const,
  })),
  { name: 'Poppins', file: 'public/typefaces/poppins.ttf', look: 'plain' },
  { name: 'Caveat', file: 'public/typefaces/caveat.ttf', look: 'hand' },
];
const JUDGED = inFull ? [...STATIC_FACES, ...VARIABLE_FACES, ...OTHER_SCRIPTS, ...AT_HAND] : AT_HAND.slice(1, 3);

const PHRASES = [
  'Alder Lane',
  'GARDEN',
  'fi fl ff ffi',
  'AVATAR To We',
  'Sow in March',
  'œuvre',
  'Ångström',
  'naïve façade',
  '0123456789',
  '1/2 3/4',
  'L’été',
  'Ty. Te, Yo',
  'quilt',
  'Seedlings',
  '“Sage”',
  'kiln & co.',
  'ij IJ',
  'Ž č ř',
  'minimum',
  'ß ẞ',
];

/** Words of characters that the face has, script by script: never two scripts in one. */
function wordsFor(face: Typeface, seed: number): string[] {
  const random = chance(seed);
  const byScript = new Map<string, string[]>();
  for (const code of face.characters()) {
    const character = String.fromCodePoint(code);
    const script = /\p{L}/u.test(character) ? scriptOf(character) : null;
    if (script) byScript.set(script, [...(byScript.get(script) ?? []), character]);
  }
  const scripts = [...byScript.values()].filter((letters) => letters.length >= 10);
  const words = scripts.flatMap((letters) =>
    Array.from({ length: Math.ceil(20 / scripts.length) }, () =>
      Array.from({ length: 1 + Math.floor(8 * random()) }, () => letters[Math.floor(letters.length * random())]).join(
        '',
      ),
    ),
  );
  return inFull ? [...PHRASES, ...words].slice(0, 40) : [...PHRASES.slice(0, 8), ...words.slice(0, 8)];
}

/** Outlines are this near, in units of the face. */
const NEAR = 1;

/** How far two drawings of a glyph are apart: point by point where they have the same, else along their outlines. */
function apartBy(ours: readonly Path[], theirs: readonly Path[]): number {
  const points = (paths: readonly Path[]) =>
    paths.flatMap((p) =>
      p.segments.flatMap((s) => [s.x1, s.y1, ...('ax' in s ? [s.ax, s.ay] : []), ...('bx' in s ? [s.bx, s.by] : [])]),
    );
  const [a, b] = [points(ours), points(theirs)];
  if (a.length === b.length) {
    const most = a.reduce((sum, v, i) => Math.max(sum, Math.abs(v - (b[i] as number))), 0);
    if (most <= 1) return most;
  }
  let worst = 0;
  for (const [from, to] of [
    [ours, theirs],
    [theirs, ours],
  ] as const) {
    const away = distanceFrom(to);
    for (const p of alongPaths(from)) worst = Math.max(worst, away(p));
  }
  return worst;
}

type Glyph = { readonly g: number; readonly cl: number; readonly dx: number; readonly dy: number; readonly ax: number };

/** What HarfBuzz's command makes of words, a line each. */
function shapedBy(
  file: string,
  words: readonly string[],
  place: Readonly<Record<string, number>>,
  feature: string | null,
) {
  const text = path.join(folder(), 'words.txt');
  writeFileSync(text, words.join('\n'));
  const variations = Object.entries(place).map(([tag, value]) => `${tag}=${value}`);
  const out = execFileSync('hb-shape', [
    `--font-file=${file}`,
    `--text-file=${text}`,
    '--output-format=json',
    '--no-glyph-names',
    '--utf8-clusters',
    ...(variations.length > 0 ? [`--variations=${variations.join()}`] : []),
    ...(feature ? [`--features=${feature}`] : []),
  ]).toString();
  return out
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Glyph[]);
}

test('glyphs, advances and outlines are those of other programs', { timeout: 3_600_000 }, async () => {
  const out = folder();
  let [strings, outlines, worst] = [0, 0, 0];
  const apart: string[] = [];
  for (const [index, labelled] of JUDGED.entries()) {
    const unpacked = await unpackTypeface(new Uint8Array(readFileSync(labelled.file)));
    if (unpacked.kind !== 'outlines') throw new Error(labelled.name);
    const file = path.join(out, `${index}.ttf`);
    writeFileSync(file, unpacked.bytes);
    const opened = await openTypeface(unpacked.bytes);
    if (!opened.ok) throw new Error(opened.sentence);
    const about = aboutOf(opened.open, 0);
    if (typeof about === 'string') throw new Error(about);
    const places =
      about.axes.length === 0
        ? [{}]
        : (['usual', 'least', 'most'] as const).map((at) =>
            Object.fromEntries(about.axes.map((axis) => [axis.tag, axis[at]])),
          );
    const features = [
      null,
      ...about.features
        .filter((f) => !['kern', 'liga', 'calt'].includes(f.tag))
        .slice(0, 3)
        .map((f) => f.tag),
    ];
    for (const place of places) {
      const load = opened.open.at({ number: 0, axes: place });
      if (!load.ok) throw new Error(load.sentence);
      const face = load.typeface;
      const words = wordsFor(face, index + 1);
      const used = new Set<number>();
      for (const feature of features) {
        const theirs = shapedBy(file, words, place, feature);
        words.forEach((text, i) => {
          const runs = visualRuns(text);
          // Several runs are put together here, where the command takes a line for one.
          if (runs.length !== 1) return;
          strings++;
          const shaping = { ligatures: true, features: feature ? [{ tag: feature, value: 1 }] : [] };
          const ours = face.shape(text, runs[0]?.direction ?? 'ltr', shaping);
          for (const { glyph } of ours) used.add(glyph);
          const said = JSON.stringify(ours.map((g) => [g.glyph, g.advance, g.dx, g.dy]));
          if (said !== JSON.stringify((theirs[i] ?? []).map((g) => [g.g, g.ax, g.dx, g.dy])))
            apart.push(`${labelled.name}${feature ? ` ${feature}` : ''}: ${text}`);
        });
      }
      const asked = { file, number: 0, place, glyphs: [...used] };
      const drawn = JSON.parse(
        execFileSync('/usr/bin/python3', ['tests/lettering/check_faces.py'], {
          input: JSON.stringify(asked),
          maxBuffer: 1 << 28,
        }).toString(),
      ) as Record<string, { d: string; advance: number }>;
      for (const glyph of used) {
        const [ours, theirs] = [face.outline(glyph), pathOf(drawn[glyph]?.d ?? '').paths];
        outlines++;
        if (theirs.length === 0 || ours.length === 0) {
          expect(ours.length, `${labelled.name} ${glyph}`).toBe(theirs.length);
          continue;
        }
        worst = Math.max(worst, apartBy(ours, theirs));
        expect(worst, `${labelled.name} ${glyph}`).toBeLessThanOrEqual(NEAR);
      }
    }
  }
  figure({
    name: 'outlines of faces that do not ship, from fontTools’',
    value: worst,
    digits: 3,
    unit: 'units of the face',
    aim: { most: NEAR },
    note: `${JUDGED.length} faces, ${outlines.toLocaleString('en')} glyphs; ${strings.toLocaleString('en')} strings shaped as by hb-shape, ${apart.length} of them otherwise`,
  });
  expect(apart).toEqual([]);
});
