import type { TestedAt } from '../../contract/family';
import type { ReadingItem } from '../../contract/steps';
import { readingOn } from '../bench-items';
import type { ReadingId } from './member';

/** Where only a meter or an eye tells the moment. */
export const BY_HAND = { moment: 'by-hand' } as const;

type Measures = ReadingId | 'input' | 'supply' | 'zero';

/** Readings where circuits are tested. */
export function readingsAt({ ports }: Pick<TestedAt, 'ports'>) {
  const read = (
    id: string,
    port: string,
    measures: Measures,
    prompt: string,
    more: Partial<ReadingItem> = {},
  ): ReadingItem => readingOn(ports, id, port, measures, prompt, more);
  /** The same of both circuits, the rear one as the front one. */
  const both = (
    id: string,
    measures: readonly [Measures, Measures],
    prompt: (which: string) => string,
    more: Partial<ReadingItem> = {},
  ): ReadingItem[] => [
    read(`${id}.supply`, 'supply', measures[0], prompt('the front circuit'), more),
    read(`${id}.supply2`, 'supply-2', measures[1], prompt('the rear circuit'), more),
  ];
  return { read, both };
}
