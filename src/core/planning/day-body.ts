import { z } from 'zod';

const time = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Times: hours and minutes, as 08:30.');

/** Who is here on a day, and what was fixed of it by hand. */
export const dayBodySchema = z.strictObject({
  benches: z
    .int('Benches: a whole number.')
    .min(1, 'Benches: one at least.')
    .max(20, 'Benches: 20 at the most.'),
  technicians: z
    .array(
      z
        .strictObject({
          id: z.string().min(1).max(80),
          name: z.string().trim().min(1).max(120),
          here: z.boolean(),
          from: time,
          until: time,
        })
        .refine(({ from, until }) => from < until, {
          path: ['until'],
          message: 'Until: later than from.',
        }),
    )
    .min(1)
    .max(30)
    .refine((all) => all.some(({ here }) => here), 'Somebody has to be here.'),
  /** Jobs whose order was fixed by hand. */
  order: z.array(z.string().max(80)).max(200),
  /** Who does a job, where that was fixed by hand. */
  given: z.record(z.string().max(80), z.string().max(80)),
  /** When on its day a job was promised. */
  promised: z.record(z.string().max(80), time),
});
export type DayBody = z.infer<typeof dayBodySchema>;

/** Minutes from midnight of a time such as 08:30. */
export const minutesFrom = (at: string): number => Number(at.slice(0, 2)) * 60 + Number(at.slice(3));

/** A time of day, with the days that it is later: "09:10", "09:10 tomorrow", "09:10 in 3 days". */
export const clockWords = (min: number): string => `${timeWords(min)} ${dayWords(min)}`.trim();

/** How many days later that is: nothing today, "tomorrow", "in 3 days". */
export function dayWords(min: number): string {
  const days = dayOf(min);
  return days === 0 ? '' : days === 1 ? 'tomorrow' : `in ${days} days`;
}

/** From one time to another: the day is said once where both are on it, "08:10–09:40 tomorrow". */
export const rangeWords = (low: number, high: number): string =>
  `${dayOf(low) === dayOf(high) ? timeWords(low) : clockWords(low)}–${clockWords(high)}`;

const dayOf = (min: number): number => Math.floor(Math.round(min) / 1440);

function timeWords(min: number): string {
  const at = Math.round(min) - dayOf(min) * 1440;
  const two = (value: number) => String(value).padStart(2, '0');
  return `${two(Math.floor(at / 60))}:${two(at % 60)}`;
}

/** Minutes in words: "45 min", "2 h 10". */
export const spanWords = (min: number): string => {
  const whole = Math.round(min);
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`;
};
