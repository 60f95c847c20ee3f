/** Small job documents for tests. */
import { readdirSync, readFileSync } from 'node:fs';
import { checkJob, readJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';

export type Draft = Record<string, unknown>;

export const lettering = (text: string, face = 'Archivo Black', more: Draft = {}): Draft => ({
  id: 'words',
  kind: 'lettering',
  placement: { x: 150, y: 100 },
  text,
  face,
  size: { by: 'capital', mm: 30 },
  align: 'centre',
  ...more,
});

export const partOf = (members: Draft[], more: Draft = {}): Draft => ({
  id: 'part',
  members,
  work: [{ what: 'outline', operation: 'cut' }],
  ...more,
});

/** A checked job on a 300 × 200 mm sheet. */
export const jobWith = (parts: Draft[], more: Draft = {}): Job => {
  const read = checkJob({ format: 1, title: 'Trial', sheet: { width: 300, height: 200 }, parts, ...more });
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
};

/** The sample jobs by name of their file. */
export const demoJobs = (): Map<string, Job> =>
  new Map(
    readdirSync('demo')
      .filter((f) => f.endsWith('.json'))
      .map((file) => {
        const read = readJob(readFileSync(`demo/${file}`, 'utf8'));
        if (!read.ok) throw new Error(`${file}: ${read.sentences.join(' ')}`);
        return [file.replace('.json', ''), read.job];
      }),
  );
