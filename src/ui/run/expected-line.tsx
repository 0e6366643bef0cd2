'use client';

import { Box } from '@mui/material';
import type { Expectation } from '@/core/contract/result';
import type { ReadingItem } from '@/core/contract/steps';
import { printQuantity } from '@/core/quantities/print';
import { useSettings } from '../settings-context';

/** What a healthy unit shows here, in one line: the aim, what to expect, the band, where to stop. */
export function ExpectedLine({
  item: reading,
  expectation: exp,
}: {
  item: ReadingItem;
  expectation: Expectation | null;
}) {
  const { unitSet } = useSettings();
  const show = (value: number) => printQuantity(value, reading.quantity, unitSet);
  const parts: string[] = [];
  if (reading.measures === 'input' && reading.target_Pa) parts.push(`Aim for ${show(reading.target_Pa)}`);
  if (exp?.expected !== null && exp?.expected !== undefined) parts.push(`Expect ${show(exp.expected)}`);
  if (exp?.limits) parts.push(bandWords(exp.limits, show));
  if (exp?.expected && exp.gaugeScale) parts.push(`on this gauge ${show(exp.expected * exp.gaugeScale)}`);
  if (reading.stopAt_Pa) parts.push(`stop at ${show(reading.stopAt_Pa)} on any gauge`);
  return <Box sx={{ fontSize: '1.35rem', fontWeight: 600 }}>{parts.join(' · ') || '\u00a0'}</Box>;
}

function bandWords({ low, high }: { low?: number; high?: number }, show: (value: number) => string): string {
  if (low !== undefined && high !== undefined) return `healthy ${show(Math.max(0, low))} to ${show(high)}`;
  return low !== undefined ? `at least ${show(low)}` : `at most ${show(high!)}`;
}
