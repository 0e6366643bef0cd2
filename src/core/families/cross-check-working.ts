import { z } from 'zod';
import { passageAllows_Pa } from '../contract/passage';
import { passageOf, typical } from './remote-vacuum/index';
import { FEWEST_POINTS, crossCheck } from '../metrology/cross-check';
import { Plot } from '../plot/plot';
import { axis, BAR } from '../plot/axes';
import { defineWorking, field, series } from '../contract/working';

const crossFields = z
  .strictObject({
    inputs_Pa: series('Input gauge, one reading a point', FEWEST_POINTS, 300 * BAR),
    outputs_Pa: series('Output gauge, in the same order', FEWEST_POINTS, 300 * BAR),
    inputZero_Pa: field('Input gauge, vented', 'pressure', -5 * BAR, 5 * BAR),
    outputZero_Pa: field('Output gauge, vented', 'pressure', -5 * BAR, 5 * BAR),
    step_Pa: field('Smallest readable step of both', 'pressure', 1, 10 * BAR),
  })
  .refine(({ inputs_Pa, outputs_Pa }) => inputs_Pa.length === outputs_Pa.length, {
    path: ['outputs_Pa'],
    message: 'Output gauge: as many readings are needed as of the input gauge.',
  });
type CrossFields = z.infer<typeof crossFields>;

function checked({ inputs_Pa, outputs_Pa, inputZero_Pa, outputZero_Pa, step_Pa }: CrossFields) {
  const u = step_Pa / Math.sqrt(12);
  const points = inputs_Pa.map((input, i) => ({
    input_Pa: input - inputZero_Pa,
    output_Pa: outputs_Pa[i]! - outputZero_Pa,
    u_input_Pa: u,
    u_output_Pa: u,
  }));
  const zeros = { input_Pa: inputZero_Pa, output_Pa: outputZero_Pa, u_input_Pa: u, u_output_Pa: u };
  return {
    points,
    check: crossCheck(points, zeros, (input_Pa) => passageAllows_Pa(passageOf(typical), input_Pa)),
  };
}

/** Whether two gauges disagree in scale, or the unit between them holds pressure back: readings with the assist off. */
export const cross = defineWorking<CrossFields>({
  name: 'cross-check',
  title: 'Cross-check of two gauges',
  about:
    'Whether two gauges disagree in scale, or the unit between them holds pressure back: readings with the assist off.',
  source: 'York’s fit, errors on both axes',
  input: crossFields,
  example: {
    inputs_Pa: [20, 45, 70, 95].map((x) => x * BAR),
    outputs_Pa: [21.6, 48.6, 75.6, 102.6].map((x) => x * BAR),
    inputZero_Pa: 0,
    outputZero_Pa: 0,
    step_Pa: 0.2 * BAR,
  },
  compute: (input) => {
    const { check } = checked(input);
    if (check.kind === 'undetermined')
      return [{ id: 'kind', name: 'Finding', text: 'Too few points to tell a slope from an offset.' }];
    if (check.kind === 'passage-fault')
      return [
        {
          id: 'kind',
          name: 'Finding',
          text: 'A passage fault: no two gauges disagree like that. Nothing is corrected.',
        },
        { id: 'worst_Pa', name: 'Held back at most', value: check.worst_Pa, quantity: 'pressure' },
      ];
    const words = check.threshold
      ? 'An offset remains that is no gauge’s zero: a threshold in the unit.'
      : check.scaleDiffers
        ? 'The two gauges differ in scale. Ratios are divided by the slope.'
        : 'The two gauges agree within what these readings tell.';
    return [
      { id: 'kind', name: 'Finding', text: words },
      {
        id: 'slope',
        name: 'Output gauge over input gauge',
        value: check.slope,
        quantity: 'ratio',
        u: check.u_slope,
      },
      {
        id: 'offset_Pa',
        name: 'Offset that remains',
        value: check.offset_Pa,
        quantity: 'pressure',
        u: check.u_offset_Pa,
      },
    ];
  },
  picture: (input, set) => {
    const { points, check } = checked(input);
    const most = 1.1 * Math.max(...points.flatMap((p) => [p.input_Pa, p.output_Pa]), BAR);
    const x = axis('Input', 'pressure', set, 0, most);
    const y = axis('Output', 'pressure', set, 0, most);
    const plot = new Plot(x, y);
    plot.line(
      [0, most].map((p) => [x.at(p), y.at(p)] as const),
      { dashed: true },
    );
    if (check.kind === 'through')
      plot.line(
        [0, most / Math.max(1, check.slope)].map(
          (p) => [x.at(p), y.at(check.offset_Pa + check.slope * p)] as const,
        ),
      );
    for (const point of points) plot.point(x.at(point.input_Pa), y.at(point.output_Pa));
    return plot.svg('Output gauge against input gauge, with the line that fits and the line of agreement');
  },
});
