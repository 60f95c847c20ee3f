/** Limits of proofs, by their names. */
import { expect } from 'vitest';
import { writtenFormat } from '../../src/core/formats/written';
import { LIMITS } from '../../src/core/limits';
import { differencesOf } from '../../src/core/proof/differences';
import { jobWith, lettering, partOf } from '../support/jobs';
import { meantOf } from '../support/proof';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };

export const PROOF_LIMITS = {
  proofDifferences: () => {
    const [file] = meantOf(jobWith([partOf([lettering('Elm')])]));
    if (!file) throw new Error('there is a file');
    const missing = () => differencesOf(file.meant.drawing, [], writtenFormat('svg').keeps).length;
    limits.proofDifferences = 4;
    expect(missing()).toBeLessThanOrEqual(4);
    const few = missing();
    limits.proofDifferences = 2;
    expect(few).toBeGreaterThan(2);
    expect(missing()).toBe(2);
  },
};
