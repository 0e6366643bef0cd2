import { FAMILIES } from '@/core/families/registry';

/** The theme's variable for what is read at each port: the same on ladders and on traces. */
const INK: Readonly<Record<string, string>> = {
  input: '--hp-input',
  output: '--hp-output',
  supply: '--hp-supply',
  activation: '--hp-activation',
  front: '--hp-line',
  rear: '--mui-palette-warning-main',
  // What is drawn on one axis is told apart.
  'track-1': '--hp-activation',
  'track-2': '--hp-output',
  sensor: '--hp-supply',
  asked: '--hp-input',
  requested: '--hp-supply',
  granted: '--hp-output',
  'front-left': '--hp-line',
  'front-right': '--hp-input',
  'rear-left': '--mui-palette-warning-main',
  'rear-right': '--hp-supply',
};

/** Ports of other names, by the ink that a family gives them; where a port beside it has that ink by its name, the plain line's. */
const BY_FAMILY: Readonly<Record<string, string>> = Object.fromEntries(
  Object.values(FAMILIES).flatMap(({ ports }) =>
    ports.flatMap(({ id, ink }) =>
      ink ? [[id, ports.some((beside) => beside.id === ink) ? '--hp-line' : INK[ink]!]] : [],
    ),
  ),
);

export const inkFor = (port: string | null): string =>
  INK[port ?? ''] ?? BY_FAMILY[port ?? ''] ?? '--hp-quiet';
