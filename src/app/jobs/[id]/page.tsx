import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { BenchScreen } from '@/bench/bench-screen';
import { checkJob } from '@/core/document/read';
import { readJob } from './read-job';

export const dynamic = 'force-dynamic';

type Props = { readonly params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const stored = await readJob((await params).id);
  const read = stored && stored !== 'none' ? checkJob(stored.document) : null;
  return { title: read?.ok ? read.job.title : 'Job' };
}

export default async function Page({ params }: Props) {
  const { id } = await params;
  const stored = await readJob(id);
  if (stored === 'none') notFound();
  return <BenchScreen key={id} id={id} stored={stored} />;
}
