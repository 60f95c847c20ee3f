/** Typing words: letters that were picked stay picked. */
import { beforeEach, describe, expect, test } from 'vitest';
import { undo, useBench } from '../../src/bench/store';
import { typeWords } from '../../src/bench/type-words';
import type { Lettering } from '../../src/core/document/schema';
import { answer, hostHere, openJob, partNow } from '../support/bench';
import { jobWith, lettering, partOf } from '../support/jobs';

const host = hostHere();
beforeEach(() => answer(host));

describe('words typed', () => {
  test('letters picked one by one stay the same letters', () => {
    openJob(jobWith([partOf([lettering('Lane')])]));
    useBench.setState({ picked: [1, 3] });
    typeWords('part', 'words', 'A Lan');
    expect(useBench.getState().picked).toEqual([3]);
    expect((partNow().members[0] as Lettering).text).toBe('A Lan');
    typeWords('part', 'gone', 'x');
    typeWords('gone', 'words', 'x');
    expect((partNow().members[0] as Lettering).text).toBe('A Lan');
    undo();
    expect((partNow().members[0] as Lettering).text).toBe('Lane');
  });

  test('of other words nothing is picked anew', () => {
    openJob(jobWith([partOf([lettering('Lane'), { ...lettering('two'), id: 'second' }])]));
    useBench.setState({ picked: [0] });
    typeWords('part', 'second', 'x two');
    expect(useBench.getState().picked).toEqual([0]);
    useBench.setState({ picked: null });
    typeWords('part', 'words', 'x Lane');
    expect(useBench.getState().picked).toBeNull();
  });
});
