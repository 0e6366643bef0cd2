'use client';

import { Box } from '@mui/material';
import type { Expectation } from '@/core/contract/result';
import type { ReadingItem } from '@/core/contract/steps';
import { inputAim } from '@/core/procedure/hands-free';
import { printQuantity } from '@/core/quantities/print';
import { useSettings } from '../settings-context';
import type { RunHandle } from './use-run';

/**
 * What a healthy unit shows here, in one line: the aim, or where what is set has to stand meanwhile; what to expect, the band, where
 * to stop.
 */
export function ExpectedLine({
  run: { context, family },
  item: reading,
  expectation: exp,
}: {
  run: Pick<RunHandle, 'context' | 'family'>;
  item: ReadingItem;
  expectation: Expectation | null;
}) {
  const { unitSet } = useSettings();
  const { set, aim } = inputAim(context.procedure, reading);
  const held = set === reading.port ? undefined : family.ports.find(({ id }) => id === set);
  const show = (value: number) => printQuantity(value, reading.quantity, unitSet);
  const parts: string[] = [];
  if (reading.measures === 'input' && reading.target_Pa) parts.push(`Aim for ${show(reading.target_Pa)}`);
  if (aim && held?.quantity) parts.push(`${held.name} at ${printQuantity(aim, held.quantity, unitSet)}`);
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
