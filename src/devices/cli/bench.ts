import { existsSync, readFileSync } from 'node:fs';
import { SimBench } from '../logger/sim-bench';
import type { HandMessage } from '../logger/stand-in';
import { TYPICAL_BENCH } from '../logger/typical-bench';
import { portsFrom, standUp } from './stand';

/**
 * `npm run device:bench`: the bench logger's stand-in by itself. It listens on HARD_PEDAL_LOGGER_PORT (5025), and on the
 * port above it for the hands at the bench; on HARD_PEDAL_VEHICLE_PORT, where that is given, for a vehicle's interface. HARD_PEDAL_BENCH
 * names a file that says what stands on it and what its hands have done.
 */
const left = process.env.HARD_PEDAL_BENCH;
standUp(TYPICAL_BENCH, portsFrom({ logger: 5025, vehicle: null }), left ? asLeft(left) : []);

function asLeft(file: string): HandMessage[] {
  if (!existsSync(file)) return [];
  const said = JSON.parse(readFileSync(file, 'utf8')) as { unit: object; hands: object } | null;
  if (!said) return [];
  try {
    // Tried out first: half of what a file says is no bench.
    new SimBench({ ...TYPICAL_BENCH, ...said.unit }).set(said.hands as never);
    return [{ unit: said.unit }, { hands: said.hands }] as HandMessage[];
  } catch (error) {
    // A bench that stands otherwise than its file says is of more use than none.
    console.error(`${file} cannot be followed: ${(error as Error).message}`);
    return [];
  }
}
