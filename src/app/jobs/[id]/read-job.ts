import { cache } from 'react';
import { z } from 'zod';
import { unlessAway } from '@/server/answer';
import { openJob } from '@/server/jobs';

/** What is known of a job when its page is made; read once for layout, title and page. */
export const readJob = cache(async (id: string) => {
  if (!z.uuid().safeParse(id).success) return 'none';
  return unlessAway(async (db) => (await openJob(db, id)) ?? ('none' as const));
});
