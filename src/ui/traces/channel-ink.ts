/** The theme's variable for what is read at each port: the same on ladders and on traces. */
const INK: Readonly<Record<string, string>> = {
  input: '--hp-input',
  output: '--hp-output',
  supply: '--hp-supply',
  activation: '--hp-activation',
  front: '--hp-line',
  rear: '--mui-palette-warning-main',
};

export const inkFor = (port: string | null): string => INK[port ?? ''] ?? '--hp-quiet';
