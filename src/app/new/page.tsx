import type { Metadata } from 'next';
import { drawnPictures } from '@/server/drawn-pictures';
import { StartersScreen } from '@/starters/starters-screen';

export const metadata: Metadata = { title: 'New job' };

export default async function Page({ searchParams }: { searchParams: Promise<{ from?: string | string[] }> }) {
  const { from } = await searchParams;
  return <StartersScreen from={typeof from === 'string' ? from : null} pictures={await drawnPictures('starters')} />;
}
