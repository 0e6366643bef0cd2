import { sourcesIn } from '@/core/contract/sources';
import type { LiveState } from '@/core/procedure/live';
import type { Quantity } from '@/core/quantities/units';

/** Something that is live or at rest, in words. */
export interface Standing {
  readonly id: string;
  readonly words: string;
  readonly live: boolean;
}

/** Whether the input is let go or at what it was read last. */
export function inputWords(
  { input, inputQuantity }: LiveState,
  print: (value_SI: number, quantity: Quantity) => string,
): string {
  const what = inputQuantity === 'force' || inputQuantity === 'travel' ? 'Pedal' : 'Input';
  return input === 'released' ? `${what} released` : `${what} ${print(input, inputQuantity)}`;
}

/** Each source as a technician needs to know it: on and what it was last read at, shut in and still there, or off. */
export function sourceWords(
  live: LiveState,
  print: (value_SI: number, quantity: Quantity) => string,
): Standing[] {
  const read = live.supply_Pa === null ? '' : `, ${print(live.supply_Pa, live.supplyQuantity)}`;
  const sources = sourcesIn(live.sources);
  const giving = sources.find(({ supplies }) => supplies)?.source ?? null;
  return sources.map(({ source, words, live: on }) => {
    if (source === giving) return { id: source, words: `${words}${read}`, live: true };
    if (source !== 'vacuum' || giving) return { id: source, words, live: on };
    if (read) return { id: source, words: `Vacuum shut in${read}`, live: true };
    if (live.mayStand) return { id: source, words: `${words}, may stand in the unit`, live: true };
    return { id: source, words: live.spent ? `${words}, used up` : words, live: on };
  });
}
