import { numberIn, type Heard, type ThroughInterface, type Values } from '../../contract/vehicle-interface';
import type { Quantity } from '../../quantities/units';
import { vacuumPump, type PumpMoment } from '../../signals/vacuum-pump';
import type { VacuumSupplyProfile } from './profile';

/** A sound pump may leave this part of the barometer more than its profile says: our judgement. */
const FLOOR_MORE = 0.03;
/** As far as a course of vacuum is drawn, Pa. */
const MOST_PA = 1e5;

/** Vacuum at the unit, by its own two sensors, Pa; null where either says nothing. */
function vacuum_Pa(values: Values): number | null {
  const [unit, barometer] = [numberIn(values, 'unitPressure'), numberIn(values, 'barometer')];
  return unit === null || barometer === null ? null : barometer - unit;
}

function momentsOf(log: readonly Heard[]): PumpMoment[] {
  return log.flatMap(({ t_s, values, asked }) => {
    const [depression_Pa, barometer_Pa, pump] = [
      vacuum_Pa(values),
      numberIn(values, 'barometer'),
      numberIn(values, 'pump'),
    ];
    return depression_Pa === null || barometer_Pa === null || pump === null
      ? []
      : [{ t_s, depression_Pa, barometer_Pa, runs: pump > 0, asked: asked.includes('pump') }];
  });
}

const lastOf = (log: readonly Heard[], id: string): number | null =>
  log.reduce<number | null>((last, { values }) => numberIn(values, id) ?? last, null);

/** Steps of a vacuum supply in which the vehicle's interface helps. Handbook 8.3, handbook-models 16. */
export const throughInterface: Readonly<Record<string, ThroughInterface>> = {
  switch: {
    reads: ['pump', 'unitPressure', 'barometer', 'onBelow', 'offAbove'],
    asks: { value: 'pump', state: 'On', says: 'Have the pump run' },
    shows: (values) => {
      const pump = numberIn(values, 'pump');
      const figure = (id: string, name: string, value: number | null, quantity: Quantity = 'depression') =>
        ({ id, name, shows: { quantity, value } }) as const;
      return [
        figure('vacuum', 'Vacuum, its own sensor', vacuum_Pa(values)),
        { id: 'pump', name: 'Pump', shows: { word: pump === null ? null : pump > 0 ? 'runs' : 'stands' } },
        figure('onBelow', 'Means to start below', numberIn(values, 'onBelow')),
        figure('offAbove', 'Means to stop above', numberIn(values, 'offAbove')),
        figure('barometer', 'Barometer, its own', numberIn(values, 'barometer'), 'barometer'),
      ];
    },
    course: {
      name: 'Vacuum',
      quantity: 'depression',
      most: MOST_PA,
      of: vacuum_Pa,
      keeps: (values) => {
        const [low, high] = [numberIn(values, 'onBelow'), numberIn(values, 'offAbove')];
        return low === null || high === null ? null : [low, high];
      },
      shaded: 'the pump runs',
      isShaded: (values) => (numberIn(values, 'pump') ?? 0) > 0,
    },
    tells: (log, profile) => {
      const { floorShare } = profile as VacuumSupplyProfile;
      const { says, ...of } = vacuumPump(momentsOf(log), {
        onBelow_Pa: lastOf(log, 'onBelow'),
        offAbove_Pa: lastOf(log, 'offAbove'),
        floorShare,
        floorMore: FLOOR_MORE,
      });
      return {
        found: [
          { name: 'Grew by, longest run', found: of.grew },
          { name: 'Stops at', found: of.stopsAt },
          { name: 'Starts at', found: of.startsAt },
          { name: 'Loses while it stands', found: of.drift },
          { name: 'Runs, part of the time', found: of.duty },
          { name: 'Tends to', found: of.reach },
        ],
        says,
      };
    },
  },
};
