import { JobsScreen } from '@/jobs/jobs-screen';

export default function Page() {
  return <JobsScreen />;
}
