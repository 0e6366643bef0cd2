import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { seeded } from '../numeric/chance';
import { gateRule, instrumentsOf } from '../procedure/measured-item';
import { rehearse } from '../procedure/rehearse';
import { reduceRun } from '../procedure/run';
import { looksOf, parametersOf, type Truth } from './draw';
import type { LevelId } from './levels';

/** Noise of a reading, in steps of its gauge. */
const NOISE_STEPS = 0.3;

/** A run in which everything that can be tested in a case was, on the twin, with its gauges as they are. */
export function wholeRun(
  family: Family,
  context: RunContext<unknown>,
  truth: Truth,
  level: LevelId,
): RunState {
  const events = rehearse(
    family,
    context,
    {
      parameters: parametersOf(truth, family.faults, truth.faults),
      supply_Pa: truth.supply_Pa,
      gauges: truth.gauges,
      signs: looksOf(family, context.procedure, truth, level, truth.faults),
      noise_steps: NOISE_STEPS,
    },
    { random: seeded(truth.luck), startAt: `${context.conditions.day}T08:00:00.000Z`, goOnFor: 'Practice' },
  );
  return reduceRun(context.procedure, events, gateRule(instrumentsOf(context.rig, context.shelf)));
}
