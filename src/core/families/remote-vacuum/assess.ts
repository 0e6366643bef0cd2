import { AT_ONCE, readingOf } from '../../model/vectors';
import type { Sentence } from '../../quantities/sentence';
import { roomOf } from '../../procedure/room';
import type { RunState } from '../../contract/run-state';
import type { Family } from '../../contract/family';
import type { Room, RunContext } from '../../contract/run-context';
import type { Assessment, Result } from '../../contract/result';
import { assessRun, shortOf, weakSupply } from '../assess-run';
import type { RemoteVacuumProfile } from './profile';

/** The run in plain words. A supply that falls short is named as the supply; the unit is judged by what it made of it. */
export function assessWith(
  model: Family,
  context: RunContext<RemoteVacuumProfile>,
  run: RunState,
  results: readonly Result[],
): Assessment {
  const weak = weakSupply(results);
  // A hose that closes up makes any unit slow: that is then no finding against the unit.
  const hoseFails = weak.some(({ id }) => id === 'supply-drop');
  return assessRun(results, {
    supply: weak.flatMap(
      (result) => supplySentence(model, context, roomOf(context, run, 'rest.supply'), result) ?? [],
    ),
    decisive: ['boost-ratio', 'full-output'],
    excused: hoseFails ? ['slow-apply'] : [],
  });
}

function supplySentence(
  model: Family,
  { profile }: RunContext<RemoteVacuumProfile>,
  { barometer_Pa, temperature_K }: Room,
  result: Result,
): Sentence | null {
  if (result.id === 'supply-health')
    return shortOf(result, 'The supply would make {value} at sea level; a healthy one makes {low} or more.');
  if (result.id === 'supply-drop')
    return shortOf(
      result,
      'The supply falls to {value} when the unit is applied; it should stay above {low}. Look at the hose.',
    );
  const { values } = model.healthy(profile);
  const at = { input_Pa: profile.fullInput_Pa, barometer_Pa, temperature_K, ...AT_ONCE };
  const runout = (supply_Pa: number) => readingOf(model, values, { ...at, supply_Pa }, 'runoutInput');
  return shortOf(
    result,
    'What falls short is the supply: it reads {value}, and this unit needs {low}. On it a healthy unit runs out at {here} in instead of {there}.',
    {
      here: { value: runout(result.value ?? 0), quantity: 'pressure' },
      there: { value: runout(result.limits?.low ?? 0), quantity: 'pressure' },
    },
  );
}
