/** Findings that are alike as one, and whether a part is to hang together. */
import { describe, expect, test } from 'vitest';
import { allHanging, setHangs } from '../../src/core/commands/hangs';
import { hangsTogether } from '../../src/core/document/hangs';
import type { Job, Part } from '../../src/core/document/schema';
import type { Finding } from '../../src/core/inspect/finding';
import { Evaluator } from '../../src/core/job/evaluate';
import { groupsOf, mendingOfAll, openGroups, worstOf } from '../../src/core/rules/groups';
import type { Seen } from '../../src/core/rules/rule';
import { MANY } from '../../src/core/rules/rules';
import { faces, wasmEngine } from '../support/faces';
import { type Draft, jobWith, lettering, partOf } from '../support/jobs';

const evaluator = new Evaluator(wasmEngine);
const findings = (job: Job) => evaluator.evaluate(job, faces).findings;
const seen: Seen = {
  middleOf: () => ({ x: 0, y: 0 }),
  capHeightOf: () => 30,
  bridgesOf: (partId) => ({
    bridges: [],
    keys: [],
    measure: { capHeightMm: 30, leastWidthMm: null, kerfMm: null },
    partId,
  }),
};
const finding = (code: string, n: number, more: Partial<Finding> = {}): Finding => ({
  key: `${code}:${n}`,
  code,
  severity: 'caution',
  sentence: `${code} ${n}.`,
  station: 'hold',
  partId: 'part',
  memberId: null,
  box: null,
  mend: null,
  leftReason: null,
  ...more,
});

describe('groups', () => {
  test('are of one rule at one station, in the order of their first, as grave as their worst', () => {
    const all = [
      finding('b', 1, { severity: 'note' }),
      finding('a', 1),
      finding('b', 2, { severity: 'fault' }),
      finding('b', 3, { station: 'fill' }),
    ];
    const groups = groupsOf(all);
    expect(groups.map((g) => g.findings.map((f) => f.key))).toEqual([['b:1', 'b:2'], ['a:1'], ['b:3']]);
    expect(groups.map((g) => g.severity)).toEqual(['fault', 'caution', 'caution']);
    expect(groups.map((g) => g.sentence)).toEqual(['b 1. And 1 more like it.', 'a 1.', 'b 3.']);
    expect(new Set(groups.map((g) => g.key)).size).toBe(3);
    expect(worstOf([])).toBe('note');
  });

  test('leave out what is left as it is', () => {
    expect(openGroups([finding('a', 1, { leftReason: '' }), finding('a', 2)]).map((g) => g.sentence)).toEqual(['a 2.']);
  });

  test('say in one sentence what their rule says of several', () => {
    for (const [code, many] of MANY) {
      expect(many(12), code).toMatch(/^(12|.* 12) .*[.?]$/);
    }
    const loose = findings(jobWith([partOf([lettering('AHA', 'Archivo Black', { letterSpacing: 0.2 })])]));
    expect(openGroups(loose).map((g) => g.sentence)).toContain('2 pieces are not attached.');
  });

  test('are mended at one press: every island, every part without an operation stays as it is', () => {
    const job = jobWith([partOf([lettering('BOA')], { keep: 'outside' })]);
    const group = openGroups(findings(job)).find((g) => g.findings[0]?.code === 'island');
    expect(group?.sentence).toBe('4 islands will drop out.');
    const mend = group && mendingOfAll(job, group);
    expect(mend?.words).toBe('Bridge them');
    const after = mend?.run(job, seen) as Job;
    expect(findings(after).filter((f) => f.code === 'island')).toEqual([]);
    const none = groupsOf([finding('no-operation', 1), finding('no-operation', 2)])[0];
    expect(none && mendingOfAll(job, none)).toBeNull();
  });

  test('what mends all of a part is done once: loose letters are closed up, and tied only where they are already', () => {
    const job = jobWith([partOf([lettering('AHA', 'Archivo Black', { letterSpacing: 0.2 })])]);
    const looseIn = (of: Job) => openGroups(findings(of)).find((g) => g.findings[0]?.code === 'loose');
    const group = looseIn(job);
    const mend = group && mendingOfAll(job, group);
    expect(mend?.words).toBe('Join them');
    const after = mend?.run(job, seen) as Job;
    expect(after.parts[0]?.members[0]).toMatchObject({ closeUp: { words: true, lines: true, joints: 'best' } });
    expect(after.parts[0]?.steps.map((s) => s.kind)).toEqual(['weld']);
    expect(looseIn(after)).toBeUndefined();
    // A shape beside the words hangs on by a tie.
    const heart = { id: 'heart', kind: 'heart', placement: { x: 240, y: 120 }, width: 20, height: 18 };
    const beside = jobWith([
      partOf([lettering('HA', 'Archivo Black', { closeUp: { overlap: 1, joints: 'best' } }), heart]),
    ]);
    const other = looseIn(beside) ?? groupsOf(findings(beside).filter((f) => f.code === 'loose'))[0];
    const tied = other && mendingOfAll(beside, other)?.run(beside, seen);
    expect(tied?.parts[0]?.steps.map((s) => s.kind)).toEqual(['weld', 'tie']);
  });

  test('where one of them is locked are not mended together', () => {
    const asked = (id: string, more: Draft = {}) =>
      partOf([lettering('AB', 'Poppins', { placement: { x: 90, y: id === 'a' ? 140 : 40 } })], {
        id,
        hangsTogether: null,
        ...more,
      });
    const group = (job: Job) => openGroups(findings(job)).find((g) => g.findings[0]?.code === 'in-pieces');
    const job = jobWith([asked('a'), asked('b')]);
    expect(group(job)?.sentence).toBe('2 parts come off in pieces. Are they to hang together?');
    const both = group(job);
    expect(
      both &&
        mendingOfAll(job, both)
          ?.run(job, seen)
          .parts.map((p) => p.hangsTogether),
    ).toEqual(['yes', 'yes']);
    const locked = jobWith([asked('a'), asked('b', { locked: true })]);
    const other = group(locked);
    expect(other && mendingOfAll(locked, other)).toBeNull();
  });
});

describe('whether it is to hang together', () => {
  const words = (more: Draft = {}) => jobWith([partOf([lettering('HI')], { hangsTogether: null, ...more })]);
  const codes = (job: Job) => findings(job).map((f) => f.code);

  test('is asked once, in one finding; said, it is found or it is not', () => {
    const job = words();
    expect(findings(job).map((f) => [f.code, f.severity, f.sentence])).toEqual([
      ['in-pieces', 'caution', '“HI” comes off in 2 pieces. Is it to hang together?'],
    ]);
    expect(codes(setHangs(job, 'part', 'yes'))).toEqual(['loose']);
    expect(codes(setHangs(job, 'part', 'no'))).toEqual([]);
    expect(setHangs(job, 'gone', 'yes')).toBe(job);
  });

  test('goes without saying where something joins its letters', () => {
    const part = (more: Draft): Part => words(more).parts[0] as Part;
    expect(hangsTogether(part({}))).toBeNull();
    expect(hangsTogether(part({ steps: [{ kind: 'weld' }, { kind: 'tie' }] }))).toBe('yes');
    expect(hangsTogether(part({ steps: [{ kind: 'weld' }, { kind: 'bar', on: false }] }))).toBeNull();
    expect(hangsTogether(part({ members: [lettering('HI', 'Poppins', { closeUp: { overlap: 1 } })] }))).toBe('yes');
    expect(hangsTogether(part({ hangsTogether: 'no', steps: [{ kind: 'weld' }, { kind: 'tie' }] }))).toBe('no');
  });

  test('is not asked of one piece, of what is not cut, nor of what sticks; islands drop out whatever was said', () => {
    expect(codes(words({ members: [lettering('H')] }))).toEqual([]);
    expect(codes(words({ work: [{ what: 'outline', operation: 'mark' }] }))).toEqual([]);
    const bars = ['a', 'b'].map((id, i) => ({
      id,
      kind: 'bar',
      placement: { x: 60 + 90 * i, y: 60 },
      width: 40,
      height: 9,
    }));
    expect(codes(words({ members: bars }))).toEqual([]);
    expect(codes(words({ keep: 'outside', members: [lettering('O')], hangsTogether: 'no' }))).toEqual(['island']);
  });

  test('is yes where nobody can be asked', () => {
    const job = words();
    expect(codes(allHanging(job))).toEqual(['loose']);
    const said = setHangs(job, 'part', 'no');
    expect(allHanging(said)).toBe(said);
  });
});
