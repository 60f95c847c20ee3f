/** A job packed to be taken along, and unpacked: the same, and nothing that should not be in it. */

import fc from 'fast-check';
import { strToU8, type Zippable, zipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import { JOB_FORMAT } from '../../src/core/document/schema';
import { growPart } from '../../src/core/document/sizes';
import { boxWidth } from '../../src/core/geometry/point';
import { Evaluator } from '../../src/core/job/evaluate';
import { takenName } from '../../src/core/job/file-names';
import {
  filesNamed,
  openTaken,
  ownFacesNamed,
  packJob,
  type TakenFile,
  withWordsAsSet,
} from '../../src/core/job/taken-along';
import type { FaceLookup } from '../../src/core/prepare/prepared';
import { partIn, wordsIn } from '../support/commands';
import { faces, typeface, wasmEngine } from '../support/faces';
import { type Draft, demoJobs, jobWith, lettering, partOf } from '../support/jobs';

const id = (n: number) => n.toString(16).padStart(64, '0');
const file = (n: number, as: TakenFile['as'] = 'typeface'): TakenFile => ({
  id: id(n),
  as,
  name: `File ${n}`,
  bytes: Uint8Array.from({ length: 100 }, (_, i) => (i * n) % 256),
});
const gate = () => demoJobs().get('gate-sign') ?? jobWith([]);
const sentenceOf = (bytes: Uint8Array) => {
  const opened = openTaken(bytes);
  return opened.ok ? 'opened' : opened.sentence;
};

describe('packing', () => {
  test('and unpacking gives the same job and files, and the same bytes every time', () => {
    for (const [name, job] of demoJobs()) {
      const files = [file(1), file(2, 'picture'), file(3, 'drawing')];
      const packed = packJob(job, files, ['Something stays here.']);
      expect(packJob(job, files, ['Something stays here.']), name).toEqual(packed);
      const opened = openTaken(packed);
      expect(opened).toEqual({ ok: true, job, files, leftOut: ['Something stays here.'] });
    }
  });

  test('names what a job names, each once', () => {
    const own = { face: 'House Script', style: 'Bold', content: id(1) };
    const job = jobWith(
      [
        partOf([
          lettering('Oak\nAsh', 'House Script', {
            ...own,
            lines: [{ line: 1, face: { face: 'Other', content: id(2) } }],
          }),
          { id: 'a', kind: 'artwork', placement: { x: 0, y: 0 }, drawing: id(3), original: id(4), name: 'shed.dxf' },
          { id: 't', kind: 'trace', placement: { x: 0, y: 0 }, pixels: id(5), columns: 9, rows: 9, scale: 1 },
        ]),
        partOf([lettering('Elm', 'House Script', own)], { id: 'more' }),
      ],
      {
        pictures: [
          { id: 'p', pixels: id(5), original: id(6), columns: 9, rows: 9, scale: 1, placement: { x: 0, y: 0 } },
        ],
      },
    );
    expect(filesNamed(job).map((f) => [f.id, f.as, f.name])).toEqual([
      [id(1), 'typeface', 'House Script Bold'],
      [id(2), 'typeface', 'Other'],
      [id(3), 'drawing', ''],
      [id(4), 'original', 'shed.dxf'],
      [id(5), 'picture', ''],
      [id(6), 'original', ''],
    ]);
    expect(ownFacesNamed(job).map((f) => f.face)).toEqual(['House Script', 'Other']);
    expect(takenName(gate())).toMatch(/^[\w-]+\.needlefile$/);
  });
});

describe('what does not open', () => {
  const about = (more: Draft = {}) =>
    strToU8(JSON.stringify({ needlefile: 1, title: 'Trial', files: [], leftOut: [], ...more }));
  const document = strToU8(JSON.stringify(gate()));
  const zipped = (entries: Zippable) => zipSync(entries);

  test.each([
    ['no zip file', strToU8('<svg/>'), 'no zip file'],
    ['some other zip file', zipped({ 'photo.jpg': strToU8('x') }), '“photo.jpg”, which does not belong'],
    ['one with nothing in it', zipped({}), 'is not a job taken along'],
    ['one without a document', zipped({ 'about.json': about() }), 'is not a job taken along'],
    ['a path out of it', zipped({ '../../etc/passwd': strToU8('x') }), 'does not belong'],
    ['an absolute path', zipped({ '/files/x': strToU8('x') }), 'does not belong'],
    ['a newer one', zipped({ 'about.json': about({ needlefile: 2 }), 'document.json': document }), 'newer Needlefile'],
    [
      'one with a newer document',
      zipped({
        'about.json': about(),
        'document.json': strToU8(JSON.stringify({ ...gate(), format: JOB_FORMAT + 1 })),
      }),
      'newer',
    ],
    ['one whose words are none', zipped({ 'about.json': strToU8('{'), 'document.json': document }), 'damaged'],
    [
      'one that says odd things',
      zipped({ 'about.json': about({ files: 'many' }), 'document.json': document }),
      'damaged',
    ],
    [
      'one that lacks a file it names',
      zipped({ 'about.json': about({ files: [{ id: id(1), as: 'typeface', name: 'x' }] }), 'document.json': document }),
      'did not arrive whole',
    ],
    ['a document that is none', zipped({ 'about.json': about(), 'document.json': strToU8('[]') }), ''],
  ])('%s', (_, bytes, words) => {
    const sentence = sentenceOf(bytes);
    expect(sentence).not.toBe('opened');
    expect(sentence).toContain(words);
    expect(sentence).toMatch(/\.$/);
  });

  /** The place of an entry in the list at the end of a zip file. */
  const listed = (bytes: Uint8Array, name: string): number => {
    const text = Buffer.from(bytes).toString('latin1');
    const at = text.lastIndexOf(name);
    return at - 46;
  };

  test('the same name twice', () => {
    const packed = packJob(gate(), [file(1), file(2)], []).slice();
    const at = listed(packed, `files/${id(2)}`);
    packed.set(strToU8(id(1)), at + 46 + 'files/'.length);
    expect(sentenceOf(packed)).toContain('twice');
  });

  test('what says it is small and is not, and what says it is huge', () => {
    const bomb = zipSync({ 'about.json': about(), 'document.json': new Uint8Array(20_000_000) });
    expect(sentenceOf(bomb)).toContain('larger than what is read');
    const small = bomb.slice();
    new DataView(small.buffer).setUint32(listed(small, 'document.json') + 24, 100, true);
    expect(sentenceOf(small)).not.toBe('opened');
    const huge = packJob(gate(), [file(1)], []).slice();
    new DataView(huge.buffer).setUint32(listed(huge, `files/${id(1)}`) + 24, 0xfffffff0, true);
    expect(sentenceOf(huge)).toContain('larger than what is read');
  });

  test('one that was cut off or changed on the way: a sentence, or the job as it was', () => {
    const packed = packJob(gate(), [file(1)], []);
    fc.assert(
      fc.property(fc.nat(packed.length - 1), fc.nat(255), fc.boolean(), (at, value, isCut) => {
        const spoiled = isCut ? packed.slice(0, at) : packed.slice();
        if (!isCut) spoiled[at] = value;
        const opened = openTaken(spoiled);
        if (!opened.ok) expect(opened.sentence).toMatch(/\.$/);
        else expect(opened.job.parts.length).toBeGreaterThan(0);
      }),
      { numRuns: 300, seed: 7 },
    );
  });
});

describe('words in a typeface that stays where it is', () => {
  /** The typefaces there are without one family. */
  const without =
    (family: string): FaceLookup =>
    (wish) =>
      wish.face === family ? { sentence: 'It is not here.' } : faces(wish);
  const outlinesOf = (job: ReturnType<typeof jobWith>, lookup: FaceLookup) => {
    const result = new Evaluator(wasmEngine).evaluate(job, lookup);
    const part = result.parts[0];
    return { d: part?.outlines.map((o) => o.path) ?? [], open: part?.openPaths ?? [], part, result };
  };
  const asSet = (job: ReturnType<typeof jobWith>, family: string) => {
    const evaluator = new Evaluator(wasmEngine);
    return withWordsAsSet(
      job,
      (face) => face.face === family,
      (of, partId) => evaluator.prepare(of, partId, faces)?.members ?? [],
    );
  };
  /** What is drawn lies as it did, to a nanometre or so. */
  const same = (a: ReturnType<typeof outlinesOf>, b: ReturnType<typeof outlinesOf>) => {
    expect(b.d.length).toBe(a.d.length);
    const flat = (o: typeof a) =>
      [...o.d, ...o.open].flatMap((path) => path.segments.flatMap((s) => [s.x0, s.y0, s.x1, s.y1]));
    const [p, q] = [flat(a), flat(b)];
    expect(q.length).toBe(p.length);
    expect(Math.max(...p.map((v, i) => Math.abs(v - (q[i] as number))))).toBeLessThan(1e-4);
  };

  test.each([
    ['plain', {}, {}],
    [
      'closed up, turned and mirrored',
      { closeUp: { overlap: 1 }, placement: { x: 150, y: 90, turn: 20, mirror: true } },
      {},
    ],
    [
      'of several lines and faces',
      { text: 'Oak\nand ash', lines: [{ line: 1, face: { face: 'Poppins' }, scale: 0.5 }] },
      {},
    ],
    [
      'along a circle with a bar',
      { along: { line: { kind: 'circle', radius: 60 } } },
      { steps: [{ kind: 'bar', at: 'under', height: 3, overlap: 1, beyond: 2 }] },
    ],
    ['fitted into a box', { fit: { to: 'box', width: 120, height: 60, margin: 5 } }, {}],
    ['with an overall width and a border', {}, { overallWidth: 180, steps: [{ kind: 'border', distance: 3 }] }],
    ['bridged', { text: 'OAB' }, { keep: 'outside', steps: [{ kind: 'bridge', width: 2 }] }],
  ])('%s come out as they were', (_, more, part) => {
    const job = jobWith([partOf([lettering('Alder', 'Pacifico', { ...more })], part)]);
    const before = outlinesOf(job, faces);
    const packed = asSet(job, 'Pacifico');
    expect(wordsIn(packed).asSet).not.toBeNull();
    const opened = openTaken(packJob(packed, [], []));
    if (!opened.ok) throw new Error(opened.sentence);
    const after = outlinesOf(opened.job, without('Pacifico'));
    same(before, after);
    expect(after.result.findings.map((f) => f.code)).toContain('words-as-they-came');
    // Where the typeface is, it is used.
    same(before, outlinesOf(opened.job, faces));
    expect(outlinesOf(opened.job, faces).result.findings.map((f) => f.code)).not.toContain('words-as-they-came');
  });

  test('grow with their part, and are not used for other words', () => {
    const packed = asSet(
      jobWith([partOf([lettering('Alder', 'Pacifico', { along: { line: { kind: 'arc', by: 'radius', mm: 90 } } })])]),
      'Pacifico',
    );
    const grown = structuredClone(partIn(packed));
    growPart(grown, 2, false);
    const [small, large] = [packed, { ...packed, parts: [grown] }].map(
      (job) => outlinesOf(job, without('Pacifico')).part,
    );
    expect(boxWidth(large?.box ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 })).toBeCloseTo(
      2 * boxWidth(small?.box ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 }),
      3,
    );
    const words = { ...wordsIn(packed), text: 'Elder' };
    const changed = { ...packed, parts: [{ ...partIn(packed), members: [words] }] };
    const { result } = outlinesOf(changed, without('Pacifico'));
    expect(result.findings.map((f) => f.code)).toContain('no-typeface');
  });

  test('are the same words in whichever order a database keeps their fields', () => {
    const packed = asSet(
      jobWith([partOf([lettering('Alder\nOak', 'Pacifico', { lines: [{ line: 1, scale: 0.5 }] })])]),
      'Pacifico',
    );
    const reversed = (value: unknown): unknown =>
      Array.isArray(value)
        ? value.map(reversed)
        : value !== null && typeof value === 'object'
          ? Object.fromEntries(
              Object.entries(value)
                .reverse()
                .map(([k, v]) => [k, reversed(v)]),
            )
          : value;
    const turned = reversed(packed) as typeof packed;
    expect(JSON.stringify(turned)).not.toBe(JSON.stringify(packed));
    same(outlinesOf(packed, faces), outlinesOf(turned, without('Pacifico')));
  });

  test('of one-line faces stay lines', () => {
    const job = jobWith([partOf([lettering('Alder', 'Hershey Sans')])]);
    expect(typeface('Hershey Sans').isSingleStroke).toBe(true);
    const after = outlinesOf(asSet(job, 'Hershey Sans'), without('Hershey Sans'));
    same(outlinesOf(job, faces), after);
    expect(after.open.length).toBeGreaterThan(3);
  });
});
