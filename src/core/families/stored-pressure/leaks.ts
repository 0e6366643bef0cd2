import { mineralLeakOf_m3 } from '../../fluid/mineral-fluid';
import { grown } from '../severity';

/** Leaks as the handbook has them, as coefficients k in m³, stated as a technician measures them. */
export const stated = (k_m3: number) => k_m3 / mineralLeakOf_m3(1);
/** A valve that lets stored fluid back. Handbook-models 8.6. */
export const backwards = grown(stated(1e-16), stated(5e-15));
