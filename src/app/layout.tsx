import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './globals.css';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { database } from '@/server/database';
import { readSettings } from '@/server/shelf';
import { Frame } from '@/ui/frame';

export const metadata: Metadata = { title: { default: 'Hard Pedal', template: '%s · Hard Pedal' } };
export const dynamic = 'force-dynamic';

export default async function RootLayout({ children }: { children: ReactNode }) {
  const settings = (await readSettings(await database())).body;
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="class" defaultMode="system" />
        <Frame settings={settings}>{children}</Frame>
      </body>
    </html>
  );
}
