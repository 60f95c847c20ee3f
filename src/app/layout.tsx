import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import '@fontsource/atkinson-hyperlegible-mono/400.css';
import './theme.scss';
import { NONCE_HEADER } from '@/serve/headers';
import { Providers } from './providers';

export const metadata: Metadata = {
  title: { default: 'Needlefile', template: '%s · Needlefile' },
  description: 'Lettering made ready for the machine.',
  icons: { icon: '/icon.svg' },
};

/** Sets the colour scheme before anything is drawn. */
const SCHEME = `try{document.documentElement.dataset.bsTheme=localStorage.getItem('needlefile:scheme')||'light'}catch{}`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  // The one word by which inline scripts of this answer are known; asking for it also has every page made for its own request.
  const nonce = (await headers()).get(NONCE_HEADER) ?? undefined;
  return (
    <html lang="en" data-bs-theme="light" suppressHydrationWarning>
      <head>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: a constant of this file */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: SCHEME }} />
      </head>
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
