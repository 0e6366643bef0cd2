import { FAMILIES } from '@/core/families/registry';
import { ELECTRIC_PUMP } from '@/core/scenarios/bench';
import { TYPICAL_BENCH } from '../logger/typical-bench';
import { portsFrom, standUp } from './stand';

/**
 * `npm run device:vehicle`: a vehicle with an electric vacuum pump, its interface on HARD_PEDAL_VEHICLE_PORT (13400), and a logger on
 * its gauges on HARD_PEDAL_LOGGER_PORT (5027) with the hands above it. What is hidden in it, what the line does wrong and whether it
 * moves is said to the hands, a JSON object to a line.
 */
const family = FAMILIES['vacuum-vehicle'];
const typical = family.typical as { readonly source: object };
const profile = family.profile.parse({ ...typical, source: { ...typical.source, ...ELECTRIC_PUMP } });
standUp({ ...TYPICAL_BENCH, kind: 'vacuum-vehicle', profile }, portsFrom({ logger: 5027, vehicle: 13_400 }), [
  { hands: { key: 'ignition' } },
]);
