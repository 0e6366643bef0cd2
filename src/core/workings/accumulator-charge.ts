import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { Plot } from '../plot/plot';
import { Vessel, type Charge } from '../fluid/accumulator';
import { filledTo } from '../fluid/charging';
import { IDEAL_NITROGEN, isExtrapolated, NITROGEN, type GasLaw } from '../fluid/nitrogen';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  shell_m3: field('Inside of the shell', 'volume', 1e-5, 0.02),
  preCharge_Pa: field('Pre-charge at 20 °C', 'pressure', 0, 250 * BAR),
  temperature_K: field('Temperature of the shell', 'temperature', 243.15, 353.15),
  flow_m3PerS: field('Flow of the pump', 'pumpFlow', 1e-8, 1e-3),
  cutOut_Pa: field('Pump stops at', 'pressure', BAR, 250 * BAR),
  settling_s: field('Gas cools with a time constant of', 'duration', 1, 300),
  hold_s: field('Held for', 'duration', 0, 3600),
});
type Fields = z.infer<typeof fields>;

/** Points that are drawn of the charge. */
const POINTS = 40;
const START = 1.0001;

/** @throws RangeError where the pump stops before any fluid is in */
function charged(asked: Fields, law: GasLaw) {
  const vessel = new Vessel(asked, { barometer_Pa: SEA_LEVEL_PA, temperature_K: asked.temperature_K }, law);
  if (vessel.flickUp_Pa >= asked.cutOut_Pa)
    throw new RangeError(
      'cutOut_Pa: the gas alone stands higher than where the pump stops; no fluid gets in',
    );
  const upTo = (pressure_Pa: number, from = vessel.empty) =>
    filledTo(vessel, from, pressure_Pa, () => asked.flow_m3PerS);
  const held = (charge: Charge, time_s: number) => vessel.gauge_Pa(vessel.stood(charge, time_s));
  return { vessel, upTo, held, full: upTo(asked.cutOut_Pa) };
}

/** Pressure against time over a charge and the hold behind it. */
function overTime(asked: Fields, law: GasLaw) {
  const { vessel, upTo, held, full } = charged(asked, law);
  let [at, time_s] = [vessel.empty, 0];
  const rising = steps(START * vessel.flickUp_Pa, asked.cutOut_Pa, POINTS).map((pressure) => {
    const next = upTo(pressure, at);
    [at, time_s] = [next.charge, time_s + next.time_s];
    return [time_s, pressure] as const;
  });
  const falling = steps(0, asked.hold_s, POINTS).map(
    (time) => [full.time_s + time, held(full.charge, time)] as const,
  );
  return [[0, 0] as const, [0, vessel.flickUp_Pa] as const, ...rising, ...falling];
}

/** What a vessel that is pumped up shows, and how far it falls by cooling alone, with nothing leaking. */
export const accumulatorCharge = defineWorking<Fields>({
  name: 'accumulator-charge',
  title: 'Charge and hold of an accumulator',
  about:
    'How a vessel fills from empty, and how far its pressure falls afterwards by cooling alone, with no leak at all; real nitrogen beside an ideal gas.',
  source: 'Benedict–Webb–Rubin with constants of Cooper & Goldfrank 1967; Otis & Pourmovahed 1985',
  input: fields,
  example: {
    shell_m3: 0.3e-3,
    preCharge_Pa: 65 * BAR,
    temperature_K: 293.15,
    flow_m3PerS: 6e-6,
    cutOut_Pa: 150 * BAR,
    settling_s: 20,
    hold_s: 80,
  },
  compute: (asked) => {
    const { vessel, held, full } = charged(asked, NITROGEN);
    const ideal = charged(asked, IDEAL_NITROGEN);
    return [
      { id: 'flickUp_Pa', name: 'Flick-up', value: vessel.flickUp_Pa, quantity: 'pressure' },
      { id: 'time_s', name: 'Charged in', value: full.time_s, quantity: 'duration' },
      { id: 'fluid_m3', name: 'Fluid in it', value: vessel.fluid_m3(full.charge), quantity: 'fluidVolume' },
      { id: 'gas_K', name: 'Gas then', value: full.charge.temperature_K, quantity: 'temperature' },
      {
        id: 'held_Pa',
        name: 'Left after the hold, nothing leaking',
        value: held(full.charge, asked.hold_s),
        quantity: 'pressure',
      },
      { id: 'settled_Pa', name: 'Settled', value: held(full.charge, Infinity), quantity: 'pressure' },
      {
        id: 'ideal_Pa',
        name: 'An ideal gas would settle at',
        value: ideal.held(ideal.full.charge, Infinity),
        quantity: 'pressure',
      },
      {
        id: 'range',
        name: 'Gas law',
        text: isExtrapolated(vessel.state(full.charge))
          ? 'extrapolated: the gas is beyond 400 K or 250 bar'
          : 'within its range',
      },
    ];
  },
  picture: (asked, set) => {
    const [real, ideal] = [overTime(asked, NITROGEN), overTime(asked, IDEAL_NITROGEN)];
    const last_s = Math.max(real.at(-1)![0], ideal.at(-1)![0]);
    const x = axis('Time', 'duration', set, 0, last_s);
    const y = axis('Pressure', 'pressure', set, 0, 1.1 * asked.cutOut_Pa);
    const plot = new Plot(x, y);
    const drawn = (points: typeof real) => points.map(([t, p]) => [x.at(t), y.at(p)] as const);
    plot.line(drawn(ideal), { dashed: true });
    plot.line(drawn(real));
    const [end_s, end_Pa] = ideal.at(-1)!;
    plot.words(x.at(end_s), y.at(end_Pa), 'ideal gas');
    plot.mark(x.at(charged(asked, NITROGEN).full.time_s), 'pump off');
    return plot.svg('Pressure against time over the charge and the hold; dashed, an ideal gas');
  },
});
