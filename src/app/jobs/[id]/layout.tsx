import { notFound } from 'next/navigation';
import type { ReactNode } from 'react';
import { readJob } from './read-job';

/** Looks whether there is such a job before anything is sent, so that one that is not there is answered with 404. */
export default async function Layout({ params, children }: { params: Promise<{ id: string }>; children: ReactNode }) {
  if ((await readJob((await params).id)) === 'none') notFound();
  return children;
}
