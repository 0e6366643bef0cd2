import { answerFile } from '@/server/http';
import { calendarOf } from '@/server/calendar';
import { dueOnShelf } from '@/server/due';
import { done } from '@/server/outcome';
import { dueAccumulators } from '@/server/pre-charges';
import { readSettings } from '@/server/shelf';

export const GET = () =>
  answerFile('text/calendar; charset=utf-8', async (db) => {
    const [calibrations, accumulators, { body }] = await Promise.all([
      dueOnShelf(db),
      dueAccumulators(db),
      readSettings(db),
    ]);
    return done({ name: 'due.ics', body: calendarOf({ calibrations, accumulators }, body.unitSet) });
  });
