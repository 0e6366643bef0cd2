'use client';

import { Box, Button } from '@mui/material';
import { useColorScheme } from '@mui/material/styles';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { type ReactNode } from 'react';
import type { Settings } from '@/core/shop/settings';
import { KeysProvider, Key, useKeys, useOpenKeys } from './keys';
import { SettingsContext } from './settings-context';
import { Themed } from './themed';
import { WaitsStrip } from './waits-strip';

const PLACES = [
  { href: '/', name: 'Bench', key: 'b' },
  { href: '/jobs', name: 'Jobs', key: 'j' },
  { href: '/traces', name: 'Traces', key: 'a' },
  { href: '/practice', name: 'Practice', key: 'l' },
  { href: '/shelf', name: 'Shelf', key: 's' },
];

/** What stands around every screen: theme, settings, keys, the places, and waits that call out. */
export function Frame({ settings, children }: { settings: Settings; children: ReactNode }) {
  return (
    <Themed>
      <SettingsContext value={settings}>
        <KeysProvider>
          <TopBar />
          <Box component="main" id="main">
            {children}
          </Box>
        </KeysProvider>
      </SettingsContext>
    </Themed>
  );
}

function TopBar() {
  const path = usePathname();
  const router = useRouter();
  const openKeys = useOpenKeys();
  const { mode, systemMode, setMode } = useColorScheme();
  const dark = (mode === 'system' ? systemMode : mode) === 'dark';
  useKeys([
    ...PLACES.map(({ href, name, key }) => ({
      key,
      label: `Go to ${name}`,
      run: () => router.push(href),
      navigates: true,
    })),
    { key: 'n', label: 'Take in a unit', run: () => router.push('/jobs/new'), navigates: true },
  ]);
  // A run keeps letters to itself: a key is shown only where it works.
  const staying = /^\/runs\/[^/]+$/.test(path);
  const here = (href: string) =>
    href === '/' ? path === '/' : path.startsWith(href) || (href === '/jobs' && path.startsWith('/runs'));
  return (
    <Box
      component="header"
      className="no-print"
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        height: 49,
        px: 2,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
      }}
    >
      <Box
        component={Link}
        href="/"
        sx={{
          minHeight: 44,
          fontWeight: 750,
          fontSize: '1.05rem',
          color: 'text.primary',
          textDecoration: 'none',
          whiteSpace: 'nowrap',
          flexShrink: 0,
          mr: 2,
          display: 'flex',
          gap: 1,
          alignItems: 'center',
        }}
      >
        <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden>
          <path d="M3 17h14M6 17V9h8v8M10 9V2M7 2h6" fill="none" stroke="currentColor" strokeWidth="2" />
        </svg>
        Hard Pedal
      </Box>
      <Box component="nav" aria-label="Places" sx={{ display: 'flex', gap: 0.5, flex: 1 }}>
        {PLACES.map(({ href, name, key }) => (
          <Button
            key={href}
            component={Link}
            href={href}
            aria-current={here(href) ? 'page' : undefined}
            sx={{
              gap: 0.8,
              color: 'text.primary',
              borderRadius: 0,
              borderBottom: 3,
              borderColor: here(href) ? 'primary.main' : 'transparent',
              fontWeight: here(href) ? 700 : 500,
            }}
          >
            {name} {!staying && <Key name={key} />}
          </Button>
        ))}
      </Box>
      <WaitsStrip />
      <Button onClick={() => setMode(dark ? 'light' : 'dark')} sx={{ color: 'text.primary' }}>
        {dark ? 'Light' : 'Dark'}
      </Button>
      <Button onClick={() => openKeys?.()} sx={{ color: 'text.primary', gap: 0.8 }}>
        Keys <Key name="?" />
      </Button>
    </Box>
  );
}
