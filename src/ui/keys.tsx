'use client';

import { Box, Button, Dialog, DialogContent, DialogTitle } from '@mui/material';
import { createContext, use, useLayoutEffect, useMemo, useRef, useState, type ReactNode } from 'react';

/** A key that works on this screen, and what it does. */
export interface KeyAction {
  readonly key: string;
  readonly label: string;
  readonly run: () => void;
  /** Works while a field has the focus, too: for keys that type nothing. */
  readonly inFields?: boolean;
  /** Works in the screen's own field, and in no other: it records what that field is for. */
  readonly inOwnField?: boolean;
  /** Goes to another screen: not where something could be lost by it. */
  readonly navigates?: boolean;
}

interface Registry {
  add: (token: object, layer: Layer) => void;
  remove: (token: object) => void;
  open: () => void;
}

interface Layer {
  readonly actions: readonly KeyAction[];
  /** Letters that go elsewhere are off while this screen is shown. */
  readonly stays: boolean;
}

const KeysContext = createContext<Registry | null>(null);

const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.matches('input:not([type=checkbox]):not([type=radio]), textarea, select') ||
    target.isContentEditable);

/** A choice that is open or has the focus takes letters for itself. */
const isChoice = (target: EventTarget | null) =>
  target instanceof HTMLElement && target.closest('[role=combobox], [role=listbox], [role=menu]') !== null;

/** The keys that work now, those of the newest layer first. */
function working(layers: ReadonlyMap<object, Layer>): KeyAction[] {
  const all = [...layers.values()].reverse();
  const stays = all.some((layer) => layer.stays);
  return all.flatMap(({ actions }) => actions).filter(({ navigates }) => !(navigates && stays));
}

/**
 * Dispatches keys to whatever screen is shown, and lists them on `?`. Enter is not among them: it acts on what has the focus. Keys listen
 * from the moment their screen stands there, and the document says so: `data-keys="listen"` on its root.
 */
export function KeysProvider({ children }: { children: ReactNode }) {
  const layers = useRef(new Map<object, Layer>());
  const [shown, setShown] = useState<readonly KeyAction[] | null>(null);
  const registry = useMemo<Registry>(
    () => ({
      add: (token, layer) => void layers.current.set(token, layer),
      remove: (token) => void layers.current.delete(token),
      open: () => setShown(working(layers.current)),
    }),
    [],
  );
  useLayoutEffect(() => {
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
      const own = typing && Boolean((event.target as HTMLElement).dataset.reading);
      const choosing = isChoice(event.target);
      const action = working(layers.current).find(
        ({ key, inFields, inOwnField }) =>
          key.toLowerCase() === event.key.toLowerCase() &&
          (typing || choosing ? inFields || (inOwnField && own) : true),
      );
      if (!action) return;
      event.preventDefault();
      action.run();
    };
    window.addEventListener('keydown', onKey);
    // Effects of what stands within have run before this one: its keys are known.
    document.documentElement.dataset.keys = 'listen';
    return () => {
      window.removeEventListener('keydown', onKey);
      delete document.documentElement.dataset.keys;
    };
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

/**
 * Registers a screen's keys while it is shown. Call it with fresh actions on every render: the newest ones count.
 *
 * @param stays letters that go to another screen are off meanwhile
 */
export function useKeys(actions: readonly KeyAction[], stays = false) {
  const registry = use(KeysContext);
  const [token] = useState(() => ({}));
  useLayoutEffect(() => registry?.add(token, { actions, stays }));
  useLayoutEffect(() => () => registry?.remove(token), [registry, token]);
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
