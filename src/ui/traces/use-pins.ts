'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { parseNumber } from '@/core/quantities/number';
import type { TraceNote, TraceRecord } from '@/core/records/trace-record';

/** A note as it is typed: times in seconds. */
export interface Draft {
  readonly at: string;
  /** End of the range; empty for a moment. */
  readonly until: string;
  readonly words: string;
}

/** A note about to be pinned, and what can be done with the pinned ones. */
export interface PinsHandle {
  /** Null while no note is being written. */
  readonly draft: Draft | null;
  readonly type: (change: Partial<Draft>) => void;
  /** The first press says where, the next one how far. */
  readonly press: (at_s: number) => void;
  /** Begins a note by key: of a range, where one is given. */
  readonly begin: (range: { from_s: number; to_s: number } | null) => void;
  readonly pin: () => Promise<void>;
  /** Pins a range and works it out by itself. */
  readonly workOut: () => Promise<void>;
  readonly drop: (id: string) => Promise<void>;
  readonly leave: () => void;
}

/** What the notes of a trace are kept by. */
interface Keeper {
  readonly keep: (notes: TraceRecord['notes']) => Promise<boolean>;
  readonly workOut: (note: TraceNote) => Promise<boolean>;
  readonly onProblem: (problem: string) => void;
}

/** Said of a range that was marked to be worked out and not described. */
const MARKED = 'Range worked out by itself';

/** A note of a moment, or of a range where an end was typed. @returns a sentence where a time cannot be read */
export function noteFrom(id: string, { at, until, words }: Draft): TraceNote | string {
  const start = parseNumber(at);
  if (!start.ok) return `From: “${at}” is not a time in seconds.`;
  const end = until.trim() === '' ? null : parseNumber(until);
  if (end && !end.ok) return `Until: “${until}” is not a time in seconds.`;
  const rounded = (at_s: number) => Number(at_s.toFixed(3));
  const times = end?.ok ? [start.value, end.value].sort((a, b) => a - b) : [start.value];
  const [at_s, to_s] = times.map(rounded) as [number, number?];
  return { id, at_s, ...(to_s !== undefined && to_s > at_s && { to_s }), words: words.trim() };
}

/** Notes on a trace: one being written, those kept by the keeper. */
export function usePins(notes: TraceRecord['notes'], { keep, workOut: work, onProblem }: Keeper): PinsHandle {
  const [draft, setDraft] = useState<Draft | null>(null);
  const begun = useRef(draft);
  useEffect(() => {
    begun.current = draft;
  });
  const press = useCallback((at_s: number) => {
    const shown = at_s.toFixed(1);
    setDraft(begun.current ? { ...begun.current, until: shown } : { at: shown, until: '', words: '' });
  }, []);
  const begin = (range: { from_s: number; to_s: number } | null) =>
    setDraft({
      at: range?.from_s.toFixed(2) ?? '0',
      until: range?.to_s.toFixed(2) ?? '',
      words: draft?.words ?? '',
    });
  const leave = () => setDraft(null);
  const take = async (words: string, by: (note: TraceNote) => Promise<boolean>) => {
    if (!draft) return;
    const note = noteFrom(crypto.randomUUID(), { ...draft, words });
    if (typeof note === 'string') onProblem(note);
    else if (await by(note)) leave();
  };
  return {
    draft,
    type: (change) => setDraft((now) => now && { ...now, ...change }),
    press,
    begin,
    pin: () => take(draft?.words ?? '', (note) => keep([...notes, note].sort((a, b) => a.at_s - b.at_s))),
    workOut: () => take(draft?.words.trim() || MARKED, work),
    drop: async (id) => void (await keep(notes.filter((note) => note.id !== id))),
    leave,
  };
}
