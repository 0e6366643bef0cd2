import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import sharp from 'sharp';
import type { JobEntry } from '@/core/records/entries';
import { jobQuerySchema } from '@/core/records/job-query';
import type { StoredJob } from '@/core/records/views';
import { searchJobs } from '../job-list';
import { addNote } from '../notes';
import type { Outcome } from '../outcome';
import { addTechnician, listTechnicians } from '../technicians';
import { FIXTURE_NOW, seededDatabase } from './fixture';
import { signer } from './shelf';

/** A database of the demo world in a folder of its own, with what tests of the records do with it. */
export class Desk {
  private constructor(
    readonly folder: string,
    readonly db: Knex,
  ) {}

  static async open(): Promise<Desk> {
    const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-desk-'));
    return new Desk(folder, await seededDatabase(path.join(folder, 'hard-pedal.sqlite')));
  }

  async close(): Promise<void> {
    await this.db.destroy();
    rmSync(this.folder, { recursive: true, force: true });
  }

  file = (name: string) => path.join(this.folder, name);

  async jobOf(tag: string, from = this.db): Promise<StoredJob> {
    const { jobs } = await searchJobs(from, jobQuerySchema.parse({ q: tag }));
    return jobs.find(({ body }) => body.tag === tag)!;
  }

  note = (job: string, entry: JobEntry) => addNote(this.db, job, { id: newId(), entry }, FIXTURE_NOW);

  /** Somebody who may sign. */
  async signer() {
    const by = { technician: (await listTechnicians(this.db))[0]!.id, pin: signer.pin };
    const fresh = { name: 'Pell Tarn', pin: '471100', by };
    const { id } = taken(await addTechnician(this.db, fresh, FIXTURE_NOW));
    return { technician: id, pin: fresh.pin };
  }
}

let count = 0;
/** Identities in order, so that a failing test fails the same way twice. */
export const newId = () => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;

/** What was done. @throws where it was refused */
export function taken<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.why.message);
  return outcome.value;
}

/** The sentence of a refusal; empty where it was done. */
export const whyNot = (outcome: Outcome<unknown>) => (outcome.ok ? '' : outcome.why.message);

export const FINDING = {
  type: 'finding',
  finding: { kind: 'noise', point: 'end-cap', words: 'Hisses like a kettle', fault: 'poppet-leak' },
} as const;

export const WORK = {
  type: 'work',
  work: { part: 'diaphragm', did: 'replaced', reason: 'Torn', provenance: 'new', serial: 'D-77' },
} as const;

export const picture = () => sharp({ create: { width: 40, height: 20, channels: 3, background: '#804020' } });
