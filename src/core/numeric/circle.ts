/** Area of a bore, m². */
export const circle_m2 = (diameter_m: number): number => (Math.PI / 4) * diameter_m ** 2;
