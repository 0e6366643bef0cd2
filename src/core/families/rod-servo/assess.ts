import type { AssessRules } from '../../contract/assess-rules';
import type { RodServoProfile } from './profile';

/** A tank that does not fill is named as the supply; the unit is judged by what it made of it. */
export const assessRules = ({ fullInput_Pa }: RodServoProfile): AssessRules => ({
  room: 'rest.supply',
  shortfalls: {
    'supply-need': {
      words:
        'What falls short is the supply: the tank reads {value}, and this unit needs {low}. On it a healthy unit makes {here} instead of {there}.',
      shows: { reading: 'output', quantity: 'force', at: { input_Pa: fullInput_Pa } },
    },
  },
  decisive: ['full-force', 'effective-area'],
  // A tank that was never full enough empties sooner.
  excuses: { 'supply-need': ['reserve-force', 'useful-applications'] },
});
