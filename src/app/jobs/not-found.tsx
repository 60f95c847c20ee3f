import type { Metadata } from 'next';
import { DraftsOfPage } from '@/drafts/drafts-of-page';
import { Notice } from '@/ui/waiting';

export const metadata: Metadata = { title: 'No such job' };

export default function NoSuchJob() {
  return <Notice sentence="There is no such job. It may have been deleted." more={<DraftsOfPage />} />;
}
