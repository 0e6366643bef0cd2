import type { AssessRules } from '../../contract/assess-rules';
import type { RemoteVacuumProfile } from './profile';

/** A supply that falls short is named as the supply; the unit is judged by what it made of it. */
export const assessRules = ({ fullInput_Pa }: RemoteVacuumProfile): AssessRules => ({
  room: 'rest.supply',
  shortfalls: {
    'supply-drop': {
      words:
        'The supply falls to {value} when the unit is applied; it should stay above {low}. Look at the hose.',
    },
    'supply-need': {
      words:
        'What falls short is the supply: it reads {value}, and this unit needs {low}. On it a healthy unit runs out at {here} in instead of {there}.',
      shows: { reading: 'runoutInput', quantity: 'pressure', at: { input_Pa: fullInput_Pa } },
    },
  },
  decisive: ['boost-ratio', 'full-output'],
  // A hose that closes up makes any unit slow.
  excuses: { 'supply-drop': ['slow-apply'] },
});
