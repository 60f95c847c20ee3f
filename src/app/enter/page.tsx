import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { EnterScreen } from '@/enter/enter-screen';
import { LINE_HEADER } from '@/serve/headers';

export const metadata: Metadata = { title: 'Passphrase' };

type Props = { readonly searchParams: Promise<{ readonly to?: string | string[] }> };

/** An address of this app, and nothing else. */
const ownAddress = (to: string | string[] | undefined): string =>
  typeof to === 'string' && /^\/(?![/\\])/.test(to) && !to.startsWith('/enter') ? to : '/';

export default async function Page({ searchParams }: Props) {
  const line = (await headers()).get(LINE_HEADER);
  return <EnterScreen to={ownAddress((await searchParams).to)} isOpen={line === 'open'} />;
}
