import type { CautionId } from '../../contract/cautions';
import type { Fault, Look } from '../../contract/family';
import { moving } from '../../model/vectors';
import { brakeLamps, NO_CAUSE, type LampCauses } from '../../vehicle/brake-lamps';
import { grown, left } from '../severity';
import { WHEELS, type WheelId } from '../wheel-lines';
import { ofWheel, parameters } from './parameters';

const moves = moving(parameters);
const OPENING: readonly CautionId[] = ['stored-charge', 'held-by-check-valves', 'open-line'];
const PLUGS: readonly CautionId[] = ['stored-charge', 'pierced-lead'];

const BAR = 1e5;
/** One cc a minute, m³/s. */
const CC_A_MINUTE = 1e-6 / 60;

const gasLeft = left(0.8, 0.2);
const pumpLeft = (severity: number) => (severity === 0 ? 1 : 0.6 * (1 - severity));
const sensorOff = grown(3 * BAR, 20 * BAR);
const mastersOff = grown(2 * BAR, 10 * BAR);
const wheelOff = grown(2 * BAR, 10 * BAR);
const wheelScale = grown(0.03, 0.15);
const drifted = grown(0.15, 1);
const sinking = grown(0.05 * CC_A_MINUTE, 5 * CC_A_MINUTE);
const leaking = grown(0.1 * CC_A_MINUTE, 5 * CC_A_MINUTE);
const sticking = grown(0.06, 1.2);
const air = grown(1e-6, 8e-6);
const weeping = grown(1e-14, 2e-12);
const noisy = grown(4, 49);

/** Lamps that a cause lights while the vehicle stands, as they are answered. */
function lit(cause: keyof LampCauses): Readonly<Record<string, string>> {
  const { red, yellow } = brakeLamps({ ...NO_CAUSE, [cause]: true });
  return { ...(red && { red: 'lit' }), ...(yellow && { yellow: 'lit' }) };
}

/** A fault of one wheel: of the weight of its kind each wheel has a quarter. */
const ofEach = (
  id: string,
  weight: number,
  say: (name: string) => Omit<Fault, 'id' | 'prior' | 'apply'>,
  change: (wheel: WheelId, severity: number) => Readonly<Record<string, number>>,
): Fault[] =>
  WHEELS.map(({ id: wheel, name }) => ({
    id: `${id}-${wheel}`,
    prior: weight / WHEELS.length,
    apply: moves((_p, s) => (s === 0 ? {} : change(wheel, s))),
    ...say(name),
  }));

/** Faults of a decoupled brake, named and weighted as in handbook-models 8.9; where a line names several, each has its part. */
export const faults: readonly Fault[] = [
  {
    id: 'gas-lost',
    prior: 10,
    brings: ['lamp', 'runs-often', 'hard'],
    name: 'accumulator gas lost',
    plain: 'The accumulator has lost much of its gas: little is stored, and the pump runs often.',
    apply: moves((p, s) => ({ preCharge_Pa: p.preCharge_Pa * gasLeft(s) })),
    signs: lit('accumulatorLow'),
    confirm: 'Flick-up low as it is charged from empty.',
    repair: 'Renew the accumulator, store and accumulator at zero; read the flick-up again.',
    parts: ['accumulator'],
    cautions: ['charged-vessel', ...OPENING],
  },
  {
    id: 'pump-weak',
    prior: 8,
    brings: ['lamp', 'runs-often'],
    name: 'pump or its relay',
    plain:
      'The pump of the accumulator fills slowly or not at all: worn, or its relay lets too little through.',
    apply: moves((p, s) => ({ pump_m3PerS: p.pump_m3PerS * pumpLeft(s) })),
    signs: lit('accumulatorLow'),
    confirm:
      'The charge takes far too long, or never ends, with a sound flick-up. A relay that clicks proves no current.',
    repair: 'Volts at the pump while it runs; renew relay, plug or pump, and charge from empty again.',
    parts: ['pump'],
    cautions: OPENING,
  },
  {
    id: 'accumulator-sensor',
    prior: 4,
    brings: ['lamp'],
    name: 'accumulator sensor off',
    plain: 'The sensor of the accumulator tells of more than there is, so the pump stops early.',
    apply: moves((_p, s) => ({ accumulatorOff_Pa: sensorOff(s) })),
    signs: lit('redundantSensor'),
    confirm: 'The gauge stands lower than what its volts tell of, at every pressure by the same.',
    repair: 'Renew the sensor or the block it sits in; read both at two pressures.',
    parts: ['sensors'],
    cautions: OPENING,
  },
  ...ofEach(
    'sensor-off',
    8 / 3,
    (wheel) => ({
      brings: ['pulls', 'lamp'],
      name: `wheel sensor off, ${wheel}`,
      plain: `The pressure sensor of the wheel ${wheel} tells of too little: the wheel is braked harder than the others.`,
      signs: lit('redundantSensor'),
      confirm:
        'A gauge at that wheel stands above its target by the same at every force, while its volts look right.',
      repair:
        'Renew the block with its sensors, or the sensor where it is served; read gauge and volts again.',
      parts: ['sensors'],
      cautions: OPENING,
    }),
    (wheel, s) => ({ [ofWheel('sensorOff_Pa', wheel)]: -wheelOff(s) }),
  ),
  ...ofEach(
    'sensor-scale',
    8 / 3,
    (wheel) => ({
      brings: ['pulls', 'lamp'],
      name: `wheel sensor scaled, ${wheel}`,
      plain: `The pressure sensor of the wheel ${wheel} shows more the harder it is pressed: the wheel brakes less than the others.`,
      signs: lit('redundantSensor'),
      confirm: 'A gauge at that wheel falls behind its target the further the harder it is pressed.',
      repair:
        'Renew the block with its sensors, or the sensor where it is served; read gauge and volts again.',
      parts: ['sensors'],
      cautions: OPENING,
    }),
    (wheel, s) => ({ [ofWheel('sensorScale', wheel)]: 1 + wheelScale(s) }),
  ),
  ...ofEach(
    'sensor-stuck',
    8 / 3,
    (wheel) => ({
      brings: ['pulls', 'grabs', 'lamp'],
      name: `wheel sensor stuck, ${wheel}`,
      plain: `The pressure sensor of the wheel ${wheel} stands still: its valves press all they have.`,
      signs: { ...lit('redundantSensor'), codes: 'stand' },
      confirm: 'Its volts do not move while a gauge at that wheel goes far beyond its target.',
      repair:
        'Renew the block with its sensors, or the sensor where it is served; read gauge and volts again.',
      parts: ['sensors'],
      cautions: OPENING,
    }),
    (wheel) => ({ [ofWheel('sensorScale', wheel)]: 0 }),
  ),
  {
    id: 'masters-differ',
    prior: 4,
    brings: ['lamp'],
    name: 'master sensors differ',
    plain: 'The two sensors of the master cylinder disagree on the same pressure.',
    apply: moves((_p, s) => ({ master2Off_Pa: mastersOff(s) })),
    signs: lit('redundantSensor'),
    confirm: 'Both read at once, apart by the same at rest and pressed.',
    repair: 'Find which of the two a gauge or the simulator’s curve contradicts; renew that one.',
    parts: ['sensors'],
    cautions: PLUGS,
  },
  {
    id: 'track-drift',
    prior: 6,
    brings: ['lamp'],
    name: 'one track of the pedal’s sensor drifted',
    plain: 'One of the two tracks of the pedal’s sensor reads off by the same everywhere.',
    apply: moves((_p, s) => ({ drift_V: drifted(s) })),
    signs: lit('redundantSensor'),
    confirm: 'The sum of the tracks off by the same at rest and pressed.',
    repair: 'Renew the sensor, set it as the maker says, and read both tracks over the stroke.',
    parts: ['pedal-sensor'],
    cautions: PLUGS,
  },
  {
    id: 'isolation-leaks',
    prior: 5 / 2,
    brings: ['sinks', 'soft'],
    name: 'isolation valve leaks',
    plain:
      'A valve that parts the pedal from the wheels lets fluid through: the pedal sinks while it is held.',
    apply: moves((_p, s) => ({ sinks_m3PerS: sinking(s) })),
    signs: {},
    confirm: 'Held at one force the pedal sinks on, nothing wet outside.',
    repair: 'Renew the valve block; hold the pedal again.',
    parts: ['valves'],
    cautions: OPENING,
  },
  {
    id: 'simulator-air',
    prior: 4 / 2,
    brings: ['soft', 'low'],
    name: 'air in the simulator',
    plain: 'There is air in what gives the pedal its feel: it goes further than its pressure explains.',
    apply: moves((_p, s) => ({ simulatorAir_m3: air(s) })),
    signs: {},
    confirm: 'More stroke than the pressure explains, and it does not sink while it is held.',
    repair: 'Bleed the simulator as the maker says; read travel and pressure again.',
    parts: ['simulator'],
    cautions: OPENING,
  },
  {
    id: 'simulator-stuck',
    prior: 4 / 2,
    brings: ['hard'],
    name: 'simulator stuck',
    plain: 'The piston that gives the pedal its feel hangs: the pedal is hard and short.',
    apply: moves((_p, s) => ({ simulatorFree: 1 - 0.9 * s })),
    signs: {},
    confirm: 'Pressure as the foot should make it with less travel than the curve has there.',
    repair: 'Renew the simulator with its valve; read travel and pressure again.',
    parts: ['simulator'],
    cautions: OPENING,
  },
  ...(['1', '2'] as const).map((circuit): Fault => ({
    id: `isolation-shut-${circuit}`,
    prior: 2 / 2,
    brings: ['hard', 'pulls'],
    name: `isolation valve ${circuit} stuck shut`,
    plain: `With the power gone the pedal does not reach the wheels of circuit ${circuit}: nothing shows it while there is power.`,
    apply: moves((_p, s) => (s === 0 ? {} : { [`opens${circuit}`]: 0 })),
    signs: {},
    confirm: 'Power off, store and accumulator at zero: pressed hard, nothing comes in that circuit.',
    repair: 'Renew the valve block; press without power again, every wheel that it joins read.',
    parts: ['valves'],
    cautions: OPENING,
  })),
  ...ofEach(
    'apply-leaks',
    6 / 2,
    (wheel) => ({
      brings: ['drags', 'pulls'],
      name: `apply valve leaks, ${wheel}`,
      plain: `The valve that lets pressure into the wheel ${wheel} does not shut: something stays in it.`,
      signs: {},
      confirm: 'Pressure left in that wheel with the foot off and nothing pressing by itself.',
      repair: 'Renew the valve block; read the wheel released and pressed again.',
      parts: ['valves'],
      cautions: OPENING,
    }),
    (wheel, s) => ({ [ofWheel('applyLeak_m3PerS', wheel)]: leaking(s) }),
  ),
  ...ofEach(
    'apply-sticks',
    6 / 2,
    (wheel) => ({
      brings: ['pulls', 'hard'],
      name: `apply valve sticks, ${wheel}`,
      plain: `The valve that lets pressure into the wheel ${wheel} opens late or not at all.`,
      signs: {},
      confirm: 'It takes more current to open than at the other wheels at the same accumulator pressure.',
      repair: 'Renew the valve block; read its opening current again.',
      parts: ['valves'],
      cautions: OPENING,
    }),
    (wheel, s) => ({ [ofWheel('applySticks_A', wheel)]: sticking(s) }),
  ),
  ...ofEach(
    'release-leaks',
    6,
    (wheel) => ({
      brings: ['pulls', 'hard'],
      name: `release valve leaks, ${wheel}`,
      plain: `The valve that lets pressure out of the wheel ${wheel} does not shut: the wheel is held below its target.`,
      signs: {},
      confirm:
        'That wheel stands below its target by the same at every force, its volts as low as the gauge.',
      repair: 'Renew the valve block; read the wheel pressed again.',
      parts: ['valves'],
      cautions: OPENING,
    }),
    (wheel, s) => ({ [ofWheel('releaseLeak_m3PerS', wheel)]: leaking(s) }),
  ),
  {
    id: 'relief-weeps',
    prior: 3,
    brings: ['runs-often'],
    name: 'relief weeps',
    plain: 'The relief of the accumulator does not shut: stored pressure falls to where it does.',
    apply: moves((_p, s) => ({ weeps_m3PerSPa: weeping(s) })),
    signs: {},
    confirm: 'It loses while it stands with nothing drawn, beyond what cooling gas explains.',
    repair: 'Renew the relief or its block, the accumulator at zero; let it stand again.',
    parts: ['accumulator'],
    cautions: OPENING,
  },
  {
    id: 'contact-stuck',
    prior: 5,
    brings: ['lamp'],
    name: 'one contact of the stop-lamp switch',
    plain: 'One of the two contacts of the stop-lamp switch does not change as the pedal is pressed.',
    // Its contacts are looked at: no gauge shows them.
    apply: moves(() => ({})),
    signs: { contacts: 'one' },
    confirm: 'At its plug one contact changes and the other does not.',
    repair: 'Renew and set the switch; watch both contacts and the lamps again.',
    parts: ['lamp-switch'],
    cautions: PLUGS,
  },
  {
    id: 'shield-open',
    prior: 3,
    brings: ['grabs', 'lamp'],
    name: 'shield of the sensors open',
    plain: 'The shield of the sensors’ leads is open: noise gets into the signals that brake.',
    apply: moves((p, s) => ({ swing_V: p.swing_V * (1 + noisy(s)) })),
    signs: {},
    confirm: 'The sensors swing at rest, more with the drive and fans running.',
    repair: 'Mend the shield to its earth at the maker’s end; never at both. Read the swing again.',
    parts: ['wiring'],
    cautions: PLUGS,
  },
  {
    id: 'not-granted',
    prior: 6,
    brings: ['lamp'],
    name: 'regeneration not granted',
    plain: 'The drive does not take back what the brake asks it to: friction does it all, and pads wear.',
    apply: moves((p, s) => ({ grants: s === 0 ? p.grants : p.grants * (0.7 - 0.7 * s) })),
    signs: lit('regeneration'),
    confirm: 'Asked for and not granted, with the battery neither full nor cold and no fast stroke.',
    repair: 'The drive’s own test, by whoever is authorised; then a stop in the log again.',
    parts: ['drive'],
    cautions: ['high-voltage'],
  },
];

/** What is looked at, and how far that can be trusted. Handbook-models 8.9: lamps 0.02 either way. */
export const looks: readonly Look[] = [
  { item: 'codes', falseAlarm: 0.05, miss: 0.1 },
  { item: 'red', falseAlarm: 0.02, miss: 0.02 },
  { item: 'yellow', falseAlarm: 0.02, miss: 0.02 },
  { item: 'contacts', falseAlarm: 0.02, miss: 0.05 },
];
