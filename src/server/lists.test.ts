import { FAMILY_KINDS } from '@/core/families/registry';
import { jobQuerySchema, type JobQuery } from '@/core/records/job-query';
import { traceQuerySchema, type TraceQuery } from '@/core/records/trace-query';
import { Desk, taken } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { nextJobs, searchJobs } from './job-list';
import { replaceJob } from './jobs';
import { testers } from './list';
import { searchTraces } from './trace-list';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());
const jobs = (query: Partial<JobQuery>) => searchJobs(desk.db, jobQuerySchema.parse({ ...query }));
const traces = (query: Partial<TraceQuery>) => searchTraces(desk.db, traceQuerySchema.parse({ ...query }));
/** The day in the bench's own calendar. */
const dayOf = (iso: string) => new Date(iso).toLocaleDateString('sv-SE');

describe('a list narrowed down', () => {
  test('jobs by kind of unit, by who tested, by the days they were taken in, first and last counted', async () => {
    const all = (await jobs({})).jobs;
    for (const kind of FAMILY_KINDS)
      expect((await jobs({ kind })).jobs.map(({ id }) => id)).toEqual(
        all.filter(({ body }) => body.kind === kind).map(({ id }) => id),
      );
    expect(await testers(desk.db)).toEqual(
      [...new Set(all.flatMap(({ runs }) => runs.map((run) => run.technician)))].sort(),
    );
    const [technician] = await testers(desk.db);
    const theirs = await jobs({ technician });
    expect(theirs.total).toBeGreaterThan(0);
    expect(theirs.jobs.every(({ runs }) => runs.some((run) => run.technician === technician))).toBe(true);
    expect((await jobs({ technician: 'Nobody' })).total).toBe(0);
    const day = dayOf(all[0]!.createdAt);
    const thatDay = all.filter(({ createdAt }) => dayOf(createdAt) === day).map(({ id }) => id);
    expect((await jobs({ from: day, to: day })).jobs.map(({ id }) => id)).toEqual(thatDay);
    expect((await jobs({ to: '2001-01-01' })).total).toBe(0);
  });

  test('traces by words of name and job, by kind, by verdict of their run', async () => {
    const all = await traces({});
    expect(all.total).toBe(all.traces.length);
    const one = all.traces.find(({ jobTag }) => jobTag)!;
    const ofJob = await traces({ q: one.jobTag!.toLowerCase() });
    expect(ofJob.traces.map(({ id }) => id)).toContain(one.id);
    expect(ofJob.traces.every(({ jobTag, body }) => `${body.name} ${jobTag}`.includes(one.jobTag!))).toBe(
      true,
    );
    for (const kind of FAMILY_KINDS)
      expect((await traces({ kind })).traces.map(({ id }) => id)).toEqual(
        all.traces.filter((trace) => trace.kind === kind).map(({ id }) => id),
      );
    const judged = await traces({ verdict: 'faulty' });
    expect(judged.traces.every(({ headline }) => / fails?$/.test(headline ?? ''))).toBe(true);
    const names = (await traces({ sort: 'name', order: 'asc' })).traces.map(({ body }) => body.name);
    expect(names).toEqual([...names].sort());
  });

  test('by promise, the earliest first and those without one last, whenever they were taken in', async () => {
    const first = await desk.jobOf('GF-0425');
    const { version, body } = first;
    taken(await replaceJob(desk.db, first.id, version, { ...body, promisedOn: '2020-01-01' }, NOW));
    const loose = await desk.jobOf('GF-0412');
    taken(await replaceJob(desk.db, loose.id, loose.version, { ...loose.body, promisedOn: null }, NOW));
    const promises = async (order: 'asc' | 'desc') =>
      (await jobs({ sort: 'promised', order })).jobs.map((job) => job.body.promisedOn);
    const rising = await promises('asc');
    expect(rising[0]).toBe('2020-01-01');
    expect(rising.at(-1)).toBeNull();
    const dated = rising.filter((day) => day !== null);
    expect(dated).toEqual([...dated].sort());
    expect(await promises('desc')).toEqual([...[...dated].reverse(), null]);
    // What is next on the bench goes by the same order.
    const next = (await nextJobs(desk.db, 9)).map((job) => job.body.promisedOn);
    expect(next.length).toBeGreaterThan(1);
    expect(next).toEqual([...next].sort());
  });
});
