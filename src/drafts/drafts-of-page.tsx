'use client';

/** What this browser keeps of a job whose page is asked for and that is not there. */
import { usePathname } from 'next/navigation';
import { DraftsAtHand } from './drafts-at-hand';

/** Drafts of the job that the address of the page names. */
export function DraftsOfPage() {
  const id = /^\/jobs\/([\w-]+)/.exec(usePathname())?.[1];
  return id ? <DraftsAtHand jobId={id} /> : null;
}
