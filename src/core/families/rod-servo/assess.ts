import type { Sentence } from '../../quantities/sentence';
import { roomOf } from '../../procedure/room';
import type { RunState } from '../../contract/run-state';
import type { Family } from '../../contract/family';
import type { Room, RunContext } from '../../contract/run-context';
import { AT_ONCE, readingOf } from '../../model/vectors';
import type { Assessment, Result } from '../../contract/result';
import { assessRun, shortOf, weakSupply } from '../assess-run';
import type { RodServoProfile } from './profile';

/** The run in plain words. A tank that does not fill is named as the supply; the unit is judged by what it made of it. */
export function assessWith(
  model: Family,
  context: RunContext<RodServoProfile>,
  run: RunState,
  results: readonly Result[],
): Assessment {
  return assessRun(results, {
    supply: weakSupply(results).flatMap(
      (result) => supplySentence(model, context, roomOf(context, run, 'rest.supply'), result) ?? [],
    ),
    decisive: ['full-force', 'effective-area'],
    // A tank that was never full enough empties sooner: that is then no finding against the unit.
    excused: weakSupply(results).some(({ id }) => id === 'supply-need')
      ? ['reserve-force', 'useful-applications']
      : [],
  });
}

function supplySentence(
  model: Family,
  { profile }: RunContext<RodServoProfile>,
  { barometer_Pa, temperature_K }: Room,
  result: Result,
): Sentence | null {
  if (result.id === 'supply-health')
    return shortOf(result, 'The supply would make {value} at sea level; a healthy one makes {low} or more.');
  const { values } = model.healthy(profile);
  const at = { input_Pa: profile.fullInput_Pa, barometer_Pa, temperature_K, ...AT_ONCE };
  const force = (supply_Pa: number) => readingOf(model, values, { ...at, supply_Pa }, 'output');
  return shortOf(
    result,
    'What falls short is the supply: the tank reads {value}, and this unit needs {low}. On it a healthy unit makes {here} instead of {there}.',
    {
      here: { value: force(result.value ?? 0), quantity: 'force' },
      there: { value: force(result.limits?.low ?? 0), quantity: 'force' },
    },
  );
}
