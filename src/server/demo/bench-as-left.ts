import type { Knex } from 'knex';
import { handsRefused, type Hands } from '@/core/model/motion';
import { FAMILIES } from '@/core/families/registry';
import { supplied } from '@/core/contract/sources';
import { liveState } from '@/core/procedure/live';
import { countedCaptures } from '@/core/procedure/run';
import { stateOf } from '@/core/records/judged-run';
import type { StoredRun } from '@/core/records/views';
import { openRuns } from '../runs';

/** What is put on a simulated bench, and what its hands do: the messages that it takes. */
export interface BenchAsLeft {
  readonly unit: object;
  readonly hands: Hands;
}

/**
 * The simulated bench as the newest open run of a unit left it that can be left by a pump, a valve and a handle, so that
 * both agree; null where none is open. What stores pressure would have to be charged first, and has other hands.
 */
export async function benchAsLeft(db: Knex): Promise<BenchAsLeft | null> {
  const onBenches = (await openRuns(db)).filter(({ context }) => context.procedure.setting !== 'vehicle');
  const left = onBenches.map((run) => ({ commands: FAMILIES[run.kind].motion?.commands, ...asLeft(run) }));
  const last = left.findLast(({ commands, hands }) => commands && handsRefused(commands, hands) === null);
  return last ? { unit: last.unit, hands: last.hands } : null;
}

function asLeft(run: StoredRun): BenchAsLeft {
  const state = stateOf(run);
  const { procedure, profile, conditions } = run.context;
  const live = liveState(procedure, state);
  const read = procedure.steps
    .flatMap(({ items }) => items)
    .filter((item) => item.kind === 'reading' && item.measures === 'supply')
    .flatMap(({ id }) => countedCaptures(state, id))
    .at(-1);
  const { barometer_Pa, temperature_K } = conditions;
  return {
    unit: {
      kind: run.kind,
      profile,
      room: { barometer_Pa, temperature_K },
      ...(read && { supply_Pa: read.value_SI }),
    },
    hands: {
      pump: true,
      valve: supplied(live.sources) ? 'open' : live.supply_Pa === null ? 'vented' : 'shut',
      handle_Pa: live.input === 'released' ? 0 : live.input,
    },
  };
}
