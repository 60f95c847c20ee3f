/** Limits of starters and of tags, by their names. */
import { expect } from 'vitest';
import { API } from '../../src/api/endpoints';
import { asStarter } from '../../src/core/commands/starters';
import { checkJob } from '../../src/core/document/read';
import { askedIn } from '../../src/core/job/start';
import { LIMITS } from '../../src/core/limits';
import { createJob, keepAsStarter } from '../../src/server/jobs';
import { listStarters } from '../../src/server/jobs-page';
import { jobWith, lettering, partOf } from '../support/jobs';
import { ownDatabase } from '../support/own-database';

const limits = LIMITS as { -readonly [K in keyof typeof LIMITS]: number };

export const STARTER_LIMITS = {
  jobsTagged: () => {
    const asked = (n: number) =>
      API.tagJobs.body?.safeParse({ ids: Array(n).fill('00000000-0000-4000-8000-000000000000'), tag: 'oak', on: true })
        .success;
    expect([asked(LIMITS.jobsTagged), asked(LIMITS.jobsTagged + 1)]).toEqual([true, false]);
    expect(API.tagJobs.refusal.sentence).toContain(`up to ${LIMITS.jobsTagged} jobs`);
  },
  starterAbout: () => {
    const said = (n: number) => {
      const read = checkJob({ format: 9, sheet: { width: 9, height: 9 }, starter: { about: 'x'.repeat(n) } });
      return read.ok ? null : read.sentences[0];
    };
    expect(said(LIMITS.starterAbout)).toBeNull();
    expect(said(LIMITS.starterAbout + 1)).toContain(`longer than ${LIMITS.starterAbout} characters`);
  },
  starterWords: () => {
    limits.starterWords = 2;
    const words = ['a', 'b', 'c'].map((id) => lettering(id, 'Poppins', { id }));
    const asked = words.map((w, i) => ({ ...w, asked: `${i}` }));
    expect(askedIn(jobWith([partOf(asked)])).map((w) => w.asked)).toEqual(['0', '1']);
    const kept = asStarter(jobWith([partOf(words)]));
    expect(kept.parts[0]?.members.map((m) => m.kind === 'lettering' && m.asked)).toEqual(['a', 'b', null]);
  },
  starters: async () => {
    const { db, close } = await ownDatabase('starter_limits');
    try {
      limits.starters = 2;
      for (const title of ['pear', 'apple', 'quince']) {
        const made = await createJob(db, jobWith([], { title }), { picture: null, openFindings: 0 });
        await keepAsStarter(db, made?.id ?? '');
      }
      expect((await listStarters(db)).map((job) => job.title)).toEqual(['apple', 'pear']);
    } finally {
      await close();
    }
  },
};
