/** Words edited: whatever was chosen by hand for a letter stays with that letter, and goes when it goes. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { setWords } from '../../src/core/commands/words';
import type { Job, Part, StepOf } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { stepIn } from '../../src/core/kinds/steps';
import { dotFrames } from '../../src/core/toolpath/dots/part-dots';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

/** Every kind of choice made by hand, on every letter of the words; the letter itself is written into each. */
function chosenOnAll(text: string, more: Draft[] = []): Job {
  const letters = [...text].map((letter, at) => ({ letter, at, key: `words:${at}` }));
  const code = (letter: string) => letter.charCodeAt(0);
  return jobWith(
    [
      partOf(
        [
          lettering(text, 'Archivo Black', { letters: letters.map((l) => ({ at: l.at, dx: code(l.letter) / 100 })) }),
          ...more,
        ],
        {
          steps: [
            { kind: 'weld' },
            { kind: 'tie', answers: letters.map((l) => ({ piece: `${l.key}/1`, how: 'leave', x: code(l.letter) })) },
            {
              kind: 'bridge',
              islands: letters.map((l) => ({ letter: l.key, island: 0, how: 'hand', count: null })),
              pinned: letters.map((l) => ({ letter: l.key, island: 0, x: code(l.letter), y: 0 })),
            },
            { kind: 'centerline', corrections: letters.map((l) => ({ letter: l.key, d: `M${code(l.letter)} 0L1 1` })) },
            { kind: 'dots', changes: letters.map((l) => ({ letter: l.key, x: code(l.letter), y: 0 })) },
          ],
        },
      ),
    ],
    { leftAsIs: letters.map((l) => ({ finding: `uneven-line:part:${l.key}:kink:0`, reason: l.letter })) },
  );
}

/** Of each kind of choice: on which letter it is now, and for which letter it was made. */
function choicesOf(job: Job): Readonly<Record<string, readonly (readonly [now: string | undefined, made: string])[]>> {
  const part = job.parts[0] as Part;
  const [words] = part.members;
  if (words?.kind !== 'lettering') throw new Error('no words');
  const now = (key: string | null) => {
    const at = /^words:(\d+)/.exec(key ?? '')?.[1];
    return at === undefined ? undefined : words.text[Number(at)];
  };
  const made = (code: number | null) => String.fromCharCode(Math.round(code ?? 0));
  const step = <K extends 'tie' | 'bridge' | 'centerline' | 'dots'>(kind: K) => stepIn(part, kind) as StepOf<K>;
  return {
    letters: words.letters.map((c) => [words.text[c.at], made(100 * c.dx)]),
    ties: step('tie').answers.map((a) => [now(a.piece), made(a.x)]),
    islands: step('bridge').islands.map((s) => [now(s.letter), now(s.letter) ?? '']),
    bridges: step('bridge').pinned.map((p) => [now(p.letter), made(p.x)]),
    lines: step('centerline').corrections.map((c) => [now(c.letter), made(Number.parseInt(c.d.slice(1), 10))]),
    dots: step('dots').changes.map((c) => [now(c.letter), made(c.x)]),
    reasons: job.leftAsIs.map((l) => [now(l.finding.slice('uneven-line:part:'.length)), l.reason]),
  };
}

const edited = (job: Job, text: string): Job => setWords(job, 'part', 'words', text);

describe('every kind of choice made by hand', () => {
  // Letters that are all different, so that there is no doubt which is which.
  const shuffled = fc.shuffledSubarray([...'abcdefghijklmnopqrstuvwxyz'], { minLength: 8, maxLength: 26 });

  test('stays on its letter when others are typed before, between and after it, and goes with it', () => {
    fc.assert(
      fc.property(shuffled, fc.nat(), fc.nat(), fc.nat(), (letters, a, b, c) => {
        const start = letters.slice(0, 6);
        const from = a % (start.length + 1);
        const gone = b % (start.length + 1 - from);
        const typed = letters.slice(6, 6 + (c % (letters.length - 5)));
        const next = [...start.slice(0, from), ...typed, ...start.slice(from + gone)].join('');
        const stays = [...start.slice(0, from), ...start.slice(from + gone)];
        const job = edited(chosenOnAll(start.join('')), next);
        expect((job.parts[0] as Part).members[0]).toMatchObject({ text: next });
        for (const [kind, choices] of Object.entries(choicesOf(job)))
          expect(choices, kind).toEqual(stays.map((letter) => [letter, letter]));
      }),
    );
  });

  test('of other words, and of other parts, stays where it is', () => {
    const other = { ...lettering('xyz'), id: 'words-2' };
    const job = chosenOnAll('abc', [other]);
    (stepIn(job.parts[0] as Part, 'centerline') as StepOf<'centerline'>).corrections.push({
      letter: 'words-2:1',
      alike: null,
      d: 'M0 0L1 1',
    });
    job.parts.push({ ...structuredClone(job.parts[0] as Part), id: 'second' });
    job.leftAsIs.push({ finding: 'uneven-line:second:words:1:kink:0', reason: 'theirs' });
    job.leftAsIs.push({ finding: 'no-words:part:words', reason: 'none' });
    const next = edited(job, 'zabc');
    expect(next.parts[1]).toEqual(job.parts[1]);
    expect(stepIn(next.parts[0] as Part, 'centerline')?.corrections.map((c) => c.letter)).toEqual([
      'words:1',
      'words:2',
      'words:3',
      'words-2:1',
    ]);
    expect(next.leftAsIs.slice(-2)).toEqual(job.leftAsIs.slice(-2));
    for (const [part, member] of [
      ['gone', 'words'],
      ['part', 'gone'],
    ] as const)
      expect(setWords(job, part, member, 'new')).toBe(job);
  });
});

describe('lines drawn by hand', () => {
  const evaluate = (job: Job) => new Evaluator(wasmEngine).evaluate(job, faces);
  const drawn = (text: string, corrections: Draft[] = []) =>
    jobWith([
      partOf([lettering(text, 'Poppins', { align: 'left' })], {
        steps: [{ kind: 'weld' }, { kind: 'centerline', corrections }],
        work: [{ what: 'centerline', operation: 'mark' }],
      }),
    ]);
  const lettersOf = (job: Job) => evaluate(job).parts[0]?.linework.centerline?.letters ?? [];
  const corrected = (job: Job) => lettersOf(job).flatMap((l) => (l.corrected ? [l.text] : []));

  test('are on the same letter in what is drawn, whatever is typed before it', () => {
    const own = drawn('hoe', [{ letter: 'words:1', d: 'M0 0L0.5 0.5' }]);
    expect(corrected(own)).toEqual(['o']);
    expect(corrected(edited(own, 'a hoe'))).toEqual(['o']);
    expect(corrected(edited(own, 'he'))).toEqual([]);
  });

  test('for every such letter stay for the others when the one they were drawn on goes', () => {
    const alike = lettersOf(drawn('o'))[0]?.alike;
    const every = drawn('oboe', [{ letter: 'words:0', alike, d: 'M0 0L0.5 0.5' }]);
    expect(corrected(every)).toEqual(['o', 'o']);
    const less = edited(every, 'boe');
    expect(corrected(less)).toEqual(['o']);
    // Typed anew, it is one of them again.
    expect(corrected(edited(edited(less, 'be'), 'bone'))).toEqual(['o']);
  });

  test('for every letter of a kind are not taken for those of a shape traced as a whole', () => {
    const alike = lettersOf(drawn('o'))[0]?.alike;
    const job = drawn('oe', [{ letter: 'words:0', alike, d: 'M0 0L0.5 0.5' }]);
    job.parts[0]?.members.push({
      id: 'plate',
      kind: 'rectangle',
      role: 'join',
      placement: { x: 150, y: 20, turn: 0, mirror: false },
      width: 60,
      height: 10,
      corner: 0,
    });
    const [whole] = lettersOf(job);
    expect(whole?.corrected).toBe(false);
    expect(whole?.paths.length).toBeGreaterThan(0);
  });
});

test('a dot moved by hand goes along with its letter, whatever is typed before it', () => {
  const dotted = (text: string, changes: Draft[] = []) =>
    jobWith([
      partOf([lettering(text, 'Poppins', { align: 'left', placement: { x: 20, y: 100 } })], {
        steps: [{ kind: 'weld' }, { kind: 'dots', diameter: 1, spacing: 4, changes }],
        work: [{ what: 'dots', operation: 'mark' }],
      }),
    ]);
  const seen = (job: Job) => {
    const { parts } = new Evaluator(wasmEngine).evaluate(job, faces);
    const [part] = parts;
    const dots = part?.linework.dots;
    if (!part || !dots) throw new Error('no dots');
    return { frames: dotFrames(part), dots };
  };
  const onO = seen(dotted('ho')).frames.find((f) => f.letter === 'words:1');
  if (!onO) throw new Error('no frame');
  const home = seen(dotted('ho')).dots.dots.find((d) => d.x > onO.box.minX);
  if (!home) throw new Error('no dot');
  const own = { x: (home.x - onO.matrix.e) / onO.matrix.a, y: (home.y - onO.matrix.f) / onO.matrix.d };
  const job = dotted('ho', [{ letter: 'words:1', ...own, dx: 0.2, dy: 0 }]);
  for (const text of ['ho', 'a ho', 'hio', 'o']) {
    const { frames, dots } = seen(edited(job, text));
    const frame = frames.find((f) => f.letter === `words:${text.indexOf('o')}`);
    const moved = dots.dots.filter((d) => Math.hypot(d.x - d.home.x, d.y - d.home.y) > 1);
    expect(dots.idle, text).toBe(0);
    expect(moved, text).toHaveLength(1);
    expect(moved[0]?.home.x).toBeCloseTo((frame?.matrix.e ?? 0) + own.x * (frame?.matrix.a ?? 0), 4);
    expect(moved[0]?.x).toBeCloseTo((frame?.matrix.e ?? 0) + (own.x + 0.2) * (frame?.matrix.a ?? 0), 4);
  }
  expect(seen(edited(job, 'h')).dots.idle).toBe(0);
});
