import { headers } from 'next/headers';
import { JobsScreen } from '@/jobs/jobs-screen';
import { LINE_HEADER } from '@/serve/headers';
import { unlessAway } from '@/server/answer';
import { listJobs } from '@/server/jobs-page';

export const dynamic = 'force-dynamic';

export default async function Page() {
  const line = (await headers()).get(LINE_HEADER);
  return <JobsScreen found={await unlessAway((db) => listJobs(db))} isOpenLine={line === 'open'} />;
}
