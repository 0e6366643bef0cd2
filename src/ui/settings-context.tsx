'use client';

import { createContext, use } from 'react';
import { printQuantity, type PrintOptions } from '@/core/quantities/print';
import { printSentence, type Sentence } from '@/core/quantities/sentence';
import type { Quantity } from '@/core/quantities/units';
import { INITIAL_SETTINGS, type Settings } from '@/core/shop/settings';

export const SettingsContext = createContext<Settings>(INITIAL_SETTINGS);

export const useSettings = () => use(SettingsContext);

/** How a length is printed that is measured with a rule: to the millimetre. */
export const TO_A_MM: PrintOptions = { u_SI: 1.5e-3 };

/** Prints values and sentences in the bench's unit set. */
export function usePrint() {
  const { unitSet } = useSettings();
  return {
    unitSet,
    value: (value_SI: number, quantity: Quantity, options?: PrintOptions) =>
      printQuantity(value_SI, quantity, unitSet, options),
    sentence: (sentence: Sentence) => printSentence(sentence, unitSet),
  };
}
