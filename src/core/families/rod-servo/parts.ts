import type { Part } from '../../contract/family';

/** What the vacuum and the piston make. */
const FORCE = ['force', 'full', 'times', 'release', 'reserve'];
/** What the tank and its lines hold. */
const TANK = ['pull-down', 'static', 'reserve', 'recharge', 'standing'];
const VALVE = ['dry', ...new Set([...FORCE, ...TANK])];
const EVERYTHING = ['cautions', ...VALVE, 'after'];

const changed =
  (kind: Part['kind']) =>
  (id: string, name: string, disturbs: readonly string[]): Part => ({
    id,
    name,
    kind,
    disturbs,
  });
const part = changed('part');
const line = changed('line');
const gauge = changed('gauge');

/** What can be changed on a rod-acting servo, and which steps it makes stale (handbook 8, opening). */
export const parts: readonly Part[] = [
  part('piston', 'Piston cup or diaphragm', FORCE),
  part('spring', 'Return spring', FORCE),
  part('air-valve', 'Air valve and its seat', VALVE),
  part('vacuum-valve', 'Vacuum valve and its seat', VALVE),
  part('valve', 'Valve and its seals', [...VALVE, 'after']),
  part('fluid-seal', 'Fluid seal of the valve', [...VALVE, 'after']),
  part('check-valve', 'Non-return valve', TANK),
  part('tank', 'Tank', TANK),
  part('intake', 'Air intake or its filter', ['times']),
  part('whole', 'Several parts: the whole unit apart', EVERYTHING),
  line('fluid-line', 'Fluid line to the valve', ['force', 'full', 'after']),
  line('vacuum-line', 'Vacuum line', [...TANK, 'times']),
  gauge('fluid-gauge', 'A fluid gauge moved or changed', ['zeros', 'dry', 'force', 'full']),
  gauge('load-cell', 'The load cell moved or changed', ['zeros', 'dry', ...FORCE]),
  gauge('vacuum-gauge', 'The vacuum gauge moved or changed', ['zeros', ...TANK, 'force', 'full']),
];
