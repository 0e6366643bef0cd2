import { airExchange_PaM3PerS } from '../air/flow';
import { lineGive_m3PerPa, pressureOf_Pa } from '../fluid/closed-line';
import { inputAt, type Instant, type Motion } from '../model/motion';
import { PUMP_COMMAND, VALVE_COMMAND, type BenchHands } from './bench-hands';
import type { PumpDrive } from './pump-drive';

/** Tank of a shop's vacuum pump, m³. */
const TANK_M3 = 0.02;

/**
 * The bench's vacuum pump over time: a tank from which it takes S·(p − p_reach). It stands pulled down, as one that has run.
 * The hose from it is the unit's own.
 */
export const benchVacuumMotion: Motion = {
  states: [{ id: 'pumpTank_Pa', name: 'Tank of the pump, absolute', quantity: 'barometer', scale: 1e3 }],
  commands: [PUMP_COMMAND],
  owns: ['vacuum'],
  with: ([speed_m3PerS = 0], place) => {
    const { from, nodes } = place;
    const [line] = nodes;
    const floor_Pa = inputAt(place, 'barometer_Pa') - inputAt(place, 'supply_Pa');
    return {
      atRest: () => [floor_Pa],
      efforts: (y) => {
        line!.effort = y[from]!;
      },
      rates: (y, dy, at) => {
        const { pump } = (at as Instant<BenchHands>).hands;
        const pumped = pump ? speed_m3PerS * Math.max(0, y[from]! - floor_Pa) : 0;
        dy[from] = (line!.passed - pumped) / TANK_M3;
      },
    };
  },
};

/** Sonic conductance of a bench’s cock that lets the room in, m³/(s·Pa). */
export const VENT_M3PERSPA = 1e-7;

/**
 * The same pump where what it draws from is the vacuum side of the unit itself: what goes out follows from what stands there. Shut,
 * nothing does; vented, the room comes in.
 */
export const benchPumpMotion: Motion = {
  states: [],
  commands: [VALVE_COMMAND, PUMP_COMMAND],
  owns: [],
  with: ([speed_m3PerS = 0], place) => {
    const [line] = place.nodes;
    const floor_Pa = inputAt(place, 'barometer_Pa') - inputAt(place, 'supply_Pa');
    return {
      atRest: () => [],
      passes: (at) => {
        const { barometer_Pa, temperature_K } = at;
        const { pump, valve } = (at as Instant<BenchHands>).hands;
        const drawn = pump && valve === 'open' ? speed_m3PerS * Math.max(0, line!.effort - floor_Pa) : 0;
        line!.passed =
          valve === 'vented'
            ? airExchange_PaM3PerS(VENT_M3PERSPA, line!.effort, barometer_Pa, temperature_K)
            : drawn;
      },
    };
  },
};

/** A plugged port over time: the unit moves the pressure in it. */
export const pluggedPortMotion: Motion = {
  states: [],
  commands: [],
  owns: [],
  with: ([air_m3 = 0, stiffness_m3PerPa = 0], place) => {
    const line = { air_m3, stiffness_m3PerPa };
    const barometer_Pa = inputAt(place, 'barometer_Pa');
    place.nodes[0]!.give = (pressure_Pa) => lineGive_m3PerPa(line, pressure_Pa, barometer_Pa);
    return { atRest: () => [] };
  },
};

/** A bench's master cylinder over time: its pressure is the one at which its line has taken up what the rod displaced. */
export const benchMasterMotion: Motion = {
  states: [],
  commands: [],
  owns: ['rod'],
  with: ([area_m2 = 0, air_m3 = 0, stiffness_m3PerPa = 0], place) => {
    const line = { air_m3, stiffness_m3PerPa };
    const barometer_Pa = inputAt(place, 'barometer_Pa');
    const rod = place.nodes[0]!;
    rod.give = (force_N) =>
      lineGive_m3PerPa(line, Math.max(0, force_N) / area_m2, barometer_Pa) / area_m2 ** 2;
    return {
      atRest: () => [],
      efforts: () => {
        rod.effort = area_m2 * pressureOf_Pa(line, area_m2 * rod.passed, barometer_Pa);
      },
    };
  },
};

/** A load cell over time: the force in it follows from how far the rod has moved. */
export const loadCellMotion: Motion = {
  states: [],
  commands: [],
  owns: ['rod'],
  with: ([stiffness_NPerM = 0], { nodes }) => {
    const rod = nodes[0]!;
    rod.give = () => 1 / stiffness_NPerM;
    return {
      atRest: () => [],
      efforts: () => {
        rod.effort = stiffness_NPerM * rod.passed;
      },
    };
  },
};

/** A pump that charges accumulators over time: while it turns it stands at what it charges to, and gives what is taken. */
export const chargingMotion = ({ command, turns }: PumpDrive): Motion => ({
  states: [],
  commands: [command],
  parts: [{ id: 'pump', name: 'Pump, turning', quantity: 'percent' }],
  owns: ['charge'],
  with: ([charge_Pa = 0], { nodes }) => {
    const charge = nodes[0]!;
    return {
      atRest: () => [],
      efforts: (_y, { hands }) => {
        charge.effort = turns(hands) ? charge_Pa : 0;
      },
      parts: (_y, { hands }, out) => {
        out.pump = { at: Number(turns(hands)), of: 1 };
      },
    };
  },
});
