import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { readHead } from '@/server/content/read';
import { basePath, here } from '@/server/routes/page';
import type { Writing } from '@/ui/writing';
import { Providers } from '@/ui/providers';

export const metadata: Metadata = {
  title: { default: 'Tavro', template: '%s · Tavro' },
  description: 'Write, replay, test and release form behaviours.',
};

export default async function Layout({ children }: { children: ReactNode }) {
  // Of the policy that src/proxy.ts gave this page.
  const nonce = (await headers()).get('x-nonce') ?? '';
  // A page of error has to be shown without a database too.
  const { dates = 'iso', numbers = 'point' } = await here(readHead).catch(
    (): Partial<Writing> => ({}),
  );
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <Providers nonce={nonce} writing={{ dates, numbers }} base={await basePath()}>
          {children}
        </Providers>
      </body>
    </html>
  );
}
