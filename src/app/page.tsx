import { daysBetween, type DueDate } from '@/core/shop/due';
import { bareOf, firstSteps } from '@/core/shop/first-steps';
import { benchNow } from '@/server/bench';
import { database } from '@/server/database';
import { losses, lossWords } from '@/server/head-file';
import { today } from '@/server/http';
import { dueOnShelf } from '@/server/due';
import { nextJobs } from '@/server/job-list';
import { dueAccumulators } from '@/server/pre-charges';
import { shopState } from '@/server/shop';
import { leftOutWords } from '@/server/readable';
import { LeftOut } from '@/ui/altered';
import { BenchPage, type BenchView } from '@/ui/bench-page';

/** A loss that was noticed is said on Bench for so many days; verifying says it for good. */
const SAID_DAYS = 7;
/** What falls due within this many days stands on the Bench. */
const SOON_DAYS = 30;

export default async function Bench() {
  const db = await database();
  const day = today();
  const [onBench, jobs, shop, due, accumulators, lost] = await Promise.all([
    benchNow(db),
    nextJobs(db, 12),
    shopState(db),
    dueOnShelf(db),
    dueAccumulators(db),
    losses(db),
  ]);
  const soon = ({ on }: DueDate) => daysBetween(day, on) <= SOON_DAYS;
  const view: BenchView = {
    onBench,
    today: day,
    steps: firstSteps(shop),
    gauges: shop.instruments.length,
    next: jobs.map((job) => {
      const bare = bareOf(job.body.kind, shop.instruments);
      return { job, blockedBy: bare.length > 0 ? `No gauge for: ${bare.join(', ')}` : null };
    }),
    due: due.filter(soon),
    accumulators: accumulators.filter(soon),
    lost: lost
      .filter(({ at }) => daysBetween(at.slice(0, 10), day) <= SAID_DAYS)
      .map(({ loss }) => lossWords(loss)),
  };
  return (
    <>
      <LeftOut words={leftOutWords()} />
      <BenchPage view={view} />
    </>
  );
}
