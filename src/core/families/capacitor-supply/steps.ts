import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item } from '../../contract/steps';
import { batteryStep } from '../battery-step';
import { readingOn } from '../bench-items';
import type { CapacitorSupplyProfile } from './profile';

/** One stop more than must be there: it shows where the store ends. */
const BEYOND = 1;

/** Tests of a battery and its capacitor store. Handbook-models 8.9: six minutes. */
export function steps({ limits, apart_s }: CapacitorSupplyProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const read = (id: string, measures: string, prompt: string, more: object = {}) =>
    readingOn(at.ports, `store.${id}`, 'store', `source.${measures}`, prompt, {
      ...more,
      moment: 'by-hand',
      ...(id !== 'charged' && { sourceFrom: 'store.charged' }),
    });
  const stop = (n: number): Item[] => [
    read(`stop.${n}`, 'lowest', `Stop ${n}: press hard once; read the lowest that it falls to.`, {
      applications: n,
    }),
    ...(n === 1
      ? [
          read('rest', 'rest', `Let go. ${apart_s} s after it was pressed: read it, before the next stop.`, {
            applications: 1,
          }),
        ]
      : []),
  ];
  return [
    { phase: 'supply', step: batteryStep(at) },
    {
      phase: 'unit',
      step: {
        id: 'store',
        title: 'Stops with the battery off',
        instruction: `The meter at pins made for it on the store, on hold of its lowest. Battery isolated just now, so that only the store feeds. Stop by stop, ${apart_s} s apart: press hard, read, let go.`,
        cautions: ['stored-charge'],
        state: at.off,
        needs: ['charge'],
        leaves: { input: 'released', charge: 'spent' },
        attended_s: 360,
        items: [
          read('charged', 'charged', 'Battery just isolated, foot off: read the store.'),
          ...Array.from({ length: limits.stops.value + BEYOND }, (_, i) => stop(i + 1)).flat(),
        ],
      },
    },
  ];
}
