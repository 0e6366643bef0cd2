import { Box } from '@mui/material';
import { clockWords, dayWords, minutesFrom } from '@/core/planning/day-body';
import type { DayView } from '@/core/planning/day-view';

/** From when to when a day is drawn, minutes. */
export interface Scale {
  readonly from: number;
  readonly until: number;
}

/** Columns of the day, above and in each of its rows. */
export const COLUMNS = '44px 160px minmax(0, 1fr) 170px 130px';

const DAY_MIN = 1440;
const SHORTEST_MIN = 120;

/**
 * From now to the end of the last job or, where that is later, to when the last one goes home; once nothing more is done today, the first
 * day on which something is.
 */
export function scaleOf({ now_min, body, plan, tasks }: DayView): Scale {
  const begins = Math.min(...plan.placed.map(({ from_min }) => from_min));
  const day_min = Number.isFinite(begins) ? Math.floor(begins / DAY_MIN) * DAY_MIN : 0;
  const home = Math.max(...body.technicians.filter(({ here }) => here).map((one) => minutesFrom(one.until)));
  const ends = tasks.map(({ id }) => plan.finish_min[id]!).filter((end) => end < day_min + DAY_MIN);
  const from = Math.floor((day_min > 0 ? begins : now_min) / 30) * 30;
  const until = Math.ceil(Math.max(day_min + home, ...ends) / 30) * 30;
  return { from, until: Math.max(from + SHORTEST_MIN, until) };
}

/** Where a time lies on it, in percent: what is beyond it stands at its end. */
export const placeOn = ({ from, until }: Scale, min: number): number =>
  (100 * Math.min(Math.max(min - from, 0), until - from)) / (until - from);

/** The hours above the rows. */
export function DayScale({ view }: { view: DayView }) {
  const scale = scaleOf(view);
  const span = scale.until - scale.from;
  const every = span > 600 ? 120 : span > 240 ? 60 : 30;
  const first = Math.ceil(scale.from / every) * every;
  const marks = Array.from(
    // The last one would stand in the next column.
    { length: Math.ceil((scale.until - first) / every) },
    (_, i) => first + i * every,
  );
  return (
    <Box
      aria-hidden
      sx={{
        display: { xs: 'none', md: 'grid' },
        gridTemplateColumns: COLUMNS,
        gap: 2,
        color: 'text.secondary',
        fontSize: '0.85rem',
      }}
    >
      <Box sx={{ gridColumn: 2, fontWeight: 700 }}>{dayWords(scale.from)}</Box>
      <Box sx={{ gridColumn: 3, position: 'relative', height: 22 }}>
        {marks.map((at) => (
          <Box
            key={at}
            sx={{ position: 'absolute', left: `${placeOn(scale, at)}%`, transform: 'translateX(-50%)' }}
          >
            {clockWords(at % DAY_MIN)}
          </Box>
        ))}
      </Box>
      <Box>Done</Box>
      <Box>Promised</Box>
    </Box>
  );
}
