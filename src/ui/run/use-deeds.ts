'use client';

import type { Item, Step } from '@/core/contract/steps';
import { takeBackLast } from '@/core/procedure/taking-back';
import { useKeys } from '../keys';
import { useSettings } from '../settings-context';
import type { BarProps } from './bar';
import type { RunHandle } from './use-run';

/** What is skipped, as it is asked for. */
export interface Skipping {
  readonly step: string;
  readonly item: string | null;
  readonly title: string;
}

type Deed = BarProps['others'][number] & { readonly key: string; readonly about: string };
type Switch = readonly [on: boolean, set: (on: boolean) => void];

interface DeedsOf {
  readonly step: Step | null;
  readonly item: Item | null;
  readonly onSkip: (what: Skipping) => void;
  /** Null where no live bench reads. */
  readonly handsFree: Switch | null;
  /** The unit's drawing in place of its curve; null where there is no curve. */
  readonly drawing: Switch | null;
  readonly pad: Switch;
  readonly advice: Switch;
  /** The order of the tests: by what tells the most, or the usual one. */
  readonly led: Switch;
  readonly onLeave: () => void;
}

/** What can be done beside what is asked for, each with its key: shown as buttons and listed among the keys. */
export function useDeeds(run: RunHandle, about: DeedsOf): readonly Deed[] {
  const { strikeKey } = useSettings();
  const { step, item, handsFree, drawing, pad, advice, led } = about;
  const last = run.state.captures.findLast(({ struck }) => !struck) ?? null;
  const undo = takeBackLast(run.events);
  const skipped = step && !step.mandatory ? step : null;
  const deeds: readonly Deed[] = [
    {
      label: 'Repeat last',
      key: 'F2',
      about: 'Repeat the last reading (both are kept)',
      run: () => last && void run.send({ type: 'reopened', item: last.item }),
      disabled: !last,
    },
    {
      label: 'Take back',
      key: strikeKey,
      about: 'Take back the last thing done (kept, struck out)',
      run: () => undo.length > 0 && void run.send(...undo),
      disabled: undo.length === 0,
    },
    {
      label: 'Skip',
      key: 'F4',
      about: 'Skip this, with a reason',
      run: () =>
        skipped &&
        about.onSkip({
          step: skipped.id,
          item: item?.id ?? null,
          title: item && 'prompt' in item ? item.prompt : skipped.title,
        }),
      disabled: !skipped,
    },
    ...toggle(handsFree, {
      key: 'F3',
      on: 'Hands-free is on',
      off: 'Hands-free',
      about: 'Hands-free: capture as each reading settles',
    }),
    ...toggle(drawing, {
      key: 'F10',
      on: 'Curve',
      off: 'Drawing',
      about: 'The unit’s drawing in place of its curve, and back',
    }),
    ...toggle(pad, { key: 'F7', on: 'Number pad', off: 'Number pad', about: 'Number pad' }),
    ...toggle(advice, {
      key: '#',
      on: 'Put the advice away',
      off: 'What it may be',
      about: 'What it may be, and which test tells the most',
    }),
    ...toggle(led, {
      key: '&',
      on: 'Usual order',
      off: 'Order by advice',
      about: 'Order of the tests: the one that tells the most first, or the usual one',
    }),
    {
      label: 'Leave',
      key: 'Escape',
      about: 'Leave the run; it waits for you at this step',
      run: about.onLeave,
    },
  ];
  useKeys(
    deeds.map(({ key, about: label, run: act, disabled }) => ({
      key,
      label,
      run: () => !disabled && act(),
      inFields: true,
    })),
    true,
  );
  return deeds;
}

interface ToggleWords {
  readonly key: string;
  /** Its label while it is on, and while it is off. */
  readonly on: string;
  readonly off: string;
  readonly about: string;
}

const toggle = (of: Switch | null, { key, on, off, about }: ToggleWords): Deed[] =>
  of ? [{ label: of[0] ? on : off, key, about, run: () => of[1](!of[0]) }] : [];
