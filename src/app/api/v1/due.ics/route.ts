import { answerFile } from '@/server/http';
import { calendarOf } from '@/server/calendar';
import { dueOnShelf } from '@/server/due';
import { done } from '@/server/outcome';

export const GET = () =>
  answerFile('text/calendar; charset=utf-8', async (db) =>
    done({ name: 'calibrations.ics', body: calendarOf(await dueOnShelf(db)) }),
  );
