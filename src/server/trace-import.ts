import type { Knex } from 'knex';
import { z } from 'zod';
import { layoutSchema } from '@/core/signals/csv/layout';
import type { TraceProduct } from '@/workers/trace-product';
import { now } from './http';
import { findJob } from './jobs';
import { done, invalid, refused, type Outcome } from './outcome';
import { searchOf } from './request';
import { findProfile } from './shelf';
import { readLog } from './trace-job';
import { aboutFor, keepTrace, type StoredTrace } from './traces';

const json = z
  .string()
  .max(100_000)
  .transform((text, context): unknown => {
    try {
      return JSON.parse(text);
    } catch {
      context.addIssue('Layout: this is not JSON.');
      return z.NEVER;
    }
  });

/** What is said of a log in the query of its upload. */
export const importQuerySchema = z.object({
  name: z.string().trim().min(1, 'Give the trace a name.').max(200),
  layout: json.pipe(layoutSchema).optional(),
  profile: z.string().max(80).optional(),
  job: z.string().max(80).optional(),
});

/** A trace as it was kept, with what could not be told of its file. */
export type ImportedTrace = StoredTrace & { readonly doubts: readonly string[] };

/** Reads a log as it comes in and keeps it as a trace. */
export async function importLog(db: Knex, request: Request): Promise<Outcome<ImportedTrace>> {
  const query = importQuerySchema.safeParse(asked(request));
  if (!query.success) return invalid(query.error.issues);
  const { name, layout, profile, job } = query.data;
  if (job && !(await findJob(db, job)))
    return invalid([{ path: ['job'], message: 'Job: there is none of this number.' }]);
  if (profile && !(await findProfile(db, profile)))
    return invalid([{ path: ['profile'], message: 'Profile: there is none of this number.' }]);
  const read = await productOfRequest(db, request, layout ?? null, profile ?? null);
  if (!read.ok) return read;
  const origin = {
    name,
    source: 'file' as const,
    profileId: profile ?? null,
    jobId: job ?? null,
    runId: null,
  };
  const kept = await keepTrace(db, origin, read.value, now());
  return kept.ok ? done({ ...kept.value, doubts: read.value.doubts }) : kept;
}

/** Every estimator's result of a log, as plain data; nothing is kept. */
export async function analyseLog(db: Knex, request: Request): Promise<Outcome<Omit<TraceProduct, 'packed'>>> {
  const query = importQuerySchema.partial().safeParse(asked(request));
  if (!query.success) return invalid(query.error.issues);
  const read = await productOfRequest(db, request, query.data.layout ?? null, query.data.profile ?? null);
  if (!read.ok) return read;
  const { packed: _packed, ...rest } = read.value;
  return done(rest);
}

const asked = (request: Request) => Object.fromEntries(searchOf(request));

async function productOfRequest(
  db: Knex,
  request: Request,
  layout: z.infer<typeof layoutSchema> | null,
  profile: string | null,
): Promise<Outcome<TraceProduct>> {
  const about = await aboutFor(db, { profileId: profile });
  const bytes = Number(request.headers.get('content-length') ?? 0);
  const outcome = await readLog(request.body, { layout, about, bytes }, request.signal);
  return outcome.ok ? done(outcome.product) : refused({ code: 'invalid', message: outcome.why, fields: {} });
}
