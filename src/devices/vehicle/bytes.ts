/** Two bytes of a 16-bit number, the higher first. */
export const u16 = (value: number): [number, number] => [value >> 8, value & 0xff];

/** The 16-bit number at a place among bytes. */
export const at16 = (bytes: Uint8Array, at: number): number => (bytes[at]! << 8) | bytes[at + 1]!;
