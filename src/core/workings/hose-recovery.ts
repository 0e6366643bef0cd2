import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { emptyTime_s } from '../air/fill';
import { REFERENCE_TEMPERATURE_K } from '../air/leak';
import { Plot } from '../plot/plot';
import { INHG_PA } from '../quantities/units';
import { axis, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const fields = z
  .strictObject({
    hose_m3PerSPa: field('Hose, sonic conductance', 'conductance', 1e-10, 1e-6),
    volume_m3: field('Volume of booster and tank', 'volume', 1e-4, 0.1),
    source_Pa: field('Vacuum at the source', 'depression', INHG_PA, SEA_LEVEL_PA - 1e3),
    after_Pa: field('Vacuum just after the release', 'depression', 0, SEA_LEVEL_PA),
    part: field('Part of the source’s vacuum to come back to', 'ratio', 0.1, 0.99),
  })
  .refine(({ after_Pa, source_Pa }) => after_Pa < source_Pa, {
    path: ['after_Pa'],
    message: 'Vacuum just after the release: it must be below the one at the source.',
  });
type Fields = z.infer<typeof fields>;

/** Time to a part of the source's vacuum with so much of the hose open. */
function recovery_s(
  { hose_m3PerSPa, volume_m3, source_Pa, after_Pa }: Fields,
  part: number,
  open = 1,
): number {
  const from_Pa = SEA_LEVEL_PA - after_Pa;
  const to_Pa = SEA_LEVEL_PA - part * source_Pa;
  if (to_Pa >= from_Pa) return 0;
  return emptyTime_s(from_Pa, to_Pa, SEA_LEVEL_PA - source_Pa, {
    conductance_m3PerSPa: open * hose_m3PerSPa,
    volume_m3,
    temperature_K: REFERENCE_TEMPERATURE_K,
  });
}

/** So much of a hose is left in the picture's second curve. */
const NARROWED = 0.2;

/** How long the vacuum takes to come back after a release: the only reading that a narrow hose cannot hide from. */
export const hoseRecovery = defineWorking<Fields>({
  name: 'hose-recovery',
  title: 'Recovery through a vacuum hose',
  about:
    'How long the vacuum takes to come back after a release. A blocked hose passes every gauge that stands still; only this shows it.',
  source: 'Isothermal emptying through one opening into a steady source, ISO 6358 with b = 0.5',
  input: fields,
  example: {
    hose_m3PerSPa: 2.5e-8,
    volume_m3: 4e-3,
    source_Pa: 19 * INHG_PA,
    after_Pa: 15 * INHG_PA,
    part: 0.9,
  },
  compute: (asked) => [
    { id: 'time_s', name: 'Comes back in', value: recovery_s(asked, asked.part), quantity: 'duration' },
    {
      id: 'narrowed_s',
      name: 'With a fifth of the hose left',
      value: recovery_s(asked, asked.part, NARROWED),
      quantity: 'duration',
    },
    { id: 'to_Pa', name: 'Comes back to', value: asked.part * asked.source_Pa, quantity: 'depression' },
  ],
  picture: (asked, set) => {
    const parts = steps(asked.after_Pa / asked.source_Pa, 0.99);
    const most_s = recovery_s(asked, 0.99, NARROWED);
    const x = axis('Time after the release', 'duration', set, 0, most_s);
    const y = axis('Vacuum', 'depression', set, 0, 1.1 * asked.source_Pa);
    const plot = new Plot(x, y);
    for (const open of [1, NARROWED])
      plot.line(
        parts.map((part) => [x.at(recovery_s(asked, part, open)), y.at(part * asked.source_Pa)] as const),
      );
    plot.point(x.at(recovery_s(asked, asked.part)), y.at(asked.part * asked.source_Pa));
    return plot.svg('Vacuum after a release through this hose, and through a fifth of it');
  },
});
