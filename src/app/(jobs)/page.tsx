import { JobsScreen } from '@/jobs/jobs-screen';
import { unlessAway } from '@/server/answer';
import { listJobs } from '@/server/jobs';

export const dynamic = 'force-dynamic';

export default async function Page() {
  return <JobsScreen found={await unlessAway(listJobs)} />;
}
