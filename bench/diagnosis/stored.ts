import type { Step } from '../../src/core/contract/steps';
import { FAMILIES } from '../../src/core/families/registry';
import type { StoredPressureVehicleProfile } from '../../src/core/families/stored-pressure-vehicle';
import { Running } from '../../src/core/model/running';
import { placeOf } from '../../src/core/model/vectors';
import type { BenchRoom } from './bench-top';
import type { SetTo } from './vehicle';
import { Watching } from './watching';

/** Pressed slowly where the way up or down is read, and at once. */
const SLOW_NPERS = 40;
const AT_ONCE_NPERS = 2000;
/** Until both circuits were charged, have cooled, were charged again and the body stands, s. */
const CHARGES_S = 240;
/** A circuit that has not stopped rising by then is left, s. */
const LONGEST_S = 120;
/** It has stopped rising where it stands so far below its highest, Pa. */
const FALLS_PA = 3e4;
const LOOK_S = 0.1;
/** The first fluid has come into the vessels by then, s. */
const FIRST_S = 0.08;
const HELD_S = 3;
/** A light application is held and let go so long, s: one every five. */
const LIGHT_S = { held: 2, rests: 3 } as const;
const EMPTIES = 60;

/** How the pump of each kind is started and stopped. */
const PUMPS = {
  'stored-pressure': { on: { pump: true }, off: { pump: false } },
  'stored-pressure-vehicle': { on: { key: 'engine' }, off: { key: 'off' } },
} as const;
const SIDES = [
  { port: 'supply', lamp: 'front.lamp_Pa', n: '' },
  { port: 'supply-2', lamp: 'rear.lamp_Pa', n: '2' },
] as const;

/** Two circuits of stored pressure, tested through time: each step but the charge begins charged and settled. */
export function performOnStored(
  kind: keyof typeof PUMPS,
  parameters: readonly number[],
  room: BenchRoom,
  step: Step,
  set: SetTo,
): Record<string, number> {
  const family = FAMILIES[kind];
  const { unit: typical } = family.typical as Pick<StoredPressureVehicleProfile, 'unit'>;
  const { on, off } = PUMPS[kind];
  const car = new Watching(new Running(family.motion!, parameters, room, family.ports.length), family.ports);
  const shown: Record<string, number> = {};
  const lampOf = (id: string) => parameters[placeOf(family.parameters, id)]!;
  const foot = (pedal_N: number, press_NPerS: number, seconds: number) => {
    car.set({ pedal_N, press_NPerS });
    car.wait(seconds);
  };
  if (step.id !== 'charge' && step.id !== 'level') {
    car.set(on);
    car.wait(CHARGES_S);
  }
  if (step.state.engine === 'off' || step.state.pump === 'off') car.set(off);
  if (step.state.charge === 'spent')
    for (let stroke = 0; stroke < EMPTIES; stroke += 1) {
      foot(300, AT_ONCE_NPERS, 0.5);
      foot(0, AT_ONCE_NPERS, 0.5);
    }

  /** Both circuits from empty: when each lamp goes out, when each stops rising and at what. */
  const charge = () => {
    const from = { time: FIRST_S };
    const found = SIDES.map(({ lamp }) => ({
      lamp_Pa: lampOf(lamp),
      out: LONGEST_S,
      most: 0,
      at: LONGEST_S,
      stopped: false,
    }));
    for (let t = from.time; t < LONGEST_S && !found.every(({ stopped }) => stopped); t += LOOK_S) {
      car.wait(LOOK_S);
      SIDES.forEach(({ port }, i) => {
        const one = found[i]!;
        const now = car.now(port);
        if (one.out === LONGEST_S && now >= one.lamp_Pa) one.out = t + LOOK_S;
        if (one.stopped) return;
        if (now > one.most) [one.most, one.at] = [now, t + LOOK_S];
        one.stopped = now < one.most - FALLS_PA;
      });
    }
    SIDES.forEach(({ n }, i) => {
      const { out, most, at, stopped } = found[i]!;
      shown[`lamp.time${n}`] = out;
      shown[`charge.time${n}`] = stopped ? at : LONGEST_S;
      shown[`charge.supply${n}`] = most;
    });
    car.set(off);
  };
  /** Light presses until a gauge turns upward. */
  const cutIn = (port: string): number => {
    // Where its pump is let in just now it is waited for.
    for (let before = 0; car.now(port) > before; car.wait(1)) before = car.now(port);
    let least = car.now(port);
    for (let press = 0; press < 80; press += 1) {
      foot(typical.light_N, AT_ONCE_NPERS, 1);
      least = Math.min(least, car.now(port));
      foot(0, AT_ONCE_NPERS, 1);
      if (car.now(port) > least + FALLS_PA) break;
      least = Math.min(least, car.now(port));
    }
    return least;
  };
  const lift = (mode: string): number => {
    car.set({ heightLever: 'down', mode });
    car.wait(150);
    const low = car.now('left');
    car.set({ heightLever: 'linked' });
    const keeps = () => car.now('left');
    const time = car.timeUntil(
      () => keeps() >= parameters[placeOf(family.parameters, 'trim_m')]! - 2e-3,
      LONGEST_S,
    );
    // What was timed is the way that it had: to the lift that is asked for by the same speed.
    const way = keeps() - low;
    return way > 1e-3 ? (time * typical.lift_m) / way : LONGEST_S;
  };

  let applied = 0;
  for (const item of step.items) {
    if (item.kind === 'wait') {
      if (item.id !== 'stand.wait') car.wait(item.duration_s);
      continue;
    }
    if (item.kind !== 'reading' || item.id in shown) continue;
    switch (item.measures) {
      case 'zero':
        if (item.port === 'ram') {
          car.set({ heightLever: 'bled' });
          car.wait(60);
        }
        shown[item.id] = 0;
        continue;
      case 'flickUp':
        car.set(on);
        car.wait(FIRST_S);
        break;
      case 'lampOff':
        charge();
        continue;
      case 'cutIn':
      case 'cutIn2':
        shown[item.id] = cutIn(item.port);
        continue;
      case 'input': {
        const aim = set(item, item.target_Pa ?? 0);
        foot(aim, SLOW_NPERS, 200 / SLOW_NPERS + HELD_S);
        shown[item.id] = item.target_Pa ?? 0;
        continue;
      }
      case 'residual':
        foot(0, SLOW_NPERS, 200 / SLOW_NPERS + HELD_S);
        break;
      case 'onSprings':
        car.set({ heightLever: 'bled' });
        car.wait(30);
        break;
      case 'nudge':
        car.set({ bounced: true });
        car.wait(1);
        break;
      case 'rise':
        shown[item.id] = lift('gear');
        continue;
      case 'riseParked':
        shown[item.id] = lift('parked');
        continue;
      case 'kept':
        for (; applied < (item.applications ?? 0); applied += 1) {
          foot(typical.light_N, AT_ONCE_NPERS, LIGHT_S.held);
          foot(0, AT_ONCE_NPERS, LIGHT_S.rests);
        }
        break;
      case 'lamp':
      case 'lamp2':
        shown[item.id] = lampOf(item.measures === 'lamp' ? 'front.lamp_Pa' : 'rear.lamp_Pa');
        continue;
      case 'toLamp':
      case 'toLamp2': {
        const [front, rear] = SIDES.map(
          ({ port, lamp }) =>
            () =>
              car.now(port) <= lampOf(lamp),
        );
        const first = car.timeUntil(() => front!() || rear!(), typical.watch_s);
        const [frontLit, rearLit] = [front!(), rear!()];
        const more =
          frontLit && rearLit ? 0 : car.timeUntil(frontLit ? rear! : front!, typical.watch_s - first);
        shown['stand.time'] = frontLit ? first : first + more;
        shown['stand.time2'] = rearLit ? first : first + more;
        continue;
      }
    }
    shown[item.id] = car.now(item.port);
  }
  return shown;
}
