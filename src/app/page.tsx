import { calibrationState } from '@/core/metrology/instrument';
import { FAMILIES } from '@/core/families/registry';
import { benchNow } from '@/server/bench';
import { database } from '@/server/database';
import { today } from '@/server/http';
import { listJobs } from '@/server/jobs';
import { usualRig } from '@/server/runs';
import { listInstruments } from '@/server/shelf';
import { BenchPage, type BenchView } from '@/ui/bench-page';

export default async function Bench() {
  const db = await database();
  const day = today();
  const [onBench, jobs, instruments] = await Promise.all([benchNow(db), listJobs(db), listInstruments(db)]);
  const shelf = instruments.map(({ body }) => body);
  const waiting = jobs.filter((job) => job.runs.length === 0);
  const byPromise = (a: string | null, b: string | null) => (a ?? '9999').localeCompare(b ?? '9999');
  const view: BenchView = {
    onBench,
    today: day,
    next: waiting
      .sort((a, b) => byPromise(a.body.promisedOn, b.body.promisedOn))
      .slice(0, 12)
      .map((job) => {
        const { ports } = FAMILIES[job.body.kind];
        const rig = usualRig(ports, shelf);
        const bare = ports.filter(({ id }) => rig[id]!.length === 0).map(({ name }) => name);
        return { job, blockedBy: bare.length > 0 ? `No gauge for: ${bare.join(', ')}` : null };
      }),
    overdue: shelf
      .filter((gauge) => calibrationState(gauge, day) === 'overdue')
      .map(({ tag, name, calibrationDue }) => ({ tag, name, due: calibrationDue! })),
  };
  return <BenchPage view={view} />;
}
