'use client';

import { Box, Button, Dialog, DialogContent, DialogTitle } from '@mui/material';
import { createContext, use, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';

/** A key that works on this screen, and what it does. */
export interface KeyAction {
  readonly key: string;
  readonly label: string;
  readonly run: () => void;
  /** Works while a field has the focus, too: for keys that type nothing. */
  readonly inFields?: boolean;
}

interface Registry {
  add: (token: object, actions: readonly KeyAction[]) => void;
  remove: (token: object) => void;
  open: () => void;
}

const KeysContext = createContext<Registry | null>(null);

const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.matches('input:not([type=checkbox]):not([type=radio]), textarea, select') ||
    target.isContentEditable);

/** Dispatches keys to whatever screen is shown, and lists them on `?`. */
export function KeysProvider({ children }: { children: ReactNode }) {
  const layers = useRef(new Map<object, readonly KeyAction[]>());
  const [shown, setShown] = useState<readonly KeyAction[] | null>(null);
  const registry = useMemo<Registry>(
    () => ({
      add: (token, actions) => void layers.current.set(token, actions),
      remove: (token) => void layers.current.delete(token),
      open: () => setShown([...layers.current.values()].reverse().flat()),
    }),
    [],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      const typing = isField(event.target);
      const writing =
        event.target instanceof HTMLTextAreaElement ||
        (typing && !(event.target as HTMLElement).dataset.reading);
      if (event.key === '?' && !writing) {
        event.preventDefault();
        registry.open();
        return;
      }
      if (document.querySelector('[role=dialog]')) return;
      const action = [...layers.current.values()]
        .reverse()
        .flat()
        .find(({ key, inFields }) => key === event.key && (inFields || !typing));
      if (!action) return;
      event.preventDefault();
      action.run();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [registry]);
  return (
    <KeysContext value={registry}>
      {children}
      <Dialog open={shown !== null} onClose={() => setShown(null)} aria-labelledby="keys-title">
        <DialogTitle id="keys-title">Keys that work here</DialogTitle>
        <DialogContent>
          <Box
            component="dl"
            sx={{ display: 'grid', gridTemplateColumns: 'auto 1fr', gap: 1.2, columnGap: 3, m: 0 }}
          >
            {[
              ...(shown ?? []),
              { key: '?', label: 'Show these keys' },
              { key: 'Esc', label: 'Close this list' },
            ].map(({ key, label }) => (
              <Box key={`${key} ${label}`} sx={{ display: 'contents' }}>
                <Box component="dt">
                  <Key name={key} />
                </Box>
                <Box component="dd" sx={{ m: 0 }}>
                  {label}
                </Box>
              </Box>
            ))}
          </Box>
          <Button sx={{ mt: 2 }} onClick={() => setShown(null)} autoFocus>
            Close
          </Button>
        </DialogContent>
      </Dialog>
    </KeysContext>
  );
}

/** Registers a screen's keys while it is shown. Call it with fresh actions on every render: the newest ones count. */
export function useKeys(actions: readonly KeyAction[]) {
  const registry = use(KeysContext);
  const [token] = useState(() => ({}));
  useEffect(() => registry?.add(token, actions));
  useEffect(() => () => registry?.remove(token), [registry, token]);
}

export const useOpenKeys = () => use(KeysContext)?.open;

/** A key cap, shown where the key works. */
export function Key({ name }: { name: string }) {
  return (
    <Box
      component="kbd"
      sx={{
        fontFamily: 'inherit',
        fontSize: '0.78em',
        border: 1,
        borderColor: 'currentColor',
        borderRadius: '3px',
        px: 0.6,
        py: 0.1,
        opacity: 0.85,
        whiteSpace: 'nowrap',
      }}
    >
      {name === ' ' ? 'Space' : name}
    </Box>
  );
}
