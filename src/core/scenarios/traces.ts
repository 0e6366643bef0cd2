import { AT_ONCE, inputVector } from '../model/vectors';
import type { Trace } from '../signals/trace';
import type { Vector } from '../model/descriptor';
import { Running } from '../model/running';
import { logged, recordBench, wholeTest, type Logger, type Script } from '../twin/recording';
import { BAR, family, INHG, profile } from './bench';

const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };

/** A pull so slow that every reading stands on the closed form: the truth that an estimator is held against. */
export function slowPull(
  parameters: Vector,
  {
    supply_Pa,
    to_Pa,
    seconds,
    rate_Hz,
  }: { supply_Pa: number; to_Pa: number; seconds: number; rate_Hz: number },
  logger: Logger,
  reading: 'output' | 'outputReleasing' = 'output',
): Trace {
  const places = [reading, 'activation'].map((id) => family.readings.findIndex((r) => r.id === id));
  const count = Math.round(seconds * rate_Hz);
  const rows = Array.from({ length: count }, (_, i) => {
    const part = (i + 0.5) / count;
    const input = to_Pa * (reading === 'output' ? part : 1 - part);
    const at = family.steady(
      parameters,
      inputVector(family.inputs, { input_Pa: input, supply_Pa, ...ROOM, ...AT_ONCE }),
    );
    return [i / rate_Hz, input, at[places[0]!]!, supply_Pa, at[places[1]!]!];
  });
  return logged(rows, family.ports, logger);
}

/** The handbook's unit, healthy, on a bench with a good supply: to be worked by hand. */
export const benchOfTypical = (): Running =>
  new Running(
    family.motion!,
    family.healthy(profile).values,
    { ...ROOM, supply_Pa: 20 * INHG },
    family.ports.length,
  );

/** A trace of the handbook's unit on a bench over time, done by a script. */
export const benchTrace = (parameters: Vector, supply_Pa: number, script: Script, logger: Logger): Trace =>
  recordBench(family, parameters, supply_Pa, ROOM, script, logger);

/** The whole test of the handbook's unit. */
export const WHOLE_TEST: Script = wholeTest({
  bypass_Pa: 60 * BAR,
  beyondRunout_Pa: 38 * BAR,
  hold_Pa: 22 * BAR,
});

export { BAR, family, INHG, profile, ROOM };
