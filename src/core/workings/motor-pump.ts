import { z } from 'zod';
import { Plot } from '../plot/plot';
import {
  ceiling_Pa,
  motorPumpFlow_m3PerS,
  pumpCurrent_A,
  pumpDrop_V,
  type MotorPump,
} from '../fluid/fluid-pump';
import { HYDRAULIC_FLUIDS, viscosity_PaS } from '../fluid/hydraulic-fluid';
import { axis, BAR, steps } from '../plot/axes';
import { fluidField } from './fluid-field';
import { defineWorking, field } from '../contract/working';

/** A pump's own leak is told at this pressure and temperature. */
const TOLD_AT_PA = 100 * BAR;
const TOLD_AT_K = 293.15;

const fields = z.strictObject({
  supply_V: field('Volts at the battery, running', 'voltage', 4, 60),
  pressure_Pa: field('Pressure', 'pressure', 0, 300 * BAR),
  wiring_Ohm: field('Resistance of feed and earth', 'resistance', 0, 5),
  motor_Ohm: field('Resistance of the motor', 'resistance', 0.005, 5),
  constant_NmPerA: field('Torque for each ampere', 'torque', 1e-3, 1),
  friction_Nm: field('Torque that friction takes', 'torque', 0, 5),
  displacement_m3: field('Fluid for each turn', 'fluidVolume', 1e-9, 1e-4),
  leak_m3PerS: field('Leak within the pump at 100 bar and 20 °C', 'pumpFlow', 0, 1e-4),
  efficiency: field('Mechanical efficiency', 'percent', 0.1, 1),
  fluid: fluidField,
  fluid_K: field('Temperature of the fluid', 'temperature', 233.15, 393.15),
});
type Fields = z.infer<typeof fields>;

const pumpOf = ({ leak_m3PerS, fluid, ...asked }: Fields): MotorPump => ({
  ...asked,
  leak_m3: (leak_m3PerS * viscosity_PaS(HYDRAULIC_FLUIDS[fluid], TOLD_AT_K)) / TOLD_AT_PA,
});
const viscosityOf = ({ fluid, fluid_K }: Fields) => viscosity_PaS(HYDRAULIC_FLUIDS[fluid], fluid_K);
const flowAt = (asked: Fields, pressure_Pa: number, supply_V = asked.supply_V) =>
  motorPumpFlow_m3PerS(pumpOf(asked), supply_V, viscosityOf(asked), pressure_Pa);

/** The volts that the second line is drawn for. */
const LESS_V = 2;

/** What a motor pump gives and takes at a pressure, and where it gives out. */
export const motorPump = defineWorking<Fields>({
  name: 'motor-pump',
  title: 'Motor pump against pressure and volts',
  about:
    'What a motor pump gives and draws at a pressure, and the pressure at which it gives out: below the cut-out it never stops.',
  source: 'Direct-current motor and a pump with internal leakage; viscosity ASTM D341',
  input: fields,
  example: {
    supply_V: 13,
    pressure_Pa: 150 * BAR,
    wiring_Ohm: 0.02,
    motor_Ohm: 0.16,
    constant_NmPerA: 0.03,
    friction_Nm: 0.08,
    displacement_m3: 0.13e-6,
    leak_m3PerS: 5.4e-7,
    efficiency: 0.78,
    fluid: 'glycol',
    fluid_K: 293.15,
  },
  compute: (asked) => {
    const pump = pumpOf(asked);
    return [
      { id: 'flow_m3PerS', name: 'Flow', value: flowAt(asked, asked.pressure_Pa), quantity: 'pumpFlow' },
      {
        id: 'current_A',
        name: 'Current',
        value: pumpCurrent_A(pump, asked.pressure_Pa),
        quantity: 'current',
      },
      {
        id: 'drop_V',
        name: 'Lost in the wiring',
        value: pumpDrop_V(pump, asked.pressure_Pa),
        quantity: 'voltage',
      },
      {
        id: 'ceiling_Pa',
        name: 'Gives out at',
        value: ceiling_Pa(pump, asked.supply_V, viscosityOf(asked)),
        quantity: 'pressure',
      },
    ];
  },
  picture: (asked, set) => {
    const most_Pa = Math.max(200 * BAR, 1.1 * asked.pressure_Pa);
    const x = axis('Pressure', 'pressure', set, 0, most_Pa);
    const y = axis('Flow', 'pumpFlow', set, 0, Math.max(1e-7, 1.1 * flowAt(asked, 0)));
    const plot = new Plot(x, y);
    const curve = (supply_V: number) =>
      steps(0, most_Pa).map((p) => [x.at(p), y.at(flowAt(asked, p, supply_V))] as const);
    plot.line(curve(asked.supply_V - LESS_V), { dashed: true });
    plot.line(curve(asked.supply_V));
    plot.words(x.at(0), y.at(flowAt(asked, 0, asked.supply_V - LESS_V)), `${LESS_V} V less`);
    plot.point(x.at(asked.pressure_Pa), y.at(flowAt(asked, asked.pressure_Pa)));
    return plot.svg('Flow against pressure at these volts; dashed, two volts less');
  },
});
