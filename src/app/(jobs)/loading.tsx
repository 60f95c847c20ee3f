import { Waiting } from '@/ui/waiting';

export default function Loading() {
  return <Waiting words="Fetching the jobs" />;
}
