import type { Part } from '../../contract/family';
import { gauge, line, part } from '../part-kinds';

/** What the vacuum and the piston make. */
const FORCE = ['force', 'full', 'times', 'release', 'reserve'];
/** What the tank and its lines hold. */
const TANK = ['pull-down', 'static', 'reserve', 'recharge', 'standing'];
/** The same, and what leans on the vacuum that they hold under load. */
const SUPPLIED = [...TANK, 'force', 'full', 'times'];
const VALVE = ['dry', ...new Set([...FORCE, ...TANK])];
const EVERYTHING = ['cautions', ...VALVE, 'after'];

/** Lines that are opened by work on each side; with vacuum in the tank the rod moves. */
const AIR = ['supply'];
const FLUID = ['input'];
const BOTH = [...FLUID, ...AIR];
const ROD = ['supply', 'output'];

/** What can be changed on a rod-acting servo, and which steps it makes stale (handbook 8, opening). */
export const parts: readonly Part[] = [
  part('piston', 'Piston cup or diaphragm', FORCE, ROD),
  part('spring', 'Return spring', FORCE, ROD),
  part('air-valve', 'Air valve and its seat', VALVE, AIR),
  part('vacuum-valve', 'Vacuum valve and its seat', VALVE, AIR),
  part('valve', 'Valve and its seals', [...VALVE, 'after'], BOTH),
  part('fluid-seal', 'Fluid seal of the valve', [...VALVE, 'after'], BOTH),
  part('check-valve', 'Non-return valve', TANK, AIR),
  part('tank', 'Tank', SUPPLIED, AIR),
  part('intake', 'Air intake or its filter', ['pull-down', 'times', 'reserve'], []),
  part('whole', 'Several parts: the whole unit apart', EVERYTHING, [...FLUID, ...ROD]),
  line('fluid-line', 'Fluid line to the valve', ['force', 'full', 'after'], FLUID),
  line('vacuum-line', 'Vacuum line', SUPPLIED, AIR),
  gauge('fluid-gauge', 'A fluid gauge moved or changed', ['zeros', 'dry', 'force', 'full'], FLUID),
  gauge('load-cell', 'The load cell moved or changed', ['zeros', 'dry', ...FORCE], ROD),
  gauge('vacuum-gauge', 'The vacuum gauge moved or changed', ['zeros', ...TANK, 'force', 'full'], AIR),
];
