import { z } from 'zod';

/** Where a device listens: the name of a machine, and a port of it. */
export interface Address {
  readonly host: string;
  readonly port: number;
}

const MOST_PORT = 65_535;

/** Reads `127.0.0.1:5025`. @returns null where it is no name with a port from 1 to 65 535 behind it */
export function parseAddress(text: string): Address | null {
  const [, host, digits] = /^([\w.-]+):(\d{1,5})$/.exec(text) ?? [];
  const port = Number(digits);
  return host && port >= 1 && port <= MOST_PORT ? { host, port } : null;
}

/** What an address that was kept before ports were checked is answered with. */
export const notAnAddress = (text: string) =>
  `“${text}” is no name and port that anything could listen at: change the address under Shelf, Settings.`;

/** A field for an address, or nothing where there is no such device. */
export const addressField = (name: string, example: string) =>
  z
    .string()
    .trim()
    .max(200)
    .refine((text) => text === '' || parseAddress(text) !== null, {
      error: `${name}: a name and a port from 1 to ${MOST_PORT}, as in ${example}, or nothing where there is none.`,
    });
