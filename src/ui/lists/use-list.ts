'use client';

import { usePathname, useRouter } from 'next/navigation';
import { startTransition, useEffect, useOptimistic, useRef, useState, type RefObject } from 'react';
import { PER_PAGE, type ListQuery } from '@/core/records/list-query';
import { useKeys } from '../keys';

/** How long the typing rests before the search is made, ms. */
const TYPING_MS = 200;

/** A list that is asked for by its address. */
export interface List<Query extends ListQuery> {
  /** What was asked last, whether it was answered yet or not. */
  readonly query: Query;
  /** Asks anew, from the first page unless a page is asked for. */
  readonly ask: (change: Partial<Query>) => void;
  /** The search as typed so far. */
  readonly typed: string;
  readonly type: (words: string) => void;
  readonly field: RefObject<HTMLInputElement | null>;
  /** A row was opened: what was still being typed asks nothing any more, and does not call the reader back. */
  readonly leave: () => void;
}

/**
 * The question of a list: it stands in the address, so that a reload, a bookmark and the way back ask the same.
 *
 * @param what what the list is of, for the list of keys: "the jobs"
 * @param answered what the rows shown answer
 * @param total rows in all
 */
export function useList<Query extends ListQuery>(what: string, answered: Query, total: number): List<Query> {
  const router = useRouter();
  const path = usePathname();
  // What is asked next is added to what was asked last, which need not be answered yet.
  const [query, awaitAnswer] = useOptimistic(answered);
  const [typed, type] = useState(query.q);
  const field = useRef<HTMLInputElement>(null);
  const ask = (change: Partial<Query>) => {
    const next = { ...query, q: typed, page: 1, ...change };
    const named = Object.entries(next).filter(([, value]) => value !== '');
    const address = `${path}?${new URLSearchParams(named.map(([name, value]) => [name, String(value)]))}`;
    startTransition(() => {
      awaitAnswer(next);
      router.replace(address, { scroll: false });
    });
  };
  const latest = useRef(ask);
  useEffect(() => {
    latest.current = ask;
  });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const leave = () => clearTimeout(timer.current);
  useEffect(() => {
    if (typed === query.q) return;
    timer.current = setTimeout(() => latest.current({}), TYPING_MS);
    return () => clearTimeout(timer.current);
  }, [typed, query.q]);
  const turn = (by: number) => {
    const page = query.page + by;
    if (page >= 1 && page <= Math.ceil(total / PER_PAGE)) ask({ page } as Partial<Query>);
  };
  useKeys([
    { key: '/', label: `Search ${what}`, run: () => field.current?.focus() },
    { key: '[', label: 'Page before', run: () => turn(-1) },
    { key: ']', label: 'Next page', run: () => turn(1) },
  ]);
  return { query, ask, typed, type, field, leave };
}
