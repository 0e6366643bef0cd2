import { z } from 'zod';
import type { PowerPiston, RodLoad } from '../fluid/power-piston';
import type { Nodes } from '../model/member';
import { amount } from './profile-fields';

const CC = 1e-6;

/** Fields of a profile: how a booster with a spool and a power piston meters, whatever feeds it. Handbook-models 8.4. */
export const powerFields = {
  pedalRatio: amount('Pedal ratio', 'ratio', 1, 10),
  ratio: amount('Output for each newton of input', 'ratio', 1.5, 12),
  opens_N: amount('Input at which the spool opens', 'force', 0, 500),
  jump_N: amount('Output that comes at once then', 'force', 0, 2000),
  friction_N: amount('Friction of the spool, at the input', 'force', 0, 200),
  area_m2: amount('Area of the power piston', 'area', 5e-5, 5e-3),
  spring_N: amount('Return spring', 'force', 0, 1000),
  spool_m3: amount('Let go with each release', 'fluidVolume', 0, 10 * CC),
  assist_N: z
    .array(amount('Pedal force', 'force', 10, 600))
    .min(2, 'Pedal forces: at least 2 are needed.')
    .max(6, 'Pedal forces: 6 at the most.')
    .refine(
      (list) => list.every((force, i) => i === 0 || force > list[i - 1]!),
      'Pedal forces: write them in rising order.',
    )
    .meta({ title: 'Pedal forces', quantity: 'force' }),
};

/** Its parameters, each by the name of its field. */
export const POWER_PARAMETERS = [
  { id: 'pedalRatio', name: 'Pedal ratio', quantity: 'ratio' },
  { id: 'ratio', name: 'Output for each newton of input', quantity: 'ratio' },
  { id: 'opens_N', name: 'Input at which the spool opens', quantity: 'force' },
  { id: 'jump_N', name: 'Output that comes at once then', quantity: 'force' },
  { id: 'friction_N', name: 'Friction of the spool', quantity: 'force' },
  { id: 'area_m2', name: 'Area of the power piston', quantity: 'area' },
  { id: 'spring_N', name: 'Return spring', quantity: 'force' },
  { id: 'spool_m3', name: 'Let go with each release', quantity: 'fluidVolume' },
] as const;

export type Powered = Readonly<Record<(typeof POWER_PARAMETERS)[number]['id'], number>>;

/** How far a sound spool's opening and a sound spring may be off, as a part: they show at light forces and without a pump. */
const OPENS_PART = 0.25;
const SPRING_PART = 0.15;

/** The parameters as a profile has them. */
export const powerValues = (profile: Powered): Powered => ({
  pedalRatio: profile.pedalRatio,
  ratio: profile.ratio,
  opens_N: profile.opens_N,
  jump_N: profile.jump_N,
  friction_N: profile.friction_N,
  area_m2: profile.area_m2,
  spring_N: profile.spring_N,
  spool_m3: profile.spool_m3,
});

/** How far they may lie from that. @param output_fraction the profile's limit of output at a force */
export const powerTolerances = ({ ratio, opens_N, spring_N }: Powered, output_fraction: number) => ({
  ratio: output_fraction * ratio,
  opens_N: OPENS_PART * opens_N,
  spring_N: SPRING_PART * spring_N,
});

/** Its power piston. */
export const pistonOf = ({ ratio, opens_N, jump_N, area_m2, spring_N }: Powered): PowerPiston => ({
  ratio: Math.max(LEAST_RATIO, ratio),
  opens_N,
  jump_N,
  area_m2,
  spring_N,
});
/** A piston that gave no more than it is given would never run out of assist. */
const LEAST_RATIO = 1.01;

/** Input of the spool at a pedal force on the way up, N. */
export const inputOf_N = ({ pedalRatio, friction_N }: Powered, pedal_N: number): number =>
  Math.max(0, pedalRatio * pedal_N - friction_N);

/** Pedal force of an application, N: the heaviest of those named. */
export const applied_N = ({ assist_N }: { readonly assist_N: readonly number[] }): number =>
  Math.max(...assist_N);

/** What a rod pushes at a terminal. */
export const rodLoad = (nodes: Nodes, terminal: number): RodLoad => ({
  travel_m: (force_N) => nodes.taken(terminal, force_N),
  goesOn_mPerS: (force_N) => nodes.goesOn(terminal, force_N),
});
