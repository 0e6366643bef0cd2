import { printNames, sentence, type Sentence } from '../../quantities/sentence';
import type { RunState } from '../../procedure/run';
import type { Family, RunContext } from '../../twin/family';
import type { Assessment, Result } from '../../twin/result';
import type { RemoteVacuumProfile } from './profile';

/** The run in plain words. A supply that falls short is named as the supply; the unit is judged by what it made of it. */
export function assessWith(
  model: Family,
  context: RunContext<RemoteVacuumProfile>,
  _run: RunState,
  results: readonly Result[],
): Assessment {
  const ofUnit = results.filter(({ about }) => about === 'unit');
  const hoseFails = results.some(({ id, verdict }) => id === 'supply-drop' && verdict === 'fails');
  // A hose that closes up makes any unit slow: that is then no finding against the unit.
  const failing = ofUnit.filter(
    ({ id, verdict }) => verdict === 'fails' && !(hoseFails && id === 'slow-apply'),
  );
  const close = ofUnit.filter(({ verdict }) => verdict === 'close');
  const missing = ofUnit.filter(({ verdict }) => verdict === 'not-taken');
  const weak = results.filter(({ about, verdict }) => about === 'supply' && verdict === 'fails');
  const names = (list: readonly Result[]) => printNames(list.map(({ name }) => name));
  const supply = weak.flatMap(({ id }) => supplySentences(model, context, results, id));
  const open: Sentence[] = [
    ...(close.length ? [sentence(`Too close to call: ${names(close)}.`)] : []),
    ...(missing.length ? [sentence(`Not taken: ${names(missing)}.`)] : []),
  ];
  if (failing.length > 0) {
    return {
      call: 'faulty',
      headline: 'The unit fails',
      reasons: [sentence(`Outside its limits: ${names(failing)}.`), ...supply, ...open],
    };
  }
  if (close.length > 0) return { call: 'open', headline: 'Not settled yet', reasons: [...open, ...supply] };
  const taken = ofUnit.some(({ verdict }) => verdict === 'meets');
  if (missing.length > 0 && (weak.length === 0 || !ratioAndRunoutTaken(results))) {
    return {
      call: 'incomplete',
      headline: taken ? 'So far within limits, not complete' : 'Nothing judged yet',
      reasons: [...supply, ...open],
    };
  }
  if (weak.length > 0) {
    return {
      call: 'weak-supply',
      headline: 'A healthy unit on a weak supply',
      reasons: [...supply, ...open],
    };
  }
  return { call: 'healthy', headline: 'The unit met every limit tested', reasons: [] };
}

/** What has to be read before a weak supply can be told from a weak unit. */
const ratioAndRunoutTaken = (results: readonly Result[]) =>
  ['boost-ratio', 'full-output'].every((id) => results.some((r) => r.id === id && r.verdict !== 'not-taken'));

function supplySentences(
  model: Family,
  { profile, conditions }: RunContext<RemoteVacuumProfile>,
  results: readonly Result[],
  id: string,
): Sentence[] {
  const result = results.find((candidate) => candidate.id === id);
  const low = result?.limits?.low;
  if (result?.value === null || result?.value === undefined || low === undefined) return [];
  const values = {
    value: { value: result.value, quantity: 'depression', u: result.u, withU: true },
    low: { value: low, quantity: 'depression' },
  } as const;
  if (id === 'supply-health') {
    return [
      sentence('The supply would make {value} at sea level; a healthy one makes {low} or more.', values),
    ];
  }
  if (id === 'supply-drop') {
    return [
      sentence(
        'The supply falls to {value} when the unit is applied; it should stay above {low}. Look at the hose.',
        values,
      ),
    ];
  }
  const runoutPlace = model.readings.findIndex((reading) => reading.id === 'runoutInput');
  const { values: healthy } = model.healthy(profile);
  const runout = (supply_Pa: number) =>
    model.steady(healthy, [
      profile.fullInput_Pa,
      supply_Pa,
      conditions.barometer_Pa,
      conditions.temperature_K,
      0,
    ])[runoutPlace]!;
  return [
    sentence(
      'What falls short is the supply: it reads {value}, and this unit needs {low}. On it a healthy unit runs out at {here} in instead of {there}.',
      {
        ...values,
        here: { value: runout(result.value), quantity: 'pressure' },
        there: { value: runout(low), quantity: 'pressure' },
      },
    ),
  ];
}
