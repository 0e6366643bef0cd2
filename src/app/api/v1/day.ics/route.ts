import { dayCalendarOf } from '@/server/calendar';
import { calendarEntries, dayPlan } from '@/server/day';
import { answerFile, localTime } from '@/server/http';
import { done } from '@/server/outcome';

export const dynamic = 'force-dynamic';

export const GET = () =>
  answerFile('text/calendar; charset=utf-8', async (db) => {
    const found = await dayPlan(db, localTime());
    if (!found.ok) return found;
    const { day } = found.value;
    return done({ name: `plan-${day}.ics`, body: dayCalendarOf(day, calendarEntries(found.value)) });
  });
