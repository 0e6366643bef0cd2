import { daysBetween } from '@/core/records/due';
import { FAMILIES } from '@/core/families/registry';
import { benchNow } from '@/server/bench';
import { database } from '@/server/database';
import { today } from '@/server/http';
import { dueOnShelf } from '@/server/due';
import { nextJobs } from '@/server/job-list';
import { usualRig } from '@/server/runs';
import { listInstruments } from '@/server/shelf';
import { BenchPage, type BenchView } from '@/ui/bench-page';

/** Calibrations that fall due within this many days stand on the Bench. */
const SOON_DAYS = 30;

export default async function Bench() {
  const db = await database();
  const day = today();
  const [onBench, jobs, instruments, due] = await Promise.all([
    benchNow(db),
    nextJobs(db, 12),
    listInstruments(db),
    dueOnShelf(db),
  ]);
  const shelf = instruments.map(({ body }) => body);
  const view: BenchView = {
    onBench,
    today: day,
    next: jobs.map((job) => {
      const { ports } = FAMILIES[job.body.kind];
      const rig = usualRig(ports, shelf);
      const bare = ports.filter(({ id }) => rig[id]!.length === 0).map(({ name }) => name);
      return { job, blockedBy: bare.length > 0 ? `No gauge for: ${bare.join(', ')}` : null };
    }),
    due: due.filter(({ on }) => daysBetween(day, on) <= SOON_DAYS),
  };
  return <BenchPage view={view} />;
}
