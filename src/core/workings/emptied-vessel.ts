import { left_Pa, type Emptied, type Heated } from '../fluid/emptied';
import { Plot } from '../plot/plot';
import type { UnitSet } from '../quantities/units';
import { axis, BAR } from '../plot/axes';
import { field } from '../contract/working';

/** An accumulator that is emptied from full with its pump off. */
export const vesselFields = {
  shell_m3: field('Inside of the shell', 'volume', 1e-5, 0.02),
  preCharge_Pa: field('Pre-charge at 20 °C', 'pressure', 0, 250 * BAR),
  temperature_K: field('Temperature of the shell', 'temperature', 243.15, 353.15),
  full_Pa: field('Settled at', 'pressure', BAR, 250 * BAR),
};

/** Draws of fluid beyond so many are not drawn. */
const MOST_DRAWN = 120;

/** What is drawn of a vessel that is emptied in equal draws. */
interface Drawn {
  /** What a draw is called, several of them. */
  readonly draws: string;
  readonly draw_m3: number;
  /** How many it is enough for, one behind the other and far apart. */
  readonly fast: number;
  readonly slow: number;
  /** Pressure at which it is no longer enough, and the word for that. */
  readonly least_Pa: number;
  readonly word: string;
  /** The picture in a sentence. */
  readonly says: string;
}

/** Pressure left after each draw, far apart; dashed, one behind the other. */
export function drawEmptied(asked: Emptied, drawn: Drawn, set: UnitSet): string {
  const { draws, draw_m3, fast, slow, least_Pa, word, says } = drawn;
  const most = Math.min(MOST_DRAWN, Math.ceil(1.2 * slow) + 1);
  const x = { title: draws, low: 0, high: most };
  const y = axis('Pressure left', 'pressure', set, 0, 1.1 * asked.full_Pa);
  const plot = new Plot(x, y);
  const curve = (heated: Heated) =>
    Array.from({ length: most + 1 }, (_, n) => [n, y.at(left_Pa(asked, n * draw_m3, heated))] as const);
  plot.line(curve(true));
  plot.line(curve(false), { dashed: true });
  plot.line([
    [0, y.at(least_Pa)],
    [most, y.at(least_Pa)],
  ]);
  plot.words(0, y.at(least_Pa), word);
  plot.mark(fast, `${fast} in a row`);
  if (slow > fast) plot.mark(slow, `${slow} far apart`);
  return plot.svg(says);
}
