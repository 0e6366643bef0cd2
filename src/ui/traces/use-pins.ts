'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { parseNumber } from '@/core/quantities/number';
import type { TraceNote, TraceRecord } from '@/core/records/trace-record';

/** A note about to be pinned, and what can be done with the pinned ones. */
export interface PinsHandle {
  /** Where the trace was pressed, s; null while no note is being written. */
  readonly moment: number | null;
  /** End of the range as typed; empty for a moment. */
  readonly until: string;
  readonly words: string;
  readonly setUntil: (until: string) => void;
  readonly setWords: (words: string) => void;
  /** The first press says where, the next one how far. */
  readonly press: (at_s: number) => void;
  readonly pin: () => Promise<void>;
  readonly drop: (id: string) => Promise<void>;
  readonly leave: () => void;
}

/** A note of a moment, or of a range where an end was typed. @returns a sentence where the end cannot be read */
export function noteFrom(id: string, moment: number, until: string, words: string): TraceNote | string {
  const end = until.trim() === '' ? null : parseNumber(until);
  if (end && !end.ok) return `Until: “${until}” is not a time in seconds.`;
  const rounded = (at_s: number) => Number(at_s.toFixed(3));
  const [at_s, to_s] = (end?.ok ? [moment, end.value].sort((a, b) => a - b) : [moment]).map(rounded) as [
    number,
    number?,
  ];
  return { id, at_s, ...(to_s !== undefined && to_s > at_s && { to_s }), words: words.trim() };
}

/** Notes on a trace: one being written, those kept by `keep`. */
export function usePins(
  notes: TraceRecord['notes'],
  keep: (notes: TraceRecord['notes']) => Promise<boolean>,
  onProblem: (problem: string) => void,
): PinsHandle {
  const [moment, setMoment] = useState<number | null>(null);
  const [until, setUntil] = useState('');
  const [words, setWords] = useState('');
  const begun = useRef(moment);
  useEffect(() => {
    begun.current = moment;
  });
  const press = useCallback((at_s: number) => {
    if (begun.current === null) setMoment(at_s);
    else setUntil(at_s.toFixed(1));
  }, []);
  const leave = () => {
    setMoment(null);
    setUntil('');
    setWords('');
  };
  const pin = async () => {
    if (moment === null || words.trim() === '') return;
    const note = noteFrom(crypto.randomUUID(), moment, until, words);
    if (typeof note === 'string') onProblem(note);
    else if (await keep([...notes, note].sort((a, b) => a.at_s - b.at_s))) leave();
  };
  const drop = async (id: string) => void (await keep(notes.filter((note) => note.id !== id)));
  return { moment, until, words, setUntil, setWords, press, pin, drop, leave };
}
