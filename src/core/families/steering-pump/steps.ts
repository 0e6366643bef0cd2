import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import { look, readingOn, whileFed } from '../bench-items';
import type { SteeringPumpProfile } from './profile';

/** A load valve is shut for no longer than this, s: the fluid in so small a loop boils the pump. Handbook-models P.3. */
const SHUT_S = 5;

/** Tests of a steering pump. Handbook-models 8.4: look four minutes, pump at a hot idle twelve. */
export function steps(_profile: SteeringPumpProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const read = (id: string, port: string, measures: string, prompt: string) =>
    readingOn(at.ports, id, port, measures, prompt, { moment: 'by-hand' });
  // What loads the belt: the steering at its lock, or on a bench the load valve.
  const loaded =
    at.setting === 'vehicle'
      ? {
          where: 'Belt at the lock',
          how: 'Turn to the lock for a moment',
          done: 'Steering turned to the lock',
        }
      : { where: 'Belt under load', how: 'Shut the load valve for a moment', done: 'Load valve shut' };
  return [
    {
      phase: 'supply',
      step: {
        id: 'belt',
        title: 'Belt, fluid and sound',
        instruction: `${at.says.on}, the fluid hot. ${loaded.how} and listen; look into the reservoir and read its fluid.`,
        cautions: whileFed(at),
        state: at.on,
        needs: ['zeros'],
        leaves: { input: 'released' },
        attended_s: 240,
        items: [
          look('squeal', loaded.where, `${loaded.done} for two seconds: quiet?`, 'Quiet', [
            'squeals',
            'Squeals',
          ]),
          look('foam', 'Fluid in the reservoir', 'Fluid clear, without foam or bubbles?', 'Clear', [
            'foam',
            'Foam or bubbles',
          ]),
          look('growl', 'Sound of the pump', 'Pump even, nothing loading it?', 'Even', ['growls', 'Growls']),
          read('fluid.warm', 'fluid', 'source.fluid', 'Read the fluid in the reservoir.'),
        ],
      },
    },
    {
      phase: 'supply',
      step: {
        id: 'pump',
        title: 'Flow and shut-off pressure, hot at idle',
        instruction: `Flow meter and load valve in the pressure line, fitted with everything at zero. ${at.says.on}: close the valve to 50 bar and read the flow. Then shut it for ${SHUT_S} s at the most, read, and open it at once.`,
        cautions: whileFed(at, 'bench-pressure', 'held-by-check-valves'),
        state: at.on,
        needs: ['belt'],
        leaves: { input: 'released' },
        attended_s: 720,
        items: [
          read('pump.flow', 'flow', 'source.flow', 'Valve closed to 50 bar: read the flow.'),
          read('pump.shut', 'line', 'source.shut', `Shut for ${SHUT_S} s at the most: read the pressure.`),
        ],
      },
    },
  ];
}
