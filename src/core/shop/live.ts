import { z } from 'zod';
import { FAMILY_KINDS } from '../families/registry';
import type { Instrument } from '../metrology/instrument';
import { findUnit } from '../quantities/units';

/** One channel of a bench logger: an instrument by its tag, what it reads in, and its range in that. */
export interface LoggerChannel {
  readonly tag: string;
  readonly unit: string;
  readonly low: number;
  readonly high: number;
}

/** Time between two samples, s, from which on they are two recordings: nothing is known of what lies between. */
export const LONGEST_GAP_S = 600;

/** Whether a channel can be this gauge: its unit measures what the gauge does. */
export const isRead = ({ unit }: Pick<LoggerChannel, 'unit'>, { quantity }: Pick<Instrument, 'quantity'>) =>
  findUnit(unit)?.measures.includes(quantity) ?? false;

/** How it stands with the bench logger, with a sentence where something is wrong. */
export interface LoggerStatus {
  readonly state: 'off' | 'connecting' | 'streaming' | 'lost';
  /** Who answers, as it names itself. */
  readonly name: string | null;
  readonly channels: readonly LoggerChannel[];
  readonly trouble: string | null;
}

/** A run that has the bench, and its job's tag. */
export interface BenchOwner {
  readonly run: string;
  readonly tag: string;
}

/** What a screen is told of it. */
export interface LiveStatus extends LoggerStatus {
  /** It is the simulated bench: handle, pump and valve can be worked from the screen. */
  readonly simulated: boolean;
  /** The one run that the bench belongs to; null while it belongs to none. */
  readonly owner: BenchOwner | null;
}

/** One moment of the live bench: what each instrument shows, SI, and whether it stands still. */
export interface LiveMoment {
  readonly t_s: number;
  readonly shown: Readonly<Record<string, number>>;
  readonly settled: readonly string[];
}

/** What is sent to the screen, one to an event. */
export type LiveMessage =
  | { readonly type: 'status'; readonly status: LiveStatus }
  | { readonly type: 'moment'; readonly moment: LiveMoment };

/** What is done at the simulated bench from the screen: commands of what stands on it, which it checks itself. */
export const handsSchema = z.record(
  z.string().max(40),
  z.union([z.number(), z.boolean(), z.string().max(40)]),
);

/** What is put on the simulated bench. */
export const simUnitSchema = z
  .strictObject({
    run: z.uuid(),
    /** A unit of this kind with typical figures, where no run is named. */
    kind: z.enum(FAMILY_KINDS),
    fault: z.tuple([z.string().max(80), z.number().min(0).max(1)]).nullable(),
    supply_Pa: z.number().min(0).max(100_000),
  })
  .partial();

/** Where the simulated bench of a shop's own listens, unless another has that port; its hands, on the port above. The address names it in settings. */
export const PRACTICE_PORT = 5725;
export const PRACTICE_LOGGER = `127.0.0.1:${PRACTICE_PORT}`;
