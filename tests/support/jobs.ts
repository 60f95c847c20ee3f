/** Small job documents for tests. */
import { readdirSync, readFileSync } from 'node:fs';
import { checkJob, readJob } from '../../src/core/document/read';
import { JOB_FORMAT, type Job } from '../../src/core/document/schema';

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

/** A part at the corner of the sheet, so that members lie where they say; it is to hang together. */
export const partOf = (members: Draft[], more: Draft = {}): Draft => ({
  id: 'part',
  placement: { x: 0, y: 0 },
  hangsTogether: 'yes',
  members,
  work: [{ what: 'outline', operation: 'cut' }],
  ...more,
});

/** A checked job on a 300 × 200 mm sheet. A part without a placement is placed at its corner: members lie as they say. */
export const jobWith = (parts: Draft[], more: Draft = {}): Job => {
  const read = checkJob({
    format: JOB_FORMAT,
    title: 'Trial',
    sheet: { width: 300, height: 200 },
    parts: parts.map((part) => ({ placement: { x: 0, y: 0 }, ...part })),
    ...more,
  });
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

/** A rectangle about the origin of its part, sizes in mm. */
export const rectangle = (id: string, width: number, height: number, more: Draft = {}): Draft => ({
  id,
  kind: 'rectangle',
  placement: { x: 0, y: 0 },
  width,
  height,
  ...more,
});
