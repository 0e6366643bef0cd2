import type { Knex } from 'knex';
import type { ShopState } from '@/core/shop/first-steps';
import { PRACTICE_TAG } from './practice-gauges';
import { listInstruments, listProfiles, readSettings } from './shelf';
import { listTechnicians } from './technicians';

/** What this shop has of what a test needs. Practice counts for nothing. */
export async function shopState(db: Knex): Promise<ShopState> {
  const [instruments, profiles, technicians, settings, tested] = await Promise.all([
    listInstruments(db),
    listProfiles(db),
    listTechnicians(db),
    readSettings(db),
    db('runs')
      .join('jobs', 'jobs.id', 'runs.job_id')
      .whereNotNull('runs.finished_at')
      .whereNot('jobs.tag', 'like', `${PRACTICE_TAG} %`)
      .first('runs.id'),
  ]);
  return {
    instruments: instruments.map(({ body }) => body),
    profiles: profiles.map(({ kind }) => ({ kind })),
    technicians: technicians.length,
    shopName: settings.body.shopName,
    tested: tested !== undefined,
  };
}
