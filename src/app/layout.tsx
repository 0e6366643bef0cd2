import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './globals.css';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { assertInPlace, database } from '@/server/database';
import { readSettings } from '@/server/shelf';
import { troubleWords } from '@/server/trouble';
import { Frame } from '@/ui/frame';
import { Trouble } from '@/ui/trouble';

export const metadata: Metadata = { title: { default: 'Hard Pedal', template: '%s · Hard Pedal' } };
export const dynamic = 'force-dynamic';

/** The shop's settings, or in words why its records cannot be opened. */
async function opened() {
  try {
    const db = await database();
    assertInPlace(db);
    return { settings: (await readSettings(db)).body };
  } catch (error) {
    const words = troubleWords(error);
    if (words === null) throw error;
    return { settings: null, words };
  }
}

export default async function RootLayout({ children }: { children: ReactNode }) {
  const shop = await opened();
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="class" defaultMode="system" nonce={nonce} />
        {shop.settings ? <Frame settings={shop.settings}>{children}</Frame> : <Trouble words={shop.words} />}
      </body>
    </html>
  );
}
